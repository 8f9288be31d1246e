using System.Globalization;
using SpringLoft.App.Letters;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Letters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Print;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Letters;
using SpringLoft.Store.Naming;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Assignments;

/// <summary>A student's list for home, as far as it is known before it is printed.</summary>
/// <param name="Languages">A list is printed in each; names of languages as their own speakers call them.</param>
public sealed record HomeListRow(PersonId Student, string Name, IReadOnlyList<string> Languages, int Due, int Late, int Back);

/// <summary>What would be printed.</summary>
/// <param name="Until">The last day of which it is told what is due.</param>
/// <param name="Languages">In which lists are printed; the first where nobody said another.</param>
public sealed record HomeListsView(LocalDate Until, IReadOnlyList<HomeListRow> Students, IReadOnlyList<LetterLanguage> Languages);

/// <summary>Lists on paper: for homes, what is due in a class and what came back; for the wall, a class's folders and dates.</summary>
public sealed class PaperLists(Premises premises, Today today)
{
    private const int MostWeeks = 12;

    /// <summary>What the lists of a class's students would say. Writes nothing.</summary>
    public HomeListsView See(Caller who, ClassId id, int weeks) => premises.Db.Read(c =>
    {
        ClassGate.Demand(c, who, id, Act.Mark);
        return new HomeListsView(Until(weeks), [.. Students(c, id, null).Select(m =>
        {
            var (due, late, back) = Of(c, id, m, weeks);
            return new HomeListRow(m.PersonId, m.Name.Sort, [.. Languages(c, m.PersonId).Select(w => w.Name)], due.Count, late.Count, back.Count);
        })], [.. HomeWords.All.Select(w => new LetterLanguage(w.Code, w.Name))]);
    });

    /// <summary>The lists as PDF: a page for each student, in each language of their family.</summary>
    /// <param name="student">Null for all.</param>
    /// <param name="marks">With the marks of what came back.</param>
    /// <param name="nothingToo">Also for those of whom there is nothing to say; one who is asked for has a list either way.</param>
    public Download ForHomes(Caller who, ClassId id, PersonId? student, int weeks, bool marks, bool nothingToo, Paper paper)
    {
        var (name, lists) = premises.Db.Read(c => Homes(c, who, id, student, weeks, marks, nothingToo));
        return Printed($"For homes, {name}", lists, paper, 11);
    }

    private (string Class, IReadOnlyList<PrintedList> Lists) Homes(IDbConnection c, Caller who, ClassId id, PersonId? student, int weeks, bool marks, bool nothingToo)
    {
        var k = ClassGate.Demand(c, who, id, Act.Mark).Class;
        var school = SchoolStore.Get(c)!.Name;
        var lists = new List<PrintedList>();
        foreach (var m in Students(c, id, student))
        {
            var (due, late, back) = Of(c, id, m, weeks);
            if (due.Count + late.Count + back.Count == 0 && student is null && !nothingToo) continue;
            foreach (var w in Languages(c, m.PersonId))
                lists.Add(new($"{school} · {k.Name}", w.AboutWhom(m.Name.Display), w.ListBelow(premises.Clock.Today, Until(weeks)),
                [
                    new(w.ToHandIn, [.. due.Select(p => new PrintedLine($"{p.Title} · {w.DueOn(p.DueOn!.Value, p.DueTime)}"))], w.NothingToHandIn),
                    new(w.NotIn, [.. late.Select(p => new PrintedLine($"{p.Title} · {w.WasDueOn(p.DueOn!.Value)}"))]),
                    new(w.CameBack, [.. back.Select(b => new PrintedLine($"{b.Title}{(marks ? Mark(b, w) : "")}"))]),
                ]));
        }
        if (lists.Count == 0) throw new RefusedException("lists-none", "Of no student of this class there is anything to say on paper.", "Choose more weeks, or have lists for those too of whom there is nothing to say.");
        return (k.Name, lists);
    }

    /// <summary>A class's folders and dates for the wall: what everybody in it sees, and no name of a student.</summary>
    /// <param name="language">One of <see cref="HomeWords"/>; null for the first.</param>
    public Download ForWall(Caller who, ClassId id, string? language, Paper paper)
    {
        var list = premises.Db.Read(c => Wall(c, who, id, language));
        return Printed($"For the wall, {list.Name}", [list], paper, 15);
    }

