using SpringLoft.App.Rollover;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Workspaces;

/// <summary>A kept copy in a teacher's own space.</summary>
/// <param name="From">The class it was made of; null if that is gone.</param>
public sealed record KeptCopy(ClassId Id, string Name, string YearLabel, ClassId? From, string? FromName, int Folders, int Things, int Assignments, Instant KeptAt);

/// <summary>Sets the set-up of a class, or one folder of it, aside under its school year, to draw on later whatever becomes of the class.</summary>
public sealed class KeptCopies(Premises premises)
{
    /// <summary>One's own kept copies, newest year first.</summary>
    public IReadOnlyList<KeptCopy> Mine(Caller who) => premises.Db.Read(c =>
    {
        var years = YearStore.All(c).ToDictionary(y => y.Id, y => y.Year.Label);
        return ClassStore.OfPerson(c, who.Id).Where(k => k.Kind == WorkspaceKind.Kept && RosterStore.Member(c, k.Id, who.Id) is { LeftAt: null }).OrderByDescending(k => k.YearId.Value).ThenBy(k => k.Name, StringComparer.CurrentCulture)
            .Select(k => new KeptCopy(k.Id, k.Name, years[k.YearId], k.RolledFrom, k.RolledFrom is { } f ? ClassStore.Find(c, f)?.Name : null, FolderStore.OfClass(c, k.Id).Count, ItemStore.OfClass(c, k.Id).Count, Store.Assignments.AssignmentStore.OfClass(c, k.Id).Count, k.MadeAt)).ToList();
    });

    /// <summary>Keeps a copy of the whole set-up, or of one folder with what is in it.</summary>
    public ClassId Keep(Caller by, ClassId id, FolderId? folder) => premises.Db.Write(c =>
    {
        var k = ClassGate.Demand(c, by, id, Act.Arrange).Class;
        var made = Keep(c, k, by.Id, premises.Clock.Now, folder);
        Premises.Add(c, by, premises.Clock.Now, new("kept a copy", "class", made.Value, id, k.Name));
        return made;
    });

    /// <summary>Throws a kept copy of one's own away: its folders and things are copies, nobody's work.</summary>
    public void Drop(Caller by, ClassId id) => premises.Db.Write(c =>
    {
        var k = ClassGate.Demand(c, by, id, Act.CloseClass).Class;
        if (k.Kind != WorkspaceKind.Kept) throw Refusals.NotFound("kept copy");
        RosterStore.Leave(c, id, by.Id, premises.Clock.Now);
        Premises.Add(c, by, premises.Clock.Now, new("dropped kept copy", "class", id.Value, id, k.Name));
    });

    internal static ClassId Keep(IDbConnection c, ClassRow k, PersonId owner, Instant now, FolderId? folder = null)
    {
        var name = SafeName.Make(folder is { } only ? $"{FolderStore.OfClass(c, k.Id).FirstOrDefault(x => x.Id == only)?.Name ?? throw Refusals.NotFound("folder")}, {k.Name}, kept" : $"{k.Name}, kept")!.Name;
        for (var n = 2; ClassStore.Names(c, SafeName.Key(name)).Count > 0; n++) name = SafeName.Make(System.Text.RegularExpressions.Regex.Replace(name, @" \(\d+\)$", "") + $" ({n})")!.Name;
        var made = ClassStore.Add(c, k with { Kind = WorkspaceKind.Kept, Name = name, TermId = null, RolledFrom = k.Id, RecordId = null, MadeAt = now, PlanId = null, PlanVersion = null });
        RosterStore.Put(c, made, owner, ClassRole.Lead, now);
        var stands = WhatStands.Load(c, k.Id);
        var (rows, along) = (stands.Rows, stands.Along);
        var within = folder is { } f ? FoldersWithin(rows, f) : null;
        var folders = rows.Where(r => along.Folders.Contains(r.Id) && within?.Contains(r.Id) != false).Select(r => new CarriedFolder(r.Id, r.Id == folder ? null : r.ParentId, r.Name, null, r.Rule, 0)).ToList();
        var placed = Store.Assignments.AssignmentStore.Filings(c, k.Id);
        var items = along.Items.Where(i => within is null || stands.Filings[i].Any(within.Contains)).ToList();
        var assignments = stands.Assignments.Where(a => within is null || placed[a.Id].Any(within.Contains)).ToList();
        SetUpCopy.Into(c, made, new(stands, folders, items, assignments), now);
        return made;
    }

    /// <summary>A folder and all that are in it.</summary>
    internal static HashSet<FolderId> FoldersWithin(IReadOnlyList<FolderRow> rows, FolderId top)
    {
        var inside = rows.ToLookup(r => r.ParentId, r => r.Id);
        var all = new HashSet<FolderId>();
        void Add(FolderId id) { if (all.Add(id)) foreach (var below in inside[id]) Add(below); }
        Add(top);
        return all;
    }
}
