using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rows;

namespace SpringLoft.Store.Workspaces;

/// <summary>A file, a link or a page; a page's text is kept as a file of CommonMark.</summary>
public sealed record ItemRow
{
    public ItemId Id { get; init; }
    public ItemKind Kind { get; init; }
    public string Name { get; init; } = "";
    public string? Sha256 { get; init; }
    public string? Sha512 { get; init; }
    public long? Size { get; init; }
    public string? Url { get; init; }
    public PersonId AddedBy { get; init; }
    public string AddedByName { get; init; } = "";
    public bool ByStudent { get; init; }
    public Instant AddedAt { get; init; }
    public Instant? BinnedAt { get; init; }
    public PersonId? BinnedBy { get; init; }
    public int Version { get; init; } = 1;

    /// <summary>Who wrote what stands now, and when; null if nobody changed it since it was added.</summary>
    public PersonId? ChangedBy { get; init; }
    public Instant? ChangedAt { get; init; }

    /// <summary>The thing of a department's bank that this is a copy of, and at which version it was copied.</summary>
    public ItemId? BankId { get; init; }
    public int? BankVersion { get; init; }

    /// <summary>False if its owner says that there is no right to copy it into another class.</summary>
    public bool MayCopy { get; init; } = true;

    /// <summary>What it is called as a file on a computer.</summary>
    public string FileName => Kind == ItemKind.Page ? $"{Name}.md" : Name;
}

/// <summary>An earlier state of a page, or of a file that was put in again under its name.</summary>
public sealed record ItemVersionRow
{
    public int Version { get; init; }
    public string Name { get; init; } = "";
    public string Sha256 { get; init; } = "";
    public long Size { get; init; }
    public string By { get; init; } = "";
    public Instant At { get; init; }
}

/// <summary>Owns item with its earlier versions, filing and blob.</summary>
public static class ItemStore
{
    private const string Select =
        """
        SELECT i.id, i.kind, i.name, i.sha256, b.sha512, b.size, i.url, i.added_by, p.given || ' ' || p.family AS added_by_name, i.by_student, i.added_at, i.binned_at, i.binned_by, i.changed_by, i.changed_at, i.version, i.bank_id, i.bank_version, i.may_copy
        FROM item i JOIN person p ON p.id = i.added_by LEFT JOIN blob b ON b.sha256 = i.sha256
        """;

    /// <summary>Items of a class by name, the bin left out.</summary>
    public static IReadOnlyList<ItemRow> OfClass(IDbConnection c, ClassId id) =>
        [.. c.Query<ItemRow>($"{Select} WHERE i.class_id = @id AND i.binned_at IS NULL ORDER BY i.name COLLATE NOCASE, i.id", new { id })];

    /// <summary>The same with the bin.</summary>
    public static IReadOnlyList<ItemRow> WithBin(IDbConnection c, ClassId id) =>
        [.. c.Query<ItemRow>($"{Select} WHERE i.class_id = @id ORDER BY i.name COLLATE NOCASE, i.id", new { id })];

    /// <summary>How many items a class has, the bin left out.</summary>
    public static int CountOf(IDbConnection c, ClassId id) => c.ExecuteScalar<int>("SELECT count(*) FROM item WHERE class_id = @id AND binned_at IS NULL", new { id });

    /// <summary>One item of a class; null if there is no such or it is in the bin.</summary>
    public static ItemRow? Find(IDbConnection c, ClassId id, ItemId item) =>
        c.QuerySingleOrDefault<ItemRow>($"{Select} WHERE i.class_id = @id AND i.id = @item AND i.binned_at IS NULL", new { id, item });

    /// <summary>Which items stand in which folders of a class.</summary>
    public static IReadOnlyList<(ItemId Item, FolderId Folder)> Filings(IDbConnection c, ClassId id) => [.. c.Query<(long, long)>(
        "SELECT f.item_id, f.folder_id FROM filing f JOIN item i ON i.id = f.item_id JOIN folder d ON d.id = f.folder_id WHERE i.class_id = @id AND d.binned_at IS NULL ORDER BY f.item_id, d.position, d.id", new { id })
        .Select(x => (new ItemId(x.Item1), new FolderId(x.Item2)))];

