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
        var parsed = last is { } l && l.Pattern == pattern ? l : last = Parse(pattern);
        foreach (var unknown in parsed.Parts.SelectMany(p => p.Placeholders).Where(p => !values.ContainsKey(p)))
            throw new RefusedException("pattern-unknown-placeholder",
                $"The pattern has a placeholder “{unknown}” that is not known here.",
                $"Use one of: {string.Join(", ", values.Keys.Order())}.", "pattern");

        var result = new StringBuilder();
        foreach (var part in parsed.Parts)
        {
            // A part made of placeholders that are all empty goes; words beside an empty one ("period {period}") go with it.
            // Beside a filled one they stay: "{course} {section}" without a section is still the course.
            if (part.Placeholders.Count > 0 && part.Placeholders.All(n => string.IsNullOrWhiteSpace(values[n]))) continue;
            if (result.Length > 0) result.Append(part.Separator);
            for (var i = 0; i < part.Bits.Length; i++) result.Append(i % 2 == 0 ? part.Bits[i] : values[part.Bits[i]]?.Trim());
        }
        var filled = result.ToString();
        return (filled.Contains("  ", StringComparison.Ordinal) ? Spaces().Replace(filled, " ") : filled).Trim();
    }

    /// <summary>The placeholders named in a pattern, in order, without braces.</summary>
    public static IEnumerable<string> Placeholders(string pattern) =>
        Placeholder().Matches(pattern).Select(m => m.Groups[1].Value);

    private static Parsed Parse(string pattern)
    {
        var pieces = Separator().Split(pattern);
        return new(pattern, [.. Enumerable.Range(0, (pieces.Length + 1) / 2).Select(i =>
        {
            var bits = Placeholder().Split(pieces[2 * i]);
            return new Part(i == 0 ? "" : pieces[(2 * i) - 1], bits, [.. bits.Where((_, n) => n % 2 == 1)]);
        })]);
    }

    // The same pattern is filled for thousands of names in a row.
    private static volatile Parsed? last;

    private sealed record Parsed(string Pattern, IReadOnlyList<Part> Parts);

    // Text and placeholders by turns, beginning with text.
    private sealed record Part(string Separator, string[] Bits, IReadOnlyList<string> Placeholders);

    [GeneratedRegex(@"\{([a-z ]+)\}")]
    private static partial Regex Placeholder();

    [GeneratedRegex(@"( · |, | - | – | \| )")]
    private static partial Regex Separator();

    [GeneratedRegex(@" {2,}")]
    private static partial Regex Spaces();
}
