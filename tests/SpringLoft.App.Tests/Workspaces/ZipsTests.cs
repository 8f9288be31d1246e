using System.IO.Compression;
using SpringLoft.App.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

/// <summary>Zips made and read by Info-ZIP, in and out of a class.</summary>
public class ZipsTests : SchoolTest
{
    private TreeIntake Intake => new(school.Premises);
    private readonly Scratch scratch = new();

    private FolderId Papers => school.FolderNamed("Papers");

    private Task<ZipTaken> Take(string zip) => Intake.TakeZip(school.Lead, school.Class, Papers, File.OpenRead(scratch.Under(zip)), CancellationToken.None);

    private void Tree(params string[] paths)
    {
        foreach (var p in paths)
        {
            Directory.CreateDirectory(Path.GetDirectoryName(scratch.Under("tree", p))!);
            File.WriteAllText(scratch.Under("tree", p), $"text of {p}");
        }
    }

    private static MemoryStream Made(params (string Path, int Bytes)[] entries)
    {
        var to = new MemoryStream();
        using (var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (path, bytes) in entries)
            {
                using var entry = zip.CreateEntry(path, CompressionLevel.SmallestSize).Open();
                entry.Write(new byte[bytes]);
            }
        to.Position = 0;
        return to;
    }

    private async Task Untouched(Func<Task> act, string code)
    {
        (await Refused(act)).ShouldBe(code);
        school.Workspace.See(school.Lead, school.Class).Items.ShouldBeEmpty();
        school.Workspace.See(school.Lead, school.Class).Folders.Count(f => f.Parent == Papers).ShouldBe(0);
    }

    [Fact]
    public async Task A_zip_of_Info_ZIP_keeps_its_shape_and_tells_what_was_changed_and_left_out()
    {
        Tree("Term 1/Week 1/map.txt", "Term 1/日記 Øykü.txt", "top.txt", "Term 1/.DS_Store");
        Directory.CreateDirectory(scratch.Under("tree", "Empty"));
        File.WriteAllText(scratch.Under("tree", "nothing.txt"), "");
        Shell.Run(scratch.Under("tree"), "zip", "-q", "-r", "../t.zip", ".").Code.ShouldBe(0);

        var taken = await Take("t.zip");

        (taken.Made, taken.Files).ShouldBe((3, 3));
        taken.LeftOut.Count.ShouldBe(2);
        var w = school.Workspace.See(school.Lead, school.Class);
        var week = w.Folders.First(f => f.Name == "Week 1");
        w.Items.Single(i => i.Folders.Contains(week.Id)).Name.ShouldBe("map.txt");
        w.Items.ShouldContain(i => i.Name == "日記 Øykü.txt");
        w.Folders.ShouldContain(f => f.Name == "Empty");
    }

    [Fact]
    public async Task Taken_twice_nothing_is_overwritten()
    {
        Tree("Term 1/map.txt");
        Shell.Run(scratch.Under("tree"), "zip", "-q", "-r", "../t.zip", ".");

        await Take("t.zip");
        var again = await Take("t.zip");

        again.Made.ShouldBe(0);
        again.Changed.ShouldBe(["“map.txt” is kept as “map (2).txt”"]);
    }

    [Fact]
    public async Task A_link_in_a_zip_is_refused_by_name()
    {
        Directory.CreateDirectory(scratch.Under("tree"));
        File.CreateSymbolicLink(scratch.Under("tree", "passwords"), "/etc/passwd");
        Shell.Run(scratch.Under("tree"), "zip", "-q", "-y", "-r", "../t.zip", ".").Code.ShouldBe(0);

        await Untouched(() => Take("t.zip"), "zip-link");
    }

    [Fact]
    public async Task A_zip_with_a_password_is_refused()
    {
        Tree("a.txt");
        Shell.Run(scratch.Under("tree"), "zip", "-q", "-P", "secret", "../t.zip", "a.txt").Code.ShouldBe(0);

        await Untouched(() => Take("t.zip"), "zip-password");
    }

