using System.Text;
using CsvHelper;

namespace SpringLoft.Formats.Csv;

/// <summary>A table as RFC 4180 writes it: UTF-8 without a mark, comma, CRLF, quotes where needed.</summary>
public static class CsvTable
{
    // What a spreadsheet takes for the beginning of a formula: OWASP, "CSV Injection" (from memory).
    private const string BeginsFormula = "=+-@\t\r";

    /// <summary>Writes header and rows.</summary>
    /// <param name="rows">Each as long as the header; null is an empty field.</param>
    public static byte[] Write(IReadOnlyList<string> header, IEnumerable<IReadOnlyList<string?>> rows)
    {
        using var bytes = new MemoryStream();
        Write(bytes, header, rows);
        return bytes.ToArray();
    }

    /// <summary>Writes header and rows into a stream that stays open.</summary>
    public static void Write(Stream to, IReadOnlyList<string> header, IEnumerable<IReadOnlyList<string?>> rows)
    {
        using var text = new StreamWriter(to, new UTF8Encoding(false), leaveOpen: true);
        using var csv = CsvWriter.Create(text, new CsvWriterOptions { NewLine = "\r\n" }, leaveOpen: true);
        Row(csv, header);
        foreach (var row in rows)
        {
            if (row.Count != header.Count) throw new ArgumentException($"A row has {row.Count} fields, the header {header.Count}.", nameof(rows));
            Row(csv, row);
        }
        csv.Flush();
    }

    /// <summary>Text that a spreadsheet shows and does not work out: what looks like a formula gets an apostrophe before it.</summary>
    public static string? ForSpreadsheets(string? field) => field is { Length: > 0 } && BeginsFormula.Contains(field[0], StringComparison.Ordinal) ? $"'{field}" : field;

    /// <summary>Takes away what <see cref="ForSpreadsheets"/> put before it.</summary>
    public static string WithoutMark(string field) => field.Length > 1 && field[0] == '\'' && BeginsFormula.Contains(field[1], StringComparison.Ordinal) ? field[1..] : field;

    private static void Row(CsvWriter csv, IReadOnlyList<string?> fields)
    {
        foreach (var field in fields) csv.WriteField(field ?? "");
        csv.EndRecord();
    }
}
