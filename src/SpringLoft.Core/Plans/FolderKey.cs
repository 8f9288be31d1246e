using System.Diagnostics.CodeAnalysis;
using System.Globalization;
using System.Text;
using NodaTime.Text;

namespace SpringLoft.Core.Plans;

/// <summary>Which of the folders that a line of a plan stands for.</summary>
public abstract record FolderMark
{
    private FolderMark() { }

    /// <summary>Of the term with this name.</summary>
    public sealed record Term(string Name) : FolderMark;

    /// <summary>Of a school week by its number through the year, 1 and up, or of one weekday in it.</summary>
    public sealed record Week(int Ordinal, IsoDayOfWeek? Day = null) : FolderMark;

    /// <summary>Of a week that the calendar no longer has, by the day on which it began.</summary>
    public sealed record GoneWeek(LocalDate Began, IsoDayOfWeek? Day = null) : FolderMark;

    /// <summary>Of an entry of the line's list.</summary>
    public sealed record Entry(string Name) : FolderMark;

    /// <summary>Of a group.</summary>
    public sealed record Group(GroupId Id) : FolderMark;

    /// <summary>Of a student.</summary>
    public sealed record Student(PersonId Id) : FolderMark;
}

/// <summary>A line of a plan, and which of its folders; null for a line that stands once.</summary>
public sealed record FolderKeyPart(string Line, FolderMark? Mark);

/// <summary>
/// Where a folder stands in its plan: line by line from the top, and for which week, day, term, entry, group or student.
/// With it a folder is found again when the plan is put once more. Two keys are the same if all their parts are.
/// </summary>
public sealed class FolderKey : IEquatable<FolderKey>
{
    private static readonly LocalDatePattern Compact = LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd");

    private FolderKey(IReadOnlyList<FolderKeyPart> parts, string? text = null)
    {
        Parts = parts;
        Text = text ?? string.Join('/', parts.Select(Write));
    }

    /// <summary>From the top down; one at the least.</summary>
    public IReadOnlyList<FolderKeyPart> Parts { get; }

    /// <summary>
    /// The key as it is kept: parts with slashes between, a mark after a colon, its kind by its first letter. Slashes, colons
    /// and percent signs of names are written as percent and two hexadecimal digits, so that no name can be taken for a mark.
    /// Keys of folders inside a folder begin with that one's text and a slash.
    /// </summary>
    public string Text { get; }

    /// <summary>The key of a line at the top of a plan.</summary>
    public static FolderKey Top(string line, FolderMark? mark = null) => new([new(line, mark)]);

    /// <summary>The key of a line inside this one.</summary>
    public FolderKey Below(string line, FolderMark? mark = null) => new([.. Parts, new(line, mark)]);

    /// <summary>The key of the folder that this one stands in; null at the top.</summary>
    public FolderKey? Parent => Parts.Count == 1 ? null : new([.. Parts.Take(Parts.Count - 1)]);

    /// <summary>The same place with other marks.</summary>
    public FolderKey With(Func<FolderMark, FolderMark> change) => new([.. Parts.Select(p => p.Mark is { } m ? p with { Mark = change(m) } : p)]);

    /// <summary>Reads what <see cref="Text"/> gives.</summary>
    /// <exception cref="FormatException">It is no such text.</exception>
    public static FolderKey Parse(string text) => TryParse(text, out var key) ? key : throw new FormatException($"“{text}” is no key of a folder.");

    /// <summary>Reads what <see cref="Text"/> gives; false for anything else.</summary>
    public static bool TryParse(string text, [NotNullWhen(true)] out FolderKey? key)
    {
        var parts = new List<FolderKeyPart>();
        key = null;
        foreach (var part in text.Split('/'))
        {
            var at = part.IndexOf(':', StringComparison.Ordinal);
            FolderMark? mark = null;
            if (at >= 0 && (mark = Mark(part[(at + 1)..])) is null) return false;
            var read = new FolderKeyPart(Plain(at < 0 ? part : part[..at]), mark);
            // Only the one way in which a key is written is a key: two texts are never the same place.
            if (!IsPlainlyOne(part, at, mark) && Write(read) != part) return false;
            parts.Add(read);
        }
        key = new FolderKey(parts, text);
        return true;
    }

