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

/// <summary>A grade when the new year began, and what it became.</summary>
/// <param name="To">Null for those who left the school.</param>
public sealed record GradeDone(string From, string? To, int Students);

/// <summary>What was done when the new year began, as it was then.</summary>
public sealed record BegunView(string By, int Verified, int SignedOff, IReadOnlyList<GradeDone> Grades);

/// <summary>Where the school stands between two years.</summary>
/// <param name="Open">True if the new year may begin.</param>
/// <param name="BegunAt">When it was begun; null if it was not.</param>
/// <param name="Did">What was done then; null if it has not begun, or began before that was kept.</param>
/// <param name="NextClosed">Of its classes, how many are in preparation still.</param>
/// <param name="FeedSet">Does the roster feed bring the new year?</param>
/// <param name="Grades">What beginning does to each grade; none once it has begun: nobody goes up twice.</param>
/// <param name="Entrants">Active students in no class of the old year.</param>
public sealed record GateView(
    YearId Old, string OldLabel, YearId? New, string? NewLabel, int Classes, int Verified, int SignedOff, IReadOnlyList<UnresolvedClass> Missing, IReadOnlyList<UnresolvedClass> Exceptions, bool Open, Instant? BegunAt,
    BegunView? Did, IReadOnlyList<GradeStep> Grades, int Entrants, int NextClasses, int NextClosed, bool FeedSet);

/// <summary>The gate between two school years: it opens when every class of the old one is verified or signed off by name.</summary>
public sealed class NewYearGate(Premises premises)
{
    /// <summary>What is missing before the new year may begin.</summary>
    /// <param name="asked">The old year; null for the one that is ending.</param>
    public GateView See(YearId? asked) => premises.Db.Read(c => See(c, asked));

    /// <summary>Signs classes off by name with one reason, all of them or none; null takes it back.</summary>
    public void SignOff(Caller by, IReadOnlyList<ClassId> ids, string? reason)
    {
        ClassGate.Demand(by, Act.LayDownYear);
        var text = reason is null ? null : Refusals.Needed(reason, "reason", "The reason", 500);
        if (ids.Count == 0) throw new RefusedException("missing", "No class is named.", "Tick the classes first.", "classes");
        premises.Db.Write(c =>
        {
            var archives = RunStore.Archives(c);
            foreach (var id in ids.Distinct())
            {
                var k = ClassStore.Find(c, id) ?? throw Refusals.NotFound("class of that year");
                if (text is not null && IsVerified(k, archives)) throw new RefusedException("class-archived", $"“{k.Name}” is verified and in the loft: there is nothing to sign off.", "Look at what is missing.");
                SignOffStore.Set(c, id, by.Id, text, premises.Clock.Now);
                Premises.Add(c, by, premises.Clock.Now, new(text is null ? "took back sign-off" : "signed off", "class", id.Value, id, text ?? k.Name));
            }
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
        var grades = seen.Grades.Select(g => g.From).ToList();
        var up = new List<(PersonRow Person, string? Grade, bool Stays)>();
        if (goUp)
            foreach (var p in PersonStore.Students(c, int.MaxValue).Where(p => p.Active))
            {
                var step = GoingUp.Next(p.Grade, grades);
                if (step.Leaves && !leaversLeave) continue;
                if (step.Leaves || step.Grade != p.Grade) up.Add((p, step.Leaves ? p.Grade : step.Grade, !step.Leaves));
            }
        PersonStore.SetGrades(c, [.. up.Select(u => (u.Person.Id, u.Grade, u.Stays))]);
        YearStore.SetBegun(c, next, now, by.Id, new()
        {
            Verified = seen.Verified,
            SignedOff = seen.SignedOff,
            Grades = [.. up.GroupBy(u => (u.Person.Grade, Then: u.Stays ? u.Grade : null)).OrderBy(g => grades.IndexOf(g.Key.Grade!)).Select(g => new GradeBegun { From = g.Key.Grade!, To = g.Key.Then, Students = g.Count() })],
        });
        Premises.Add(c, by, now, new("began school year", "year", next.Value, null, $"{seen.NewLabel}: {seen.Verified} classes of {seen.OldLabel} verified, {seen.SignedOff} signed off; {up.Count(u => u.Stays)} students up a grade, {up.Count(u => !u.Stays)} leave"));
        return See(c, old);
    });

    /// <summary>The refusal of a feed into a year that has not begun, because the year before is not resolved; null if nothing is in its way.</summary>
    internal static RefusedException? NotBegun(IDbConnection c, YearId year, IReadOnlyList<YearRow> years)
    {
        var asked = years.First(x => x.Id == year).Year;
        if (years.LastOrDefault(y => y.Year.Last < asked.First) is not { } before || YearStore.BegunAt(c, year) is not null) return null;
        var classes = ClassStore.OfYear(c, before.Id);
        // The first year that the program sees, or one that was resolved before there was a gate.
        if (classes.All(k => k.State == ClassState.Archived)) return null;
        var archives = RunStore.Archives(c);
        var off = SignOffStore.OfYear(c, before.Id).Select(s => s.ClassId).ToHashSet();
        var missing = classes.Count(k => !IsVerified(k, archives) && !off.Contains(k.Id));
        return new RefusedException("gate-shut", $"School year {asked.Label} has not begun: {(missing switch { 0 => $"every class of {before.Year.Label} is resolved, but nobody has begun it", 1 => $"1 class of {before.Year.Label} is", _ => $"{missing} classes of {before.Year.Label} are" })}{(missing > 0 ? " neither verified nor signed off" : "")}.",
            missing > 0 ? "Open the gate at the closing desk first." : "Begin it at the gate first.", "year");
    }

    private static bool IsVerified(ClassRow k, IReadOnlyDictionary<ClassId, PackageRow> archives) => k.State == ClassState.Archived && archives.ContainsKey(k.Id);

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
        bool Verified(ClassRow k) => IsVerified(k, archives);
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
        var coming = next is null ? [] : ClassStore.OfYear(c, next.Id);
        return new(old.Id, old.Year.Label, next?.Id, next?.Year.Label, classes.Count, classes.Count(Verified), open.Count - missing.Count, missing, [.. open.Where(u => u.Reason is not null)], missing.Count == 0 && next is not null,
            begun, next is not null && YearStore.WhatBegan(c, next.Id) is { } b ? new(b.By, b.Verified, b.SignedOff, [.. b.Grades.Select(g => new GradeDone(g.From, g.To, g.Students))]) : null, begun is null ? steps : [], students.Count(p => !enrolled.Contains(p.Id)),
            coming.Count, coming.Count(k => k.State == ClassState.InPreparation), next is not null && FeedStore.Get(c)?.YearId == next.Id);
    }
}
