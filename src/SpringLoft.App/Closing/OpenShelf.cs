using System.Security.Cryptography;
using System.Text;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Letters;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Print;
using SpringLoft.Formats.Zips;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Closing;

/// <summary>A shelf of a class.</summary>
/// <param name="Open">True while its address opens.</param>
/// <param name="Language">What its page is written in around the things, BCP 47.</param>
/// <param name="Days">Days on which somebody came, the last first.</param>
public sealed record ShelfView(long Id, string Address, string Title, string Text, string Language, LocalDate Until, bool Open, Instant MadeAt, Instant? ShutAt, int Things, int Visits, IReadOnlyList<ShelfDay> Days);

/// <summary>How often a shelf was opened on a day.</summary>
public sealed record ShelfDay(LocalDate Day, int Visits);

/// <summary>A language that a shelf's page can be in.</summary>
public sealed record ShelfLanguage(string Code, string Name);

/// <summary>A folder that may go on a shelf.</summary>
/// <param name="StaffOnly">Students do not see it: it goes on a shelf only if it, or the staff folder around it, is ticked itself.</param>
public sealed record ShelfFolder(FolderId Id, FolderId? Parent, string Name, int Things, bool StaffOnly);

/// <summary>A returned piece of work that may stand as an example.</summary>
public sealed record ShelfExample(WorkId Id, string Assignment, string Student, int Files);

/// <summary>A thing as it would stand on the shelf.</summary>
/// <param name="Key">Tells it from the others, to be ticked.</param>
/// <param name="Names">Students that it names.</param>
/// <param name="Out">True if it stays off, because it speaks of somebody and was not ticked.</param>
/// <param name="Inside">True if a student is named by what is written in it, not only by what it is called.</param>
/// <param name="Unread">Why something in it was not searched for names; null where all was.</param>
/// <param name="Item">The thing of the class that it is; null for handed-in work.</param>
/// <param name="Work">The work that it was handed in with.</param>
/// <param name="File">Which file of that work.</param>
public sealed record ShelfPreviewThing(string Key, string Place, string Name, string Shown, IReadOnlyList<string> Names, bool ByStudent, bool Out, bool Inside, Unread? Unread, ItemId? Item, WorkId? Work, long? File);

/// <summary>The desk: shelves there are, and what may go on one.</summary>
public sealed record ShelfDesk(IReadOnlyList<ShelfView> Shelves, IReadOnlyList<ShelfFolder> Folders, IReadOnlyList<ShelfExample> Examples, LocalDate Suggested, IReadOnlyList<ShelfLanguage> Languages);

/// <summary>What is chosen for a shelf, or a showcase.</summary>
/// <param name="Folders">Chosen folders, with all inside them.</param>
/// <param name="Examples">Chosen pieces of work.</param>
/// <param name="Named">Keys of things that may keep the names of students, each ticked by a person.</param>
/// <param name="Language">What its page is written in around the things, BCP 47; English where nothing is said.</param>
public sealed record ShelfDraft(string? Title, string? Text, LocalDate Until, IReadOnlyList<FolderId>? Folders, IReadOnlyList<WorkId>? Examples, IReadOnlyList<string>? Named, string? Language = null);

/// <summary>What a visitor sees.</summary>
public sealed record ShelfPageView(ShelfRow Shelf, string School, IReadOnlyList<ShelfThingRow> Things);

/// <summary>A page of text on a shelf.</summary>
/// <param name="Text">CommonMark.</param>
public sealed record ShelfTextView(ShelfRow Shelf, string School, string Name, string Text);

