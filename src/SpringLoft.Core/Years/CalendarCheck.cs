namespace SpringLoft.Core.Years;

/// <summary>Says what is wrong with a calendar before anything is built on it.</summary>
public static class CalendarCheck
{
    /// <summary>Days that a school year may be long, from its first to its last: more is a slip of the pen.</summary>
    public const int MostDays = 500;

    /// <summary>Terms, and days off, that a year may have.</summary>
    public const int MostEntries = 200;

    /// <summary>All refusals, none if the calendar can be used.</summary>
    public static IReadOnlyList<Refusal> Of(SchoolYear year)
    {
        var wrong = new List<Refusal>();
        void No(string code, string what, string mend, string field) => wrong.Add(new(code, what, mend, field));

        if (string.IsNullOrWhiteSpace(year.Label)) No("year-no-label", "The school year has no name.", "Name it as people write it, “2027–28”.", "label");
        if (year.Label.Length > 20) No("too-long", $"The name of the year has {year.Label.Length} characters.", "Keep it to 20.", "label");
        if (year.SchoolWeekdays.Count == 0) No("year-no-weekdays", "The school keeps no weekday.", "Tick the weekdays on which there is school.", "schoolWeekdays");
        if (year.Terms.Count == 0) No("year-no-terms", $"School year {year.Label} has no terms.", "Add the first term with its first and last day.", "terms");
        if (year.Terms.Count > MostEntries || year.DaysOff.Count > MostEntries)
            No("too-many", $"School year {year.Label} has {Math.Max(year.Terms.Count, year.DaysOff.Count)} entries of a kind.", $"Keep it to {MostEntries}.", "daysOff");
        foreach (var t in year.Terms.Where(t => string.IsNullOrWhiteSpace(t.Name))) No("term-no-name", $"The term from {t.First:uuuu-MM-dd} has no name.", "Name it; folder plans use the name.", "terms");
        foreach (var same in year.Terms.GroupBy(t => t.Name.Trim(), StringComparer.OrdinalIgnoreCase).Where(g => g.Count() > 1))
            No("terms-same-name", $"Two terms are called “{same.Key}”.", "Give each its own name.", "terms");
        foreach (var t in year.Terms.Where(t => t.Last < t.First)) No("term-ends-before-start", $"Term “{t.Name}” ends before it starts.", "Swap or correct its two days.", "terms");
        foreach (var d in year.DaysOff.Where(d => d.Last < d.First)) No("day-off-ends-before-start", $"“{d.Name}” ends before it starts.", "Swap or correct its two days.", "daysOff");
        for (var i = 1; i < year.Terms.Count; i++)
            if (year.Terms[i].First <= year.Terms[i - 1].Last)
                No("terms-overlap", $"Terms “{year.Terms[i - 1].Name}” and “{year.Terms[i].Name}” overlap.", "Start the later one after the earlier one ends.", "terms");
        if (wrong.Count > 0) return wrong;
        if (Period.DaysBetween(year.First, year.Last) is var days and > MostDays)
            No("year-too-long", $"School year {year.Label} runs over {days} days, from {year.First:uuuu-MM-dd} to {year.Last:uuuu-MM-dd}.", $"Check the years of its terms; {MostDays} days are the most.", "terms");
        else if (SchoolWeeks.Of(year).Count == 0)
            No("year-no-school-days", $"School year {year.Label} has no school day.", "Check the weekdays the school keeps and the days off.", "daysOff");
        return wrong;
    }

    /// <summary>Throws the first refusal, if there is any.</summary>
    /// <exception cref="RefusedException">See <see cref="Of"/>.</exception>
    public static void Demand(SchoolYear year)
    {
        if (Of(year) is [var first, ..]) throw new RefusedException(first);
    }
}