    /// <summary>Where the same bytes or address as a thing of this class stand in other classes that a person is staff of.</summary>
    public static IReadOnlyList<(ItemId Item, string ClassName, string Folder)> Elsewhere(IDbConnection c, ClassId id, PersonId staff) => [.. c.Query<(long, string, string)>(
        """
        SELECT i.id, k.name, d.name FROM item i JOIN item o ON o.class_id <> i.class_id AND o.binned_at IS NULL AND (o.sha256 = i.sha256 OR (i.url IS NOT NULL AND o.url = i.url))
          JOIN class k ON k.id = o.class_id JOIN member m ON m.class_id = k.id AND m.person_id = @staff AND m.role <> 'Student' AND m.left_at IS NULL
          JOIN filing f ON f.item_id = o.id JOIN folder d ON d.id = f.folder_id AND d.binned_at IS NULL
        WHERE i.class_id = @id AND i.binned_at IS NULL AND NOT EXISTS (SELECT 1 FROM filing x JOIN folder y ON y.id = x.folder_id AND y.binned_at IS NULL WHERE x.item_id = i.id)
        ORDER BY i.id, k.name_key LIMIT 500
        """, new { id, staff }).Select(x => (new ItemId(x.Item1), x.Item2, x.Item3))];

    /// <summary>Notes a stored file, once for all that share it. A blank SHA-512 is of what stands in no manifest; it is filled in when the same bytes come as something that does.</summary>
    public static void AddBlob(IDbConnection c, Files.StoredFile file, Instant at) => c.Execute(
        """
        INSERT INTO blob(sha256, sha512, size, added_at) VALUES(@Sha256, ifnull(@Sha512, ''), @Size, @at)
        ON CONFLICT(sha256) DO UPDATE SET sha512 = excluded.sha512 WHERE blob.sha512 = '' AND excluded.sha512 <> ''
        """, new { file.Sha256, file.Sha512, file.Size, at });

    /// <summary>Adds an item; its blob is noted before.</summary>
    public static ItemId Add(IDbConnection c, ClassId id, ItemRow i) => new(c.ExecuteScalar<long>(
        """
        INSERT INTO item(class_id, kind, name, sha256, url, added_by, by_student, added_at, bank_id, bank_version)
        VALUES(@id, @kind, @Name, @Sha256, @Url, @AddedBy, @ByStudent, @AddedAt, @BankId, @BankVersion) RETURNING id
        """, new { id, kind = i.Kind.ToString(), i.Name, i.Sha256, i.Url, i.AddedBy, i.ByStudent, i.AddedAt, i.BankId, i.BankVersion }));

    /// <summary>Adds many items, as <see cref="Add"/> does one.</summary>
    /// <returns>Their ids in the same order.</returns>
    public static IReadOnlyList<ItemId> AddAll(IDbConnection c, ClassId id, IEnumerable<ItemRow> items) => [.. Bulk.Insert(c,
        "INSERT INTO item(class_id, kind, name, sha256, url, added_by, by_student, added_at, bank_id, bank_version) VALUES(@p0, @p1, @p2, @p3, @p4, @p5, @p6, @p7, @p8, @p9) RETURNING id", 10,
        items.Select(i => new object?[] { id.Value, i.Kind.ToString(), i.Name, i.Sha256, i.Url, i.AddedBy.Value, i.ByStudent, Bulk.Text(i.AddedAt), i.BankId?.Value, i.BankVersion })).Select(i => new ItemId(i))];

    /// <summary>Files many items, as <see cref="File"/> does one.</summary>
    public static void FileAll(IDbConnection c, IEnumerable<(ItemId Item, FolderId Folder)> filings) => Bulk.Run(c,
        "INSERT INTO filing(item_id, folder_id) VALUES(@p0, @p1) ON CONFLICT DO NOTHING", 2, filings.Select(f => new object?[] { f.Item.Value, f.Folder.Value }));

    /// <summary>Changes an item's name, address, bytes and what it is a copy of, at the version that was seen; false if changed meanwhile.</summary>
    public static bool Save(IDbConnection c, ItemRow i) => c.Execute(
        "UPDATE item SET name = @Name, url = @Url, sha256 = @Sha256, bank_id = @BankId, bank_version = @BankVersion, version = version + 1 WHERE id = @Id AND version = @Version",
        new { i.Id, i.Version, i.Name, i.Url, i.Sha256, i.BankId, i.BankVersion }) == 1;

