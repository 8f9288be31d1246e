using SpringLoft.App.Plans;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Years;
using SpringLoft.Formats.Calendars;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Plans;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Years;

/// <summary>A term as it is laid down.</summary>
/// <param name="Id">The term it was; null for a new one.</param>
public sealed record TermDraft(TermId? Id, string? Name, LocalDate First, LocalDate Last);

/// <summary>Days off as they are laid down.</summary>
public sealed record DayOffDraft(string? Name, LocalDate First, LocalDate Last);

/// <summary>A calendar as it is laid down.</summary>
public sealed record YearDraft(
    string? Label, IReadOnlyList<TermDraft>? Terms, IReadOnlyList<DayOffDraft>? DaysOff, IReadOnlyList<IsoDayOfWeek>? SchoolWeekdays,
    IsoDayOfWeek FirstWeekday, WeekNumbering Numbering, WeekLetters Letters);

/// <summary>A calendar with its key and version.</summary>
public sealed record YearSheet(YearId Id, int Version, YearDraft Calendar, int Classes);

/// <summary>What a change does to the week folders of the classes that follow one plan.</summary>
/// <param name="Adds">Folders that the plan would add for new weeks, over all these classes.</param>
/// <param name="Stay">Folders for weeks that are gone: they stay where they are.</param>
/// <param name="Renames">Folders whose name says a week or a day that has moved.</param>
public sealed record FolderEffect(string Plan, int Classes, int Adds, int Stay, int Renames);

/// <summary>What a calendar would do: what stands against it, or what it changes.</summary>
/// <param name="Feeds">Class calendars that people subscribe to and that will show other days.</param>
public sealed record YearPreview(IReadOnlyList<Refusal> Refusals, CalendarEffects? Effects, IReadOnlyList<FolderEffect> Folders, int Feeds, IReadOnlyList<StripWeek> Weeks);

/// <summary>What a calendar file offers.</summary>
public sealed record CalendarOffer(IReadOnlyList<NamedDays> Days, IReadOnlyList<string> LeftOut);

/// <summary>Lays down school years: terms, days off, weeks; and says beforehand what a change does.</summary>
public sealed class YearDesk(Premises premises)
{
    /// <summary>All years as they are laid down, in order of time.</summary>
    public IReadOnlyList<YearSheet> See() => premises.Db.Read(c => YearStore.All(c).Select(y => new YearSheet(y.Id, y.Version, Draft(y), ClassStore.OfYear(c, y.Id).Count)).ToList());

    /// <summary>A first draft of the year after the last one.</summary>
    public YearDraft NextDraft() => premises.Db.Read(c =>
    {
        var last = YearStore.All(c)[^1];
        var start = last.Year.First.PlusWeeks(52).Year;
        var on = CalendarChange.YearOn(last.Year, StartingYears.Label(start));
        return Draft(new YearRow(default, on, [], 0));
    });

    /// <summary>What the calendar would do. Writes nothing.</summary>
    /// <param name="id">The year it would change; null for a new one.</param>
    public YearPreview Preview(YearId? id, YearDraft draft)
    {
        var year = Calendar(draft);
        if (CalendarCheck.Of(year) is { Count: > 0 } wrong) return new(wrong, null, [], 0, []);
        return premises.Db.Read(c =>
        {
            var before = id is { } k ? YearStore.All(c).FirstOrDefault(y => y.Id == k) ?? throw Refusals.NotFound("school year") : null;
            var classes = before is null ? [] : ClassStore.OfYear(c, before.Id);
            var dates = classes.SelectMany(k => AssignmentStore.OfClass(c, k.Id).Where(a => a.DueOn is not null).Select(a => new HangingDate(k.Id, $"{k.Name}: {a.Title}", a.DueOn!.Value)));
            return new YearPreview(Clashes(c, id, year), CalendarChange.Effects(before?.Year, year, dates), before is null ? [] : Folders(c, before, year, classes),
                before is null ? 0 : classes.Count(k => k is { HasCalendar: true, State: not Core.Workspaces.ClassState.Archived } && !SameDays(before, year, k)), YearLine.Strip(year));
        });
    }

