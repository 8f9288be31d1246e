using System.IO.Compression;
using System.Text;
using CsCheck;
using SpringLoft.Formats.Bags;

namespace SpringLoft.Formats.Tests.Bags;

public class BagReaderTests
{
    [Fact]
    public void What_was_written_is_read_back_whole()
    {
        var reading = SampleBag.Read(SampleBag.Zip());

        reading.Problems.ShouldBeEmpty();
        reading.Payload.OrderBy(p => p.Key).ShouldBe(SampleBag.Payload.Select(p => KeyValuePair.Create(p.Path, p.Sha512)).OrderBy(p => p.Key));
    }

    private static byte[] Changed(Action<ZipArchive> change)
    {
        using var bytes = new MemoryStream();
        bytes.Write(SampleBag.Zip());
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Update, leaveOpen: true)) change(zip);
        return bytes.ToArray();
    }

    private static void Put(ZipArchive zip, string name, string text)
    {
        zip.GetEntry($"Clay 6B/{name}")?.Delete();
        using var to = zip.CreateEntry($"Clay 6B/{name}").Open();
        to.Write(Encoding.UTF8.GetBytes(text));
    }

    [Fact]
    public void A_changed_file_is_named() =>
        SampleBag.Read(Changed(z => Put(z, "data/metadata/class.csv", "other"))).Problems.ShouldContain("changed since it was written: data/metadata/class.csv");

    [Fact]
    public void A_missing_file_is_named() =>
        SampleBag.Read(Changed(z => z.GetEntry("Clay 6B/data/metadata/class.csv")!.Delete())).Problems.ShouldContain("missing: data/metadata/class.csv");

    [Fact]
    public void A_file_too_many_is_named() => SampleBag.Read(Changed(z => Put(z, "data/extra.txt", "x"))).Problems.ShouldContain("not in the manifest: data/extra.txt");

    [Theory]
    [InlineData("bagit.txt", "BagIt-Version: 0.97\n", "BagIt 1.0")]
    [InlineData("bag-info.txt", "Payload-Oxum: 1.1\n", "Payload-Oxum")]
    [InlineData("manifest-sha512.txt", "nonsense\n", "no digest")]
    public void A_changed_tag_file_is_named(string name, string text, string said) =>
        SampleBag.Read(Changed(z => Put(z, name, text))).Problems.ShouldContain(p => p.Contains(said));

    [Fact]
    public void What_is_no_zip_at_all_is_said_so() => SampleBag.Read(Encoding.UTF8.GetBytes("not a zip, not at all")).Problems.ShouldHaveSingleItem().ShouldStartWith("not a zip");

    // One bit anywhere in the stored bytes of a file: found, whichever bit it is.
    [Fact]
    public void One_flipped_bit_in_any_file_is_found()
    {
        var zip = SampleBag.Zip();
        var place = zip.AsSpan().IndexOf("lines\n"u8);
        Gen.Select(Gen.Int[0, 5], Gen.Int[0, 7]).Sample((at, bit) =>
        {
            var bad = (byte[])zip.Clone();
            bad[place + at] ^= (byte)(1 << bit);
            SampleBag.Read(bad).Problems.ShouldContain(p => p.Contains("data/folders/Week 01/Lines.txt"));
        }, iter: 60);
    }

    [Fact]
    public void A_bag_in_two_folders_is_refused()
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var name in (string[])["a/bagit.txt", "b/bagit.txt"]) zip.CreateEntry(name).Open().Dispose();
        SampleBag.Read(bytes.ToArray()).Problems.ShouldHaveSingleItem().ShouldContain("one folder expected");
    }

    [Fact]
    public void A_package_of_a_thousand_files_reports_its_progress()
    {
        var files = Enumerable.Range(0, 1000).Select(i => BagFile.Of($"f/{i}.txt", Encoding.UTF8.GetBytes($"{i}"), SampleBag.Made)).ToList();
        var seen = 0;

        BagReader.Read(new MemoryStream(SampleBag.Zip(files)), n => seen = n, CancellationToken.None).Problems.ShouldBeEmpty();

        seen.ShouldBe(1000);
    }
}
