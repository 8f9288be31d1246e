using SpringLoft.App;
using SpringLoft.App.Naming;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;

namespace SpringLoft.Server.Naming;

internal sealed record NamingBody(string? Pattern, bool ByPattern, int Version);

internal sealed record PatternBody(YearId Year, string? Pattern);

internal sealed record RenamingBody(YearId Year, string? Pattern, IReadOnlyList<ClassId>? Classes);

internal sealed record UserPatternBody(string? Pattern, int Version);

internal sealed record Renamed(int Classes);

internal static class NamingEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/naming", (NameDesk desk) => desk.See()).WithName("naming").Needs(Act.SeeBoard);
        api.MapPut("/naming", (NamingBody body, Caller who, NameDesk desk) =>
        {
            desk.Set(who, body.Pattern, body.ByPattern, body.Version);
            return TypedResults.NoContent();
        }).WithName("setNaming").Needs(Act.LayDownYear);
        api.MapPost("/naming/preview", (PatternBody body, NameDesk desk) => desk.Preview(body.Year, body.Pattern)).WithName("previewNaming").Needs(Act.LayDownYear);
        api.MapPost("/naming/renaming", (RenamingBody body, Caller who, NameDesk desk) =>
            new Renamed(desk.Rename(who, body.Year, body.Pattern, body.Classes ?? []))).WithName("renameClasses").Needs(Act.LayDownYear);
        api.MapGet("/naming/user-names", (NameDesk desk) => desk.SeeUserNames()).WithName("userNaming").Needs(Act.SeeBoard);
        api.MapPost("/naming/user-names/preview", (UserPatternBody body, NameDesk desk) => desk.PreviewUserNames(body.Pattern)).WithName("previewUserNaming").Needs(Act.LayDownYear);
        api.MapPut("/naming/user-names", (UserPatternBody body, Caller who, NameDesk desk) =>
        {
            desk.SetUserNames(who, body.Pattern, body.Version);
            return TypedResults.NoContent();
        }).WithName("setUserNaming").Needs(Act.LayDownYear);
    }
}
