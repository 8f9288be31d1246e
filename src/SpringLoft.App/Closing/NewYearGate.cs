using System.Globalization;
using System.Text.Json;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Closing;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Closing;

/// <summary>A class of the old year that is not resolved, or was signed off.</summary>
/// <param name="Why">What keeps it.</param>
public sealed record UnresolvedClass(ClassId Id, string Name, string Lead, string Why, string? SignedOffBy, string? Reason, Instant? SignedOffAt);

/// <summary>What going up a grade does.</summary>
/// <param name="Leavers">Students of the highest grade, by name.</param>
public sealed record GradeStep(string From, string? To, int Students, IReadOnlyList<string> Leavers);

/// <summary>Where the school stands between two years.</summary>
/// <param name="Open">True if the new year may begin.</param>
/// <param name="BegunAt">When it was begun; null if it was not.</param>
/// <param name="Grades">What beginning does to each grade; none once it has begun: nobody goes up twice.</param>
/// <param name="Entrants">Active students in no class of the old year.</param>
public sealed record GateView(
    YearId Old, string OldLabel, YearId? New, string? NewLabel, int Classes, int Verified, int SignedOff, IReadOnlyList<UnresolvedClass> Missing, IReadOnlyList<UnresolvedClass> Exceptions, bool Open, Instant? BegunAt,
    IReadOnlyList<GradeStep> Grades, int Entrants, int NextClasses);

/// <summary>The gate between two school years: it opens when every class of the old one is verified or signed off by name.</summary>
public sealed class NewYearGate(Premises premises)
{
    /// <summary>What is missing before the new year may begin.</summary>
    /// <param name="asked">The old year; null for the one that is ending.</param>
    public GateView See(YearId? asked) => premises.Db.Read(c => See(c, asked));

    /// <summary>Signs a class off by name with a reason; null takes it back.</summary>
    public void SignOff(Caller by, ClassId id, string? reason)
    {
        ClassGate.Demand(by, Act.LayDownYear);
        var text = reason is null ? null : Refusals.Needed(reason, "reason", "The reason", 500);
        premises.Db.Write(c =>
        {
            var k = ClassStore.Find(c, id) ?? throw Refusals.NotFound("class of that year");
            if (text is not null && k.State == ClassState.Archived && RunStore.Archives(c).ContainsKey(id)) throw new RefusedException("class-archived", $"“{k.Name}” is verified and in the loft: there is nothing to sign off.", "Look at what is missing.");
            SignOffStore.Set(c, id, by.Id, text, premises.Clock.Now);
            Premises.Add(c, by, premises.Clock.Now, new(text is null ? "took back sign-off" : "signed off", "class", id.Value, id, text ?? k.Name));
        });
    }

    /// <summary>Begins the new year: students go up a grade, and the roster feed may be given its new dates.</summary>
    /// <param name="goUp">Do students go up a grade?</param>
    /// <param name="leaversLeave">Do those of the highest grade become inactive?</param>
    /// <exception cref="RefusedException"><c>gate-shut</c>, listing what is missing; <c>year-none</c>; <c>year-begun</c>.</exception>
    public GateView Begin(Caller by, YearId old, bool goUp, bool leaversLeave) => premises.Db.Write(c =>
    {
        ClassGate.Demand(by, Act.LayDownYear);
        var seen = See(c, old);
        if (seen.New is not { } next) throw new RefusedException("year-none", $"There is no school year after {seen.OldLabel} yet.", "Lay down next year's terms first.", "year");
        if (seen.BegunAt is not null) throw new RefusedException("year-begun", $"School year {seen.NewLabel} has begun already.", "Nothing to do.");
        if (!seen.Open) throw new RefusedException("gate-shut", $"{seen.Missing.Count} {(seen.Missing.Count == 1 ? "class" : "classes")} of {seen.OldLabel} {(seen.Missing.Count == 1 ? "is" : "are")} neither verified nor signed off: {string.Join(", ", seen.Missing.Take(5).Select(m => m.Name))}{(seen.Missing.Count > 5 ? "…" : "")}.", "Close them, or sign each off with a reason.");
        var now = premises.Clock.Now;
        var up = new List<(PersonId, string?, bool)>();
        if (goUp)
            foreach (var p in PersonStore.Students(c, int.MaxValue).Where(p => p.Active))
            {
                var step = GoingUp.Next(p.Grade, [.. seen.Grades.Select(g => g.From)]);
                if (step.Leaves && !leaversLeave) continue;
                if (step.Leaves || step.Grade != p.Grade) up.Add((p.Id, step.Leaves ? p.Grade : step.Grade, !step.Leaves));
            }
        PersonStore.SetGrades(c, up);
        YearStore.SetBegun(c, next, now);
        Premises.Add(c, by, now, new("began school year", "year", next.Value, null, $"{seen.NewLabel}: {seen.Verified} classes of {seen.OldLabel} verified, {seen.SignedOff} signed off; {up.Count(u => u.Item3)} students up a grade, {up.Count(u => !u.Item3)} leave"));
        return See(c, old);
    });