    // Names without anything escaped are written as they are: nothing has to be written anew to see that. Of 20,000 folders that is much.
    private static bool IsPlainlyOne(string part, int at, FolderMark? mark) =>
        (mark is null or FolderMark.Term or FolderMark.Entry) && !part.Contains('%', StringComparison.Ordinal) && (at < 0 || part.IndexOf(':', at + 1) < 0);

    /// <inheritdoc/>
    public bool Equals(FolderKey? other) => other is not null && Text == other.Text;

    /// <inheritdoc/>
    public override bool Equals(object? obj) => Equals(obj as FolderKey);

    /// <inheritdoc/>
    public override int GetHashCode() => Text.GetHashCode(StringComparison.Ordinal);

    /// <summary>Are both the same place?</summary>
    public static bool operator ==(FolderKey? a, FolderKey? b) => a is null ? b is null : a.Equals(b);

    /// <summary>Are they two places?</summary>
    public static bool operator !=(FolderKey? a, FolderKey? b) => !(a == b);

    /// <inheritdoc/>
    public override string ToString() => Text;

    private static string Write(FolderKeyPart part) => part.Mark is null ? Escaped(part.Line) : $"{Escaped(part.Line)}:{Write(part.Mark)}";

    private static string Write(FolderMark mark) => mark switch
    {
        FolderMark.Term t => $"t{Escaped(t.Name)}",
        FolderMark.Week w => string.Create(CultureInfo.InvariantCulture, $"w{w.Ordinal}{Day(w.Day)}"),
        FolderMark.GoneWeek g => $"x{Compact.Format(g.Began)}{Day(g.Day)}",
        FolderMark.Entry e => $"e{Escaped(e.Name)}",
        FolderMark.Group g => string.Create(CultureInfo.InvariantCulture, $"g{g.Id.Value}"),
        FolderMark.Student s => string.Create(CultureInfo.InvariantCulture, $"s{s.Id.Value}"),
        _ => throw new ArgumentOutOfRangeException(nameof(mark)),
    };

    private static string Day(IsoDayOfWeek? day) => day is { } d ? string.Create(CultureInfo.InvariantCulture, $"-{(int)d}") : "";

    private static FolderMark? Mark(string text)
    {
        if (text.Length == 0) return null;
        var rest = text[1..];
        IsoDayOfWeek? day = null;
        if (text[0] is 'w' or 'x' && rest.Length > 2 && rest[^2] == '-' && rest[^1] is >= '1' and <= '7') (day, rest) = ((IsoDayOfWeek)(rest[^1] - '0'), rest[..^2]);
        return text[0] switch
        {
            't' => new FolderMark.Term(Plain(rest)),
            'e' => new FolderMark.Entry(Plain(rest)),
            'w' => Number(rest) is { } n and <= int.MaxValue ? new FolderMark.Week((int)n, day) : null,
            'x' => Compact.Parse(rest) is { Success: true } began ? new FolderMark.GoneWeek(began.Value, day) : null,
            'g' => Number(rest) is { } g ? new FolderMark.Group(new(g)) : null,
            's' => Number(rest) is { } s ? new FolderMark.Student(new(s)) : null,
            _ => null,
        };
    }

    private static long? Number(string text) => long.TryParse(text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var n) ? n : null;

    private static string Escaped(string name)
    {
        if (name.AsSpan().IndexOfAny('%', '/', ':') < 0) return name;
        return name.Replace("%", "%25", StringComparison.Ordinal).Replace("/", "%2F", StringComparison.Ordinal).Replace(":", "%3A", StringComparison.Ordinal);
    }

    private static string Plain(string text)
    {
        if (!text.Contains('%', StringComparison.Ordinal)) return text;
        var to = new StringBuilder(text.Length);
        for (var i = 0; i < text.Length; i++)
        {
            var known = i + 2 < text.Length && text[i] == '%' ? text.AsSpan(i, 3) switch { "%25" => '%', "%2F" => '/', "%3A" => ':', _ => '\0' } : '\0';
            if (known != '\0') i += 2;
            to.Append(known == '\0' ? text[i] : known);
        }
        return to.ToString();
    }
}
