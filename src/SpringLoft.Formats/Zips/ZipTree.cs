using System.IO.Compression;
using SpringLoft.Core;

namespace SpringLoft.Formats.Zips;

/// <summary>What a zip may hold before it is taken for an attack or a mistake.</summary>
/// <param name="Entries">Most files and folders.</param>
/// <param name="Bytes">Most bytes of all files together, unpacked.</param>
public sealed record ZipLimits(int Entries, long Bytes);

/// <summary>A file in a zip.</summary>
/// <param name="Path">Of the folders it stands in, with forward slashes; empty for the top.</param>
/// <param name="Size">In bytes, unpacked, as the zip says; no more than that can be read from it.</param>
public sealed record ZipTreeFile(string Path, string Name, long Size, Func<Stream> Open);

/// <summary>
/// A tree of files out of a zip that a person sends. Everything that is suspicious is refused before a byte is unpacked:
/// paths that lead out, links, passwords, and archives that unpack to far more than they are.
/// </summary>
public sealed class ZipTree : IDisposable
{
    // What computers put into zips by themselves and nobody means to send.
    private static readonly string[] Litter = [".DS_Store", "Thumbs.db", "desktop.ini"];

    private readonly ZipArchive zip;

    private ZipTree(ZipArchive zip, IReadOnlyList<string> folders, IReadOnlyList<ZipTreeFile> files, IReadOnlyList<string> leftOut)
    {
        this.zip = zip;
        (Folders, Files, LeftOut) = (folders, files, leftOut);
    }

    /// <summary>Paths of all folders, with forward slashes; those that only stand in the paths of files too.</summary>
    public IReadOnlyList<string> Folders { get; }

    /// <summary>All files, in the order in which the zip has them.</summary>
    public IReadOnlyList<ZipTreeFile> Files { get; }

    /// <summary>What is left out, each with its reason in words.</summary>
    public IReadOnlyList<string> LeftOut { get; }

    /// <summary>Looks through a zip.</summary>
    /// <param name="from">Seekable; left open.</param>
    /// <exception cref="RefusedException"><c>zip-broken</c>, <c>zip-too-many</c>, <c>zip-expands</c>, <c>zip-leads-out</c>, <c>zip-link</c>, <c>zip-password</c>.</exception>
    public static ZipTree Open(Stream from, ZipLimits limits)
    {
        ZipArchive? zip = null;
        try
        {
            zip = ReadZip.Open(from);
            return Look(zip, from.Length, limits);
        }
        catch (Exception e) when (ReadZip.IsBroken(e))
        {
            zip?.Dispose();
            throw new RefusedException("zip-broken", "The zip can't be read: it is broken, or no zip at all.", "Make it again and send it once more.", "file");
        }
        catch (RefusedException)
        {
            zip?.Dispose();
            throw;
        }
    }

    /// <summary>Lets go of the zip.</summary>
    public void Dispose() => zip.Dispose();

    private static ZipTree Look(ZipArchive zip, long length, ZipLimits limits)
    {
        if (zip.Entries.Count > limits.Entries) throw new RefusedException("zip-too-many", $"The zip holds {zip.Entries.Count} files and folders.", $"Send up to {limits.Entries} at once.", "file");
        long bytes = 0;
        var folders = new HashSet<string>(StringComparer.Ordinal);
        var files = new List<ZipTreeFile>();
        var leftOut = new List<string>();
        foreach (var entry in zip.Entries)
        {
            var full = entry.FullName.Replace('\\', '/');
            Check(entry, full);
            bytes += entry.Length;
            if (bytes > limits.Bytes) throw new RefusedException("zip-expands", $"Unpacked, the zip is more than {limits.Bytes / (1024 * 1024)} MB.", "Send it in parts.", "file");
            var parts = full.Split('/', StringSplitOptions.RemoveEmptyEntries);
            if (parts.Length == 0) continue;
            var isFolder = full.EndsWith('/');
            if (parts[0] == "__MACOSX" || (!isFolder && Litter.Contains(parts[^1], StringComparer.OrdinalIgnoreCase)))
            {
                if (!isFolder) leftOut.Add($"“{full}”: made by a computer for itself");
                continue;
            }
            var above = string.Join('/', parts[..(isFolder ? parts.Length : parts.Length - 1)]);
            if (above.Length > 0) folders.Add(above);
            if (isFolder) continue;
            if (entry.Length == 0) leftOut.Add($"“{full}”: has 0 bytes");
            else files.Add(new(above, parts[^1], entry.Length, () => new CheckedEntry(entry)));
        }
        ReadZip.CheckExpansion(bytes, length);
        return new(zip, [.. folders], files, leftOut);
    }

    private static void Check(ZipArchiveEntry entry, string full)
    {
        if (full.StartsWith('/') || full.Split('/').Any(p => p is "..") || (full.Length > 1 && full[1] == ':'))
            throw new RefusedException("zip-leads-out", $"“{full}” leads out of the folder it is unpacked into.", "Such a zip is taken for an attack: pack the folder anew.", "file");
        // The upper half is the mode of Unix; 0xA000 marks a symbolic link.
        if (((entry.ExternalAttributes >> 16) & 0xF000) == 0xA000)
            throw new RefusedException("zip-link", $"“{full}” is a link to another place, not a file.", "Pack the file itself.", "file");
        if (entry.IsEncrypted)
            throw new RefusedException("zip-password", $"“{full}” is locked with a password.", "Pack it without one: who may see it is decided by its folder.", "file");
    }
}
