using CsvHelper;
using SpringLoft.Core;

namespace SpringLoft.Formats.Csv;

/// <summary>A row of a table that is read.</summary>
public sealed class CsvRow
{
    private readonly CsvColumns columns;
    private readonly CsvReader? reading;
    private readonly string[] fields = [];

    internal CsvRow(CsvColumns columns, CsvReader reading) => (this.columns, this.reading) = (columns, reading);

    private CsvRow(CsvRow row) => (columns, Line, Count, fields) = (row.columns, row.Line, row.Count, [.. Enumerable.Range(0, row.Count).Select(i => row.At(i) ?? "")]);

    /// <summary>In the file, 1 and up; the header is line 1.</summary>
    public int Line { get; private set; }

    /// <summary>How many fields the row has, needed or not.</summary>
    public int Count { get; private set; }

    /// <summary>A field, trimmed; null if blank or if there is no such column.</summary>
    public string? this[string column] => At(columns.At(column));

    /// <summary>A field by its place, trimmed, without the mark that we put before what looks like a formula; null if blank or if the row is shorter.</summary>
    public string? At(int index)
    {
        if (index < 0 || index >= Count) return null;
        var field = reading is null ? fields[index] : CsvTable.WithoutMark(reading.GetString(index).Trim());
        return string.IsNullOrWhiteSpace(field) ? null : field;
    }

    /// <summary>The row for later: the reader's own is another one when it reads on.</summary>
    internal CsvRow Kept() => new(this);

    // Only fields that are asked for become text.
    internal void Next() => (Line, Count) = ((int)reading!.LineNumber, reading.FieldCount);

    internal bool IsBlank()
    {
        for (var i = 0; i < Count; i++)
            if (!reading!.IsEmpty(i) && At(i) is not null) return false;
        return true;
    }
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
        Each(from, file, needed, _ => { }, r => rows.Add(r.Kept()));
        return rows;
    }

    /// <summary>Hands out the rows one by one, so that a long table is never in memory as a whole.</summary>
    /// <param name="columns">Told the header, before the first row.</param>
    /// <param name="row">Given each row in turn; it can be read until the next one comes.</param>
    /// <exception cref="RefusedException">As <see cref="Read"/>.</exception>
    public static void Each(Stream from, string file, IReadOnlyList<string> needed, Action<CsvColumns> columns, Action<CsvRow> row)
    {
        try
        {
            // Without a hint the reader finds out itself whether commas, semicolons or tabs stand between the fields.
            using var csv = CsvReader.Create(from, new CsvReaderOptions { TrackLineNumbers = true, MaxRecordSize = MostBytesOfARow, MalformedData = CsvMalformedDataHandling.Throw, PoolStrings = true }, leaveOpen: true);
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
        var one = new CsvRow(header, csv);
        for (var read = 0; csv.Read();)
        {
            if (++read > Most) throw new RefusedException("too-many", $"“{file}” has more than {Most} rows.", "Send it in parts.", "file");
            one.Next();
            if (!one.IsBlank()) row(one);
        }
    }
}
