using System.Text;
using SpringLoft.Formats.Bags;

namespace SpringLoft.Formats.Tests.Bags;

/// <summary>A small bag with everything awkward in its names.</summary>
internal static class SampleBag
{
    internal static readonly Instant Made = Instant.FromUtc(2027, 6, 22, 12, 0);

    internal static readonly IReadOnlyList<BagFile> Payload =
    [
        BagFile.Of("folders/Week 01/Lines.txt", Encoding.UTF8.GetBytes("lines\n"), Made),
        BagFile.Of("folders/Žemaitis, Rúna/日記.txt", Encoding.UTF8.GetBytes("notes"), Made),
        BagFile.Of("folders/100% cotton.txt", Encoding.UTF8.GetBytes("x"), Made),
        BagFile.Of("metadata/class.csv", Encoding.UTF8.GetBytes("name\r\nClay\r\n"), Made),
        BagFile.Of("folders/empty of meaning.bin", new byte[300_000], Made),
    ];

    internal static Bag Of(IReadOnlyList<BagFile> payload) => new("Clay 6B", payload, [("Source-Organization", "Skerry Point School")], Made);

    internal static byte[] Zip(IReadOnlyList<BagFile>? payload = null)
    {
        using var to = new MemoryStream();
        BagWriter.Write(to, Of(payload ?? Payload), null, CancellationToken.None);
        return to.ToArray();
    }

    internal static BagReading Read(byte[] zip)
    {
        using var from = new MemoryStream(zip);
        return BagReader.Read(from, null, CancellationToken.None);
    }
}
