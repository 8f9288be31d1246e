using NodaTime;
using SpringLoft.Core.Letters;
using static SpringLoft.Formats.Print.OfflinePage;

namespace SpringLoft.Formats.Print;

/// <summary>A thing on a shelf's page.</summary>
/// <param name="Place">The folders that it stands in, parted by "/"; empty for the top.</param>
/// <param name="Url">For a link; null for a file.</param>
public sealed record ShelfPageThing(string Place, string Name, string? Url);

/// <summary>The cover page of an open shelf or a showcase, and its pages of text: plain HTML without script, that opens anywhere.</summary>
public static class ShelfPage
{
    /// <summary>Writes the cover page, as UTF-8.</summary>
    /// <param name="words">The language that its teacher chose.</param>
    /// <param name="until">The last day on which it opens; null for a page in a zip.</param>
    /// <param name="path">Where a file of it is fetched.</param>
    public static byte[] Write(HomeWords words, string title, string text, string school, LocalDate? until, IReadOnlyList<ShelfPageThing> things, Func<ShelfPageThing, string> path)
    {
        var h = Begin(title, words.Code, hidden: true);
        h.Append($"<p class=\"soft\">{E(school)}</p><h1>{E(title)}</h1>\n{(text.Length > 0 ? $"<p class=\"said\">{E(text)}</p>\n" : "")}");
        if (until is { } day) h.Append($"<p class=\"soft\">{E(words.OpenUntil(day))}</p>\n");
        foreach (var place in things.GroupBy(t => t.Place))
        {
            h.Append($"<h2>{E(place.Key.Length == 0 ? words.AtTheTop : place.Key.Replace("/", " / ", StringComparison.Ordinal))}</h2><ul class=\"things\">\n");
            foreach (var t in place) h.Append($"<li>{A(t.Url is { } url ? new(t.Name, url, Outside: true) : new(t.Name, path(t)))}</li>\n");
            h.Append("</ul>\n");
        }
        return End(h);
    }

    /// <summary>Writes a page of text that stands on it.</summary>
    /// <param name="text">CommonMark.</param>
    /// <param name="back">The shelf's title and address; null for a page in a zip.</param>
    public static byte[] Thing(HomeWords words, string name, string text, string school, (string Title, string Address)? back)
    {
        var h = Begin(name, words.Code, hidden: true);
        h.Append($"<p class=\"soft\">{E(school)}</p><h1>{E(name)}</h1>\n<div>{HomePage.Html(text, lines: false)}</div>\n");
        if (back is { } b) h.Append($"<p><a href=\"{E(b.Address)}\">{E(words.BackTo(b.Title))}</a></p>\n");
        return End(h);
    }

    /// <summary>The page that stands where a shelf is shut.</summary>
    public static byte[] Shut(HomeWords words, string school)
    {
        var h = Begin(words.ShelfShutTitle, words.Code, hidden: true);
        h.Append($"<p class=\"soft\">{E(school)}</p><h1>{E(words.ShelfShutTitle)}</h1><p>{E(words.ShelfShut)}</p>\n");
        return End(h);
    }
}
