using SpringLoft.App.Plans;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Naming;
using SpringLoft.Core.People;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.Rosters;

/// <summary>What groups are balanced by.</summary>
public enum BalancedBy { Nothing, Grade, MeanScore }

/// <summary>Two students who are to be together, or apart.</summary>
public sealed record StudentPair(PersonId A, PersonId B);

/// <summary>How groups of a class are to be made.</summary>
/// <param name="Groups">How many; null if the size is given.</param>
/// <param name="Text">For a paste: a line a student, with the group in its last column; then nothing else counts.</param>
/// <param name="Prefix">What they are called, with a number after it.</param>
public sealed record GroupsAsk(int? Groups, int? Size, int Seed, BalancedBy Balance, IReadOnlyList<StudentPair>? Together, IReadOnlyList<StudentPair>? Apart, string? Text, string? Prefix);

/// <summary>A group as it would be.</summary>
/// <param name="Mean">Of what is balanced; null where nothing is or nobody has a number.</param>
public sealed record GroupDraft(string Name, IReadOnlyList<RosterName> Members, double? Mean);

/// <summary>Groups as they would be.</summary>
/// <param name="Spread">Between the highest and the lowest mean.</param>
/// <param name="NotMatched">Lines of a paste that name no student of the roster, or more than one, with the reason.</param>
/// <param name="InNone">Students who would be in none of them.</param>
public sealed record GroupsDraft(IReadOnlyList<GroupDraft> Groups, double? Spread, IReadOnlyList<string> NotMatched, int InNone);

/// <summary>Makes many groups of a class in one act: by chance, balanced, or from a pasted list.</summary>
public sealed class MakingGroups(Premises premises)
{
    /// <summary>How the groups would be. Writes nothing; the same seed gives the same again.</summary>
    public GroupsDraft Preview(ClassId id, GroupsAsk ask) => premises.Db.Read(c => Draft(c, id, ask));

    /// <summary>Makes them; folders for each group unfold at once.</summary>
    public GroupsMade Make(Caller by, ClassId id, GroupsAsk ask) => premises.Db.Write(c =>
    {
        var k = ClassGate.Demand(c, by, id, Act.Arrange).NotArchived().Class;
        var draft = Draft(c, id, ask);
        var there = GroupStore.OfClass(c, id);
        if (there.Count + draft.Groups.Count > GroupDesk.MostGroups) throw new RefusedException("too-many", $"The class would have {there.Count + draft.Groups.Count} groups.", $"Keep it to {GroupDesk.MostGroups}: take old ones away first.", "groups");
        if (draft.Groups.FirstOrDefault(g => there.Any(t => SafeName.Clash(t.Name, g.Name))) is { } clash)
            throw new RefusedException("name-taken", $"There is already a group “{clash.Name}”.", "Call the new ones otherwise, or take that one away.", "prefix");
        foreach (var g in draft.Groups) GroupStore.SetMembers(c, GroupStore.Add(c, id, g.Name), g.Members.Select(m => m.Id));
        Premises.Add(c, by, premises.Clock.Now, new("made groups", "class", id.Value, id, $"{draft.Groups.Count} groups{(ask.Text is null ? $", seed {ask.Seed}" : ", from a list")}"));
        return new GroupsMade(draft.Groups.Count, Settings.Unfold(c, k));
    });

