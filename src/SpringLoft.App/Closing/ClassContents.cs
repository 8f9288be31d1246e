using SpringLoft.Core.Closing;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Closing;

/// <summary>Everything in a class that has bytes, as the layout of packages needs it. Things in the bin are left out.</summary>
internal sealed record ClassContents(IReadOnlyList<LayFolder> Folders, IReadOnlyList<LayItem> Items, IReadOnlyList<LayWork> Work)
{
    internal static ClassContents Load(IDbConnection c, ClassId id)
    {
        var folders = FolderStore.OfClass(c, id).Select(f => new LayFolder(f.Id, f.ParentId, f.Name)).ToList();
        var filings = ItemStore.Filings(c, id).ToLookup(f => f.Item, f => f.Folder);
        var items = ItemStore.OfClass(c, id).Where(i => i.Sha256 is not null).Select(i => Lay(i, filings[i.Id])).ToList();
        return new(folders, items, Works(c, WorkStore.OfClass(c, id), WorkStore.FilesOfClass(c, id), id));
    }

    /// <summary>What belongs to one student: their work, their own folders, what they added elsewhere.</summary>
    internal static ClassContents Of(IDbConnection c, ClassId id, PersonId student)
    {
        var all = FolderStore.OfClass(c, id);
        var own = new HashSet<FolderId>();
        // Folders come parents first only by luck of their keys, so go on until nothing is added.
        for (var before = -1; before != own.Count;)
        {
            before = own.Count;
            foreach (var f in all)
                if (f.StudentId == student || (f.ParentId is { } p && own.Contains(p))) own.Add(f.Id);
        }
        var filings = ItemStore.Filings(c, id).ToLookup(f => f.Item, f => f.Folder);
        var items = ItemStore.OfClass(c, id).Where(i => i.Sha256 is not null && (i.AddedBy == student || filings[i.Id].Any(own.Contains)))
            .Select(i => Lay(i, filings[i.Id])).ToList();
        return new([.. all.Where(f => own.Contains(f.Id)).Select(f => new LayFolder(f.Id, f.ParentId, f.Name))], items,
            Works(c, WorkStore.OfStudent(c, id, student), WorkStore.FilesOfClass(c, id), id));
    }

    private static LayItem Lay(ItemRow i, IEnumerable<FolderId> folders) => new(new(i.FileName, i.Sha256!, i.Sha512!, i.Size ?? 0, i.AddedAt), [.. folders]);

    private static List<LayWork> Works(IDbConnection c, IReadOnlyList<WorkRow> work, ILookup<WorkId, WorkFileRow> files, ClassId id)
    {
        var titles = AssignmentStore.OfClass(c, id).ToDictionary(a => a.Id, a => a.Title);
        var people = RosterStore.Members(c, id).ToDictionary(m => m.PersonId);
        return [.. work.Where(w => titles.ContainsKey(w.AssignmentId) && people.ContainsKey(w.StudentId))
            .Select(w => new LayWork(titles[w.AssignmentId], w.StudentId, people[w.StudentId].Name.Sort, people[w.StudentId].StudentNumber,
                [.. files[w.Id].Select(f => new LayFile(f.Name, f.Sha256, f.Sha512, f.Size, f.AddedAt))]))];
    }
}
