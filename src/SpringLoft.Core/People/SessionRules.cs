namespace SpringLoft.Core.People;

/// <summary>How long a sign-in goes on, as a school lays down.</summary>
/// <param name="IdleHours">Without a request in between.</param>
/// <param name="MostDays">However often it is used.</param>
public sealed record SessionLimits(int IdleHours, int MostDays)
{
    /// <summary>Until a school says otherwise: a school day, so that nobody is asked again between two lessons, and a school week.</summary>
    public static readonly SessionLimits Default = new(10, 5);

    /// <inheritdoc cref="IdleHours"/>
    public Duration Idle() => Duration.FromHours(IdleHours);

    /// <inheritdoc cref="MostDays"/>
    public Duration Most() => Duration.FromDays(MostDays);
}

/// <summary>When a sign-in has ended.</summary>
public static class SessionRules
{
    /// <summary>The most days that a school can lay down.</summary>
    public const int LongestDays = 30;

    /// <summary>How exactly it is kept when somebody was last here; a write for each request would hold up the one writer.</summary>
    public static readonly Duration SeenEvery = Duration.FromMinutes(5);

    /// <summary>Does a sign-in still go on?</summary>
    public static bool GoesOn(Instant begun, Instant seen, Instant now, SessionLimits limits) => now - seen < limits.Idle() && now - begun < limits.Most();

    /// <summary>Is it time to note that the person is here?</summary>
    public static bool IsToBeNoted(Instant seen, Instant now) => now - seen >= SeenEvery;
}
