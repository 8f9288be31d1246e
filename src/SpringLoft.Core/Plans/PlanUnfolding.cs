using System.Globalization;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;

namespace SpringLoft.Core.Plans;

/// <summary>A student as far as folders need to know: the name is "Family, Given".</summary>
public sealed record PlanStudent(PersonId Id, string SortName, string? Number);

/// <summary>A group as far as folders need to know.</summary>
/// <param name="Members">Students of the class; a line for each student inside one for each group stands for these alone.</param>
public sealed record PlanGroup(GroupId Id, string Name, IReadOnlyList<PersonId> Members);

/// <summary>What a plan is put to.</summary>
/// <param name="Weeks">School weeks of the class's term or year, in order.</param>
/// <param name="Students">In the order in which their folders are to stand.</param>
/// <param name="Groups">In their order.</param>
public sealed record PlanSetting(IReadOnlyList<SchoolWeek> Weeks, IReadOnlyList<PlanStudent> Students, IReadOnlyList<PlanGroup> Groups)
{
    /// <summary>For a class without groups.</summary>
    public PlanSetting(IReadOnlyList<SchoolWeek> weeks, IReadOnlyList<PlanStudent> students) : this(weeks, students, []) { }
}

/// <summary>A folder that a plan asks for.</summary>
/// <param name="Key">Stable: its place in the plan, and for which term, week, day, entry, group or student.</param>
/// <param name="ParentKey">Key of the folder it stands in; null at the top.</param>
/// <param name="Position">0 and up among its siblings: the order that the plan gave.</param>
/// <param name="Clashed">True if a sibling had the name already and this one was told apart from it.</param>
public sealed record UnfoldedFolder(
    FolderKey Key, FolderKey? ParentKey, string Name, FolderRule Rule, PersonId? Student, int Position, bool Clashed, GroupId? Group = null);

/// <summary>Unfolds a plan into folders. Pure: the same plan and setting give the same folders and keys.</summary>
public static class PlanUnfolding
{
    /// <summary>More folders than this in one workspace are refused.</summary>
    public const int MaxFolders = 20_000;

    /// <summary>The folders in the order in which they stand, parents before children.</summary>
    /// <exception cref="RefusedException"><c>plan-too-large</c>; <c>pattern-unknown-placeholder</c>.</exception>
    public static IReadOnlyList<UnfoldedFolder> Unfold(FolderPlan plan, PlanSetting setting)
    {
        if (Count(plan, setting) is var n and > MaxFolders)
            throw new RefusedException("plan-too-large", $"The plan would unfold to {n} folders.",
                $"Keep it to {MaxFolders} a workspace: let fewer lines stand for each day or each student.", "plan");
        var folders = new List<UnfoldedFolder>();
        Level(plan.Lines, null, new Place(setting.Weeks, setting.Students, setting.Groups, null, null, null, null, null, null, 0, 0), folders);
        return folders;
    }

    /// <summary>How many folders <see cref="Unfold"/> gives, without making them.</summary>
    public static long Count(FolderPlan plan, PlanSetting setting) =>
        plan.Lines.Sum(line => CountLine(line, setting));

    /// <summary>What is not there yet: put to a workspace again, nothing doubles.</summary>
    /// <param name="unfolded">From <see cref="Unfold"/>.</param>
    /// <param name="present">Keys of the folders that stand, those in the bin included: what a teacher binned stays binned.</param>
    public static IReadOnlyList<UnfoldedFolder> Missing(IEnumerable<UnfoldedFolder> unfolded, IReadOnlySet<FolderKey> present) =>
        [.. unfolded.Where(f => !present.Contains(f.Key))];

    private sealed record Place(
        IReadOnlyList<SchoolWeek> Weeks, IReadOnlyList<PlanStudent> Students, IReadOnlyList<PlanGroup> Groups,
        Term? Term, SchoolWeek? Week, LocalDate? Day, string? Entry, PlanGroup? Group, PlanStudent? Student, int Number, int Of);

    private static long CountLine(PlanLine line, PlanSetting at)
    {
        long Below(PlanSetting within) => line.Within.Sum(l => CountLine(l, within));
        return line.Stands switch
        {
            Stands.Once => 1 + Below(at),
            Stands.EachTerm => at.Weeks.GroupBy(w => w.Term).Sum(t => 1 + Below(at with { Weeks = [.. t] })),
            Stands.EachSchoolWeek => at.Weeks.Sum(w => 1 + Below(at with { Weeks = [w] })),
            Stands.EachSchoolDay => at.Weeks.Sum(w => w.Days.Sum(d => 1 + Below(at with { Weeks = [w with { Days = [d] }] }))),
            Stands.EachEntry => line.Entries.Count * (1 + Below(at)),
            Stands.EachGroup => at.Groups.Sum(g => 1 + Below(at with { Groups = [g], Students = Members(at.Students, g) })),
            // Whatever stands below depends on the student only through being there.
            Stands.EachStudent => at.Students.Count == 0 ? 0 : at.Groups.Count == 0 ? at.Students.Count * (1 + Below(at with { Students = [at.Students[0]] })) : at.Students.Sum(s => 1 + Below(at with { Students = [s], Groups = Of(at.Groups, s) })),
            _ => throw new ArgumentOutOfRangeException(nameof(line)),
        };
    }

