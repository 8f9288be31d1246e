using System.IO.Compression;
using System.Text;

namespace SpringLoft.Tests.Shared;

/// <summary>Zips made of text, for tests.</summary>
internal static class Zip
{
    internal static MemoryStream Of(params (string Name, string Text)[] files) => OfBytes([.. files.Select(f => (f.Name, Encoding.UTF8.GetBytes(f.Text)))]);

    internal static MemoryStream OfBytes(params (string Name, byte[] Bytes)[] files)
    {
        var to = new MemoryStream();
        using (var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (name, bytes) in files)
            {
                using var entry = zip.CreateEntry(name).Open();
                entry.Write(bytes);
            }
        to.Position = 0;
        return to;
    }
}
