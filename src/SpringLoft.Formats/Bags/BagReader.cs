using System.Buffers;
using System.Globalization;
using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;

namespace SpringLoft.Formats.Bags;

/// <summary>What reading a bag found.</summary>
/// <param name="Problems">In words; none if the bag is complete and valid.</param>
/// <param name="Payload">Path below <c>data/</c> to the SHA-512 of the bytes that are really there.</param>
public sealed record BagReading(IReadOnlyList<string> Problems, IReadOnlyDictionary<string, string> Payload)
{
    /// <summary>Tag files by name: all that is not below <c>data/</c>.</summary>
    public IReadOnlyDictionary<string, byte[]> Tags { get; init; } = new Dictionary<string, byte[]>();
}

/// <summary>Reads a zipped bag back and tests it. Source: RFC 8493 sections 2 and 3 ("complete" and "valid").</summary>
public static class BagReader
{
    // A manifest of a million files is shorter; what claims to be longer is no tag file.
    private const long MostTagBytes = 256L * 1024 * 1024;

    /// <summary>Reads every byte. Memory stays flat.</summary>
    /// <param name="zip">Seekable.</param>
    /// <param name="each">Called after each payload file with the number read so far.</param>
    public static BagReading Read(Stream zip, Action<int>? each, CancellationToken stop)
    {
        var problems = new List<string>();
        var payload = new Dictionary<string, string>(StringComparer.Ordinal);
        ZipArchive archive;
        try { archive = Zips.ReadZip.Open(zip); }
        catch (InvalidDataException e) { return new([$"not a zip: {e.Message}"], payload); }
        using var _ = archive;

        var tops = archive.Entries.Select(e => e.FullName.Split('/')[0]).Distinct().ToList();
        if (tops.Count != 1) return new([$"one folder expected at the top, found {tops.Count}"], payload);
        var prefix = tops[0] + "/";
        var tags = new Dictionary<string, byte[]>(StringComparer.Ordinal);
        long bytes = 0;
        var n = 0;
        foreach (var entry in archive.Entries)
        {
            stop.ThrowIfCancellationRequested();
            // The folder itself, where a zip names it without a slash, has no path in it.
            var path = entry.FullName.Length < prefix.Length ? "" : entry.FullName[prefix.Length..];
            try
            {
                if (path.EndsWith('/'))
                {
                    // A folder: a bag is made of files, so there is nothing of it to check but that it is no file in disguise.
                    if (entry.Length > 0) problems.Add($"a folder with bytes of its own: {path}");
                }
                else if (path.StartsWith("data/", StringComparison.Ordinal))
                {
                    if (!payload.TryAdd(path["data/".Length..], Digest(entry))) problems.Add($"twice in the zip: {path}");
                    bytes += entry.Length;
                    each?.Invoke(++n);
                }
                else
                {
                    if (!tags.TryAdd(path, Whole(entry))) problems.Add($"twice in the zip: {path}");
                }
            }
            catch (InvalidDataException e) { problems.Add($"cannot be read: {path} ({e.Message})"); }
        }
        CheckTags(tags, problems);
        CheckManifest(tags, payload, problems);
        CheckOxum(tags, bytes, payload.Count, problems);
        return new(problems, payload) { Tags = tags };
    }

    private static void CheckTags(Dictionary<string, byte[]> tags, List<string> problems)
    {
        if (!tags.TryGetValue("bagit.txt", out var declaration)) problems.Add("missing: bagit.txt");
        else if (Encoding.UTF8.GetString(declaration).ReplaceLineEndings("\n") != BagWriter.Declaration) problems.Add("bagit.txt is not that of a BagIt 1.0 bag");
        if (!tags.TryGetValue("tagmanifest-sha512.txt", out var manifest)) return;
        foreach (var (digest, path) in Lines(manifest, problems, "tagmanifest-sha512.txt"))
        {
            if (!tags.TryGetValue(path, out var content)) problems.Add($"missing: {path}");
            else if (Convert.ToHexStringLower(SHA512.HashData(content)) != digest) problems.Add($"changed since it was written: {path}");
        }
    }

    private static void CheckManifest(Dictionary<string, byte[]> tags, Dictionary<string, string> payload, List<string> problems)
    {
        if (!tags.TryGetValue("manifest-sha512.txt", out var manifest))
        {
            problems.Add("missing: manifest-sha512.txt");
            return;
        }
        var listed = new HashSet<string>(StringComparer.Ordinal);
        foreach (var (digest, path) in Lines(manifest, problems, "manifest-sha512.txt"))
        {
            var below = path.StartsWith("data/", StringComparison.Ordinal) ? path["data/".Length..] : path;
            listed.Add(below);
            if (!payload.TryGetValue(below, out var found)) problems.Add($"missing: {path}");
            else if (found != digest) problems.Add($"changed since it was written: {path}");
        }
        problems.AddRange(payload.Keys.Where(p => !listed.Contains(p)).Order(StringComparer.Ordinal).Select(p => $"not in the manifest: data/{p}"));
    }

    private static void CheckOxum(Dictionary<string, byte[]> tags, long bytes, int files, List<string> problems)
    {
        if (!tags.TryGetValue("bag-info.txt", out var info)) return;
        const string label = "Payload-Oxum: ";
        var line = Encoding.UTF8.GetString(info).Split('\n').FirstOrDefault(l => l.StartsWith(label, StringComparison.Ordinal));
        var is_ = string.Create(CultureInfo.InvariantCulture, $"{bytes}.{files}");
        if (line is not null && line[label.Length..].Trim() != is_) problems.Add($"Payload-Oxum says {line[label.Length..].Trim()}, the payload is {is_}");
    }

    private static IEnumerable<(string Digest, string Path)> Lines(byte[] manifest, List<string> problems, string name)
    {
        foreach (var line in Encoding.UTF8.GetString(manifest).Split('\n', StringSplitOptions.RemoveEmptyEntries))
        {
            var gap = line.IndexOf(' ', StringComparison.Ordinal);
            if (gap != 128) problems.Add($"{name} has a line that is no digest and path");
            else yield return (line[..gap].ToLowerInvariant(), Unescape(line[gap..].TrimStart(' ', '\t').TrimEnd('\r')));
        }
    }

    private static string Unescape(string path) =>
        path.Replace("%0A", "\n", StringComparison.OrdinalIgnoreCase).Replace("%0D", "\r", StringComparison.OrdinalIgnoreCase).Replace("%25", "%", StringComparison.Ordinal);

    private static string Digest(ZipArchiveEntry entry)
    {
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA512);
        var buffer = ArrayPool<byte>.Shared.Rent(256 * 1024);
        try
        {
            using var source = new Zips.CheckedEntry(entry);
            int n;
            while ((n = source.Read(buffer)) > 0) hash.AppendData(buffer, 0, n);
            return Convert.ToHexStringLower(hash.GetHashAndReset());
        }
        finally { ArrayPool<byte>.Shared.Return(buffer); }
    }

    private static byte[] Whole(ZipArchiveEntry entry)
    {
        if (entry.Length > MostTagBytes) throw new InvalidDataException($"longer than {MostTagBytes / (1024 * 1024)} MB");
        using var source = new Zips.CheckedEntry(entry);
        using var bytes = new MemoryStream();
        source.CopyTo(bytes);
        return bytes.ToArray();
    }
}
