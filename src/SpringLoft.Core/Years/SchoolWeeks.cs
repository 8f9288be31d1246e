using System.Runtime.CompilerServices;

namespace SpringLoft.Core.Years;

/// <summary>A calendar week with at least one school day in it.</summary>
/// <param name="Number">1 and up; through the year or within its term.</param>
/// <param name="Ordinal">1 and up through the year, whatever the numbering.</param>
/// <param name="Term">The term that its first school day lies in.</param>
/// <param name="Starts">The first calendar day of the week, school day or not.</param>
/// <param name="Days">Its school days in order, one at the least.</param>
/// <param name="Letter">"A" or "B" of a two-week timetable; null without one.</param>
public sealed record SchoolWeek(int Number, int Ordinal, Term Term, LocalDate Starts, IReadOnlyList<LocalDate> Days, string? Letter = null)
{
    /// <summary>First and last school day, which label the week.</summary>
    public (LocalDate First, LocalDate Last) Label => (Days[0], Days[^1]);
}

/// <summary>Computes school days and school weeks from a calendar. Source: docs/rules.md, "School weeks".</summary>
public static class SchoolWeeks
{
    /// <summary>Is this a weekday the school keeps, inside a term, on no day off?</summary>
    public static bool IsSchoolDay(SchoolYear year, LocalDate day) =>
        year.SchoolWeekdays.Contains(day.DayOfWeek)
        && year.Terms.Any(t => t.First <= day && day <= t.Last)
        && !year.DaysOff.Any(d => d.First <= day && day <= d.Last);

    /// <summary>Every school week of the year in order; empty if the calendar has no school day.</summary>
    public static IReadOnlyList<SchoolWeek> Of(SchoolYear year) => Known.GetValue(year, Count);

    // A calendar does not change once it is made, and hundreds of classes ask for the weeks of the same one.
    private static readonly ConditionalWeakTable<SchoolYear, IReadOnlyList<SchoolWeek>> Known = [];

    private static List<SchoolWeek> Count(SchoolYear year)
    {
        var weeks = new List<SchoolWeek>();
        if (year.Terms.Count == 0) return weeks;
        var number = 0;
        Term? last = null;
        var turn = 0;
        LocalDate? before = null;
        for (var start = StartOfWeek(year.First, year.FirstWeekday); start <= year.Last; start = start.PlusWeeks(1))
        {
            var days = Enumerable.Range(0, 7).Select(start.PlusDays).Where(d => IsSchoolDay(year, d)).ToList();
            if (days.Count == 0) continue;
            var term = year.Terms.First(t => t.First <= days[0] && days[0] <= t.Last);
            number = year.Numbering == WeekNumbering.PerTerm && term != last ? 1 : number + 1;
            last = term;
            // A holiday is a calendar week without a school day since the last one that had any.
            if (year.Letters == WeekLetters.AnewAfterHoliday && before is { } b && b.PlusWeeks(1) < start) turn = 0;
            before = start;
            var letter = year.Letters == WeekLetters.None ? null : turn++ % 2 == 0 ? "A" : "B";
            weeks.Add(new SchoolWeek(number, weeks.Count + 1, term, start, days, letter));
        }
        return weeks;
    }

    /// <summary>The calendar day on which the week of <paramref name="day"/> starts.</summary>
    public static LocalDate StartOfWeek(LocalDate day, IsoDayOfWeek firstWeekday)
    {
        var back = ((int)day.DayOfWeek - (int)firstWeekday + 7) % 7;
        return day.PlusDays(-back);
    }

    /// <summary>School days from <paramref name="today"/> (counted in) to the last of the year; 0 when it is over.</summary>
    public static int DaysLeft(SchoolYear year, LocalDate today)
    {
        var from = today < year.First ? year.First : today;
        var n = 0;
        for (var d = from; d <= year.Last; d = d.PlusDays(1)) if (IsSchoolDay(year, d)) n++;
        return n;
    }
}
