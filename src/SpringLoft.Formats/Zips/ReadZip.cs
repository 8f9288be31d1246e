using System.IO.Compression;

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

    /// <summary>Is it the zip that is wrong, and not the disk or the program?</summary>
    internal static bool IsBroken(Exception e) => e is InvalidDataException or EndOfStreamException or OverflowException or ArgumentException or NotSupportedException or InvalidOperationException;
}
