namespace SpringLoft.Core.People;

/// <summary>How long a sign-in goes on.</summary>
public static class SessionRules
{
    /// <summary>Without a request in between. A school day, so that nobody is asked again between two lessons.</summary>
    public static readonly Duration Idle = Duration.FromHours(10);

    /// <summary>At the most, however often it is used: a school week.</summary>
    public static readonly Duration Most = Duration.FromDays(5);

    /// <summary>How exactly it is kept when somebody was last here; a write for each request would hold up the one writer.</summary>
    public static readonly Duration SeenEvery = Duration.FromMinutes(5);

    /// <summary>Does a sign-in still go on?</summary>
    public static bool GoesOn(Instant begun, Instant seen, Instant now) => now - seen < Idle && now - begun < Most;

    /// <summary>Is it time to note that the person is here?</summary>
    public static bool IsToBeNoted(Instant seen, Instant now) => now - seen >= SeenEvery;
}
