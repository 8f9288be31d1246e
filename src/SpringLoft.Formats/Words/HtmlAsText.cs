using System.Text;
using AngleSharp.Html;
using AngleSharp.Html.Parser;
using AngleSharp.Html.Parser.Tokens;
using AngleSharp.Text;

namespace SpringLoft.Formats.Words;

/// <summary>
/// A page in HTML as CommonMark: its headings, paragraphs, lists, links, stresses and code. No script, style or element is left
/// of it; a picture is what it is called. By its tokens: a page that nests without end takes no longer than another.
/// </summary>
public static class HtmlAsText
{
    private const int MostNested = 12;

    /// <summary>The page's title and its text.</summary>
    public static (string? Title, string Text) Of(string html)
    {
        var w = new Writer();
        var title = new StringBuilder();
        using var source = new TextSource(html);
        var tokens = new HtmlTokenizer(source, HtmlEntityProvider.Resolver) { SkipComments = true, SkipScriptText = true, SkipRawText = true };
        var inTitle = false;
        for (var t = tokens.Get(); t.Type != HtmlTokenType.EndOfFile; t = tokens.Get())
        {
            if (t.Type == HtmlTokenType.Character)
            {
                if (inTitle) title.Append(t.Data);
                else w.Text(t.Data.ToString());
            }
            if (t.Type is not (HtmlTokenType.StartTag or HtmlTokenType.EndTag)) continue;
            var starts = t.Type == HtmlTokenType.StartTag;
            var name = t.Name.ToString();
            if (name == "title") inTitle = starts;
            else if (starts) w.Begin(name, a => t.AsTag().GetAttribute(a).ToString());
            else w.End(name);
            if (!starts) continue;
            // What follows these is no markup up to their own end (HTML Standard, 13.2.6.4.4).
            tokens.State = name switch
            {
                "script" => HtmlParseMode.Script,
                "style" or "xmp" or "iframe" or "noembed" or "noframes" => HtmlParseMode.Rawtext,
                "title" or "textarea" => HtmlParseMode.RCData,
                _ => tokens.State,
            };
        }
        var called = string.Join(' ', title.ToString().Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        return (called.Length == 0 ? null : called, w.Whole());
    }

    private sealed class Writer
    {
        private readonly StringBuilder to = new();
        // Lists and quotes, from the outside in; a list with how many items it has had.
        private readonly List<(bool Quote, bool Numbered, int Count)> within = [];
        // Stresses and links: those that wait for their first word, and those that stand in the text.
        private readonly List<(string Mark, string End)> waiting = [];
        private readonly List<(string Mark, string End)> open = [];
        private int preformatted, lines;
        private bool space, began, fenced;

        internal string Whole()
        {
            CloseAll();
            if (fenced) to.Append($"\n{Margin()}```");
            return to.ToString().TrimEnd() is { Length: > 0 } s ? s + "\n" : "";
        }

        internal void Text(string text)
        {
            if (preformatted > 0)
            {
                Start();
                to.Append(text.Replace("\r\n", "\n", StringComparison.Ordinal).Replace("```", "'''", StringComparison.Ordinal).Replace("\n", $"\n{Margin()}", StringComparison.Ordinal));
                return;
            }
            foreach (var c in text)
            {
                if (char.IsWhiteSpace(c)) { space = true; continue; }
                Start();
                if (@"\`*_[]<>#|~".Contains(c, StringComparison.Ordinal) || (!began && c is '-' or '+' or '=')) to.Append('\\');
                to.Append(c);
                began = true;
            }
        }

        internal void Begin(string name, Func<string, string?> attribute)
        {
            // In what is shown as it was typed there is only text.
            if (preformatted > 0)
            {
                if (name == "pre") preformatted++;
                if (name == "br") to.Append($"\n{Margin()}");
                return;
            }
            switch (name)
            {
                case "h1" or "h2" or "h3" or "h4" or "h5" or "h6": Lines(2); Start(); to.Append('#', name[1] - '0').Append(' '); break;
                case "ul" or "ol": Lines(within.Count == 0 ? 2 : 1); Into((false, name == "ol", 0)); break;
                case "li": Item(); break;
                case "blockquote": Lines(2); Into((true, false, 0)); break;
                case "pre": Lines(2); Start(); to.Append($"```\n{Margin()}"); (preformatted, fenced) = (1, true); break;
                case "hr": Lines(2); Start(); to.Append("---"); Lines(2); break;
                case "br": if (began) { to.Append("  "); Lines(1); } break;
                case "tr": Lines(1); break;
                case "td" or "th": if (began) { to.Append(" – "); space = false; } break;
                case "strong" or "b": Mark("**", "**"); break;
                case "em" or "i": Mark("*", "*"); break;
                case "img": if (attribute("alt") is { Length: > 0 } called) Text($" {called} "); break;
                case "a":
                    var href = attribute("href")?.Trim();
                    Close("[");
                    if (Uri.TryCreate(href, UriKind.Absolute, out var u) && u.Scheme is "http" or "https" or "mailto") Mark("[", $"](<{u.AbsoluteUri.Replace("<", "%3C", StringComparison.Ordinal).Replace(">", "%3E", StringComparison.Ordinal)}>)");
                    break;
                default: if (IsBlock(name)) Lines(2); break;
            }
        }

        internal void End(string name)
        {
            if (preformatted > 0 && (name != "pre" || --preformatted > 0)) return;
            switch (name)
            {
                case "h1" or "h2" or "h3" or "h4" or "h5" or "h6": Lines(2); break;
                case "ul" or "ol": Out(quote: false); Lines(within.Count == 0 ? 2 : 1); break;
                case "blockquote": Lines(2); Out(quote: true); break;
                case "pre": if (fenced) { to.Append($"\n{Margin()}```"); fenced = false; Lines(2); } break;
                case "strong" or "b": Close("**"); break;
                case "em" or "i": Close("*"); break;
                case "a": Close("["); break;
                default: if (IsBlock(name)) Lines(name is "li" or "tr" ? 1 : 2); break;
            }
        }

        private static bool IsBlock(string name) => name is "p" or "div" or "section" or "article" or "header" or "footer" or "main" or "aside" or "nav" or "table" or "tr" or "li" or "dl" or "dt" or "dd" or "figure" or "figcaption" or "form" or "fieldset" or "address" or "details" or "summary" or "body" or "head";

        private void Item()
        {
            Lines(1);
            if (within.Count == 0 || within[^1].Quote) Into((false, false, 0));
            if (within[^1].Quote) return;
            var (_, numbered, n) = within[^1];
            within[^1] = (false, numbered, n + 1);
            Start(item: true);
            to.Append(numbered ? $"{n + 1}. " : "- ");
        }

        // Marks are set where words begin, so that none stands beside a space and says nothing.
        private void Start(bool item = false)
        {
            if (lines > 0)
            {
                if (to.Length > 0) to.Append('\n').Append(lines > 1 ? Margin(item).TrimEnd() + "\n" : "");
                to.Append(Margin(item));
                (lines, space, began) = (0, false, false);
            }
            else if (to.Length == 0) { to.Append(Margin(item)); space = false; }
            if (space && began) to.Append(' ');
            space = false;
            foreach (var m in waiting) to.Append(m.Mark);
            open.AddRange(waiting);
            waiting.Clear();
        }

        // What stands before each line; before the first of an item, without its own.
        private string Margin(bool item = false) => string.Concat(within.Take(within.Count - (item ? 1 : 0)).Select(x => x.Quote ? "> " : x.Count > 0 ? "    " : ""));

        private void Into((bool, bool, int) what)
        {
            if (within.Count < MostNested) within.Add(what);
        }

        private void Out(bool quote)
        {
            var at = within.FindLastIndex(x => x.Quote == quote);
            if (at >= 0) within.RemoveRange(at, within.Count - at);
        }

        private void Lines(int n)
        {
            // Neither a stress nor a link reaches over paragraphs.
            CloseAll();
            lines = Math.Max(lines, n);
        }

        private void Mark(string mark, string end)
        {
            if (open.Count + waiting.Count < MostNested && !open.Concat(waiting).Any(m => m.Mark == mark)) waiting.Add((mark, end));
        }

        // What stands within it is closed with it, and waits for its next word.
        private void Close(string mark)
        {
            if (waiting.RemoveAll(m => m.Mark == mark) > 0) return;
            var at = open.FindIndex(m => m.Mark == mark);
            if (at < 0) return;
            for (var i = open.Count - 1; i >= at; i--) to.Append(open[i].End);
            waiting.InsertRange(0, open.Skip(at + 1));
            open.RemoveRange(at, open.Count - at);
        }

        private void CloseAll()
        {
            for (var i = open.Count - 1; i >= 0; i--) to.Append(open[i].End);
            open.Clear();
            waiting.Clear();
        }
    }
}
