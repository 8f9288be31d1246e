using SpringLoft.Core.Years;

namespace SpringLoft.Demo;

/// <summary>Three school years of Skerry Point School, on an island with holidays of its own.</summary>
internal static class DemoCalendar
{
    internal static readonly IReadOnlyList<SchoolYear> Years = [Year(2025), Year(2026), Year(2027)];

    private static SchoolYear Year(int start)
    {
        var first = NextMonday(new LocalDate(start, 8, 22));
        var autumnBreak = NextMonday(new LocalDate(start, 10, 19));
        var spring = NextMonday(new LocalDate(start + 1, 1, 4));
        var winterBreak = NextMonday(new LocalDate(start + 1, 2, 15));
        var summer = NextMonday(new LocalDate(start + 1, 4, 11));
        return new(StartingYears.Label(start),
            [
                new("Autumn", first, new LocalDate(start, 12, 18)),
                new("Spring", spring, summer.PlusDays(-17)),
                new("Summer", summer, NextMonday(new LocalDate(start + 1, 6, 14)).PlusDays(4)),
            ],
            [
                new("Autumn break", autumnBreak, autumnBreak.PlusDays(4)),
                new("Lantern days", new LocalDate(start, 11, 12), new LocalDate(start, 11, 13)),
                new("Storm week", winterBreak, winterBreak.PlusDays(4)),
                new("Boat blessing", new LocalDate(start + 1, 5, 6), new LocalDate(start + 1, 5, 6)),
                new("Whit days", new LocalDate(start + 1, 5, 24), new LocalDate(start + 1, 5, 25)),
            ],
            SchoolYear.MondayToFriday);
    }

    private static LocalDate NextMonday(LocalDate d) => d.DayOfWeek == IsoDayOfWeek.Monday ? d : d.Next(IsoDayOfWeek.Monday);
}
