using SpringLoft.App;
using SpringLoft.App.Closing;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;
using SpringLoft.Server.Workspaces;

namespace SpringLoft.Server.Closing;

internal sealed record CloseBody(AfterArchive AfterArchive);

internal static class ClosingEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/loft", (Caller who, Loft loft) => loft.See(who)).WithName("loft").Needs(Act.SeeOwnClasses);
        var k = api.MapGroup("/classes/{classId:long}");
        k.MapGet("/closing", (long classId, ClosingDesk desk) => desk.See(new SpringLoft.Core.ClassId(classId))).WithName("closing").Needs(Act.Arrange);
        k.MapPost("/closing", (long classId, CloseBody body, Caller who, ClosingDesk desk) =>
            new Made(desk.Close(who, new(classId), body.AfterArchive).Value)).WithName("closeClass").Needs(Act.CloseClass);
        k.MapGet("/runs/{runId:long}", (long classId, long runId, ClosingDesk desk) => desk.See(new(classId), new(runId))).WithName("run").Needs(Act.Arrange);
        k.MapGet("/runs/{runId:long}/events", (long classId, long runId, ClosingDesk desk, CancellationToken stop) =>
            TypedResults.ServerSentEvents(desk.Follow(new(classId), new(runId), stop))).WithName("runEvents").Needs(Act.Arrange);
        k.MapGet("/package", (long classId, Loft loft) => Uploads.Send(loft.OpenPackage(new(classId)))).WithName("package").SendsFile().Needs(Act.CloseClass);
        k.MapGet("/returned", (long classId, Caller who, LeftClass left) => left.Returned(who, new(classId))).WithName("ownReturned").Needs(Act.TakeHome);
        k.MapGet("/returned/{fileId:long}", (long classId, long fileId, Caller who, LeftClass left) => Uploads.Send(left.Open(who, new(classId), fileId))).WithName("ownReturnedFile").SendsFile().Needs(Act.TakeHome);
        k.MapGet("/take-home", (long classId, Caller who, Loft loft) => Uploads.Send(loft.OpenTakeHome(who, new(classId)))).WithName("takeHome").SendsFile().Needs(Act.TakeHome);
        k.MapPost("/restoring", (long classId, VersionBody body, Caller who, Loft loft) =>
        {
            loft.Restore(who, new(classId), body.Version);
            return TypedResults.NoContent();
        }).WithName("restoreClass").Needs(Act.CloseClass);
    }
}
