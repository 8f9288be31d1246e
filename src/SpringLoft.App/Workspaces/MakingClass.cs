using SpringLoft.App.Plans;
using SpringLoft.App.Rollover;
using SpringLoft.App.Years;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Rollover;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Naming;
using SpringLoft.Store.Plans;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Workspaces;

/// <summary>What a class is made from.</summary>
/// <param name="Course">Name of a course, known or new.</param>
/// <param name="Plan">The folder plan; null for none.</param>
/// <param name="TeacherShown">What students read as the teacher's name; the full name if blank.</param>
public sealed record NewClass(YearId Year, string? Course, string? Section, string? Period, TermId? Term, PlanId? Plan, string? TeacherShown)
{
    /// <summary>As schools say it: beginners, honours, ability group.</summary>
    public string? Level { get; init; }

    /// <summary>Where it meets.</summary>
    public string? Room { get; init; }

    /// <summary>The last day, where it is not that of the term or year.</summary>
    public LocalDate? EndsOn { get; init; }

    /// <summary>Of a new course; a known course keeps its own.</summary>
    public string? Mark { get; init; }

    /// <summary>A class whose set-up is copied: its folders as they stand, staff's things, assignments as drafts. Then the plan is that class's.</summary>
    public ClassId? From { get; init; }

    /// <summary>Groups it begins with: the year groups or sections that share it.</summary>
    public IReadOnlyList<string>? Groups { get; init; }
}

/// <summary>How the class will be: its name, what stands against it, and the folders.</summary>
/// <param name="From">What comes from the class that is copied; null if none is.</param>
public sealed record NewClassPreview(ClassNamePreview Name, UnfoldingView? Folders, CopyView? From);

/// <summary>What comes from a class that is copied.</summary>
public sealed record CopyView(string Name, int Folders, int Things, int Assignments, IReadOnlyList<AlongLine> Lines);

/// <summary>What to look at before a class is opened.</summary>
/// <param name="First">First student of the roster by last name; null if nobody is on it.</param>
/// <param name="FoldersSeen">Folders that any student will see, of all <paramref name="Folders"/>.</param>
/// <param name="Also">Students who are in another class of the same course: they may be on the wrong roster.</param>
public sealed record OpeningCheck(
    string? Period, string? Room, int Students, string? First, string? Last, int FoldersSeen, int Folders, int Published, int BlindSpots, bool HasWelcome, IReadOnlyList<string> Also, string TeacherShown)
{
    /// <summary>Students who have no way to sign in yet.</summary>
    public int NoSignIn { get; init; }

    /// <summary>What there is to say of it, what weighs most first.</summary>
    public IReadOnlyList<OpeningNote> Notes { get; init; } = [];
}

/// <summary>A course to choose from.</summary>
public sealed record CourseView(CourseId Id, string Name, string Mark, string? Department);

/// <summary>Makes classes.</summary>
public sealed class MakingClass(Premises premises, PlanDesk plans)
{
    /// <summary>All courses by name.</summary>
    public IReadOnlyList<CourseView> Courses() => premises.Db.Read(c => SchoolStore.Courses(c).Select(o => new CourseView(o.Id, o.Name, o.Mark, o.Department)).ToList());

    /// <summary>Says how the class would be. Writes nothing.</summary>
    public NewClassPreview Preview(Caller who, NewClass n)
    {
        Check(n);
        var (name, from) = premises.Db.Read(c => (Name(c, n), n.From is { } id ? SetUp(c, who, id) : null));
        var copied = from is { } s ? new CopyView(s.Class.Name, s.Copy.Folders.Count, s.Copy.Items.Count, s.Copy.Assignments.Count, s.Along.Lines) : null;
        return new(name, n is { Plan: { } plan, From: null } ? plans.UnfoldKept(plan, new(null, n.Year, n.Term)) : null, copied);
    }

    /// <summary>Makes the class in preparation, its folders, and its maker the lead teacher.</summary>
    /// <exception cref="RefusedException"><c>name-taken</c> and others of <see cref="ClassName.Preview"/>.</exception>
    public ClassId Make(Caller by, NewClass n)
    {
        Check(n);
        return premises.Db.Write(c => Make(c, by, n, by.Id, by.Name));
    }