    /// <summary>Gives an item other bytes at the version that was seen, and keeps what it was; false if changed meanwhile.</summary>
    public static bool Replace(IDbConnection c, ItemRow was, string name, string sha256, int seen, PersonId by, Instant at)
    {
        if (was.Version != seen) return false;
        c.Execute("INSERT INTO item_version(item_id, version, name, sha256, by_id, at) VALUES(@Id, @Version, @Name, @Sha256, @by, @at)",
            new { was.Id, was.Version, was.Name, was.Sha256, by = was.ChangedBy ?? was.AddedBy, at = was.ChangedAt ?? was.AddedAt });
        PageDocStore.EndVersion(c, was.Id, was.Version);
        return Save(c, was with { Name = name, Sha256 = sha256 }) && c.Execute("UPDATE item SET changed_by = @by, changed_at = @at WHERE id = @Id", new { was.Id, by, at }) == 1;
    }

    /// <summary>Gives an item other bytes without keeping what it was: its version is being written on.</summary>
    public static void WriteOn(IDbConnection c, ItemRow was, string sha256, PersonId by, Instant at) =>
        c.Execute("UPDATE item SET sha256 = @sha256, changed_by = @by, changed_at = @at, version = version + 1 WHERE id = @Id", new { was.Id, sha256, by, at });

    /// <summary>Earlier versions of an item, newest first.</summary>
    public static IReadOnlyList<ItemVersionRow> Versions(IDbConnection c, ItemId item) => [.. c.Query<ItemVersionRow>(
        """
        SELECT v.version, v.name, v.sha256, b.size, p.given || ' ' || p.family AS by, v.at
        FROM item_version v JOIN blob b ON b.sha256 = v.sha256 JOIN person p ON p.id = v.by_id WHERE v.item_id = @item ORDER BY v.version DESC
        """, new { item })];

    /// <summary>Copies of a bank's things, in classes that are not archived, the bin left out.</summary>
    public static IReadOnlyList<(ItemId Copy, ClassId Class, ItemId Bank, int At)> CopiesOf(IDbConnection c, ClassId bank) => [.. c.Query<(long, long, long, long)>(
        """
        SELECT i.id, i.class_id, i.bank_id, i.bank_version FROM item b JOIN item i ON i.bank_id = b.id JOIN class k ON k.id = i.class_id
        WHERE b.class_id = @bank AND i.binned_at IS NULL AND k.state <> 'Archived'
        """, new { bank }).Select(x => (new ItemId(x.Item1), new ClassId(x.Item2), new ItemId(x.Item3), (int)x.Item4))];

    /// <summary>Files an item in a folder; nothing happens if it stands there already.</summary>
    public static void File(IDbConnection c, ItemId item, FolderId folder) =>
        c.Execute("INSERT INTO filing(item_id, folder_id) VALUES(@item, @folder) ON CONFLICT DO NOTHING", new { item, folder });

    /// <summary>Takes an item out of all folders.</summary>
    public static void Unfile(IDbConnection c, ItemId item) => c.Execute("DELETE FROM filing WHERE item_id = @item", new { item });

    /// <summary>Says whether there is a right to copy an item into another class.</summary>
    public static void SetMayCopy(IDbConnection c, ItemId item, bool may) => c.Execute("UPDATE item SET may_copy = @may, version = version + 1 WHERE id = @item", new { item, may });

    /// <summary>Puts an item in the bin, or back with null.</summary>
    /// <param name="by">Who did it; null for back.</param>
    public static void SetBinned(IDbConnection c, ItemId item, Instant? at, PersonId? by) =>
        c.Execute("UPDATE item SET binned_at = @at, binned_by = @by WHERE id = @item", new { item, at, by });

    /// <summary>What stands in a folder, by its name.</summary>
    public static IReadOnlyList<(ItemId Id, string Name)> Named(IDbConnection c, FolderId folder) => [.. c.Query<(long Id, string Name)>(
        "SELECT i.id, i.name FROM filing f JOIN item i ON i.id = f.item_id WHERE f.folder_id = @folder AND i.binned_at IS NULL ORDER BY i.id", new { folder }).Select(i => (new ItemId(i.Id), i.Name))];

    /// <summary>Names that stand in a folder, to keep siblings apart.</summary>
    public static IReadOnlyList<string> NamesIn(IDbConnection c, FolderId folder) => [.. Named(c, folder).Select(i => i.Name)];
}
