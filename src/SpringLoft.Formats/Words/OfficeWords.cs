using System.IO.Compression;
using System.Text;
using System.Xml;
using SpringLoft.Core.Closing;

namespace SpringLoft.Formats.Words;

/// <summary>
/// The words in office files: Office Open XML (ISO/IEC 29500) and OpenDocument (ISO/IEC 26300). Of every part, who wrote it and
/// who last saved it too. Element names from the standards, from memory.
/// </summary>
internal static class OfficeWords
{
    // Where one of them ends, a word has ended: paragraphs, lines, tabs, cells, texts of a table; and all of a file's own properties.
    private static readonly HashSet<string> ends = ["p", "h", "br", "cr", "tab", "s", "line-break", "si", "is", "c", "v", "row", "comment", "author", "creator", "table-cell"];

    private static readonly HashSet<string> said = ["author", "initials", "descr", "title", "tooltip", "display"];

    // Parts in which words stand; and parts in which none of anybody's can.
    private static readonly string[] words = [".xml", ".vml"];
    private static readonly string[] wordless = [".rels", ".rdf", ".odttf", ".fntdata", "layout-cache", "Thumbnails/thumbnail.png"];

    // Bytes of all parts together, unpacked: many small ones swell as one large one does.
    private const long MostBytes = 16L * FileWords.Longest;

    internal static FileWords Read(Stream from)
    {
        try
        {
            using var zip = new ZipArchive(from, ZipArchiveMode.Read, leaveOpen: true);
            if (!zip.Entries.Any(e => e.FullName is "[Content_Types].xml" or "content.xml")) return new("", Unread.Kind);
            // An OpenDocument file whose parts are encrypted says so in its manifest.
            if (zip.GetEntry("META-INF/manifest.xml") is { } manifest && Part(manifest, FileWords.Longest, MostBytes, encryption: true).Words is null) return new("", Unread.Shut);
            var text = new StringBuilder();
            var left = MostBytes;
            foreach (var part in zip.Entries.Where(e => Ends(e, words)))
            {
                var (said, bytes) = Part(part, FileWords.Longest - text.Length, left, encryption: false);
                if (said is null) return new(text.ToString(), Unread.Long);
                left -= bytes;
                text.Append(said).Append('\n');
            }
            var more = zip.Entries.Any(e => e.Length > 0 && !Ends(e, words) && !Ends(e, wordless) && e.FullName != "mimetype");
            return new(text.ToString(), more ? Unread.Pictures : null);
        }
        catch (Exception e) when (e is InvalidDataException or XmlException or IOException or NotSupportedException) { return new("", Unread.Damaged); }
    }

    private static bool Ends(ZipArchiveEntry e, string[] with) => with.Any(w => e.FullName.EndsWith(w, StringComparison.OrdinalIgnoreCase));

    // The words of a part and how many bytes it took; none where it goes on beyond what may be read, or is a manifest of something encrypted.
    private static (string? Words, long Bytes) Part(ZipArchiveEntry part, int longest, long most, bool encryption)
    {
        var text = new StringBuilder();
        var own = part.FullName.StartsWith("docProps/", StringComparison.Ordinal) || part.FullName == "meta.xml";
        using var bytes = new Most(part.Open(), most);
        using var xml = XmlReader.Create(bytes, new() { DtdProcessing = DtdProcessing.Prohibit, XmlResolver = null, IgnoreComments = true, IgnoreProcessingInstructions = true });
        try
        {
            while (xml.Read())
            {
                if (text.Length > longest) return (null, bytes.Position);
                if (encryption && xml.LocalName == "encryption-data") return (null, bytes.Position);
                if (xml.NodeType is XmlNodeType.Text or XmlNodeType.CDATA or XmlNodeType.SignificantWhitespace) text.Append(xml.Value);
                if (xml.NodeType == XmlNodeType.Element)
                {
                    var (name, empty) = (xml.LocalName, xml.IsEmptyElement);
                    while (xml.MoveToNextAttribute())
                        if (said.Contains(xml.LocalName) || (xml.LocalName == "name" && name is "sheet" or "cmAuthor" or "table")) text.Append('\n').Append(xml.Value).Append('\n');
                    if (empty && ends.Contains(name)) text.Append('\n');
                }
                if (xml.NodeType == XmlNodeType.EndElement && (own || ends.Contains(xml.LocalName))) text.Append('\n');
            }
        }
        catch (TooMuchException) { return (null, bytes.Position); }
        return (text.ToString(), bytes.Position);
    }

    private sealed class TooMuchException : IOException;

    // A part that is a few bytes in the zip can be gigabytes outside.
    private sealed class Most(Stream inner, long longest) : Stream
    {
        private long read;

        public override bool CanRead => true;
        public override bool CanSeek => false;
        public override bool CanWrite => false;
        public override long Length => throw new NotSupportedException();
        public override long Position { get => read; set => throw new NotSupportedException(); }
        public override int Read(byte[] buffer, int offset, int count)
        {
            var n = inner.Read(buffer, offset, count);
            return (read += n) > longest ? throw new TooMuchException() : n;
        }

        public override void Flush() => throw new NotSupportedException();
        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();
        public override void SetLength(long value) => throw new NotSupportedException();
        public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
        protected override void Dispose(bool disposing)
        {
            if (disposing) inner.Dispose();
            base.Dispose(disposing);
        }
    }
}
