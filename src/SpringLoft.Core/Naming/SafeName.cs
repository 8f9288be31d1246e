using System.Globalization;
using System.Text;

namespace SpringLoft.Core.Naming;

/// <summary>One thing that was replaced in a name, in words for a person.</summary>
public sealed record NameChange(string Was, string Why);

/// <summary>A name that any computer can store, and what had to be changed to get there.</summary>
public sealed record SafeNameResult(string Name, IReadOnlyList<NameChange> Changes);

/// <summary>
/// Makes names that survive any computer: Unicode NFC, no control characters, no marks that turn the direction, none of
/// <c>&lt; &gt; : " / \ | ? *</c>, no leading or trailing space, no trailing dot, no reserved device name,
/// at most 255 bytes of UTF-8.
/// Sources: IEEE Std 1003.1-2017 section 3.282 (portable names) and Microsoft's published page
/// "Naming Files, Paths, and Namespaces" (reserved characters and device names).
/// </summary>
public static class SafeName
{
    /// <summary>Bytes of UTF-8 that a name may have: the least that common file systems allow.</summary>
    public const int MaxBytes = 255;

    private const string Forbidden = "<>:\"/\\|?*";

    private static readonly HashSet<string> Devices = new(StringComparer.OrdinalIgnoreCase)
    {
        "CON", "PRN", "AUX", "NUL",
        "COM0", "COM1", "COM2", "COM3", "COM4", "COM5", "COM6", "COM7", "COM8", "COM9", "COM¹", "COM²", "COM³",
        "LPT0", "LPT1", "LPT2", "LPT3", "LPT4", "LPT5", "LPT6", "LPT7", "LPT8", "LPT9", "LPT¹", "LPT²", "LPT³",
    };

    /// <summary>Makes <paramref name="raw"/> safe; null when nothing is left of it to name anything by.</summary>
    /// <param name="raw">Any text; lone surrogates are replaced by U+FFFD first.</param>
    /// <param name="keepExtension">True for files: when the name is cut to length, the extension stays.</param>
    public static SafeNameResult? Make(string raw, bool keepExtension = false)
    {
        var changes = new List<NameChange>();
        var text = ReplaceLoneSurrogates(raw);
        if (text != raw) changes.Add(new("broken characters", "not valid Unicode"));
        var straight = PlainText.WithoutTurns(text);
        if (straight != text) changes.Add(new("marks that turn the direction of text", "they make a name look like another"));
        var normal = straight.Normalize(NormalizationForm.FormC);
        var kept = new StringBuilder(normal.Length);
        foreach (var c in normal)
        {
            if (char.GetUnicodeCategory(c) == UnicodeCategory.Control)
            {
                changes.Add(new($"U+{(int)c:X4}", "control character"));
                if (c is '\t' or '\n' or '\r') kept.Append(' ');
            }
            else if (Forbidden.Contains(c))
            {
                changes.Add(new(c.ToString(), "not allowed in names on every computer"));
                kept.Append('-');
            }
            else
            {
                kept.Append(c);
            }
        }
        var name = TrimEnds(kept.ToString());
        if (name != kept.ToString()) changes.Add(new("space or dot at an end", "dropped by some computers"));
        if (name.Length == 0 || name.All(c => c is '-' or '.' or ' ')) return null;

        var stem = name.Split('.')[0].TrimEnd(' ');
        if (Devices.Contains(stem))
        {
            changes.Add(new(stem, "reserved device name"));
            name = "_" + name;
        }
        var cut = CutTo(name, MaxBytes, keepExtension);
        if (cut != name) changes.Add(new("length", $"more than {MaxBytes} bytes"));
        return new SafeNameResult(cut, changes);
    }

    /// <summary>Are two names the same to a file system that ignores case?</summary>
    public static bool Clash(string a, string b) =>
        string.Equals(Key(a), Key(b), StringComparison.Ordinal);

    /// <summary>The form in which sibling names are compared: NFC, upper case without culture.</summary>
    public static string Key(string name) => name.Normalize(NormalizationForm.FormC).ToUpperInvariant();

    /// <summary>Gives <paramref name="name"/> a number, "name (2)", until it clashes with none of <paramref name="taken"/>.</summary>
    /// <param name="name">A safe name.</param>
    /// <param name="taken">Keys as <see cref="Key"/> makes them.</param>
    /// <param name="isFile">True if the number goes before the extension.</param>
    public static string Distinct(string name, IReadOnlySet<string> taken, bool isFile)
    {
        if (!taken.Contains(Key(name))) return name;
        var dot = isFile ? name.LastIndexOf('.') : -1;
        var (stem, extension) = dot > 0 ? (name[..dot], name[dot..]) : (name, "");
        for (var n = 2; ; n++)
        {
            var tail = $" ({n.ToString(CultureInfo.InvariantCulture)}){extension}";
            var candidate = CutTo(stem, MaxBytes - Encoding.UTF8.GetByteCount(tail), false) + tail;
            if (!taken.Contains(Key(candidate))) return candidate;
        }
    }

    private static string TrimEnds(string s)
    {
        var t = s.Trim();
        while (t.EndsWith('.') || t.EndsWith(' ')) t = t[..^1];
        return t;
    }

    private static string CutTo(string name, int bytes, bool keepExtension)
    {
        if (Encoding.UTF8.GetByteCount(name) <= bytes) return name;
        var dot = keepExtension ? name.LastIndexOf('.') : -1;
        var extension = dot > 0 && name.Length - dot <= 16 ? name[dot..] : "";
        var room = bytes - Encoding.UTF8.GetByteCount(extension);
        var kept = new StringBuilder();
        var used = 0;
        // Whole text elements, so that a letter and its accents or a joined emoji are not torn apart.
        var elements = StringInfo.GetTextElementEnumerator(name[..(name.Length - extension.Length)]);
        while (elements.MoveNext())
        {
            var element = elements.GetTextElement();
            used += Encoding.UTF8.GetByteCount(element);
            if (used > room) break;
            kept.Append(element);
        }
        return TrimEnds(kept.ToString()) + extension;
    }

    private static string ReplaceLoneSurrogates(string s) => Encoding.UTF8.GetString(Encoding.UTF8.GetBytes(s));
}
