using System.IO.Compression;
using System.Text;
using System.Xml.Linq;
using NodaTime;
using SpringLoft.Core;
using SpringLoft.Formats.Cartridges;
using SpringLoft.Formats.Zips;

namespace SpringLoft.Formats.Tests.Cartridges;

public class CartridgeTests
{
    private static readonly Instant Made = Instant.FromUtc(2027, 6, 7, 12, 0);

    private static CartridgeFile File(string name, string text) => new(name, text.Length, () => new MemoryStream(Encoding.UTF8.GetBytes(text)));

    private static readonly Cartridge Clay = new("Clay & <Glass>",
        [["Units"], ["Units", "01 First look"], ["Units", "Empty"], ["Answers"]],
        [
            new("plan 100%.txt", File("plan 100%.txt", "the plan"), null, null, [["Units", "01 First look"]], false),
            new("The quay", null, "https://quay.example/a?b=c&d", null, [["Units"], ["Answers"]], false),
            new("Kiln rules", null, null, "# Rules\n\nWear **gloves**.\n", [["Units"]], false),
            new("answers.txt", File("answers.txt", "42"), null, null, [["Answers"]], true),
            new("loose.txt", File("loose.txt", "x"), null, null, [], false),
        ],
        [new("Coil pot", "Roll it.\n\nThen <fire> it.", 12.5m, [File("model.txt", "a model"), File("model.txt", "another")], [["Units", "01 First look"]], false), new("Log", "", null, [], [["Answers"]], true)], []);

    private static MemoryStream Written(Cartridge c)
    {
        var to = new MemoryStream();
        CartridgeWriter.Write(to, c, "SL1", Made, CancellationToken.None);
        to.Position = 0;
        return to;
    }

    private static string Said(CartridgeFile? f)
    {
        if (f is null) return "";
        using var from = new StreamReader(f.Open());
        return $"{f.Name}: {from.ReadToEnd()}";
    }

    private static Cartridge Read(Stream zip)
    {
        // What is opened is read before the zip goes.
        using var tree = ZipTree.Open(zip, new(1000, 10_000_000));
        var c = CartridgeReader.Read(tree);
        CartridgeFile Kept(CartridgeFile f)
        {
            var bytes = new MemoryStream();
            using (var from = f.Open()) from.CopyTo(bytes);
            return f with { Open = () => new MemoryStream(bytes.ToArray()) };
        }
        return c with { Things = [.. c.Things.Select(t => t with { File = t.File is null ? null : Kept(t.File) })], Assignments = [.. c.Assignments.Select(a => a with { Attached = [.. a.Attached.Select(Kept)] })] };
    }

    private static MemoryStream Zip(params (string Path, string Text)[] files)
    {
        var to = new MemoryStream();
        using (var zip = new ZipArchive(to, ZipArchiveMode.Create, true))
            foreach (var (path, text) in files)
            {
                using var entry = zip.CreateEntry(path).Open();
                entry.Write(Encoding.UTF8.GetBytes(text));
            }
        to.Position = 0;
        return to;
    }

    private static string Manifest(string items, string resources, string version = "1.1.0", string before = "") => $"""
        <?xml version="1.0" encoding="UTF-8"?>
        {before}<manifest identifier="m" xmlns="http://www.imsglobal.org/xsd/imsccv1p1/imscp_v1p1">
          <metadata><schema>IMS Common Cartridge</schema><schemaversion>{version}</schemaversion></metadata>
          <organizations><organization identifier="o" structure="rooted-hierarchy"><item identifier="root">{items}</item></organization></organizations>
          <resources>{resources}</resources>
        </manifest>
        """;

    [Fact]
    public void What_is_written_is_read_again()
    {
        var read = Read(Written(Clay));

        read.Title.ShouldBe(Clay.Title);
        read.Folders.Select(f => string.Join('/', f)).ShouldBe(Clay.Folders.Select(f => string.Join('/', f)), ignoreOrder: true);
        string Thing(CartridgeThing t) => $"{t.Title} | {t.Address} | {t.Text} | {Said(t.File)} | {string.Join(", ", t.Folders.Select(f => string.Join('/', f)))} | {t.ForStaff}";
        read.Things.Select(Thing).ShouldBe(Clay.Things.Select(Thing), ignoreOrder: true);
        string Assignment(CartridgeAssignment a) => $"{a.Title} | {a.Instructions} | {a.Points} | {string.Join(", ", a.Folders.Select(f => string.Join('/', f)))} | {a.ForStaff} | {string.Join(", ", a.Attached.Select(f => Said(f)[(Said(f).IndexOf(':') + 2)..]))}";
        read.Assignments.Select(Assignment).ShouldBe(Clay.Assignments.Select(Assignment), ignoreOrder: true);
        read.Left.ShouldBeEmpty();
    }

