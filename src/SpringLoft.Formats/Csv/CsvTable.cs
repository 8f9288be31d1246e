using System.Text;
using CsvHelper;

namespace SpringLoft.Formats.Csv;

/// <summary>
/// A table as RFC 4180 writes it: UTF-8 without a mark, comma, CRLF, quotes where needed. Every field is written so that a
/// spreadsheet shows it and does not work it out; <see cref="CsvRow"/> reads it as it was.
/// </summary>
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
    public static string? ForSpreadsheets(string? field) => field is not null && LooksLikeFormula(field) ? $"'{field}" : field;

    /// <summary>Takes away what <see cref="ForSpreadsheets"/> put before it.</summary>
    public static string WithoutMark(string field) => field.Length > 1 && field[0] == '\'' && LooksLikeFormula(field) ? field[1..] : field;

    // What has the mark already gets another, so that taking one away gives what it was.
    private static bool LooksLikeFormula(string field) => field.AsSpan().TrimStart('\'') is { Length: > 0 } rest && BeginsFormula.Contains(rest[0], StringComparison.Ordinal);

    private static void Row(CsvWriter csv, IReadOnlyList<string?> fields)
    {
        foreach (var field in fields) csv.WriteField(ForSpreadsheets(field) ?? "");
        csv.EndRecord();
    }
}