    /// <summary>The same inside a transaction that is under way.</summary>
    internal ClassId Make(IDbConnection c, Caller by, NewClass n, PersonId lead, string leadName)
    {
        var now = premises.Clock.Now;
        var name = Name(c, n);
        if (name.Refusal is { } refusal) throw new RefusedException(refusal);
        var course = SchoolStore.CourseNamed(c, n.Course!.Trim(), Blank(n.Mark) ?? CourseMarks.All[^1], null);
        var from = n.From is { } old ? SetUp(c, by, old) : null;
        var plan = n.Plan is { } p && from is null ? PlanStore.Find(c, p) ?? throw Refusals.NotFound("folder plan") : null;
        var id = ClassStore.Add(c, new ClassRow
        {
            YearId = n.Year,
            CourseId = course.Id,
            Section = Blank(n.Section),
            Period = Blank(n.Period),
            Level = Blank(n.Level) ?? from?.Class.Level,
            Room = Blank(n.Room),
            TermId = n.Term,
            EndsOn = n.EndsOn,
            Welcome = from?.Class.Welcome ?? "",
            Name = name.Name,
            TeacherShown = Blank(n.TeacherShown) ?? leadName,
            PlanId = plan?.Id ?? from?.Class.PlanId,
            PlanVersion = plan?.Version ?? from?.Class.PlanVersion,
            MadeAt = now,
        });
        RosterStore.Put(c, id, lead, ClassRole.Lead, now);
        foreach (var g in (n.Groups ?? []).Select(g => SafeName.Make(g.Trim())?.Name).OfType<string>().DistinctBy(SafeName.Key)) GroupStore.Add(c, id, g);
        var folders = from is null ? 0 : SetUpCopy.Into(c, id, from.Copy, now);
        folders += Settings.Unfold(c, ClassStore.Find(c, id)!);
        Premises.Add(c, by, now, new("made class", "class", id.Value, id, $"“{name.Name}” with {folders} folders{(from is null ? "" : $", from “{from.Class.Name}”")}"));
        return id;
    }

    /// <summary>Opens a class to its students.</summary>
    /// <param name="version">Of the class as the asker saw it.</param>
    public void Open(Caller by, ClassId id, int version) => premises.Db.Write(c => Open(c, by, id, version, premises.Clock.Now));

    /// <summary>The same in a transaction that is going.</summary>
    /// <returns>To how many students.</returns>
    internal static int Open(IDbConnection c, Caller by, ClassId id, int version, Instant now)
    {
        var k = ClassGate.Demand(c, by, id, Act.OpenClass).NotArchived().Class;
        if (k.Kind != WorkspaceKind.Class) throw new RefusedException("department-stays", $"“{k.Name}” is a department's workspace: its members see it from the start.", "Nothing to do.");
        if (k.State == ClassState.Open) throw new RefusedException("class-open", $"“{k.Name}” is open already.", "Nothing to do.");
        if (!ClassStore.SetState(c, k with { Version = version }, ClassState.Open, now, k.AfterArchive)) throw Refusals.ChangedMeanwhile("class");
        var students = RosterStore.Members(c, id).Count(m => m.Role == ClassRole.Student && m.LeftAt is null);
        Premises.Add(c, by, now, new("opened class", "class", id.Value, id, $"to {students} students"));
        return students;
    }

    /// <summary>What to look at before a class is opened: is this really that period's roster, and what will they see?</summary>
    public OpeningCheck CheckOpening(ClassId id) => premises.Db.Read(c => Check(c, ClassStore.Find(c, id) ?? throw Refusals.NotFound("class")));

    internal static OpeningCheck Check(IDbConnection c, ClassRow k)
    {
        var id = k.Id;
        var roster = RosterStore.Members(c, id).Where(m => m.LeftAt is null).ToList();
        var students = roster.Where(m => m.Role == ClassRole.Student).ToList();
        var folders = FolderStore.OfClass(c, id);
        var any = new Access(new Viewer(default, Standing.Student, true, ClassState.Open, AfterArchive.View), folders.Select(f => f.Fact));
        var twins = ClassStore.OfYear(c, k.YearId).Where(o => o.Id != id && o.CourseId == k.CourseId && o.State != ClassState.Archived).ToList();
        var also = twins.SelectMany(o => RosterStore.Members(c, o.Id).Where(m => m.LeftAt is null && m.Role == ClassRole.Student).Select(m => (m.PersonId, o.Name)))
            .Where(x => students.Any(s => s.PersonId == x.PersonId)).Select(x => $"{students.First(s => s.PersonId == x.PersonId).Name.Display} is also in “{x.Name}”").ToList();
        var (seen, published, blind, noSignIn) = (folders.Count(f => any.Of(f.Id).Right > Right.None), AssignmentStore.OfClass(c, id).Count(a => a.PublishedAt is not null), Arranging.Blind(c, id).Count, RosterStore.WithoutSignIn(c, id));
        var led = Core.Rosters.Leading.TroubleOf(Rosters.LeadDesk.Leads(c, id)) is not (Core.Rosters.LeadTrouble.NobodyLeads or Core.Rosters.LeadTrouble.LeadIsGone);
        return new OpeningCheck(k.Period, k.Room, students.Count, students.FirstOrDefault()?.Name.Sort, students.LastOrDefault()?.Name.Sort,
            seen, folders.Count, published, blind, k.Welcome.Length > 0, also, k.TeacherShown)
        { NoSignIn = noSignIn, Notes = Opening.Notes(new(students.Count, led, seen, blind, also.Count, noSignIn, k.Welcome.Length > 0, published)) };
    }

