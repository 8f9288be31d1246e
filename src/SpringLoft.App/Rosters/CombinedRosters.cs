using SpringLoft.App.Assignments;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Rosters;

/// <summary>A combined roster in the list of all.</summary>
public sealed record CombinedSummary(long Id, string Name, YearId Year, IReadOnlyList<string> Sections, int Students, IReadOnlyList<ClassId> Classes);

/// <summary>A section of a combined roster.</summary>
/// <param name="Letter">A, B, C … in the order of the sections: it reads without the colour.</param>
/// <param name="Colour">Which of the section colours, 0 to 7.</param>
/// <param name="Held">Pieces of work that its teacher holds.</param>
public sealed record SectionView(ClassId Class, string Name, string Letter, int Colour, ClassState State, int Students, int Held);

/// <summary>A section, by the letter of its place.</summary>
internal sealed record CombinedSection(ClassId Class, string Letter, int Colour);

/// <summary>An assignment as the sections have it, by its title.</summary>
/// <param name="Points">Full marks; null where there are none.</param>
/// <param name="Differ">The sections do not agree on full marks: their marks are no population.</param>
/// <param name="In">How many of the sections have it.</param>
/// <param name="Held">Pieces held, over all sections.</param>
/// <param name="Numbers">Marked work of all sections as one population.</param>
public sealed record CombinedColumn(string Title, decimal? Points, bool Differ, int In, int Held, ScoreNumbers Numbers);

/// <summary>A student's piece for an assignment of a combined roster.</summary>
/// <param name="Level">Its mark by name, where it is marked on a scale.</param>
public sealed record CombinedCell(int Column, WorkId Work, WorkState State, HeldBy HeldBy, decimal? Score, string? Level, bool Draft, decimal? Counts);

/// <summary>A student of a combined roster.</summary>
/// <param name="Section">Index of the section.</param>
public sealed record CombinedStudent(PersonId Id, string SortName, string? Grade, string? StudentNumber, int Section, bool HasFolder, IReadOnlyList<CombinedCell> Cells);

/// <summary>Several classes as one list: roster and returns desk.</summary>
public sealed record CombinedView(long Id, string Name, YearId Year, int Version, IReadOnlyList<SectionView> Sections, IReadOnlyList<CombinedColumn> Assignments, IReadOnlyList<CombinedStudent> Students);

/// <summary>A section as it is chosen.</summary>
public sealed record SectionChoice(ClassId Class, int Colour);

/// <summary>What returning over all sections would do, or did.</summary>
public sealed record CombinedReturn(int Pieces, int Students, int DraftMarks, int Unmarked);

/// <summary>Combined rosters: classes that one person teaches or marks as one list. Nobody else sees them.</summary>
public sealed class CombinedRosters(Premises premises, Returns returns)
{
    private readonly ReturningMany returning = new(premises);
    /// <summary>Most sections of one.</summary>
    public const int MostSections = 8;

    /// <summary>Colours that there are for sections.</summary>
    public const int Colours = 8;

    /// <summary>One's own.</summary>
    public IReadOnlyList<CombinedSummary> Mine(Caller who) => premises.Db.Read(c => CombinedStore.Of(c, who.Id).Select(r =>
    {
        var sections = CombinedStore.Sections(c, r.Id).Where(s => May(c, who, s.Class)).ToList();
        return new CombinedSummary(r.Id, r.Name, r.YearId, [.. sections.Select(s => ClassStore.Find(c, s.Class)!.Name)], sections.Sum(s => Students(c, s.Class).Count()), [.. sections.Select(s => s.Class)]);
    }).ToList());

    /// <summary>Makes one.</summary>
    public long Make(Caller by, string? name, IReadOnlyList<SectionChoice> sections) => premises.Db.Write(c =>
    {
        var (called, year) = Checked(c, by, name, sections, null);
        var id = CombinedStore.Add(c, by.Id, year, called);
        CombinedStore.SetSections(c, id, [.. sections.Select(s => new CombinedSectionRow(s.Class, s.Colour))]);
        Premises.Add(c, by, premises.Clock.Now, new("made combined roster", "combined roster", id, null, called));
        return id;
    });

    /// <summary>Renames it and says which sections it has, in which order and colour.</summary>
    public void Change(Caller by, long id, string? name, IReadOnlyList<SectionChoice> sections, int version) => premises.Db.Write(c =>
    {
        Find(c, by, id);
        var (called, _) = Checked(c, by, name, sections, id);
        if (!CombinedStore.Rename(c, id, called, version)) throw Refusals.ChangedMeanwhile("combined roster");
        CombinedStore.SetSections(c, id, [.. sections.Select(s => new CombinedSectionRow(s.Class, s.Colour))]);
        Premises.Add(c, by, premises.Clock.Now, new("changed combined roster", "combined roster", id, null, called));
    });

    /// <summary>Takes it away; its classes stay as they are.</summary>
    public void Remove(Caller by, long id) => premises.Db.Write(c =>
    {
        var r = Find(c, by, id);
        CombinedStore.Remove(c, id);
        Premises.Add(c, by, premises.Clock.Now, new("took combined roster away", "combined roster", id, null, r.Name));
    });

