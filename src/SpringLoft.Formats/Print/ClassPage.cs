using System.Globalization;
using System.Text;
using NodaTime;
using static SpringLoft.Formats.Print.OfflinePage;

namespace SpringLoft.Formats.Print;

/// <summary>A thing of a class on its page.</summary>
/// <param name="By">Who put it there.</param>
public sealed record ClassPageThing(PageLink Link, string By, LocalDate Added);

/// <summary>A folder, with what is in it and the folders inside.</summary>
/// <param name="Rule">Who may do what in it, in words.</param>
public sealed record ClassPageFolder(string Name, string Rule, IReadOnlyList<ClassPageThing> Things, IReadOnlyList<ClassPageFolder> Inside);

/// <summary>What somebody said, and when.</summary>
public sealed record PageSaid(string Author, string Text, LocalDateTime At);

/// <summary>A student's piece of work.</summary>
/// <param name="State">In words.</param>
/// <param name="Mark">In words; null without one.</param>
public sealed record ClassPagePiece(string Student, string? Number, string State, LocalDateTime? HandedIn, LocalDateTime? Returned, string? Mark, IReadOnlyList<PageLink> Files, IReadOnlyList<PageLink> Earlier, IReadOnlyList<PageSaid> Comments);

/// <summary>An assignment with everything that came in for it.</summary>
/// <param name="Facts">How it is marked, when it was due, to whom it was given.</param>
public sealed record ClassPageAssignment(string Title, string Instructions, IReadOnlyList<string> Facts, IReadOnlyList<PageLink> Attached, IReadOnlyList<ClassPagePiece> Work);

/// <summary>A notice.</summary>
/// <param name="Posted">Null if it never was.</param>
/// <param name="Note">To which group, changed, withdrawn; empty for none.</param>
public sealed record ClassPageNotice(string Author, string Text, LocalDateTime? Posted, string Note, IReadOnlyList<PageLink> Files);

/// <summary>A place to talk.</summary>
public sealed record ClassPageTalk(string Place, string? Question, IReadOnlyList<PageSaid> Messages);

/// <summary>What asked to be acknowledged, and who did.</summary>
public sealed record ClassPageAsked(string Title, string Facts, IReadOnlyList<(string Student, LocalDateTime? Own, LocalDateTime? Home)> Said);

/// <summary>Somebody who is or was on the roster.</summary>
public sealed record ClassPagePerson(string Name, string? Number, string UserName, string? Grade, string Role, LocalDate Joined, LocalDate? Left);

/// <summary>Everything of a class that its page tells.</summary>
public sealed record ClassPageFacts(
    string Name, string School, string Year, string Teacher, LocalDate Made, string Welcome, IReadOnlyList<ClassPageFolder> Folders, IReadOnlyList<ClassPageThing> Unfiled,
    IReadOnlyList<ClassPageAssignment> Assignments, IReadOnlyList<ClassPageNotice> Notices, IReadOnlyList<ClassPageTalk> Talk, IReadOnlyList<ClassPageAsked> Asked, IReadOnlyList<ClassPagePerson> People)
{
    /// <summary>Is there a percent sign in the name of a file?</summary>
    public bool Percents { get; init; }
}

/// <summary>The page at the top of an archive package, and the text beside it: a class as a person walks it, for whoever has a browser and nothing else.</summary>
public static class ClassPage
{
    // Commands that check the package with stock tools alone. A manifest writes a percent sign of a name as %25 (RFC 8493, 2.1.3), which sha512sum does not undo.
    private static (string What, string Command)[] Checks(ClassPageFacts k) =>
    [
        ("Every file, by its SHA-512", k.Percents ? "sed 's/%25/%/g' manifest-sha512.txt | sha512sum -c" : "sha512sum -c manifest-sha512.txt"),
        ("The lists themselves", "sha512sum -c tagmanifest-sha512.txt"),
        ("That the school signed it", "openssl pkeyutl -verify -pubin -inkey school-key.pem -rawin -in manifest-sha512.txt -sigfile manifest-sha512.txt.sig"),
    ];

