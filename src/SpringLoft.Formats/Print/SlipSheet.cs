using System.Collections;
using PdfSharp;
using PdfSharp.Drawing;
using PdfSharp.Fonts;
using PdfSharp.Pdf;
using QRCoder;

namespace SpringLoft.Formats.Print;

/// <summary>What stands on a sign-in slip.</summary>
/// <param name="Password">The first password.</param>
public sealed record PrintedSlip(string Name, string? Grade, string UserName, string Password);

/// <summary>The paper it is printed on.</summary>
public enum Paper { A4, Letter }

/// <summary>
/// Sign-in slips as PDF: eight to a page with lines to cut along, or a letter each. The typefaces that ship have Latin,
/// Greek, Cyrillic, Georgian, Hebrew, Arabic, Chinese, Japanese and Korean; of a name in other letters the
/// transliteration is printed.
/// </summary>
public static class SlipSheet
{
    private const int Across = 2, Down = 4;
    private static readonly Lock Setting = new();

    /// <summary>Writes them.</summary>
    /// <param name="address">Where one signs in; also as a QR code.</param>
    /// <param name="letters">True for a page each.</param>
    public static void Write(Stream to, IReadOnlyList<PrintedSlip> slips, string school, string address, Paper paper, bool letters)
    {
        lock (Setting) GlobalFontSettings.FontResolver ??= new Shipped();
        using var document = new PdfDocument();
        document.Info.Title = $"Sign-in slips, {school}";
        using var data = QRCodeGenerator.GenerateQrCode(address, QRCodeGenerator.ECCLevel.M);
        var code = data.ModuleMatrix;
        var perPage = letters ? 1 : Across * Down;
        foreach (var sheet in slips.Chunk(perPage))
        {
            var page = document.AddPage();
            page.Size = paper == Paper.A4 ? PageSize.A4 : PageSize.Letter;
            using var on = XGraphics.FromPdfPage(page);
            if (letters) Letter(on, page, sheet[0], school, address, code);
            else for (var i = 0; i < sheet.Length; i++) Slip(on, page, i, sheet[i], school, address, code);
        }
        document.Save(to, closeStream: false);
    }

    /// <summary>A name as it can be printed: itself, or its transliteration.</summary>
    public static string Printable(string name) => PrintedText.Printable(name);

    private static void Slip(XGraphics on, PdfPage page, int i, PrintedSlip s, string school, string address, IReadOnlyList<BitArray> code)
    {
        var (w, h) = (page.Width.Point / Across, page.Height.Point / Down);
        var box = new XRect(i % Across * w, i / Across * h, w, h);
        on.DrawRectangle(new XPen(XColors.Gray, 0.5) { DashStyle = XDashStyle.Dash }, box);
        var inner = new XRect(box.X + 22, box.Y + 20, box.Width - 44, box.Height - 40);
        Code(on, code, inner.Right - 66, inner.Y - 8, 70);
        Bold(on, s.Name, inner.Width - 70, 13, inner.X, inner.Y + 12);
        Line(on, s.Grade is null ? school : $"{school}, grade {s.Grade}", 9, inner.X, inner.Y + 27);
        var y = inner.Y + 74;
        foreach (var (what, text) in new[] { ("Open", address), ("User name", s.UserName), ("First password", s.Password) })
        {
            Line(on, what, 9, inner.X, y);
            Bold(on, text, inner.Width - 84, 10, inner.X + 84, y);
            y += 18;
        }
        Line(on, "You are asked for a password of your own the first time.", 7.5, inner.X, inner.Bottom);
    }

    private static void Letter(XGraphics on, PdfPage page, PrintedSlip s, string school, string address, IReadOnlyList<BitArray> code)
    {
        var (x, y) = (72.0, 110.0);
        Line(on, school, 11, x, y);
        Bold(on, s.Name, page.Width.Point - 144, 20, x, y += 44);
        if (s.Grade is not null) Line(on, $"grade {s.Grade}", 11, x, y += 20);
        Line(on, "This is how you sign in to Spring Loft for the first time.", 11, x, y += 44);
        foreach (var (what, text) in new[] { ("Open", address), ("User name", s.UserName), ("First password", s.Password) })
        {
            Line(on, what, 11, x, y += 30);
            Bold(on, text, page.Width.Point - 260, 14, x + 116, y);
        }
        Line(on, "You are asked for a password of your own then; after that this one no longer works.", 10, x, y += 40);
        Code(on, code, x - 12, y + 30, 140);
    }

    // Dark squares of a row that stand side by side are one bar; the white edge belongs to the code.
    private static void Code(XGraphics on, IReadOnlyList<BitArray> code, double x, double y, double size)
    {
        var step = size / code.Count;
        for (var row = 0; row < code.Count; row++)
            for (int from = 0, to; from < code.Count; from = to)
            {
                for (to = from + 1; to < code.Count && code[row][to] == code[row][from]; to++) { }
                if (code[row][from]) on.DrawRectangle(XBrushes.Black, x + (from * step), y + (row * step), (to - from) * step, step + 0.05);
            }
    }

    private static void Line(XGraphics on, string text, double size, double x, double y) => Draw(on, PrintedText.Runs(text), size, XFontStyleEx.Regular, x, y);

    // A long name is set smaller rather than cut off.
    private static void Bold(XGraphics on, string text, double width, double size, double x, double y)
    {
        var runs = PrintedText.Runs(text);
        while (size > 5 && runs.Sum(r => on.MeasureString(r.Text, new XFont(r.Family, size, XFontStyleEx.Bold)).Width) > width) size -= 0.5;
        Draw(on, runs, size, XFontStyleEx.Bold, x, y);
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