    [Theory]
    [InlineData("../up.txt")]
    [InlineData("a/../../up.txt")]
    [InlineData("/etc/passwd")]
    [InlineData("C:/windows/win.ini")]
    [InlineData("..\\up.txt")]
    public Task A_path_that_leads_out_is_refused_and_nothing_is_written(string path) =>
        Untouched(() => Intake.TakeZip(school.Lead, school.Class, Papers, Made(("good.txt", 3), (path, 3)), CancellationToken.None), "zip-leads-out");

    [Fact]
    public Task A_zip_that_unpacks_to_a_thousand_times_its_size_is_refused() =>
        Untouched(() => Intake.TakeZip(school.Lead, school.Class, Papers, Made(("zeros.bin", 60_000_000)), CancellationToken.None), "zip-expands");

    [Fact]
    public Task Two_hundred_thousand_entries_are_refused() =>
        Untouched(() => Intake.TakeZip(school.Lead, school.Class, Papers, Made([.. Enumerable.Range(0, 200_000).Select(i => ($"{i}", 0))]), CancellationToken.None), "zip-too-many");

    [Fact]
    public Task What_is_no_zip_is_refused() =>
        Untouched(() => Intake.TakeZip(school.Lead, school.Class, Papers, TinySchool.Bytes("this is no zip"), CancellationToken.None), "zip-broken");

    [Fact]
    public async Task A_zip_that_says_less_than_it_unpacks_to_is_refused_as_damaged()
    {
        var bytes = Made(("small.txt", 5000)).ToArray();
        // The size of a file stands in the central directory, 24 bytes after its signature.
        var directory = bytes.AsSpan().LastIndexOf("PK\u0001\u0002"u8);
        BitConverter.TryWriteBytes(bytes.AsSpan(directory + 24), 50);

        await Untouched(() => Intake.TakeZip(school.Lead, school.Class, Papers, new MemoryStream(bytes), CancellationToken.None), "zip-broken");
    }

    [Fact]
    public async Task A_folder_comes_out_as_a_zip_that_Info_ZIP_reads_with_what_the_asker_sees_and_nothing_else()
    {
        school.OpenClass();
        await school.Put(school.Lead, "Papers", "map.txt", "the map");
        await school.Put(school.Lead, "Staff room", "secret.txt", "x");
        school.Items.AddLink(school.Lead, school.Class, Papers, "Tides & <more>", "https://tides.invalid/?a=1&b=2");
        await school.Items.AddPage(school.Lead, school.Class, Papers, "Rules", "**Apron**", CancellationToken.None);

        using (var download = new TreeOutlet(school.Premises).Zip(school.Umi, school.Class, null, CancellationToken.None).Content)
        using (var to = File.Create(scratch.Under("out.zip")))
            await download.CopyToAsync(to);
        Shell.Run(scratch.Path, "unzip", "-t", "out.zip").Code.ShouldBe(0);
        Shell.Run(scratch.Path, "unzip", "-q", "-d", "out", "out.zip").Code.ShouldBe(0);

        File.ReadAllText(scratch.Under("out", "Papers", "map.txt")).ShouldBe("the map");
        File.ReadAllText(scratch.Under("out", "Papers", "Rules.md")).ShouldBe("**Apron**");
        File.ReadAllText(scratch.Under("out", "Papers", "Tides & -more-.html")).ShouldContain("<a href=\"https://tides.invalid/?a=1&amp;b=2\">Tides &amp; &lt;more&gt;</a>");
        Directory.Exists(scratch.Under("out", "Shared table")).ShouldBeTrue();
        Directory.Exists(scratch.Under("out", "Staff room")).ShouldBeFalse();
        Directory.Exists(scratch.Under("out", "Own folders", "Ravndal, Rúna")).ShouldBeFalse();
    }
}