    [Fact]
    public void The_same_cartridge_gives_the_same_bytes() => Written(Clay).ToArray().ShouldBe(Written(Clay).ToArray());

    // Element names, namespaces and resource types as published in Common Cartridge 1.3 and its assignment extension 1.0, from memory.
    [Fact]
    public void The_manifest_is_what_the_specification_asks_for()
    {
        using var zip = new ZipArchive(Written(Clay));
        zip.Entries[0].FullName.ShouldBe("imsmanifest.xml");
        var manifest = XDocument.Load(zip.Entries[0].Open()).Root!;
        XNamespace cp = "http://www.imsglobal.org/xsd/imsccv1p3/imscp_v1p1", lom = "http://ltsc.ieee.org/xsd/imsccv1p3/LOM/manifest";
        manifest.Name.ShouldBe(cp + "manifest");
        manifest.Element(cp + "metadata")!.Elements().Select(e => e.Name).ShouldBe([cp + "schema", cp + "schemaversion", lom + "lom"]);
        manifest.Element(cp + "metadata")!.Element(cp + "schemaversion")!.Value.ShouldBe("1.3.0");
        var organization = manifest.Element(cp + "organizations")!.Elements(cp + "organization").ShouldHaveSingleItem();
        organization.Attribute("structure")!.Value.ShouldBe("rooted-hierarchy");
        organization.Elements().ShouldHaveSingleItem().Element(cp + "title").ShouldBeNull();
        var resources = manifest.Element(cp + "resources")!.Elements(cp + "resource").ToList();
        resources.Select(r => r.Attribute("type")!.Value).ShouldBe(["webcontent", "imswl_xmlv1p3", "webcontent", "webcontent", "webcontent", "assignment_xmlv1p0", "assignment_xmlv1p0"]);
        // Identifiers are unique, each reference leads to a resource, and each file of one is in the zip.
        manifest.DescendantsAndSelf().Attributes("identifier").Select(a => a.Value).ShouldBeUnique();
        organization.Descendants().Attributes("identifierref").Select(a => a.Value).ShouldBeSubsetOf(resources.Select(r => r.Attribute("identifier")!.Value));
        resources.Descendants(cp + "file").Select(f => Uri.UnescapeDataString(f.Attribute("href")!.Value)).ShouldBe(zip.Entries.Skip(1).Select(e => e.FullName), ignoreOrder: true);
        XNamespace work = "http://www.imsglobal.org/xsd/imscc_extensions/assignment";
        XDocument.Load(zip.GetEntry("assignments/6/assignment.xml")!.Open()).Root!.Elements().Select(e => e.Name.LocalName).ShouldBe(["title", "text", "gradable", "attachments", "submission_formats"]);
        XDocument.Load(zip.GetEntry("assignments/6/assignment.xml")!.Open()).Root!.Element(work + "gradable")!.Attribute("points_possible")!.Value.ShouldBe("12.5");
    }

