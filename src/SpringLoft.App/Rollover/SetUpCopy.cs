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

    /// <summary>What tells its things from those of other classes that the new one is made of too.</summary>
    internal string Called { get; init; } = "";

    /// <summary>Copies it into a class that others may be copied into too.</summary>
    /// <param name="joining">What of the class stands already; new for the first.</param>
    /// <returns>How many folders were made.</returns>
    internal static int Into(IDbConnection c, ClassId made, SetUpCopy p, Instant now, JoinedClass? joining = null)
    {
        var into = joining ?? new();
        into.Joining.Next(p.Called);
        if (p.Groups.Count > 0) foreach (var g in p.Groups.Except(GroupStore.OfClass(c, made).Select(g => g.Name), StringComparer.OrdinalIgnoreCase)) GroupStore.Add(c, made, g);
        var (folders, count) = p.CopyFolders(c, made, into);
        p.CopyItems(c, made, into, folders, now);
        p.CopyAssignments(c, made, into, folders, now);
        // Places to talk come open and empty; who of a group writes is said anew. Of two in one folder the first stays as it is.
        foreach (var t in TalkStore.OfClass(c, p.From.Class).Where(t => folders.ContainsKey(t.FolderId) && into.Talks.Add(folders[t.FolderId])))
            TalkStore.Put(c, made, t with { FolderId = folders[t.FolderId], ClosedAt = null, Version = 0, GroupId = null, Writers = t.Writers == TalkWriters.Group ? TalkWriters.Staff : t.Writers });
        return count;
    }

    /// <summary>What it would bring into a class that others are brought into too. Writes nothing.</summary>
    /// <param name="joining">What of the class would stand already.</param>
    internal JoinedView Seen(Joining joining)
    {
        joining.Next(Called);
        var folders = Placed(joining);
        return new([.. folders.Where(f => f.Place.Anew).Select(f => f.Folder with { Id = new(f.Place.At + 1), Parent = f.Above is { } a ? new FolderId(a + 1) : null, Name = f.Place.Name })],
            Coming().Count(i => joining.Thing(i.Name, i.Sha256 ?? i.Url)), [.. Assignments.Select(a => joining.Assignment(a.Title, Says(a))).Where(a => a.Anew).Select(a => a.Title)]);
    }

    // Where each folder comes to stand, those above first.
    private List<(CarriedFolder Folder, int? Above, JoinedFolder Place)> Placed(Joining joining)
    {
        var carried = Folders.ToDictionary(f => f.Id);
        var places = new Dictionary<FolderId, JoinedFolder>();
        var all = new List<(CarriedFolder, int?, JoinedFolder)>();
        JoinedFolder Place(CarriedFolder f)
        {
            if (places.TryGetValue(f.Id, out var known)) return known;
            int? above = f.Parent is { } p && carried.TryGetValue(p, out var a) ? Place(a).At : null;
            places[f.Id] = joining.Folder(above, f.Name, f.Rule);
            all.Add((f, above, places[f.Id]));
            return places[f.Id];
        }
        foreach (var f in Folders) Place(f);
        return all;
    }

    private IEnumerable<ItemRow> Coming()
    {
        var coming = Items.ToHashSet();
        return From.Live.Where(i => coming.Contains(i.Id));
    }

    private string Says(AssignmentRow a) => string.Join('\n', [a.Instructions, $"{(Points ? a.Points : null)}", Points ? a.SchemeJson ?? "" : "", .. From.Attached[a.Id].Select(t => $"{t.Name} {t.Sha256 ?? t.Url}")]);

    private (Dictionary<FolderId, FolderId> Copies, int Made) CopyFolders(IDbConnection c, ClassId made, JoinedClass into)
    {
        var rows = From.Rows.ToDictionary(f => f.Id);
        var copies = new Dictionary<FolderId, FolderId>();
        var count = 0;
        foreach (var (f, above, place) in Placed(into.Joining))
        {
            if (place.Anew)
            {
                count++;
                // A key is one folder's: who comes second stands beside the plan.
                var key = rows[f.Id].PlanKey is { } k && into.Keys.Add(k) ? k : null;
                into.Folders[place.At] = FolderStore.Add(c, made, above is { } a ? into.Folders[a] : null, place.Name, rows[f.Id].Position, f.Rule, null, key, key is null ? null : Given(rows[f.Id]));
            }
            copies[f.Id] = into.Folders[place.At];
        }
        return (copies, count);
    }

    // A folder that its teacher renamed is the teacher's next year too; for any other, its new name is what the plan gives.
    private static GivenFolder? Given(FolderRow f) => f.Given is { } g && g.Name != f.Name ? g : null;

    private void CopyItems(IDbConnection c, ClassId made, JoinedClass into, Dictionary<FolderId, FolderId> folders, Instant now)
    {
        if (Items.Count == 0) return;
        var copies = new Dictionary<ItemId, ItemId>();
        var anew = new List<ItemRow>();
        foreach (var item in Coming())
        {
            if (into.Joining.Thing(item.Name, item.Sha256 ?? item.Url)) anew.Add(item);
            else copies[item.Id] = into.Items[(SafeName.Key(item.Name), item.Sha256 ?? item.Url)];
        }
        foreach (var (item, copy) in anew.Zip(ItemStore.AddAll(c, made, anew.Select(i => i with { AddedAt = now })))) copies[item.Id] = into.Items[(SafeName.Key(item.Name), item.Sha256 ?? item.Url)] = copy;
        // What asked to be acknowledged asks whoever comes, and has no day yet; what was said stays where it was said.
        foreach (var a in AskingStore.OfClass(c, From.Class).Where(a => a.ItemId is { } i && copies.ContainsKey(i))) AskingStore.AskItem(c, copies[a.ItemId!.Value], a.AskedOf, null, a.AskedBy, now);
        ItemStore.FileAll(c, copies.SelectMany(i => From.Filings[i.Key].Where(folders.ContainsKey).Select(f => (i.Value, folders[f]))));
    }

    private void CopyAssignments(IDbConnection c, ClassId made, JoinedClass into, Dictionary<FolderId, FolderId> folders, Instant now)
    {
        if (Assignments.Count == 0) return;
        var placed = AssignmentStore.Filings(c, From.Class);
        List<FolderId> Where(AssignmentId a) => [.. placed[a].Where(folders.ContainsKey).Select(f => folders[f])];
        var all = Assignments.Select(a => (Row: a, Joined: into.Joining.Assignment(a.Title, Says(a)))).ToList();
        foreach (var (row, joined) in all.Where(a => a.Joined.Anew)) into.Assignments[joined.At] = row.Id;
        AssignmentStore.AddAll(c, made, [.. all.Where(a => a.Joined.Anew).Select(a => (a.Row with
        {
            Title = a.Joined.Title,
            DueOn = Dates.TryGetValue(a.Row.Id, out var d) ? d : null,
            DueTime = Dates.ContainsKey(a.Row.Id) ? a.Row.DueTime : null,
            Points = Points ? a.Row.Points : null,
            SchemeJson = Points ? a.Row.SchemeJson : null,
            MadeAt = now,
        }, a.Row.Id, (IReadOnlyList<FolderId>)Where(a.Row.Id)))]);
        // What another class has brought stands where it stood in this one too.
        foreach (var (row, joined) in all.Where(a => !a.Joined.Anew))
            foreach (var f in Where(row.Id)) AssignmentStore.FileRolled(c, made, into.Assignments[joined.At], f);
        AttachedStore.CopyRolled(c, made);
    }
}

/// <summary>A class into which set-ups are being copied: where each folder and thing of it stands.</summary>
internal sealed class JoinedClass
{
    internal Joining Joining { get; } = new();
    internal Dictionary<int, FolderId> Folders { get; } = [];
    internal HashSet<FolderKey> Keys { get; } = [];
    internal HashSet<FolderId> Talks { get; } = [];
    internal Dictionary<(string Name, string? Content), ItemId> Items { get; } = [];

    /// <summary>From which assignment each was copied.</summary>
    internal Dictionary<int, AssignmentId> Assignments { get; } = [];
}

/// <summary>What a class would bring beyond what others have brought. Numbers of folders are those of the class that would be made.</summary>
/// <param name="Assignments">By title.</param>
internal sealed record JoinedView(IReadOnlyList<CarriedFolder> Folders, int Things, IReadOnlyList<string> Assignments);
