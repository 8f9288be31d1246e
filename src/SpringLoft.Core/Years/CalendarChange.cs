namespace SpringLoft.Core.Years;

/// <summary>A school week whose number, letter or days a change of the calendar moves.</summary>
/// <param name="Was">Number and label before; null for a week that is new.</param>
/// <param name="Will">Number and label after; null for a week that is gone.</param>
public sealed record WeekMove(LocalDate Starts, WeekLabel? Was, WeekLabel? Will);

/// <summary>How a school week is called and told.</summary>
public sealed record WeekLabel(int Number, string? Letter, LocalDate First, LocalDate Last);

/// <summary>A date that something hangs on: an assignment that is due, in a class.</summary>
public sealed record HangingDate(ClassId Class, string What, LocalDate On);

/// <summary>A date that no longer falls on a school day.</summary>
/// <param name="Why">The day off or “outside the terms”.</param>
public sealed record StrandedDate(ClassId Class, string What, LocalDate On, string Why);

/// <summary>What a change of a calendar does. Weeks are told by the calendar week in which they lie.</summary>
/// <param name="SchoolDaysBefore">In the whole year.</param>
/// <param name="Stranded">Dates on which there was school before and there is none any more.</param>
public sealed record CalendarEffects(
    int WeeksBefore, int WeeksAfter, int SchoolDaysBefore, int SchoolDaysAfter, IReadOnlyList<WeekMove> Weeks, IReadOnlyList<StrandedDate> Stranded);

/// <summary>Compares a calendar with what it is to become.</summary>
public static class CalendarChange
{
    /// <summary>What the change does to school weeks and to dates.</summary>
    /// <param name="before">Null for a year that is new.</param>
    public static CalendarEffects Effects(SchoolYear? before, SchoolYear after, IEnumerable<HangingDate> dates)
    {
        var was = before is null ? [] : SchoolWeeks.Of(before);
        var will = SchoolWeeks.Of(after);
        var old = was.ToDictionary(w => w.Starts);
        var next = will.ToDictionary(w => w.Starts);
        var moves = old.Keys.Union(next.Keys).Order()
            .Select(start => new WeekMove(start, Label(old.GetValueOrDefault(start)), Label(next.GetValueOrDefault(start))))
            .Where(m => m.Was != m.Will).ToList();
        var stranded = dates.Where(d => before is not null && SchoolWeeks.IsSchoolDay(before, d.On) && !SchoolWeeks.IsSchoolDay(after, d.On))
            .Select(d => new StrandedDate(d.Class, d.What, d.On, WhyNoSchool(after, d.On))).ToList();
        return new(was.Count, will.Count, was.Sum(w => w.Days.Count), will.Sum(w => w.Days.Count), moves, stranded);
    }

    /// <summary>Why there is no school on a day, in words.</summary>
    public static string WhyNoSchool(SchoolYear year, LocalDate day)
    {
        if (year.DaysOff.FirstOrDefault(d => d.First <= day && day <= d.Last) is { } off) return off.Name;
        return year.Terms.Any(t => t.First <= day && day <= t.Last) ? "not a weekday that the school keeps" : "outside the terms";
    }

    /// <summary>
    /// The same calendar a year on: terms and days off moved by 52 weeks, so that each keeps its weekday. A first draft,
    /// to be put right by hand where holidays fall otherwise.
    /// </summary>
    public static SchoolYear YearOn(SchoolYear year, string label) => year with
    {
        Label = label,
        Terms = [.. year.Terms.Select(t => t with { First = t.First.PlusWeeks(52), Last = t.Last.PlusWeeks(52) })],
        DaysOff = [.. year.DaysOff.Select(d => d with { First = d.First.PlusWeeks(52), Last = d.Last.PlusWeeks(52) })],
    };

    private static WeekLabel? Label(SchoolWeek? w) => w is null ? null : new(w.Number, w.Letter, w.Label.First, w.Label.Last);
}
