using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Naming;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Workspaces;

/// <summary>What is said about a class besides its name.</summary>
public sealed record DetailsDraft(string? Section, string? Period, string? Level, string? Room, TermId? Term, LocalDate? EndsOn, string? TeacherShown, int Version);

/// <summary>Changes what is said about a class: section, period, level, room, term, last day, mark, the teacher's name, the welcome note.</summary>
public sealed class ClassDetails(Premises premises)
{
    /// <summary>Changes the details. Where the name came from the school's pattern, it follows.</summary>
    /// <returns>The name the class has now.</returns>
    public string Change(Caller by, ClassId id, DetailsDraft d)
    {
        string? Part(string? text, string field, string what) => MakingClass.Blank(Refusals.NotLonger(text ?? "", field, what, 40));
        var (section, period, level, room) = (Part(d.Section, "section", "The section"), Part(d.Period, "period", "The period"), Part(d.Level, "level", "The level"), Part(d.Room, "room", "The room"));
        var shown = Refusals.Needed(d.TeacherShown, "teacherShown", "The name that students see", 80);
        return premises.Db.Write(c =>
        {
            var k = ClassGate.Find(c, by, id).NotArchived().Class;
            var year = YearStore.All(c).First(y => y.Id == k.YearId);
            if (d.Term is { } t && year.Terms.All(x => x.Id != t)) throw new RefusedException("term-unknown", $"School year {year.Year.Label} has no such term.", "Choose one of its terms, or the whole year.", "term");
            MakingClass.CheckEnds(year, d.EndsOn);
            if (!ClassStore.SetDetails(c, k with { Section = section, Period = period, Level = level, Room = room, TermId = d.Term, EndsOn = d.EndsOn, TeacherShown = shown, Version = d.Version })) throw Refusals.ChangedMeanwhile("class");
            var name = Follow(c, k, year, section, period, d.Term);
            Premises.Add(c, by, premises.Clock.Now, new("changed class details", "class", id.Value, id, name == k.Name ? name : $"“{k.Name}” to “{name}”"));
            return name;
        });
    }

    /// <summary>Changes the mark of the course: all its classes wear it.</summary>
    /// <returns>How many classes wear it.</returns>
    public int SetMark(Caller by, ClassId id, string? mark)
    {
        if (mark is null || !CourseMarks.All.Contains(mark)) throw new RefusedException("mark-unknown", $"There is no mark “{mark}”.", $"Use one of: {string.Join(", ", CourseMarks.All)}.", "mark");
        return premises.Db.Write(c =>
        {
            var k = ClassGate.Find(c, by, id).NotArchived().Class;
            var classes = SchoolStore.SetMark(c, k.CourseId, mark);
            Premises.Add(c, by, premises.Clock.Now, new("changed course mark", "course", k.CourseId.Value, id, $"{k.Course}: {mark}"));
            return classes;
        });
    }

    /// <summary>Changes what students read first.</summary>
    /// <param name="text">CommonMark; empty for none.</param>
    public void SetWelcome(Caller by, ClassId id, string? text, int version)
    {
        var note = Refusals.NotLonger(text?.Trim() ?? "", "text", "The welcome note", 20_000);
        premises.Db.Write(c =>
        {
            ClassGate.Find(c, by, id).NotArchived();
            if (!ClassStore.SetWelcome(c, id, version, note)) throw Refusals.ChangedMeanwhile("class");
            Premises.Add(c, by, premises.Clock.Now, new("wrote welcome note", "class", id.Value, id, note.Length > 60 ? note[..60] + "…" : note));
        });
    }

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
