using SpringLoft.Core.Rollover;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Rollover;

/// <summary>A class as it stands, read once, and what of it comes along into another.</summary>
/// <param name="Rows">Its folders with the bin.</param>
/// <param name="Items">Its items with the bin.</param>
/// <param name="Filings">In which folders, the bin left out, each item stands.</param>
/// <param name="Assignments">The bin left out.</param>
/// <param name="Groups">Their names in order.</param>
/// <param name="Attached">What is attached to its assignments.</param>
internal sealed record WhatStands(
    ClassId Class, IReadOnlyList<FolderRow> Rows, IReadOnlyList<ItemRow> Items, ILookup<ItemId, FolderId> Filings, IReadOnlyList<AssignmentRow> Assignments, IReadOnlyList<string> Groups, ILookup<AssignmentId, AttachedRow> Attached, ComesAlong Along)
{
    /// <param name="choice">Null for all that may come.</param>
    internal static WhatStands Load(IDbConnection c, ClassId id, CarryChoice? choice = null)
    {
        var rows = FolderStore.WithBin(c, id);
        var items = ItemStore.WithBin(c, id);
        var filings = ItemStore.Filings(c, id).ToLookup(f => f.Item, f => f.Folder);
        var assignments = AssignmentStore.OfClass(c, id);
        var groups = GroupStore.OfClass(c, id).Select(g => g.Name).ToList();
        return new(id, rows, items, filings, assignments, groups, AttachedStore.OfClass(c, id), ComesAlong.Decide(
            [.. rows.Select(f => new OldFolder(f.Id, f.ParentId, f.Rule, f.StudentId, f.BinnedAt is not null, f.GroupId))],
            [.. items.Select(i => new OldItem(i.Id, [.. filings[i.Id]], i.ByStudent, i.BinnedAt is not null, i.Kind, i.MayCopy))],
            new(assignments.Count, AssignmentStore.BinnedCount(c, id), RosterStore.CountOf(c, id, ClassRole.Student), RosterStore.CountOf(c, id, ClassRole.CoTeacher),
                NoticeStore.CountOf(c, id), WorkStore.CountOf(c, id), groups.Count), choice));
    }

    /// <summary>Its items as they would be copied, the bin left out.</summary>
    internal IEnumerable<ItemRow> Live => Items.Where(i => i.BinnedAt is null);
}
