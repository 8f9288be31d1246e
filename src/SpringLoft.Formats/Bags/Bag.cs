using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using NodaTime;
using SpringLoft.Formats.Zips;

namespace SpringLoft.Formats.Bags;

/// <summary>A payload file of a bag.</summary>
/// <param name="Path">Below <c>data/</c>, forward slashes.</param>
/// <param name="Sha512">Lower-case hex, known beforehand; the check reads the bytes back and compares.</param>
/// <param name="Size">In bytes.</param>
public sealed record BagFile(string Path, string Sha512, long Size, Instant Modified, Func<Stream> Open)
{
    /// <summary>A payload file made in memory.</summary>
    public static BagFile Of(string path, byte[] bytes, Instant modified) =>
        new(path, Convert.ToHexStringLower(SHA512.HashData(bytes)), bytes.Length, modified, () => new MemoryStream(bytes, writable: false));
}

/// <summary>What is to be written as a bag.</summary>
/// <param name="Folder">The one folder at the top of the zip.</param>
/// <param name="Info">Elements of bag-info.txt besides Bagging-Date and Payload-Oxum, in order.</param>
/// <param name="Made">The bagging date, and the time of the tag files.</param>
public sealed record Bag(string Folder, IReadOnlyList<BagFile> Payload, IEnumerable<(string Label, string Value)> Info, Instant Made)
{
    /// <summary>Other tag files at the top, for people: named in the tag manifest, no part of the payload.</summary>
    public IReadOnlyList<(string Name, byte[] Bytes)> Beside { get; init; } = [];

    /// <summary>Folders below <c>data/</c> in which nothing stands. RFC 8493 speaks of files alone; the zip names them all the same.</summary>
    public IReadOnlyList<string> EmptyFolders { get; init; } = [];

    /// <summary>Signs the bytes of the manifest; the signature is a tag file beside it. Null for none.</summary>
    public Func<byte[], byte[]>? Sign { get; init; }
}

/// <summary>
/// Writes a BagIt 1.0 bag into a zip, in one folder named after it. Source: RFC 8493 (sections 2.1 to 2.4, and 4 on
/// serialization).
/// </summary>
public static class BagWriter
{
    /// <summary>The text of bagit.txt, to the letter of RFC 8493 section 2.1.1.</summary>
    public const string Declaration = "BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n";

    /// <summary>The tag file with the SHA-512 of each payload file.</summary>
    public const string Manifest = "manifest-sha512.txt";

    /// <summary>The tag file with the signature of <see cref="Manifest"/>, 64 bytes.</summary>
    public const string Signature = Manifest + ".sig";

    /// <summary>Writes the bag. The same input gives the same bytes.</summary>
    /// <param name="to">Seekable; left open.</param>
    public static void Write(Stream to, Bag bag, Action<int>? each, CancellationToken stop)
    {
        var manifest = Text(bag.Payload.OrderBy(f => f.Path, StringComparer.Ordinal).Select(f => $"{f.Sha512}  data/{Escape(f.Path)}"));
        var oxum = string.Create(CultureInfo.InvariantCulture, $"{bag.Payload.Sum(f => f.Size)}.{bag.Payload.Count}");
        var info = Text(bag.Info.Append(("Bagging-Date", bag.Made.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture))).Append(("Payload-Oxum", oxum))
            .Select(i => $"{i.Item1}: {i.Item2.ReplaceLineEndings(" ")}"));
        List<(string Name, byte[] Bytes)> tags = [.. bag.Beside, ("bagit.txt", Encoding.UTF8.GetBytes(Declaration)), ("bag-info.txt", info), (Manifest, manifest)];
        if (bag.Sign is { } sign) tags.Add((Signature, sign(manifest)));
        var tagManifest = Text(tags.Select(t => $"{Convert.ToHexStringLower(SHA512.HashData(t.Bytes))}  {t.Name}"));
        var files = tags.Append(("tagmanifest-sha512.txt", tagManifest))
            .Select(t => new ZipFile($"{bag.Folder}/{t.Item1}", bag.Made, () => new MemoryStream(t.Item2, writable: false)))
            .Concat(bag.EmptyFolders.Select(f => new ZipFile($"{bag.Folder}/data/{f}/", bag.Made, () => Stream.Null)))
            .Concat(bag.Payload.Select(f => new ZipFile($"{bag.Folder}/data/{f.Path}", f.Modified, f.Open)));
        ZipWriter.Write(to, files, each, stop);
    }

    /// <summary>RFC 8493 section 2.1.3: line ends and the percent sign are escaped in paths of a manifest, nothing else.</summary>
    public static string Escape(string path) => path.Replace("%", "%25", StringComparison.Ordinal).Replace("\r", "%0D", StringComparison.Ordinal).Replace("\n", "%0A", StringComparison.Ordinal);

    private static byte[] Text(IEnumerable<string> lines) => Encoding.UTF8.GetBytes(string.Concat(lines.Select(l => l + "\n")));
}
