using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Naming;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Workspaces;

/// <summary>What is said about a class.</summary>
/// <param name="Mark">Of its course, worn by all its classes.</param>
public sealed record AboutClass(string? Name, string? Section, string? Period, string? Level, string? Room, TermId? Term, LocalDate? EndsOn, string? TeacherShown, string? Mark);

/// <summary>Changes what is said about a class: name, section, period, level, room, term, last day, mark, the teacher's name, the welcome note.</summary>
public sealed class ClassDetails(Premises premises)
{
    /// <summary>
    /// Changes what somebody changed, all of it or nothing. What they left as it was stays as others made it meanwhile; what
    /// both made something else of is refused, so that they see it. Where the name came from the school's pattern, it follows.
    /// </summary>
    /// <param name="was">What they began with.</param>
    /// <param name="mine">What they made of it.</param>
    /// <returns>The name the class has now.</returns>
    /// <exception cref="RefusedException"><c>about-changed</c>, naming each part that both changed; <c>name-taken</c>, <c>names-by-pattern</c>, <c>mark-unknown</c>, <c>term-unknown</c>, <c>ends-outside</c>; <c>not-allowed</c>.</exception>
    public string Change(Caller by, ClassId id, AboutClass? was, AboutClass? mine)
    {
        if (was is null || mine is null) throw new RefusedException("missing", "What is said about the class is missing.", "Send what it was and what it is to be.", was is null ? "was" : "mine");
        return premises.Db.Write(c =>
        {
            var at = ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
            var k = at.Class;
            var year = YearStore.All(c).First(y => y.Id == k.YearId);
            var next = Decide(Clean(was), Clean(mine), new(k.Name, k.Section, k.Period, k.Level, k.Room, k.TermId, k.EndsOn, k.TeacherShown, k.Mark), year);
            if ((next.Name != k.Name || next.Mark != k.Mark) && !Permissions.InClass(at.Standing, Act.OpenClass))
                throw new RefusedException("not-allowed", "The name and the mark are the lead teacher's.", "Ask the lead teacher or the coordinator.", next.Name != k.Name ? "name" : "mark");
            if (next.Term is { } t && year.Terms.All(x => x.Id != t)) throw new RefusedException("term-unknown", $"School year {year.Year.Label} has no such term.", "Choose one of its terms, or the whole year.", "term");
            MakingClass.CheckEnds(year, next.EndsOn);
            Refusals.Needed(next.TeacherShown, "teacherShown", "The name that students see", 80);
            var changed = k with { Section = next.Section, Period = next.Period, Level = next.Level, Room = next.Room, TermId = next.Term, EndsOn = next.EndsOn, TeacherShown = next.TeacherShown! };
            if (changed != k) ClassStore.SetDetails(c, changed);
            var now = premises.Clock.Now;
            var name = next.Name != k.Name ? Naming.NameDesk.Rename(c, by, k, next.Name, now) : Follow(c, k, year, next.Section, next.Period, next.Term);
            if (next.Mark != k.Mark) SetMark(c, by, k, next.Mark, now);
            if (changed != k) Premises.Add(c, by, now, new("changed class details", "class", id.Value, id, name == k.Name ? name : $"“{k.Name}” to “{name}”"));
            return name;
        });
    }

    private static AboutClass Clean(AboutClass a)
    {
        string? Part(string? text, string field, string what) => MakingClass.Blank(Refusals.NotLonger(text?.Trim() ?? "", field, what, 40));
        return a with
        {
            Name = a.Name?.Trim(),
            Section = Part(a.Section, "section", "The section"),
            Period = Part(a.Period, "period", "The period"),
            Level = Part(a.Level, "level", "The level"),
            Room = Part(a.Room, "room", "The room"),
            TeacherShown = a.TeacherShown?.Trim(),
        };
    }

