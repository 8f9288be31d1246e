using SpringLoft.App.Workspaces;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Files;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Closing;

/// <summary>A loose thing: what it is, where it was, where it may belong.</summary>
/// <param name="Student">The student who put it in; null for staff's.</param>
/// <param name="Preview">The first words that are written in it; null where none can be read.</param>
/// <param name="Unseen">Folders in which nobody would see it who does not now.</param>
/// <param name="Used">Where the same thing stands in other classes, as "class: folder".</param>
public sealed record LooseThing(ItemId Id, string Name, ItemKind Kind, string? Url, long? Size, string AddedBy, PersonId? Student, Instant AddedAt, string? Preview, IReadOnlyList<string> Used, Suggested? Suggested, IReadOnlyList<FolderId> Unseen);

/// <summary>All loose things of a class, and the folders that there are.</summary>
public sealed record TidyDesk(IReadOnlyList<LooseThing> Things, IReadOnlyList<TidyPlace> Folders, string PapersName);

/// <summary>A folder, by its path.</summary>
/// <param name="Students">How many students would see a thing there, of those on the roster.</param>
/// <param name="Only">The one who would, where it is one alone.</param>
/// <param name="All">True where it is the whole class.</param>
public sealed record TidyPlace(FolderId Id, string Path, int Students, PersonId? Only, bool All);

/// <summary>Goes through what stands in no folder, one thing after another: file it, keep it among one's own papers, bin it.</summary>
public sealed class Tidying(Premises premises, WordsInFiles words)
{
    private const int PreviewLength = 1200;

    // Bytes that are read to guess where things belong: those that come first; the others as the first are gone through.
    private const long MostRead = 20L * 1024 * 1024;

    /// <summary>The loose things of a class.</summary>
    public TidyDesk See(Caller who, ClassId id) => premises.Db.Read(c =>
    {
        var k = ClassGate.Demand(c, who, id, Act.Arrange).Class;
        var folders = FolderStore.OfClass(c, id);
        var paths = Paths(folders);
        var items = ItemStore.OfClass(c, id);
        var filings = ItemStore.Filings(c, id).ToLookup(f => f.Item, f => f.Folder);
        var byFolder = ItemStore.Filings(c, id).ToLookup(f => f.Folder, f => f.Item);
        var names = items.ToDictionary(i => i.Id, i => i.Name);
        // A student's own folders stand in one another: the topmost is theirs.
        var byId = folders.ToDictionary(f => f.Id);
        var open = folders.Where(f => f.GroupId is null && (f.StudentId is null || f.ParentId is not { } p || byId[p].StudentId is null))
            .Select(f => new TidyFolder(f.Id, paths[f.Id], [.. byFolder[f.Id].Where(names.ContainsKey).Select(i => names[i])], f.StudentId)).ToList();
        var loose = items.Where(i => !filings[i.Id].Any()).ToList();
        var attached = AttachedStore.OfClass(c, id).SelectMany(a => a).Where(a => a.ItemId is not null).ToLookup(a => a.ItemId!.Value, a => a.AssignmentId);
        var assignments = AssignmentStore.OfClass(c, id).ToDictionary(a => a.Id, a => a.Title);
        var placed = AssignmentStore.Filings(c, id);
        var filed = items.Where(i => filings[i.Id].Any()).ToLookup(i => i.AddedBy);
        var reach = Reach(c, k, folders);
        var elsewhere = ItemStore.Elsewhere(c, id, who.Id).ToLookup(e => e.Item);
        var left = MostRead;
        return new TidyDesk([.. loose.Select(i =>
        {
            var used = elsewhere[i.Id].ToList();
            left -= i.Size ?? 0;
            var text = left >= 0 ? Text(i) : null;
            var student = i.ByStudent ? i.AddedBy : (PersonId?)null;
            return new LooseThing(i.Id, i.Name, i.Kind, i.Url, i.Size, i.AddedByName, student, i.AddedAt, text is null ? null : Cut.Whole(text, 0, PreviewLength), [.. used.Select(u => $"{u.ClassName}: {u.Folder}").Distinct().Take(4)],
                TidySuggestion.Of(new(i.Name, text ?? "")
                {
                    Student = student,
                    Elsewhere = [.. used.Select(u => open.FirstOrDefault(f => string.Equals(f.Path.Split('/')[^1], u.Folder, StringComparison.OrdinalIgnoreCase))?.Path).OfType<string>()],
                    Attached = [.. attached[i.Id].Where(assignments.ContainsKey).SelectMany(a => placed[a].Select(f => (f, assignments[a])))],
                    Beside = [.. filed[i.AddedBy].Where(o => (o.AddedAt - i.AddedAt) is var apart && apart <= TidySuggestion.Together && apart >= -TidySuggestion.Together).SelectMany(o => filings[o.Id])],
                }, open), [.. folders.Where(f => !reach[f.Id].IsWider(student)).Select(f => f.Id)]);
        })], [.. folders.Select(f => new TidyPlace(f.Id, paths[f.Id], reach[f.Id].Students, reach[f.Id].Only, reach[f.Id].All)).OrderBy(p => p.Path, StringComparer.CurrentCulture)], PapersName(c, who, k.YearId));
    });

