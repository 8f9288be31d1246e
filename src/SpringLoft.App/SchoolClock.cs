namespace SpringLoft.App;

/// <summary>The school's time: the real one, or in the demo the real one moved by whole days.</summary>
public sealed class SchoolClock(IClock clock, DateTimeZone zone)
{
    private long daysAhead;

    /// <summary>The moment it really is, also where the demo's date was moved: what goes on between a browser and the server goes by it.</summary>
    public Instant Real => clock.GetCurrentInstant();

    /// <summary>The moment it is, moved if the date was moved.</summary>
    public Instant Now => clock.GetCurrentInstant() + Duration.FromDays(Interlocked.Read(ref daysAhead));

    /// <summary>The zone in which the school's days begin and end.</summary>
    public DateTimeZone Zone => zone;

    /// <summary>The date at the school.</summary>
    public LocalDate Today => Now.InZone(zone).Date;

    /// <summary>What the school's clock shows.</summary>
    public LocalDateTime LocalNow => LocalOf(Now);

    /// <summary>What the school's clock showed at some moment.</summary>
    public LocalDateTime LocalOf(Instant moment) => moment.InZone(zone).LocalDateTime;

    /// <summary>Makes <paramref name="today"/> the date at the school from now on.</summary>
    public void MoveTo(LocalDate today)
    {
        var real = clock.GetCurrentInstant().InZone(zone).Date;
        Interlocked.Exchange(ref daysAhead, Period.DaysBetween(real, today));
    }

    /// <summary>The moment at which a day begins at the school.</summary>
    public Instant StartOf(LocalDate day) => zone.AtStartOfDay(day).ToInstant();

    /// <summary>The date at the school at some moment.</summary>
    public LocalDate DateOf(Instant moment) => moment.InZone(zone).Date;
}
