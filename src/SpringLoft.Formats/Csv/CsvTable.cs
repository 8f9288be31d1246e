using System.Text;
using CsvHelper;

namespace SpringLoft.Formats.Csv;

/// <summary>A table as RFC 4180 writes it: UTF-8 without a mark, comma, CRLF, quotes where needed.</summary>
public static class CsvTable
{
    /// <summary>Writes header and rows.</summary>
    /// <param name="rows">Each as long as the header; null is an empty field.</param>
    public static byte[] Write(IReadOnlyList<string> header, IEnumerable<IReadOnlyList<string?>> rows)
    {
        using var bytes = new MemoryStream();
        using (var text = new StreamWriter(bytes, new UTF8Encoding(false), leaveOpen: true))
        using (var csv = CsvWriter.Create(text, new CsvWriterOptions { NewLine = "\r\n" }, leaveOpen: true))
        {
            Row(csv, header);
            foreach (var row in rows)
            {
                if (row.Count != header.Count) throw new ArgumentException($"A row has {row.Count} fields, the header {header.Count}.", nameof(rows));
                Row(csv, row);
            }
            csv.Flush();
        }
        return bytes.ToArray();
    }

    private static void Row(CsvWriter csv, IReadOnlyList<string?> fields)
    {
        foreach (var field in fields) csv.WriteField(field ?? "");
        csv.EndRecord();
    }
}
