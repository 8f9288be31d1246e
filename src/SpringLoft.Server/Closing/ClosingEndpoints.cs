using SpringLoft.App;
using SpringLoft.App.Closing;
using SpringLoft.App.Workspaces;
using SpringLoft.Core;
using SpringLoft.Core.Audit;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;
using SpringLoft.Server.Workspaces;

namespace SpringLoft.Server.Closing;

internal sealed record CloseBody(AfterArchive AfterArchive);

internal sealed record ClosingRunBody(IReadOnlyList<ClassId> Classes, ClosingOptions Options);

internal sealed record TellBody(IReadOnlyList<ClassId> Classes, string? Text);

internal sealed record WishBody(RunWish Wish);

internal sealed record SignOffBody(IReadOnlyList<ClassId>? Classes, string? Reason);

internal sealed record BeginBody(YearId Old, bool GoUp, bool LeaversLeave);

internal sealed record DeleteBody(string? Name);

internal sealed record Letters(int Count);

internal static class ClosingEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/loft", (Caller who, Loft loft) => loft.See(who)).WithName("loft").Needs(Act.SeeOwnClasses);
        api.MapGet("/loft/search", (string find, Caller who, Loft loft) => loft.Search(who, find)).WithName("searchLoft").Needs(Act.SeeBoard);
        api.MapGet("/loft/keys", (Caller who, PackageReading reading) => reading.Keys(who)).WithName("schoolKeys").Needs(Act.KeepLoft);
        api.MapGet("/loft/bin", (LoftBin bin) => bin.See()).WithName("loftBin").Needs(Act.KeepLoft);
        api.MapGet("/loft/{archivedId:long}/deleting", (long archivedId, LoftBin bin) => bin.Check(new ClassId(archivedId))).WithName("checkDeleting").Needs(Act.KeepLoft);
        api.MapPost("/loft/{archivedId:long}/deleting", (long archivedId, DeleteBody body, Caller who, LoftBin bin) =>
        {
            bin.Bin(who, new ClassId(archivedId), body.Name);
            return TypedResults.NoContent();
        }).WithName("deleteArchived").Needs(Act.DeleteClasses);
        api.MapPost("/loft/{archivedId:long}/bring-back", (long archivedId, Caller who, LoftBin bin) =>
        {
            bin.BringBack(who, new ClassId(archivedId));
            return TypedResults.NoContent();
        }).WithName("bringBackArchived").Needs(Act.KeepLoft);
        api.MapPost("/loft/zips", (long year, bool apply, Caller who, PackageIntake intake, HttpRequest request, CancellationToken stop) =>
            intake.Read(who, new YearId(year), request.Body, apply, stop)).WithName("readPackage").TakesFile().Needs(Act.KeepLoft);
        api.MapGet("/closing", (Caller who, ClosingRuns runs, long? year) => runs.See(who, year is { } y ? new YearId(y) : null)).WithName("closingMatrix").Needs(Act.SeeBoard);
        api.MapPost("/closing/plan", (ClosingRunBody body, Caller who, ClosingRuns runs) => runs.Plan(who, body.Classes, body.Options)).WithName("planClosing").Needs(Act.SeeBoard);
        api.MapPost("/closing/room", (ClosingRunBody body, Caller who, ClosingRuns runs) => runs.Room(who, body.Classes, body.Options)).WithName("closingRoom").Needs(Act.SeeBoard);
        api.MapPost("/closing/runs", (ClosingRunBody body, Caller who, ClosingRuns runs) => new Made(runs.Begin(who, body.Classes, body.Options).Value)).WithName("beginClosingRun").Needs(Act.SeeBoard);
        api.MapPost("/closing/letters", (TellBody body, Caller who, ClosingRuns runs) => new Letters(runs.TellTeachers(who, body.Classes, body.Text))).WithName("tellTeachers").Needs(Act.SeeBoard);
        api.MapGet("/gate", (NewYearGate gate, long? year) => gate.See(year is { } y ? new YearId(y) : null)).WithName("gate").Needs(Act.LayDownYear);
        api.MapPost("/gate/sign-offs", (SignOffBody body, Caller who, NewYearGate gate) =>
        {
            gate.SignOff(who, body.Classes ?? [], body.Reason);
            return TypedResults.NoContent();
        }).WithName("signOff").Needs(Act.LayDownYear);
        api.MapPost("/gate/beginning", (BeginBody body, Caller who, NewYearGate gate) => gate.Begin(who, body.Old, body.GoUp, body.LeaversLeave)).WithName("beginYear").Needs(Act.LayDownYear);
        var r = api.MapGroup("/closing/runs/{runId:long}");
        r.MapGet("", (long runId, Caller who, ClosingRuns runs) => runs.See(who, new RunId(runId))).WithName("closingRun").Needs(Act.SeeBoard);
        r.MapGet("/events", (long runId, Caller who, ClosingRuns runs, CancellationToken stop) => TypedResults.ServerSentEvents(runs.Follow(who, new(runId), stop))).WithName("closingRunEvents").Needs(Act.SeeBoard);
        r.MapGet("/report", (long runId, Caller who, ClosingRuns runs) => runs.Report(who, new(runId))).WithName("closingReport").Needs(Act.SeeBoard);
        r.MapGet("/report/signed", (long runId, Caller who, ClosingRuns runs, CancellationToken stop) => Uploads.Send(runs.SignedReport(who, new(runId), stop))).WithName("signedClosingReport").Tells(Reading.Export, "the signed report of a closing run").SendsFile().Needs(Act.SeeBoard);
        r.MapGet("/report.csv", (long runId, Caller who, ClosingRuns runs) => Uploads.Send(runs.ReportCsv(who, new(runId)))).WithName("closingReportCsv").Tells(Reading.Export, "the report of a closing run").SendsFile().Needs(Act.SeeBoard);
        r.MapPost("/wish", (long runId, WishBody body, Caller who, ClosingRuns runs) =>
        {
            runs.Wish(who, new(runId), body.Wish);
            return TypedResults.NoContent();
        }).WithName("wishOfRun").Needs(Act.SeeBoard);
        r.MapPost("/again", (long runId, Caller who, ClosingRuns runs) => new Made(runs.TryAgain(who, new(runId)).Value)).WithName("tryClosingAgain").Needs(Act.SeeBoard);
        var k = api.MapGroup("/classes/{classId:long}");
        k.MapGet("/closing", (long classId, ClosingDesk desk) => desk.See(new SpringLoft.Core.ClassId(classId))).WithName("closing").Needs(Act.Arrange);
        k.MapPost("/closing", (long classId, CloseBody body, Caller who, ClosingDesk desk) =>
            new Made(desk.Close(who, new(classId), body.AfterArchive).Value)).WithName("closeClass").Needs(Act.CloseClass);
        k.MapGet("/runs/{runId:long}", (long classId, long runId, ClosingDesk desk) => desk.See(new(classId), new(runId))).WithName("run").Needs(Act.Arrange);
        k.MapGet("/runs/{runId:long}/events", (long classId, long runId, ClosingDesk desk, CancellationToken stop) =>
            TypedResults.ServerSentEvents(desk.Follow(new(classId), new(runId), stop))).WithName("runEvents").Needs(Act.Arrange);
        k.MapGet("/package", (long classId, Loft loft) => Uploads.Send(loft.OpenPackage(new(classId)))).WithName("package").Tells(Reading.Package, "the archive package").SendsFile().Needs(Act.CloseClass);
        k.MapGet("/returned", (long classId, Caller who, LeftClass left) => left.Returned(who, new(classId))).WithName("ownReturned").Needs(Act.TakeHome);
        k.MapGet("/returned/{fileId:long}", (long classId, long fileId, Caller who, LeftClass left) => Uploads.Send(left.Open(who, new(classId), fileId))).WithName("ownReturnedFile").SendsFile().Needs(Act.TakeHome);
        k.MapPost("/package/reading", (long classId, Caller who, PackageReading reading, CancellationToken stop) => reading.Read(who, new(classId), stop)).WithName("readPackageAgain").Needs(Act.CloseClass);
        k.MapGet("/take-home", (long classId, Caller who, Loft loft) => Uploads.Send(loft.OpenTakeHome(who, new(classId)))).WithName("takeHome").SendsFile().Needs(Act.TakeHome);
        k.MapPost("/restoring", (long classId, VersionBody body, Caller who, Loft loft) =>
        {
            loft.Restore(who, new(classId), body.Version);
            return TypedResults.NoContent();
        }).WithName("restoreClass").Needs(Act.CloseClass);
    }
}
