using System.Globalization;
using System.Net;
using System.Text;
using NodaTime;

namespace SpringLoft.Formats.Print;

/// <summary>A thing on a shelf's page.</summary>
/// <param name="Place">The folders that it stands in, parted by "/"; empty for the top.</param>
/// <param name="Url">For a link; null for a file.</param>
public sealed record ShelfPageThing(string Place, string Name, string? Url);

/// <summary>The cover page of an open shelf or a showcase: plain HTML without script, that opens anywhere.</summary>
public static class ShelfPage
{
    private const string Style =
        """
        :root{color-scheme:light dark;--ink:#1d2a30;--soft:#5a666b;--paper:#fbf8f1;--card:#fffdf8;--line:#e2dacb;--strong:#155a63}
        @media(prefers-color-scheme:dark){:root{--ink:#ece7dc;--soft:#a9b1b0;--paper:#161d20;--card:#1c2427;--line:#364146;--strong:#7fc4cd}}
        body{font:17px/1.5 "Atkinson Hyperlegible Next","Segoe UI",system-ui,sans-serif;color:var(--ink);background:var(--paper);max-width:44rem;margin:0 auto;padding:2.4rem 1.2rem}
        h1{font-size:2.1rem;line-height:1.1;margin:0}h2{font-size:1.05rem;margin:1.8rem 0 .2rem;border-bottom:2px solid var(--line);padding-bottom:.2rem}
        .soft{color:var(--soft)}p{margin:.4rem 0;white-space:pre-line}ul{list-style:none;margin:0;padding:0}li{border-bottom:1px solid var(--line)}li a{display:block;padding:.45rem 0;color:var(--strong)}
        """;

    /// <summary>Writes the page, as UTF-8.</summary>
    /// <param name="until">The last day on which it opens; null for a page in a zip.</param>
    /// <param name="path">Where a file of it is fetched.</param>
    public static byte[] Write(string title, string text, string school, LocalDate? until, IReadOnlyList<ShelfPageThing> things, Func<ShelfPageThing, string> path)
    {
        var h = new StringBuilder();
        h.Append(CultureInfo.InvariantCulture, $"<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" content=\"width=device-width\"><meta name=\"robots\" content=\"noindex\"><title>{E(title)}</title><style>{Style}</style></head><body><main>\n");
        h.Append(CultureInfo.InvariantCulture, $"<p class=\"soft\">{E(school)}</p><h1>{E(title)}</h1>\n{(text.Length > 0 ? $"<p>{E(text)}</p>\n" : "")}");
        if (until is { } day) h.Append(CultureInfo.InvariantCulture, $"<p class=\"soft\">Open until {day:d MMMM uuuu}. To read, not to change.</p>\n");
        foreach (var place in things.GroupBy(t => t.Place))
        {
            h.Append(CultureInfo.InvariantCulture, $"<h2>{(place.Key.Length == 0 ? "Here" : E(place.Key.Replace("/", " / ", StringComparison.Ordinal)))}</h2><ul>\n");
            foreach (var t in place)
                h.Append(CultureInfo.InvariantCulture, $"<li><a href=\"{E(t.Url ?? string.Join('/', path(t).Split('/').Select(Uri.EscapeDataString)))}\"{(t.Url is null ? "" : " rel=\"noopener noreferrer\"")}>{E(t.Name)}</a></li>\n");
            h.Append("</ul>\n");
        }
        h.Append("</main></body></html>\n");
        return Encoding.UTF8.GetBytes(h.ToString());
    }

    /// <summary>The page that stands where a shelf is shut.</summary>
    public static byte[] Shut(string school) => Encoding.UTF8.GetBytes(
        $"<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" content=\"width=device-width\"><meta name=\"robots\" content=\"noindex\"><title>Not open</title><style>{Style}</style></head><body><main><p class=\"soft\">{E(school)}</p><h1>This shelf is not open</h1><p>It was shut, or its last day is over. Ask the teacher who gave you the address.</p></main></body></html>\n");

    private static string E(string text) => WebUtility.HtmlEncode(text);
}
