using System.Globalization;
using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;
using NodaTime;
using NodaTime.Text;
using SpringLoft.Core;
using SpringLoft.Core.Assignments;
using SpringLoft.Formats.Csv;

namespace SpringLoft.Formats.OneRoster;

/// <summary>An assignment with a score.</summary>
/// <param name="Scheme">How it is marked; null for plain points. Criteria are no scale, and are left out.</param>
public sealed record GradebookItem(string SourcedId, string Title, string Instructions, LocalDate? Assigned, LocalDate? Due, string ClassSourcedId, decimal Points, MarkScheme? Scheme = null);

/// <summary>A mark that was returned.</summary>
public sealed record GradebookResult(string ItemSourcedId, string StudentSourcedId, decimal Score, LocalDate? On);

/// <summary>
/// The gradebook files of OneRoster 1.2 (1EdTech, "OneRoster CSV Binding"): categories.csv, lineItems.csv, results.csv and
/// scoreScales.csv with a manifest. File and column names are written here from memory of that document, and so is the form of a
/// scale's values: pairs of what is shown and what it stands for, <c>{A:20},{B:15}</c>.
/// </summary>
public static class OneRosterGradebook
{
    private const string Work = "category-work";
    private static readonly string[] Items = ["sourcedId", "status", "dateLastModified", "title", "description", "assignDate", "dueDate", "classSourcedId", "categorySourcedId", "gradingPeriodSourcedId", "resultValueMin", "resultValueMax", "schoolSourcedId", "scoreScaleSourcedId"];
    private static readonly string[] Results = ["sourcedId", "status", "dateLastModified", "lineItemSourcedId", "studentSourcedId", "scoreStatus", "score", "scoreDate", "comment", "textScore", "scoreScaleSourcedId"];

    /// <summary>Is it a zip, and so a bundle rather than a table?</summary>
    /// <param name="from">Seekable; stands at its beginning afterwards.</param>
    public static bool IsBundle(Stream from)
    {
        Span<byte> head = stackalloc byte[2];
        var n = from.ReadAtLeast(head, 2, throwOnEndOfStream: false);
        from.Position = 0;
        return n == 2 && head[0] == 'P' && head[1] == 'K';
    }

