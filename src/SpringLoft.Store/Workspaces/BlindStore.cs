namespace SpringLoft.Store.Workspaces;

/// <summary>Owns class_blind: how many blind spots a class had when they were last counted.</summary>
public static class BlindStore
{
    /// <summary>Classes in which something was written since they were counted, or that never were; archived ones left out.</summary>
    public static IReadOnlyList<(ClassId Class, long AuditId)> Stale(IDbConnection c, int most) => [.. c.Query<(long, long)>(
        """
        SELECT k.id, ifnull((SELECT max(a.id) FROM audit a WHERE a.class_id = k.id), 0) AS newest
        FROM class k LEFT JOIN class_blind b ON b.class_id = k.id
        WHERE k.state <> 'Archived' AND k.kind = 'Class' AND (b.class_id IS NULL OR b.audit_id < (SELECT ifnull(max(a.id), 0) FROM audit a WHERE a.class_id = k.id))
        LIMIT @most
        """, new { most }).Select(x => (new ClassId(x.Item1), x.Item2))];

    /// <summary>Keeps a count, and up to which line of the audit trail it holds.</summary>
    public static void Set(IDbConnection c, ClassId id, int spots, long auditId) => c.Execute(
        """
        INSERT INTO class_blind(class_id, spots, audit_id) VALUES(@id, @spots, @auditId)
        ON CONFLICT(class_id) DO UPDATE SET spots = @spots, audit_id = @auditId
        """, new { id, spots, auditId });

    /// <summary>Counts of a year's classes, as they were last made.</summary>
    public static IReadOnlyDictionary<ClassId, int> OfYear(IDbConnection c, YearId year) => c.Query<(long Id, long Spots)>(
        "SELECT b.class_id, b.spots FROM class_blind b JOIN class k ON k.id = b.class_id WHERE k.year_id = @year", new { year }).ToDictionary(x => new ClassId(x.Id), x => (int)x.Spots);
}
