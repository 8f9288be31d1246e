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

    private static byte[] WithPages(Func<byte[], byte[]>? sign = null)
    {
        using var to = new MemoryStream();
        BagWriter.Write(to, SampleBag.Of(SampleBag.Payload) with { Beside = [("index.html", "<p>Clay</p>"u8.ToArray())], EmptyFolders = ["folders/Week 02", "folders/Žemaitis, Rúna/Later"], Sign = sign }, null, CancellationToken.None);
        return to.ToArray();
    }

    [Fact]
    public void Pages_for_people_stand_at_the_top_in_the_tag_manifest_and_not_in_the_payload()
    {
        var reading = SampleBag.Read(WithPages(m => [.. m.Take(64)]));

        reading.Problems.ShouldBeEmpty();
        reading.Payload.Count.ShouldBe(SampleBag.Payload.Count);
        reading.Tags.Keys.ShouldBe(["bag-info.txt", "bagit.txt", "index.html", "manifest-sha512.txt", "manifest-sha512.txt.sig", "tagmanifest-sha512.txt"], ignoreOrder: true);
        reading.Tags["manifest-sha512.txt.sig"].ShouldBe(reading.Tags["manifest-sha512.txt"].Take(64));
    }

    [Fact]
    public void A_page_that_was_changed_is_named()
    {
        using var bytes = new MemoryStream();
        bytes.Write(WithPages());
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Update, leaveOpen: true)) Put(zip, "index.html", "<p>Other</p>");
        SampleBag.Read(bytes.ToArray()).Problems.ShouldBe(["changed since it was written: index.html"]);
    }

    [Fact]
    public void Folders_with_nothing_in_them_are_there_when_unzip_and_sha512sum_have_been_over_it()
    {
        using var scratch = new Scratch();
        File.WriteAllBytes(scratch.Under("bag.zip"), WithPages());
        Shell.Run(scratch.Path, "/usr/bin/unzip", "-q", "bag.zip").Code.ShouldBe(0);
        Directory.EnumerateFileSystemEntries(scratch.Under("Clay 6B/data/folders/Week 02")).ShouldBeEmpty();
        Shell.Run(scratch.Under("Clay 6B"), "/usr/bin/sha512sum", "--quiet", "-c", "tagmanifest-sha512.txt").ShouldBe((0, ""));
    }

    [Fact]
    public void A_folder_that_has_bytes_is_a_file_in_disguise() =>
        SampleBag.Read(Changed(z => Put(z, "data/hidden/", "x"))).Problems.ShouldContain("a folder with bytes of its own: data/hidden/");

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