/// <summary>The open shelf of a class, and its showcase: chosen things as they are now, with the names of students taken off.</summary>
public sealed class OpenShelf(Premises premises, WordsInFiles words)
{
    /// <summary>The desk of a class.</summary>
    public ShelfDesk See(ClassId id) => premises.Db.Read(c =>
    {
        var filings = ItemStore.Filings(c, id).GroupBy(f => f.Folder).ToDictionary(g => g.Key, g => g.Count());
        var names = RosterStore.Members(c, id).ToDictionary(m => m.PersonId, m => m.Name.Display);
        var titles = AssignmentStore.OfClass(c, id).ToDictionary(a => a.Id, a => a.Title);
        var files = WorkStore.FilesOfClass(c, id);
        var rows = Folders(c, id);
        var staff = StaffOnly(rows);
        return new ShelfDesk([.. ShelfStore.OfClass(c, id).Select(s => View(c, s))],
            [.. rows.Select(f => new ShelfFolder(f.Id, f.ParentId, f.Name, filings.GetValueOrDefault(f.Id), staff.Contains(f.Id)))],
            [.. WorkStore.OfClass(c, id).Where(w => w.State == WorkState.Returned && titles.ContainsKey(w.AssignmentId) && files[w.Id].Any()).Select(w => new ShelfExample(w.Id, titles[w.AssignmentId], names.GetValueOrDefault(w.StudentId, ""), files[w.Id].Count())).OrderBy(e => e.Assignment, StringComparer.CurrentCulture).ThenBy(e => e.Student, StringComparer.CurrentCulture)],
            premises.Clock.Today.PlusMonths(3),
            [.. HomeWords.All.Select(w => new ShelfLanguage(w.Code, w.Name))]);
    });

    /// <summary>What would stand on the shelf, under which names. Writes nothing.</summary>
    public IReadOnlyList<ShelfPreviewThing> Preview(ClassId id, ShelfDraft draft) => premises.Db.Read(c => Lay(c, id, draft).Select(l => new ShelfPreviewThing(l.Key, l.Place, l.Own, l.Name.Shown, l.Name.Names, l.ByStudent, l.Name.Out, l.Name.Inside, l.Name.Unread, l.Item, l.Work, l.File)).ToList());

