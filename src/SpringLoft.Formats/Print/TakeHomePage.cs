using System.Globalization;
using NodaTime;
using static SpringLoft.Formats.Print.OfflinePage;

namespace SpringLoft.Formats.Print;

/// <summary>A piece of work on the page of a take-home.</summary>
/// <param name="State">In words.</param>
/// <param name="Mark">"14 of 20", with the levels of criteria; null without one.</param>
/// <param name="Files">As they are in the zip.</param>
public sealed record PageWork(string Title, string State, string? Mark, IReadOnlyList<PageSaid> Comments, IReadOnlyList<PageLink> Files)
{
    /// <summary>What was to be done.</summary>
    public string Instructions { get; init; } = "";

    /// <summary>When it was due, in words; empty for never.</summary>
    public string Due { get; init; } = "";

    /// <summary>When it was handed in last.</summary>
    public LocalDateTime? HandedIn { get; init; }

    /// <summary>When it was returned last.</summary>
    public LocalDateTime? Returned { get; init; }

    /// <summary>What was handed in earlier and replaced since.</summary>
    public IReadOnlyList<PageLink> Earlier { get; init; } = [];
}

/// <summary>A class on the page of a take-home.</summary>
/// <param name="Others">Files of own folders and what the student added.</param>
public sealed record PageClass(string Name, string Teacher, IReadOnlyList<PageWork> Work, IReadOnlyList<PageLink> Others)
{
    /// <summary>What the student wrote in places to talk, the oldest first.</summary>
    public IReadOnlyList<(LocalDate Day, string Place, string Text)> Wrote { get; init; } = [];
}

/// <summary>The page at the top of a take-home, of a year or of one class: plain HTML that opens from the disk without a network, script or font from elsewhere.</summary>
public static class TakeHomePage
{
    /// <summary>Writes the page, as UTF-8.</summary>
    /// <param name="madeOn">As it is to be told.</param>
    public static byte[] Write(string student, string school, string year, LocalDate madeOn, IReadOnlyList<PageClass> classes)
    {
        var h = Begin($"{student}, {year}");
        h.Append(CultureInfo.InvariantCulture, $"<h1>{E(student)}</h1>\n<p class=\"soft\">Own work of school year {E(year)}, {E(school)}. Made on {Day(madeOn)}. This page needs no network.</p>\n");
        foreach (var k in classes)
        {
            h.Append(CultureInfo.InvariantCulture, $"<h2>{E(k.Name)}</h2>\n<p class=\"soft\">{E(k.Teacher)}</p>\n");
            foreach (var w in k.Work)
            {
                var facts = new[] { w.State, w.Due, w.HandedIn is { } i ? $"handed in {At(i)}" : "", w.Returned is { } r ? $"returned {At(r)}" : "", w.Mark ?? "" };
                h.Append(CultureInfo.InvariantCulture, $"<h3>{E(w.Title)}</h3>\n<p class=\"soft\">{E(string.Join(", ", facts.Where(f => f.Length > 0)))}</p>\n");
                if (w.Instructions.Length > 0) h.Append(CultureInfo.InvariantCulture, $"<p class=\"said\">{E(w.Instructions)}</p>\n");
                Links(h, w.Files);
                if (w.Earlier.Count > 0) h.Append("<p class=\"soft\">Handed in earlier:</p>\n");
                Links(h, w.Earlier);
                foreach (var m in w.Comments) h.Append(CultureInfo.InvariantCulture, $"<blockquote><p class=\"said\">{E(m.Text)}</p><p class=\"soft\">{E(m.Author)}, {At(m.At)}</p></blockquote>\n");
            }
            if (k.Others.Count > 0) h.Append("<h3>Own folder and what you added</h3>\n");
            Links(h, k.Others);
            if (k.Wrote.Count > 0) h.Append("<h3>What you wrote in talk</h3>\n");
            foreach (var (day, place, text) in k.Wrote) h.Append(CultureInfo.InvariantCulture, $"<blockquote><p class=\"said\">{E(text)}</p><p class=\"soft\">{E(place)}, {Day(day)}</p></blockquote>\n");
        }
        return End(h);
    }
}
