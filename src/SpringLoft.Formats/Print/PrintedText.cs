using System.Globalization;
using System.Text;
using AnyAscii;

namespace SpringLoft.Formats.Print;

/// <summary>A stretch of text in one typeface, in the order in which it stands on paper.</summary>
/// <param name="Family">The typeface.</param>
internal sealed record PrintedRun(string Family, string Text);

/// <summary>
/// Text as it stands on paper, drawn by a library that knows no script: which typeface has its letters, Arabic letters in
/// the form that their neighbours ask for, and what is written from the right turned round.
/// Sources: The Unicode Standard 17, section 9.2 (joining of Arabic letters; their forms stand in the block in the order
/// isolated, final, initial, medial) and Annex 9 (what is written from the right; names need its simplest case only).
/// Combining marks stay with their letter.
/// </summary>
internal static class PrintedText
{
    internal const string Latin = "DejaVu Sans", Han = "Droid Sans Fallback", Hangul = "Nanum Gothic";

    private static readonly Dictionary<char, char[]> Forms = JoiningForms();

    /// <summary>A name as it can be printed: itself, or its transliteration where a letter has no typeface here.</summary>
    internal static string Printable(string text) => text.All(c => FamilyOf(c) is not null) ? text : text.Transliterate();

    /// <summary>The text as stretches to be drawn from left to right.</summary>
    internal static IReadOnlyList<PrintedRun> Runs(string text)
    {
        var runs = new List<PrintedRun>();
        foreach (var c in Turned(Joined(Printable(text.Normalize(NormalizationForm.FormC)))))
        {
            var family = FamilyOf(c)!;
            // A space or a hyphen stays with what stands before it.
            if (runs.Count > 0 && (runs[^1].Family == family || c < 0x40)) runs[^1] = runs[^1] with { Text = runs[^1].Text + c };
            else runs.Add(new(family, c.ToString()));
        }
        return runs;
    }

    private static string? FamilyOf(char c) => c switch
    {
        < '\u0590' or >= '\u1E00' and < '\u2C00' => Latin,
        >= '\u10D0' and <= '\u10F0' => Latin,
        >= '\u05B0' and <= '\u05C2' or >= '\u05D0' and <= '\u05EA' => Latin,
        '\u0640' or >= '\u064B' and <= '\u0652' or '\uFEFB' or '\uFEFC' => Latin,
        >= '\u0621' and <= '\u06D5' when Forms.ContainsKey(c) => Latin,
        >= '\uFB50' and <= '\uFEFC' => Latin,
        '\u3000' or '\u3001' or '\u3005' or '\u30FB' or '\u30FC' or >= '\u3041' and <= '\u3093' or >= '\u30A1' and <= '\u30F6' => Han,
        >= '\u3400' and <= '\u4DB5' or >= '\u4E00' and <= '\u9FA5' => Han,
        >= '\uAC00' and <= '\uD7A3' => Hangul,
        _ => null,
    };

    private static bool FromTheRight(char c) => c is >= '\u0590' and <= '\u06FF' or >= '\uFB1D' and <= '\uFEFC';

    // Each letter joins the one before and the one after, where both can; lam and alef become one.
    private static string Joined(string text)
    {
        var joined = new StringBuilder();
        for (var i = 0; i < text.Length; i++)
        {
            if (!Forms.TryGetValue(text[i], out var forms)) { joined.Append(text[i]); continue; }
            var before = Neighbour(text, i, -1);
            var after = Neighbour(text, i, +1);
            var joinsBefore = before is { } b && JoinsNext(b) && forms.Length > 1;
            if (text[i] == 'ل' && i + 1 < text.Length && LamAlef(text[i + 1]) is { } ligature)
            {
                joined.Append((char)(ligature + (joinsBefore ? 1 : 0)));
                i++;
                continue;
            }
            var joinsAfter = forms.Length == 4 && after is { } a && (a == 'ـ' || (Forms.TryGetValue(a, out var next) && next.Length > 1));
            joined.Append(forms[(joinsBefore, joinsAfter) switch { (false, false) => 0, (true, false) => 1, (false, true) => 2, _ => 3 }]);
        }
        return joined.ToString();
    }

    private static char? Neighbour(string text, int i, int step)
    {
        for (i += step; i >= 0 && i < text.Length; i += step)
            if (CharUnicodeInfo.GetUnicodeCategory(text[i]) != UnicodeCategory.NonSpacingMark) return text[i];
        return null;
    }

    private static bool JoinsNext(char c) => c == 'ـ' || (Forms.TryGetValue(c, out var forms) && forms.Length == 4);

    private static char? LamAlef(char alef) => alef switch { 'آ' => '\uFEF5', 'أ' => '\uFEF7', 'إ' => '\uFEF9', 'ا' => '\uFEFB', _ => null };

    // Words written from the right, with what stands between two of them, are turned round letter by letter.
    private static string Turned(string text)
    {
        var elements = new List<string>();
        for (var at = StringInfo.GetTextElementEnumerator(text); at.MoveNext();) elements.Add(at.GetTextElement());
        var turned = new StringBuilder();
        for (var i = 0; i < elements.Count;)
        {
            if (!FromTheRight(elements[i][0])) { turned.Append(elements[i++]); continue; }
            var end = i;
            for (var j = i; j < elements.Count && (FromTheRight(elements[j][0]) || !char.IsLetterOrDigit(elements[j][0])); j++)
                if (FromTheRight(elements[j][0])) end = j;
            for (var j = end; j >= i; j--) turned.Append(elements[j]);
            i = end + 1;
        }
        return turned.ToString();
    }

    // The blocks of presentation forms hold each letter's forms side by side, and each is compatible with its letter.
    private static Dictionary<char, char[]> JoiningForms()
    {
        var forms = new Dictionary<char, List<char>>();
        // Of these two letters the typeface has no forms (U+06C1, U+06D2 and its hamza).
        foreach (var form in Enumerable.Range(0xFB56, 0xFC00 - 0xFB56).Where(f => f is < 0xFBA4 or (>= 0xFBAA and < 0xFBAE) or >= 0xFBFC).Concat(Enumerable.Range(0xFE80, 0xFEF5 - 0xFE80)).Select(f => (char)f))
        {
            var letter = form.ToString().Normalize(NormalizationForm.FormKC);
            if (letter.Length != 1 || letter[0] == form) continue;
            if (!forms.TryGetValue(letter[0], out var known)) forms[letter[0]] = known = [];
            known.Add(form);
        }
        return forms.ToDictionary(f => f.Key, f => f.Value.ToArray());
    }
}
