using System.IO.Compression;
using System.Text;
using System.Text.RegularExpressions;

namespace SpringLoft.Formats.Tests.Bags;

/// <summary>Our bags against RFC 8493 "The BagIt File Packaging Format (V1.0)" and against stock tools that know nothing of us.</summary>
public class Rfc8493Tests
{
    private static Dictionary<string, byte[]> Entries(byte[] zip)
    {
        using var archive = new ZipArchive(new MemoryStream(zip));
        return archive.Entries.ToDictionary(e => e.FullName, e =>
        {
            using var from = e.Open();
            using var to = new MemoryStream();
            from.CopyTo(to);
            return to.ToArray();
        });
    }

    private static string Tag(string name) => Encoding.UTF8.GetString(Entries(SampleBag.Zip())[$"Clay 6B/{name}"]);

    // Section 2.1.1: the bag declaration "MUST contain exactly two lines" in this form, encoded as UTF-8 without a mark.
    [Fact]
    public void Section_2_1_1_bagit_txt_is_to_the_letter() => Tag("bagit.txt").ShouldBe("BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n");

    // Section 2.1.2: payload lies under "data/". Section 4.2: the serialisation has one top-level directory.
    [Fact]
    public void Section_2_1_2_and_4_2_payload_is_under_data_in_one_top_folder()
    {
        var names = Entries(SampleBag.Zip()).Keys.ToList();

        names.ShouldAllBe(n => n.StartsWith("Clay 6B/"));
        names.Count(n => n.StartsWith("Clay 6B/data/")).ShouldBe(SampleBag.Payload.Count);
    }

    // Section 2.1.3: each line of a manifest is a checksum, whitespace and a path; every payload file is in every manifest.
    // Section 2.4: SHA-512 SHOULD be supported by all.
    [Fact]
    public void Section_2_1_3_the_manifest_names_every_payload_file_with_its_SHA_512()
    {
        var lines = Tag("manifest-sha512.txt").TrimEnd('\n').Split('\n');

        lines.ShouldAllBe(l => Regex.IsMatch(l, "^[0-9a-f]{128}  data/.+$"));
        lines.Length.ShouldBe(SampleBag.Payload.Count);
    }

    // Section 2.1.3: "If a filepath includes a Line Feed (LF), a Carriage Return (CR), a CRLF, or a percent sign (%), those characters (and only those) MUST be percent-encoded".
    [Fact]
    public void Section_2_1_3_a_percent_sign_is_encoded_in_the_manifest_and_nothing_else()
    {
        Tag("manifest-sha512.txt").ShouldContain("data/folders/100%25 cotton.txt");
        Tag("manifest-sha512.txt").ShouldContain("data/folders/Žemaitis, Rúna/日記.txt");
    }

    // Section 2.2.1: a tag manifest lists all tag files but tag manifests.
    [Fact]
    public void Section_2_2_1_the_tag_manifest_covers_the_other_tag_files() =>
        Tag("tagmanifest-sha512.txt").TrimEnd('\n').Split('\n').Select(l => l[130..]).ShouldBe(["bagit.txt", "bag-info.txt", "manifest-sha512.txt"], ignoreOrder: true);

    // Section 2.2.2: reserved labels; Bagging-Date is YYYY-MM-DD; Payload-Oxum is octets, a period, and the count of files.
    [Fact]
    public void Section_2_2_2_bag_info_tells_date_and_size()
    {
        var bytes = SampleBag.Payload.Sum(p => p.Size);

        Tag("bag-info.txt").ShouldContain("Bagging-Date: 2027-06-22\n");
        Tag("bag-info.txt").ShouldContain($"Payload-Oxum: {bytes}.{SampleBag.Payload.Count}\n");
        Tag("bag-info.txt").ShouldContain("Source-Organization: Skerry Point School\n");
    }

    [Fact]
    public void Info_ZIP_finds_no_error_and_coreutils_verify_every_checksum()
    {
        using var scratch = new Scratch();
        File.WriteAllBytes(scratch.Under("bag.zip"), SampleBag.Zip());

        Shell.Run(scratch.Path, "unzip", "-t", "bag.zip").ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Said.ShouldContain("No errors detected"));
        Shell.Run(scratch.Path, "unzip", "-q", "bag.zip").Code.ShouldBe(0);
        // The one path with an encoded percent sign is decoded for a tool that does not know RFC 8493.
        var manifest = scratch.Under("Clay 6B", "manifest-sha512.txt");
        File.WriteAllText(manifest, File.ReadAllText(manifest).Replace("%25", "%", StringComparison.Ordinal));
        Shell.Run(scratch.Under("Clay 6B"), "sha512sum", "--strict", "-c", "manifest-sha512.txt").ShouldSatisfyAllConditions(
            r => r.Code.ShouldBe(0), r => r.Said.Split('\n').Count(l => l.EndsWith(": OK")).ShouldBe(SampleBag.Payload.Count));
    }

    [Fact]
    public void The_same_input_makes_the_same_bytes() => SampleBag.Zip().ShouldBe(SampleBag.Zip());
}
