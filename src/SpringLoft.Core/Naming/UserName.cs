using System.Globalization;
using System.Text;
using AnyAscii;

namespace SpringLoft.Core.Naming;

/// <summary>What a user name is made from.</summary>
public sealed record UserNameParts(string Given, string Family, string? StudentNumber, string? Grade);

/// <summary>How somebody will sign in.</summary>
/// <param name="Name">ASCII, lower case, unique.</param>
/// <param name="Said">As the pattern gave it before letters were replaced; null if nothing was.</param>
/// <param name="ToldApart">True if another person had the name and a number tells them apart.</param>
public sealed record MadeUserName(string Name, string? Said, bool ToldApart);

/// <summary>
/// Makes user names by one pattern for the whole school: ASCII, unique, never used twice. Transliteration by AnyAscii;
/// letters, digits, dot and hyphen stay.
/// </summary>
public static class UserName
{
    /// <summary>What a pattern may name.</summary>
    public static readonly IReadOnlyList<string> Placeholders = ["given", "family", "first letter", "initials", "student number", "grade"];

    /// <summary>Most letters of a user name: what common directories take.</summary>
    public const int MaxLength = 64;

    /// <summary>Makes one.</summary>
    /// <param name="taken">Lower-case names that were ever given to somebody; the new one is added by the caller.</param>
    /// <exception cref="RefusedException"><c>pattern-unknown-placeholder</c>; <c>user-name-empty</c> if nothing is left to sign in with.</exception>
    public static MadeUserName Make(string pattern, UserNameParts parts, IReadOnlySet<string> taken)
    {
        var filled = NamePattern.Fill(pattern, new Dictionary<string, string?>
        {
            ["given"] = parts.Given,
            ["family"] = parts.Family,
            ["first letter"] = FirstLetter(parts.Given),
            ["initials"] = FirstLetter(parts.Given) + FirstLetter(parts.Family),
            ["student number"] = parts.StudentNumber,
            ["grade"] = parts.Grade,
        });
        var plain = Plain(filled);
        if (plain.Length == 0) throw new RefusedException("user-name-empty", $"The pattern leaves no user name for {parts.Given} {parts.Family}.", "Put the student number into the pattern.", "pattern");
        var said = filled.ToLowerInvariant().Replace(" ", "", StringComparison.Ordinal);
        var name = plain;
        for (var n = 2; taken.Contains(name); n++)
        {
            var tail = n.ToString(CultureInfo.InvariantCulture);
            name = plain[..Math.Min(plain.Length, MaxLength - tail.Length)] + tail;
        }
        return new(name, said == plain ? null : said, name != plain);
    }

    private static string Plain(string text)
    {
        var kept = new StringBuilder();
        foreach (var c in text.Normalize(NormalizationForm.FormC).Transliterate().ToLowerInvariant())
            if (char.IsAsciiLetterOrDigit(c) || (c is '.' or '-' && kept.Length > 0)) kept.Append(c);
        var plain = kept.ToString().TrimEnd('.', '-');
        return plain.Length > MaxLength ? plain[..MaxLength] : plain;
    }

    private static string FirstLetter(string name) => name.Length == 0 ? "" : StringInfo.GetNextTextElement(name.Normalize(NormalizationForm.FormC));
}
