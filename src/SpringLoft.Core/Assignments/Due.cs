using NodaTime.TimeZones;

namespace SpringLoft.Core.Assignments;

/// <summary>Until when work is due, and how long after that it is still taken.</summary>
/// <param name="On">Null where there is no date: then nothing is ever late.</param>
/// <param name="At">Within the day, in the school's zone; null for all of the day. The minute that is named still counts.</param>
/// <param name="LateDays">Days after the day it is due on which late work is taken; 0 for none, null for as long as the class is open.</param>
public sealed record Due(LocalDate? On, LocalTime? At, int? LateDays)
{
    /// <summary>Most days for which late work can be taken, where an end is set at all.</summary>
    public const int MostLateDays = 365;

    // In the hour that a clock repeats it is the second one; of the hour that it skips, as long after: always the later, for whom it falls on.
    private static readonly ZoneLocalMappingResolver resolver = Resolvers.CreateMappingResolver(Resolvers.ReturnLater, Resolvers.ReturnForwardShifted);

    /// <summary>The moment of something that was set by the school's clock.</summary>
    public static Instant Of(LocalDateTime set, DateTimeZone zone) => zone.ResolveLocal(set, resolver).ToInstant();

    /// <summary>The first moment at which it is late; null without a date.</summary>
    public Instant? Moment(DateTimeZone zone) => On is not { } day ? null
        : At is not { } time ? zone.AtStartOfDay(day.PlusDays(1)).ToInstant()
        : Of(day + time, zone) + Duration.FromMinutes(1);

    /// <summary>The first moment at which it is not taken any more; null for never.</summary>
    public Instant? Closes(DateTimeZone zone) => (On, LateDays) switch
    {
        (null, _) or (_, null) => null,
        (_, 0) => Moment(zone),
        ({ } day, { } days) => zone.AtStartOfDay(day.PlusDays(days + 1)).ToInstant(),
    };

    /// <summary>By how much something that came in at a moment is late; null where it is in time. Never rounded.</summary>
    public Duration? LateBy(Instant? handedIn, DateTimeZone zone) =>
        handedIn is { } at && Moment(zone) is { } late && at >= late ? at - late + (At is null ? Duration.Zero : Duration.FromMinutes(1)) : null;
}
