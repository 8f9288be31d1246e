using SpringLoft.Core.Naming;

namespace SpringLoft.Core.Rosters;

/// <summary>A join code as a class has it.</summary>
/// <param name="Most">How many may join by it; null for any number.</param>
public sealed record JoinCodeFact(Instant ExpiresAt, int? Most, int Used);

/// <summary>Codes that let students enroll, read off a board and typed by children; with the waits after wrong ones nobody guesses one.</summary>
public static class JoinCode
{
    /// <inheritdoc cref="TypedCode.Letters"/>
    public const string Letters = TypedCode.Letters;

    private const int Groups = 2;

    /// <inheritdoc cref="TypedCode.Make"/>
    public static string Make(Func<int, int> chance) => TypedCode.Make(chance, Groups);

    /// <inheritdoc cref="TypedCode.Read"/>
    public static string? Read(string typed) => TypedCode.Read(typed, Groups);

    /// <summary>Why a code lets nobody in any more; null if it does.</summary>
    public static Refusal? Shut(JoinCodeFact code, Instant now) =>
        now >= code.ExpiresAt ? new("code-expired", "This join code has run out.", "Ask the teacher for the new one.", "code")
        : code.Most is { } most && code.Used >= most ? new("code-used-up", "As many as may have joined by this code.", "Ask the teacher.", "code")
        : null;
}
