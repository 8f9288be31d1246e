using System.Net;
using System.Text;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Assignments;

/// <summary>
/// What can be handed in: a file, a link, or a page that is written in place. Each is a file with a name, so that packages, take-homes
/// and downloads hold all of them: a link is a page that any browser opens, a page is CommonMark.
/// </summary>
public static class Handed
{
    private const string PageEnd = ".md";
    private const string LinkEnd = ".html";

    /// <summary>What a thing in a piece of work is, by its file's name and where it leads; null for no link.</summary>
    public static ItemKind KindOf(string name, string? url) =>
        url is not null ? ItemKind.Link : name.EndsWith(PageEnd, StringComparison.OrdinalIgnoreCase) && name.Length > PageEnd.Length ? ItemKind.Page : ItemKind.File;

    /// <summary>What it is called where its kind is shown beside it.</summary>
    public static string TitleOf(string name, string? url) => KindOf(name, url) switch
    {
        ItemKind.Page => name[..^PageEnd.Length],
        ItemKind.Link when name.EndsWith(LinkEnd, StringComparison.Ordinal) && name.Length > LinkEnd.Length => name[..^LinkEnd.Length],
        _ => name,
    };

    /// <summary>The file name of a page.</summary>
    public static string PageFile(string title) => title + PageEnd;

    /// <summary>The file name of a link.</summary>
    public static string LinkFile(string title) => title + LinkEnd;

    /// <summary>A link as a page of its own: HTML in UTF-8, no script, title and address escaped.</summary>
    public static byte[] LinkPage(string title, string url) => Encoding.UTF8.GetBytes(
        $"<!doctype html>\n<meta charset=\"utf-8\">\n<title>{WebUtility.HtmlEncode(title)}</title>\n<p><a href=\"{WebUtility.HtmlEncode(url)}\">{WebUtility.HtmlEncode(title)}</a></p>\n");
}
