using SpringLoft.App.Plans;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Rollover;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Plans;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Rollover;

/// <summary>An assignment's date in the new year.</summary>
public sealed record CarriedDate(AssignmentId Assignment, string Title, MovedDate Moved);

/// <summary>A thing of last year's class that does not come along.</summary>
/// <param name="Whose">Who put it there.</param>
/// <param name="Where">The way to it from the top; null for one that stands in no folder.</param>
public sealed record StayingThing(ClassId Class, ItemId Id, ItemKind Kind, string Name, string Whose, string? Where, StaysWhy Why);

/// <summary>One class that is to be made from one or several of last year: all that is needed to show it, and to make it.</summary>
internal sealed record RollStep(YearRow Year, string? Section, string? Period, ClassNamePreview Name, IReadOnlyList<RollSource> Sources, CarryChoice Choice, Unfoldings Plans)
{
    internal RollSource First => Sources[0];

    /// <summary>Works out what would be made. Writes nothing.</summary>
    /// <param name="section">Null for that of the first class; blank for none.</param>
    /// <exception cref="RefusedException"><c>year-none</c>, <c>department-stays</c>, <c>not-found</c>.</exception>
    internal static RollStep Prepare(IDbConnection c, IReadOnlyList<ClassId> from, YearId? toYear, string? section, string? period, CarryChoice choice, IReadOnlyList<YearRow> years, Unfoldings? known = null)
    {
        var olds = from.Select(id => ClassStore.Find(c, id) ?? throw Refusals.NotFound("class")).ToList();
        if (olds.FirstOrDefault(k => k.Kind != WorkspaceKind.Class) is { } other) throw new RefusedException("department-stays", $"“{other.Name}” is no class: it stays from year to year.", "Roll over the classes instead.");
        var old = olds[0];
        var oldYear = years.First(y => y.Id == old.YearId);
        var year = toYear is { } asked ? years.FirstOrDefault(y => y.Id == asked) ?? throw Refusals.NotFound("school year")
            : years.FirstOrDefault(y => y.Year.First > oldYear.Year.Last);
        if (year is null || year.Year.First <= oldYear.Year.Last)
            throw new RefusedException("year-none", $"There is no school year after {oldYear.Year.Label} yet.", "The coordinator lays down next year's terms first.", "year");
        var newSection = Refusals.NotLonger(section?.Trim() ?? old.Section ?? "", "section", "The section", 40);
        var newPeriod = Refusals.NotLonger(period?.Trim() ?? old.Period ?? "", "period", "The period", 40);
        var name = MakingClass.NameOf(c, year, old.Course, newSection, newPeriod, null);
        var plans = known ?? new();
        var sources = olds.Select(k => RollSource.Load(c, k, years.First(y => y.Id == k.YearId), year, choice, plans)).ToList();
        return new(year, newSection.Length == 0 ? null : newSection, newPeriod.Length == 0 ? null : newPeriod, name, sources, choice, plans);
    }

    /// <summary>What its classes bring together: what is the same in two of them once.</summary>
    internal JoinedView Seen()
    {
        var joining = new Joining();
        var all = Sources.Select(s => s.Copy.Seen(joining)).ToList();
        return new([.. all.SelectMany(s => s.Folders)], all.Sum(s => s.Things), [.. all.SelectMany(s => s.Assignments)]);
    }

    /// <summary>Folders that the plan adds for the new year.</summary>
    internal int PlanAdds => First.Given.Except(Sources.SelectMany(s => s.Keys)).Count();

    /// <summary>What comes along of all its classes and what stays. What is the same in two of them has its line.</summary>
    internal IReadOnlyList<AlongLine> Lines(JoinedView seen)
    {
        if (Sources.Count == 1) return First.Stands.Along.Lines;
        var twice = Sources.Sum(s => s.Copy.Folders.Count + s.Copy.Items.Count + s.Copy.Assignments.Count) - seen.Folders.Count - seen.Things - seen.Assignments.Count;
        // Each class has the same lines in the same order.
        return [.. First.Stands.Along.Lines.Select((l, i) => Sources.Select(s => s.Stands.Along.Lines[i]).ToList()).Select(all => new AlongLine(all[0].What, all.Sum(l => l.Comes), all.Sum(l => l.Stays), all.MaxBy(l => l.Stays)!.Why)),
            new("The same in more than one class", 0, twice, "Stands once in the new class. What has only its name in common stands twice.")];
    }

