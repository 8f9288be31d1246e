using System.Buffers;
using System.Text;

namespace SpringLoft.Formats.Looks;

/// <summary>How a file can be looked at in the page, without a program of its own.</summary>
public enum FileLook
{
    /// <summary>Not at all: it is downloaded.</summary>
    Download,
    Text,
    Image,
    Pdf,
    Sound,
    Video,
}

/// <summary>
/// Decides by what is in a file, never by what it says it is: a page with a script that is called a picture is no picture.
/// Source of the signatures: WHATWG MIME Sniffing Standard, sections 6.1 and 6.2; of %PDF-, section 7.1 there.
/// </summary>
public static class FileLooks
{
    /// <summary>Bytes of the beginning that are enough to decide.</summary>
    public const int Head = 4096;

    // Plain text that people write or that programs of a lesson are written in; what a browser would run is not among them.
    private static readonly HashSet<string> texts = new(StringComparer.OrdinalIgnoreCase)
    {
        ".txt", ".md", ".csv", ".tsv", ".log", ".json", ".py", ".java", ".c", ".cpp", ".h", ".cs", ".sql", ".tex", ".srt", ".rb", ".go", ".rs",
    };

    private static readonly SearchValues<byte> controls = SearchValues.Create([0, 1, 2, 3, 4, 5, 6, 7, 8, 11, 12, 14, 15, 16, 17, 18, 19, 20, 21, 22, 23, 24, 25, 26, 28, 29, 30, 31, 127]);

    /// <summary>How it can be looked at, and as which media type it is then sent.</summary>
    /// <param name="name">With its extension.</param>
    /// <param name="head">The first <see cref="Head"/> bytes, or all where there are fewer.</param>
    public static (FileLook Look, string MediaType) Of(string name, ReadOnlySpan<byte> head)
    {
        if (Png(head)) return (FileLook.Image, "image/png");
        if (head.Length > 2 && head[0] == 0xFF && head[1] == 0xD8 && head[2] == 0xFF) return (FileLook.Image, "image/jpeg");
        if (head.StartsWith("GIF87a"u8) || head.StartsWith("GIF89a"u8)) return (FileLook.Image, "image/gif");
        if (head.Length > 11 && head.StartsWith("RIFF"u8))
        {
            if (head[8..].StartsWith("WEBP"u8)) return (FileLook.Image, "image/webp");
            if (head[8..].StartsWith("WAVE"u8)) return (FileLook.Sound, "audio/wav");
        }
        if (head.StartsWith("%PDF-"u8)) return (FileLook.Pdf, "application/pdf");
        if (head.StartsWith("ID3"u8) || Frame(name, head)) return (FileLook.Sound, "audio/mpeg");
        if (head.StartsWith("OggS\0"u8)) return (FileLook.Sound, "audio/ogg");
        if (head.StartsWith("fLaC"u8)) return (FileLook.Sound, "audio/flac");
        if (head.Length > 3 && head[0] == 0x1A && head[1] == 0x45 && head[2] == 0xDF && head[3] == 0xA3) return (FileLook.Video, "video/webm");
        if (head.Length > 11 && head[4..].StartsWith("ftyp"u8)) return OfBrand(head.Slice(8, 4));
        return texts.Contains(Path.GetExtension(name)) && IsText(head) ? (FileLook.Text, "text/plain; charset=utf-8") : (FileLook.Download, "application/octet-stream");
    }

    private static bool Png(ReadOnlySpan<byte> head) => head.StartsWith((ReadOnlySpan<byte>)[0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A]);

    // A frame of sound begins with eleven bits set; so few that the name is asked too.
    private static bool Frame(string name, ReadOnlySpan<byte> head) =>
        head.Length > 1 && head[0] == 0xFF && (head[1] & 0xE0) == 0xE0 && Path.GetExtension(name).Equals(".mp3", StringComparison.OrdinalIgnoreCase);

    // Photos of some telephones are in the same box as films: no browser of a school shows them all.
    private static (FileLook, string) OfBrand(ReadOnlySpan<byte> brand)
    {
        if (brand.StartsWith("M4A"u8)) return (FileLook.Sound, "audio/mp4");
        return brand.StartsWith("mp4"u8) || brand.StartsWith("iso"u8) || brand.StartsWith("avc1"u8) || brand.StartsWith("M4V"u8) || brand.StartsWith("qt"u8) || brand.StartsWith("dash"u8)
            ? (FileLook.Video, "video/mp4") : (FileLook.Download, "application/octet-stream");
    }

    private static bool IsText(ReadOnlySpan<byte> head)
    {
        if (head.ContainsAny(controls)) return false;
        while (!head.IsEmpty)
        {
            var status = Rune.DecodeFromUtf8(head, out _, out var read);
            // A letter that is cut where the beginning ends is none that is wrong.
            if (status == OperationStatus.NeedMoreData) return head.Length < 4;
            if (status != OperationStatus.Done) return false;
            head = head[read..];
        }
        return true;
    }
}