    /// <summary>Throws unless the year before is resolved: a feed may not run into a year that has not begun.</summary>
    internal static void CheckBegun(IDbConnection c, YearId year)
    {
        var years = YearStore.All(c);
        var before = years.LastOrDefault(y => y.Year.Last < years.First(x => x.Id == year).Year.First);
        if (before is null || ClassStore.OfYear(c, before.Id).Count == 0 || YearStore.BegunAt(c, year) is not null) return;
        // The first year that the program sees, or one that was resolved before there was a gate.
        if (ClassStore.OfYear(c, before.Id).All(k => k.State == ClassState.Archived)) return;
        throw new RefusedException("gate-shut", $"School year {years.First(x => x.Id == year).Year.Label} has not begun: classes of {before.Year.Label} are not resolved yet.", "Open the gate at the closing desk first.", "year");
    }

    private GateView See(IDbConnection c, YearId? asked)
    {
        var years = YearStore.All(c);
        var old = asked is { } id ? years.FirstOrDefault(y => y.Id == id) ?? throw Refusals.NotFound("school year") : years.LastOrDefault(y => y.Year.First <= premises.Clock.Today) ?? years[0];
        // Already inside a year that has begun, or a gap after it: then the year before is the old one, as long as this one is not over.
        if (asked is null && premises.Clock.Today < old.Year.First.PlusWeeks(2) && years.LastOrDefault(y => y.Year.Last < old.Year.First) is { } before && ClassStore.OfYear(c, before.Id).Count > 0) old = before;
        var next = years.FirstOrDefault(y => y.Year.First > old.Year.Last);
        var classes = ClassStore.OfYear(c, old.Id);
        var archives = RunStore.Archives(c);
        var staff = StaffStore.Of(c, old.Id);
        var off = SignOffStore.OfYear(c, old.Id).ToDictionary(s => s.ClassId);
        var counts = ClosingStore.Counts(c, old.Id, premises.Clock.Today, premises.Clock.Now);
        bool Verified(ClassRow k) => k.State == ClassState.Archived && archives.ContainsKey(k.Id);
        UnresolvedClass Told(ClassRow k)
        {
            var s = off.GetValueOrDefault(k.Id);
            var blocks = Readiness.Assess(counts[k.Id].Facts(k.State)).Where(f => f.Level == FindingLevel.Blocks && f.Code != "archived").Select(f => f.Text).ToList();
            return new(k.Id, k.Name, staff.Lead(k.Id), k.State == ClassState.Archived ? "archived without a verified package" : blocks.Count > 0 ? string.Join(" ", blocks) : "ready, but not closed", s?.By, s?.Reason, s?.At);
        }
        var open = classes.Where(k => !Verified(k)).Select(Told).ToList();
        var missing = open.Where(u => u.Reason is null).ToList();
        var students = PersonStore.Students(c, int.MaxValue).Where(p => p.Active).ToList();
        var grades = students.Select(p => p.Grade).OfType<string>().Distinct().OrderBy(g => int.TryParse(g, CultureInfo.InvariantCulture, out var n) ? n : int.MaxValue).ThenBy(g => g, StringComparer.Ordinal).ToList();
        var enrolled = RosterStore.StudentsOf(c, old.Id);
        var steps = grades.Select(g =>
        {
            var step = GoingUp.Next(g, grades);
            var there = students.Where(p => p.Grade == g).ToList();
            return new GradeStep(g, step.Leaves ? null : step.Grade, there.Count, step.Leaves ? [.. there.Select(p => p.Name.Sort)] : []);
        }).ToList();
        var begun = next is null ? null : YearStore.BegunAt(c, next.Id);
        return new(old.Id, old.Year.Label, next?.Id, next?.Year.Label, classes.Count, classes.Count(Verified), open.Count - missing.Count, missing, [.. open.Where(u => u.Reason is not null)], missing.Count == 0 && next is not null,
            begun, begun is null ? steps : [], students.Count(p => !enrolled.Contains(p.Id)), next is null ? 0 : ClassStore.OfYear(c, next.Id).Count);
    }
}
