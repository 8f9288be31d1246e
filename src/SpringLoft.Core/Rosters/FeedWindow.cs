namespace SpringLoft.Core.Rosters;

/// <summary>When the roster feed may run: once a day at an hour, from its first day to its last, and never outside them.</summary>
/// <param name="Hour">Of the school's clock, 0 to 23.</param>
public sealed record FeedWindow(LocalDate First, LocalDate Last, int Hour, bool IsOn)
{
    /// <summary>Checks a window against the year that it is for: a feed between years would deliver empty classes.</summary>
    /// <exception cref="RefusedException"><c>feed-window</c>, <c>feed-hour</c>.</exception>
    public void Check(LocalDate yearFirst, LocalDate yearLast)
    {
        if (Hour is < 0 or > 23) throw new RefusedException("feed-hour", $"{Hour} is no hour of the day.", "Choose 0 to 23.", "hour");
        if (Last < First) throw new RefusedException("feed-window", "The feed's last day is before its first.", "Turn the two round.", "lastDay");
        // In the gap between years the records say nothing yet, or empty classes; what comes earlier is taken in by hand.
        if (First < yearFirst || Last > yearLast)
            throw new RefusedException("feed-window", $"The feed would run from {First:uuuu-MM-dd} to {Last:uuuu-MM-dd}, and the school year is {yearFirst:uuuu-MM-dd} to {yearLast:uuuu-MM-dd}.", "Let it begin and end inside the year; before its first day, take deliveries in by hand.", "firstDay");
    }

    /// <summary>When it runs next, by the school's clock; null if it does not any more.</summary>
    /// <param name="now">By the school's clock.</param>
    /// <param name="last">When it ran last; null if never.</param>
    public LocalDateTime? Next(LocalDateTime now, LocalDateTime? last)
    {
        if (!IsOn) return null;
        var day = now.Date < First ? First : now.Date;
        // What was missed while the program was down is made up for on the same day.
        if (day == now.Date && last is { } l && l >= day.At(new LocalTime(Hour, 0))) day = day.PlusDays(1);
        return day > Last ? null : day.At(new LocalTime(Hour, 0));
    }
}
