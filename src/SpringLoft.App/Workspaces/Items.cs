using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Files;
using SpringLoft.Store.Naming;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>A file that was taken in, and what its name had to become.</summary>
/// <param name="Was">What was replaced in the name, in words; empty if nothing.</param>
/// <param name="NewVersion">True if it took the place of the one of that name; that one is kept as an earlier version.</param>
public sealed record TakenIn(ItemId Id, string Name, long Size, IReadOnlyList<string> Was, bool NewVersion = false);

/// <summary>Bytes to be sent.</summary>
public sealed record Download(string Name, Stream Content, long Size);

/// <summary>A page as it is written.</summary>
/// <param name="Text">CommonMark.</param>
/// <param name="Writers">Who wrote it as it stands, where several did at once.</param>
/// <param name="Shared">Several may change it: it is written together.</param>
public sealed record PageText(string Title, string Text, int Version, IReadOnlyList<string> Writers, bool Shared);

/// <summary>An earlier version of a thing.</summary>
/// <param name="Writers">Who wrote it, where several did at once.</param>
public sealed record ThingVersion(int Version, string Name, long Size, string By, Instant At, IReadOnlyList<string> Writers);

/// <summary>Files, links and pages in folders.</summary>
public sealed class Items(Premises premises)
{
    /// <summary>Most characters of a page.</summary>
    public const int MostText = 100_000;

    /// <summary>
    /// Streams a file into a folder. Put in again under its name by whoever put it in, or by staff where staff did, it is a new
    /// version and the one before is kept; a name of anybody else's gets a number. Nothing is overwritten.
    /// </summary>
    /// <exception cref="RefusedException"><c>folder-no-add</c>, <c>file-empty</c>, <c>file-too-long</c>, <c>name-empty</c>.</exception>
    /// <exception cref="DiskFullException">No room; nothing is kept.</exception>
    public async Task<TakenIn> AddFile(Caller by, ClassId id, FolderId folder, string? name, Stream content, CancellationToken stop)
    {
        var safe = CheckName(name);
        var student = premises.Db.Read(c => CheckMayAdd(c, by, id, folder)).Standing == Standing.Student;
        var file = await FileIntake.TakeIn(premises, content, safe.Name, student ? by.Id : null, id, stop).ConfigureAwait(false);
        return premises.Db.Write(c =>
        {
            // Asked again: the class may have been archived while a long file arrived.
            var at = CheckMayAdd(c, by, id, folder);
            var now = premises.Clock.Now;
            ItemStore.AddBlob(c, file, now);
            student = at.Standing == Standing.Student;
            var there = ItemStore.Named(c, folder).Select(i => (i.Id, Key: SafeName.Key(i.Name))).ToList();
            var key = SafeName.Key(safe.Name);
            if (there.FirstOrDefault(i => i.Key == key) is { Key: not null } same && ItemStore.Find(c, id, same.Id) is { Kind: ItemKind.File } before
                && PutInAgain.IsNewVersion(before.AddedBy == by.Id, before.ByStudent, student) && AccessFor(c, by, id).MayRename(FoldersOf(c, id, before.Id), before.AddedBy == by.Id))
            {
                if (before.Sha256 == file.Sha256) return new TakenIn(before.Id, before.Name, file.Size, ["the same file stands there already"]);
                ItemStore.Replace(c, before, before.Name, file.Sha256, before.Version, by.Id, now);
                Activities.Note(c, premises, by, id, Did.Wrote);
                Premises.Add(c, by, now, new("put file in again", "item", before.Id.Value, id, before.Name));
                return new TakenIn(before.Id, before.Name, file.Size, ["a new version: the one before is kept"], NewVersion: true);
            }
            var free = SafeName.Distinct(safe.Name, there.Select(i => i.Key).ToHashSet(), isFile: true);
            var item = ItemStore.Add(c, id, new ItemRow { Kind = ItemKind.File, Name = free, Sha256 = file.Sha256, AddedBy = by.Id, ByStudent = student, AddedAt = now });
            ItemStore.File(c, item, folder);
            Activities.Note(c, premises, by, id, Did.Wrote);
            Premises.Add(c, by, now, new("added file", "item", item.Value, id, free));
            var was = safe.Changes.Select(x => $"{x.Was}: {x.Why}").ToList();
            if (free != safe.Name) was.Add("a thing of that name stands there already");
            return new TakenIn(item, free, file.Size, was);
        });
    }

