using System.Globalization;
using System.Net;
using System.Text;
using NodaTime;

namespace SpringLoft.Formats.Print;

/// <summary>A file, or an address elsewhere, that a page leads to.</summary>
/// <param name="To">A path beside the page, forward slashes; or an address, which leads on only with http or https.</param>
/// <param name="Outside">Is it an address?</param>
public sealed record PageLink(string Name, string To, bool Outside = false);

/// <summary>What the pages have in common that open from a disk: no script, nothing from a network, light and dark, narrow and on paper.</summary>
internal static class OfflinePage
{
    private const string Style =
        """
        :root{color-scheme:light dark;--ink:#1d2a30;--soft:#5a666b;--paper:#fbf8f1;--line:#e2dacb;--strong:#155a63}
        @media(prefers-color-scheme:dark){:root{--ink:#ece7dc;--soft:#a9b1b0;--paper:#161d20;--line:#364146;--strong:#7fc4cd}}
        body{font:17px/1.5 "Atkinson Hyperlegible Next","Segoe UI",system-ui,sans-serif;color:var(--ink);background:var(--paper);max-width:46rem;margin:0 auto;padding:2rem 1.2rem;overflow-wrap:anywhere}
        h1{font-size:1.9rem;line-height:1.15;margin:0 0 .2rem}h2{font-size:1.25rem;margin:2.2rem 0 .3rem;border-bottom:1px solid var(--line);padding-bottom:.3rem}h3{font-size:1.05rem;margin:1.3rem 0 .1rem}h4{font-size:1rem;margin:.9rem 0 .1rem}
        p{margin:.2rem 0}.soft{color:var(--soft)}.said{white-space:pre-line}ul{margin:.2rem 0;padding-left:1.2rem}a{color:var(--strong)}blockquote{margin:.3rem 0 .3rem .2rem;padding-left:.8rem;border-left:3px solid var(--line)}
        table{border-collapse:collapse;width:100%}th,td{text-align:left;vertical-align:top;padding:.25rem .8rem .25rem 0;border-bottom:1px solid var(--line)}.wide{overflow-x:auto}code{font-size:.9em}
        .things{list-style:none;padding:0}.things li{border-bottom:1px solid var(--line)}.things a{display:block;padding:.65rem 0}a:focus-visible{outline:3px solid var(--strong);outline-offset:2px}
        @media print{:root{--ink:#000;--soft:#333;--paper:#fff;--line:#999;--strong:#000}body{max-width:none;padding:0;font-size:11pt}}
        """;

    /// <param name="language">BCP 47.</param>
    /// <param name="hidden">No search engine is to lead to it.</param>
    internal static StringBuilder Begin(string title, string language = "en", bool hidden = false)
    {
        var h = new StringBuilder();
        h.Append(CultureInfo.InvariantCulture, $"<!DOCTYPE html>\n<html lang=\"{E(language)}\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" content=\"width=device-width\">{(hidden ? "<meta name=\"robots\" content=\"noindex\">" : "")}<title>{E(title)}</title><style>{Style}</style></head><body><main>\n");
        return h;
    }

    internal static byte[] End(StringBuilder h) => Encoding.UTF8.GetBytes(h.Append("</main></body></html>\n").ToString());

    internal static string E(string text) => WebUtility.HtmlEncode(text);

    /// <summary>A link; an address that is none of the web's is said and leads nowhere.</summary>
    internal static string A(PageLink link)
    {
        if (!link.Outside) return $"<a href=\"{E(Href(link.To))}\">{E(link.Name)}</a>";
        return link.To.StartsWith("https://", StringComparison.OrdinalIgnoreCase) || link.To.StartsWith("http://", StringComparison.OrdinalIgnoreCase)
            ? $"<a href=\"{E(link.To)}\" rel=\"noopener noreferrer\">{E(link.Name)}</a>" : E($"{link.Name}: {link.To}");
    }

    /// <summary>A path beside the page as an address.</summary>
    internal static string Href(string path) => string.Join('/', path.Split('/').Select(Uri.EscapeDataString));

    internal static void Links(StringBuilder h, IReadOnlyList<PageLink> links)
    {
        if (links.Count > 0) h.Append("<ul>").AppendJoin("", links.Select(l => $"<li>{A(l)}</li>")).Append("</ul>\n");
    }

    internal static string Day(LocalDate day) => day.ToString("d MMMM uuuu", CultureInfo.InvariantCulture);

    internal static string At(LocalDateTime at) => at.ToString("d MMMM uuuu, HH:mm", CultureInfo.InvariantCulture);
}
