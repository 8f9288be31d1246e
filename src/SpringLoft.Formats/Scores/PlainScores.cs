using SpringLoft.Core;
using SpringLoft.Core.Assignments;
using SpringLoft.Formats.Csv;

namespace SpringLoft.Formats.Scores;

/// <summary>
/// Scores as a plain table: a student a row, an assignment a column. Who a row is of is said by the columns "student number" and
/// "e-mail", which section by "class"; names are for people and are not read; every other column is an assignment.
/// </summary>
public static class PlainScores
{
    private static readonly string[] Number = ["student number", "number", "student id"];
    private static readonly string[] Email = ["e-mail", "email"];
    private static readonly string[] Section = ["class", "section"];
    private static readonly string[] ForPeople = ["family name", "given name", "name", "student"];

    /// <summary>The header of a table that goes out, up to the assignments.</summary>
    public static IReadOnlyList<string> About { get; } = [Number[0], Email[0], "family name", "given name", Section[0]];

    /// <summary>Reads a table.</summary>
    /// <exception cref="RefusedException"><c>scores-no-key</c>, <c>table-…</c>.</exception>
    public static ScoreSheet Read(Stream from, string file)
    {
        int[] titles = [];
        IReadOnlyList<string> names = [];
        var (number, email, section) = (-1, -1, -1);
        var rows = new List<ScoreRow>();
        CsvRows.Each(from, file, [], columns =>
        {
            names = [.. columns.Names.Select(CsvTable.WithoutMark)];
            (number, email, section) = (First(columns, Number), First(columns, Email), First(columns, Section));
            if (number < 0 && email < 0)
                throw new RefusedException("scores-no-key", $"“{file}” has no column that says whose a row is. Its columns are: {string.Join(", ", names.Where(n => n.Length > 0))}.", "Name the column of student numbers “student number”, or that of e-mail addresses “e-mail”.", "file");
            titles = [.. Enumerable.Range(0, names.Count).Where(i => i != number && i != email && i != section && names[i].Length > 0 && !ForPeople.Contains(names[i], StringComparer.OrdinalIgnoreCase))];
            if (titles.Length > ScoreSheet.MostColumns) throw new RefusedException("too-many", $"“{file}” has {titles.Length} columns.", $"Send up to {ScoreSheet.MostColumns}, those of this class.", "file");
        }, r => rows.Add(new(r.Line, null, number < 0 ? null : r.At(number), email < 0 ? null : r.At(email), section < 0 ? null : r.At(section), [.. titles.Select(r.At)])));
        return new([.. titles.Select(i => names[i])], rows);
    }

    private static int First(CsvColumns columns, string[] names) => names.Select(columns.At).Append(-1).First(i => i >= 0 || names.All(n => columns.At(n) < 0));
}
