using SpringLoft.App.Plans;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Rosters;

/// <summary>A group of a class.</summary>
/// <param name="Folders">Names of the folders that are its own.</param>
public sealed record GroupView(GroupId Id, string Name, int Version, IReadOnlyList<PersonId> Members, IReadOnlyList<string> Folders);

/// <summary>The groups of a class, and the students who are in none.</summary>
public sealed record GroupsView(IReadOnlyList<GroupView> Groups, IReadOnlyList<RosterName> Students, int InNone);

/// <summary>A student of the roster.</summary>
public sealed record RosterName(PersonId Id, string SortName, string? Grade);

/// <summary>What a change of groups led to.</summary>
/// <param name="Folders">Folders that unfolded for it.</param>
public sealed record GroupChanged(GroupId Id, int Folders);

/// <summary>Groups that were made in one act, and folders that unfolded for them.</summary>
public sealed record GroupsMade(int Groups, int Folders);

/// <summary>Groups inside a class: some students of its roster, with folders that only they open.</summary>
public sealed class GroupDesk(Premises premises)
{
    /// <summary>Most groups of a class.</summary>
    public const int MostGroups = 100;

    /// <summary>All groups of a class with their members.</summary>
    public GroupsView See(ClassId id) => premises.Db.Read(c =>
    {
        var members = GroupStore.Members(c, id);
        var folders = FolderStore.OfClass(c, id).Where(f => f.GroupId is not null && f.Rule == FolderRule.OnePerGroup).ToLookup(f => f.GroupId!.Value, f => f.Name);
        var students = Students(c, id).Select(m => new RosterName(m.PersonId, m.Name.Sort, m.Grade)).ToList();
        var grouped = members.SelectMany(g => g).ToHashSet();
        return new GroupsView([.. GroupStore.OfClass(c, id).Select(g => new GroupView(g.Id, g.Name, g.Version, [.. members[g.Id]], [.. folders[g.Id]]))],
            students, students.Count(s => !grouped.Contains(s.Id)));
    });

    /// <summary>Makes a group; folders that the plan has for each group unfold at once.</summary>
    public GroupChanged Make(Caller by, ClassId id, string? name, IReadOnlyList<PersonId> people) => premises.Db.Write(c =>
    {
        var k = ClassGate.Demand(c, by, id, Act.Arrange).NotArchived().Class;
        var text = Free(c, id, name, null);
        if (GroupStore.OfClass(c, id).Count >= MostGroups) throw new RefusedException("too-many", $"The class has {MostGroups} groups.", "Take one away first.", "name");
        var made = GroupStore.Add(c, id, text);
        GroupStore.SetMembers(c, made, OnRoster(c, id, people));
        Premises.Add(c, by, premises.Clock.Now, new("made group", "group", made.Value, id, text));
        return new GroupChanged(made, Settings.Unfold(c, k));
    });

    /// <summary>Makes a group of each grade on the roster that has none yet: for one workspace that several year groups share.</summary>
    public GroupsMade MakeOfGrades(Caller by, ClassId id) => premises.Db.Write(c =>
    {
        var k = ClassGate.Demand(c, by, id, Act.Arrange).NotArchived().Class;
        var taken = GroupStore.OfClass(c, id).Select(g => SafeName.Key(g.Name)).ToHashSet();
        var grades = Students(c, id).Where(s => s.Grade is not null).GroupBy(s => s.Grade!).OrderBy(g => g.Key.Length).ThenBy(g => g.Key, StringComparer.Ordinal)
            .Where(g => !taken.Contains(SafeName.Key($"Grade {g.Key}"))).ToList();
        if (grades.Count == 0) throw new RefusedException("groups-none", "There is no grade on the roster that has no group yet.", "Enroll students with a grade first.", null);
        foreach (var g in grades) GroupStore.SetMembers(c, GroupStore.Add(c, id, $"Grade {g.Key}"), g.Select(s => s.PersonId));
        Premises.Add(c, by, premises.Clock.Now, new("made groups of grades", "class", id.Value, id, string.Join(", ", grades.Select(g => g.Key))));
        return new GroupsMade(grades.Count, Settings.Unfold(c, k));
    });

    /// <summary>Renames a group and says who is in it, at the version that was seen. Its folders keep their names.</summary>
    public GroupChanged Change(Caller by, ClassId id, GroupId group, string? name, IReadOnlyList<PersonId> people, int version) => premises.Db.Write(c =>
    {
        var k = ClassGate.Demand(c, by, id, Act.Arrange).NotArchived().Class;
        var row = Find(c, id, group);
        var text = Free(c, id, name, group);
        if (!GroupStore.Rename(c, group, text, version)) throw Refusals.ChangedMeanwhile("group");
        GroupStore.SetMembers(c, group, OnRoster(c, id, people));
        Premises.Add(c, by, premises.Clock.Now, new("changed group", "group", group.Value, id, row.Name == text ? $"{text}, {people.Count} members" : $"“{row.Name}” to “{text}”"));
        return new GroupChanged(group, Settings.Unfold(c, k));
    });

    /// <summary>Takes a group away. Its empty folders go to the bin; those with something in them stay, for staff alone.</summary>
    /// <returns>Names of the folders that stay.</returns>
    public IReadOnlyList<string> Bin(Caller by, ClassId id, GroupId group) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
        var row = Find(c, id, group);
        var now = premises.Clock.Now;
        var all = FolderStore.OfClass(c, id);
        var full = FolderSteps.Holding(all, FolderSteps.Filled(c, id));
        var own = all.Where(f => f.GroupId == group && f.Rule == FolderRule.OnePerGroup).ToList();
        foreach (var f in own.Where(f => !full.Contains(f.Id))) Arranging.BinWith(c, id, f.Id, now, by.Id);
        var stay = own.Where(f => full.Contains(f.Id)).ToList();
        foreach (var f in stay) FolderStore.Save(c, f with { Rule = FolderRule.StaffOnly, GroupId = null });
        GroupStore.Bin(c, group, now);
        Premises.Add(c, by, now, new("took group away", "group", group.Value, id, row.Name));
        return stay.Select(f => f.Name).ToList();
    });

    private static GroupRow Find(IDbConnection c, ClassId id, GroupId group) => GroupStore.OfClass(c, id).FirstOrDefault(g => g.Id == group) ?? throw Refusals.NotFound("group");

    private static IEnumerable<MemberRow> Students(IDbConnection c, ClassId id) => RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null);

    private static IReadOnlyList<PersonId> OnRoster(IDbConnection c, ClassId id, IReadOnlyList<PersonId> people)
    {
        var roster = Students(c, id).Select(m => m.PersonId).ToHashSet();
        return people.All(roster.Contains) ? people : throw new RefusedException("group-not-on-roster", "Somebody named is not a student on the roster of this class.", "Enroll them first, then put them in the group.", "members");
    }

    private static string Free(IDbConnection c, ClassId id, string? name, GroupId? but)
    {
        var raw = Refusals.Needed(name, "name", "The name of the group", 80);
        var safe = SafeName.Make(raw)?.Name ?? throw new RefusedException("name-empty", $"“{raw}” leaves nothing to call the group by.", "Give it a name with a letter or a number.", "name");
        if (GroupStore.OfClass(c, id).FirstOrDefault(g => g.Id != but && SafeName.Clash(g.Name, safe)) is { } same)
            throw new RefusedException("name-taken", $"There is already a group “{same.Name}”.", "Give this one another name.", "name");
        return safe;
    }
}
