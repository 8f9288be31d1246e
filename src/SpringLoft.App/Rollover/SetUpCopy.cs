using SpringLoft.Core.Naming;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Rollover;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Rollover;

/// <summary>What is copied of a class's set-up into a new class: folders, staff's things, assignments as drafts. Files share their bytes.</summary>
/// <param name="Folders">Of those, the ones that come, under their new names.</param>
internal sealed record SetUpCopy(WhatStands From, IReadOnlyList<CarriedFolder> Folders, IReadOnlyList<ItemId> Items, IReadOnlyList<AssignmentRow> Assignments)
{
    /// <summary>Dates that assignments get; those that are not in it get none.</summary>
    internal IReadOnlyDictionary<AssignmentId, LocalDate> Dates { get; init; } = new Dictionary<AssignmentId, LocalDate>();

    /// <summary>Do assignments keep their points?</summary>
    internal bool Points { get; init; } = true;

    /// <summary>Groups that come by name.</summary>
    internal IReadOnlyList<string> Groups { get; init; } = [];

    /// <summary>Copies it. Where the class has a folder of that name in that place already, from another class that it is made of too, that one is used.</summary>
    /// <returns>How many folders were made.</returns>
    internal static int Into(IDbConnection c, ClassId made, SetUpCopy p, Instant now)
    {
        var standing = FolderStore.OfClass(c, made);
        if (p.Groups.Count > 0) foreach (var g in p.Groups.Except(GroupStore.OfClass(c, made).Select(g => g.Name), StringComparer.OrdinalIgnoreCase)) GroupStore.Add(c, made, g);
        var (folders, count) = p.CopyFolders(c, made, standing);
        p.CopyItems(c, made, folders, standing.Count > 0, now);
        p.CopyAssignments(c, made, folders, now);
        // Places to talk come open and empty; who of a group writes is said anew.
        foreach (var t in TalkStore.OfClass(c, p.From.Class).Where(t => folders.ContainsKey(t.FolderId)))
            TalkStore.Put(c, made, t with { FolderId = folders[t.FolderId], ClosedAt = null, Version = 0, GroupId = null, Writers = t.Writers == TalkWriters.Group ? TalkWriters.Staff : t.Writers });
        return count;
    }

    private (Dictionary<FolderId, FolderId> Copies, int Made) CopyFolders(IDbConnection c, ClassId made, IReadOnlyList<FolderRow> standing)
    {
        var rows = From.Rows.ToDictionary(f => f.Id);
        var carried = Folders.ToDictionary(f => f.Id);
        var copies = new Dictionary<FolderId, FolderId>();
        var taken = standing.GroupBy(f => f.ParentId ?? default).ToDictionary(g => g.Key, g => g.Select(f => SafeName.Key(f.Name)).ToHashSet());
        var there = standing.ToDictionary(f => (f.ParentId ?? default, SafeName.Key(f.Name)), f => f.Id);
        var keys = standing.Where(f => f.PlanKey is not null).Select(f => f.PlanKey!).ToHashSet();
        var count = 0;
        FolderId Copy(CarriedFolder f)
        {
            if (copies.TryGetValue(f.Id, out var known)) return known;
            FolderId? parent = f.Parent is { } above && carried.TryGetValue(above, out var a) ? Copy(a) : null;
            if (there.TryGetValue((parent ?? default, SafeName.Key(f.Name)), out var same)) return copies[f.Id] = same;
            if (!taken.TryGetValue(parent ?? default, out var names)) taken[parent ?? default] = names = [];
            var name = SafeName.Distinct(f.Name, names, isFile: false);
            names.Add(SafeName.Key(name));
            count++;
            // A key is one folder's: who comes second stands beside the plan.
            var key = rows[f.Id].PlanKey is { } k && keys.Add(k) ? k : null;
            return copies[f.Id] = FolderStore.Add(c, made, parent, name, rows[f.Id].Position, f.Rule, null, key, key is null ? null : Given(rows[f.Id]));
        }
        foreach (var f in Folders) Copy(f);
        return (copies, count);
    }

    // A folder that its teacher renamed is the teacher's next year too; for any other, its new name is what the plan gives.
    private static GivenFolder? Given(FolderRow f) => f.Given is { } g && g.Name != f.Name ? g : null;

    private void CopyItems(IDbConnection c, ClassId made, Dictionary<FolderId, FolderId> folders, bool merging, Instant now)
    {
        if (Items.Count == 0) return;
        var coming = Items.ToHashSet();
        var standing = merging ? ItemStore.OfClass(c, made).GroupBy(i => (SafeName.Key(i.Name), i.Sha256 ?? i.Url)).ToDictionary(g => g.Key, g => g.First().Id) : [];
        var copies = new Dictionary<ItemId, ItemId>();
        var anew = new List<ItemRow>();
        foreach (var item in From.Live.Where(i => coming.Contains(i.Id)))
        {
            if (merging && standing.TryGetValue((SafeName.Key(item.Name), item.Sha256 ?? item.Url), out var same)) copies[item.Id] = same;
            else anew.Add(item with { AddedAt = now });
        }
        foreach (var (item, copy) in anew.Zip(ItemStore.AddAll(c, made, anew))) copies[item.Id] = copy;
        // What asked to be acknowledged asks whoever comes, and has no day yet; what was said stays where it was said.
        foreach (var a in AskingStore.OfClass(c, From.Class).Where(a => a.ItemId is { } i && copies.ContainsKey(i))) AskingStore.AskItem(c, copies[a.ItemId!.Value], a.AskedOf, null, a.AskedBy, now);
        ItemStore.FileAll(c, copies.SelectMany(i => From.Filings[i.Key].Where(folders.ContainsKey).Select(f => (i.Value, folders[f]))));
    }

    private void CopyAssignments(IDbConnection c, ClassId made, Dictionary<FolderId, FolderId> folders, Instant now)
    {
        if (Assignments.Count == 0) return;
        var filings = AssignmentStore.Filings(c, From.Class);
        var taken = AssignmentStore.OfClass(c, made).Select(a => SafeName.Key(a.Title)).ToHashSet();
        AssignmentStore.AddAll(c, made, [.. Assignments.Where(a => taken.Add(SafeName.Key(a.Title))).Select(a =>
            (a with { DueOn = Dates.TryGetValue(a.Id, out var d) ? d : null, DueTime = Dates.ContainsKey(a.Id) ? a.DueTime : null, Points = Points ? a.Points : null, SchemeJson = Points ? a.SchemeJson : null, MadeAt = now }, a.Id, (IReadOnlyList<FolderId>)[.. filings[a.Id].Where(folders.ContainsKey).Select(f => folders[f])]))]);
        AttachedStore.CopyRolled(c, made);
    }
}
