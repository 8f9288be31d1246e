using SpringLoft.App.Plans;
using SpringLoft.App.Years;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Audit;
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
public sealed record NewClass(YearId Year, string? Course, string? Section, string? Period, TermId? Term, PlanId? Plan, string? TeacherShown);

/// <summary>How the class will be: its name, what stands against it, and the folders.</summary>
public sealed record NewClassPreview(ClassNamePreview Name, UnfoldingView? Folders);

/// <summary>A course to choose from.</summary>
public sealed record CourseView(CourseId Id, string Name, string Mark, string? Department);

/// <summary>Makes classes.</summary>
public sealed class MakingClass(Premises premises, PlanDesk plans)
{
    /// <summary>All courses by name.</summary>
    public IReadOnlyList<CourseView> Courses() => premises.Db.Read(c => SchoolStore.Courses(c).Select(o => new CourseView(o.Id, o.Name, o.Mark, o.Department)).ToList());

    /// <summary>Says how the class would be. Writes nothing.</summary>
    public NewClassPreview Preview(NewClass n)
    {
        Check(n);
        var name = premises.Db.Read(c => Name(c, n));
        return new(name, n.Plan is { } plan ? plans.UnfoldKept(plan, new(null, n.Year, n.Term)) : null);
    }

    /// <summary>Makes the class in preparation, its folders, and its maker the lead teacher.</summary>
    /// <exception cref="RefusedException"><c>name-taken</c> and others of <see cref="ClassName.Preview"/>.</exception>
    public ClassId Make(Caller by, NewClass n)
    {
        Check(n);
        return premises.Db.Write(c =>
        {
            var now = premises.Clock.Now;
            var name = Name(c, n);
            if (name.Refusal is { } refusal) throw new RefusedException(refusal);
            var course = SchoolStore.CourseNamed(c, n.Course!.Trim(), "sprig", null);
            var plan = n.Plan is { } p ? PlanStore.Find(c, p) ?? throw Refusals.NotFound("folder plan") : null;
            var id = ClassStore.Add(c, new ClassRow
            {
                YearId = n.Year,
                CourseId = course.Id,
                Section = Blank(n.Section),
                Period = Blank(n.Period),
                TermId = n.Term,
                Name = name.Name,
                TeacherShown = Blank(n.TeacherShown) ?? by.Name,
                PlanId = plan?.Id,
                PlanVersion = plan?.Version,
                MadeAt = now,
            });
            RosterStore.Put(c, id, by.Id, ClassRole.Lead, now);
            var folders = Settings.Unfold(c, ClassStore.Find(c, id)!);
            Premises.Add(c, by, now, new("made class", "class", id.Value, id, $"“{name.Name}” with {folders} folders"));
            return id;
        });
    }

    /// <summary>Opens a class to its students.</summary>
    /// <param name="version">Of the class as the asker saw it.</param>
    public void Open(Caller by, ClassId id, int version) => premises.Db.Write(c =>
    {
        var k = ClassGate.Find(c, by, id).NotArchived().Class;
        if (k.State == ClassState.Open) throw new RefusedException("class-open", $"“{k.Name}” is open already.", "Nothing to do.");
        var now = premises.Clock.Now;
        if (!ClassStore.SetState(c, k with { Version = version }, ClassState.Open, now, k.AfterArchive)) throw Refusals.ChangedMeanwhile("class");
        var students = RosterStore.Members(c, id).Count(m => m.Role == ClassRole.Student && m.LeftAt is null);
        Premises.Add(c, by, now, new("opened class", "class", id.Value, id, $"to {students} students"));
    });

    /// <summary>Changes what students read as the teacher's name.</summary>
    public void SetTeacherShown(Caller by, ClassId id, int version, string? shown)
    {
        var text = Refusals.Needed(shown, "teacherShown", "The name that students see", 80);
        premises.Db.Write(c =>
        {
            ClassGate.Find(c, by, id).NotArchived();
            if (!ClassStore.SetTeacherShown(c, id, version, text)) throw Refusals.ChangedMeanwhile("class");
            Premises.Add(c, by, premises.Clock.Now, new("changed teacher's name", "class", id.Value, id, text));
        });
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
        return NameOf(c, year, n.Course ?? "", n.Section, n.Period, n.Term);
    }

    private static void Check(NewClass n)
    {
        Refusals.NotLonger(n.Course ?? "", "course", "The course", 80);
        Refusals.NotLonger(n.Section ?? "", "section", "The section", 40);
        Refusals.NotLonger(n.Period ?? "", "period", "The period", 40);
        Refusals.NotLonger(n.TeacherShown ?? "", "teacherShown", "The name that students see", 80);
    }

    private static string? Blank(string? s) => string.IsNullOrWhiteSpace(s) ? null : s.Trim();
}
