using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Sealing;

namespace SpringLoft.Store.Closing;

/// <summary>An open shelf.</summary>
public sealed record ShelfRow
{
    public long Id { get; init; }
    public ClassId ClassId { get; init; }
    public string Token { get; init; } = "";
    public string Title { get; init; } = "";
    public string Text { get; init; } = "";
    public string Language { get; init; } = "";
    public LocalDate UntilDay { get; init; }
    public Instant MadeAt { get; init; }
    public PersonId MadeBy { get; init; }
    public Instant? ShutAt { get; init; }
}

/// <summary>A thing on a shelf, as it was when the shelf was set.</summary>
/// <param name="Place">The folders that it stands in, parted by "/"; empty for the top.</param>
public sealed record ShelfThingRow
{
    public int Position { get; init; }
    public string Place { get; init; } = "";
    public ItemKind Kind { get; init; }
    public string Name { get; init; } = "";
    public string? Sha256 { get; init; }
    public long? Size { get; init; }
    public string? Url { get; init; }
}

/// <summary>How often a shelf was opened on a day.</summary>
public sealed record ShelfDayRow
{
    public LocalDate Day { get; init; }
    public int Visits { get; init; }
}

/// <summary>Owns shelf, shelf_thing and shelf_visit.</summary>
public static class ShelfStore
{
    private const string Select = "SELECT id, class_id, ifnull(unseal(token), '') AS token, title, text, language, until_day, made_at, made_by, shut_at FROM shelf";

    /// <summary>Shelves of a class, newest first.</summary>
    public static IReadOnlyList<ShelfRow> OfClass(IDbConnection c, ClassId id) => [.. c.Query<ShelfRow>($"{Select} WHERE class_id = @id ORDER BY id DESC", new { id })];

    /// <summary>The shelf with this address; null if there is none.</summary>
    public static ShelfRow? Of(IDbConnection c, string token) => c.QuerySingleOrDefault<ShelfRow>($"{Select} WHERE token_sha256 = @sha", new { sha = SealedColumns.Digest(token) });

    /// <summary>What stands on a shelf, in its order.</summary>
    public static IReadOnlyList<ShelfThingRow> Things(IDbConnection c, long shelf) => [.. c.Query<ShelfThingRow>(
        "SELECT t.position, t.place, t.kind, t.name, t.sha256, b.size, t.url FROM shelf_thing t LEFT JOIN blob b ON b.sha256 = t.sha256 WHERE t.shelf_id = @shelf ORDER BY t.position", new { shelf })];

    /// <summary>Adds a shelf with what stands on it.</summary>
    public static long Add(IDbConnection c, ShelfRow s, IEnumerable<ShelfThingRow> things)
    {
        var id = c.ExecuteScalar<long>(
            "INSERT INTO shelf(class_id, token, token_sha256, title, text, language, until_day, made_at, made_by) VALUES(@ClassId, seal(@Token), @sha, @Title, @Text, @Language, @UntilDay, @MadeAt, @MadeBy) RETURNING id",
            new { s.ClassId, s.Token, sha = SealedColumns.Digest(s.Token), s.Title, s.Text, s.Language, s.UntilDay, s.MadeAt, s.MadeBy });
        c.Execute("INSERT INTO shelf_thing(shelf_id, position, place, kind, name, sha256, url) VALUES(@id, @Position, @Place, @kind, @Name, @Sha256, @Url)",
            things.Select(t => new { id, t.Position, t.Place, kind = t.Kind.ToString(), t.Name, t.Sha256, t.Url }));
        return id;
    }

    /// <summary>Changes what the cover page says and until when it opens.</summary>
    public static void Set(IDbConnection c, ShelfRow s) => c.Execute("UPDATE shelf SET title = @Title, text = @Text, language = @Language, until_day = @UntilDay WHERE id = @Id", s);

    /// <summary>Shuts a shelf.</summary>
    public static void Shut(IDbConnection c, long id, Instant at) => c.Execute("UPDATE shelf SET shut_at = @at WHERE id = @id AND shut_at IS NULL", new { id, at });

    /// <summary>Counts a visit.</summary>
    public static void Visit(IDbConnection c, long id, LocalDate day) =>
        c.Execute("INSERT INTO shelf_visit(shelf_id, day, visits) VALUES(@id, @day, 1) ON CONFLICT(shelf_id, day) DO UPDATE SET visits = visits + 1", new { id, day });

    /// <summary>Visits of a shelf by day, the last first; days without any are not among them.</summary>
    public static IReadOnlyList<ShelfDayRow> Days(IDbConnection c, long id) => [.. c.Query<ShelfDayRow>("SELECT day, visits FROM shelf_visit WHERE shelf_id = @id ORDER BY day DESC", new { id })];
}
