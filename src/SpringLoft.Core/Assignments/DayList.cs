namespace SpringLoft.Core.Assignments;

/// <summary>Under which heading of somebody's day a piece of work stands.</summary>
public enum When { Late, Today, ThisWeek, Later, NoDate }

/// <summary>Puts what is to be handed in where it belongs in somebody's day.</summary>
public static class DayList
{
    /// <summary>Looks that are no further apart are one visit: what is new stays new while one goes to it and comes back.</summary>
    public static readonly Duration Visit = Duration.FromMinutes(30);

    /// <summary>When the visit before the one that <paramref name="now"/> belongs to ended; null if there was none.</summary>
    /// <param name="seen">The last look.</param>
    /// <param name="before">When the visit before that look's ended.</param>
    public static Instant? Before(Instant? seen, Instant? before, Instant now) => seen is { } last && now - last > Visit ? last : before;

    /// <summary>
    /// Late is what is past its moment and still taken. What is not taken any more stands nowhere: nothing can be done about it. Due at
    /// a time today that is over, it is late and not today's.
    /// </summary>
    /// <param name="weekEnds">The last day of the calendar week that today is in.</param>
    /// <returns>Null for what stands nowhere.</returns>
    public static When? Of(Due due, Instant now, DateTimeZone zone, LocalDate weekEnds)
    {
        if (due.Closes(zone) <= now) return null;
        if (due.On is not { } day) return When.NoDate;
        if (due.Moment(zone) <= now) return When.Late;
        var today = now.InZone(zone).Date;
        return day <= today ? When.Today : day <= weekEnds ? When.ThisWeek : When.Later;
    }
}
