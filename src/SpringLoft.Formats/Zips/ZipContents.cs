using System.Security.Cryptography;

namespace SpringLoft.Formats.Zips;

/// <summary>What is in a zip of our own making, by content.</summary>
public static class ZipContents
{
    /// <summary>Each file's path and the SHA-256 of its bytes, in hexadecimal. Everything is read: what is damaged is found.</summary>
    /// <exception cref="InvalidDataException">The zip, or a file in it, is damaged.</exception>
    public static IReadOnlyList<(string Path, string Sha256)> Read(Stream zip)
    {
        using var archive = ReadZip.Open(zip);
        var found = new List<(string, string)>();
        foreach (var entry in archive.Entries.Where(e => !e.FullName.EndsWith('/')))
        {
            using var bytes = new CheckedEntry(entry);
            found.Add((entry.FullName, Convert.ToHexStringLower(SHA256.HashData(bytes))));
        }
        return found;
    }

    /// <summary>Copies one file out of a zip.</summary>
    /// <exception cref="InvalidDataException">The zip is damaged, or has no such file.</exception>
    public static void Copy(Stream zip, string path, Stream to)
    {
        using var archive = ReadZip.Open(zip);
        using var from = new CheckedEntry(archive.GetEntry(path) ?? throw new InvalidDataException($"There is no “{path}” in the zip."));
        from.CopyTo(to);
    }
}
