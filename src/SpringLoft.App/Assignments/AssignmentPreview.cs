using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Assignments;

/// <summary>Why a student would not find an assignment.</summary>
public enum Hindrance
{
    /// <summary>It is filed only where they see nothing.</summary>
    Unseen,

    /// <summary>They may look in the class and not post: they find it and can't hand in.</summary>
    ViewOnly,
}

/// <summary>A student for whom something is in the way.</summary>
public sealed record InTheWay(PersonId Student, string Name, Hindrance Because);

/// <summary>What else is due in the same school week for students of the assignment.</summary>
/// <param name="Students">How many of those it is given to have that too.</param>
public sealed record AlsoDue(ClassId Class, string ClassName, string Title, LocalDate DueOn, int Students);

/// <summary>What giving an assignment comes to, before it is given.</summary>
/// <param name="Given">How many students it is given to.</param>
/// <param name="Find">How many of them find it and can hand in, once it is published and the class is open.</param>
/// <param name="Week">Number of the school week it is due in; null without a date, or where that week has no school.</param>
/// <param name="OffDay">It is due on a day without school.</param>
/// <param name="Past">It is due on a day that is over.</param>
/// <param name="Others">What it comes to in the other classes that get it in the same act.</param>
/// <param name="Closes">The last day on which late work is taken; null for no end.</param>
public sealed record AssignmentPreview(int Given, int Find, IReadOnlyList<InTheWay> InTheWay, int? Week, bool OffDay, bool Past, LocalDate? Closes, IReadOnlyList<AlsoDue> AlsoDue, IReadOnlyList<AlsoGiven> Others);

/// <summary>Says who will find an assignment, where it falls, and what else these students have to do then. Writes nothing.</summary>
public sealed class Previewing(Premises premises)
{
    /// <summary>What an assignment comes to if it is given so.</summary>
    /// <param name="assignment">The one that is changed; null for a new one.</param>
    public AssignmentPreview Preview(Caller who, ClassId id, NewAssignment n, AssignmentId? assignment = null) => premises.Db.Read(c =>
    {
        var at = ClassGate.Demand(c, who, id, Act.Arrange);
        var was = assignment is { } one ? AssignmentStore.Find(c, id, one) ?? throw Refusals.NotFound("assignment") : null;
        var roster = RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null).ToList();
        var some = Assigning.Given(c, id, was, n);
        var to = roster.Where(m => some?.Contains(m.PersonId) != false).ToList();
        var there = FolderStore.OfClass(c, id);
        var blind = Assigning.BlindOnes(c, at, there, [.. (n.Folders ?? []).Where(f => there.Any(t => t.Id == f))], to).ToHashSet();
        List<InTheWay> way = [.. to.Where(m => blind.Contains(m.PersonId)).Select(m => new InTheWay(m.PersonId, m.Name.Display, Hindrance.Unseen)),
            .. to.Where(m => !m.MayPost && !blind.Contains(m.PersonId)).Select(m => new InTheWay(m.PersonId, m.Name.Display, Hindrance.ViewOnly))];
        var year = YearStore.All(c).First(y => y.Id == at.Class.YearId).Year;
        var week = n.DueOn is { } day ? SchoolWeeks.Of(year).FirstOrDefault(w => WeekOf(w.Days[0]) == WeekOf(day)) : null;
        return new AssignmentPreview(to.Count, to.Count - way.Count, way, week?.Number, n.DueOn is { } d && !(week?.Days.Contains(d) ?? false), n.DueOn < premises.Clock.Today,
            n is { DueOn: { } on, LateDays: { } late } ? on.PlusDays(late) : null,
            n.DueOn is { } due ? [.. AssignmentStore.DueFor(c, [.. to.Select(m => m.PersonId)], WeekOf(due), WeekOf(due).PlusDays(6)).Where(a => a.ClassId != id || a.Title != n.Title?.Trim())
                .Select(a => new AlsoDue(a.ClassId, a.ClassName, a.Title, a.DueOn, a.Students))] : [],
            [.. InStep.Others(c, who, id, n).Select(o => o.View)]);

        LocalDate WeekOf(LocalDate x) => x.DayOfWeek == year.FirstWeekday ? x : x.Previous(year.FirstWeekday);
    });
}
