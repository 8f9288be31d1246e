using SpringLoft.App.Plans;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>A folder as it is to be.</summary>
/// <param name="Parent">Null for the top.</param>
/// <param name="Place">Among its siblings, 0 and up; null to stay, or to stand last.</param>
public sealed record FolderDraft(string? Name, FolderId? Parent, FolderRule Rule, int? Place, int Version)
{
    /// <summary>Whose folder it is, for one per group.</summary>
    public GroupId? Group { get; init; }

    /// <summary>What members of that group may do; null for everything.</summary>
    public GroupMay? Members { get; init; }
}

/// <summary>A person's right in a folder, with each step that led to it.</summary>
public sealed record SightOfFolder(PersonId Person, string Name, ClassRole Role, Right Right, IReadOnlyList<string> Steps);

/// <summary>What goes to the bin with a folder.</summary>
/// <param name="Folders">Folders inside it.</param>
/// <param name="Things">Files, links and pages that stand in it.</param>
/// <param name="Unfiled">Of those, how many stand nowhere else.</param>
/// <param name="Assignments">Published ones that students would find nowhere any more.</param>
public sealed record BinPreview(int Folders, int Things, int Unfiled, IReadOnlyList<string> Assignments);

/// <summary>Arranges folders: make, rename, move, order, who may do what, bin; and says who sees them.</summary>
public sealed class Arranging(Premises premises)
{
    /// <summary>Makes a folder, last among its siblings.</summary>
    public FolderId Make(Caller by, ClassId id, FolderDraft draft) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
        CheckRule(c, id, draft, null);
        var name = Named(draft.Name);
        var all = FolderStore.OfClass(c, id);
        FolderArranging.Decide(null, new(draft.Parent, name, draft.Place), Arranged(all));
        var last = all.Where(f => f.ParentId == draft.Parent).Select(f => f.Position + 1).DefaultIfEmpty(0).Max();
        var made = FolderStore.Add(c, id, draft.Parent, name, last, draft.Rule, null, null, group: GroupOf(draft), may: draft.Members);
        Premises.Add(c, by, premises.Clock.Now, new("made folder", "folder", made.Value, id, name));
        return made;
    });

    /// <summary>Makes a folder inside one in which a student may change what others put in; what may be done in the one, may be in the other.</summary>
    /// <exception cref="RefusedException"><c>folder-no-add</c>, <c>name-empty</c>, <c>name-taken</c>, <c>folder-too-deep</c>.</exception>
    public FolderId MakeInside(Caller by, ClassId id, FolderId parent, string? name) => premises.Db.Write(c =>
    {
        var at = ClassGate.Demand(c, by, id, Act.AddItem).NotArchived();
        var all = FolderStore.OfClass(c, id);
        var above = all.FirstOrDefault(f => f.Id == parent);
        var right = above is null ? Right.None : new Access(at.Viewer(by.Id), all.Select(f => f.Fact)).Of(parent).Right;
        if (above is null || right == Right.None) throw Refusals.NotFound("folder");
        if (right < Right.Edit) throw new RefusedException("folder-no-add", $"You may not make folders in “{above.Name}”.", "Ask your teacher for a folder there.", "name");
        var free = Named(name);
        FolderArranging.Decide(null, new(parent, free, null), Arranged(all));
        var made = FolderStore.Add(c, id, parent, free, all.Where(f => f.ParentId == parent).Select(f => f.Position + 1).DefaultIfEmpty(0).Max(), FolderRule.AsAbove, null, null);
        Activities.Note(c, premises, by, id, Did.Wrote);
        Premises.Add(c, by, premises.Clock.Now, new("made folder", "folder", made.Value, id, free));
        return made;
    });

    /// <summary>Renames, moves, orders a folder, or changes who may do what in it, at the version that was seen.</summary>
    public void Change(Caller by, ClassId id, FolderId folder, FolderDraft draft) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
        var all = FolderStore.OfClass(c, id);
        var row = all.FirstOrDefault(f => f.Id == folder) ?? throw Refusals.NotFound("folder");
        CheckRule(c, id, draft, row);
        var name = Named(draft.Name);
        var positions = FolderArranging.Decide(folder, new(draft.Parent, name, draft.Place), Arranged(all));
        foreach (var (sibling, position) in positions.Where(p => p.Key != folder))
            FolderStore.Save(c, all.First(f => f.Id == sibling) with { Position = position });
        if (!FolderStore.Save(c, row with { Name = name, ParentId = draft.Parent, Rule = draft.Rule, GroupId = GroupOf(draft), MembersMay = (draft.Members ?? GroupMay.Everything).Bits, Position = positions.GetValueOrDefault(folder, row.Position), Version = draft.Version }))
            throw Refusals.ChangedMeanwhile("folder");
        Premises.Add(c, by, premises.Clock.Now, new("changed folder", "folder", folder.Value, id, row.Name == name ? name : $"“{row.Name}” to “{name}”"));
    });

    /// <summary>Puts a folder, with the folders in it, in the bin. Things in it stand in no folder until it is brought back.</summary>
    public void Bin(Caller by, ClassId id, FolderId folder) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
        var all = FolderStore.OfClass(c, id);
        var row = all.FirstOrDefault(f => f.Id == folder) ?? throw Refusals.NotFound("folder");
        var now = premises.Clock.Now;
        BinWith(c, id, folder, now, by.Id);
        Premises.Add(c, by, now, new("binned", "folder", folder.Value, id, row.Name));
    });

    /// <summary>Who sees a folder, and why: everybody on the roster.</summary>
    public IReadOnlyList<SightOfFolder> WhoSees(ClassId id, FolderId folder) => premises.Db.Read(c =>
    {
        var k = ClassStore.Find(c, id) ?? throw Refusals.NotFound("class");
        var facts = FolderStore.OfClass(c, id).ToDictionary(f => f.Id, f => f.Fact);
        if (!facts.ContainsKey(folder)) throw Refusals.NotFound("folder");
        return RosterStore.Members(c, id).Where(m => m.LeftAt is null).Select(m =>
        {
            var standing = m.Role switch { ClassRole.Student => Standing.Student, ClassRole.CoTeacher => Standing.CoTeacher, _ => Standing.Lead };
            var right = new Access(new Viewer(m.PersonId, standing, m.MayPost, k.State, k.AfterArchive, GroupStore.Of(c, id, m.PersonId)), facts).Of(folder);
            return new SightOfFolder(m.PersonId, m.Name.Display, m.Role, right.Right, right.Steps);
        }).ToList();
    });

    /// <summary>What students of a class should see and cannot.</summary>
    public IReadOnlyList<BlindSpot> BlindSpots(ClassId id) => premises.Db.Read(c => Blind(c, id));

    /// <summary>Does what a blind spot's mend says; refused if it is not there any more.</summary>
    public void Mend(Caller by, ClassId id, BlindKind kind, FolderId? folder, AssignmentId? assignment) => premises.Db.Write(c =>
    {
        var k = ClassGate.Demand(c, by, id, Act.Arrange).NotArchived().Class;
        var spot = Blind(c, id).FirstOrDefault(s => s.Kind == kind && s.Folder == folder && s.Assignment == assignment && s.Mend is not null)
            ?? throw new RefusedException("nothing-to-mend", "This blind spot is not there any more.", "Reload the page.");
        switch (kind)
        {
            case BlindKind.AssignmentUnseen: AssignmentStore.File(c, spot.Assignment!.Value, spot.Folder!.Value); break;
            case BlindKind.GroupWithoutMembers:
                var group = FolderStore.OfClass(c, id).First(f => f.Id == spot.Folder).GroupId!.Value;
                if (spot.Students.Count > 0 && GroupStore.Members(c, id).Count > 0) foreach (var s in spot.Students) GroupStore.AddMember(c, group, s);
                else BinWith(c, id, spot.Folder!.Value, premises.Clock.Now, by.Id);
                break;
            case BlindKind.NoOwnFolder: UnfoldAgain(c, k, spot.Students[0]); break;
            case BlindKind.ShutByAbove:
                var row = FolderStore.OfClass(c, id).First(f => f.Id == spot.Folder);
                FolderStore.Save(c, row with { Rule = FolderRule.AsAbove });
                break;
            default: throw new ArgumentOutOfRangeException(nameof(kind));
        }
        Premises.Add(c, by, premises.Clock.Now, new("mended blind spot", "class", id.Value, id, spot.Text));
    });

    /// <summary>What binning a folder takes along, before it is done.</summary>
    public BinPreview PreviewBin(ClassId id, FolderId folder) => premises.Db.Read(c =>
    {
        var all = FolderStore.OfClass(c, id);
        if (all.All(f => f.Id != folder)) throw Refusals.NotFound("folder");
        var going = Within(all, folder).Select(f => f.Id).ToHashSet();
        var filings = ItemStore.Filings(c, id).ToLookup(f => f.Item, f => f.Folder);
        var placed = AssignmentStore.Filings(c, id);
        return new BinPreview(going.Count - 1, filings.Count(f => f.Any(going.Contains)), filings.Count(f => f.All(going.Contains)),
            [.. AssignmentStore.OfClass(c, id).Where(a => a.PublishedAt is not null && placed[a.Id].Any() && placed[a.Id].All(going.Contains)).Select(a => a.Title)]);
    });

    internal static void BinWith(IDbConnection c, ClassId id, FolderId folder, Instant now, PersonId by)
    {
        foreach (var f in Within(FolderStore.OfClass(c, id), folder)) FolderStore.Save(c, f with { BinnedAt = now, BinnedBy = by });
    }

    internal static IReadOnlyList<BlindSpot> Blind(IDbConnection c, ClassId id)
    {
        var k = ClassStore.Find(c, id) ?? throw Refusals.NotFound("class");
        if (k.Kind != WorkspaceKind.Class) return [];
        var groups = GroupStore.Members(c, id);
        var filings = AssignmentStore.Filings(c, id);
        var given = AssignmentStore.GivenTo(c, id);
        return Core.Workspaces.BlindSpots.Find(k.State, [.. FolderStore.OfClass(c, id).Select(f => f.Fact)],
            [.. RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null).Select(m => new Seeing(m.PersonId, m.Name.Display, m.MayPost, groups.Where(g => g.Contains(m.PersonId)).Select(g => g.Key).ToHashSet()))],
            [.. AssignmentStore.OfClass(c, id).Where(a => a.PublishedAt is not null).Select(a => new ToBeSeen(a.Id, a.Title, [.. filings[a.Id]], [.. given[a.Id]]))]);
    }

    // A folder that was binned comes back; one that never stood unfolds.
    private static void UnfoldAgain(IDbConnection c, ClassRow k, PersonId student)
    {
        var all = FolderStore.WithBin(c, k.Id);
        if (all.FirstOrDefault(f => f.StudentId == student && f.BinnedAt is not null) is { } binned) OutOfBin(c, all, binned);
        else if (Settings.Unfold(c, k) == 0)
            throw new RefusedException("plan-none", "The class follows no plan that makes own folders.", "Put a folder plan with own folders to it.");
    }

    /// <summary>Brings a binned folder back with those that went with it.</summary>
    internal static void OutOfBin(IDbConnection c, ClassId id, FolderId folder)
    {
        var all = FolderStore.WithBin(c, id);
        OutOfBin(c, all, all.FirstOrDefault(f => f.Id == folder && f.BinnedAt is not null) ?? throw Refusals.NotFound("folder in the bin"));
    }

    private static void OutOfBin(IDbConnection c, IReadOnlyList<FolderRow> all, FolderRow row)
    {
        // The folder it stood in may be gone since: then it comes back at the top.
        var parent = all.Any(f => f.Id == row.ParentId && f.BinnedAt is null) ? row.ParentId : null;
        var taken = all.Where(f => f.BinnedAt is null && f.ParentId == parent).Select(f => SafeName.Key(f.Name)).ToHashSet();
        foreach (var f in Within(all, row.Id).Where(f => f.BinnedAt == row.BinnedAt))
            FolderStore.Save(c, f.Id == row.Id ? f with { BinnedAt = null, BinnedBy = null, ParentId = parent, Name = SafeName.Distinct(f.Name, taken, isFile: false) } : f with { BinnedAt = null, BinnedBy = null });
    }

    private static List<FolderRow> Within(IReadOnlyList<FolderRow> all, FolderId top)
    {
        var list = all.Where(f => f.Id == top).ToList();
        for (var i = 0; i < list.Count; i++) list.AddRange(all.Where(f => f.ParentId == list[i].Id));
        return list;
    }

    private static List<ArrangedFolder> Arranged(IEnumerable<FolderRow> rows) => [.. rows.Select(f => new ArrangedFolder(f.Id, f.ParentId, f.Name, f.Position))];

    private static string Named(string? name)
    {
        var raw = Refusals.Needed(name, "name", "The name of the folder", 255);
        return SafeName.Make(raw)?.Name ?? throw new RefusedException("name-empty", $"“{raw}” leaves nothing to call the folder by.", "Give it a name with a letter or a number.", "name");
    }

    private static GroupId? GroupOf(FolderDraft draft) => draft.Rule == FolderRule.OnePerGroup ? draft.Group : null;

    private static void CheckRule(IDbConnection c, ClassId id, FolderDraft draft, FolderRow? row)
    {
        if (draft.Rule == FolderRule.OneEach && row?.StudentId is null) throw new RefusedException("rule-one-each", "One each is for the folders that a plan makes for its students.", "Choose another rule, or put a plan with own folders to the class.", "rule");
        if (row?.StudentId is not null && draft.Rule != FolderRule.OneEach) throw new RefusedException("rule-one-each", "This is a student's own folder: only that student and staff see it.", "Make another folder for the class.", "rule");
        if (draft.Rule == FolderRule.OnePerGroup && (draft.Group is not { } g || GroupStore.OfClass(c, id).All(x => x.Id != g)))
            throw new RefusedException("rule-group", "One per group is for the folder of one group, and none of this class is named.", "Choose the group, or make it first on the groups desk.", "group");
    }
}
