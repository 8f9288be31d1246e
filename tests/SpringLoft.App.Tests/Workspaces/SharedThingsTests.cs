using System.IO.Compression;
using System.Text;
using SpringLoft.App.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

public class SharedThingsTests : SchoolTest
{
    private SharedThings Things => new(school.Premises);

    private ResourceId Site(string title = "Tides", ForWhom whom = ForWhom.Everybody, string[]? grades = null, string[]? courses = null) =>
        Things.Add(school.Coordinator, new(title, $"https://{title.ToLowerInvariant()}.invalid/", whom, grades, courses, 0));

    private Task<ResourcesRead> Read(string csv, bool apply = true) => Things.Read(school.Coordinator, TinySchool.Bytes(csv), apply, CancellationToken.None);

    private IEnumerable<string> SeenBy(Caller who) => school.Workspace.See(who, school.Class).Uses.Select(u => u.Title);

    [Fact]
    public void What_is_ticked_stands_in_the_class_for_its_students()
    {
        school.OpenClass();
        var tides = Site();
        var staff = Site("Rota", ForWhom.StaffOnly);
        Site("Unused");

        Things.Use(school.CoTeacher, school.Class, [tides, staff]);

        SeenBy(school.Umi).ShouldBe(["Tides"]);
        SeenBy(school.Lead).ShouldBe(["Rota", "Tides"]);
        Things.All().First(t => t.Id == tides).Classes.ShouldBe(1);
    }

    [Fact]
    public void What_is_for_others_is_shown_with_its_reason_and_not_used()
    {
        school.OpenClass();
        var old = Site("Exams", ForWhom.SomeGrades, grades: ["9", "10"]);

        Things.For(school.Class).Single().WhyNot.ShouldBe("for grade 9, 10");
        Refused(() => Things.Use(school.Lead, school.Class, [old])).ShouldBe("resource-for-others");
    }

    [Fact]
    public async Task A_material_is_opened_by_students_of_classes_that_use_it_and_by_no_other()
    {
        school.OpenClass();
        var id = await Things.AddFile(school.Coordinator, "School rules.pdf", TinySchool.Bytes("rules"), CancellationToken.None);
        Refused(() => Things.Open(school.Umi, id)).ShouldBe("not-found");

        Things.Use(school.Lead, school.Class, [id]);

        using var open = Things.Open(school.Umi, id).Content;
        Refused(() => Things.Open(school.Outsider, id)).ShouldBe("not-found");
    }

    [Fact]
    public void Taken_off_the_list_it_is_out_of_the_classes_and_back_it_is_there_again()
    {
        school.OpenClass();
        var tides = Site();
        Things.Use(school.Lead, school.Class, [tides]);

        Things.SetBinned(school.Coordinator, tides, true);
        SeenBy(school.Umi).ShouldBeEmpty();
        Things.SetBinned(school.Coordinator, tides, false);

        SeenBy(school.Umi).ShouldBe(["Tides"]);
    }

    [Fact]
    public async Task Resources_of_OneRoster_come_in_once_and_findings_name_line_and_column()
    {
        const string csv = "sourcedId,status,dateLastModified,vendorResourceId,title,roles,importance,vendorId,applicationId\r\n"
            + "r1,,,https://maps.invalid/,Island maps,\"student,teacher\",primary,v1,\r\n"
            + "r2,,,isbn:978,Reader,teacher,,v1,\r\n"
            + ",,,x,No id,,,,\r\n"
            + "r1,,,y,Twice,,,,\r\n";

        (await Read(csv, apply: false)).Added.ShouldBe(2);
        Things.All().ShouldBeEmpty();
        var read = await Read(csv);
        var again = await Read(csv);

        read.Findings.Select(f => (f.Line, f.Column)).ShouldBe([(4, "sourcedId"), (5, "sourcedId"), (3, "vendorResourceId")]);
        (again.Added, again.Changed, again.Same).ShouldBe((0, 0, 2));
        Things.All().Select(t => (t.Title, t.Url, t.ForWhom)).ShouldBe([("Island maps", "https://maps.invalid/", ForWhom.Everybody), ("Reader", null, ForWhom.StaffOnly)]);
        (await Read(csv.Replace("r2,,", "r2,tobedeleted,", StringComparison.Ordinal))).Removed.ShouldBe(1);
    }

    [Theory]
    [InlineData("title,roles\r\nMaps,student\r\n", "table-columns")]
    [InlineData("", "table-empty")]
    [InlineData("PK nonsense", "zip-broken")]
    public async Task What_is_no_list_of_resources_is_refused(string csv, string code) => (await Refused(() => Read(csv))).ShouldBe(code);

    [Fact]
    public async Task What_goes_out_comes_in_again_the_same_and_says_which_class_uses_what()
    {
        Site();
        var maps = Site("Maps");
        Things.Use(school.Lead, school.Class, [maps]);

        using var bundle = new MemoryStream();
        await Things.Export(school.Years[0].Id).Content.CopyToAsync(bundle);

        using (var zip = new ZipArchive(bundle, ZipArchiveMode.Read, leaveOpen: true))
        {
            zip.Entries.Select(e => e.Name).ShouldBe(["manifest.csv", "resources.csv", "classResources.csv"]);
            using var text = new StreamReader(zip.GetEntry("classResources.csv")!.Open(), Encoding.UTF8);
            (await text.ReadToEndAsync()).ShouldContain($",Maps,class-{school.Class.Value},");
        }
        bundle.Position = 0;
        (await Things.Read(school.Coordinator, bundle, true, CancellationToken.None)).Same.ShouldBe(2);
    }

    [Theory]
    [InlineData("", "https://x.invalid", ForWhom.Everybody, "missing")]
    [InlineData("X", "ftp://x.invalid", ForWhom.Everybody, "url-wrong")]
    [InlineData("X", "https://x.invalid", ForWhom.SomeGrades, "missing")]
    [InlineData("tides", "https://x.invalid", ForWhom.Everybody, "name-taken")]
    public void A_site_that_says_too_little_is_refused(string title, string url, ForWhom whom, string code)
    {
        Site();
        Refused(() => Things.Add(school.Coordinator, new(title, url, whom, null, null, 0))).ShouldBe(code);
    }

    [Fact]
    public void One_whose_title_another_has_by_now_is_not_brought_back_beside_it()
    {
        var first = Site();
        Things.SetBinned(school.Coordinator, first, true);
        Site();

        Refused(() => Things.SetBinned(school.Coordinator, first, false)).ShouldBe("name-taken");
        Things.All().Count.ShouldBe(1);
    }
}
