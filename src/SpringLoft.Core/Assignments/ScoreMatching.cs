using System.Globalization;
using System.Text.RegularExpressions;
using SpringLoft.Core.Naming;

namespace SpringLoft.Core.Assignments;

/// <summary>A row of scores from elsewhere.</summary>
/// <param name="Line">In the file, 1 and up; the header is line 1.</param>
/// <param name="RecordId">How the school's records call the student.</param>
/// <param name="Section">The name of a class; null if the file does not say.</param>
/// <param name="Cells">As long as the columns; null where nothing stands.</param>
public sealed record ScoreRow(int Line, string? RecordId, string? Number, string? Email, string? Section, IReadOnlyList<string?> Cells);

/// <summary>Scores from elsewhere.</summary>
/// <param name="Columns">What each column is called: the title of an assignment, its full marks in brackets behind it or not.</param>
public sealed record ScoreSheet(IReadOnlyList<string> Columns, IReadOnlyList<ScoreRow> Rows)
{
    /// <summary>Most columns of a sheet.</summary>
    public const int MostColumns = 2000;

    /// <summary>Most cells of a sheet.</summary>
    public const int MostCells = 5_000_000;
}

/// <summary>A student on the roster of a class into which scores may come.</summary>
public sealed record ScorePlace(ClassId Class, string Section, PersonId Student, string? RecordId, string? Number, string? Email);

/// <summary>An assignment that may take scores.</summary>
/// <param name="GivenTo">Empty for the whole class.</param>
public sealed record ScoreTarget(ClassId Class, AssignmentId Assignment, string Title, decimal? Points, bool Published, IReadOnlyCollection<PersonId> GivenTo, MarkScheme? Scheme = null);

/// <summary>Why a column, a row or a score does not come in.</summary>
public enum ScoreFault
{
    /// <summary>No assignment has that title.</summary>
    ColumnUnknown,
    /// <summary>Two columns are of one assignment.</summary>
    ColumnTwice,
    /// <summary>The assignment has no score.</summary>
    NoPoints,
    /// <summary>The file speaks of other full marks.</summary>
    PointsDiffer,
    /// <summary>The assignment is a draft.</summary>
    NotPublished,
    /// <summary>The row has neither number nor e-mail.</summary>
    NobodyNamed,
    /// <summary>Nobody on these rosters has that number or e-mail.</summary>
    NotOnRoster,
    /// <summary>The row is of a class that is none of these, or the student is not in it.</summary>
    OtherSection,
    /// <summary>Number and e-mail are of two people.</summary>
    TwoPeople,
    /// <summary>The student has more than one row.</summary>
    Twice,
    /// <summary>The student is in more than one of the sections, and the row does not say which.</summary>
    SeveralSections,
    /// <summary>The student's section has no such assignment.</summary>
    NotInSection,
    /// <summary>It is not given to the student.</summary>
    NotGiven,
    /// <summary>What stands there is no number.</summary>
    NoNumber,
    /// <summary>More decimals than a mark has, or a separator of thousands: nobody can tell.</summary>
    Decimals,
    /// <summary>Below nothing or over full marks.</summary>
    Range,
    /// <summary>It is none of the levels of the scale that the assignment is marked on.</summary>
    OffScale,
    /// <summary>The assignment is marked by criteria: a sum alone does not say which levels.</summary>
    ByCriteria,
}

/// <summary>Something that does not come in.</summary>
/// <param name="Line">Of the file; 1 for a column.</param>
/// <param name="Value">What stands there.</param>
public sealed record ScoreFinding(int Line, string? Column, ScoreFault Fault, string? Value);

/// <summary>A mark that comes in as a draft.</summary>
public sealed record ScoreStep(int Line, ClassId Class, AssignmentId Assignment, PersonId Student, decimal To);

/// <summary>What a file of scores would do.</summary>
/// <param name="Same">Scores that say what stands there already.</param>
public sealed record MatchedScores(IReadOnlyList<ScoreStep> Steps, int Same, IReadOnlyList<ScoreFinding> Findings);

/// <summary>
/// Which score of a file is whose: by record id, then student number, then e-mail; the first that decides, decides. What is
/// not certain does not come in and is listed: nothing is guessed. Source: docs/rules.md, "Work and marks".
/// </summary>
public static partial class ScoreMatching
{
    /// <summary>Matches all of it.</summary>
    /// <param name="standing">The piece of a student for an assignment; null where there is none.</param>
    public static MatchedScores Match(ScoreSheet sheet, IReadOnlyList<ScorePlace> places, IReadOnlyList<ScoreTarget> targets, Func<AssignmentId, PersonId, WorkFact?> standing)
    {
        var findings = new List<ScoreFinding>();
        var columns = Columns(sheet.Columns, targets, findings);
        var rows = Rows(sheet.Rows, places, findings);
        var steps = new List<ScoreStep>();
        var same = 0;
        foreach (var (row, place) in rows)
            for (var i = 0; i < columns.Count; i++)
            {
                if (columns[i] is not { } column || row.Cells[i] is not { } text) continue;
                void Found(ScoreFault fault) => findings.Add(new(row.Line, sheet.Columns[i], fault, text));
                if (column.FirstOrDefault(t => t.Class == place.Class) is not { } target) Found(ScoreFault.NotInSection);
                else if (target.GivenTo.Count > 0 && !target.GivenTo.Contains(place.Student)) Found(ScoreFault.NotGiven);
                else if (target.Scheme is { ByCriteria: true }) { if (Number(text) != Stands(standing(target.Assignment, place.Student))) Found(ScoreFault.ByCriteria); else same++; }
                else if ((target.Scheme?.PointsOf(text) ?? Number(text)) is not { } score) Found(ScoreFault.NoNumber);
                else if (Stands(standing(target.Assignment, place.Student)) == score) same++;
                else if (target.Scheme is { } scale && scale.NameOf(score) is null) Found(ScoreFault.OffScale);
                else if (score.Scale > WorkFlow.MarkPlaces) Found(ScoreFault.Decimals);
                else if (score < 0 || score > target.Points) Found(ScoreFault.Range);
                else steps.Add(new(row.Line, place.Class, target.Assignment, place.Student, score));
            }
        return new(steps, same, [.. findings.OrderBy(f => f.Line)]);
    }