    internal static ClassNamePreview NameOf(IDbConnection c, YearRow year, string course, string? section, string? period, TermId? term)
    {
        var parts = new ClassNameParts(course.Trim(), Blank(section), Blank(period), year.Terms.FirstOrDefault(t => t.Id == term)?.Name, year.Year.Label);
        var pattern = SchoolStore.Get(c)!.ClassNamePattern;
        var bare = ClassName.Preview(pattern, parts, []);
        return bare.Refusal is not null ? bare : ClassName.Preview(pattern, parts, ClassStore.Names(c, SafeName.Key(bare.Name)));
    }

    private static ClassNamePreview Name(IDbConnection c, NewClass n)
    {
        var year = YearStore.All(c).FirstOrDefault(y => y.Id == n.Year) ?? throw Refusals.NotFound("school year");
        if (n.Term is { } t && year.Terms.All(x => x.Id != t))
            throw new RefusedException("term-unknown", $"School year {year.Year.Label} has no such term.", "Choose one of its terms, or the whole year.", "term");
        CheckEnds(year, n.EndsOn);
        return NameOf(c, year, n.Course ?? "", n.Section, n.Period, n.Term);
    }

    private sealed record FromClass(ClassRow Class, SetUpCopy Copy, ComesAlong Along);

    private static FromClass SetUp(IDbConnection c, Caller who, ClassId id)
    {
        var at = ClassGate.Find(c, who, id);
        if (at.Standing < Standing.CoTeacher) throw Refusals.NotFound("class");
        var stands = WhatStands.Load(c, id);
        var along = stands.Along;
        var kept = along.Folders.ToHashSet();
        var carried = stands.Rows.Where(f => kept.Contains(f.Id)).Select(f => new CarriedFolder(f.Id, f.ParentId, f.Name, null, f.Rule, 0)).ToList();
        return new(at.Class, new(stands, carried, along.Items, stands.Assignments), along);
    }

    internal static void CheckEnds(YearRow year, LocalDate? ends)
    {
        if (ends is { } day && (day < year.Year.First || day > year.Year.Last))
            throw new RefusedException("ends-outside", $"{day.ToString("d MMM uuuu", System.Globalization.CultureInfo.InvariantCulture)} is not in school year {year.Year.Label}.", "Choose a day of that year, or leave it empty.", "endsOn");
    }

    private static void Check(NewClass n)
    {
        Refusals.NotLonger(n.Level ?? "", "level", "The level", 40);
        Refusals.NotLonger(n.Room ?? "", "room", "The room", 40);
        if (n.Groups is { Count: > 100 }) throw new RefusedException("too-many", $"{n.Groups.Count} groups are too many.", "Begin with up to 100.", "groups");
        foreach (var g in n.Groups ?? []) Refusals.Needed(g, "groups", "The name of a group", 80);
        if (Blank(n.Mark) is { } mark && !CourseMarks.All.Contains(mark)) throw new RefusedException("mark-unknown", $"There is no mark “{mark}”.", $"Use one of: {string.Join(", ", CourseMarks.All)}.", "mark");
        Refusals.NotLonger(n.Course ?? "", "course", "The course", 80);
        Refusals.NotLonger(n.Section ?? "", "section", "The section", 40);
        Refusals.NotLonger(n.Period ?? "", "period", "The period", 40);
        Refusals.NotLonger(n.TeacherShown ?? "", "teacherShown", "The name that students see", 80);
    }

    internal static string? Blank(string? s) => string.IsNullOrWhiteSpace(s) ? null : s.Trim();
}
