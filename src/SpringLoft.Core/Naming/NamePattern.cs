using System.Text;
using System.Text.RegularExpressions;

namespace SpringLoft.Core.Naming;

/// <summary>
/// Text with placeholders in braces: <c>{course} {section} · period {period} · {year}</c>.
/// Parts stand between separators (" · ", ", ", " - ", " – "); a part that hangs on an empty placeholder
/// disappears with its separator.
/// </summary>
public static partial class NamePattern
{
    /// <summary>Fills the pattern. Spaces left double by an empty placeholder become one.</summary>
    /// <param name="pattern">The pattern.</param>
    /// <param name="values">Placeholder to value; null or blank counts as empty.</param>
    /// <exception cref="RefusedException"><c>pattern-unknown-placeholder</c> for a placeholder that has no entry.</exception>
    public static string Fill(string pattern, IReadOnlyDictionary<string, string?> values)
    {
        foreach (var unknown in Placeholders(pattern).Where(p => !values.ContainsKey(p)))
            throw new RefusedException("pattern-unknown-placeholder",
                $"The pattern has a placeholder “{unknown}” that is not known here.",
                $"Use one of: {string.Join(", ", values.Keys.Order())}.", "pattern");

        var result = new StringBuilder();
        var pieces = Separator().Split(pattern);
        for (var i = 0; i < pieces.Length; i += 2)
        {
            var part = FillPart(pieces[i], values);
            if (part is null) continue;
            if (result.Length > 0) result.Append(pieces[i - 1]);
            result.Append(part);
        }
        return Spaces().Replace(result.ToString(), " ").Trim();
    }

    /// <summary>The placeholders named in a pattern, in order, without braces.</summary>
    public static IEnumerable<string> Placeholders(string pattern) =>
        Placeholder().Matches(pattern).Select(m => m.Groups[1].Value);

    // A part made of placeholders that are all empty goes; words beside an empty one ("period {period}") go with it.
    // Beside a filled one they stay: "{course} {section}" without a section is still the course.
    private static string? FillPart(string part, IReadOnlyDictionary<string, string?> values)
    {
        var names = Placeholders(part).ToList();
        if (names.Count > 0 && names.All(n => string.IsNullOrWhiteSpace(values[n]))) return null;
        return Placeholder().Replace(part, m => values[m.Groups[1].Value]?.Trim() ?? "");
    }

    [GeneratedRegex(@"\{([a-z ]+)\}")]
    private static partial Regex Placeholder();

    [GeneratedRegex(@"( · |, | - | – | \| )")]
    private static partial Regex Separator();

    [GeneratedRegex(@" {2,}")]
    private static partial Regex Spaces();
}
