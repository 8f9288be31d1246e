using System.Globalization;
using System.Net;
using System.Text;
using NodaTime;

namespace SpringLoft.Formats.Print;

/// <summary>A piece of work on the index page.</summary>
/// <param name="Mark">"14 of 20"; null without one.</param>
/// <param name="Comments">Who said what.</param>
/// <param name="Files">Name and path inside the zip.</param>
public sealed record PageWork(string Title, string State, string? Mark, IReadOnlyList<(string Author, string Text)> Comments, IReadOnlyList<(string Name, string Path)> Files);

/// <summary>A class on the index page.</summary>
/// <param name="Others">Files of own folders and what the student added.</param>
public sealed record PageClass(string Name, string Teacher, IReadOnlyList<PageWork> Work, IReadOnlyList<(string Name, string Path)> Others)
{
    /// <summary>What the student wrote in places to talk, the oldest first.</summary>
    public IReadOnlyList<(LocalDate Day, string Place, string Text)> Wrote { get; init; } = [];
}

/// <summary>The page at the top of a take-home: plain HTML that opens from the disk without a network, script or font from elsewhere.</summary>
public static class TakeHomePage
{
    private const string Style =
        """
        :root{color-scheme:light dark;--ink:#1d2a30;--soft:#5a666b;--paper:#fbf8f1;--line:#e2dacb;--strong:#155a63}
        @media(prefers-color-scheme:dark){:root{--ink:#ece7dc;--soft:#a9b1b0;--paper:#161d20;--line:#364146;--strong:#7fc4cd}}
        body{font:17px/1.5 "Atkinson Hyperlegible Next","Segoe UI",system-ui,sans-serif;color:var(--ink);background:var(--paper);max-width:46rem;margin:0 auto;padding:2rem 1.2rem}
        h1{font-size:1.9rem;line-height:1.15;margin:0 0 .2rem}h2{font-size:1.25rem;margin:2.2rem 0 .3rem;border-bottom:1px solid var(--line);padding-bottom:.3rem}h3{font-size:1rem;margin:1rem 0 .1rem}
        p{margin:.2rem 0}.soft{color:var(--soft)}ul{margin:.2rem 0;padding-left:1.2rem}a{color:var(--strong)}blockquote{margin:.3rem 0 .3rem .2rem;padding-left:.8rem;border-left:3px solid var(--line)}
        """;

    /// <summary>Writes the page, as UTF-8.</summary>
    /// <param name="madeOn">As it is to be told.</param>
    public static byte[] Write(string student, string school, string year, LocalDate madeOn, IReadOnlyList<PageClass> classes)
    {
        var h = new StringBuilder();
        h.Append(CultureInfo.InvariantCulture, $"<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" content=\"width=device-width\"><title>{E(student)}, {E(year)}</title><style>{Style}</style></head><body>\n");
        h.Append(CultureInfo.InvariantCulture, $"<h1>{E(student)}</h1>\n<p class=\"soft\">Own work of school year {E(year)}, {E(school)}. Made on {madeOn:d MMMM uuuu}. This page needs no network.</p>\n");
        foreach (var k in classes)
        {
            h.Append(CultureInfo.InvariantCulture, $"<h2>{E(k.Name)}</h2>\n<p class=\"soft\">{E(k.Teacher)}</p>\n");
            foreach (var w in k.Work)
            {
                h.Append(CultureInfo.InvariantCulture, $"<h3>{E(w.Title)}</h3>\n<p class=\"soft\">{E(w.State)}{(w.Mark is { } m ? $", {E(m)}" : "")}</p>\n");
                Files(h, w.Files);
                foreach (var (author, text) in w.Comments) h.Append(CultureInfo.InvariantCulture, $"<blockquote><p>{E(text)}</p><p class=\"soft\">{E(author)}</p></blockquote>\n");
            }
            if (k.Others.Count > 0) h.Append("<h3>Own folder and what you added</h3>\n");
            Files(h, k.Others);
            if (k.Wrote.Count > 0) h.Append("<h3>What you wrote in talk</h3>\n");
            foreach (var (day, place, text) in k.Wrote) h.Append(CultureInfo.InvariantCulture, $"<blockquote><p>{E(text)}</p><p class=\"soft\">{E(place)}, {day:d MMMM uuuu}</p></blockquote>\n");
        }
        h.Append("</body></html>\n");
        return Encoding.UTF8.GetBytes(h.ToString());
    }

    private static void Files(StringBuilder h, IReadOnlyList<(string Name, string Path)> files)
    {
        if (files.Count == 0) return;
        h.Append("<ul>");
        foreach (var (name, path) in files) h.Append(CultureInfo.InvariantCulture, $"<li><a href=\"{E(string.Join('/', path.Split('/').Select(Uri.EscapeDataString)))}\">{E(name)}</a></li>");
        h.Append("</ul>\n");
    }

    private static string E(string text) => WebUtility.HtmlEncode(text);
}
