namespace SpringLoft.Store.Assignments;

/// <summary>Scores that came from a file in one act.</summary>
public sealed record ScoreImportRow
{
    public long Id { get; init; }
    public string Name { get; init; } = "";
    public string By { get; init; } = "";
    public Instant At { get; init; }
    public Instant? TakenBackAt { get; init; }
    public int Marks { get; init; }
}

/// <summary>One of its marks.</summary>
public sealed record ImportedMarkRow
{
    public WorkId WorkId { get; init; }
    public ClassId ClassId { get; init; }
    public decimal? Before { get; init; }
    public decimal After { get; init; }
    public bool Begun { get; init; }
}

/// <summary>Owns score_import and score_import_mark.</summary>
public static class ScoreImportStore
{
    /// <summary>Notes that scores came in.</summary>
    public static long Add(IDbConnection c, string name, PersonId by, Instant at) =>
        c.ExecuteScalar<long>("INSERT INTO score_import(name, by_id, at) VALUES(@name, @by, @at) RETURNING id", new { name, by, at });

    /// <summary>Notes one mark of it.</summary>
    public static void AddMark(IDbConnection c, long import, ImportedMarkRow m) => c.Execute(
        "INSERT INTO score_import_mark(import_id, work_id, class_id, before, after, begun) VALUES(@import, @WorkId, @ClassId, @Before, @After, @Begun)", new { import, m.WorkId, m.ClassId, m.Before, m.After, m.Begun });

    /// <summary>Of one of these classes, the newest first; those that were taken back left out.</summary>
    public static IReadOnlyList<ScoreImportRow> Of(IDbConnection c, IEnumerable<ClassId> classes) => [.. c.Query<ScoreImportRow>(
        """
        SELECT i.id, i.name, p.given || ' ' || p.family AS "by", i.at, i.taken_back_at, (SELECT count(*) FROM score_import_mark m WHERE m.import_id = i.id) AS marks
        FROM score_import i JOIN person p ON p.id = i.by_id
        WHERE i.taken_back_at IS NULL AND i.id IN (SELECT import_id FROM score_import_mark WHERE class_id IN (SELECT value FROM json_each(@ids))) ORDER BY i.id DESC
        """, new { ids = $"[{string.Join(',', classes.Select(k => k.Value))}]" })];

    /// <summary>One; null if there is no such.</summary>
    public static ScoreImportRow? Find(IDbConnection c, long import) => c.QuerySingleOrDefault<ScoreImportRow>(
        """SELECT i.id, i.name, p.given || ' ' || p.family AS "by", i.at, i.taken_back_at, 0 AS marks FROM score_import i JOIN person p ON p.id = i.by_id WHERE i.id = @import""", new { import });

    /// <summary>All marks of it.</summary>
    public static IReadOnlyList<ImportedMarkRow> Marks(IDbConnection c, long import) =>
        [.. c.Query<ImportedMarkRow>("SELECT work_id, class_id, before, after, begun FROM score_import_mark WHERE import_id = @import ORDER BY work_id", new { import })];

    /// <summary>Notes that it was taken back.</summary>
    public static void TakenBack(IDbConnection c, long import, Instant at) => c.Execute("UPDATE score_import SET taken_back_at = @at WHERE id = @import", new { import, at });
}
