using SpringLoft.Core.Years;

namespace SpringLoft.Core.Tests;

/// <summary>Small calendars that tests can be worked out on by hand.</summary>
internal static class Calendars
{
    internal static LocalDate Day(int year, int month, int day) => new(year, month, day);

    /// <summary>Two terms: Mon 7 Sep to Fri 2 Oct, and Mon 12 Oct to Fri 23 Oct 2026; Wednesday 16 Sep off, and all of 21 to 25 Sep.</summary>
    internal static readonly SchoolYear Short = new("2026–27",
        [new("Autumn", Day(2026, 9, 7), Day(2026, 10, 2)), new("Winter", Day(2026, 10, 12), Day(2026, 10, 23))],
        [new("Harvest", Day(2026, 9, 16), Day(2026, 9, 16)), new("Storm week", Day(2026, 9, 21), Day(2026, 9, 25))],
        SchoolYear.MondayToFriday);
}
