using NodaTime;
using SpringLoft.App;
using SpringLoft.App.Audit;
using SpringLoft.App.Years;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;

namespace SpringLoft.Server.Years;

internal sealed record DateBody(LocalDate Today);

internal static class YearEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/school", (YearLine line) => line.See()).WithName("school").Needs(Act.SeeOwnClasses);

        api.MapGet("/board", (Caller who, YearBoard board, long? year) => board.See(who, year is { } y ? new YearId(y) : null)).WithName("board").Needs(Act.SeeBoard);

        api.MapPost("/demo/date", (DateBody body, Caller who, YearLine line) =>
        {
            line.MoveDate(who, body.Today);
            return TypedResults.NoContent();
        }).WithName("moveDate").Needs(Act.MoveDate);

        api.MapGet("/audit", (AuditTrail trail, long? before, long? classId) => trail.See(before, classId is { } k ? new ClassId(k) : null)).WithName("audit").Needs(Act.SeeAudit);
    }
}