    /// <summary>Adds a link with a title of its own.</summary>
    public ItemId AddLink(Caller by, ClassId id, FolderId folder, string? title, string? url)
    {
        var text = Refusals.Needed(title, "title", "The title", 120);
        var link = WebAddress(url);
        return premises.Db.Write(c =>
        {
            var at = CheckMayAdd(c, by, id, folder);
            var now = premises.Clock.Now;
            var item = ItemStore.Add(c, id, new ItemRow { Kind = ItemKind.Link, Name = text, Url = link, AddedBy = by.Id, ByStudent = at.Standing == Standing.Student, AddedAt = now });
            ItemStore.File(c, item, folder);
            Activities.Note(c, premises, by, id, Did.Wrote);
            Premises.Add(c, by, now, new("added link", "item", item.Value, id, text));
            return item;
        });
    }

    /// <summary>Adds a page.</summary>
    /// <param name="text">CommonMark; shown without any HTML that stands in it.</param>
    public async Task<ItemId> AddPage(Caller by, ClassId id, FolderId folder, string? title, string? text, CancellationToken stop)
    {
        var name = PageTitle(title);
        var at = premises.Db.Read(c => CheckMayAdd(c, by, id, folder));
        var file = await KeepText(by, at, name, text, stop).ConfigureAwait(false);
        return premises.Db.Write(c =>
        {
            at = CheckMayAdd(c, by, id, folder);
            var now = premises.Clock.Now;
            var free = SafeName.Distinct(name, ItemStore.NamesIn(c, folder).Select(SafeName.Key).ToHashSet(), isFile: false);
            ItemStore.AddBlob(c, file, now);
            var item = ItemStore.Add(c, id, new ItemRow { Kind = ItemKind.Page, Name = free, Sha256 = file.Sha256, AddedBy = by.Id, ByStudent = at.Standing == Standing.Student, AddedAt = now });
            ItemStore.File(c, item, folder);
            Activities.Note(c, premises, by, id, Did.Wrote);
            Premises.Add(c, by, now, new("added page", "item", item.Value, id, free));
            return item;
        });
    }

    /// <summary>The text of a page, for somebody who sees it.</summary>
    public PageText ReadPage(Caller who, ClassId id, ItemId item) => premises.Db.Read(c =>
    {
        var row = Seen(c, who, id, item, ItemKind.Page);
        return new PageText(row.Name, Text(row.Sha256!), row.Version, [.. PageDocStore.Writers(c, item)[PageDocStore.Now]], WritingTogether.IsShared(c, id, FoldersOf(c, id, item)));
    });

    /// <summary>Changes a page's title and text, at the version that was seen.</summary>
    public async Task ChangePage(Caller by, ClassId id, ItemId item, string? title, string? text, int version, CancellationToken stop)
    {
        var name = PageTitle(title);
        // An empty text empties the page; none at all is a request that lacks something.
        if (text is null) throw new RefusedException("missing", "The text of the page is missing.", "Send the whole text.", "text");
        ItemRow Page(IDbConnection c) => CheckMay(c, by, id, item, remove: false) is { Kind: ItemKind.Page } row ? row : throw Refusals.NotFound("page");
        var at = premises.Db.Read(c =>
        {
            Page(c);
            return ClassGate.Demand(c, by, id, Act.AddItem);
        });
        var file = await KeepText(by, at, name, text, stop).ConfigureAwait(false);
        premises.Db.Write(c =>
        {
            var row = Page(c);
            var now = premises.Clock.Now;
            ItemStore.AddBlob(c, file, now);
            if (!ItemStore.Replace(c, row, name, file.Sha256, version, by.Id, now)) throw Refusals.ChangedMeanwhile("page");
            Activities.Note(c, premises, by, id, Did.Wrote);
            Premises.Add(c, by, now, new("changed page", "item", item.Value, id, name));
        });
    }

