using SpringLoft.Core.Assignments;
using SpringLoft.Core.Naming;
using SpringLoft.Store.Assignments;

namespace SpringLoft.App.Assignments;

/// <summary>A column of the score table: the assignments of one title.</summary>
/// <param name="Levels">Of the scale that it is marked on in all sections; empty where there is none, or they differ.</param>
/// <param name="Points">Full marks; null where the sections do not agree: then they are no population.</param>
/// <param name="Numbers">Of the marks that are returned, all sections as one population.</param>
/// <param name="Scores">The marks themselves, the lowest first.</param>
/// <param name="Drafts">Draft marks: in none of the figures.</param>
/// <param name="ToMark">Handed in and without a mark.</param>
/// <param name="Of">Which assignment it is in the sections that have it.</param>
public sealed record ScoreColumn(string Title, decimal? Points, IReadOnlyList<MarkLevel> Levels, LocalDate? DueOn, ScoreNumbers Numbers, IReadOnlyList<decimal> Scores, int Drafts, int ToMark, IReadOnlyList<ScoreAssignment> Of);

/// <summary>What a column is in a section.</summary>
/// <param name="Section">Index of the section.</param>
public sealed record ScoreAssignment(int Section, AssignmentId Assignment);

/// <summary>A section of it.</summary>
public sealed record ScoreTableSection(ClassId Class, string Name, string? Letter, int? Colour);

/// <summary>What stands in a cell; nothing at all has no cell.</summary>
/// <param name="Counts">The mark that counts.</param>
/// <param name="Draft">A draft mark.</param>
/// <param name="Waits">Handed in and without a mark.</param>
public sealed record ScoreCell(int Column, decimal? Counts, decimal? Draft, bool Waits);

/// <summary>A student's row.</summary>
/// <param name="Section">Index of the section.</param>
/// <param name="Share">Mean of the marks as hundredths of full marks; null without a mark.</param>
public sealed record ScoreTableRow(PersonId Student, string SortName, string? Number, int Section, decimal? Share, IReadOnlyList<ScoreCell> Cells);

/// <summary>Scores that came in from a file and can be taken back.</summary>
public sealed record ScoreImport(long Id, string Name, string By, Instant At, int Marks);

/// <summary>Students against assignments, with figures.</summary>
/// <param name="Shut">True if nothing in it is changed any more.</param>
public sealed record ScoreTable(string Name, bool Shut, IReadOnlyList<ScoreTableSection> Sections, IReadOnlyList<ScoreColumn> Columns, IReadOnlyList<ScoreTableRow> Students, IReadOnlyList<ScoreImport> Imports);

/// <summary>The score table of a class or a combined roster.</summary>
public sealed class ScoreTables(Premises premises)
{
    /// <summary>Imports that are shown.</summary>
    private const int MostImports = 10;

    /// <summary>Of one class.</summary>
    public ScoreTable OfClass(Caller who, ClassId id) => premises.Db.Read(c => See(c, ScoreScope.OfClass(c, who, id)));

    /// <summary>Of all sections of a combined roster, as one list.</summary>
    public ScoreTable OfCombined(Caller who, long combined) => premises.Db.Read(c => See(c, ScoreScope.OfCombined(c, who, combined)));

    private static ScoreTable See(IDbConnection c, ScoreScope scope)
    {
        var of = scope.Sections.Select(s => AssignmentStore.OfClass(c, s.Class.Id).Where(a => a is { PublishedAt: not null, Points: not null }).ToList()).ToList();
        var titles = of.SelectMany(x => x).GroupBy(a => SafeName.Key(a.Title), StringComparer.Ordinal).Select(g => (g.Key, First: g.First(), Marked: OneTitle.Of([.. g.Select(a => (a.Points, a.Scheme))]))).ToList();
        var columnOf = titles.Select((t, i) => (t.Key, i)).ToDictionary(x => x.Key, x => x.i, StringComparer.Ordinal);
        var students = scope.Sections.SelectMany((s, n) =>
        {
            var column = of[n].ToDictionary(a => a.Id, a => columnOf[SafeName.Key(a.Title)]);
            var points = of[n].ToDictionary(a => a.Id, a => a.Points!.Value);
            var work = WorkStore.OfClass(c, s.Class.Id).Where(w => column.ContainsKey(w.AssignmentId)).ToLookup(w => w.StudentId);
            return ScoreScope.Students(c, s.Class.Id).Select(m =>
            {
                var mine = work[m.PersonId].ToList();
                var marked = mine.Where(w => w.ReturnedScore is not null).ToList();
                return new ScoreTableRow(m.PersonId, m.Name.Sort, m.StudentNumber, n, marked.Count == 0 ? null : marked.Average(w => w.ReturnedScore!.Value / points[w.AssignmentId] * 100),
                    [.. mine.Select(w => Cell(w, column[w.AssignmentId])).Where(x => x.Counts is not null || x.Draft is not null || x.Waits)]);
            });
        }).ToList();
        var cells = students.SelectMany(s => s.Cells).ToLookup(x => x.Column);
        var may = scope.Sections.Select(s => s.Class.Id).ToList();
        return new(scope.Name, scope.Sections.Any(s => s.Class.State == Core.Workspaces.ClassState.Archived), [.. scope.Sections.Select(s => new ScoreTableSection(s.Class.Id, s.Class.Name, s.Letter, s.Colour))],
            [.. titles.Select((t, i) =>
            {
                var counting = cells[i].Select(x => x.Counts).OfType<decimal>().ToList();
                return new ScoreColumn(t.First.Title, t.Marked.Points, t.Marked.Levels, t.First.DueOn, t.Marked.Numbers(counting), t.Marked.Population(counting),
                    cells[i].Count(x => x.Draft is not null), cells[i].Count(x => x.Waits), [.. of.SelectMany((x, n) => x.Where(a => SafeName.Key(a.Title) == t.Key).Select(a => new ScoreAssignment(n, a.Id)))]);
            })], students,
            [.. ScoreImportStore.Of(c, may).Where(i => ScoreImportStore.Marks(c, i.Id).All(m => may.Contains(m.ClassId))).Take(MostImports).Select(i => new ScoreImport(i.Id, i.Name, i.By, i.At, i.Marks))]);
    }

    private static ScoreCell Cell(WorkRow w, int column)
    {
        var draft = WorkFlow.IsDraft(Returns.Fact(w));
        return new(column, w.ReturnedScore, draft ? w.Score : null, w.State == WorkState.HandedIn && !draft);
    }
}
