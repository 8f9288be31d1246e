using SpringLoft.Core.Naming;
using SpringLoft.Core.Plans;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Rollover;

/// <summary>What is copied of a class's set-up into a new class: folders, staff's things, assignments as drafts without a date. Files share their bytes.</summary>
/// <param name="Rows">Folders of the old class.</param>
/// <param name="Folders">Of those, the ones that come, under their new names.</param>
internal sealed record SetUpCopy(ClassId From, IReadOnlyList<FolderRow> Rows, IReadOnlyList<CarriedFolder> Folders, IReadOnlyList<ItemId> Items, IReadOnlyList<AssignmentRow> Assignments)
{
    /// <returns>How many folders were made.</returns>
    internal static int Into(IDbConnection c, ClassId made, SetUpCopy p, Instant now)
    {
        var folders = p.CopyFolders(c, made);
        p.CopyItems(c, made, folders, now);
        p.CopyAssignments(c, made, folders, now);
        return folders.Count;
    }

    private Dictionary<FolderId, FolderId> CopyFolders(IDbConnection c, ClassId made)
    {
        var rows = Rows.ToDictionary(f => f.Id);
        var carried = Folders.ToDictionary(f => f.Id);
        var copies = new Dictionary<FolderId, FolderId>();
        var taken = new Dictionary<FolderId, HashSet<string>>();
        FolderId Copy(CarriedFolder f)
        {
            if (copies.TryGetValue(f.Id, out var there)) return there;
            FolderId? parent = f.Parent is { } above && carried.TryGetValue(above, out var a) ? Copy(a) : null;
            if (!taken.TryGetValue(parent ?? default, out var names)) taken[parent ?? default] = names = [];
            var name = SafeName.Distinct(f.Name, names, isFile: false);
            names.Add(SafeName.Key(name));
            return copies[f.Id] = FolderStore.Add(c, made, parent, name, rows[f.Id].Position, f.Rule, null, rows[f.Id].PlanKey, Given(rows[f.Id]));
        }
        foreach (var f in Folders) Copy(f);
        return copies;
    }

    // A folder that its teacher renamed is the teacher's next year too; for any other, its new name is what the plan gives.
    private static GivenFolder? Given(FolderRow f) => f.Given is { } g && g.Name != f.Name ? g : null;

    private void CopyItems(IDbConnection c, ClassId made, Dictionary<FolderId, FolderId> folders, Instant now)
    {
        var filings = ItemStore.Filings(c, From).ToLookup(f => f.Item, f => f.Folder);
        var coming = Items.ToHashSet();
        foreach (var item in ItemStore.OfClass(c, From).Where(i => coming.Contains(i.Id)))
        {
            var copy = ItemStore.Add(c, made, item with { AddedAt = now });
            foreach (var f in filings[item.Id].Where(folders.ContainsKey)) ItemStore.File(c, copy, folders[f]);
        }
    }

    private void CopyAssignments(IDbConnection c, ClassId made, Dictionary<FolderId, FolderId> folders, Instant now)
    {
        var filings = AssignmentStore.Filings(c, From);
        foreach (var a in Assignments)
            AssignmentStore.Add(c, made, a with { DueOn = null, MadeAt = now }, filings[a.Id].Where(folders.ContainsKey).Select(f => folders[f]), [], a.Id);
    }
}
