using SpringLoft.Core.Workspaces;

namespace SpringLoft.Store.Workspaces;

/// <summary>Something in the bin of a class.</summary>
public sealed record BinnedRow
{
    /// <summary>File, Link, Page, Folder or Assignment.</summary>
    public string Kind { get; init; } = "";
    public long Id { get; init; }
    public ClassId ClassId { get; init; }
    public string Name { get; init; } = "";
    public Instant BinnedAt { get; init; }
    public PersonId? BinnedBy { get; init; }

    /// <summary>Blank where a plan or the program did it.</summary>
    public string BinnedByName { get; init; } = "";

    /// <summary>Who put it in; null for folders and assignments.</summary>
    public PersonId? AddedBy { get; init; }
    public string AddedByName { get; init; } = "";
    public bool ByStudent { get; init; }
    public string? Sha256 { get; init; }

    /// <summary>The folder that it stood in; null at the top or in none.</summary>
    public string? From { get; init; }

    /// <summary>Folders that went with this one.</summary>
    public int Folders { get; init; }
}

/// <summary>The bins of classes: reads and takes away what others own.</summary>
public static class BinStore
{
    // A damaged database can have folders that stand in each other; the writer must not go round for ever.
    private const int Deepest = 100;

    // A folder that went with the one it stands in comes back with it, and is not listed by itself.
    private const string Rows =
        """
        SELECT x.*, ifnull((SELECT p.given || ' ' || p.family FROM person p WHERE p.id = x.binned_by), '') AS binned_by_name, ifnull((SELECT p.given || ' ' || p.family FROM person p WHERE p.id = x.added_by), '') AS added_by_name FROM (
          SELECT i.kind, i.id, i.class_id, i.name, i.binned_at, i.binned_by, i.added_by, i.by_student, i.sha256,
            (SELECT d.name FROM filing f JOIN folder d ON d.id = f.folder_id WHERE f.item_id = i.id ORDER BY d.binned_at IS NOT NULL, d.position LIMIT 1) AS "from", 0 AS folders
          FROM item i WHERE i.binned_at IS NOT NULL
          UNION ALL
          SELECT 'Folder', d.id, d.class_id, d.name, d.binned_at, d.binned_by, NULL, 0, NULL, (SELECT p.name FROM folder p WHERE p.id = d.parent_id),
            (WITH RECURSIVE inside(id) AS (SELECT id FROM folder WHERE parent_id = d.id AND binned_at = d.binned_at UNION SELECT f.id FROM folder f JOIN inside s ON f.parent_id = s.id WHERE f.binned_at = d.binned_at) SELECT count(*) FROM inside)
          FROM folder d WHERE d.binned_at IS NOT NULL AND NOT EXISTS (SELECT 1 FROM folder p WHERE p.id = d.parent_id AND p.binned_at = d.binned_at)
          UNION ALL
          SELECT 'Assignment', a.id, a.class_id, a.title, a.binned_at, a.binned_by, NULL, 0, NULL,
            (SELECT d.name FROM assignment_filing f JOIN folder d ON d.id = f.folder_id WHERE f.assignment_id = a.id ORDER BY d.binned_at IS NOT NULL, d.position LIMIT 1), 0
          FROM assignment a WHERE a.binned_at IS NOT NULL) x
        """;

    /// <summary>What is in the bin of a class, newest first.</summary>
    public static IReadOnlyList<BinnedRow> OfClass(IDbConnection c, ClassId id) => [.. c.Query<BinnedRow>($"{Rows} WHERE x.class_id = @id ORDER BY x.binned_at DESC, x.kind, x.id", new { id })];

    /// <summary>What has been in the bins of classes that are not archived since a moment or longer.</summary>
    public static IReadOnlyList<BinnedRow> Since(IDbConnection c, Instant moment) =>
        [.. c.Query<BinnedRow>($"{Rows} WHERE x.binned_at <= @moment AND x.class_id IN (SELECT id FROM class WHERE state <> 'Archived') ORDER BY x.class_id, x.kind, x.id", new { moment })];

    /// <summary>Takes a thing away for good.</summary>
    public static void RemoveItem(IDbConnection c, ItemId id)
    {
        c.Execute("UPDATE item SET bank_id = NULL, bank_version = NULL WHERE bank_id = @id", new { id });
        c.Execute("DELETE FROM assignment_thing WHERE item_id = @id", new { id });
        c.Execute("DELETE FROM filing WHERE item_id = @id", new { id });
        c.Execute("DELETE FROM item_version WHERE item_id = @id", new { id });
        c.Execute("DELETE FROM item WHERE id = @id AND binned_at IS NOT NULL", new { id });
    }

    /// <summary>Takes an assignment away for good that nobody has work for; false if somebody has.</summary>
    public static bool RemoveAssignment(IDbConnection c, AssignmentId id)
    {
        if (c.ExecuteScalar<bool>("SELECT EXISTS (SELECT 1 FROM work WHERE assignment_id = @id)", new { id })) return false;
        c.Execute("UPDATE assignment SET bank_id = NULL, bank_version = NULL WHERE bank_id = @id", new { id });
        c.Execute("UPDATE assignment SET rolled_from = NULL WHERE rolled_from = @id", new { id });
        c.Execute("DELETE FROM assignment_filing WHERE assignment_id = @id", new { id });
        c.Execute("DELETE FROM assignment_given WHERE assignment_id = @id", new { id });
        c.Execute("DELETE FROM assignment_thing WHERE assignment_id = @id", new { id });
        return c.Execute("DELETE FROM assignment WHERE id = @id AND binned_at IS NOT NULL", new { id }) == 1;
    }

    /// <summary>Takes a binned folder away for good with those that went with it. What is filed in them is filed there no more; a folder in which another stands that stays, stays too.</summary>
    public static void RemoveFolder(IDbConnection c, FolderId id)
    {
        var inside = c.Query<long>(
            """
            WITH RECURSIVE inside(id, depth) AS (SELECT id, 0 FROM folder WHERE id = @id AND binned_at IS NOT NULL UNION SELECT f.id, s.depth + 1 FROM folder f JOIN inside s ON f.parent_id = s.id WHERE f.binned_at IS NOT NULL AND s.depth < @Deepest)
            SELECT id FROM inside ORDER BY depth DESC
            """, new { id, Deepest }).ToList();
        foreach (var folder in inside)
        {
            // What people wrote in it is kept: it goes with the class.
            if (c.ExecuteScalar<bool>("SELECT EXISTS (SELECT 1 FROM folder WHERE parent_id = @folder) OR EXISTS (SELECT 1 FROM talk_message WHERE folder_id = @folder)", new { folder })) continue;
            c.Execute("DELETE FROM talk WHERE folder_id = @folder", new { folder });
            c.Execute("DELETE FROM filing WHERE folder_id = @folder", new { folder });
            c.Execute("DELETE FROM assignment_filing WHERE folder_id = @folder", new { folder });
            c.Execute("DELETE FROM folder WHERE id = @folder", new { folder });
        }
    }
}
