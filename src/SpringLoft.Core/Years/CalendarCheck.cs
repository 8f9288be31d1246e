namespace SpringLoft.Core.Years;

/// <summary>Says what is wrong with a calendar before anything is built on it.</summary>
public static class CalendarCheck
{
    /// <summary>All refusals, none if the calendar can be used.</summary>
    public static IReadOnlyList<Refusal> Of(SchoolYear year)
    {
        var wrong = new List<Refusal>();
        if (year.Terms.Count == 0)
            wrong.Add(new("year-no-terms", $"School year {year.Label} has no terms.", "Add the first term with its first and last day.", "terms"));
        foreach (var t in year.Terms.Where(t => t.Last < t.First))
            wrong.Add(new("term-ends-before-start", $"Term “{t.Name}” ends before it starts.", "Swap or correct its two days.", "terms"));
        for (var i = 1; i < year.Terms.Count; i++)
            if (year.Terms[i].First <= year.Terms[i - 1].Last)
                wrong.Add(new("terms-overlap", $"Terms “{year.Terms[i - 1].Name}” and “{year.Terms[i].Name}” overlap.", "Start the later one after the earlier one ends.", "terms"));
        if (wrong.Count == 0 && SchoolWeeks.Of(year).Count == 0)
            wrong.Add(new("year-no-school-days", $"School year {year.Label} has no school day.", "Check the weekdays the school keeps and the days off.", "daysOff"));
        return wrong;
    }
}
