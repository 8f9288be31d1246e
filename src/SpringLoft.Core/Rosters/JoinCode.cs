namespace SpringLoft.Core.Rosters;

/// <summary>A join code as a class has it.</summary>
/// <param name="Most">How many may join by it; null for any number.</param>
public sealed record JoinCodeFact(Instant ExpiresAt, int? Most, int Used);

/// <summary>
/// Codes that let students enroll, read off a board and typed by children: eight characters that are not taken for one
/// another, in two groups. 22^8 are some 55 thousand million; with the waits after wrong ones nobody guesses one.
/// </summary>
public static class JoinCode
{
    /// <summary>Without vowels, so that no word comes out, and without what looks alike: 0 O, 1 I L, 2 Z, 5 S, 8 B.</summary>
    public const string Letters = "CDFGHJKMNPQRTVWXY34679";

    private const int Length = 8;

    /// <summary>Makes one, as "FHKM-3479".</summary>
    /// <param name="chance">Gives a number from 0 up to, but not including, the one it is given; from a source nobody can foresee.</param>
    public static string Make(Func<int, int> chance)
    {
        var letters = new string([.. Enumerable.Range(0, Length).Select(_ => Letters[chance(Letters.Length)])]);
        return $"{letters[..4]}-{letters[4..]}";
    }

    /// <summary>What was typed, in the form in which codes are kept; null if it can be none.</summary>
    public static string? Read(string typed)
    {
        var letters = new string([.. typed.ToUpperInvariant().Where(char.IsAsciiLetterOrDigit)]);
        return letters.Length == Length && letters.All(c => Letters.Contains(c, StringComparison.Ordinal)) ? $"{letters[..4]}-{letters[4..]}" : null;
    }

    /// <summary>Why a code lets nobody in any more; null if it does.</summary>
    public static Refusal? Shut(JoinCodeFact code, Instant now) =>
        now >= code.ExpiresAt ? new("code-expired", "This join code has run out.", "Ask the teacher for the new one.", "code")
        : code.Most is { } most && code.Used >= most ? new("code-used-up", "As many as may have joined by this code.", "Ask the teacher.", "code")
        : null;
}
