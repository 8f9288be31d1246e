using System.Collections;
using PdfSharp;
using PdfSharp.Drawing;
using PdfSharp.Pdf;

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

    /// <summary>Writes them.</summary>
    /// <param name="address">Where one signs in; also as a QR code.</param>
    /// <param name="letters">True for a page each.</param>
    public static void Write(Stream to, IReadOnlyList<PrintedSlip> slips, string school, string address, Paper paper, bool letters)
    {
        using var document = Drawn.Begin();
        document.Info.Title = $"Sign-in slips, {school}";
        var code = Drawn.CodeOf(address);
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
        Drawn.Code(on, code, inner.Right - 66, inner.Y - 8, 70);
        Drawn.Bold(on, s.Name, inner.Width - 70, 13, inner.X, inner.Y + 12);
        Drawn.Line(on, s.Grade is null ? school : $"{school}, grade {s.Grade}", 9, inner.X, inner.Y + 27);
        var y = inner.Y + 74;
        foreach (var (what, text) in new[] { ("Open", address), ("User name", s.UserName), ("First password", s.Password) })
        {
            Drawn.Line(on, what, 9, inner.X, y);
            Drawn.Bold(on, text, inner.Width - 84, 10, inner.X + 84, y);
            y += 18;
        }
        Drawn.Line(on, "You are asked for a password of your own the first time.", 7.5, inner.X, inner.Bottom);
    }

    private static void Letter(XGraphics on, PdfPage page, PrintedSlip s, string school, string address, IReadOnlyList<BitArray> code)
    {
        var (x, y) = (72.0, 110.0);
        Drawn.Line(on, school, 11, x, y);
        Drawn.Bold(on, s.Name, page.Width.Point - 144, 20, x, y += 44);
        if (s.Grade is not null) Drawn.Line(on, $"grade {s.Grade}", 11, x, y += 20);
        Drawn.Line(on, "This is how you sign in to Spring Loft for the first time.", 11, x, y += 44);
        foreach (var (what, text) in new[] { ("Open", address), ("User name", s.UserName), ("First password", s.Password) })
        {
            Drawn.Line(on, what, 11, x, y += 30);
            Drawn.Bold(on, text, page.Width.Point - 260, 14, x + 116, y);
        }
        Drawn.Line(on, "You are asked for a password of your own then; after that this one no longer works.", 10, x, y += 40);
        Drawn.Code(on, code, x - 12, y + 30, 140);
    }
}
