using System.IO.Compression;
using System.Text;
using SpringLoft.Core;
using SpringLoft.Formats.Zips;

namespace SpringLoft.Formats.Tests.Zips;

/// <summary>Zips that people send: what they hold, and what is taken for an attack.</summary>
public class ZipTreeTests
{
    private static readonly ZipLimits Limits = new(100, 1_000_000);

    private static MemoryStream Zip(params (string Path, string Text)[] entries)
    {
        var to = new MemoryStream();
        using (var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (path, text) in entries)
            {
                using var entry = zip.CreateEntry(path, CompressionLevel.NoCompression).Open();
                entry.Write(Encoding.UTF8.GetBytes(text));
            }
        to.Position = 0;
        return to;
    }

    private static string Refused(Stream zip, ZipLimits? limits = null) => Should.Throw<RefusedException>(() => ZipTree.Open(zip, limits ?? Limits)).Refusal.Code;

    private static string Read(ZipTreeFile file)
    {
        using var text = new StreamReader(file.Open());
        return text.ReadToEnd();
    }

    [Fact]
    public void Folders_that_only_stand_in_the_paths_of_files_are_folders_too()
    {
        using var tree = ZipTree.Open(Zip(("a/b/c.txt", "see"), ("top.txt", "t"), ("empty/", "")), Limits);

        tree.Folders.Order().ShouldBe(["a/b", "empty"]);
        tree.Files.Select(f => (f.Path, f.Name, f.Size)).ShouldBe([("a/b", "c.txt", 3L), ("", "top.txt", 1L)]);
        Read(tree.Files[0]).ShouldBe("see");
    }

    [Fact]
    public void Backslashes_of_old_programs_part_folders() =>
        ZipTree.Open(Zip(("a\\b.txt", "x")), Limits).Files.Single().ShouldSatisfyAllConditions(f => f.Path.ShouldBe("a"), f => f.Name.ShouldBe("b.txt"));

    [Fact]
    public void What_computers_put_in_for_themselves_and_what_is_empty_is_left_out_with_a_word()
    {
        using var tree = ZipTree.Open(Zip(("__MACOSX/a", "x"), ("b/.DS_Store", "x"), ("b/THUMBS.DB", "x"), ("b/none.txt", ""), ("b/good.txt", "g")), Limits);

        tree.Files.Single().Name.ShouldBe("good.txt");
        tree.LeftOut.Count.ShouldBe(4);
        tree.LeftOut.ShouldContain("“b/none.txt”: has 0 bytes");
    }

    [Fact]
    public void Too_many_entries_and_too_many_bytes_are_refused_before_any_is_read()
    {
        Refused(Zip([.. Enumerable.Range(0, 101).Select(i => ($"{i}", "x"))])).ShouldBe("zip-too-many");
        Refused(Zip(("a", new string('x', 600)), ("b", new string('x', 600))), new(100, 1000)).ShouldBe("zip-expands");
    }

    [Theory]
    [InlineData("../a")]
    [InlineData("a/../../b")]
    [InlineData("/a")]
    [InlineData("c:\\a")]
    public void A_path_that_leads_out_is_refused(string path) => Refused(Zip(("ok", "x"), (path, "x"))).ShouldBe("zip-leads-out");

    [Fact]
    public void Dots_in_names_are_no_way_out() => ZipTree.Open(Zip(("a..b/c...txt", "x")), Limits).Files.ShouldHaveSingleItem();

    [Fact]
    public void A_file_whose_bytes_were_changed_is_found_when_it_is_read()
    {
        var bytes = Zip(("letter.txt", "dear all of you")).ToArray();
        bytes[bytes.AsSpan().IndexOf("dear"u8)] = (byte)'f';
        using var tree = ZipTree.Open(new MemoryStream(bytes), Limits);

        Should.Throw<InvalidDataException>(() => Read(tree.Files.Single()));
    }

    [Fact]
    public void Whatever_bit_is_flipped_a_zip_is_read_right_or_refused_and_nothing_else_happens()
    {
        var whole = Zip(("a/one.txt", "the first"), ("a/two.txt", "the second")).ToArray();
        for (var bit = 0; bit < whole.Length * 8; bit++)
        {
            var bytes = (byte[])whole.Clone();
            bytes[bit / 8] ^= (byte)(1 << (bit % 8));
            try
            {
                using var tree = ZipTree.Open(new MemoryStream(bytes), Limits);
                foreach (var f in tree.Files) Read(f).ShouldBeOneOf("the first", "the second");
            }
            catch (Exception e) when (e is RefusedException or InvalidDataException) { }
        }
    }

    [Theory]
    [InlineData(0)]
    [InlineData(10)]
    [InlineData(60)]
    public void A_zip_that_ends_too_soon_is_refused(int bytes) => Refused(new MemoryStream(Zip(("a", "text")).ToArray()[..bytes])).ShouldBe("zip-broken");
}
