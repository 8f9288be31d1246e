using System.Collections;
using PdfSharp.Drawing;
using PdfSharp.Fonts;
using PdfSharp.Pdf;
using QRCoder;

namespace SpringLoft.Formats.Print;

/// <summary>What printed papers are drawn from: lines of text in the typefaces that ship, and QR codes.</summary>
internal static class Drawn
{
    private static readonly Lock Setting = new();

    /// <summary>A new document, with the typefaces set.</summary>
    internal static PdfDocument Begin()
    {
        lock (Setting) GlobalFontSettings.FontResolver ??= new Shipped();
        return new PdfDocument();
    }

    /// <summary>An address as the squares of a QR code, error correction M.</summary>
    internal static IReadOnlyList<BitArray> CodeOf(string address)
    {
        using var data = QRCodeGenerator.GenerateQrCode(address, QRCodeGenerator.ECCLevel.M);
        return data.ModuleMatrix;
    }

    // Dark squares of a row that stand side by side are one bar; the white edge belongs to the code.
    internal static void Code(XGraphics on, IReadOnlyList<BitArray> code, double x, double y, double size)
    {
        var step = size / code.Count;
        for (var row = 0; row < code.Count; row++)
            for (int from = 0, to; from < code.Count; from = to)
            {
                for (to = from + 1; to < code.Count && code[row][to] == code[row][from]; to++) { }
                if (code[row][from]) on.DrawRectangle(XBrushes.Black, x + (from * step), y + (row * step), (to - from) * step, step + 0.05);
            }
    }

    internal static void Line(XGraphics on, string text, double size, double x, double y) => Draw(on, PrintedText.Runs(text), size, XFontStyleEx.Regular, x, y);

    // A long name is set smaller rather than cut off.
    internal static void Bold(XGraphics on, string text, double width, double size, double x, double y)
    {
        var runs = PrintedText.Runs(text);
        while (size > 5 && runs.Sum(r => on.MeasureString(r.Text, new XFont(r.Family, size, XFontStyleEx.Bold)).Width) > width) size -= 0.5;
        Draw(on, runs, size, XFontStyleEx.Bold, x, y);
    }

    /// <summary>The text in lines that are no wider than that; a word that is wider by itself is cut.</summary>
    internal static IReadOnlyList<string> Wrapped(XGraphics on, string text, double width, double size)
    {
        double Wide(string part) => PrintedText.Runs(part).Sum(r => on.MeasureString(r.Text, new XFont(r.Family, size)).Width);
        var lines = new List<string>();
        var line = "";
        foreach (var word in text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries))
        {
            if (line.Length > 0 && Wide($"{line} {word}") <= width) { line = $"{line} {word}"; continue; }
            if (line.Length > 0) lines.Add(line);
            var rest = word;
            while (rest.Length > 1 && Wide(rest) > width)
            {
                var most = rest.Length - 1;
                while (most > 1 && Wide(Core.Naming.Cut.Whole(rest, 0, most)) > width) most--;
                var part = Core.Naming.Cut.Whole(rest, 0, Math.Max(most, char.IsHighSurrogate(rest[0]) ? 2 : 1));
                lines.Add(part);
                rest = rest[part.Length..];
            }
            line = rest;
        }
        if (line.Length > 0) lines.Add(line);
        return lines;
    }

    private static void Draw(XGraphics on, IReadOnlyList<PrintedRun> runs, double size, XFontStyleEx style, double x, double y)
    {
        foreach (var r in runs)
        {
            var font = new XFont(r.Family, size, style);
            on.DrawString(r.Text, font, XBrushes.Black, x, y);
            x += on.MeasureString(r.Text, font).Width;
        }
    }

    private sealed class Shipped : IFontResolver
    {
        public FontResolverInfo? ResolveTypeface(string familyName, bool isBold, bool isItalic) => familyName switch
        {
            PrintedText.Han => new("DroidSansFallbackFull", mustSimulateBold: isBold, mustSimulateItalic: false),
            PrintedText.Hangul => new("NanumGothicBold"),
            _ => new(isBold ? "DejaVuSans-Bold" : "DejaVuSans"),
        };

        public byte[] GetFont(string faceName)
        {
            using var from = typeof(Shipped).Assembly.GetManifestResourceStream($"SpringLoft.Formats.Print.Fonts.{faceName}.ttf")!;
            using var to = new MemoryStream();
            from.CopyTo(to);
            return to.ToArray();
        }
    }
}
