namespace SpringLoft.Core.Years;

/// <summary>A stretch of teaching inside a school year, both ends included.</summary>
public sealed record Term(string Name, LocalDate First, LocalDate Last);

/// <summary>Days on which the school is shut, both ends included.</summary>
public sealed record DayOff(string Name, LocalDate First, LocalDate Last);

/// <summary>Whether school weeks count on through the year or begin at 1 in each term.</summary>
public enum WeekNumbering { Through, PerTerm }

/// <summary>Letters of a two-week timetable: none, A and B by turns through the year, or by turns but from A again after each holiday.</summary>
public enum WeekLetters { None, ByTurns, AnewAfterHoliday }

/// <summary>The calendar of one school year, as the school laid it down.</summary>
/// <param name="Label">As people write it, "2026–27".</param>
/// <param name="Terms">In order of time; they do not overlap.</param>
/// <param name="DaysOff">In any order; may overlap.</param>
/// <param name="SchoolWeekdays">The weekdays that the school keeps.</param>
/// <param name="FirstWeekday">The day on which a calendar week starts.</param>
/// <param name="Numbering">How school weeks are numbered.</param>
/// <param name="Letters">Whether school weeks carry the letters of a two-week timetable.</param>
public sealed record SchoolYear(
    string Label,
    IReadOnlyList<Term> Terms,
    IReadOnlyList<DayOff> DaysOff,
    IReadOnlySet<IsoDayOfWeek> SchoolWeekdays,
    IsoDayOfWeek FirstWeekday = IsoDayOfWeek.Monday,
    WeekNumbering Numbering = WeekNumbering.Through,
    WeekLetters Letters = WeekLetters.None)
{
    /// <summary>Monday to Friday.</summary>
    public static readonly IReadOnlySet<IsoDayOfWeek> MondayToFriday = new HashSet<IsoDayOfWeek>
    {
        IsoDayOfWeek.Monday, IsoDayOfWeek.Tuesday, IsoDayOfWeek.Wednesday, IsoDayOfWeek.Thursday, IsoDayOfWeek.Friday,
    };

    /// <summary>The first day of the first term.</summary>
    public LocalDate First => Terms[0].First;

    /// <summary>The last day of the last term.</summary>
    public LocalDate Last => Terms[^1].Last;
}