    /// <summary>The page, as UTF-8; it leads to the files below <c>data/</c> beside it.</summary>
    public static byte[] Write(ClassPageFacts k)
    {
        var h = Begin($"{k.Name}, {k.Year}");
        h.Append(CultureInfo.InvariantCulture, $"<h1>{E(k.Name)}</h1>\n<p class=\"soft\">{E(k.School)}, school year {E(k.Year)}, {E(k.Teacher)}. Closed and packed on {Day(k.Made)}. This page needs no network.</p>\n");
        (string Id, string Name, int Count)[] parts =
        [
            ("folders", "Folders", k.Folders.Count), ("assignments", "Assignments and work", k.Assignments.Count), ("notices", "Notices", k.Notices.Count), ("talk", "Talk", k.Talk.Count),
            ("acknowledged", "Acknowledged", k.Asked.Count), ("roster", "Roster", k.People.Count), ("check", "How to check this package", 1),
        ];
        h.Append("<nav aria-label=\"On this page\"><ul>").AppendJoin("", parts.Where(p => p.Count > 0).Select(p => $"<li><a href=\"#{p.Id}\">{E(p.Name)}</a></li>")).Append("</ul></nav>\n");
        if (k.Welcome.Length > 0) h.Append(CultureInfo.InvariantCulture, $"<h2>Welcome note</h2>\n<p class=\"said\">{E(k.Welcome)}</p>\n");
        if (k.Folders.Count + k.Unfiled.Count > 0) h.Append("<h2 id=\"folders\">Folders</h2>\n");
        Folders(h, k.Folders);
        if (k.Unfiled.Count > 0) h.Append("<h3>In no folder</h3>\n");
        Things(h, k.Unfiled);
        if (k.Assignments.Count > 0) h.Append("<h2 id=\"assignments\">Assignments and work</h2>\n");
        foreach (var a in k.Assignments) Assignment(h, a);
        if (k.Notices.Count > 0) h.Append("<h2 id=\"notices\">Notices</h2>\n");
        foreach (var n in k.Notices)
        {
            Said(h, n.Text, string.Join(", ", new[] { n.Author, n.Posted is { } at ? At(at) : "never posted", n.Note }.Where(x => x.Length > 0)));
            Links(h, n.Files);
        }
        if (k.Talk.Count > 0) h.Append("<h2 id=\"talk\">Talk</h2>\n");
        foreach (var t in k.Talk)
        {
            h.Append(CultureInfo.InvariantCulture, $"<h3>{E(t.Place)}</h3>\n{(t.Question is { } q ? $"<p class=\"soft\">Asked each day: {E(q)}</p>\n" : "")}");
            if (t.Messages.Count == 0) h.Append("<p class=\"soft\">Nobody wrote here.</p>\n");
            foreach (var m in t.Messages) Said(h, m.Text, $"{m.Author}, {At(m.At)}");
        }
        if (k.Asked.Count > 0) h.Append("<h2 id=\"acknowledged\">Acknowledged</h2>\n");
        foreach (var a in k.Asked) Asked(h, a);
        Roster(h, k.People);
        h.Append("<h2 id=\"check\">How to check this package</h2>\n<p>It is a BagIt bag (RFC 8493). In the folder of this page:</p>\n");
        foreach (var (what, command) in Checks(k)) h.Append(CultureInfo.InvariantCulture, $"<p>{E(what)}:<br><code>{E(command)}</code></p>\n");
        h.Append("<p>The same as tables for a spreadsheet, and for programs, is in <a href=\"data/metadata/\">data/metadata</a>.</p>\n");
        return End(h);
    }

    /// <summary>The same in short as plain text, for whoever opens the folder first.</summary>
    public static byte[] ReadMe(ClassPageFacts k)
    {
        var pieces = k.Assignments.Sum(a => a.Work.Count);
        string[] lines =
        [
            k.Name, $"{k.School}, school year {k.Year}, {k.Teacher}", $"Closed and packed on {Day(k.Made)}.", "",
            "Open index.html with any browser: folders, assignments with the work of each student, notices, talk, roster.",
            $"{k.Assignments.Count} assignments, {pieces} pieces of work, {k.People.Count} people.", "",
            "data/folders      files as they were filed", "data/unfiled      files that were in no folder", "data/work         what students handed in, by assignment and student", "data/earlier      what was handed in earlier and replaced since",
            "data/assignments  files with assignments", "data/notices      files with notices", "data/metadata     everything that is no file, as CSV and as JSON", "", "To check it:",
            .. Checks(k).Select(c => $"  {c.What}:\n    {c.Command}"), "", "Keep the whole folder together. It holds names, work and marks of children: keep it where only those see it who may.",
        ];
        return Encoding.UTF8.GetBytes(string.Concat(lines.Select(l => l + "\n")));
    }

    private static void Folders(StringBuilder h, IReadOnlyList<ClassPageFolder> folders)
    {
        if (folders.Count == 0) return;
        h.Append("<ul>");
        foreach (var f in folders)
        {
            h.Append(CultureInfo.InvariantCulture, $"<li><strong>{E(f.Name)}</strong> <span class=\"soft\">{E(f.Rule)}{(f.Things.Count + f.Inside.Count == 0 ? ", empty" : "")}</span>");
            Things(h, f.Things);
            Folders(h, f.Inside);
            h.Append("</li>\n");
        }
        h.Append("</ul>\n");
    }

    private static void Things(StringBuilder h, IReadOnlyList<ClassPageThing> things)
    {
        if (things.Count > 0) h.Append("<ul>").AppendJoin("", things.Select(t => $"<li>{A(t.Link)} <span class=\"soft\">{E(t.By)}, {Day(t.Added)}</span></li>")).Append("</ul>\n");
    }

    private static void Assignment(StringBuilder h, ClassPageAssignment a)
    {
        h.Append(CultureInfo.InvariantCulture, $"<h3>{E(a.Title)}</h3>\n<p class=\"soft\">{E(string.Join(" · ", a.Facts))}</p>\n");
        if (a.Instructions.Length > 0) h.Append(CultureInfo.InvariantCulture, $"<p class=\"said\">{E(a.Instructions)}</p>\n");
        Links(h, a.Attached);
        if (a.Work.Count == 0) h.Append("<p class=\"soft\">Nobody handed anything in.</p>\n");
        foreach (var w in a.Work)
        {
            var facts = new[] { w.State, w.HandedIn is { } i ? $"handed in {At(i)}" : "", w.Returned is { } r ? $"returned {At(r)}" : "", w.Mark ?? "" };
            h.Append(CultureInfo.InvariantCulture, $"<h4>{E(w.Student)}{(w.Number is { } n ? $" ({E(n)})" : "")}</h4>\n<p class=\"soft\">{E(string.Join(", ", facts.Where(f => f.Length > 0)))}</p>\n");
            Links(h, w.Files);
            if (w.Earlier.Count > 0) h.Append("<p class=\"soft\">Handed in earlier and replaced since:</p>\n");
            Links(h, w.Earlier);
            foreach (var m in w.Comments) Said(h, m.Text, $"{m.Author} to {w.Student}, {At(m.At)}");
        }
    }

    private static void Asked(StringBuilder h, ClassPageAsked a)
    {
        h.Append(CultureInfo.InvariantCulture, $"<h3>{E(a.Title)}</h3>\n<p class=\"soft\">{E(a.Facts)}</p>\n");
        if (a.Said.Count == 0) h.Append("<p class=\"soft\">Nobody has said so.</p>\n");
        else Table(h, ["Student", "Read", "At home"], a.Said.Select(s => new[] { s.Student, s.Own is { } o ? At(o) : "", s.Home is { } x ? At(x) : "" }));
    }

    private static void Roster(StringBuilder h, IReadOnlyList<ClassPagePerson> people)
    {
        if (people.Count == 0) return;
        h.Append("<h2 id=\"roster\">Roster</h2>\n");
        Table(h, ["Name", "Number", "User name", "Grade", "Role", "Joined", "Left"], people.Select(p => new[] { p.Name, p.Number ?? "", p.UserName, p.Grade ?? "", p.Role, Day(p.Joined), p.Left is { } l ? Day(l) : "" }));
    }

    private static void Table(StringBuilder h, string[] heads, IEnumerable<string[]> rows)
    {
        h.Append("<div class=\"wide\" tabindex=\"0\"><table><thead><tr>").AppendJoin("", heads.Select(x => $"<th scope=\"col\">{E(x)}</th>")).Append("</tr></thead><tbody>\n");
        foreach (var row in rows) h.Append("<tr>").AppendJoin("", row.Select(x => $"<td>{E(x)}</td>")).Append("</tr>\n");
        h.Append("</tbody></table></div>\n");
    }

    private static void Said(StringBuilder h, string text, string by) => h.Append(CultureInfo.InvariantCulture, $"<blockquote><p class=\"said\">{E(text)}</p><p class=\"soft\">{E(by)}</p></blockquote>\n");
}
