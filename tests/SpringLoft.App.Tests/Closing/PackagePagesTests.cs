using System.IO.Compression;
using System.Net;
using System.Text.Json;
using System.Text.RegularExpressions;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Closing;

/// <summary>A package opened by a stranger: its page, read by Python's own HTML parser, against what stood in the class.</summary>
public class PackagePagesTests : SchoolTest
{
    private const string Reader =
        """
        import sys, json, html.parser, urllib.parse
        class R(html.parser.HTMLParser):
            links, tags, text = [], set(), []
            def handle_starttag(self, tag, attrs):
                self.tags.add(tag)
                for k, v in attrs:
                    if k in ("href", "src"): self.links.append(v)
            def handle_data(self, data): self.text.append(data)
        r = R(); r.feed(open(sys.argv[1], encoding="utf-8").read())
        print(json.dumps({"links": [urllib.parse.unquote(l) for l in r.links], "tags": sorted(r.tags), "text": " ".join(r.text)}))
        """;

    // Below the school's own folder, which goes with it.
    private string Scratch => Directory.CreateDirectory(Path.Combine(school.Folder, "unzipped")).FullName;

    public PackagePagesTests()
    {
        school.OpenClass();
        school.Put(school.Lead, "Papers", "glaze & kiln #1 100%.txt", "cobalt").Wait();
        school.Put(school.Umi, "Hallgrímsson, Umi", "sketch.txt", "a sketch").Wait();
        school.Items.AddLink(school.Lead, school.Class, school.FolderNamed("Papers"), "Kiln", "https://kiln.example/?a=1&b=2");
        var a = school.Assign("Pinch <pot>", 20, "Papers", "Start here");
        school.HandIn(school.Umi, a, "umi's pot").Wait();
        var row = school.Read(c => WorkStore.Of(c, a, school.Umi.Id))!;
        school.Returns.Mark(school.Lead, school.Class, row.Id, 17.5m, row.Version);
        school.Returns.ReturnAll(school.Lead, school.Class, null, true, "Fine <rim>.");
        new Notices(school.Premises).Post(school.Lead, new("Bring an apron.", [school.Class], null, false, null, null));
    }

    private string Unzipped()
    {
        using var content = school.Loft.OpenPackage(school.Class).Content;
        using (var to = File.Create(Path.Combine(Scratch, "package.zip"))) content.CopyTo(to);
        var (code, said) = Shell.Run(Scratch, "/usr/bin/unzip", "-q", "package.zip");
        code.ShouldBe(0, said);
        return Directory.GetDirectories(Scratch).Single();
    }

    private (List<string> Links, List<string> Tags, string Text) Page(string folder)
    {
        File.WriteAllText(Path.Combine(Scratch, "read.py"), Reader);
        var (code, said) = Shell.Run(Scratch, "/usr/bin/python3", "read.py", Path.Combine(folder, "index.html"));
        code.ShouldBe(0, said);
        using var json = JsonDocument.Parse(said);
        return ([.. json.RootElement.GetProperty("links").EnumerateArray().Select(l => l.GetString()!)], [.. json.RootElement.GetProperty("tags").EnumerateArray().Select(l => l.GetString()!)], json.RootElement.GetProperty("text").GetString()!);
    }

    [Fact]
    public void Every_file_of_the_class_is_led_to_and_every_link_of_the_page_leads_somewhere()
    {
        school.Close();
        var folder = Unzipped();
        var page = Page(folder);

        var files = Directory.EnumerateFiles(Path.Combine(folder, "data"), "*", SearchOption.AllDirectories).Select(f => Path.GetRelativePath(folder, f)).Where(f => !f.StartsWith("data/metadata", StringComparison.Ordinal)).ToList();
        files.Count.ShouldBe(3);
        files.Except(page.Links).ShouldBeEmpty();
        foreach (var link in page.Links.Where(l => l.StartsWith("data/", StringComparison.Ordinal))) Path.Exists(Path.Combine(folder, link)).ShouldBeTrue(link);
        page.Links.ShouldContain("https://kiln.example/?a=1&b=2");
        page.Tags.ShouldNotContain("script");
        page.Tags.ShouldNotContain("link");
        page.Tags.ShouldNotContain("img");
    }

