using System.Globalization;
using System.Net;
using System.Text;
using NodaTime;

namespace SpringLoft.Formats.Print;

/// <summary>A table on the page of a person's data.</summary>
public sealed record PersonTable(string Title, IReadOnlyList<string> Columns, IReadOnlyList<IReadOnlyList<string?>> Rows);

/// <summary>All that a school has of one person, to be read: plain HTML that opens from the disk without a network, script or font from elsewhere.</summary>
public static class PersonPage
{
    private const string Style =
        """
        :root{color-scheme:light dark;--ink:#1d2a30;--soft:#5a666b;--paper:#fbf8f1;--line:#e2dacb}
        @media(prefers-color-scheme:dark){:root{--ink:#ece7dc;--soft:#a9b1b0;--paper:#161d20;--line:#364146}}
        body{font:16px/1.5 "Segoe UI",system-ui,sans-serif;color:var(--ink);background:var(--paper);max-width:70rem;margin:0 auto;padding:2rem 1.2rem}
        h1{font-size:1.9rem;margin:0}h2{font-size:1.2rem;margin:2rem 0 .4rem}.soft{color:var(--soft)}
        div{overflow-x:auto}table{border-collapse:collapse;font-size:.9rem}th,td{text-align:left;vertical-align:top;padding:.3rem .8rem .3rem 0;border-bottom:1px solid var(--line)}
        """;

    /// <summary>Writes the page, as UTF-8.</summary>
    public static byte[] Write(string name, string school, LocalDate on, IReadOnlyList<PersonTable> tables)
    {
        var h = new StringBuilder();
        h.Append(CultureInfo.InvariantCulture, $"<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" content=\"width=device-width\"><title>{E(name)}</title><style>{Style}</style></head><body>\n");
        h.Append(CultureInfo.InvariantCulture, $"<h1>{E(name)}</h1>\n<p class=\"soft\">What Spring Loft of {E(school)} has of this person on {on:d MMMM uuuu}. The same as JSON stands in data.json; files in files/.</p>\n");
        foreach (var t in tables.Where(t => t.Rows.Count > 0))
        {
            h.Append(CultureInfo.InvariantCulture, $"<h2>{E(t.Title)}</h2>\n<div><table><thead><tr>");
            foreach (var column in t.Columns) h.Append(CultureInfo.InvariantCulture, $"<th>{E(column.Replace('_', ' '))}</th>");
            h.Append("</tr></thead><tbody>\n");
            foreach (var row in t.Rows)
            {
                h.Append("<tr>");
                foreach (var cell in row) h.Append(CultureInfo.InvariantCulture, $"<td>{E(cell ?? "")}</td>");
                h.Append("</tr>\n");
            }
            h.Append("</tbody></table></div>\n");
        }
        h.Append("</body></html>\n");
        return Encoding.UTF8.GetBytes(h.ToString());
    }

    private static string E(string text) => WebUtility.HtmlEncode(text);
}
