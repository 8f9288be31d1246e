namespace SpringLoft.Store.Closing;

/// <summary>A thing of an archived class that a search found.</summary>
public sealed record LoftHit
{
    public ClassId ClassId { get; init; }
    public string ClassName { get; init; } = "";
    public YearId YearId { get; init; }

    /// <summary>File, Link, Page, Assignment or Folder.</summary>
    public string Kind { get; init; } = "";
    public long Id { get; init; }
    public string Name { get; init; } = "";

    /// <summary>The folder that it stands in; null at the top or in none.</summary>
    public string? Folder { get; init; }
}

/// <summary>A class in the bin.</summary>
public sealed record BinnedClass
{
    public ClassId Id { get; init; }
    public YearId YearId { get; init; }
    public string Name { get; init; } = "";
    public Instant BinnedAt { get; init; }
}

/// <summary>The loft as a whole: searching it, and the bin. Reads what others own.</summary>
public static class LoftStore
{
    /// <summary>Things of archived classes and kept copies by a part of their name.</summary>
    /// <param name="staff">Of classes that this person is staff of; null for all classes, kept copies of others left out.</param>
    public static IReadOnlyList<LoftHit> Search(IDbConnection c, string part, PersonId? staff, PersonId asker, int most) => [.. c.Query<LoftHit>(
        """
        WITH k AS MATERIALIZED (
          SELECT k.id, k.name, k.year_id FROM class k
          WHERE k.binned_at IS NULL AND ((k.kind = 'Class' AND k.state = 'Archived' AND (@staff IS NULL OR EXISTS (SELECT 1 FROM member m WHERE m.class_id = k.id AND m.person_id = @staff AND m.role <> 'Student' AND m.left_at IS NULL)))
            OR (k.kind = 'Kept' AND EXISTS (SELECT 1 FROM member m WHERE m.class_id = k.id AND m.person_id = @asker AND m.left_at IS NULL))))
        SELECT * FROM (
          SELECT k.id AS class_id, k.name AS class_name, k.year_id, i.kind, i.id, i.name,
            (SELECT d.name FROM filing f JOIN folder d ON d.id = f.folder_id WHERE f.item_id = i.id AND d.binned_at IS NULL ORDER BY d.position LIMIT 1) AS folder
          FROM k JOIN item i ON i.class_id = k.id WHERE i.binned_at IS NULL AND i.by_student = 0 AND i.name LIKE @like ESCAPE '\'
          UNION ALL
          SELECT k.id, k.name, k.year_id, 'Assignment', a.id, a.title,
            (SELECT d.name FROM assignment_filing f JOIN folder d ON d.id = f.folder_id WHERE f.assignment_id = a.id AND d.binned_at IS NULL ORDER BY d.position LIMIT 1)
          FROM k JOIN assignment a ON a.class_id = k.id WHERE a.binned_at IS NULL AND a.title LIKE @like ESCAPE '\'
          UNION ALL
          SELECT k.id, k.name, k.year_id, 'Folder', d.id, d.name, (SELECT p.name FROM folder p WHERE p.id = d.parent_id)
          FROM k JOIN folder d ON d.class_id = k.id WHERE d.binned_at IS NULL AND d.student_id IS NULL AND d.group_id IS NULL AND d.name LIKE @like ESCAPE '\')
        ORDER BY year_id DESC, class_name, kind, name LIMIT @most
        """, new { like = $"%{part.Replace("\\", "\\\\", StringComparison.Ordinal).Replace("%", "\\%", StringComparison.Ordinal).Replace("_", "\\_", StringComparison.Ordinal)}%", staff, asker, most })];

    /// <summary>Puts an archived class into the bin, or back with null.</summary>
    public static void SetBinned(IDbConnection c, ClassId id, Instant? at) => c.Execute("UPDATE class SET binned_at = @at, version = version + 1 WHERE id = @id AND state = 'Archived'", new { id, at });

    /// <summary>Classes in the bin, newest first.</summary>
    public static IReadOnlyList<BinnedClass> Bin(IDbConnection c) => [.. c.Query<BinnedClass>("SELECT id, year_id, name, binned_at FROM class WHERE binned_at IS NOT NULL ORDER BY binned_at DESC")];
}