    /// <summary>Adds a year.</summary>
    public YearId Add(Caller by, YearDraft draft)
    {
        var year = Calendar(draft);
        CalendarCheck.Demand(year);
        return premises.Db.Write(c =>
        {
            if (Clashes(c, null, year) is [var clash, ..]) throw new RefusedException(clash);
            var id = YearStore.Add(c, year);
            Premises.Add(c, by, premises.Clock.Now, new("laid down school year", "year", id.Value, null, year.Label));
            return id;
        });
    }

    /// <summary>
    /// Changes a year at the version that was seen. Each folder of a week or a day stays with its dates, whatever number the
    /// week has now, and folders for weeks that are new unfold by themselves. None is renamed: the plan is put again for that.
    /// </summary>
    public void Change(Caller by, YearId id, int version, YearDraft draft)
    {
        var year = Calendar(draft);
        CalendarCheck.Demand(year);
        premises.Db.Write(c =>
        {
            var before = YearStore.All(c).FirstOrDefault(y => y.Id == id) ?? throw Refusals.NotFound("school year");
            if (Clashes(c, id, year) is [var clash, ..]) throw new RefusedException(clash);
            var kept = draft.Terms!.OrderBy(t => t.First).Select(t => before.Terms.Any(b => b.Id == t.Id) ? t.Id : null).ToList();
            var gone = before.Terms.Select(t => t.Id).Where(t => !kept.Contains(t)).ToList();
            if (YearStore.ClassesOfTerms(c, gone) is { Count: > 0 } bound)
                throw new RefusedException("term-has-classes", $"{bound.Count} classes last for a term that would go, “{bound[0]}” first of all.", "Keep that term, or move its dates instead.", "terms");
            if (!YearStore.Change(c, id, version, year, kept)) throw Refusals.ChangedMeanwhile("calendar");
            var keys = new WeekKeys(before.Year, year);
            foreach (var k in ClassStore.OfYear(c, id).Where(k => k.PlanId is not null && k.State != Core.Workspaces.ClassState.Archived))
                FolderStore.Rekey(c, [.. FolderStore.WithBin(c, k.Id).Where(f => f.PlanKey is not null).Select(f => (f.Id, Was: f.PlanKey!, Key: keys.Move(f.PlanKey!))).Where(x => x.Was != x.Key).Select(x => (x.Id, x.Key))]);
            var now = premises.Clock.Now;
            foreach (var k in ClassStore.OfYear(c, id).Where(k => k.PlanId is not null && k.State != Core.Workspaces.ClassState.Archived))
                if (Plans.Settings.Unfold(c, k) is > 0 and var added)
                    Premises.Add(c, by, now, new("unfolded new weeks", "class", k.Id.Value, k.Id, $"{added} folders"));
            Premises.Add(c, by, now, new("changed school year", "year", id.Value, null, year.Label));
        });
    }

    /// <summary>Reads a calendar file and offers what is in it; nothing is written.</summary>
    /// <param name="id">The year whose stretch of time counts, with a month on both sides; null for the year after the last.</param>
    public CalendarOffer ReadFile(YearId? id, string text)
    {
        var years = premises.Db.Read(YearStore.All);
        var year = id is { } k ? (years.FirstOrDefault(y => y.Id == k) ?? throw Refusals.NotFound("school year")).Year : CalendarChange.YearOn(years[^1].Year, "next");
        try
        {
            var reading = CalendarFile.Read(text, year.First.PlusMonths(-1), year.Last.PlusMonths(1));
            return new(reading.Days, reading.LeftOut);
        }
        catch (CalendarFileException e)
        {
            throw new RefusedException("calendar-unreadable", $"This is no calendar file that can be read: {e.Message}", "Export it again as iCalendar (.ics) from the program it is kept in.", "file");
        }
    }

    /// <summary>The year's terms and days off as an iCalendar file.</summary>
    public (string Name, string Text) WriteFile(YearId id)
    {
        var (year, name) = premises.Db.Read(c => (YearStore.All(c).FirstOrDefault(y => y.Id == id) ?? throw Refusals.NotFound("school year"), Store.Naming.SchoolStore.Get(c)!.Name));
        var days = year.Year.Terms.Select(t => new NamedDays(t.Name, t.First, t.Last, CalendarFile.Term))
            .Concat(year.Year.DaysOff.Select(d => new NamedDays(d.Name, d.First, d.Last, CalendarFile.DayOff)));
        return ($"{year.Year.Label}.ics", CalendarFile.Write($"{name} {year.Year.Label}", days, premises.Clock.Now));
    }

