using SpringLoft.Formats.Bags;
using SpringLoft.Formats.Signatures;
using SpringLoft.Formats.Zips;

namespace SpringLoft.Server.Hosting;

/// <summary>Checks one archive package, or a signed report of a closing run, with no school and no database: whoever has the file can.</summary>
internal static class VerifyPackage
{
    private const string Report = "report.csv";

    /// <summary>0 if it is whole and signed, 1 if something is not, 2 if there is no such file.</summary>
    /// <param name="keyFile">A public key in PEM that it must be signed with; null for the one that it brings.</param>
    internal static int Run(string path, string? keyFile, TextWriter says)
    {
        if (!File.Exists(path) || (keyFile is not null && !File.Exists(keyFile)))
        {
            says.WriteLine($"There is no file {(File.Exists(path) ? keyFile : path)}. Name a data folder, a package or a signed report.");
            return 2;
        }
        var key = keyFile is null ? null : SchoolSignature.ReadPem(File.ReadAllBytes(keyFile));
        if (keyFile is not null && key is null)
        {
            says.WriteLine($"{keyFile} is no public key of a school (Ed25519, PEM).");
            return 2;
        }
        using var zip = File.OpenRead(path);
        try
        {
            return Files(zip, key, says) ?? Bag(zip, key, says);
        }
        catch (InvalidDataException e)
        {
            says.WriteLine($"{path} can't be read: {e.Message}");
            return 1;
        }
    }

    private static int Bag(FileStream zip, byte[]? key, TextWriter says)
    {
        zip.Position = 0;
        var reading = BagReader.Read(zip, null, CancellationToken.None);
        foreach (var problem in reading.Problems) says.WriteLine(problem);
        var signed = Signed(reading.Tags.GetValueOrDefault(BagWriter.Manifest), reading.Tags.GetValueOrDefault(BagWriter.Signature), reading.Tags.GetValueOrDefault(SchoolSignature.KeyFile), key, says);
        says.WriteLine($"{reading.Payload.Count} files were read: {(reading.Problems.Count == 0 ? "all whole" : $"{reading.Problems.Count} faults")}.");
        return reading.Problems.Count == 0 && signed ? 0 : 1;
    }

    // Null where it is no signed report.
    private static int? Files(FileStream zip, byte[]? key, TextWriter says)
    {
        using var archive = ReadZip.Open(zip);
        byte[]? Bytes(string name)
        {
            if (archive.GetEntry(name) is not { Length: < 100_000_000 }) return null;
            using var to = new MemoryStream();
            ZipContents.Copy(zip, name, to);
            return to.ToArray();
        }
        return Bytes(Report) is not { } report ? null : Signed(report, Bytes($"{Report}.sig"), Bytes(SchoolSignature.KeyFile), key, says) ? 0 : 1;
    }

    private static bool Signed(byte[]? bytes, byte[]? signature, byte[]? brought, byte[]? wanted, TextWriter says)
    {
        if (bytes is null || signature is null)
        {
            says.WriteLine("It is not signed: it was made before packages were, or the signature was taken out.");
            return wanted is null && signature is null && brought is null;
        }
        var key = wanted ?? (brought is null ? null : SchoolSignature.ReadPem(brought));
        if (key is null)
        {
            says.WriteLine($"It is signed, and brings no key. Name the school's key: verify FILE {SchoolSignature.KeyFile}");
            return false;
        }
        var by = SchoolSignature.IsBy(key, bytes, signature);
        says.WriteLine($"{(by ? "Signed" : "NOT signed")} with the key {SchoolSignature.Fingerprint(key)}{(wanted is null && by ? ", which it brings itself: compare it with the one in the school's loft" : "")}.");
        return by;
    }
}