    /// <summary>What comes of a text that was begun on an earlier version of the page and the page as it stands now. Writes nothing.</summary>
    public TwoTexts Together(Caller who, ClassId id, ItemId item, int begun, string? text, Decided? decided) => premises.Db.Read(c =>
    {
        var row = Seen(c, who, id, item, ItemKind.Page);
        var was = begun == row.Version ? row.Sha256 : ItemStore.Versions(c, item).FirstOrDefault(v => v.Version == begun)?.Sha256;
        var mine = Refusals.NotLonger(text ?? "", "text", "The page", MostText);
        var by = row.ChangedBy is { } p ? Store.People.PersonStore.Find(c, p)!.Name.Display : row.AddedByName;
        return TwoTexts.Of(row.Version, row.Name, by, row.ChangedAt ?? row.AddedAt, was is null ? "" : Text(was), mine, Text(row.Sha256!), decided);
    });

    /// <summary>Earlier versions of a thing, newest first.</summary>
    public IReadOnlyList<ThingVersion> Versions(Caller who, ClassId id, ItemId item) => premises.Db.Read(c =>
    {
        Seen(c, who, id, item, null);
        var writers = PageDocStore.Writers(c, item);
        return ItemStore.Versions(c, item).Select(v => new ThingVersion(v.Version, v.Name, v.Size, v.By, v.At, [.. writers[v.Version]])).ToList();
    });

    /// <summary>Opens an earlier version.</summary>
    public Download OpenVersion(Caller who, ClassId id, ItemId item, int version) => premises.Db.Read(c =>
    {
        var row = Seen(c, who, id, item, null);
        var v = ItemStore.Versions(c, item).FirstOrDefault(v => v.Version == version) ?? throw Refusals.NotFound("version");
        return new Download(row.Kind == ItemKind.Page ? $"{v.Name}.md" : v.Name, premises.Files.Open(v.Sha256), v.Size);
    });

    /// <summary>What of an earlier version of a page is gone, and what is new since, word by word.</summary>
    public IReadOnlyList<TextDifference> Differences(Caller who, ClassId id, ItemId item, int version) => premises.Db.Read(c =>
    {
        var row = Seen(c, who, id, item, ItemKind.Page);
        var v = ItemStore.Versions(c, item).FirstOrDefault(v => v.Version == version) ?? throw Refusals.NotFound("version");
        return WordDifference.Of(Text(v.Sha256), Text(row.Sha256!));
    });

    /// <summary>Brings an earlier version back: what stands now becomes an earlier one.</summary>
    public void BringBackVersion(Caller by, ClassId id, ItemId item, int version, int seen) => premises.Db.Write(c =>
    {
        var row = CheckMay(c, by, id, item, remove: false);
        var v = ItemStore.Versions(c, item).FirstOrDefault(v => v.Version == version) ?? throw Refusals.NotFound("version");
        var now = premises.Clock.Now;
        if (!ItemStore.Replace(c, row, v.Name, v.Sha256, seen, by.Id, now)) throw Refusals.ChangedMeanwhile("thing");
        Premises.Add(c, by, now, new("brought version back", "item", item.Value, id, $"{v.Name}, version {version}"));
    });

    private string Text(string sha256)
    {
        using var reader = new StreamReader(premises.Files.Open(sha256));
        return reader.ReadToEnd();
    }