    private static GroupsDraft Draft(IDbConnection c, ClassId id, GroupsAsk ask)
    {
        var students = RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null).ToList();
        var names = students.ToDictionary(s => s.PersonId, s => new RosterName(s.PersonId, s.Name.Sort, s.Grade));
        if (!string.IsNullOrWhiteSpace(ask.Text)) return FromText(students, names, ask.Text);
        var numbers = ask.Balance switch
        {
            BalancedBy.Grade => students.ToDictionary(s => s.PersonId, s => double.TryParse(s.Grade, System.Globalization.CultureInfo.InvariantCulture, out var g) ? g : (double?)null),
            BalancedBy.MeanScore => Scores(c, id),
            _ => [],
        };
        static IReadOnlyList<(PersonId, PersonId)> Pairs(IReadOnlyList<StudentPair>? pairs) => [.. (pairs ?? []).Select(p => (p.A, p.B))];
        var made = GroupMaking.Make([.. students.Select(s => new Groupable(s.PersonId, numbers.GetValueOrDefault(s.PersonId)))],
            new(ask.Groups, ask.Size, ask.Seed, ask.Balance != BalancedBy.Nothing, Pairs(ask.Together), Pairs(ask.Apart)));
        var prefix = SafeName.Make(string.IsNullOrWhiteSpace(ask.Prefix) ? "Group" : ask.Prefix.Trim())?.Name ?? "Group";
        var width = made.Groups.Count >= 10 ? 2 : 1;
        return new([.. made.Groups.Select((g, i) => new GroupDraft($"{prefix} {(i + 1).ToString(System.Globalization.CultureInfo.InvariantCulture).PadLeft(width, '0')}",
            [.. g.Select(p => names[p]).OrderBy(n => PersonName.SearchKey(n.SortName), StringComparer.Ordinal)], ask.Balance == BalancedBy.Nothing ? null : made.Means[i]))], made.Spread, [], 0);
    }

    // Each student's mean over marked work of this class, as a part of full marks.
    private static Dictionary<PersonId, double?> Scores(IDbConnection c, ClassId id)
    {
        var points = AssignmentStore.OfClass(c, id).Where(a => a.Points > 0).ToDictionary(a => a.Id, a => a.Points!.Value);
        return WorkStore.OfClass(c, id).Where(w => w.ReturnedScore is not null && points.ContainsKey(w.AssignmentId)).GroupBy(w => w.StudentId)
            .ToDictionary(g => g.Key, g => (double?)(double)g.Average(w => w.ReturnedScore!.Value / points[w.AssignmentId] * 100));
    }

    private static GroupsDraft FromText(IReadOnlyList<MemberRow> students, Dictionary<PersonId, RosterName> names, string text)
    {
        var knowing = new Knowing([.. students.Select(s => new KnownPerson(s.PersonId, null, s.StudentNumber, null, s.UserName, s.Name, s.Grade))]);
        var groups = new Dictionary<string, (string Name, List<PersonId> Members)>(StringComparer.Ordinal);
        var not = new List<string>();
        foreach (var line in Refusals.NotLonger(text, "text", "The list", 50_000).ReplaceLineEndings("\n").Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            var cut = line.LastIndexOfAny(['\t', ';']);
            if (cut < 0) cut = line.LastIndexOf(',');
            if (cut <= 0 || SafeName.Make(line[(cut + 1)..].Trim())?.Name is not { } group) { not.Add($"“{line}” names no group: write the student, a tab or semicolon, and the group"); continue; }
            var who = knowing.Find(PastedList.Read(line[..cut].Replace(';', '\t'))[0].Claim);
            if (who.Person is not { } person) { not.Add($"“{line[..cut].Trim()}”: {(who.Knowledge == Knowledge.Unknown ? "nobody of that name is on the roster" : who.Why)}"); continue; }
            var key = SafeName.Key(group);
            if (!groups.TryGetValue(key, out var g)) g = groups[key] = (group, []);
            if (!g.Members.Contains(person)) g.Members.Add(person);
        }
        if (groups.Count == 0) throw new RefusedException("list-empty", not.Count > 0 ? $"No line could be read: {not[0]}." : "There is nobody in what was pasted.", "Paste a line a student: name or number, a tab, the group.", "text");
        var placed = groups.Values.SelectMany(g => g.Members).ToHashSet();
        return new([.. groups.Values.Select(g => new GroupDraft(g.Name, [.. g.Members.Select(p => names[p])], null))], null, not, students.Count(s => !placed.Contains(s.PersonId)));
    }
}
