using SpringLoft.Core.Closing;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Closing;

/// <summary>Everything in a class that has bytes, as the layout of packages needs it. Things in the bin are left out.</summary>
internal sealed record ClassContents(IReadOnlyList<LayFolder> Folders, IReadOnlyList<LayItem> Items, IReadOnlyList<LayWork> Work)
{
    /// <summary>What is attached to assignments and has bytes.</summary>
    internal IReadOnlyList<LayAttached> Attached { get; init; } = [];

    /// <summary>Files with notices.</summary>
    internal IReadOnlyList<LayAttached> OfNotices { get; init; } = [];

    /// <summary>Where all of it goes in the package of the class.</summary>
    internal LaidArchive Laid() => PackageLayout.Lay(Folders, Items, Work, Attached, OfNotices);

    internal static ClassContents Load(IDbConnection c, ClassId id)
    {
        var notices = NoticeStore.OfClass(c, id);
        return Of(FolderStore.OfClass(c, id), ItemStore.OfClass(c, id), ItemStore.Filings(c, id).ToLookup(f => f.Item, f => f.Folder), AssignmentStore.OfClass(c, id), AttachedStore.OfClass(c, id), notices, NoticeFileStore.Of(c, notices.Select(n => n.Id)), Works(c, id));
    }

    /// <summary>The same of a class that was read already.</summary>
    internal static ClassContents Load(IDbConnection c, ClassRead r) =>
        Of(r.Folders, r.Items, r.Filings, r.Assignments, r.Attached, r.Notices, r.WithNotices, Works(c, r.Class.Id));

    private static ClassContents Of(IReadOnlyList<FolderRow> folders, IReadOnlyList<ItemRow> items, ILookup<ItemId, FolderId> filings, IReadOnlyList<AssignmentRow> assignments, ILookup<AssignmentId, AttachedRow> attached, IReadOnlyList<NoticeRow> notices, ILookup<long, NoticeFileRow> withThem, List<LayWork> work) =>
        new([.. folders.Select(f => new LayFolder(f.Id, f.ParentId, f.Name))], [.. items.Where(i => i.Sha256 is not null).Select(i => Lay(i, filings[i.Id]))], work)
        {
            Attached = [.. from a in assignments from t in attached[a.Id] where t.Sha256 is not null select new LayAttached(a.Title, new(t.FileName, t.Sha256!, t.Sha512!, t.Size ?? 0, a.MadeAt)) { ToId = a.Id.Value }],
            OfNotices = [.. from n in notices from f in withThem[n.Id] select new LayAttached($"notice {n.Id}", new(f.Name, f.Sha256, f.Sha512, f.Size, n.MadeAt)) { ToId = n.Id }],
        };

    private static string Day(Instant at) => at.InUtc().Date.ToString("uuuu-MM-dd", System.Globalization.CultureInfo.InvariantCulture);

    internal static LayItem Lay(ItemRow i, IEnumerable<FolderId> folders) => new(new(i.FileName, i.Sha256!, i.Sha512!, i.Size ?? 0, i.AddedAt), [.. folders]) { Id = i.Id };

    internal static List<LayWork> Works(IDbConnection c, ClassId id)
    {
        var (work, files, turns) = (WorkStore.OfClass(c, id), WorkStore.FilesOfClass(c, id), WorkStore.FilesOfTurns(c, id));
        var titles = AssignmentStore.OfClass(c, id).ToDictionary(a => a.Id, a => a.Title);
        var people = RosterStore.Members(c, id).ToDictionary(m => m.PersonId);
        return [.. work.Where(w => titles.ContainsKey(w.AssignmentId) && people.ContainsKey(w.StudentId))
            .Select(w => new LayWork(titles[w.AssignmentId], w.StudentId, people[w.StudentId].Name.Sort, people[w.StudentId].StudentNumber,
                [.. files[w.Id].Select(f => new LayFile(f.Name, f.Sha256, f.Sha512, f.Size, f.AddedAt))])
            {
                Id = w.Id,
                Earlier = [.. turns[w.Id].Where(t => files[w.Id].All(f => f.Sha256 != t.Sha256)).DistinctBy(t => t.Sha256).Select(t => new LayFile($"{Day(t.HandedInAt)} {t.Name}", t.Sha256, t.Sha512, t.Size, t.AddedAt))],
            })];
    }
}

/// <summary>A class read once, to be taken apart by student. What somebody else binned of a student's is theirs to take home too.</summary>
internal sealed class StudentContents
{
    private readonly IReadOnlyList<FolderRow> folders;
    private readonly ILookup<PersonId, ItemRow> added;
    private readonly ILookup<FolderId, ItemRow> filed;
    private readonly ILookup<ItemId, FolderId> filings;
    private readonly ILookup<PersonId, LayWork> work;
    private readonly ILookup<PersonId, StudentWords> words;
    private readonly Dictionary<FolderId, PersonId> owners = [];

    private StudentContents(IReadOnlyList<FolderRow> folders, IReadOnlyList<ItemRow> items, ILookup<ItemId, FolderId> filings, IEnumerable<LayWork> work, IEnumerable<StudentWords> words)
    {
        this.words = words.ToLookup(w => w.Student);
        this.folders = folders;
        this.filings = filings;
        added = items.ToLookup(i => i.AddedBy);
        filed = items.SelectMany(i => filings[i.Id].Select(f => (Folder: f, Item: i))).ToLookup(x => x.Folder, x => x.Item);
        this.work = work.ToLookup(w => w.Student);
        var byId = folders.ToDictionary(f => f.Id);
        PersonId? Owner(FolderRow f) => f.StudentId ?? (f.ParentId is { } p && byId.TryGetValue(p, out var above) ? Owner(above) : null);
        foreach (var f in folders)
            if (Owner(f) is { } owner) owners[f.Id] = owner;
    }

    internal static StudentContents Load(IDbConnection c, ClassId id) => new(FolderStore.OfClass(c, id), [.. ItemStore.WithBin(c, id).Where(i => i.Sha256 is not null && (i.BinnedAt is null || (i.ByStudent && i.BinnedBy != i.AddedBy)))],
        ItemStore.Filings(c, id).ToLookup(f => f.Item, f => f.Folder), ClassContents.Works(c, id), LastCopyStore.WordsOf(c, id));

    /// <summary>What belongs to one student: their work, their own folders, what they added elsewhere, what they wrote on pages of others.</summary>
    internal ClassContents Of(PersonId student)
    {
        var own = folders.Where(f => owners.TryGetValue(f.Id, out var o) && o == student).ToList();
        // In the order in which they came, however they are found.
        var items = added[student].Concat(own.SelectMany(f => filed[f.Id])).DistinctBy(i => i.Id).OrderBy(i => i.Id.Value).Select(i => ClassContents.Lay(i, filings[i.Id]))
            .Concat(words[student].Select(w => new LayItem(new($"{w.Name}, as you left it.md", w.Sha256, w.Sha512, w.Size, w.At), [.. filings[w.Item]]))).ToList();
        return new([.. own.Select(f => new LayFolder(f.Id, f.ParentId, f.Name))], items, [.. work[student]]);
    }
}
