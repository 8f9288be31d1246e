namespace SpringLoft.Core.Letters;

/// <summary>Whether, on which day and with what the school writes to homes each week.</summary>
/// <param name="From">Since when it does; null for not.</param>
/// <param name="Marks">Do marks stand in it?</param>
public sealed record WeeklyLetter(LocalDateTime? From, IsoDayOfWeek Day, bool Marks)
{
    /// <summary>From when on its day it goes out.</summary>
    public static readonly LocalTime Hour = new(16, 0);

    // A letter that could not go out on its day is still worth reading for so long.
    private const int LateDays = 2;

    /// <summary>Days that it looks ahead, and back where there was none before.</summary>
    public const int Days = 7;

    /// <summary>The day whose letter is to be written to a home now; null for none. Never two of one day, none of a day before the school or the home was in it.</summary>
    /// <param name="last">The day of the last letter to them; null if never.</param>
    /// <param name="writeFrom">Since when the school lets them be written to.</param>
    public LocalDate? DueOn(LocalDate? last, LocalDateTime writeFrom, LocalDateTime now)
    {
        if (From is not { } from) return null;
        var day = LastDay(now);
        var moment = day.At(Hour);
        return last >= day || moment < from || moment < writeFrom || Period.DaysBetween(day, now.Date) > LateDays ? null : day;
    }

    /// <summary>When the next ones go out, from a moment on.</summary>
    public LocalDateTime Next(LocalDateTime now) => LastDay(now).PlusWeeks(1).At(Hour);

    // The last of its days whose hour has come.
    private LocalDate LastDay(LocalDateTime now)
    {
        var day = now.DayOfWeek == Day ? now.Date : now.Date.Previous(Day);
        return day.At(Hour) > now ? day.PlusWeeks(-1) : day;
    }
}
