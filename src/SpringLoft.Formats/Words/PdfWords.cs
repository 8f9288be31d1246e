using System.IO.Compression;
using System.Text;
using SpringLoft.Core.Closing;
using UglyToad.PdfPig;
using UglyToad.PdfPig.AcroForms.Fields;
using UglyToad.PdfPig.Exceptions;
using UglyToad.PdfPig.Filters;
using UglyToad.PdfPig.Tokens;

namespace SpringLoft.Formats.Words;

/// <summary>The words in a PDF (ISO 32000): on its pages, in its notes and forms, and who it says wrote it.</summary>
internal static class PdfWords
{
    // A longer one is not read: all of it is held in memory for that.
    private const long LongestFile = 64L * 1024 * 1024;

    internal static FileWords Read(Stream from)
    {
        if (from.Length > LongestFile) return new("", Unread.Long);
        var text = new StringBuilder();
        var pictures = false;
        try
        {
            using var pdf = PdfDocument.Open(from, new() { UseLenientParsing = true, SkipMissingFonts = true, FilterProvider = Bounded.All });
            var about = pdf.Information;
            text.AppendJoin('\n', about.Title, about.Author, about.Subject, about.Keywords).Append('\n');
            foreach (var page in pdf.GetPages())
            {
                var before = text.Length;
                text.AppendJoin(' ', page.GetWords().Select(w => w.Text)).Append('\n');
                pictures |= page.NumberOfImages > 0 || text.Length == before + 1;
                text.AppendJoin('\n', page.GetAnnotations().Select(a => a.Content)).Append('\n');
                if (text.Length > FileWords.Longest) return new(text.ToString(), Unread.Long);
            }
            if (pdf.TryGetForm(out var form)) text.AppendJoin('\n', form.Fields.OfType<AcroTextField>().Select(f => f.Value));
            return new(text.ToString(), pictures ? Unread.Pictures : null);
        }
        catch (PdfDocumentEncryptedException) { return new("", Unread.Shut); }
        catch (TooMuchException) { return new(text.ToString(), Unread.Long); }
        // What a broken file makes its reader trip over has no kind of its own.
        catch (Exception e) when (e is not OutOfMemoryException) { return new(text.ToString(), e.InnerException is TooMuchException ? Unread.Long : Unread.Damaged); }
    }

    private sealed class TooMuchException : IOException;

    // The reader's own filters, but a stream that a few bytes swell to more than a page can need is not let out.
    private sealed class Bounded(IFilter inner) : IFilter
    {
        private const int LongestStream = 64 * 1024 * 1024;
        private const int LongestOther = 256 * 1024;

        internal static IFilterProvider All { get; } = new Provider();

        public bool IsSupported => inner.IsSupported;

        public Memory<byte> Decode(Memory<byte> input, DictionaryToken streamDictionary, IFilterProvider filterProvider, int filterIndex)
        {
            switch (inner)
            {
                case FlateFilter when Swollen(input): throw new TooMuchException();
                case LzwFilter or RunLengthFilter when input.Length > LongestOther: throw new TooMuchException();
                default: return inner.Decode(input, streamDictionary, filterProvider, filterIndex);
            }
        }

        private static bool Swollen(Memory<byte> input)
        {
            // What can't swell that far at the most that deflating does (RFC 1951: 1032 to one) needs no look.
            if (input.Length < LongestStream / 1032) return false;
            try
            {
                using var bytes = new ZLibStream(new MemoryStream(input.ToArray()), CompressionMode.Decompress);
                var buffer = new byte[64 * 1024];
                long all = 0;
                for (int n; (n = bytes.Read(buffer)) > 0;) if ((all += n) > LongestStream) return true;
                return false;
            }
            catch (InvalidDataException) { return false; }
        }

        private sealed class Provider : IFilterProvider
        {
            private static IReadOnlyList<IFilter> Of(IReadOnlyList<IFilter> filters) => [.. filters.Select(f => new Bounded(f))];

            public IReadOnlyList<IFilter> GetFilters(DictionaryToken dictionary) => Of(DefaultFilterProvider.Instance.GetFilters(dictionary));
            public IReadOnlyList<IFilter> GetNamedFilters(IReadOnlyList<NameToken> names) => Of(DefaultFilterProvider.Instance.GetNamedFilters(names));
            public IReadOnlyList<IFilter> GetAllFilters() => Of(DefaultFilterProvider.Instance.GetAllFilters());
        }
    }
}