    /// <summary>A number as people and programs write it, with a point or a comma before the decimals and nothing else in it; null if it is none.</summary>
    public static decimal? Number(string text) =>
        Plain().IsMatch(text.Trim()) && decimal.TryParse(text.Trim().Replace(',', '.'), NumberStyles.AllowDecimalPoint | NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var n) ? n : null;

    [GeneratedRegex(@"^[+-]?[0-9]{1,12}([.,][0-9]{1,12})?$")]
    private static partial Regex Plain();

    [GeneratedRegex(@"^(?<title>.+) \((?<points>[0-9.,]+)\)$", RegexOptions.Singleline)]
    private static partial Regex WithPoints();

    // A draft stands before the mark that counts: it is what would be returned next.
    private static decimal? Stands(WorkFact? work) => work is null ? null : work.Score ?? work.Counts;

    private static List<IReadOnlyList<ScoreTarget>?> Columns(IReadOnlyList<string> columns, IReadOnlyList<ScoreTarget> targets, List<ScoreFinding> findings)
    {
        var byTitle = targets.ToLookup(t => SafeName.Key(t.Title), StringComparer.Ordinal);
        var named = columns.Select(column => Named(column, byTitle)).ToList();
        return [.. named.Select((x, i) =>
        {
            ScoreFault? fault = x.Of.Count == 0 ? ScoreFault.ColumnUnknown
                : named.Where((y, n) => n != i && y.Of.Intersect(x.Of).Any()).Any() ? ScoreFault.ColumnTwice
                : x.Of.All(t => !t.Published) ? ScoreFault.NotPublished
                : x.Of.All(t => t.Points is null) ? ScoreFault.NoPoints
                : x.Points is { } said && x.Of.Any(t => t is { Published: true, Points: { } points } && points != said) ? ScoreFault.PointsDiffer
                : null;
            if (fault is { } f) findings.Add(new(1, columns[i], f, null));
            return fault is null ? (IReadOnlyList<ScoreTarget>?)[.. x.Of.Where(t => t is { Published: true, Points: not null })] : null;
        })];
    }

    private static (IReadOnlyList<ScoreTarget> Of, decimal? Points) Named(string column, ILookup<string, ScoreTarget> byTitle)
    {
        // A title may itself end in a number in brackets.
        if (byTitle[SafeName.Key(column)].ToList() is { Count: > 0 } whole) return (whole, null);
        var parts = WithPoints().Match(column);
        return parts.Success ? ([.. byTitle[SafeName.Key(parts.Groups["title"].Value)]], Number(parts.Groups["points"].Value)) : ([], null);
    }

    private static List<(ScoreRow Row, ScorePlace Place)> Rows(IReadOnlyList<ScoreRow> rows, IReadOnlyList<ScorePlace> places, List<ScoreFinding> findings)
    {
        var byRecord = Lookup(p => p.RecordId);
        var byNumber = Lookup(p => p.Number);
        var byEmail = Lookup(p => p.Email);
        var sections = places.ToLookup(p => SafeName.Key(p.Section), StringComparer.Ordinal);
        var found = new List<(ScoreRow Row, ScorePlace Place)>();
        foreach (var row in rows)
        {
            void Found(ScoreFault fault, string? value) => findings.Add(new(row.Line, null, fault, value));
            List<List<ScorePlace>> named = [.. new[] { Of(byRecord, row.RecordId), Of(byNumber, row.Number), Of(byEmail, row.Email) }.Where(x => x.Count > 0)];
            var saying = row.Number ?? row.Email ?? row.RecordId;
            if (saying is null) { Found(ScoreFault.NobodyNamed, null); continue; }
            if (row.Section is { } said && !sections.Contains(SafeName.Key(said))) { Found(ScoreFault.OtherSection, said); continue; }
            if (named.Count == 0) { Found(ScoreFault.NotOnRoster, saying); continue; }
            if (named.SelectMany(x => x.Select(p => p.Student)).Distinct().Count() > 1) { Found(ScoreFault.TwoPeople, saying); continue; }
            var here = named[0].Where(p => row.Section is null || SafeName.Clash(p.Section, row.Section)).ToList();
            if (here.Count == 0) Found(ScoreFault.OtherSection, row.Section);
            else if (here.Count > 1) Found(ScoreFault.SeveralSections, saying);
            else found.Add((row, here[0]));
        }
        var byStudent = found.ToLookup(f => (f.Place.Class, f.Place.Student));
        findings.AddRange(byStudent.Where(g => g.Count() > 1).SelectMany(g => g).Select(f => new ScoreFinding(f.Row.Line, null, ScoreFault.Twice, f.Row.Number ?? f.Row.Email ?? f.Row.RecordId)));
        return [.. byStudent.Where(g => g.Count() == 1).Select(g => g.First())];

        ILookup<string, ScorePlace> Lookup(Func<ScorePlace, string?> key) => places.Where(p => key(p) is not null).ToLookup(p => key(p)!.Trim(), StringComparer.OrdinalIgnoreCase);
        static List<ScorePlace> Of(ILookup<string, ScorePlace> by, string? key) => key is null ? [] : [.. by[key.Trim()]];
    }
}
