using CsvHelper;
using SpringLoft.Core;

namespace SpringLoft.Formats.Csv;

/// <summary>A row of a table that was read.</summary>
public sealed class CsvRow
{
    private readonly CsvColumns columns;
    private readonly string[] fields;

    internal CsvRow(int line, CsvColumns columns, string[] fields) => (Line, this.columns, this.fields) = (line, columns, fields);

    /// <summary>In the file, 1 and up; the header is line 1.</summary>
    public int Line { get; }

    /// <summary>How many fields the row has, needed or not.</summary>
    public int Count => fields.Length;

    /// <summary>A field, trimmed; null if blank or if there is no such column.</summary>
    public string? this[string column] => columns.At(column) is var i and >= 0 && i < fields.Length && !string.IsNullOrWhiteSpace(fields[i]) ? fields[i].Trim() : null;

    /// <summary>A field by its place, trimmed; null if blank or if the row is shorter.</summary>
    public string? At(int index) => index >= 0 && index < fields.Length && !string.IsNullOrWhiteSpace(fields[index]) ? fields[index].Trim() : null;
}

/// <summary>The header of a table: where each column stands, whatever its case.</summary>
public sealed class CsvColumns
{
    private readonly Dictionary<string, int> at = new(StringComparer.OrdinalIgnoreCase);

    internal CsvColumns(IReadOnlyList<string> names)
    {
        Names = names;
        for (var i = 0; i < names.Count; i++) at.TryAdd(names[i], i);
    }

    /// <summary>As the file writes them.</summary>
    public IReadOnlyList<string> Names { get; }

    /// <summary>Where a column stands; -1 if there is no such.</summary>
    public int At(string column) => at.GetValueOrDefault(column, -1);
}

/// <summary>
/// Reads a table with a header, as RFC 4180 writes it and as spreadsheets do: commas, semicolons or tabs, any line ends,
/// with or without a byte order mark. Columns are found by name, whatever their case and order.
/// </summary>
public static class CsvRows
{
    /// <summary>Most rows of one table.</summary>
    public const int Most = 1_000_000;

    private const int MostBytesOfARow = 1024 * 1024;

    /// <summary>All rows; blank ones left out.</summary>
    /// <param name="needed">Columns without which the table says nothing.</param>
    /// <exception cref="RefusedException"><c>table-unreadable</c>, <c>table-columns</c>, <c>table-empty</c>.</exception>
    public static IReadOnlyList<CsvRow> Read(Stream from, string file, IReadOnlyList<string> needed)
    {
        var rows = new List<CsvRow>();
        Each(from, file, needed, _ => { }, rows.Add);
        return rows;
    }

    /// <summary>Hands out the rows one by one, so that a long table is never in memory as a whole.</summary>
    /// <param name="columns">Told the header, before the first row.</param>
    /// <exception cref="RefusedException">As <see cref="Read"/>.</exception>
    public static void Each(Stream from, string file, IReadOnlyList<string> needed, Action<CsvColumns> columns, Action<CsvRow> row)
    {
        try
        {
            // Without a hint the reader finds out itself whether commas, semicolons or tabs stand between the fields.
            using var csv = CsvReader.Create(from, new CsvReaderOptions { TrackLineNumbers = true, MaxRecordSize = MostBytesOfARow, MalformedData = CsvMalformedDataHandling.Throw }, leaveOpen: true);
            Rows(csv, file, needed, columns, row);
        }
        catch (CsvFormatException e)
        {
            throw new RefusedException("table-unreadable", $"“{file}” can't be read: {e.Message}", "Look for a quote that is opened and never closed, or save it as CSV in UTF-8.", "file");
        }
    }

    private static void Rows(CsvReader csv, string file, IReadOnlyList<string> needed, Action<CsvColumns> columns, Action<CsvRow> row)
    {
        csv.ReadHeader();
        var header = new CsvColumns([.. csv.Headers.Select(h => h.Trim())]);
        if (header.Names.All(h => h.Length == 0)) throw new RefusedException("table-empty", $"“{file}” is empty.", "Export it again with its header and rows.", "file");
        if (needed.FirstOrDefault(n => header.At(n) < 0) is { } missing)
            throw new RefusedException("table-columns", $"“{file}” has no column “{missing}”. Its columns are: {string.Join(", ", header.Names)}.", "Export it with that column, or name the column so.", "file");
        columns(header);
        var read = 0;
        while (csv.Read())
        {
            if (++read > Most) throw new RefusedException("too-many", $"“{file}” has more than {Most} rows.", "Send it in parts.", "file");
            var fields = new string[csv.FieldCount];
            var blank = true;
            for (var i = 0; i < fields.Length; i++) blank &= string.IsNullOrWhiteSpace(fields[i] = csv.GetString(i));
            if (!blank) row(new((int)csv.LineNumber, header, fields));
        }
    }
}
