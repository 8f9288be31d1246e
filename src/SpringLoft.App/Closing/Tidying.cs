using SpringLoft.Store.Files;
using System.Text;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Closing;

/// <summary>A loose thing: what it is, where it was, where it may belong.</summary>
/// <param name="Preview">The first lines, for text; null for others.</param>
/// <param name="Used">Where the same thing stands in other classes, as "class: folder".</param>
public sealed record LooseThing(ItemId Id, string Name, ItemKind Kind, string? Url, long? Size, string AddedBy, bool ByStudent, Instant AddedAt, string? Preview, IReadOnlyList<string> Used, Suggested? Suggested);

/// <summary>All loose things of a class, and the folders that there are.</summary>
public sealed record TidyDesk(IReadOnlyList<LooseThing> Things, IReadOnlyList<TidyPlace> Folders, string PapersName);

/// <summary>A folder, by its path.</summary>
public sealed record TidyPlace(FolderId Id, string Path);

/// <summary>Goes through what stands in no folder, one thing after another: file it, keep it among one's own papers, bin it.</summary>
public sealed class Tidying(Premises premises)
{
    private const int PreviewBytes = 1200;
    private static readonly string[] TextFiles = [".txt", ".md", ".csv", ".ics", ".json", ".xml", ".html", ".svg"];

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
        var open = folders.Where(f => f.StudentId is null && f.GroupId is null).Select(f => new TidyFolder(f.Id, paths[f.Id], [.. byFolder[f.Id].Where(names.ContainsKey).Select(i => names[i])])).ToList();
        var loose = items.Where(i => !filings[i.Id].Any()).ToList();
        var elsewhere = ItemStore.Elsewhere(c, id, who.Id).ToLookup(e => e.Item);
        return new TidyDesk([.. loose.Select(i =>
        {
            var used = elsewhere[i.Id].ToList();
            return new LooseThing(i.Id, i.Name, i.Kind, i.Url, i.Size, i.AddedByName, i.ByStudent, i.AddedAt, Preview(i), [.. used.Select(u => $"{u.ClassName}: {u.Folder}").Distinct().Take(4)],
                TidySuggestion.Of(i.Name, open, [.. used.Select(u => open.FirstOrDefault(f => string.Equals(f.Path.Split('/')[^1], u.Folder, StringComparison.OrdinalIgnoreCase))?.Path).OfType<string>()]));
        })], [.. folders.Select(f => new TidyPlace(f.Id, paths[f.Id])).OrderBy(p => p.Path, StringComparer.CurrentCulture)], PapersName(c, who, k.YearId));
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
        ItemStore.File(c, copy, FolderStore.OfClass(c, papers).First(f => f.ParentId is null).Id);
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

    private static ClassRow? Find(IDbConnection c, Caller by, YearId year) =>
        ClassStore.OfPerson(c, by.Id).FirstOrDefault(k => k.Kind == WorkspaceKind.Kept && k.YearId == year && k.RolledFrom is null && RosterStore.Member(c, k.Id, by.Id)?.LeftAt is null);

    private static string PapersName(IDbConnection c, Caller by, YearId year) => SafeName.Make($"Papers of {by.Name}, {YearStore.All(c).First(y => y.Id == year).Year.Label}")!.Name;

    private string? Preview(ItemRow i)
    {
        if (i.Sha256 is not { } sha || (i.Kind != ItemKind.Page && !TextFiles.Contains(Path.GetExtension(i.Name).ToLowerInvariant()))) return null;
        try
        {
            using var file = premises.Files.Open(sha);
            var bytes = new byte[PreviewBytes];
            var n = file.ReadAtLeast(bytes, PreviewBytes, throwOnEndOfStream: false);
            return Encoding.UTF8.GetString(bytes, 0, n).Replace("\0", "", StringComparison.Ordinal);
        }
        catch (Exception e) when (e is FileNotFoundException or DamagedFileException) { return null; }
    }

    private static Dictionary<FolderId, string> Paths(IReadOnlyList<FolderRow> folders)
    {
        var byId = folders.ToDictionary(f => f.Id);
        string Of(FolderRow f) => f.ParentId is { } p && byId.TryGetValue(p, out var above) ? $"{Of(above)}/{f.Name}" : f.Name;
        return folders.ToDictionary(f => f.Id, Of);
    }
}
