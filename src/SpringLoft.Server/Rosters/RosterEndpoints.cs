using SpringLoft.App;
using SpringLoft.App.Rosters;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;

namespace SpringLoft.Server.Rosters;

internal sealed record EnrollBody(IReadOnlyList<PersonId>? People, ClassRole Role);

internal static class RosterEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/directory", (RosterDesk desk, string? starts, bool students, long? classId) =>
            desk.Search(classId is { } k ? new ClassId(k) : null, starts, students)).WithName("searchDirectory").Needs(Act.SearchDirectory);
        var roster = api.MapGroup("/classes/{classId:long}/roster");
        roster.MapGet("", (long classId, RosterDesk desk) => desk.See(new(classId))).WithName("roster").Needs(Act.Arrange);
        roster.MapPost("", (long classId, EnrollBody body, Caller who, RosterDesk desk) =>
            desk.Enroll(who, new(classId), body.People ?? [], body.Role)).WithName("enroll").Needs(Act.ManageRoster);
        roster.MapDelete("/{personId:long}", (long classId, long personId, Caller who, RosterDesk desk) =>
        {
            desk.Remove(who, new(classId), new(personId));
            return TypedResults.NoContent();
        }).WithName("removeFromRoster").Needs(Act.ManageRoster);
    }
}
