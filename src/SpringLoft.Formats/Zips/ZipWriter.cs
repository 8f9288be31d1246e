using System.IO.Compression;
using NodaTime;

namespace SpringLoft.Formats.Zips;

/// <summary>A file on its way into a zip.</summary>
/// <param name="Path">With forward slashes, relative; one at the end for a folder, which has no bytes.</param>
/// <param name="Modified">The time the zip gives it; fixed by the data, so that the same files make the same zip.</param>
/// <param name="Open">Opens its bytes; the writer closes them.</param>
public sealed record ZipFile(string Path, Instant Modified, Func<Stream> Open);

/// <summary>
/// Writes zips that any program reads. Files are stored, not deflated: most of a school's files are compressed
/// already, and a stored file can be got out of a damaged zip.
/// </summary>
public static class ZipWriter
{
    /// <summary>Writes the files in the order given. The same input gives the same bytes.</summary>
    /// <param name="to">Seekable; left open.</param>
    /// <param name="each">Called after each file with the number written so far.</param>
    public static void Write(Stream to, IEnumerable<ZipFile> files, Action<int>? each, CancellationToken stop)
    {
        using var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true);
        var n = 0;
        foreach (var file in files)
        {
            stop.ThrowIfCancellationRequested();
            Add(zip, file);
            each?.Invoke(++n);
        }
    }

    private static void Add(ZipArchive zip, ZipFile file)
    {
        var isFolder = file.Path.EndsWith('/');
        CheckPath(isFolder ? file.Path[..^1] : file.Path);
        var entry = zip.CreateEntry(file.Path, CompressionLevel.NoCompression);
        // A zip's clock begins in 1980 and ticks every two seconds.
        var earliest = Instant.FromUtc(1980, 1, 1, 0, 0);
        entry.LastWriteTime = Instant.Max(file.Modified, earliest).ToDateTimeOffset();
        if (isFolder) return;
        using var source = file.Open();
        using var target = entry.Open();
        source.CopyTo(target, 256 * 1024);
    }

    private static void CheckPath(string path)
    {
        if (path.Length == 0 || path[0] == '/' || path.Contains('\\') || path.Split('/').Any(p => p is "" or "." or ".."))
            throw new ArgumentException($"“{path}” is not a safe path inside a zip.", nameof(path));
    }
}
