namespace SpringLoft.Store.Workspaces;

/// <summary>A page that several write at once, as it is kept.</summary>
public sealed record PageDocRow
{
    /// <summary>What stands for the text whose digest is <see cref="OfText"/>.</summary>
    public byte[] State { get; init; } = [];
    public string OfText { get; init; } = "";

    /// <summary>When the version that is being written began; null for none.</summary>
    public Instant? BegunAt { get; init; }
}

/// <summary>Owns page_doc, page_update and page_writer.</summary>
public static class PageDocStore
{
    /// <summary>In place of the number of a version: what stands now.</summary>
    public const int Now = 0;

    /// <summary>As it was when its text was written into the page last; null for a page that was never written so.</summary>
    public static PageDocRow? Find(IDbConnection c, ItemId item) => c.QuerySingleOrDefault<PageDocRow>("SELECT state, of_text, begun_at FROM page_doc WHERE item_id = @item", new { item });

    /// <summary>What was written since, in the order in which it came.</summary>
    public static IReadOnlyList<byte[]> Since(IDbConnection c, ItemId item) => [.. c.Query<byte[]>("SELECT data FROM page_update WHERE item_id = @item ORDER BY id", new { item })];

    /// <summary>Keeps what somebody wrote.</summary>
    public static void Add(IDbConnection c, ItemId item, byte[] update) => c.Execute("INSERT INTO page_update(item_id, data) VALUES(@item, @update)", new { item, update });

    /// <summary>Keeps the whole, and what a text stands for; what was written up to it is in it.</summary>
    public static void Settle(IDbConnection c, ItemId item, byte[] state, string ofText, Instant? begunAt)
    {
        c.Execute("INSERT INTO page_doc(item_id, state, of_text, begun_at) VALUES(@item, @state, @ofText, @begunAt) ON CONFLICT DO UPDATE SET state = @state, of_text = @ofText, begun_at = @begunAt", new { item, state, ofText, begunAt });
        c.Execute("DELETE FROM page_update WHERE item_id = @item", new { item });
    }

    /// <summary>Says who wrote at what stands now.</summary>
    public static void AddWriters(IDbConnection c, ItemId item, IEnumerable<PersonId> people) =>
        c.Execute("INSERT INTO page_writer(item_id, version, person_id) VALUES(@item, @Now, @person) ON CONFLICT DO NOTHING", people.Select(person => new { item, Now, person }));

    /// <summary>What stood is an earlier version from now on, and whoever wrote it is who wrote that one.</summary>
    internal static void EndVersion(IDbConnection c, ItemId item, int version) => c.Execute("UPDATE page_writer SET version = @version WHERE item_id = @item AND version = @Now", new { item, version, Now });

    /// <summary>Who wrote each version that was written together, by name; what stands is <see cref="Now"/>.</summary>
    public static ILookup<int, string> Writers(IDbConnection c, ItemId item) => c.Query<(int Version, string Given, string Family)>(
        "SELECT w.version, p.given, p.family FROM page_writer w JOIN person p ON p.id = w.person_id WHERE w.item_id = @item ORDER BY w.version, p.given_key, p.family_key, p.id", new { item })
        .ToLookup(w => w.Version, w => new Core.People.PersonName(w.Given, w.Family).Display);
}
