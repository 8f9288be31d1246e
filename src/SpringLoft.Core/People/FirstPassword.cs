using SpringLoft.Core.Naming;

namespace SpringLoft.Core.People;

/// <summary>What is said against a rule for first passwords.</summary>
/// <param name="Guesses">About how many tries somebody needs who knows the rule and the names of a class.</param>
/// <param name="Warning">Null if there is nothing to warn of.</param>
public sealed record FirstPasswordJudgement(double Guesses, string? Warning);

/// <summary>
/// Makes first passwords by the school's one rule: text with placeholders. What is left to chance is what keeps a
/// classmate, who has a slip of their own and can see the rule in it, from guessing.
/// </summary>
public static class FirstPassword
{
    /// <summary>The rule a school begins with: three plain words and two digits.</summary>
    public const string DefaultRule = "{word}-{word}-{word}-{two digits}";

    /// <summary>Below so many guesses a rule is warned of: sign-in slows a guesser down to some hundred tries a day.</summary>
    public const double EnoughGuesses = 1_000_000;

    /// <summary>What a rule may name.</summary>
    public static readonly IReadOnlyList<string> Placeholders = ["word", "digit", "two digits", "given", "family", "student number", "grade"];

    /// <summary>Makes one.</summary>
    /// <param name="chance">Gives a number from 0 up to, but not including, the one it is given; from a source nobody can foresee.</param>
    /// <exception cref="RefusedException"><c>pattern-unknown-placeholder</c>; <c>password-short</c> if it comes out too short to sign in with.</exception>
    public static string Make(string rule, UserNameParts person, Func<int, int> chance)
    {
        // Each placeholder of chance is drawn anew, also where it stands twice.
        var drawn = rule;
        foreach (var (name, draw) in new (string, Func<string>)[] { ("{word}", () => FirstPhrase.Words[chance(FirstPhrase.Words.Count)]), ("{two digits}", () => $"{10 + chance(90)}"), ("{digit}", () => $"{chance(10)}") })
            for (var at = drawn.IndexOf(name, StringComparison.Ordinal); at >= 0; at = drawn.IndexOf(name, at, StringComparison.Ordinal))
            {
                var text = draw();
                drawn = drawn[..at] + text + drawn[(at + name.Length)..];
                at += text.Length;
            }
        var filled = NamePattern.Fill(drawn, new Dictionary<string, string?> { ["given"] = Plain(person.Given), ["family"] = Plain(person.Family), ["student number"] = person.StudentNumber, ["grade"] = person.Grade });
        if (filled.Length < SignInRules.MinLength)
            throw new RefusedException("password-short", $"The rule gives {person.Given} {person.Family} a password of {filled.Length} characters.", $"Make it {SignInRules.MinLength} or more: put in a word or digits.", "rule");
        return filled;
    }

    /// <summary>Says how safe a rule is from classmates.</summary>
    public static FirstPasswordJudgement Judge(string rule)
    {
        var guesses = Math.Pow(FirstPhrase.Words.Count, Count(rule, "{word}")) * Math.Pow(90, Count(rule, "{two digits}")) * Math.Pow(10, Count(rule, "{digit}"));
        return new(guesses, guesses >= EnoughGuesses ? null
            : guesses <= 1 ? "Whoever sees one slip knows everybody's password: nothing in the rule is left to chance."
            : $"Whoever sees a classmate's slip can guess the others' in {guesses:N0} tries or fewer. Put in more words or digits.");
    }

    private static int Count(string rule, string placeholder) => rule.Split(placeholder).Length - 1;

    private static string Plain(string name) => PersonName.SearchKey(name).Replace(" ", "", StringComparison.Ordinal);
}