    /// <summary>Renames an item; of a link, changes the address too.</summary>
    /// <param name="url">Null to keep a link's address.</param>
    public void Rename(Caller by, ClassId id, ItemId item, string? name, string? url, int version) => premises.Db.Write(c =>
    {
        var row = CheckMay(c, by, id, item, remove: false);
        var next = row.Kind switch
        {
            ItemKind.Link => row with { Name = Refusals.Needed(name, "title", "The title", 120), Url = url is null ? row.Url : WebAddress(url) },
            ItemKind.Page => row with { Name = PageTitle(name) },
            _ => row with { Name = CheckName(name).Name },
        };
        if (row.Kind != ItemKind.Link)
            foreach (var f in FoldersOf(c, id, item))
                if (next.Name != row.Name && ItemStore.NamesIn(c, f).Any(n => n != row.Name && SafeName.Clash(n, next.Name)))
                    throw new RefusedException("name-taken", $"There is already a thing called “{next.Name}” in its folder.", "Give this one another name.", "name");
        if (!ItemStore.Save(c, next with { Version = version })) throw Refusals.ChangedMeanwhile("thing");
        Premises.Add(c, by, premises.Clock.Now, new("renamed", "item", item.Value, id, $"“{row.Name}” to “{next.Name}”"));
    });

    /// <summary>Files an item anew: in these folders and no other.</summary>
    public void FileIn(Caller by, ClassId id, ItemId item, IReadOnlyList<FolderId> folders) => premises.Db.Write(c =>
    {
        var row = Seen(c, by, id, item, null);
        var there = FoldersOf(c, id, item);
        // Taking it out of a folder takes the right to remove; leaving it where it stands takes none.
        if (there.Count == 0 || there.Any(f => !folders.Contains(f))) row = CheckMay(c, by, id, item, remove: true);
        foreach (var f in folders.Where(f => !there.Contains(f))) CheckMayAdd(c, by, id, f);
        ItemStore.Unfile(c, item);
        foreach (var f in folders) ItemStore.File(c, item, f);
        Premises.Add(c, by, premises.Clock.Now, new("filed", "item", item.Value, id, $"“{row.Name}” in {folders.Count} folders"));
    });

