using System.IO.Compression;
using SpringLoft.Core;

namespace SpringLoft.Formats.Zips;

/// <summary>The one way in which a zip from outside is opened: whatever is wrong with it is an <see cref="InvalidDataException"/>.</summary>
public static class ReadZip
{
    /// <summary>Opens a zip and reads its list of files.</summary>
    /// <param name="from">Seekable; left open.</param>
    /// <exception cref="InvalidDataException">It is broken, or no zip at all.</exception>
    public static ZipArchive Open(Stream from)
    {
        ZipArchive? zip = null;
        try
        {
            zip = new ZipArchive(from, ZipArchiveMode.Read, leaveOpen: true);
            // The list is read only when it is first asked for; a wrong count in it shows here and not later.
            _ = zip.Entries.Count;
            return zip;
        }
        catch (Exception e) when (IsBroken(e))
        {
            zip?.Dispose();
            throw new InvalidDataException(e.Message, e);
        }
    }

    // Deflate can't pack anything tighter than about 1,032 to 1; nothing that a school sends comes near a fifth of it.
    private const long MostExpansion = 200;
    private const long SmallEnough = 50L * 1024 * 1024;

    /// <summary>Refuses a zip from outside that would unpack to far more than was sent.</summary>
    /// <param name="bytes">Of all files in it, unpacked.</param>
    /// <param name="length">Of the zip, in bytes.</param>
    /// <exception cref="RefusedException"><c>zip-expands</c>.</exception>
    internal static void CheckExpansion(long bytes, long length)
    {
        if (bytes > SmallEnough && bytes / MostExpansion > length)
            throw new RefusedException("zip-expands", $"The zip would unpack to {bytes / Math.Max(1, length)} times its size.", "Such a zip is taken for an attack: send the files themselves.", "file");
    }

    /// <summary>Is it the zip that is wrong, and not the disk or the program?</summary>
    internal static bool IsBroken(Exception e) => e is InvalidDataException or EndOfStreamException or OverflowException or ArgumentException or NotSupportedException or InvalidOperationException;
}