    /// <summary>Sets a shelf: it opens at once, without an account, until its day.</summary>
    public ShelfView Set(Caller by, ClassId id, ShelfDraft draft)
    {
        var title = Refusals.Needed(draft.Title, "title", "The title", 120);
        var text = Refusals.NotLonger(draft.Text?.Trim() ?? "", "text", "The text", 4000);
        CheckDay(draft.Until);
        var language = Ready(by, id, Act.CloseClass, draft);
        return premises.Db.Write(c =>
        {
            // What is in the loft is as it was closed; a shelf that stands can still be put off or shut.
            ClassGate.Demand(c, by, id, Act.CloseClass).NotArchived();
            var laid = Lay(c, id, draft).Where(l => !l.Name.Out).ToList();
            if (laid.Count == 0) throw new RefusedException("shelf-empty", "Nothing is chosen that may stand on the shelf.", "Choose folders with things in them, or examples.", "folders");
            var row = new ShelfRow { ClassId = id, Token = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(20)), Title = title, Text = text, Language = language, UntilDay = draft.Until, MadeAt = premises.Clock.Now, MadeBy = by.Id };
            var made = ShelfStore.Add(c, row, laid.Select((l, i) => new ShelfThingRow { Position = i, Place = l.Place, Kind = l.Kind, Name = l.Name.Shown, Sha256 = l.Sha256, Url = l.Url }));
            Premises.Add(c, by, premises.Clock.Now, new("set open shelf", "shelf", made, id, $"{title}: {laid.Count} things until {draft.Until:uuuu-MM-dd}"));
            return View(c, ShelfStore.Of(c, row.Token)!);
        });
    }

    /// <summary>Changes the cover page, its language, and the day until which it opens. One whose day is over opens again by that; one that was shut never does.</summary>
    public void Change(Caller by, ClassId id, long shelf, string? title, string? text, LocalDate until, string? language)
    {
        var called = Refusals.Needed(title, "title", "The title", 120);
        var says = Refusals.NotLonger(text?.Trim() ?? "", "text", "The text", 4000);
        CheckDay(until);
        premises.Db.Write(c =>
        {
            ClassGate.Demand(c, by, id, Act.CloseClass);
            var spoken = Language(language);
            var s = Find(c, id, shelf);
            if (s.ShutAt is not null) throw new RefusedException("shelf-shut", "This shelf was shut: its address never opens again.", "Open a new shelf.");
            ShelfStore.Set(c, s with { Title = called, Text = says, Language = spoken, UntilDay = until });
            Premises.Add(c, by, premises.Clock.Now, new("changed open shelf", "shelf", shelf, id, $"{called}: until {until:uuuu-MM-dd}"));
        });
    }

    /// <summary>Shuts a shelf at once; its address never opens again.</summary>
    public void Shut(Caller by, ClassId id, long shelf) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.CloseClass);
        var s = Find(c, id, shelf);
        ShelfStore.Shut(c, shelf, premises.Clock.Now);
        Premises.Add(c, by, premises.Clock.Now, new("shut open shelf", "shelf", shelf, id, s.Title));
    });

    /// <summary>The page for a visitor; the visit is counted.</summary>
    /// <exception cref="RefusedException"><c>shelf-shut</c>: no such address, its day is over, or it was shut.</exception>
    public ShelfPageView Visit(string token) => premises.Db.Write(c =>
    {
        var s = Opened(c, token);
        ShelfStore.Visit(c, s.Id, premises.Clock.Today);
        return new ShelfPageView(s, Store.Naming.SchoolStore.Get(c)!.Name, ShelfStore.Things(c, s.Id));
    });

    /// <summary>A page of text on a shelf, to be read there; null where something else stands at that position.</summary>
    public ShelfTextView? Page(string token, int position) => premises.Db.Read(c =>
    {
        var s = Opened(c, token);
        var t = ShelfStore.Things(c, s.Id).FirstOrDefault(t => t.Position == position) ?? throw Refusals.NotFound("file");
        return t is { Kind: ItemKind.Page, Sha256: { } sha } ? new ShelfTextView(s, Store.Naming.SchoolStore.Get(c)!.Name, t.Name, Text(sha)) : null;
    });

    /// <summary>Opens a file on a shelf.</summary>
    public Download Open(string token, int position) => premises.Db.Read(c =>
    {
        var s = Opened(c, token);
        var t = ShelfStore.Things(c, s.Id).FirstOrDefault(t => t.Position == position && t.Sha256 is not null) ?? throw Refusals.NotFound("file");
        return new Download(t.Name, premises.Files.Open(t.Sha256!), t.Size ?? 0);
    });

    /// <summary>The chosen things as a zip with a page that opens offline: the class's showcase.</summary>
    public Download Showcase(Caller by, ClassId id, ShelfDraft draft, CancellationToken stop)
    {
        var title = Refusals.NotLonger(draft.Title?.Trim() is { Length: > 0 } t ? t : "Showcase", "title", "The title", 120);
        var spoken = HomeWords.Of(Ready(by, id, Act.Arrange, draft));
        var laid = premises.Db.Write(c =>
        {
            ClassGate.Demand(c, by, id, Act.Arrange);
            var all = Lay(c, id, draft).Where(l => !l.Name.Out).ToList();
            if (all.Count == 0) throw new RefusedException("shelf-empty", "Nothing is chosen that may stand in the showcase.", "Choose folders with things in them, or examples.", "folders");
            Premises.Add(c, by, premises.Clock.Now, new("made showcase", "class", id.Value, id, $"{title}: {all.Count} things"));
            return all;
        });
        // A page becomes a file by its ending: no other may be called so beside it.
        var taken = laid.Where(l => l.Kind != ItemKind.Page).Select(l => SafeName.Key(l.Name.Shown)).ToHashSet();
        var paths = laid.ToDictionary(l => l.Key, l =>
        {
            if (l.Kind != ItemKind.Page) return l.Name.Shown;
            var path = SafeName.Distinct($"{l.Name.Shown}.html", taken, isFile: true);
            taken.Add(SafeName.Key(path));
            return path;
        });
        var things = laid.Select(l => new ShelfPageThing(l.Place, paths[l.Key], l.Url)).ToList();
        var school = premises.Db.Read(c => Store.Naming.SchoolStore.Get(c)!.Name);
        var page = ShelfPage.Write(spoken, title, draft.Text?.Trim() ?? "", school, null, things, t => t.Place.Length == 0 ? t.Name : $"{t.Place}/{t.Name}");
        var scratch = premises.Files.Scratch();
        ZipWriter.Write(scratch, [new ZipFile("index.html", premises.Clock.Now, () => new MemoryStream(page)), .. laid.Where(l => l.Sha256 is not null).Select(l => new ZipFile(l.Place.Length == 0 ? paths[l.Key] : $"{l.Place}/{paths[l.Key]}", premises.Clock.Now, () => l.Kind == ItemKind.Page ? new MemoryStream(ShelfPage.Thing(spoken, l.Name.Shown, Text(l.Sha256!), school, null)) : premises.Files.Open(l.Sha256!)))], null, stop);
        scratch.Position = 0;
        return new Download($"{SafeName.Make(title)?.Name ?? "showcase"}.zip", scratch, scratch.Length);
    }

    // Reads the files, which takes its time, before anybody's turn to write; gives the language.
    private string Ready(Caller by, ClassId id, Act act, ShelfDraft draft) => premises.Db.Read(c =>
    {
        ClassGate.Demand(c, by, id, act);
        _ = Lay(c, id, draft);
        return Language(draft.Language);
    });

    private sealed record Laid(string Key, string Place, string Own, ShelfName Name, ItemKind Kind, string? Sha256, string? Url, bool ByStudent, ItemId? Item, WorkId? Work, long? File);

    private List<Laid> Lay(IDbConnection c, ClassId id, ShelfDraft draft)
    {
        var rows = Folders(c, id);
        var byId = rows.ToDictionary(f => f.Id);
        var (asked, examples, named) = (draft.Folders ?? [], draft.Examples ?? [], draft.Named ?? []);
        if (asked.Any(f => !byId.ContainsKey(f))) throw Refusals.NotFound("folder");
        // What students do not see in the class is not shown to the world because a folder above it was ticked.
        var staff = StaffOnly(rows);
        var open = rows.Where(f => !staff.Contains(f.Id) || asked.Contains(f.Id) || (f.ParentId is { } p && staff.Contains(p))).ToList();
        var chosen = asked.SelectMany(f => KeptCopies.FoldersWithin(open, f)).ToHashSet();
        var items = ItemStore.OfClass(c, id).ToDictionary(i => i.Id);
        var paths = PackageLayout.Folders([.. rows.Where(f => chosen.Contains(f.Id)).Select(f => new LayFolder(f.Id, f.ParentId is { } p && chosen.Contains(p) ? p : null, f.Name))]);
        var things = new List<(string Key, string Place, ShelfCandidate Candidate, ItemKind Kind, string? Sha256, string? Url, ItemId? Item, WorkId? Work, long? File)>();
        foreach (var (item, folder) in ItemStore.Filings(c, id).Where(f => chosen.Contains(f.Folder) && items.ContainsKey(f.Item)).DistinctBy(f => f.Item))
        {
            var i = items[item];
            things.Add(($"i{i.Id.Value}", paths[folder]["folders/".Length..], Candidate(i.Name, i.ByStudent ? i.AddedBy : null, i.Kind, i.Sha256), i.Kind, i.Sha256, i.Url, i.Id, null, null));
        }
        var titles = AssignmentStore.OfClass(c, id).ToDictionary(a => a.Id, a => a.Title);
        var files = WorkStore.FilesOfClass(c, id);
        foreach (var w in WorkStore.OfClass(c, id).Where(w => examples.Contains(w.Id) && w.State == WorkState.Returned && titles.ContainsKey(w.AssignmentId)))
            foreach (var f in files[w.Id]) things.Add(($"w{f.Id}", SafeName.Make(titles[w.AssignmentId])?.Name ?? "Examples", Candidate(f.Name, w.StudentId, ItemKind.File, f.Sha256), ItemKind.File, f.Sha256, null, null, w.Id, f.Id));
        var students = RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student).Select(m => (m.PersonId, m.Name)).ToList();
        var ticked = things.Select((t, i) => (t.Key, i)).Where(x => named.Contains(x.Key)).Select(x => x.i).ToHashSet();
        var names = ShelfNames.Decide([.. things.Select(t => t.Candidate)], students, ticked);
        return [.. things.Zip(names).Select(x => new Laid(x.First.Key, x.First.Place, x.First.Candidate.Name, x.Second, x.First.Kind, x.First.Sha256, x.First.Url, x.First.Candidate.Student is not null, x.First.Item, x.First.Work, x.First.File)).OrderBy(l => l.Place, StringComparer.CurrentCulture).ThenBy(l => l.Name.Shown, StringComparer.CurrentCulture)];
    }

    private ShelfCandidate Candidate(string name, PersonId? student, ItemKind kind, string? sha)
    {
        if (sha is null) return new(name, student, null, kind == ItemKind.Link);
        var read = words.Of(sha);
        return new(name, student, read.Text, Unread: read.Not);
    }

    private static string Language(string? asked) => asked is null ? HomeWords.All[0].Code
        : HomeWords.All.Any(w => w.Code == asked) ? asked
        : throw new RefusedException("shelf-language", "A shelf's page is not written in that language.", $"Choose one of {string.Join(", ", HomeWords.All.Select(w => w.Name))}.", "language");

    private string Text(string sha)
    {
        using var reader = new StreamReader(premises.Files.Open(sha), Encoding.UTF8);
        return reader.ReadToEnd();
    }

    // Folders that students do not see: by their own rule, or by one above them.
    private static HashSet<FolderId> StaffOnly(List<FolderRow> rows)
    {
        var byId = rows.ToDictionary(f => f.Id);
        bool Hidden(FolderRow f) => f.Rule == FolderRule.StaffOnly || (f.ParentId is { } p && byId.TryGetValue(p, out var above) && Hidden(above));
        return [.. rows.Where(Hidden).Select(f => f.Id)];
    }

    // Own folders of students and folders of groups never go on a shelf as folders.
    private static List<FolderRow> Folders(IDbConnection c, ClassId id)
    {
        var all = FolderStore.OfClass(c, id);
        var byId = all.ToDictionary(f => f.Id);
        bool Own(FolderRow f) => f.StudentId is not null || f.GroupId is not null || (f.ParentId is { } p && byId.TryGetValue(p, out var above) && Own(above));
        return [.. all.Where(f => !Own(f))];
    }

    private void CheckDay(LocalDate until)
    {
        if (until < premises.Clock.Today || until > premises.Clock.Today.PlusYears(2)) throw new RefusedException("date-range", $"{until:uuuu-MM-dd} is not a day from today to two years on.", "Choose the last day on which the shelf is to open.", "until");
    }

    private ShelfRow Opened(IDbConnection c, string token) =>
        ShelfStore.Of(c, token) is { ShutAt: null } s && s.UntilDay >= premises.Clock.Today ? s : throw new RefusedException("shelf-shut", "This shelf is not open, or not any more.", "Ask the teacher who gave you the address.");

    private ShelfView View(IDbConnection c, ShelfRow s) => View(s, ShelfStore.Things(c, s.Id).Count, ShelfStore.Days(c, s.Id));

    private ShelfView View(ShelfRow s, int things, IReadOnlyList<ShelfDayRow> days) =>
        new(s.Id, $"/shelf/{s.Token}", s.Title, s.Text, s.Language, s.UntilDay, s.ShutAt is null && s.UntilDay >= premises.Clock.Today, s.MadeAt, s.ShutAt, things, days.Sum(d => d.Visits), [.. days.Select(d => new ShelfDay(d.Day, d.Visits))]);

    private static ShelfRow Find(IDbConnection c, ClassId id, long shelf) => ShelfStore.OfClass(c, id).FirstOrDefault(s => s.Id == shelf) ?? throw Refusals.NotFound("shelf");
}
