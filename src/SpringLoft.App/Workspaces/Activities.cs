using System.Collections.Concurrent;
using SpringLoft.App.Assignments;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.School;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Workspaces;

/// <summary>A school day of the period.</summary>
/// <param name="Week">Number of its school week.</param>
public sealed record ActivityDay(LocalDate Day, int Week);

/// <summary>What a student did over the period.</summary>
/// <param name="Did">For each of its school days, bits: 1 opened the class, 2 opened a thing, 4 wrote, 8 handed in.</param>
/// <param name="DaysHere">On how many of those days they did anything.</param>
/// <param name="Due">How many assignments of theirs were due within the period, to today.</param>
/// <param name="In">How many of those have come in.</param>
/// <param name="LastHere">The last day on which they did anything at all, also before the period; null for none that is kept.</param>
public sealed record ActivityRow(PersonId Student, string SortName, IReadOnlyList<int> Did, int DaysHere, int Due, int In, LocalDate? LastHere, bool Quiet);

/// <summary>When work for an assignment came in, against its day.</summary>
/// <param name="Came">For each piece that came, the day and by how many minutes it was late; null in time.</param>
public sealed record ActivityAssignment(AssignmentId Id, string Title, LocalDate DueOn, IReadOnlyList<ActivityCame> Came, int InTime, int Late, int NotYet);

/// <summary>A piece that came in.</summary>
public sealed record ActivityCame(LocalDate Day, int? LateMinutes);

/// <summary>Who was there and did what.</summary>
/// <param name="Kept">False where the school keeps none.</param>
/// <param name="Weeks">School weeks of the class's year, in all.</param>
public sealed record ActivityView(bool Kept, int KeptDays, int Weeks, int? ThisWeek, int FromWeek, int ToWeek, IReadOnlyList<ActivityDay> Days, IReadOnlyList<ActivityRow> Students, IReadOnlyList<ActivityAssignment> Assignments);

/// <summary>Who opened, wrote and handed in, by school day: for staff of the class only.</summary>
public sealed class Activities(Premises premises)
{
    /// <summary>How many school weeks are shown where none are asked for.</summary>
    private const int Shown = 5;

    // What was noted on a day is not noted again; a look costs no writing.
    private readonly ConcurrentDictionary<(PersonId, ClassId, LocalDate, Did), byte> noted = new();

    /// <summary>The students of a class over some school weeks.</summary>
    /// <param name="from">Number of the first school week, counted through the year; null for the last five.</param>
    public ActivityView See(Caller who, ClassId id, int? from, int? to) => premises.Db.Read(c =>
    {
        var at = ClassGate.Demand(c, who, id, Act.SeeActivity);
        var weeks = SchoolWeeks.Of(YearStore.All(c).First(y => y.Id == at.Class.YearId).Year);
        var today = premises.Clock.Today;
        var now = weeks.Count(w => w.Starts <= today);
        var last = Math.Clamp(to ?? now, Math.Min(1, weeks.Count), weeks.Count);
        var first = Math.Clamp(from ?? last - Shown + 1, Math.Min(1, weeks.Count), Math.Max(last, Math.Min(1, weeks.Count)));
        var period = weeks.Count == 0 ? [] : weeks.Skip(first - 1).Take(last - first + 1).SelectMany((w, n) => w.Days.Select(d => new ActivityDay(d, first + n))).Where(d => d.Day <= today).ToList();
        var kept = RulesStore.Get(c).Rules.KeepsActivity;
        int? thisWeek = now > 0 && now <= weeks.Count ? now : null;
        if (!kept || period.Count == 0) return new ActivityView(kept, Activity.KeptDays, weeks.Count, thisWeek, first, last, period, [], []);
        return new ActivityView(kept, Activity.KeptDays, weeks.Count, thisWeek, first, last, period, Rows(c, id, period), Assignments(c, id, period));
    });

    /// <summary>Notes that a student has opened the class or a thing in it; the first time of a day is written.</summary>
    public void Opened(Caller who, ClassId id, Did did)
    {
        var key = (who.Id, id, premises.Clock.Today, did);
        if (noted.ContainsKey(key)) return;
        premises.Db.Read(c => ClassGate.Demand(c, who, id, Act.SeeClass));
        if (who.Role != SchoolRole.Student) return;
        premises.Db.Write(c => Note(c, premises, who, id, did));
        if (noted.Count > 50_000) noted.Clear();
        noted[key] = 0;
    }

