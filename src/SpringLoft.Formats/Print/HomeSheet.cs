using PdfSharp;
using PdfSharp.Drawing;

namespace SpringLoft.Formats.Print;

/// <summary>What stands on a paper for a home.</summary>
/// <param name="Address">What the QR code leads to: with the code in it.</param>
public sealed record PrintedHome(string Name, string? Grade, string Code, string Address);

/// <summary>Papers by which homes acknowledge something, four to a page with lines to cut along: an address, a code, and a line to sign for who has no way to open it.</summary>
public static class HomeSheet
{
    private const int Down = 4;

    /// <summary>Writes them.</summary>
    /// <param name="title">Of what is to be read.</param>
    /// <param name="until">By when, in words; null for no day.</param>
    /// <param name="address">Where a code is typed.</param>
    public static void Write(Stream to, IReadOnlyList<PrintedHome> papers, string school, string className, string title, string? until, string address, Paper paper)
    {
        using var document = Drawn.Begin();
        document.Info.Title = $"To acknowledge at home: {title}, {school}";
        foreach (var sheet in papers.Chunk(Down))
        {
            var page = document.AddPage();
            page.Size = paper == Paper.A4 ? PageSize.A4 : PageSize.Letter;
            using var on = XGraphics.FromPdfPage(page);
            var h = page.Height.Point / Down;
            for (var i = 0; i < sheet.Length; i++) One(on, new XRect(0, i * h, page.Width.Point, h), sheet[i], school, className, title, until, address);
        }
        document.Save(to, closeStream: false);
    }

    private static void One(XGraphics on, XRect box, PrintedHome p, string school, string className, string title, string? until, string address)
    {
        on.DrawRectangle(new XPen(XColors.Gray, 0.5) { DashStyle = XDashStyle.Dash }, box);
        var (x, y, width) = (box.X + 40, box.Y + 34, box.Width - 80);
        Drawn.Code(on, Drawn.CodeOf(p.Address), box.Right - 134, box.Y + 22, 100);
        Drawn.Bold(on, p.Name, width - 110, 13, x, y);
        Drawn.Line(on, p.Grade is null ? $"{school}, {className}" : $"{school}, grade {p.Grade}, {className}", 9, x, y += 15);
        Drawn.Line(on, "Please read this at home and say that you have:", 9.5, x, y += 26);
        Drawn.Bold(on, title, width - 110, 12, x, y += 17);
        if (until is not null) Drawn.Line(on, until, 9.5, x, y + 15);
        y += 36;
        foreach (var (what, text) in new[] { ("Open", address), ("Code", p.Code) })
        {
            Drawn.Line(on, what, 9, x, y);
            Drawn.Bold(on, text, width - 60, 12, x + 44, y);
            y += 18;
        }
        Drawn.Line(on, "The code is for this student alone. Or sign here and send the paper back:", 8, x, y + 4);
        on.DrawLine(new XPen(XColors.Gray, 0.5), x + 300, y + 4, x + width, y + 4);
    }
}
