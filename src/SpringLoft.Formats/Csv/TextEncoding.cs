using System.Text;

namespace SpringLoft.Formats.Csv;

/// <summary>A text file as UTF-8, whatever it was written in.</summary>
/// <param name="Utf8">From the beginning.</param>
/// <param name="Said">What the file was written in, where that is not UTF-8; null where it is.</param>
public sealed record TextFile(Stream Utf8, string? Said);

/// <summary>
/// Finds out what a text file was written in: by its byte order mark (Unicode Standard, section 23.8), else UTF-8 if all of it
/// is valid UTF-8 (RFC 3629), else Windows-1252, which old office programs write.
/// </summary>
public static class TextEncoding
{
    static TextEncoding() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <summary>Reads a stream through once to find out; stands at its beginning afterwards.</summary>
    /// <param name="from">Seekable.</param>
    public static TextFile Open(Stream from)
    {
        Span<byte> head = stackalloc byte[3];
        from.Position = 0;
        var n = from.ReadAtLeast(head, 3, throwOnEndOfStream: false);
        from.Position = 0;
        if (n >= 3 && head is [0xEF, 0xBB, 0xBF]) return new(from, null);
        if (n >= 2 && head[..2] is [0xFF, 0xFE]) return Other(from, Encoding.Unicode, "UTF-16");
        if (n >= 2 && head[..2] is [0xFE, 0xFF]) return Other(from, Encoding.BigEndianUnicode, "UTF-16");
        var valid = IsUtf8(from);
        from.Position = 0;
        return valid ? new(from, null) : Other(from, Encoding.GetEncoding(1252), "Windows-1252");
    }

    private static TextFile Other(Stream from, Encoding encoding, string said) => new(Encoding.CreateTranscodingStream(from, encoding, new UTF8Encoding(false), leaveOpen: true), said);

    private static bool IsUtf8(Stream from)
    {
        var decoder = new UTF8Encoding(false, throwOnInvalidBytes: true).GetDecoder();
        var bytes = new byte[64 * 1024];
        var chars = new char[64 * 1024];
        try
        {
            int n;
            while ((n = from.Read(bytes)) > 0) decoder.GetChars(bytes, 0, n, chars, 0, flush: false);
            decoder.GetChars([], 0, 0, chars, 0, flush: true);
            return true;
        }
        catch (DecoderFallbackException) { return false; }
    }
}