    private static YearDraft Draft(YearRow y) => new(
        y.Year.Label, [.. y.Year.Terms.Select((t, i) => new TermDraft(i < y.Terms.Count ? y.Terms[i].Id : null, t.Name, t.First, t.Last))],
        [.. y.Year.DaysOff.Select(d => new DayOffDraft(d.Name, d.First, d.Last))], [.. y.Year.SchoolWeekdays.Order()], y.Year.FirstWeekday, y.Year.Numbering, y.Year.Letters);

    private static SchoolYear Calendar(YearDraft d) => new(d.Label?.Trim() ?? "",
        [.. (d.Terms ?? []).OrderBy(t => t.First).Select(t => new Term(t.Name?.Trim() ?? "", t.First, t.Last))],
        [.. (d.DaysOff ?? []).OrderBy(o => o.First).Select(o => new DayOff(string.IsNullOrWhiteSpace(o.Name) ? "Day off" : o.Name.Trim(), o.First, o.Last))],
        (d.SchoolWeekdays ?? []).Where(w => w != IsoDayOfWeek.None).ToHashSet(), d.FirstWeekday == IsoDayOfWeek.None ? IsoDayOfWeek.Monday : d.FirstWeekday, d.Numbering, d.Letters);

    private static List<Refusal> Clashes(IDbConnection c, YearId? id, SchoolYear year)
    {
        var wrong = new List<Refusal>();
        foreach (var other in YearStore.All(c).Where(y => y.Id != id))
        {
            if (string.Equals(other.Year.Label, year.Label, StringComparison.OrdinalIgnoreCase))
                wrong.Add(new("name-taken", $"There is already a school year “{other.Year.Label}”.", "Give this one another name.", "label"));
            if (other.Year.First <= year.Last && year.First <= other.Year.Last)
                wrong.Add(new("years-overlap", $"It overlaps with school year {other.Year.Label}, {other.Year.First:uuuu-MM-dd} to {other.Year.Last:uuuu-MM-dd}.", "Move its terms.", "terms"));
        }
        return wrong;
    }

    private static bool SameDays(YearRow before, SchoolYear after, ClassRow k)
    {
        var term = before.Terms.FirstOrDefault(t => t.Id == k.TermId)?.Name;
        return ClassCalendars.Days(before.Year, term).SequenceEqual(ClassCalendars.Days(after, term));
    }

    private static List<FolderEffect> Folders(IDbConnection c, YearRow before, SchoolYear after, IReadOnlyList<ClassRow> classes) => [.. classes
        .Where(k => k.PlanId is not null && k.State != Core.Workspaces.ClassState.Archived)
        .GroupBy(k => (k.PlanId, k.PlanVersion, k.TermId)).Select(g =>
        {
            if (PlanStore.Find(c, g.Key.PlanId!.Value, g.Key.PlanVersion) is not { } plan) return null;
            var term = before.Terms.FirstOrDefault(t => t.Id == g.Key.TermId)?.Name;
            var keys = new WeekKeys(before.Year, after);
            var was = Names(plan.Plan, SchoolWeeks.Of(before.Year), term).ToDictionary(x => keys.Move(x.Key), x => x.Value);
            var will = Names(plan.Plan, SchoolWeeks.Of(after), term);
            var n = g.Count();
            return new FolderEffect(plan.Plan.Name, n, will.Keys.Count(k => !was.ContainsKey(k)) * n, was.Keys.Count(k => !will.ContainsKey(k)) * n,
                was.Count(x => will.TryGetValue(x.Key, out var name) && name != x.Value) * n);
        }).OfType<FolderEffect>().Where(e => e.Adds + e.Stay + e.Renames > 0)];

    private static Dictionary<FolderKey, string> Names(FolderPlan plan, IReadOnlyList<SchoolWeek> weeks, string? term) =>
        PlanUnfolding.Unfold(plan, new([.. weeks.Where(w => term is null || w.Term.Name == term)], [])).ToDictionary(f => f.Key, f => f.Name);
}
