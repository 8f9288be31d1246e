using System.Security;
using System.Text;
using Markdig;
using Markdig.Renderers.Html;
using Markdig.Syntax;
using Markdig.Syntax.Inlines;

namespace SpringLoft.Formats.Print;

/// <summary>A field that somebody fills in on such a page.</summary>
/// <param name="Trouble">What was the matter with what they wrote; null for nothing.</param>
/// <param name="Value">What is sent where there is nothing to fill in, only a button; null for a field.</param>
public sealed record HomeField(string Name, string Label, string Button, string? Trouble, string? Value = null);

/// <summary>Formatted text on such a page.</summary>
/// <param name="Lines">A new line stays one, as in notices.</param>
public sealed record HomeText(string CommonMark, bool Lines);

/// <summary>Pages for homes: plain HTML without script, that open on any telephone without an account.</summary>
public static class HomePage
{
    // Formatted text as it is shown inside the program: CommonMark, any HTML in it as text.
    private static readonly MarkdownPipeline Page = new MarkdownPipelineBuilder().DisableHtml().Build();
    private static readonly MarkdownPipeline Lines = new MarkdownPipelineBuilder().DisableHtml().UseSoftlineBreakAsHardlineBreak().Build();

    private const string Style =
        """
        :root{color-scheme:light dark;--ink:#1d2a30;--soft:#5a666b;--paper:#fbf8f1;--card:#fffdf8;--line:#e2dacb;--strong:#155a63;--on:#fff;--bad:#9c2f1e}
        @media(prefers-color-scheme:dark){:root{--ink:#ece7dc;--soft:#a9b1b0;--paper:#161d20;--card:#1c2427;--line:#364146;--strong:#7fc4cd;--on:#10191c;--bad:#f0a08f}}
        body{font:17px/1.5 "Atkinson Hyperlegible Next","Segoe UI",system-ui,sans-serif;color:var(--ink);background:var(--paper);max-width:40rem;margin:0 auto;padding:2rem 1.2rem}
        h1{font-size:1.7rem;line-height:1.15;margin:.2rem 0 .6rem}.soft{color:var(--soft)}.text{background:var(--card);border:1px solid var(--line);border-radius:10px;padding:.4rem 1.1rem;margin:1rem 0;overflow-wrap:anywhere}
        .text h1,.text h2,.text h3{font-size:1.15rem;margin:.9rem 0 .3rem}a{color:var(--strong)}label{display:block;font-weight:600;margin:.8rem 0 .25rem}
        input{font:inherit;color:inherit;background:var(--card);border:1px solid var(--soft);border-radius:8px;padding:.55rem .7rem;width:100%;box-sizing:border-box}
        button{font:inherit;font-weight:600;color:var(--on);background:var(--strong);border:0;border-radius:8px;padding:.7rem 1.3rem;min-height:44px;margin-top:.9rem}
        input:focus-visible,button:focus-visible,a:focus-visible{outline:3px solid var(--strong);outline-offset:2px}.bad{color:var(--bad);font-weight:600}.done{border-left:4px solid var(--strong);padding:.3rem .9rem}
        """;

    /// <summary>Writes a page, as UTF-8.</summary>
    /// <param name="language">BCP 47, of the words given.</param>
    /// <param name="above">A line above the heading; null for none.</param>
    /// <param name="paragraphs">Plain lines.</param>
    /// <param name="text">CommonMark; null for none.</param>
    /// <param name="links">Addresses and their words.</param>
    /// <param name="action">Where the field is sent; empty for the page itself.</param>
    /// <param name="done">Said in place of the field, where there is nothing to do any more.</param>
    public static byte[] Write(string language, string? above, string title, IReadOnlyList<string> paragraphs, HomeText? text, IReadOnlyList<(string Address, string Words)> links, HomeField? field, string? done, string action = "")
    {
        var h = new StringBuilder();
        h.Append($"<!DOCTYPE html>\n<html lang=\"{E(language)}\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" content=\"width=device-width\"><meta name=\"robots\" content=\"noindex\"><title>{E(title)}</title><style>{Style}</style></head><body><main>\n");
        if (above is not null) h.Append($"<p class=\"soft\">{E(above)}</p>");
        h.Append($"<h1>{E(title)}</h1>\n");
        foreach (var p in paragraphs) h.Append($"<p>{E(p)}</p>\n");
        if (text is not null) h.Append($"<div class=\"text\">{Html(text.CommonMark, text.Lines)}</div>\n");
        foreach (var (address, words) in links) h.Append($"<p><a href=\"{E(address)}\" rel=\"noopener noreferrer\">{E(words)}</a></p>\n");
        if (done is not null) h.Append($"<p class=\"done\" role=\"status\">{E(done)}</p>\n");
        else if (field is { Value: { } value } b) h.Append($"<form method=\"post\"><input type=\"hidden\" name=\"{E(b.Name)}\" value=\"{E(value)}\"><button>{E(b.Button)}</button></form>\n");
        else if (field is { } f)
            h.Append($"<form method=\"post\"{(action.Length == 0 ? "" : $" action=\"{E(action)}\"")}>{(f.Trouble is null ? "" : $"<p class=\"bad\" role=\"alert\" id=\"trouble\">{E(f.Trouble)}</p>")}<label for=\"f\">{E(f.Label)}</label><input id=\"f\" name=\"{E(f.Name)}\" maxlength=\"120\" autocomplete=\"{(f.Name == "name" ? "name" : "off")}\" required{(f.Trouble is null ? "" : " aria-describedby=\"trouble\" aria-invalid=\"true\"")}><button>{E(f.Button)}</button></form>\n");
        h.Append("</main></body></html>\n");
        return Encoding.UTF8.GetBytes(h.ToString());
    }
    /// <summary>The words of CommonMark on one line, without its marks.</summary>
    public static string Words(string text)
    {
        try { return string.Join(' ', Markdown.ToPlainText(text, Page).Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)); }
        catch (ArgumentException) { return string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)); }
    }

    /// <summary>CommonMark as HTML: HTML in it is text, pictures are their words, and what is no web address leads nowhere.</summary>
    /// <param name="lines">A new line stays one.</param>
    public static string Html(string text, bool lines)
    {
        var pipeline = lines ? Lines : Page;
        MarkdownDocument document;
        try { document = Markdown.Parse(text, pipeline); }
        // Marks within marks without end: shown as they were typed.
        catch (ArgumentException) { return $"<pre>{E(text)}</pre>\n"; }
        foreach (var link in document.Descendants<LinkInline>().ToList())
        {
            if (link.IsImage || !LeadsOut(link.GetDynamicUrl?.Invoke() ?? link.Url)) (link.IsImage, link.Url, link.GetDynamicUrl) = (false, null, null);
            if (link.Url is null && link.GetDynamicUrl is null)
            {
                var words = new EmphasisInline { DelimiterChar = '_', DelimiterCount = 1 };
                while (link.FirstChild is { } child)
                {
                    child.Remove();
                    words.AppendChild(child);
                }
                link.ReplaceBy(words);
            }
            else link.GetAttributes().AddProperty("rel", "noopener noreferrer");
        }
        foreach (var link in document.Descendants<AutolinkInline>().Where(l => !l.IsEmail && !LeadsOut(l.Url)).ToList()) link.ReplaceBy(new LiteralInline(link.Url));
        return document.ToHtml(pipeline);
    }

    private static bool LeadsOut(string? address) => Uri.TryCreate(address, UriKind.Absolute, out var u) && u.Scheme is "http" or "https" or "mailto";

    private static string E(string text) => SecurityElement.Escape(text);
}
