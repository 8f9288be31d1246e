namespace SpringLoft.Store.Audit;

/// <summary>One line of the audit trail.</summary>
public sealed record AuditRow
{
    public long Id { get; init; }
    public Instant At { get; init; }
    public PersonId? PersonId { get; init; }
    public string? Who { get; init; }
    public string Act { get; init; } = "";
    public string Thing { get; init; } = "";
    public long? ThingId { get; init; }
    public ClassId? ClassId { get; init; }
    public string? ClassName { get; init; }
    public string Detail { get; init; } = "";
}

/// <summary>An answer that was given.</summary>
/// <param name="Print">Of what was asked: the digest of method, address and body.</param>
public sealed record KeptAnswer(string Print, long Status, string Body);

/// <summary>Owns audit and once. Lines are only ever added.</summary>
public static class AuditStore
{
    /// <summary>What a closing run writes when it has archived a class.</summary>
    public const string Archived = "archived class";

    /// <summary>Adds a line, in the transaction of what it tells of.</summary>
    public static void Add(IDbConnection c, Instant at, PersonId? who, string act, string thing, long? thingId, ClassId? classId, string detail) => c.Execute(
        "INSERT INTO audit(at, person_id, act, thing, thing_id, class_id, detail) VALUES(@at, @who, @act, @thing, @thingId, @classId, @detail)",
        new { at, who, act, thing, thingId, classId, detail });

    /// <summary>The newest line that may change what is in a class; 0 if none. Every change of the school adds a line; that another class was archived changes nothing in this one.</summary>
    public static long Newest(IDbConnection c) => c.ExecuteScalar<long>("SELECT ifnull((SELECT id FROM audit WHERE act <> @Archived ORDER BY id DESC LIMIT 1), 0)", new { Archived });

    /// <summary>Lines newest first, before the given one.</summary>
    public static IReadOnlyList<AuditRow> Before(IDbConnection c, long? before, ClassId? classId, int most) => [.. c.Query<AuditRow>(
        """
        SELECT a.id, a.at, a.person_id, p.given || ' ' || p.family AS who, a.act, a.thing, a.thing_id, a.class_id, k.name AS class_name, a.detail
        FROM audit a LEFT JOIN person p ON p.id = a.person_id LEFT JOIN class k ON k.id = a.class_id
        WHERE (@before IS NULL OR a.id < @before) AND (@classId IS NULL OR a.class_id = @classId) ORDER BY a.id DESC LIMIT @most
        """, new { before, classId, most })];

    /// <summary>The answer given before to the same request of the same person; null if there was none.</summary>
    public static KeptAnswer? Answered(IDbConnection c, PersonId who, string key) =>
        c.QuerySingleOrDefault<KeptAnswer>("SELECT print, status, body FROM once WHERE person_id = @who AND key = @key", new { who, key });

    /// <summary>Keeps an answer for a day; older ones go.</summary>
    /// <param name="print">Of what was asked.</param>
    public static void KeepAnswer(IDbConnection c, PersonId who, string key, string print, int status, string body, Instant at)
    {
        c.Execute("DELETE FROM once WHERE at < @old", new { old = at - Duration.FromDays(1) });
        c.Execute("INSERT INTO once(person_id, key, at, print, status, body) VALUES(@who, @key, @at, @print, @status, @body)", new { who, key, at, print, status, body });
    }
}