    /// <summary>Things that do not come along, each with whose it is, where it stands and why it stays.</summary>
    internal IReadOnlyList<StayingThing> Staying() => [.. Sources.SelectMany(s => s.Staying())];

    /// <summary>Makes the class, in preparation, with its lead teacher.</summary>
    /// <returns>The class, and how it compares with what it was made from.</returns>
    internal (ClassId Made, IReadOnlyList<ParityLine> Parity) Make(IDbConnection c, PersonId lead, string? leadShown, Instant now)
    {
        if (Name.Refusal is { } refusal) throw new RefusedException(refusal);
        var old = First.Class;
        var made = ClassStore.Add(c, new ClassRow
        {
            YearId = Year.Id,
            CourseId = old.CourseId,
            Section = Section,
            Period = Period,
            Name = Name.Name,
            Level = old.Level,
            TeacherShown = leadShown ?? old.TeacherShown,
            Welcome = Choice.Welcome ? old.Welcome : "",
            PlanId = old.PlanId,
            PlanVersion = old.PlanVersion,
            RolledFrom = old.Id,
            MadeAt = now,
        });
        RosterStore.Put(c, made, lead, ClassRole.Lead, now);
        var folders = 0;
        var joined = new JoinedClass();
        foreach (var s in Sources) folders += SetUpCopy.Into(c, made, s.Copy, now, joined);
        var unfolded = Plans.Plan(c, old.PlanId, old.PlanVersion) is { } plan ? FolderStore.Unfold(c, made, PlanUnfolding.Unfold(plan.Plan, Settings.Of(c, Year, null, made))) : 0;
        return (made, Compare(c, made, folders, unfolded));
    }

    private IReadOnlyList<ParityLine> Compare(IDbConnection c, ClassId made, int copied, int unfolded)
    {
        var foldersThere = Sources.Sum(s => s.Stands.Rows.Count(f => f.BinnedAt is null));
        var foldersCome = Sources.Sum(s => s.Copy.Folders.Count);
        var itemsThere = Sources.Sum(s => s.Things);
        var itemsCome = Sources.Sum(s => s.Copy.Items.Count);
        var items = ItemStore.CountOf(c, made);
        var assignmentsThere = Sources.Sum(s => s.Stands.Assignments.Count);
        var assignmentsCome = Sources.Sum(s => s.Copy.Assignments.Count);
        var assignments = AssignmentStore.CountOf(c, made);
        var barred = Sources.Sum(s => s.Barred);
        var students = Sources.Sum(s => s.OfStudents);
        return
        [
            Parity.Line("Folders", foldersThere, FolderStore.CountOf(c, made),
                [(foldersThere - foldersCome, Choice.Folders ? "folders of students and groups, which unfold anew" : "folders are not ticked"), (foldersCome - copied, "the same in more than one of the classes")],
                [(unfolded, "of the folder plan, for the new year's calendar and groups")]),
            Parity.Line("Files, links and pages", itemsThere, items,
                [(students, "put in by students"), (barred, "without the right to copy"), (itemsThere - students - barred - itemsCome, "in folders that stay, or not ticked"), (itemsCome - items, "the same in more than one of the classes")], []),
            Parity.Line("Assignments", assignmentsThere, assignments, [(assignmentsThere - assignmentsCome, "not ticked"), (assignmentsCome - assignments, "the same in more than one of the classes")], []),
        ];
    }
}

