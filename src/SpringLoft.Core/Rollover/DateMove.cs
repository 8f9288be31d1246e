using SpringLoft.Core.Years;

namespace SpringLoft.Core.Rollover;

/// <summary>Where a date goes in another school year, and why there.</summary>
/// <param name="Flagged">True if a person should look: the week or the day had to give way.</param>
public sealed record MovedDate(LocalDate Was, LocalDate Will, string Why, bool Flagged);

/// <summary>
/// Moves dates from one school year to another: the school week's number and the weekday stay; if that day is off, the
/// next school day of that week, else the one before; if the new year is shorter, its last week. Source: docs/rules.md,
/// "School weeks".
/// </summary>
public sealed class DateMove
{
    private readonly IReadOnlyList<SchoolWeek> from;
    private readonly IReadOnlyList<SchoolWeek> to;
    private readonly SchoolYear source;
    private readonly SchoolYear target;

    /// <param name="source">The year that dates are moved out of.</param>
    /// <param name="target">The year that they are moved into; one school day at the least.</param>
    /// <exception cref="ArgumentException">A year without a school day.</exception>
    public DateMove(SchoolYear source, SchoolYear target)
    {
        (this.source, this.target) = (source, target);
        from = SchoolWeeks.Of(source);
        to = SchoolWeeks.Of(target);
        if (from.Count == 0 || to.Count == 0) throw new ArgumentException("A school year without a school day has no weeks to move dates by.");
    }

    /// <summary>Moves one date.</summary>
    public MovedDate Move(LocalDate day)
    {
        var week = from.LastOrDefault(w => w.Starts <= day);
        // A date outside the school weeks hangs on the one before it, or on the first.
        var loose = week is null || day >= week.Starts.PlusWeeks(1);
        week ??= from[0];
        var (next, shorter) = Same(week);
        var same = next.Days.FirstOrDefault(d => d.DayOfWeek == day.DayOfWeek);
        var wanted = Enumerable.Range(0, 7).Select(next.Starts.PlusDays).First(d => d.DayOfWeek == day.DayOfWeek);
        var will = same != default ? same : next.Days.Any(d => d > wanted) ? next.Days.First(d => d > wanted) : next.Days[^1];
        var called = $"school week {Name(week, source)}, {day.DayOfWeek}";
        var why = loose ? $"outside the school weeks; school week {Name(week, source)} is the nearest"
            : shorter ? $"{called}; the new year has no such week, so its last"
            : will.DayOfWeek == day.DayOfWeek ? called
            : $"{called} is off ({CalendarChange.WhyNoSchool(target, wanted)}), so {will.DayOfWeek}";
        return new(day, will, why, loose || shorter || will.DayOfWeek != day.DayOfWeek);
    }

    // By number in its term where weeks are numbered so; else through the year.
    private (SchoolWeek Week, bool Shorter) Same(SchoolWeek week)
    {
        if (source.Numbering != WeekNumbering.PerTerm || target.Numbering != WeekNumbering.PerTerm)
            return week.Ordinal <= to.Count ? (to[week.Ordinal - 1], false) : (to[^1], true);
        var term = Enumerable.Range(0, source.Terms.Count).First(i => source.Terms[i] == week.Term);
        if (term >= target.Terms.Count) return (to[^1], true);
        var there = to.Where(w => w.Term == target.Terms[term]).ToList();
        if (there.Count == 0) return (to[^1], true);
        return week.Number <= there.Count ? (there[week.Number - 1], false) : (there[^1], true);
    }

    private static string Name(SchoolWeek w, SchoolYear year) => year.Numbering == WeekNumbering.PerTerm ? $"{w.Number} of {w.Term.Name}" : $"{w.Number}";
}
