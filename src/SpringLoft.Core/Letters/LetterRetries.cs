namespace SpringLoft.Core.Letters;

/// <summary>How a letter stands.</summary>
public enum LetterState
{
    /// <summary>Written, and on its way.</summary>
    Waiting,

    /// <summary>The mail server took it.</summary>
    Sent,

    /// <summary>It was tried long enough, or will never be taken; a person can have it tried again.</summary>
    GivenUp,
}

/// <summary>
/// When a letter that was not taken is tried again. The first tries are close together, for the mail server is the school's own
/// and is mostly being started anew; then it is every hour. RFC 5321, 4.5.4.1 (from memory): half an hour between tries at the
/// least in general, and no giving up before four or five days.
/// </summary>
public static class LetterRetries
{
    /// <summary>How long a letter is tried after it was written, or had tried again by a person.</summary>
    public static readonly Duration Patience = Duration.FromDays(5);

    private static readonly Duration[] First = [Duration.FromMinutes(1), Duration.FromMinutes(5), Duration.FromMinutes(15)];
    private static readonly Duration Later = Duration.FromHours(1);

    /// <summary>When it is tried next; null if it is given up.</summary>
    /// <param name="tries">How often it was tried, 1 or more.</param>
    /// <param name="since">When it was written.</param>
    /// <param name="now">When the last try failed.</param>
    /// <param name="forGood">True if the server said that it will never take it.</param>
    public static Instant? Next(int tries, Instant since, Instant now, bool forGood)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(tries, 1);
        if (forGood) return null;
        var next = now + (tries <= First.Length ? First[tries - 1] : Later);
        return next - since > Patience ? null : next;
    }
}