/// <summary>A class of last year as one that is rolled over draws on it.</summary>
/// <param name="Things">Items of it, the bin left out; of those <paramref name="OfStudents"/> were put in by students and <paramref name="Barred"/> may not be copied.</param>
/// <param name="Keys">Folders of the plan that it brings.</param>
/// <param name="Given">Folders that its plan gives for the new year.</param>
internal sealed record RollSource(
    ClassRow Class, WhatStands Stands, SetUpCopy Copy, IReadOnlyList<CarriedDate> Dates, int Things, int OfStudents, int Barred, IReadOnlyCollection<FolderKey> Keys, IReadOnlyCollection<FolderKey> Given)
{
    internal static RollSource Load(IDbConnection c, ClassRow old, YearRow oldYear, YearRow year, CarryChoice choice, Unfoldings unfoldings)
    {
        var stands = WhatStands.Load(c, old.Id, choice);
        var (rows, along) = (stands.Rows, stands.Along);
        var assignments = choice.Assignments ? stands.Assignments : [];
        var (was, will) = unfoldings.Of(c, old, oldYear, year);
        var kept = along.Folders.ToHashSet();
        var counts = along.Items.SelectMany(i => stands.Filings[i]).GroupBy(f => f).ToDictionary(g => g.Key, g => g.Count());
        var carried = rows.Where(f => kept.Contains(f.Id)).Select(f =>
        {
            var next = FolderCarry.NewName(f.Name, f.PlanKey, was, will);
            return new CarriedFolder(f.Id, f.ParentId, next, next == f.Name ? null : f.Name, f.Rule, counts.GetValueOrDefault(f.Id));
        }).ToList();
        var keys = rows.Where(f => f.PlanKey is not null && kept.Contains(f.Id)).Select(f => f.PlanKey!).ToHashSet();
        var dates = choice.Dates == CarriedDates.BySchoolWeek && assignments.Any(a => a.DueOn is not null) ? Moved(assignments, new(oldYear.Year, year.Year)) : [];
        var copy = new SetUpCopy(stands, carried, along.Items, assignments)
        {
            Dates = dates.ToDictionary(d => d.Assignment, d => d.Moved.Will),
            Points = choice.MarkingScheme,
            Groups = choice.Groups ? stands.Groups : [],
            Called = old.Section ?? old.Name,
        };
        var live = stands.Live.ToList();
        return new(old, stands, copy, dates, live.Count, Staying(StaysWhy.OfStudent), Staying(StaysWhy.NoRight), keys, [.. will.Keys]);
        int Staying(StaysWhy why) => along.Staying.Count(i => i.Why == why);
    }

    internal IEnumerable<StayingThing> Staying()
    {
        var items = Stands.Items.ToDictionary(i => i.Id);
        var folders = Stands.Rows.ToDictionary(f => f.Id);
        string Way(FolderId f) => folders[f].ParentId is { } p && folders.ContainsKey(p) ? $"{Way(p)} / {folders[f].Name}" : folders[f].Name;
        return Stands.Along.Staying.Select(x => new StayingThing(Class.Id, x.Item, items[x.Item].Kind, items[x.Item].Name, items[x.Item].AddedByName, Stands.Filings[x.Item].Where(folders.ContainsKey).Select(Way).FirstOrDefault(), x.Why));
    }

    private static List<CarriedDate> Moved(IEnumerable<AssignmentRow> assignments, DateMove move) =>
        [.. assignments.Where(a => a.DueOn is not null).Select(a => new CarriedDate(a.Id, a.Title, move.Move(a.DueOn!.Value)))];
}

/// <summary>How plans name their folders in the old year and in the new; the same for all classes of a plan, so worked out once.</summary>
internal sealed class Unfoldings
{
    private readonly Dictionary<(PlanId, int?), PlanRow?> plans = [];
    private readonly Dictionary<(PlanId, int?, TermId?, YearId, YearId), (IReadOnlyDictionary<FolderKey, string> Was, IReadOnlyDictionary<FolderKey, string> Will)> known = [];

    /// <summary>A version of a plan; null if there is none.</summary>
    internal PlanRow? Plan(IDbConnection c, PlanId? plan, int? version)
    {
        if (plan is not { } id) return null;
        if (!plans.TryGetValue((id, version), out var there)) plans[(id, version)] = there = PlanStore.Find(c, id, version);
        return there;
    }

    internal (IReadOnlyDictionary<FolderKey, string> Was, IReadOnlyDictionary<FolderKey, string> Will) Of(IDbConnection c, ClassRow old, YearRow oldYear, YearRow year)
    {
        if (old.PlanId is not { } id) return (new Dictionary<FolderKey, string>(), new Dictionary<FolderKey, string>());
        if (known.TryGetValue((id, old.PlanVersion, old.TermId, oldYear.Id, year.Id), out var there)) return there;
        if (Plan(c, id, old.PlanVersion) is not { } plan) return (new Dictionary<FolderKey, string>(), new Dictionary<FolderKey, string>());
        IReadOnlyDictionary<FolderKey, string> Names(YearRow y, TermId? term) => FolderCarry.Names(PlanUnfolding.Unfold(plan.Plan, new(Settings.Weeks(y, term), [])));
        return known[(id, old.PlanVersion, old.TermId, oldYear.Id, year.Id)] = (Names(oldYear, old.TermId), Names(year, null));
    }
}
