using PdfSharp;
using PdfSharp.Drawing;

namespace SpringLoft.Formats.Print;

/// <summary>A line of a list.</summary>
/// <param name="Depth">How deep it stands under the lines before it.</param>
public sealed record PrintedLine(string Text, int Depth = 0);

/// <summary>A part of a list.</summary>
/// <param name="None">Said where it has no line; null to leave the part out then.</param>
public sealed record PrintedPart(string Title, IReadOnlyList<PrintedLine> Lines, string? None = null);

/// <summary>A list that begins a page of its own.</summary>
/// <param name="Above">Small, over its name.</param>
/// <param name="Below">Small, under its name.</param>
public sealed record PrintedList(string Above, string Name, string Below, IReadOnlyList<PrintedPart> Parts);

/// <summary>Lists on paper: long lines are wrapped, and what does not fit goes on on the next page under the same name.</summary>
public static class ListSheet
{
    private const double Margin = 48;

    /// <summary>Writes them.</summary>
    /// <param name="size">Of the text, in points; the name is larger.</param>
    public static void Write(Stream to, string title, IReadOnlyList<PrintedList> lists, Paper paper, double size)
    {
        using var document = Drawn.Begin();
        document.Info.Title = title;
        foreach (var list in lists)
        {
            var (y, on, bottom) = (0d, (XGraphics?)null, 0d);
            void Page()
            {
                on?.Dispose();
                var page = document.AddPage();
                page.Size = paper == Paper.A4 ? PageSize.A4 : PageSize.Letter;
                on = XGraphics.FromPdfPage(page);
                bottom = page.Height.Point - Margin;
                var width = page.Width.Point - (2 * Margin);
                y = Margin;
                if (list.Above.Length > 0) Drawn.Bold(on, list.Above, width, size * 0.85, Margin, y);
                Drawn.Bold(on, list.Name, width, size * 1.7, Margin, y += size * 2.1);
                y += size * 0.4;
                foreach (var line in Drawn.Wrapped(on, list.Below, width, size * 0.85)) Drawn.Line(on, line, size * 0.85, Margin, y += size * 1.2);
            }
            // A heading is not left alone at the foot of a page.
            void Room(double lines)
            {
                if (on is null || y + (lines * size * 1.45) > bottom) Page();
            }
            Page();
            foreach (var part in list.Parts.Where(p => p.Lines.Count > 0 || p.None is not null))
            {
                Room(3.5);
                Drawn.Bold(on!, part.Title, on!.PageSize.Width - (2 * Margin), size * 1.1, Margin, y += size * 2.2);
                y += size * 0.2;
                foreach (var line in part.Lines.Count > 0 ? part.Lines : [new(part.None!)])
                {
                    var x = Margin + (Math.Min(line.Depth, 8) * size * 1.4);
                    foreach (var text in Drawn.Wrapped(on!, line.Text, on!.PageSize.Width - Margin - x, size))
                    {
                        Room(1);
                        Drawn.Line(on!, text, size, x, y += size * 1.45);
                    }
                }
            }
            on?.Dispose();
        }
        document.Save(to, closeStream: false);
    }
}