    [Fact]
    public void A_cartridge_of_another_program_is_read_and_what_it_cant_carry_is_named()
    {
        var read = Read(Zip(
            ("imsmanifest.xml", Manifest(
                """
                <item identifier="f"><title>Week 1</title>
                  <item identifier="a" identifierref="p"><title>Welcome</title></item>
                  <item identifier="b" identifierref="w"><title>Quay</title></item>
                  <item identifier="c" identifierref="x"/><item identifier="d" identifierref="q"><title>Quiz 1</title></item>
                  <item identifier="e" identifierref="t"><title>Say hello</title></item><item identifier="g" identifierref="n"><title>Gone</title></item>
                  <item identifier="h" identifierref="l"><title>Lab</title></item>
                </item>
                """,
                """
                <resource identifier="p" type="webcontent" xml:base="web/" href="a%20page.html"><file href="a%20page.html"/><file href="../img/pot.txt"/></resource>
                <resource identifier="w" type="imswl_xmlv1p1"><file href="w.xml"/></resource>
                <resource identifier="x" type="imswl_xmlv1p1"><file href="x.xml"/></resource>
                <resource identifier="q" type="imsqti_xmlv1p2/imscc_xmlv1p1/assessment"><file href="q.xml"/></resource>
                <resource identifier="t" type="imsdt_xmlv1p1"><file href="t.xml"/></resource>
                <resource identifier="l" type="imsbasiclti_xmlv1p0"><file href="l.xml"/></resource>
                <resource identifier="out" type="webcontent" href="../../etc/passwd"><file href="../../etc/passwd"/></resource>
                """)),
            ("web/a page.html", "<title>T</title><p>Hello <script>ran()</script>there</p>"), ("img/pot.txt", "pot"),
            ("w.xml", "<webLink xmlns='http://www.imsglobal.org/xsd/imswl_v1p1'><title>W</title><url href='https://quay.example/'/></webLink>"),
            ("x.xml", "<webLink><title>Bad</title><url href='javascript:ran()'/></webLink>"), ("q.xml", "<q/>"), ("t.xml", "<t/>"), ("l.xml", "<l/>")));

        read.Things.Select(t => (t.Title, t.Address, t.Text, string.Join("; ", t.Folders.Select(f => string.Join('/', f))), t.ForStaff)).ShouldBe(
            [("Welcome", null, "Hello there\n", "Week 1", false), ("Quay", "https://quay.example/", null, "Week 1", false), ("pot.txt", null, null, "Other files", true)]);
        read.Left.ShouldBe([new("x.xml", "leads to “javascript:ran()”, which is no address of the web"), new("Quiz 1", "is a test or a bank of questions"), new("Say hello", "is a discussion: open a place to talk by hand"),
            new("Gone", "is listed, but is not in the cartridge"), new("Lab", "is a door to another program")], ignoreOrder: true);
    }

    [Theory]
    [InlineData("<!DOCTYPE m [<!ENTITY x SYSTEM \"file:///etc/passwd\">]>", "1.1.0", "cartridge-broken")]
    [InlineData("<!DOCTYPE m [<!ENTITY a \"aaaa\"><!ENTITY b \"&a;&a;&a;\">]>", "1.1.0", "cartridge-broken")]
    [InlineData("<", "1.1.0", "cartridge-broken")]
    [InlineData("", "2.0", "cartridge-other")]
    [InlineData("<!-- fine -->", "1.3.0", null)]
    public void A_hostile_or_broken_manifest_is_refused(string before, string version, string? code)
    {
        using var zip = Zip(("imsmanifest.xml", Manifest("", "", version, before)));
        if (code is null) Read(zip).Things.ShouldBeEmpty();
        else Should.Throw<RefusedException>(() => Read(zip)).Refusal.Code.ShouldBe(code);
    }

    [Fact]
    public void A_zip_without_a_manifest_a_locked_one_and_one_that_nests_without_end_are_refused()
    {
        string Code(MemoryStream zip) => Should.Throw<RefusedException>(() => Read(zip)).Refusal.Code;
        Code(Zip(("folder/imsmanifest.xml", "<manifest/>"))).ShouldBe("cartridge-none");
        Code(Zip(("imsmanifest.xml", Manifest("", "<authorizations access='cartridge'/>")))).ShouldBe("cartridge-locked");
        Code(Zip(("imsmanifest.xml", Manifest(string.Concat(Enumerable.Repeat("<item>", 3000)) + string.Concat(Enumerable.Repeat("</item>", 3000)), "")))).ShouldBe("cartridge-broken");
        Code(Zip(("imsmanifest.xml", Manifest("", "")), ("../out.txt", "x"))).ShouldBe("zip-leads-out");
    }

    [Fact]
    public void Folders_deeper_than_they_go_stand_in_the_deepest()
    {
        var items = string.Concat(Enumerable.Range(1, 30).Select(i => $"<item><title>{i}</title>")) + "<item identifierref='p'/>" + string.Concat(Enumerable.Repeat("</item>", 30));
        var read = Read(Zip(("imsmanifest.xml", Manifest(items, "<resource identifier='p' type='webcontent' href='p.txt'/>")), ("p.txt", "x")));
        read.Folders.Max(f => f.Count).ShouldBe(20);
        read.Things.ShouldHaveSingleItem().Folders.ShouldHaveSingleItem().Count.ShouldBe(20);
    }
}
