using Dapper;

namespace SpringLoft.Demo;

/// <summary>Sets dates that only a demo may set after the fact.</summary>
internal static class DemoStore
{
    internal static void ArchivedOn(IDbConnection c, YearId year, Instant at) => c.Execute(
        """
        UPDATE class SET archived_at = @at WHERE year_id = @year
        """, new { year, at });

    internal static void BinFolder(IDbConnection c, ClassId id, string planKey, Instant at) =>
        c.Execute("UPDATE folder SET binned_at = @at WHERE class_id = @id AND plan_key = @planKey", new { id, planKey, at });
}
