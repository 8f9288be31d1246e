using SpringLoft.Core.Rollover;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Store.Rollover;

/// <summary>A thing that staff set up in some class, of any year.</summary>
public sealed record PastRow
{
    public PastKind Kind { get; init; }
    public long Id { get; init; }
    public ClassId ClassId { get; init; }
    public string Name { get; init; } = "";

    /// <summary>Of a file or page.</summary>
    public string? Sha256 { get; init; }

    /// <summary>Of a link.</summary>
    public string? Url { get; init; }

    /// <summary>Of an assignment: what students read.</summary>
    public string? Instructions { get; init; }

    /// <summary>Of an assignment: counts its changes.</summary>
    public int Version { get; init; }

    /// <summary>The folder that it stands in; null at the top or in none.</summary>
    public string? Folder { get; init; }

    /// <summary>False if its owner marked it as nothing to copy into another class.</summary>
    public bool MayCopy { get; init; } = true;

    /// <summary>Equal for things that are the same in two classes; a folder is like no other.</summary>
    public string Same => Kind == PastKind.Folder ? $"{Kind} {Id}" : $"{Kind}\n{Name}\n{Sha256}\n{Url}\n{Instructions}";

    /// <summary>Changes whenever its words do.</summary>
    public string Stamp => $"{ClassId.Value}\n{Name}\n{Sha256}\n{Url}\n{(Kind == PastKind.Assignment ? Version : 0)}";
}

/// <summary>A workspace whose things may be drawn on.</summary>
public sealed record PastPlace
{
    public ClassId Id { get; init; }
    public string Name { get; init; } = "";
    public WorkspaceKind Kind { get; init; }
    public ClassState State { get; init; }
    public YearId YearId { get; init; }
}

/// <summary>What staff set up, over all classes and years. Reads what others own.</summary>
public static class PastStore
{
    // Narrowed in each part: a search reads the few rows that it shows, not all that there are.
    private static string Things(string items = "", string assignments = "", string folders = "") =>
        $"""
        SELECT i.kind, i.id, i.class_id, i.name, i.sha256, i.url, NULL AS instructions, 0 AS version, i.may_copy,
          (SELECT d.name FROM filing f JOIN folder d ON d.id = f.folder_id WHERE f.item_id = i.id AND d.binned_at IS NULL ORDER BY d.position LIMIT 1) AS folder
        FROM item i JOIN class k ON k.id = i.class_id WHERE i.binned_at IS NULL AND i.by_student = 0 AND k.binned_at IS NULL {items}
        UNION ALL
        SELECT 'Assignment', a.id, a.class_id, a.title, NULL, NULL, a.instructions, a.version, 1,
          (SELECT d.name FROM assignment_filing f JOIN folder d ON d.id = f.folder_id WHERE f.assignment_id = a.id AND d.binned_at IS NULL ORDER BY d.position LIMIT 1)
        FROM assignment a JOIN class k ON k.id = a.class_id WHERE a.binned_at IS NULL AND k.binned_at IS NULL {assignments}
        UNION ALL
        SELECT 'Folder', d.id, d.class_id, d.name, NULL, NULL, NULL, 0, 1, (SELECT p.name FROM folder p WHERE p.id = d.parent_id)
        FROM folder d JOIN class k ON k.id = d.class_id WHERE d.binned_at IS NULL AND d.student_id IS NULL AND d.group_id IS NULL AND k.binned_at IS NULL {folders}
        """;

    /// <summary>Everything that there is to be found.</summary>
    public static IReadOnlyList<PastRow> All(IDbConnection c) => [.. c.Query<PastRow>(Things())];

    /// <summary>Some of it, as it is now: what is gone meanwhile is left out.</summary>
    public static IReadOnlyDictionary<PastKey, PastRow> Some(IDbConnection c, IReadOnlyCollection<PastKey> keys) =>
        keys.Count == 0 ? new Dictionary<PastKey, PastRow>() : c.Query<PastRow>(
            Things("AND i.id IN @items", "AND a.id IN @assignments", "AND d.id IN @folders"), new
            {
                assignments = Of(keys, k => k == PastKind.Assignment),
                folders = Of(keys, k => k == PastKind.Folder),
                items = Of(keys, k => k is not (PastKind.Assignment or PastKind.Folder)),
            }).ToDictionary(r => new PastKey(r.Kind, r.Id));

    /// <summary>Where somebody may draw from: what they are staff of, in any year, their own kept copies, and for a coordinator all of the loft.</summary>
    public static IReadOnlyList<PastPlace> Places(IDbConnection c, PersonId staff, bool coordinator) => [.. c.Query<PastPlace>(
        """
        SELECT k.id, k.name, k.kind, k.state, k.year_id FROM class k
        WHERE k.binned_at IS NULL AND (EXISTS (SELECT 1 FROM member m WHERE m.class_id = k.id AND m.person_id = @staff AND m.role <> 'Student' AND m.left_at IS NULL)
          OR (@coordinator AND k.kind <> 'Kept' AND (k.state = 'Archived' OR k.kind = 'Department')))
        """, new { staff, coordinator })];

    private static long[] Of(IEnumerable<PastKey> keys, Func<PastKind, bool> kind) => [.. keys.Where(k => kind(k.Kind)).Select(k => k.Id)];
}
