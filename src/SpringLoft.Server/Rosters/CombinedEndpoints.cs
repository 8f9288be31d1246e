using SpringLoft.App;
using SpringLoft.App.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;
using SpringLoft.Server.Workspaces;

namespace SpringLoft.Server.Rosters;

internal sealed record CombinedBody(string? Name, IReadOnlyList<SectionChoice>? Sections, int Version);

internal sealed record CombinedReturnBody(bool UnmarkedToo, string? Comment);

internal static class CombinedEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        var r = api.MapGroup("/combined");
        r.MapGet("", (Caller who, CombinedRosters combined) => combined.Mine(who)).WithName("combinedRosters").Needs(Act.SeeBoard);
        r.MapPost("", (CombinedBody body, Caller who, CombinedRosters combined) => new Made(combined.Make(who, body.Name, body.Sections ?? []))).WithName("makeCombined").Needs(Act.SeeBoard);
        r.MapGet("/{combinedId:long}", (long combinedId, Caller who, CombinedRosters combined) => combined.See(who, combinedId)).WithName("combinedRoster").Needs(Act.SeeBoard);
        r.MapPut("/{combinedId:long}", (long combinedId, CombinedBody body, Caller who, CombinedRosters combined) =>
        {
            combined.Change(who, combinedId, body.Name, body.Sections ?? [], body.Version);
            return TypedResults.NoContent();
        }).WithName("changeCombined").Needs(Act.SeeBoard);
        r.MapDelete("/{combinedId:long}", (long combinedId, Caller who, CombinedRosters combined) =>
        {
            combined.Remove(who, combinedId);
            return TypedResults.NoContent();
        }).WithName("removeCombined").Needs(Act.SeeBoard);
        r.MapGet("/{combinedId:long}/return", (long combinedId, bool unmarkedToo, Caller who, CombinedRosters combined) => combined.PreviewReturn(who, combinedId, unmarkedToo)).WithName("previewCombinedReturn").Needs(Act.SeeBoard);
        r.MapPost("/{combinedId:long}/return", (long combinedId, CombinedReturnBody body, Caller who, CombinedRosters combined) =>
            combined.Return(who, combinedId, body.UnmarkedToo, body.Comment)).WithName("returnCombined").Needs(Act.SeeBoard);
    }
}
