using System.Globalization;

namespace SpringLoft.Core.Years;

/// <summary>A first guess at a school's calendar, until the school lays down its own.</summary>
public static class StartingYears
{
    /// <summary>This school year and the next: one term each, from the Monday on or after 24 August to the Friday on or before 18 June.</summary>
    public static IReadOnlyList<SchoolYear> From(LocalDate today)
    {
        var start = today.Month >= 7 ? today.Year : today.Year - 1;
        return [One(start), One(start + 1)];
    }

    private static SchoolYear One(int start)
    {
        var first = new LocalDate(start, 8, 24);
        while (first.DayOfWeek != IsoDayOfWeek.Monday) first = first.PlusDays(1);
        var last = new LocalDate(start + 1, 6, 18);
        while (last.DayOfWeek != IsoDayOfWeek.Friday) last = last.PlusDays(-1);
        return new(Label(start), [new("Year", first, last)], [], SchoolYear.MondayToFriday);
    }

    /// <summary>"2026–27".</summary>
    public static string Label(int start) => string.Create(CultureInfo.InvariantCulture, $"{start}–{(start + 1) % 100:00}");
}