    /// <summary>Keeps a loose thing of staff among one's own papers of the school year, and takes it out of the class.</summary>
    /// <returns>The workspace of one's own papers.</returns>
    public ClassId Keep(Caller by, ClassId id, ItemId item) => premises.Db.Write(c =>
    {
        var at = ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
        var row = ItemStore.Find(c, id, item) ?? throw Refusals.NotFound("thing");
        if (row.ByStudent) throw new RefusedException("work-of-student", $"“{row.Name}” was put in by a student: it is theirs.", "File it where they find it.", "item");
        var now = premises.Clock.Now;
        var papers = Papers(c, by, at.Class, now);
        var copy = ItemStore.Add(c, papers, row with { AddedBy = by.Id, AddedAt = now });
        ItemStore.File(c, copy, OfClass(c, papers, at.Class));
        ItemStore.SetBinned(c, item, now, by.Id);
        Premises.Add(c, by, now, new("kept among own papers", "item", item.Value, id, row.Name));
        return papers;
    });

    /// <summary>Takes keeping back: the thing is loose in the class again, and no longer among one's own papers.</summary>
    public void Unkeep(Caller by, ClassId id, ItemId item) => premises.Db.Write(c =>
    {
        var at = ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
        var row = ItemStore.WithBin(c, id).FirstOrDefault(i => i.Id == item && i.BinnedAt is not null) ?? throw Refusals.NotFound("thing");
        ItemStore.SetBinned(c, item, null, null);
        if (Find(c, by, at.Class.YearId) is { } papers && ItemStore.OfClass(c, papers.Id).LastOrDefault(i => i.Name == row.Name && i.Sha256 == row.Sha256 && i.Url == row.Url) is { } copy) ItemStore.SetBinned(c, copy.Id, premises.Clock.Now, by.Id);
        Premises.Add(c, by, premises.Clock.Now, new("put back among the loose", "item", item.Value, id, row.Name));
    });

    private static ClassId Papers(IDbConnection c, Caller by, ClassRow k, Instant now)
    {
        if (Find(c, by, k.YearId) is { } there) return there.Id;
        var name = PapersName(c, by, k.YearId);
        for (var n = 2; ClassStore.Names(c, SafeName.Key(name)).Count > 0; n++) name = $"{PapersName(c, by, k.YearId)} ({n})";
        var made = ClassStore.Add(c, new ClassRow { Kind = WorkspaceKind.Kept, YearId = k.YearId, CourseId = k.CourseId, Name = name, TeacherShown = by.Name, MadeAt = now });
        RosterStore.Put(c, made, by.Id, ClassRole.Lead, now);
        FolderStore.Add(c, made, null, "Papers", 0, FolderRule.StaffOnly, null, null);
        return made;
    }

    // Papers of the year stand by the class that they are from.
    private static FolderId OfClass(IDbConnection c, ClassId papers, ClassRow k)
    {
        var folders = FolderStore.OfClass(c, papers);
        var top = folders.First(f => f.ParentId is null);
        var there = folders.Where(f => f.ParentId == top.Id).ToList();
        var name = SafeName.Make(k.Name)!.Name;
        return there.FirstOrDefault(f => SafeName.Clash(f.Name, name))?.Id ?? FolderStore.Add(c, papers, top.Id, name, there.Count, FolderRule.AsAbove, null, null);
    }

    private static ClassRow? Find(IDbConnection c, Caller by, YearId year) =>
        ClassStore.OfPerson(c, by.Id).FirstOrDefault(k => k.Kind == WorkspaceKind.Kept && k.YearId == year && k.RolledFrom is null && RosterStore.Member(c, k.Id, by.Id)?.LeftAt is null);

    private static string PapersName(IDbConnection c, Caller by, YearId year) => SafeName.Make($"Papers of {by.Name}, {YearStore.All(c).First(y => y.Id == year).Year.Label}")!.Name;

    // As students see the class while it is open: what is filed before that is seen then.
    private static Dictionary<FolderId, TidyReach> Reach(IDbConnection c, ClassRow k, IReadOnlyList<FolderRow> folders)
    {
        var facts = folders.ToDictionary(f => f.Id, f => f.Fact);
        var groups = GroupStore.Members(c, k.Id).SelectMany(g => g.Select(p => (Group: g.Key, Person: p))).ToLookup(x => x.Person, x => x.Group);
        var students = RosterStore.Members(c, k.Id).Where(m => m is { LeftAt: null, Role: ClassRole.Student })
            .Select(m => (m.PersonId, Access: new Access(new Viewer(m.PersonId, Standing.Student, m.MayPost, ClassState.Open, k.AfterArchive, groups[m.PersonId].ToHashSet()), facts))).ToList();
        return folders.ToDictionary(f => f.Id, f => TidyReach.Of([.. students.Where(s => s.Access.Of(f.Id).Right >= Right.View).Select(s => s.PersonId)], students.Count));
    }

    private string? Text(ItemRow i)
    {
        if (i.Sha256 is not { } sha) return null;
        try { return words.Of(sha).Text is { Length: > 0 } text ? text : null; }
        catch (Exception e) when (e is FileNotFoundException or DamagedFileException) { return null; }
    }

    private static Dictionary<FolderId, string> Paths(IReadOnlyList<FolderRow> folders)
    {
        var byId = folders.ToDictionary(f => f.Id);
        string Of(FolderRow f) => f.ParentId is { } p && byId.TryGetValue(p, out var above) ? $"{Of(above)}/{f.Name}" : f.Name;
        return folders.ToDictionary(f => f.Id, Of);
    }
}
