namespace SpringLoft.Core;

/// <summary>Why a rule said no: a code that stays the same, what is wrong, and the likely mend.</summary>
/// <param name="Code">Stable, lower case with hyphens; documented in docs/errors.md.</param>
/// <param name="What">What is wrong and where, as a sentence for a person.</param>
/// <param name="Mend">What to do about it.</param>
/// <param name="Field">The input it is about, where there is one.</param>
public sealed record Refusal(string Code, string What, string Mend, string? Field = null);

/// <summary>Carries a <see cref="Refusal"/> out to whoever asked. Nothing has been written when it is thrown.</summary>
public sealed class RefusedException(Refusal refusal) : Exception($"{refusal.What} {refusal.Mend}")
{
    /// <summary>The refusal to be shown.</summary>
    public Refusal Refusal { get; } = refusal;

    /// <summary>Shorthand for throwing sites.</summary>
    public RefusedException(string code, string what, string mend, string? field = null)
        : this(new Refusal(code, what, mend, field)) { }
}
