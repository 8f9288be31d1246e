using System.Text.RegularExpressions;

namespace SpringLoft.Core.Naming;

/// <summary>Takes out of text what makes it look like other text.</summary>
public static partial class PlainText
{
    /// <summary>
    /// Without the marks that turn the direction of what follows (U+202A to U+202E, U+2066 to U+2069): with one, "exe.txt" reads as
    /// "txt.exe", and a name makes the line after it run backwards. Text of right-to-left scripts needs none of them.
    /// Source: Unicode Technical Report 36, section 3.2 "Bidirectional Text Spoofing" (from memory).
    /// </summary>
    public static string WithoutTurns(string text) => Turns().Replace(text, "");

    /// <summary>A name, in one line, without marks that turn its direction.</summary>
    public static string Name(string text) => Breaks().Replace(WithoutTurns(text), " ").Trim();

    [GeneratedRegex("[\u202A-\u202E\u2066-\u2069]")]
    private static partial Regex Turns();

    [GeneratedRegex("[\\p{Cc}\u2028\u2029]+")]
    private static partial Regex Breaks();
}
