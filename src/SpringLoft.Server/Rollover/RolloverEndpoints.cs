using SpringLoft.App;
using SpringLoft.App.Rollover;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;
using SpringLoft.Server.Workspaces;

namespace SpringLoft.Server.Rollover;

internal sealed record UndoBody(int Position);

internal static class RolloverEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/rollover", (Caller who, RollingMany many, long? year) => many.See(who, year is { } y ? new YearId(y) : null)).WithName("rollDesk").Needs(Act.SeeBoard);
        api.MapPost("/rollover/preview", (RollDraft body, Caller who, RollingMany many) => many.Preview(who, body)).WithName("previewRollMany").Needs(Act.SeeBoard);
        api.MapPost("/rollover/runs", (RollDraft body, Caller who, RollingMany many) => new Made(many.Begin(who, body).Value)).WithName("rollMany").Needs(Act.SeeBoard);
        api.MapGet("/rollover/runs/{runId:long}", (long runId, Caller who, RollingMany many) => many.See(who, new RunId(runId))).WithName("rollRun").Needs(Act.SeeBoard);
        api.MapPost("/rollover/runs/{runId:long}/undo", (long runId, UndoBody body, Caller who, RollingMany many) =>
        {
            many.Undo(who, new(runId), body.Position);
            return TypedResults.NoContent();
        }).WithName("undoRoll").Needs(Act.SeeBoard);
        var k = api.MapGroup("/classes/{classId:long}");
        k.MapGet("/structure", (long classId, StructureFiles files) => files.Write(new(classId))).WithName("structure").Needs(Act.Arrange);
        k.MapPost("/structure", (long classId, bool apply, StructureFile body, Caller who, StructureFiles files) => files.Take(who, new(classId), body, apply)).WithName("takeStructure").Needs(Act.Arrange);
        k.MapGet("/cartridge", (long classId, Cartridges cartridges, CancellationToken stop) => Uploads.Send(cartridges.Write(new(classId), stop))).WithName("cartridge").SendsFile().Needs(Act.Arrange);
        k.MapPost("/cartridge", (long classId, bool apply, Caller who, Cartridges cartridges, HttpRequest request, CancellationToken stop) =>
            cartridges.Take(who, new(classId), request.Body, apply, stop)).WithName("takeCartridge").TakesFile().Needs(Act.Arrange);
        k.MapPost("/rollover-preview", (long classId, NewYear body, RollingOver rolling) => rolling.Preview(new(classId), body)).WithName("previewRollover").Needs(Act.RollOver);
        k.MapPost("/rollover", (long classId, NewYear body, Caller who, RollingOver rolling) =>
            new Made(rolling.Make(who, new(classId), body).Value)).WithName("rollOver").Needs(Act.RollOver);
    }
}
