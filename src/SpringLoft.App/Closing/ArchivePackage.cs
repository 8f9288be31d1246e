using System.Security.Cryptography;
using System.Text;
using SpringLoft.Core.Closing;
using SpringLoft.Formats.Bags;
using SpringLoft.Formats.Print;
using SpringLoft.Formats.Signatures;
using SpringLoft.Store.Files;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Closing;

/// <summary>What the archive package of a class holds, computed from the workspace; the same workspace gives the same package.</summary>
/// <param name="ClassFiles">How many of the files are the class's own: as many as the plan of closing says.</param>
internal sealed record ArchivePackage(ClassRead Read, LaidArchive Laid, IReadOnlyList<BagFile> Payload, int ClassFiles)
{
    internal static ArchivePackage Of(IDbConnection c, FileStore store, ClassId id)
    {
        var read = new ClassRead(c, ClassStore.Find(c, id) ?? throw Refusals.NotFound("class"));
        var laid = ClassContents.Load(c, read).Laid();
        var files = laid.Files.Select(f => new BagFile(f.Path, f.File.Sha512, f.File.Size, f.File.Modified, () => store.Open(f.File.Sha256))).ToList();
        return new(read, laid, [.. files, .. ClassMetadata.Files(read)], files.Count);
    }

    /// <summary>The class it is of.</summary>
    internal ClassRow Class => Read.Class;

    /// <summary>As a bag, with the pages for people beside it, signed by the school.</summary>
    /// <param name="made">When the closing began.</param>
    internal Bag Bag(Instant made, SchoolClock clock, SchoolKey key)
    {
        var page = ClassPageOf.Facts(Read, Laid, made, clock) with { Percents = Payload.Any(f => f.Path.Contains('%')) };
        return new(Folder, Payload, [("Source-Organization", Read.School), ("External-Description", $"Class workspace: {Class.Name}, {Read.Year}"), ("External-Identifier", $"class-{Class.Id.Value}"), ("Bag-Software-Agent", "Spring Loft")], made)
        {
            Beside = [("README.txt", ClassPage.ReadMe(page)), ("index.html", ClassPage.Write(page)), (SchoolSignature.KeyFile, Encoding.UTF8.GetBytes(SchoolSignature.Pem(key.Public)))],
            EmptyFolders = Laid.EmptyFolders,
            Sign = key.Sign,
        };
    }

    /// <summary>The folder at the top of the package; the zip is called the same.</summary>
    internal string Folder => Core.Naming.SafeName.Make(Class.Name)?.Name ?? "class";

    /// <summary>Path to SHA-512 of everything that must be in the package.</summary>
    internal IReadOnlyDictionary<string, string> Listing => Payload.ToDictionary(f => f.Path, f => f.Sha512, StringComparer.Ordinal);

    /// <summary>One digest over the listing: two packages with the same one hold the same.</summary>
    internal string Fingerprint => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(
        string.Concat(Payload.OrderBy(f => f.Path, StringComparer.Ordinal).Select(f => $"{f.Sha512}  {f.Path}\n")))));
}
