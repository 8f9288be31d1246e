using CsvHelper;
using SpringLoft.Core;

namespace SpringLoft.Formats.Csv;

/// <summary>A row of a table that was read.</summary>
/// <param name="Line">In the file, 1 and up; the header is line 1.</param>
public sealed record CsvRow(int Line, IReadOnlyDictionary<string, string> Fields)
{
    /// <summary>A field, trimmed; null if blank or if there is no such column.</summary>
    public string? this[string column] => Fields.TryGetValue(column, out var v) && !string.IsNullOrWhiteSpace(v) ? v.Trim() : null;
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
        try
        {
            // Without a hint the reader finds out itself whether commas, semicolons or tabs stand between the fields.
            using var csv = CsvReader.Create(from, new CsvReaderOptions { TrackLineNumbers = true, MaxRecordSize = MostBytesOfARow, MalformedData = CsvMalformedDataHandling.Throw }, leaveOpen: true);
            return Rows(csv, file, needed);
        }
        catch (CsvFormatException e)
        {
            throw new RefusedException("table-unreadable", $"“{file}” can't be read: {e.Message}", "Look for a quote that is opened and never closed, or save it as CSV in UTF-8.", "file");
        }
    }

    private static List<CsvRow> Rows(CsvReader csv, string file, IReadOnlyList<string> needed)
    {
        csv.ReadHeader();
        var header = csv.Headers.Select(h => h.Trim()).ToArray();
        if (header.All(h => h.Length == 0)) throw new RefusedException("table-empty", $"“{file}” is empty.", "Export it again with its header and rows.", "file");
        if (needed.FirstOrDefault(n => !header.Contains(n, StringComparer.OrdinalIgnoreCase)) is { } missing)
            throw new RefusedException("table-columns", $"“{file}” has no column “{missing}”. Its columns are: {string.Join(", ", header)}.", "Export it with that column, or name the column so.", "file");
        var rows = new List<CsvRow>();
        while (csv.Read())
        {
            if (rows.Count >= Most) throw new RefusedException("too-many", $"“{file}” has more than {Most} rows.", "Send it in parts.", "file");
            var fields = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
            for (var i = 0; i < header.Length && i < csv.FieldCount; i++) fields.TryAdd(header[i], csv.GetString(i));
            if (fields.Values.Any(v => !string.IsNullOrWhiteSpace(v))) rows.Add(new((int)csv.LineNumber, fields));
        }
        return rows;
    }
}