    /// <summary>Writes a bundle.</summary>
    public static void Write(Stream to, IEnumerable<GradebookItem> items, IEnumerable<GradebookResult> results, Instant at)
    {
        using var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true);
        void Add(string name, byte[] bytes) => BundleFile.Add(zip, name, bytes, at);
        Add("manifest.csv", CsvTable.Write(["propertyName", "value"], [["manifest.version", "1.0"], ["oneroster.version", "1.2"],
            ["file.categories", "bulk"], ["file.lineItems", "bulk"], ["file.results", "bulk"], ["file.scoreScales", "bulk"], ["source.systemName", "Spring Loft"]]));
        Add("categories.csv", CsvTable.Write(["sourcedId", "status", "dateLastModified", "title", "weight"], [[Work, null, null, "Work", null]]));
        var all = items.ToList();
        // Points and criteria are no scale of steps.
        var scales = all.Where(i => i.Scheme is { ByCriteria: false }).ToDictionary(i => i.SourcedId, i => (Id: ScaleId(i.Scheme!), Scheme: i.Scheme!));
        Add("lineItems.csv", CsvTable.Write(Items, all.Select(i => (IReadOnlyList<string?>)
            [i.SourcedId, null, null, i.Title, i.Instructions, Day(i.Assigned), Day(i.Due), i.ClassSourcedId, Work, null, "0", Figure(i.Points), null, scales.GetValueOrDefault(i.SourcedId).Id])));
        Add("results.csv", CsvTable.Write(Results, results.Select(r => (r, Scale: scales.GetValueOrDefault(r.ItemSourcedId))).Select(x => (IReadOnlyList<string?>)
            [$"{x.r.ItemSourcedId}-{x.r.StudentSourcedId}", null, null, x.r.ItemSourcedId, x.r.StudentSourcedId, "fully graded", Figure(x.r.Score), Day(x.r.On), null, x.Scale.Scheme?.NameOf(x.r.Score), x.Scale.Id])));
        Add("scoreScales.csv", CsvTable.Write(["sourcedId", "status", "dateLastModified", "title", "type", "orgSourcedId", "courseSourcedId", "classSourcedId", "scoreScaleValue"],
            scales.Values.DistinctBy(x => x.Id).OrderBy(x => x.Id, StringComparer.Ordinal).Select(x => (IReadOnlyList<string?>)
                [x.Id, null, null, x.Scheme.Scale ?? string.Join(" / ", x.Scheme.Levels.Select(l => l.Name)), "levels", null, null, null, string.Join(',', x.Scheme.Levels.Select(l => $"{{{Plain(l.Name)}:{Figure(l.Points)}}}"))])));
    }

    // By what it says, so that one scale is one row, whatever number of assignments are marked on it, and the same in each bundle.
    private static string ScaleId(MarkScheme scheme) => $"scale-{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(scheme.Write())))[..16]}";

    // What holds the pairs apart does not stand within them; the level's own name stands with each result.
    private static string Plain(string name) => string.Concat(name.Select(ch => ch is '{' or '}' or ':' or ',' ? ' ' : ch)).Trim();

    /// <summary>Reads lineItems.csv and results.csv: a row for each student and class, a column for each title.</summary>
    /// <param name="from">A zip, seekable.</param>
    /// <param name="sectionOf">The name of a class of ours by its sourcedId; null if it is none of them.</param>
    /// <exception cref="RefusedException"><c>zip-…</c>, <c>table-…</c>, <c>oneroster-no-results</c>.</exception>
    public static ScoreSheet Read(Stream from, Func<string, string?> sectionOf)
    {
        ZipArchive zip;
        try { zip = Zips.ReadZip.Open(from); }
        catch (InvalidDataException) { throw new RefusedException("zip-broken", "The zip can't be read: it is broken, or no zip at all.", "Export it again and send it once more.", "file"); }
        using (zip)
        {
            Zips.ReadZip.CheckExpansion(zip.Entries.Sum(e => e.Length), from.Length);
            var items = Rows(zip, "lineItems.csv", ["sourcedId", "title", "classSourcedId"]).Where(r => !Gone(r) && r["sourcedId"] is not null)
                .GroupBy(r => r["sourcedId"]!, StringComparer.OrdinalIgnoreCase).ToDictionary(g => g.Key, g => g.First(), StringComparer.OrdinalIgnoreCase);
            var columns = new List<string>();
            var placeOf = new Dictionary<string, int>(StringComparer.OrdinalIgnoreCase);
            var again = new Dictionary<(string Student, string Class, int Column), int>();
            var rows = new Dictionary<(string Student, string Class, int Again), (int Line, Dictionary<int, string> Cells)>();
            foreach (var r in Rows(zip, "results.csv", ["lineItemSourcedId", "studentSourcedId"]).Where(r => !Gone(r)))
            {
                if (r["studentSourcedId"] is not { } student || r["lineItemSourcedId"] is not { } of || (r["score"] ?? r["textScore"]) is not { } score) continue;
                var item = items.GetValueOrDefault(of);
                var head = item is null ? of : item["resultValueMax"] is { } points ? $"{item["title"]} ({points})" : item["title"] ?? of;
                if (!placeOf.TryGetValue(head, out var at))
                {
                    placeOf[head] = at = columns.Count;
                    columns.Add(head);
                }
                // Two results of one student for one item are two rows: which of them is meant, nobody knows.
                var mark = (student, item?["classSourcedId"] ?? "", at);
                var nth = again[mark] = again.GetValueOrDefault(mark, -1) + 1;
                var key = (Student: student, Class: mark.Item2, Again: nth);
                if (!rows.TryGetValue(key, out var row)) rows[key] = row = (r.Line, []);
                row.Cells[at] = score;
            }
            if (columns.Count > ScoreSheet.MostColumns || (long)columns.Count * rows.Count > ScoreSheet.MostCells)
                throw new RefusedException("too-many", $"The gradebook has {columns.Count} line items for {rows.Count} students.", "Export the results of these classes alone.", "file");
            return new(columns, [.. rows.Select(r => new ScoreRow(r.Value.Line, r.Key.Student, null, null, r.Key.Class.Length == 0 ? null : sectionOf(r.Key.Class) ?? r.Key.Class,
                [.. columns.Select((_, i) => r.Value.Cells.GetValueOrDefault(i))]))]);
        }
    }

    private static IReadOnlyList<CsvRow> Rows(ZipArchive zip, string name, IReadOnlyList<string> needed)
    {
        var entry = zip.Entries.FirstOrDefault(e => e.Name.Equals(name, StringComparison.OrdinalIgnoreCase))
            ?? throw new RefusedException("oneroster-no-results", $"There is no {name} in the zip.", "Export the gradebook with lineItems.csv and results.csv, or send a plain table.", "file");
        using var aside = new MemoryStream();
        try
        {
            using var open = new Zips.CheckedEntry(entry);
            open.CopyTo(aside);
        }
        catch (InvalidDataException) { throw new RefusedException("zip-broken", $"“{name}” in the zip is broken.", "Export it again and send it once more.", "file"); }
        aside.Position = 0;
        return CsvRows.Read(aside, name, needed);
    }

    private static bool Gone(CsvRow r) => string.Equals(r["status"], "tobedeleted", StringComparison.OrdinalIgnoreCase);

    private static string? Day(LocalDate? day) => day is { } d ? LocalDatePattern.Iso.Format(d) : null;

    private static string Figure(decimal n) => n.ToString("0.############", CultureInfo.InvariantCulture);
}
