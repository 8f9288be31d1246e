using System.IO.Compression;
using System.Text;
using NodaTime;
using SpringLoft.Core;
using SpringLoft.Formats.Csv;

namespace SpringLoft.Formats.OneRoster;

/// <summary>A resource as OneRoster names it.</summary>
/// <param name="VendorResourceId">What the vendor calls it; an address of the web where it begins as one.</param>
/// <param name="Roles">Comma-separated: student, teacher and others.</param>
public sealed record OneRosterResource(string SourcedId, string Title, string VendorResourceId, string? Roles, string? VendorId, bool Deleted, int Line);

/// <summary>A class's use of a resource.</summary>
public sealed record OneRosterClassResource(string SourcedId, string ClassSourcedId, string ResourceSourcedId);

/// <summary>Something in a row that could not be taken as it is.</summary>
public sealed record RowFinding(string File, int Line, string Column, string Text);

/// <summary>
/// resources.csv and classResources.csv of OneRoster 1.2 (1EdTech, "OneRoster CSV Binding"). File and column names are
/// written here from memory of that document.
/// </summary>
public static class OneRosterResources
{
    private static readonly string[] Columns = ["sourcedId", "status", "dateLastModified", "vendorResourceId", "title", "roles", "importance", "vendorId", "applicationId"];
    private static readonly string[] ClassColumns = ["sourcedId", "status", "dateLastModified", "title", "classSourcedId", "resourceSourcedId"];

    /// <summary>Reads resources.csv, bare or inside a zip. A row that can't be taken is told and left out; the others come.</summary>
    /// <param name="from">Seekable.</param>
    /// <exception cref="RefusedException"><c>table-…</c>; <c>oneroster-no-resources</c> for a zip without the file; <c>zip-broken</c>.</exception>
    public static (IReadOnlyList<OneRosterResource> Resources, IReadOnlyList<RowFinding> Findings) Read(Stream from)
    {
        Span<byte> head = stackalloc byte[2];
        var n = from.ReadAtLeast(head, 2, throwOnEndOfStream: false);
        from.Position = 0;
        if (n < 2 || head[0] != 'P' || head[1] != 'K') return Rows(from);
        ZipArchive zip;
        try { zip = Zips.ReadZip.Open(from); }
        catch (InvalidDataException) { throw new RefusedException("zip-broken", "The zip can't be read.", "Export it again.", "file"); }
        using (zip)
        {
            var entry = zip.Entries.FirstOrDefault(e => e.Name.Equals("resources.csv", StringComparison.OrdinalIgnoreCase))
                ?? throw new RefusedException("oneroster-no-resources", "There is no resources.csv in the zip.", "Export the bundle with its resources.", "file");
            if (entry.Length > 100 * 1024 * 1024) throw new RefusedException("file-too-long", "resources.csv is longer than 100 MB.", "Export fewer resources.", "file");
            Zips.ReadZip.CheckExpansion(entry.Length, from.Length);
            using var aside = new MemoryStream((int)entry.Length);
            try
            {
                using var open = new Zips.CheckedEntry(entry);
                open.CopyTo(aside);
            }
            catch (InvalidDataException) { throw new RefusedException("zip-broken", "“resources.csv” in the zip is broken.", "Export it again and send it once more.", "file"); }
            aside.Position = 0;
            return Rows(aside);
        }
    }

    private static (IReadOnlyList<OneRosterResource>, IReadOnlyList<RowFinding>) Rows(Stream from)
    {
        var found = new List<OneRosterResource>();
        var findings = new List<RowFinding>();
        var seen = new HashSet<string>(StringComparer.Ordinal);
        foreach (var row in CsvRows.Read(from, "resources.csv", ["sourcedId", "title", "vendorResourceId"]))
        {
            void Finding(string column, string text) => findings.Add(new("resources.csv", row.Line, column, text));
            if (row["sourcedId"] is not { } id) Finding("sourcedId", "is empty: the row is left out.");
            else if (!seen.Add(id)) Finding("sourcedId", $"“{id}” stands there a second time: the row is left out.");
            else if (row["title"] is not { } title) Finding("title", "is empty: the row is left out.");
            else if (row["vendorResourceId"] is not { } vendor) Finding("vendorResourceId", "is empty: the row is left out.");
            else found.Add(new(id, title, vendor, row["roles"], row["vendorId"], string.Equals(row["status"], "tobedeleted", StringComparison.OrdinalIgnoreCase), row.Line));
        }
        return (found, findings);
    }

    /// <summary>A bundle of the list and of which classes use what.</summary>
    public static void Write(Stream to, IEnumerable<OneRosterResource> resources, IEnumerable<OneRosterClassResource> uses, Instant at)
    {
        using var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true);
        void Add(string name, byte[] bytes) => BundleFile.Add(zip, name, bytes, at);
        var list = resources.ToList();
        Add("manifest.csv", CsvTable.Write(["propertyName", "value"], [["manifest.version", "1.0"], ["oneroster.version", "1.2"], ["file.resources", "bulk"], ["file.classResources", "bulk"], ["source.systemName", "Spring Loft"]]));
        Add("resources.csv", CsvTable.Write(Columns, list.Select(r => new[] { r.SourcedId, null, null, r.VendorResourceId, r.Title, r.Roles, null, r.VendorId, null })));
        var titles = list.ToDictionary(r => r.SourcedId, r => r.Title, StringComparer.Ordinal);
        Add("classResources.csv", CsvTable.Write(ClassColumns, uses.Select(u => new[] { u.SourcedId, null, null, titles.GetValueOrDefault(u.ResourceSourcedId), u.ClassSourcedId, u.ResourceSourcedId })));
    }
}
