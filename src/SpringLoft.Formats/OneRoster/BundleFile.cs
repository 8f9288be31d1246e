using System.IO.Compression;
using NodaTime;

namespace SpringLoft.Formats.OneRoster;

/// <summary>A file of a bundle that goes out.</summary>
internal static class BundleFile
{
    /// <summary>Adds it, with the moment at which the bundle is made.</summary>
    internal static void Add(ZipArchive zip, string name, byte[] bytes, Instant at)
    {
        var entry = zip.CreateEntry(name, CompressionLevel.Optimal);
        entry.LastWriteTime = at.ToDateTimeOffset();
        using var open = entry.Open();
        open.Write(bytes);
    }
}
