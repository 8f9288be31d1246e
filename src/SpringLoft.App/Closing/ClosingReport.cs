using System.Globalization;
using System.Text;
using SpringLoft.Core.Closing;
using SpringLoft.Formats.Csv;
using SpringLoft.Formats.Signatures;
using SpringLoft.Formats.Zips;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Naming;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Closing;

/// <summary>What became of a class in a run.</summary>
/// <param name="Files">Of the class, as the plan of the run said; the package has a few more, which tell of it.</param>
/// <param name="Bytes">Of the package, as a file.</param>
/// <param name="Fingerprint">The package's SHA-256; null if there is none.</param>
public sealed record ClosingOutcome(ClassId Id, string Name, string Lead, string? Department, StepState State, string? Reason, int TakeHomes, int Files, long Bytes, string? Fingerprint, Instant? VerifiedAt);

/// <summary>The report of a closing run: as it is now, and as it was signed when the run ended.</summary>
internal static class ClosingReport
{
    private static readonly string[] Header = ["class", "lead teacher", "department", "outcome", "reason", "take-homes", "files", "bytes of package", "sha256 of package"];

    internal static IReadOnlyList<ClosingOutcome> Of(IDbConnection c, RunId id)
    {
        var packages = RunStore.PackagesOf(c, id).ToLookup(p => p.ClassId);
        var leads = new Dictionary<YearId, StaffStore>();
        return [.. RunStore.Classes(c, id).Select(r =>
        {
            // Deleted since: the run keeps what became of it then.
            if (ClassStore.Find(c, r.ClassId) is not { } k) return new ClosingOutcome(r.ClassId, r.Name, "–", null, r.State, "It was deleted from the loft since.", 0, 0, 0, null, null);
            if (!leads.TryGetValue(k.YearId, out var staff)) leads[k.YearId] = staff = StaffStore.Of(c, k.YearId);
            var archive = packages[r.ClassId].FirstOrDefault(p => p.Kind == "Archive");
            return new ClosingOutcome(r.ClassId, k.Name, staff.Lead(k.Id), k.Department, r.State, r.Reason, packages[r.ClassId].Count(p => p.Kind == "TakeHome"), archive?.OwnFiles ?? 0, archive?.Size ?? 0, archive?.Sha256, archive?.VerifiedAt);
        })];
    }

    /// <summary>As a table for any spreadsheet.</summary>
    internal static byte[] Table(IEnumerable<ClosingOutcome> report) => CsvTable.Write(Header, report.Select(Row));

    /// <summary>The table that is signed: with the school, the run and its end in each line, so that none of them stands for another.</summary>
    internal static string Signed(IDbConnection c, RunId id, Instant ended)
    {
        var school = SchoolStore.Get(c)!.Name;
        var at = ended.ToString("uuuu-MM-dd'T'HH:mm:ss'Z'", CultureInfo.InvariantCulture);
        return Encoding.UTF8.GetString(CsvTable.Write([.. Header, "school", "run", "run ended"], Of(c, id).Select(o => (IReadOnlyList<string?>)[.. Row(o), school, id.Value.ToString(CultureInfo.InvariantCulture), at])));
    }

    /// <summary>The signed table, its signature and the public key as one zip, with how it is checked.</summary>
    internal static void Zip(Stream to, RunReportRow report, byte[] key, CancellationToken stop)
    {
        const string name = "report.csv";
        var how = $"The report of closing run {report.RunId.Value}, signed with the key whose fingerprint is\n{SchoolSignature.Fingerprint(key)}\n\nTo check it:\n  openssl pkeyutl -verify -pubin -inkey {SchoolSignature.KeyFile} -rawin -in {name} -sigfile {name}.sig\n\nThat the key is the school's is told by its fingerprint: the loft shows it, and each archive package has the key.\n";
        (string, byte[])[] files =
        [
            (name, Encoding.UTF8.GetBytes(report.Report)), ($"{name}.sig", Convert.FromHexString(report.Signature)), (SchoolSignature.KeyFile, Encoding.UTF8.GetBytes(SchoolSignature.Pem(key))), ("README.txt", Encoding.UTF8.GetBytes(how)),
        ];
        ZipWriter.Write(to, files.Select(f => new ZipFile(f.Item1, report.SignedAt, () => new MemoryStream(f.Item2))), null, stop);
    }

    private static string?[] Row(ClosingOutcome o) =>
    [
        o.Name, o.Lead, o.Department, Said(o.State), o.Reason, o.TakeHomes.ToString(CultureInfo.InvariantCulture), o.Files.ToString(CultureInfo.InvariantCulture), o.Bytes.ToString(CultureInfo.InvariantCulture), o.Fingerprint,
    ];

    internal static string Said(StepState s) => s switch { StepState.Done => "verified", StepState.Failed => "failed", StepState.Skipped => "skipped", StepState.Working => "at work", _ => "waits" };
}
