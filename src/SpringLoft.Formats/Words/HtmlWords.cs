using System.Text;
using AngleSharp.Html;
using AngleSharp.Html.Parser;
using AngleSharp.Html.Parser.Tokens;
using AngleSharp.Text;

namespace SpringLoft.Formats.Words;

/// <summary>
/// The words that a page in HTML shows, its title and what its pictures are called among them. By its tokens, not by a tree of
/// its elements: a page that nests without end takes no longer than another.
/// </summary>
internal static class HtmlWords
{
    // Elements that stand within a line: what is in them may be a part of a word.
    private static readonly HashSet<string> inline =
    [
        "a", "abbr", "b", "bdi", "bdo", "big", "cite", "code", "data", "del", "dfn", "em", "font", "i", "ins", "kbd", "mark", "q", "s", "samp", "small", "span", "strike", "strong", "sub", "sup", "time", "tspan", "tt", "u", "var", "wbr",
    ];

    private static readonly HashSet<string> said = ["alt", "title", "aria-label", "placeholder", "value", "content", "label"];

    internal static string Of(string html)
    {
        var text = new StringBuilder();
        using var source = new TextSource(html);
        var tokens = new HtmlTokenizer(source, HtmlEntityProvider.Resolver) { SkipComments = true, SkipScriptText = true, SkipRawText = true };
        for (var t = tokens.Get(); t.Type != HtmlTokenType.EndOfFile; t = tokens.Get())
        {
            if (t.Type == HtmlTokenType.Character) text.Append(t.Data);
            if (t.Type is not (HtmlTokenType.StartTag or HtmlTokenType.EndTag)) continue;
            if (!inline.Contains(t.Name)) text.Append('\n');
            if (t.Type != HtmlTokenType.StartTag) continue;
            foreach (var a in t.AsTag().Attributes.Where(a => said.Contains(a.Name) && a.Value.Length > 0)) text.Append('\n').Append(a.Value).Append('\n');
            // What follows these is no markup up to their own end (HTML Standard, 13.2.6.4.4).
            tokens.State = t.Name switch
            {
                "script" => HtmlParseMode.Script,
                "style" or "xmp" or "iframe" or "noembed" or "noframes" => HtmlParseMode.Rawtext,
                "title" or "textarea" => HtmlParseMode.RCData,
                "plaintext" => HtmlParseMode.Plaintext,
                _ => tokens.State,
            };
        }
        return text.ToString();
    }
}