    private PrintedList Wall(IDbConnection c, Caller who, ClassId id, string? language)
    {
        var k = ClassGate.Demand(c, who, id, Act.Arrange).Class;
        var w = HomeWords.Of(language);
        var folders = FolderStore.OfClass(c, id);
        var access = new Access(Viewer.AnyStudent, folders.Select(f => f.Fact));
        var seen = folders.Where(f => f.StudentId is null && f.GroupId is null && access.Of(f.Id).Right > Right.None).ToList();
        var inside = seen.ToLookup(f => f.ParentId is { } p && seen.Any(x => x.Id == p) ? p : default);
        IEnumerable<PrintedLine> Tree(FolderId above, int depth) => inside[above].OrderBy(f => f.Position).SelectMany(f => Tree(f.Id, depth + 1).Prepend(new(f.Name, depth)));
        var given = AssignmentStore.GivenTo(c, id);
        var groups = AssignmentStore.GivenGroups(c, id);
        var placed = AssignmentStore.Filings(c, id);
        var dates = AssignmentStore.OfClass(c, id).Where(a => a.PublishedAt is not null && a.DueOn >= premises.Clock.Today && !given[a.Id].Any() && !groups[a.Id].Any() && placed[a.Id].Any(f => seen.Any(s => s.Id == f)))
            .OrderBy(a => a.DueOn).ThenBy(a => a.DueTime ?? LocalTime.MaxValue).Select(a => new PrintedLine($"{w.DueOn(a.DueOn!.Value, a.DueTime)} · {a.Title}"));
        return new(SchoolStore.Get(c)!.Name, k.Name, k.TeacherShown ?? "", [new(w.Dates, [.. dates], w.NoDates), new(w.Folders, [.. Tree(default, 0)])]);
    }

    private LocalDate Until(int weeks)
    {
        if (weeks is < 1 or > MostWeeks) throw new RefusedException("weeks-wrong", $"{weeks} is no number of weeks that a list tells.", $"Choose 1 to {MostWeeks}.", "weeks");
        return premises.Clock.Today.PlusDays(7 * weeks);
    }

    private (IReadOnlyList<TodayPiece> Due, IReadOnlyList<TodayPiece> Late, IReadOnlyList<TodayReturn> Back) Of(IDbConnection c, ClassId id, MemberRow m, int weeks)
    {
        var (_, pieces, back) = today.OfStudent(c, new(m.PersonId, SchoolRole.Student, m.Name.Display), Until(weeks), null, id);
        return ([.. pieces.Where(p => p.When is When.Today or When.ThisWeek)], [.. pieces.Where(p => p.When == When.Late)], back);
    }

    private static IEnumerable<MemberRow> Students(IDbConnection c, ClassId id, PersonId? one)
    {
        var all = RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null && (one is null || m.PersonId == one)).ToList();
        return one is not null && all.Count == 0 ? throw Refusals.NotFound("student") : all;
    }

    private static IReadOnlyList<HomeWords> Languages(IDbConnection c, PersonId student) =>
        FamilyStore.Of(c, student).Where(k => k.GoneAt is null).Select(k => HomeWords.Of(k.Language)).DefaultIfEmpty(HomeWords.All[0]).DistinctBy(w => w.Code).ToList();

    private Download Printed(string name, IReadOnlyList<PrintedList> lists, Paper paper, double size)
    {
        var file = premises.Files.Scratch();
        try
        {
            ListSheet.Write(file, name, lists, paper, size);
            file.Position = 0;
            return new Download($"{Core.Naming.SafeName.Make(name)?.Name ?? "lists"}.pdf", file, file.Length);
        }
        catch
        {
            file.Dispose();
            throw;
        }
    }

    // As the weekly letter says it.
    internal static string Mark(TodayReturn b, HomeWords words)
    {
        if (b.Score is not { } score) return "";
        if (b.Level is { } level) return $" · {words.MarkedAs(level)}";
        var culture = CultureInfo.GetCultureInfo(words.Code);
        return b.Points is { } points ? $" · {words.Marked(score.ToString("0.##", culture), points.ToString("0.##", culture))}" : "";
    }
}