    /// <summary>Notes what a student does, in the transaction in which they do it.</summary>
    internal static void Note(IDbConnection c, Premises premises, Caller who, ClassId id, Did did)
    {
        if (who.Role == SchoolRole.Student && RulesStore.Get(c).Rules.KeepsActivity && RosterStore.Member(c, id, who.Id) is { Role: ClassRole.Student, LeftAt: null })
            ActivityStore.Note(c, id, who.Id, premises.Clock.Today, did);
    }

    /// <summary>Who of a class has gone quiet, by name; nobody where the school keeps no activity.</summary>
    internal static IReadOnlyList<string> Quiet(IDbConnection c, Premises premises, ClassId id, IReadOnlyList<LocalDate> daysOfSchool)
    {
        // So long ago nobody has to look: whoever was quiet then and not since, is seen in the days since.
        var days = daysOfSchool.Where(d => d <= premises.Clock.Today).TakeLast(Activity.QuietDays * 2).ToList();
        if (days.Count == 0 || !RulesStore.Get(c).Rules.KeepsActivity) return [];
        var did = ActivityStore.OfClass(c, id, days[0], days[^1]);
        return [.. ScoreScope.Students(c, id).Where(m => Activity.IsQuiet(days, did[m.PersonId].ToDictionary(x => x.Day, x => x.Did), premises.Clock.LocalOf(m.Since).Date)).Select(m => m.Name.Display)];
    }

    private List<ActivityRow> Rows(IDbConnection c, ClassId id, List<ActivityDay> period)
    {
        List<LocalDate> days = [.. period.Select(d => d.Day)];
        var did = ActivityStore.OfClass(c, id, days[0], days[^1]);
        var lastDays = ActivityStore.LastDays(c, id);
        var given = AssignmentStore.GivenTo(c, id);
        var due = AssignmentStore.OfClass(c, id).Where(a => a.PublishedAt is not null && a.DueOn >= days[0] && a.DueOn <= days[^1]).ToList();
        var came = WorkStore.OfClass(c, id).Where(w => w.State != WorkState.Working).Select(w => (w.AssignmentId, w.StudentId)).ToHashSet();
        return [.. ScoreScope.Students(c, id).Select(m =>
        {
            var own = did[m.PersonId].ToDictionary(x => x.Day, x => x.Did);
            var mine = due.Where(a => !given[a.Id].Any() || given[a.Id].Contains(m.PersonId)).ToList();
            return new ActivityRow(m.PersonId, m.Name.Sort, [.. days.Select(d => (int)own.GetValueOrDefault(d))], days.Count(d => own.GetValueOrDefault(d) != Did.None), mine.Count, mine.Count(a => came.Contains((a.Id, m.PersonId))),
                lastDays.TryGetValue(m.PersonId, out var last) ? last : null, Activity.IsQuiet(days, own, premises.Clock.LocalOf(m.Since).Date));
        })];
    }

    private List<ActivityAssignment> Assignments(IDbConnection c, ClassId id, List<ActivityDay> period)
    {
        var given = AssignmentStore.GivenTo(c, id);
        var firstIn = WorkStore.FirstIn(c, id);
        var here = ScoreScope.Students(c, id).Select(m => m.PersonId).ToHashSet();
        var work = WorkStore.OfClass(c, id).Where(w => w.State != WorkState.Working && here.Contains(w.StudentId)).ToLookup(w => w.AssignmentId);
        return [.. AssignmentStore.OfClass(c, id).Where(a => a.PublishedAt is not null && a.DueOn >= period[0].Day && a.DueOn <= period[^1].Day.PlusDays(6)).Select(a =>
        {
            var came = work[a.Id].Where(w => firstIn.ContainsKey(w.Id)).Select(w => new ActivityCame(premises.Clock.LocalOf(firstIn[w.Id]).Date, Lateness.Of(a.Due, w, firstIn, premises.Clock.Zone))).OrderBy(x => x.Day).ToList();
            var of = given[a.Id].Any() ? given[a.Id].Count(here.Contains) : here.Count;
            return new ActivityAssignment(a.Id, a.Title, a.DueOn!.Value, came, came.Count(x => x.LateMinutes is null), came.Count(x => x.LateMinutes is not null), Math.Max(0, of - work[a.Id].Count()));
        })];
    }
}
