namespace SpringLoft.Store.Closing;

/// <summary>An old class that is left unresolved on purpose.</summary>
public sealed record SignOffRow
{
    public ClassId ClassId { get; init; }
    public string By { get; init; } = "";
    public string Reason { get; init; } = "";
    public Instant At { get; init; }
}

/// <summary>Owns sign_off.</summary>
public static class SignOffStore
{
    /// <summary>All of a year.</summary>
    public static IReadOnlyList<SignOffRow> OfYear(IDbConnection c, YearId year) => [.. c.Query<SignOffRow>(
        """
        SELECT s.class_id, p.given || ' ' || p.family AS "by", s.reason, s.at
        FROM sign_off s JOIN person p ON p.id = s.by_id JOIN class k ON k.id = s.class_id WHERE k.year_id = @year
        """, new { year })];

    /// <summary>Signs a class off, or takes that back with null.</summary>
    public static void Set(IDbConnection c, ClassId id, PersonId by, string? reason, Instant at)
    {
        c.Execute("DELETE FROM sign_off WHERE class_id = @id", new { id });
        if (reason is not null) c.Execute("INSERT INTO sign_off(class_id, by_id, reason, at) VALUES(@id, @by, @reason, @at)", new { id, by, reason, at });
    }
}
