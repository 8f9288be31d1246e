using SpringLoft.Core.Workspaces;

namespace SpringLoft.Store.Assignments;

/// <summary>Something that is attached to an assignment, as it is now.</summary>
public sealed record AttachedRow
{
    public long Id { get; init; }
    public AssignmentId AssignmentId { get; init; }
    public ItemKind Kind { get; init; }
    public string Name { get; init; } = "";

    /// <summary>Null for a link.</summary>
    public string? Sha256 { get; init; }
    public string? Sha512 { get; init; }
    public long? Size { get; init; }
    public string? Url { get; init; }

    /// <summary>The thing of the class that it is; null for one that stands nowhere else.</summary>
    public ItemId? ItemId { get; init; }

    /// <summary>The name of its file, of what has bytes.</summary>
    public string FileName => Kind == ItemKind.Page ? $"{Name}.md" : Name;
}

/// <summary>A file that came for an assignment which is being written.</summary>
public sealed record AttachedUpload
{
    public long Id { get; init; }
    public string Name { get; init; } = "";
    public string Sha256 { get; init; } = "";
}

/// <summary>Owns assignment_thing and assignment_upload.</summary>
public static class AttachedStore
{
    /// <summary>Days for which a file waits for its assignment to be saved.</summary>
    public const int UploadDays = 14;

    // What is in the bin of the class is not shown, and is there again when it is brought back.
    private const string Rows =
        """
        SELECT t.id, t.assignment_id, ifnull(i.kind, t.kind) AS kind, ifnull(i.name, t.name) AS name, ifnull(i.sha256, t.sha256) AS sha256, ifnull(i.url, t.url) AS url, t.item_id, b.size, b.sha512
        FROM assignment_thing t JOIN assignment a ON a.id = t.assignment_id LEFT JOIN item i ON i.id = t.item_id LEFT JOIN blob b ON b.sha256 = ifnull(i.sha256, t.sha256)
        WHERE i.binned_at IS NULL
        """;

    /// <summary>What is attached to the assignments of a class, in the order that was given.</summary>
    public static ILookup<AssignmentId, AttachedRow> OfClass(IDbConnection c, ClassId id) =>
        c.Query<AttachedRow>($"{Rows} AND a.class_id = @id ORDER BY t.assignment_id, t.position, t.id", new { id }).ToLookup(t => t.AssignmentId);

    /// <summary>What is attached to one.</summary>
    public static IReadOnlyList<AttachedRow> Of(IDbConnection c, AssignmentId assignment) =>
        [.. c.Query<AttachedRow>($"{Rows} AND t.assignment_id = @assignment ORDER BY t.position, t.id", new { assignment })];

    /// <summary>Attaches these and no others: those with a number stay as they are, the rest is added. What is hidden with its thing stays.</summary>
    public static void Set(IDbConnection c, AssignmentId assignment, IReadOnlyList<AttachedRow> things)
    {
        var kept = things.Where(t => t.Id != 0).Select(t => t.Id).ToHashSet();
        foreach (var gone in Of(c, assignment).Where(t => !kept.Contains(t.Id))) c.Execute("DELETE FROM assignment_thing WHERE id = @Id", new { gone.Id });
        for (var position = 0; position < things.Count; position++)
        {
            var t = things[position];
            if (t.Id != 0) c.Execute("UPDATE assignment_thing SET position = @position WHERE id = @Id AND assignment_id = @assignment", new { position, t.Id, assignment });
            else
                c.Execute("INSERT INTO assignment_thing(assignment_id, position, kind, name, sha256, url, item_id) VALUES(@assignment, @position, @kind, @Name, @Sha256, @Url, @ItemId)",
                    new { assignment, position, kind = t.Kind.ToString(), t.Name, t.Sha256, t.Url, t.ItemId });
        }
    }

    /// <summary>Attaches to one what is attached to another, as it is now; what was attached to it goes.</summary>
    public static void Copy(IDbConnection c, AssignmentId from, AssignmentId to)
    {
        c.Execute("DELETE FROM assignment_thing WHERE assignment_id = @to", new { to });
        Set(c, to, [.. Of(c, from).Select(t => t with { Id = 0, ItemId = null })]);
    }

    /// <summary>The same for all assignments of a class that were rolled over and have nothing attached.</summary>
    public static void CopyRolled(IDbConnection c, ClassId id) => c.Execute(
        $"""
        INSERT INTO assignment_thing(assignment_id, position, kind, name, sha256, url)
        SELECT n.id, row_number() OVER (PARTITION BY n.id ORDER BY s.position, s.id) - 1, s.kind, s.name, s.sha256, s.url
        FROM assignment n JOIN (SELECT x.position, r.* FROM ({Rows}) r JOIN assignment_thing x ON x.id = r.id) s ON s.assignment_id = n.rolled_from
        WHERE n.class_id = @id AND NOT EXISTS (SELECT 1 FROM assignment_thing t WHERE t.assignment_id = n.id)
        """, new { id });

    /// <summary>Keeps a file for an assignment that is being written; its blob is noted before.</summary>
    public static long AddUpload(IDbConnection c, ClassId id, PersonId by, string name, string sha256, Instant at) => c.ExecuteScalar<long>(
        "INSERT INTO assignment_upload(class_id, by_id, name, sha256, at) VALUES(@id, @by, @name, @sha256, @at) RETURNING id", new { id, by, name, sha256, at });

    /// <summary>A file that somebody sent for an assignment of a class; null if there is none.</summary>
    public static AttachedUpload? Upload(IDbConnection c, ClassId id, PersonId by, long upload) =>
        c.QuerySingleOrDefault<AttachedUpload>("SELECT id, name, sha256 FROM assignment_upload WHERE id = @upload AND class_id = @id AND by_id = @by", new { id, by, upload });

    /// <summary>Lets go of files whose assignment was never saved, or was some time ago.</summary>
    public static void LetGoOfUploads(IDbConnection c, Instant before) => c.Execute("DELETE FROM assignment_upload WHERE at < @before", new { before });
}