    private static AboutClass Decide(AboutClass was, AboutClass mine, AboutClass now, YearRow year)
    {
        var both = new List<(string Field, string What)>();
        T One<T>(Func<AboutClass, T> of, string field, string called, Func<T, string?> said)
        {
            var (value, conflict) = ThreeWay.Decide(of(was), of(mine), of(now));
            if (conflict) both.Add((field, $"{called} is {Said(said(of(now)))} by now, and you wrote {Said(said(of(mine)))}"));
            return value;
        }
        string? Text(string? t) => t;
        static string Said(string? t) => t is null or "" ? "empty" : $"“{t}”";
        var next = new AboutClass(
            One(a => a.Name, "name", "The name", Text), One(a => a.Section, "section", "The section", Text), One(a => a.Period, "period", "The period", Text),
            One(a => a.Level, "level", "The level", Text), One(a => a.Room, "room", "The room", Text),
            One(a => a.Term, "term", "The term", t => t is null ? "the whole year" : year.Terms.FirstOrDefault(x => x.Id == t)?.Name),
            One(a => a.EndsOn, "endsOn", "The last day", d => d?.ToString("d MMM uuuu", System.Globalization.CultureInfo.InvariantCulture)),
            One(a => a.TeacherShown, "teacherShown", "The teacher's name", Text), One(a => a.Mark, "mark", "The mark", Text));
        return both.Count == 0 ? next
            : throw new RefusedException("about-changed", $"Somebody else changed this class meanwhile. {string.Join(". ", both.Select(b => b.What))}.", "Nothing was written, and what you wrote is still here. Save once more if yours is to stand.", both[0].Field);
    }

    private static void SetMark(IDbConnection c, Caller by, ClassRow k, string? mark, Instant now)
    {
        if (mark is null || !CourseMarks.All.Contains(mark)) throw new RefusedException("mark-unknown", $"There is no mark “{mark}”.", $"Use one of: {string.Join(", ", CourseMarks.All)}.", "mark");
        SchoolStore.SetMark(c, k.CourseId, mark);
        Premises.Add(c, by, now, new("changed course mark", "course", k.CourseId.Value, k.Id, $"{k.Course}: {mark}"));
    }

    /// <summary>Changes what students read first.</summary>
    /// <param name="was">The note that it was begun on.</param>
    /// <param name="text">CommonMark; empty for none.</param>
    /// <exception cref="RefusedException"><c>changed-meanwhile</c> if it is another one by now.</exception>
    public void SetWelcome(Caller by, ClassId id, string? was, string? text)
    {
        if (text is null) throw new RefusedException("missing", "The welcome note is missing.", "Send the whole text; an empty one takes the note away.", "text");
        var note = Note(text);
        premises.Db.Write(c =>
        {
            var k = ClassGate.Demand(c, by, id, Act.Arrange).NotArchived().Class;
            if (k.Welcome == note) return;
            if (k.Welcome != Note(was)) throw Refusals.ChangedMeanwhile("welcome note");
            var now = premises.Clock.Now;
            ClassStore.SetWelcome(c, id, k.Version, note, by.Id, now);
            Premises.Add(c, by, now, new("wrote welcome note", "class", id.Value, id, note.Length > 60 ? note[..60] + "…" : note));
        });
    }

    /// <summary>What comes of a note that was begun on an earlier one and the note as it stands now. Writes nothing.</summary>
    public TwoTexts WelcomeTogether(ClassId id, string? was, string? text, Decided? decided) => premises.Db.Read(c =>
    {
        var k = ClassStore.Find(c, id) ?? throw Refusals.NotFound("class");
        var by = k.WelcomeBy is { } p ? Store.People.PersonStore.Find(c, p)!.Name.Display : "Somebody";
        return TwoTexts.Of(k.Version, "Welcome note", by, k.WelcomeAt, Note(was), Note(text), k.Welcome, decided);
    });

    private static string Note(string? text) => Refusals.NotLonger(text?.Trim() ?? "", "text", "The welcome note", 20_000);

    // A name that a person gave by hand stays; one that the pattern made goes with what it was made from.
    private static string Follow(IDbConnection c, ClassRow k, YearRow year, string? section, string? period, TermId? term)
    {
        if (k.Kind != WorkspaceKind.Class) return k.Name;
        var pattern = SchoolStore.Get(c)!.ClassNamePattern;
        string? TermName(TermId? t) => year.Terms.FirstOrDefault(x => x.Id == t)?.Name;
        var was = ClassName.Preview(pattern, new(k.Course, k.Section, k.Period, TermName(k.TermId), year.Year.Label), []).Name;
        if (was != k.Name) return k.Name;
        var next = ClassName.Preview(pattern, new(k.Course, section, period, TermName(term), year.Year.Label), []).Name;
        if (next == k.Name) return next;
        if (ClassStore.Names(c, SafeName.Key(next)).Count > 0) throw new RefusedException("name-taken", $"It would be called “{next}”, and there is already such a class.", "Give it another section or period.", "section");
        ClassStore.Rename(c, [(k.Id, next)]);
        return next;
    }
}