    private static IReadOnlyList<PlanStudent> Members(IReadOnlyList<PlanStudent> students, PlanGroup group) => [.. students.Where(s => group.Members.Contains(s.Id))];

    private static IReadOnlyList<PlanGroup> Of(IReadOnlyList<PlanGroup> groups, PlanStudent student) => [.. groups.Where(g => g.Members.Contains(student.Id))];

    private static void Level(
        IReadOnlyList<PlanLine> lines, UnfoldedFolder? parent, Place at, List<UnfoldedFolder> into)
    {
        var taken = new HashSet<string>();
        var position = 0;
        foreach (var line in lines)
        {
            foreach (var (mark, place) in Times(line, at))
            {
                var (name, clashed) = NameOf(line, place, taken);
                taken.Add(SafeName.Key(name));
                var key = parent is null ? FolderKey.Top(line.Key, mark) : parent.Key.Below(line.Key, mark);
                var folder = new UnfoldedFolder(key, parent?.Key, name, line.Rule,
                    line.Rule == FolderRule.OneEach ? place.Student?.Id : null, position++, clashed, line.Rule == FolderRule.OnePerGroup ? place.Group?.Id : null);
                into.Add(folder);
                Level(line.Within, folder, place, into);
            }
        }
    }

    private static IEnumerable<(FolderMark? Mark, Place At)> Times(PlanLine line, Place at) => line.Stands switch
    {
        Stands.Once => [(null, at)],
        Stands.EachTerm => Numbered([.. at.Weeks.GroupBy(w => w.Term)], (t, p) => (new FolderMark.Term(t.Key.Name), p with { Term = t.Key, Weeks = [.. t] }), at),
        // Keys go by week and weekday, not by date: next year's folder for the same week is found by the same key.
        Stands.EachSchoolWeek => Numbered(at.Weeks, (w, p) => (new FolderMark.Week(w.Ordinal), p with { Week = w, Term = w.Term, Weeks = [w], Number = w.Number }), at),
        Stands.EachSchoolDay => Numbered([.. at.Weeks.SelectMany(w => w.Days.Select(d => (w, d)))],
            (x, p) => (new FolderMark.Week(x.w.Ordinal, x.d.DayOfWeek), p with { Day = x.d, Week = x.w, Term = x.w.Term, Weeks = [x.w with { Days = [x.d] }] }), at),
        Stands.EachEntry => Numbered(line.Entries, (e, p) => (new FolderMark.Entry(e), p with { Entry = e }), at),
        Stands.EachGroup => Numbered(at.Groups, (g, p) => (new FolderMark.Group(g.Id), p with { Group = g, Groups = [g], Students = Members(at.Students, g) }), at),
        Stands.EachStudent => Numbered(at.Students, (s, p) => (new FolderMark.Student(s.Id), p with { Student = s, Students = [s], Groups = Of(at.Groups, s) }), at),
        _ => throw new ArgumentOutOfRangeException(nameof(line)),
    };

    private static IEnumerable<(FolderMark?, Place)> Numbered<T>(IReadOnlyList<T> times, Func<T, Place, (FolderMark?, Place)> one, Place at) =>
        times.Select((t, i) => one(t, at with { Number = i + 1, Of = times.Count }));

    private static (string Name, bool Clashed) NameOf(PlanLine line, Place at, HashSet<string> taken)
    {
        var culture = CultureInfo.InvariantCulture;
        string Padded(int n, int of) => n.ToString(new string('0', Math.Max(2, of.ToString(culture).Length)), culture);
        var filled = Naming.NamePattern.Fill(line.NamePattern, new Dictionary<string, string?>
        {
            ["term"] = at.Term?.Name,
            ["week"] = at.Week is { } w ? Padded(w.Number, at.Of) : null,
            ["letter"] = at.Week?.Letter,
            ["weekday"] = at.Day?.ToString("ddd", culture),
            ["day"] = at.Day?.ToString("d MMM", culture),
            ["date"] = at.Day?.ToString("uuuu-MM-dd", culture),
            ["number"] = at.Of > 0 ? Padded(at.Number, at.Of) : null,
            ["entry"] = at.Entry,
            ["group"] = at.Group?.Name,
            ["student"] = at.Student?.SortName,
            ["student number"] = at.Student?.Number,
        });
        var safe = SafeName.Make(filled)?.Name ?? line.Key;
        if (!taken.Contains(SafeName.Key(safe))) return (safe, false);
        if (at.Student?.Number is { } number) safe = $"{safe} ({number})";
        return (SafeName.Distinct(safe, taken, isFile: false), true);
    }
}