    /// <summary>The whole list, section by section, with the work of all.</summary>
    public CombinedView See(Caller who, long id)
    {
        var (row, sections) = premises.Db.Read(c =>
        {
            var r = Find(c, who, id);
            return (r, SectionsOf(c, who, id, Act.ManageRoster).Select(s => (Section: s, Class: ClassStore.Find(c, s.Class)!,
                Students: Students(c, s.Class).ToList(), Folders: FolderStore.OfClass(c, s.Class).Where(f => f.StudentId is not null).Select(f => f.StudentId!.Value).ToHashSet())).ToList());
        });
        var desks = sections.Select(s => returns.See(who, s.Section.Class)).ToList();
        // The same assignment has the same title in each section.
        var titles = desks.SelectMany(d => d.Assignments.Where(a => a.Published)).GroupBy(a => SafeName.Key(a.Title)).Select(g => (Key: g.Key, g.First().Title, Marked: OneTitle.Of([.. g.Select(a => (a.Points, (MarkScheme?)null))]), In: g.Count())).ToList();
        var columnOf = titles.Select((t, i) => (t.Key, i)).ToDictionary(x => x.Key, x => x.i, StringComparer.Ordinal);
        var students = sections.SelectMany((s, n) =>
        {
            var assignment = desks[n].Assignments.ToDictionary(a => a.Id, a => SafeName.Key(a.Title));
            var cells = desks[n].Students.ToDictionary(r => r.Student, r => r.Cells);
            return s.Students.Select(m => new CombinedStudent(m.PersonId, m.Name.Sort, m.Grade, m.StudentNumber, n, s.Folders.Contains(m.PersonId),
                [.. cells.GetValueOrDefault(m.PersonId, []).Where(x => columnOf.ContainsKey(assignment[x.Assignment])).Select(x => new CombinedCell(columnOf[assignment[x.Assignment]], x.Id, x.State, x.HeldBy, x.Score, x.Level, x.Draft, x.Counts))]));
        }).ToList();
        var byColumn = students.SelectMany(s => s.Cells).ToLookup(x => x.Column);
        return new(row.Id, row.Name, row.YearId, row.Version,
            [.. sections.Select((s, i) => new SectionView(s.Class.Id, s.Class.Name, s.Section.Letter, s.Section.Colour, s.Class.State, s.Students.Count, desks[i].Held))],
            [.. titles.Select((t, i) => new CombinedColumn(t.Title, t.Marked.Points, t.Marked.Differ, t.In, byColumn[i].Count(x => x.HeldBy == HeldBy.Teacher), t.Marked.Numbers(byColumn[i].Select(x => x.Counts).OfType<decimal>())))], students);
    }

    /// <summary>Says what returning everything held would do, over all sections. Writes nothing.</summary>
    public CombinedReturn PreviewReturn(Caller who, long id, bool unmarkedToo) =>
        Classes(who, id) is { Count: > 0 } open ? Told(returning.Preview(who, new(open, null, unmarkedToo, null))) : new(0, 0, 0, 0);

    /// <summary>Returns everything that is held, in all sections or in none.</summary>
    public CombinedReturn Return(Caller by, long id, bool unmarkedToo, string? comment) =>
        Classes(by, id) is { Count: > 0 } open ? Told(returning.Do(by, new(open, null, unmarkedToo, null), comment)) : new(0, 0, 0, 0);

    private static CombinedReturn Told(ManyReturns m) => new(m.Pieces, m.Students, m.DraftMarks, m.Unmarked);

    private IReadOnlyList<ClassId> Classes(Caller who, long id) => premises.Db.Read(c =>
    {
        Find(c, who, id);
        return CombinedStore.Sections(c, id).Select(s => s.Class).Where(k => May(c, who, k) && ClassStore.Find(c, k)!.State == ClassState.Open).ToList();
    });

    /// <summary>One of the asker's own; whose it is not, it is not there.</summary>
    internal static CombinedRow Find(IDbConnection c, Caller who, long id) => CombinedStore.Find(c, id) is { } r && r.OwnerId == who.Id ? r : throw Refusals.NotFound("combined roster");

    /// <summary>Its sections in which somebody may do an act, each with the letter of its place among all.</summary>
    internal static IReadOnlyList<CombinedSection> SectionsOf(IDbConnection c, Caller who, long id, Act act) =>
        [.. CombinedStore.Sections(c, id).Select((s, i) => new CombinedSection(s.Class, ((char)('A' + i)).ToString(), s.Colour)).Where(s => ClassGate.May(c, who, s.Class, act))];

    private static bool May(IDbConnection c, Caller who, ClassId id) => ClassGate.May(c, who, id, Act.ManageRoster);

    private static IEnumerable<MemberRow> Students(IDbConnection c, ClassId id) => RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null);

    private static (string Name, YearId Year) Checked(IDbConnection c, Caller by, string? name, IReadOnlyList<SectionChoice> sections, long? but)
    {
        var called = Refusals.Needed(name, "name", "The name", 80);
        if (sections.Count is < 2 or > MostSections) throw new RefusedException("sections-count", $"A combined roster of {sections.Count} sections is none.", $"Choose 2 to {MostSections} classes.", "sections");
        if (sections.Select(s => s.Class).Distinct().Count() != sections.Count) throw new RefusedException("sections-count", "A class is named twice.", "Name each once.", "sections");
        if (sections.Any(s => s.Colour is < 0 or >= Colours)) throw new RefusedException("section-colour", "There is no such colour.", $"Choose 0 to {Colours - 1}.", "sections");
        if (sections.FirstOrDefault(s => !May(c, by, s.Class)) is not null) throw new RefusedException("section-not-yours", "One of the classes is not yours.", "Choose classes of which you are staff.", "sections");
        var years = sections.Select(s => ClassStore.Find(c, s.Class)!.YearId).Distinct().ToList();
        if (years.Count > 1) throw new RefusedException("sections-years", "The classes are of different school years.", "Choose classes of one year.", "sections");
        if (CombinedStore.Of(c, by.Id).FirstOrDefault(r => r.Id != but && SafeName.Clash(r.Name, called)) is { } same) throw new RefusedException("name-taken", $"You have a combined roster “{same.Name}” already.", "Give this one another name.", "name");
        return (called, years[0]);
    }
}
