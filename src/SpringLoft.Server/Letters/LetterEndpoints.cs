using SpringLoft.App;
using SpringLoft.App.Letters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;

namespace SpringLoft.Server.Letters;

/// <summary>Letters on their way.</summary>
internal static class LetterEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/letters", (LetterDesk desk) => desk.See()).WithName("letters").Needs(Act.KeepLetters);
        api.MapPost("/letters/{letterId:long}/again", (long letterId, Caller who, LetterDesk desk) =>
        {
            desk.TryAgain(who, letterId);
            return TypedResults.NoContent();
        }).WithName("tryLetterAgain").Needs(Act.KeepLetters);
    }
}