    /// <summary>Says whether there is a right to copy a thing into another class; without it, it stays behind when the class is rolled over.</summary>
    public void SetMayCopy(Caller by, ClassId id, ItemId item, bool may) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
        var row = ItemStore.Find(c, id, item) ?? throw Refusals.NotFound("thing");
        ItemStore.SetMayCopy(c, item, may);
        Premises.Add(c, by, premises.Clock.Now, new(may ? "allowed copying" : "barred copying", "item", item.Value, id, row.Name));
    });

    /// <summary>Puts an item in the bin.</summary>
    public void Bin(Caller by, ClassId id, ItemId item) => premises.Db.Write(c =>
    {
        var row = CheckMay(c, by, id, item, remove: true);
        var now = premises.Clock.Now;
        ItemStore.SetBinned(c, item, now, by.Id);
        Premises.Add(c, by, now, new("binned", "item", item.Value, id, row.Name));
    });

    /// <summary>Opens a file for somebody who sees it.</summary>
    public Download Open(Caller who, ClassId id, ItemId item) => premises.Db.Read(c =>
    {
        var row = Seen(c, who, id, item, null);
        if (row.Sha256 is not { } sha) throw Refusals.NotFound("file");
        return new Download(row.FileName, premises.Files.Open(sha), row.Size ?? 0);
    });

    /// <summary>A web address as it is kept.</summary>
    /// <exception cref="RefusedException"><c>url-wrong</c>.</exception>
    internal static string WebAddress(string? url)
    {
        if (!Uri.TryCreate(url?.Trim(), UriKind.Absolute, out var address) || address.Scheme is not ("http" or "https"))
            throw new RefusedException("url-wrong", "The address is not one of the web.", "Give it whole, as https://example.org/page.", "url");
        return Refusals.NotLonger(address.AbsoluteUri, "url", "The address", 2000);
    }

    internal static SafeNameResult CheckName(string? name)
    {
        if (string.IsNullOrEmpty(name)) throw new RefusedException("missing", "The file has no name.", "Send it with one.", "name");
        if (name.Length > 2000) throw new RefusedException("too-long", $"The name has {name.Length} characters.", "Rename the file on your computer first.", "name");
        // Only the last part counts: a name never says where in the store a thing goes.
        var last = name.Replace('\\', '/').Split('/')[^1];
        return SafeName.Make(last, keepExtension: true)
            ?? throw new RefusedException("name-empty", $"“{name}” leaves nothing to call the file by.", "Give it a name with a letter or a number.", "name");
    }

    private static ClassAndPlace CheckMayAdd(IDbConnection c, Caller by, ClassId id, FolderId folder)
    {
        var at = ClassGate.Demand(c, by, id, Act.AddItem).NotArchived();
        var folders = FolderStore.OfClass(c, id);
        var row = folders.FirstOrDefault(f => f.Id == folder);
        var right = row is null ? Right.None : new Access(at.Viewer(by.Id), folders.Select(f => f.Fact)).Of(folder).Right;
        if (row is null || right == Right.None) throw Refusals.NotFound("folder");
        if (right < Right.Add) throw new RefusedException("folder-no-add", $"You may look into “{row.Name}” but not add to it.", "Use a folder that says you may add.", "folder");
        return at;
    }

    internal static ItemRow CheckMay(IDbConnection c, Caller by, ClassId id, ItemId item, bool remove)
    {
        ClassGate.Demand(c, by, id, Act.AddItem).NotArchived();
        var row = Seen(c, by, id, item, null);
        var access = AccessFor(c, by, id);
        var folders = FoldersOf(c, id, item);
        if (!(remove ? access.MayRemove(folders, row.AddedBy == by.Id) : access.MayRename(folders, row.AddedBy == by.Id)))
            throw new RefusedException("item-not-yours", $"“{row.Name}” is not yours to {(remove ? "take away" : "change")}.", "Ask your teacher.");
        return row;
    }

    internal static ItemRow Seen(IDbConnection c, Caller who, ClassId id, ItemId item, ItemKind? kind)
    {
        var row = ItemStore.Find(c, id, item);
        if (row is null || (kind is { } k && row.Kind != k) || AccessFor(c, who, id).OfThing(FoldersOf(c, id, item)) < Right.View) throw Refusals.NotFound(kind == ItemKind.Page ? "page" : "thing");
        return row;
    }

    private Task<StoredFile> KeepText(Caller by, ClassAndPlace at, string name, string? text, CancellationToken stop)
    {
        return FileIntake.TakeIn(premises, new MemoryStream(PageBytes(text)), name, at.Standing == Standing.Student ? by.Id : null, at.Class.Id, stop);
    }

    internal static byte[] PageBytes(string? text)
    {
        var kept = Refusals.NotLonger(text ?? "", "text", "The page", MostText).ReplaceLineEndings("\n");
        return System.Text.Encoding.UTF8.GetBytes(kept.Length == 0 ? "\n" : kept);
    }

    internal static string PageTitle(string? title)
    {
        var raw = Refusals.Needed(title, "title", "The title", 120);
        return SafeName.Make(raw)?.Name ?? throw new RefusedException("name-empty", $"“{raw}” leaves nothing to call the page by.", "Give it a title with a letter or a number.", "title");
    }

    private static Access AccessFor(IDbConnection c, Caller who, ClassId id) =>
        new(ClassGate.Demand(c, who, id, Act.SeeClass).Viewer(who.Id), FolderStore.OfClass(c, id).Select(f => f.Fact));

    private static List<FolderId> FoldersOf(IDbConnection c, ClassId id, ItemId item) =>
        [.. ItemStore.Filings(c, id).Where(f => f.Item == item).Select(f => f.Folder)];
}
