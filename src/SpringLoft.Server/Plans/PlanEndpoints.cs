using SpringLoft.App;
using SpringLoft.App.Plans;
using SpringLoft.App.Runs;
using SpringLoft.App.Workspaces;
using SpringLoft.Core;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;
using SpringLoft.Server.Workspaces;

namespace SpringLoft.Server.Plans;

internal sealed record PlanBody(string? Name, string? About, IReadOnlyList<OutlineLine>? Lines, int Version);

internal sealed record UnfoldBody(IReadOnlyList<OutlineLine>? Lines, ClassId? Class, YearId? Year, TermId? Term);

internal sealed record ListBody(string? Text, IReadOnlyList<string>? Paths, ClassId? Class);

internal sealed record ArrangeBody(PlanId Plan, YearId? Year, TermId? Term, IReadOnlyList<string>? Sections);

internal sealed record PutBody(IReadOnlyList<ClassId>? Classes);

/// <param name="Version">That it was begun on.</param>
/// <param name="Was">How the plan was called then.</param>
internal sealed record PlanTogetherBody(int Version, PlanTitle? Was, PlanTitle? Mine, IReadOnlyList<OutlineLine>? Lines, Decided? Decided);

internal sealed record Saved(int Version);

internal sealed record Stayed(IReadOnlyList<string> Folders);

internal static class PlanEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/plans", (PlanDesk desk) => desk.Plans()).WithName("plans").Needs(Act.SeeBoard);
        api.MapPost("/plans/unfolding", (UnfoldBody body, Caller who, PlanDesk desk) => desk.Unfold(who, body.Lines ?? [], new(body.Class, body.Year, body.Term))).WithName("unfoldDraft").Needs(Act.SeeBoard);
        api.MapPost("/plans/outline", (ListBody body, PlanDesk desk) =>
            body.Class is { } k ? desk.OfClass(k) : body.Paths is { } paths ? desk.ReadPaths(paths) : desk.ReadList(body.Text)).WithName("readOutline")
            .WithMetadata(new Microsoft.AspNetCore.Mvc.RequestSizeLimitAttribute(32 * 1024 * 1024)).Needs(Act.PlanFolders);
        api.MapPost("/runs/{runId:long}/again", (long runId, Caller who, RunFaults runs) =>
        {
            runs.Again(who, new(runId));
            return TypedResults.NoContent();
        }).WithName("tryRunAgain").Needs(Act.SeeBoard);
        api.MapPost("/plans/outline-of-zip/files", (PlanDesk desk, HttpRequest request, CancellationToken stop) => desk.ReadZip(request.Body, stop)).WithName("readOutlineOfZip").TakesFile().Needs(Act.PlanFolders);
        api.MapPost("/arrangements", (ArrangeBody body, PlanDesk desk) => desk.Arrange(body.Plan, body.Year, body.Term, body.Sections ?? [])).WithName("arrangements").Needs(Act.SeeBoard);
        api.MapPost("/plans", (PlanBody body, Caller who, PlanDesk desk) => new Made(desk.Make(who, body.Name, body.About, body.Lines ?? []).Value)).WithName("makePlan").Needs(Act.PlanFolders);
        api.MapPut("/plans/{planId:long}", (long planId, PlanBody body, Caller who, PlanDesk desk) =>
            new Saved(desk.Save(who, new(planId), body.Version, body.Name, body.About, body.Lines ?? []))).WithName("savePlan").Needs(Act.PlanFolders);
        api.MapPost("/plans/{planId:long}/together", (long planId, PlanTogetherBody body, PlanDesk desk) =>
            desk.Together(new(planId), body.Version, body.Was, body.Mine, body.Lines ?? [], body.Decided)).WithName("planTogether").Needs(Act.PlanFolders);
        api.MapPost("/plans/{planId:long}/put-preview", (long planId, PutBody body, Caller who, PuttingPlans putting) => putting.Preview(who, new(planId), body.Classes ?? [])).WithName("previewPut").Needs(Act.SeeBoard);
        api.MapPost("/plans/{planId:long}/puts", (long planId, PutBody body, Caller who, PuttingPlans putting) =>
            new Made(putting.Begin(who, new(planId), body.Classes ?? []).Value)).WithName("putPlan").Needs(Act.SeeBoard);
        api.MapGet("/plan-runs/{runId:long}", (long runId, Caller who, PuttingPlans putting) => putting.See(who, new(runId))).WithName("planRun").Needs(Act.SeeBoard);
        api.MapPost("/plan-runs/{runId:long}/classes/{putClassId:long}/taking-back", (long runId, long putClassId, Caller who, PuttingPlans putting) =>
            new Stayed(putting.TakeBack(who, new(runId), new(putClassId)))).WithName("takeBackPut").Needs(Act.SeeBoard);
    }
}
