using SpringLoft.Core.Closing;
using SpringLoft.Formats.Csv;

namespace SpringLoft.Formats.Words;

/// <summary>The words in a file.</summary>
/// <param name="Text">All that was read; words that do not belong together are parted by a space or a new line.</param>
/// <param name="Not">Why something of it, or all, was not read; null where all was.</param>
public sealed record FileWords(string Text, Unread? Not)
{
    /// <summary>Characters that are read of one file; one that holds more is said to be too long.</summary>
    public const int Longest = 4_000_000;

    // What is looked at to tell a kind.
    private const int Head = 1024;

    /// <summary>
    /// Reads a file by what is in it, never by what it says it is: plain text, HTML, PDF, office files of ISO/IEC 29500 and of
    /// ISO/IEC 26300. Never throws for what is in it.
    /// </summary>
    /// <param name="from">Seekable; read from its beginning.</param>
    public static FileWords Read(Stream from)
    {
        from.Position = 0;
        Span<byte> bytes = stackalloc byte[Head];
        var head = bytes[..from.ReadAtLeast(bytes, Head, throwOnEndOfStream: false)];
        from.Position = 0;
        if (head.IndexOf("%PDF-"u8) >= 0) return PdfWords.Read(from);
        if (head.StartsWith("PK\u0003\u0004"u8)) return OfficeWords.Read(from);
        if (head.StartsWith("{\\rtf"u8)) return new("", Unread.Kind);
        var wide = head.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xFE]) || head.StartsWith((ReadOnlySpan<byte>)[0xFE, 0xFF]);
        if (!wide && head.Contains((byte)0)) return new("", Unread.Kind);
        return Plain(from);
    }

    // Where there may be tags, the words without them are read beside all that is written: a name in a comment leaves with the file too.
    private static FileWords Plain(Stream from)
    {
        using var reader = new StreamReader(TextEncoding.Open(from).Utf8, leaveOpen: true);
        var text = new char[Longest + 1];
        var n = reader.ReadBlock(text, 0, text.Length);
        var read = new string(text, 0, Math.Min(n, Longest));
        if (read.Contains('\0', StringComparison.Ordinal)) return new("", Unread.Kind);
        var words = read.Contains('<', StringComparison.Ordinal) ? $"{HtmlWords.Of(read)}\n{read}" : read;
        return new(words, n > Longest ? Unread.Long : null);
    }
}