    [Fact]
    public void It_says_what_stands_in_the_tables_person_by_person()
    {
        school.Close();
        var folder = Unzipped();
        var page = Page(folder);

        foreach (var said in (string[])["Tiny", "2026–27", "Umi Hallgrímsson", "(1001)", "17.5 of 20", "Fine <rim>.", "Pinch <pot>", "Bring an apron.", "Rúna Ravndal", "lead teacher", "own folder of Umi Hallgrímsson", "empty", "sha512sum -c"]) page.Text.ShouldContain(said);
        var comments = JsonSerializer.Deserialize<List<Dictionary<string, string?>>>(File.ReadAllBytes(Path.Combine(folder, "data/metadata/comments.json")))!;
        comments.ShouldHaveSingleItem().ShouldSatisfyAllConditions(c => c["student"].ShouldBe("umi"), c => c["studentName"].ShouldBe("Umi Hallgrímsson"), c => c["studentNumber"].ShouldBe("1001"), c => c["authorUserName"].ShouldBe("lead"));
        JsonSerializer.Deserialize<List<Dictionary<string, string?>>>(File.ReadAllBytes(Path.Combine(folder, "data/metadata/marks.json")))!.ShouldAllBe(m => m["studentName"] != null);
        File.ReadAllText(Path.Combine(folder, "bag-info.txt")).ShouldContain("Source-Organization: Tiny\n");
        File.ReadAllText(Path.Combine(folder, "README.txt")).ShouldContain("1 assignments, ");
    }

    [Fact]
    public void Empty_folders_are_folders()
    {
        var made = new Arranging(school.Premises).Make(school.Lead, school.Class, new("For later", null, FolderRule.ClassViews, null, 0));
        school.Close();
        Directory.Exists(Path.Combine(Unzipped(), "data/folders/For later")).ShouldBeTrue();
        made.Value.ShouldBePositive();
    }

    [Fact]
    public void Stock_tools_find_it_whole_and_signed_and_one_changed_byte_not()
    {
        school.Close();
        var folder = Unzipped();
        (int Code, string Said) Signed() => Shell.Run(folder, "/usr/bin/openssl", "pkeyutl", "-verify", "-pubin", "-inkey", "school-key.pem", "-rawin", "-in", "manifest-sha512.txt", "-sigfile", "manifest-sha512.txt.sig");

        Shell.Run(folder, "/bin/sh", "-c", "sed 's/%25/%/g' manifest-sha512.txt | sha512sum --quiet -c").ShouldBe((0, ""));
        Shell.Run(folder, "/usr/bin/sha512sum", "--quiet", "-c", "tagmanifest-sha512.txt").ShouldBe((0, ""));
        Signed().Code.ShouldBe(0);

        var manifest = Path.Combine(folder, "manifest-sha512.txt");
        File.WriteAllText(manifest, File.ReadAllText(manifest).Replace('a', 'b'));
        Signed().Code.ShouldNotBe(0);
    }

    // The commands that the page tells are run as they stand there.
    [Fact]
    public void What_the_page_tells_to_type_works()
    {
        school.Close();
        var folder = Unzipped();
        var commands = Regex.Matches(File.ReadAllText(Path.Combine(folder, "index.html")), "<code>(.*?)</code>").Select(m => WebUtility.HtmlDecode(m.Groups[1].Value)).ToList();
        commands.Count.ShouldBe(3);
        foreach (var command in commands) Shell.Run(folder, "/bin/sh", "-c", command).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0, $"{command}: {r.Said}"));
    }

    [Fact]
    public void The_take_home_of_one_class_has_its_page_too()
    {
        school.Close();
        using var content = school.Loft.OpenTakeHome(school.Umi, school.Class).Content;
        using var zip = new ZipArchive(content);
        using var reader = new StreamReader(zip.GetEntry("index.html")!.Open());
        var page = WebUtility.HtmlDecode(reader.ReadToEnd());
        foreach (var said in (string[])["Umi Hallgrímsson", "17.5 of 20", "Fine <rim>.", "Make one."]) page.ShouldContain(said);
        foreach (var e in zip.Entries.Where(e => e.Name != "index.html")) Uri.UnescapeDataString(page).ShouldContain($"\"{e.FullName}\"");
    }
}
