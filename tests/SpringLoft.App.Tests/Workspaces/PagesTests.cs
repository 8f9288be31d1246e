using SpringLoft.App.Rollover;
using SpringLoft.App.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

public class PagesTests : SchoolTest
{
    private Task<ItemId> Write(Caller by, string folder, string title = "Bench rules", string text = "# Rules\n\n**Apron on.**\n") =>
        school.Items.AddPage(by, school.Class, school.FolderNamed(folder), title, text, CancellationToken.None);

    [Fact]
    public async Task A_page_is_written_read_and_changed_at_the_version_that_was_seen()
    {
        var page = await Write(school.Lead, "Papers");
        var seen = school.Items.ReadPage(school.Lead, school.Class, page);
        (seen.Title, seen.Text, seen.Version).ShouldBe(("Bench rules", "# Rules\n\n**Apron on.**\n", 1));

        await school.Items.ChangePage(school.Lead, school.Class, page, "Rules", "Apron on.", seen.Version, CancellationToken.None);

        school.Items.ReadPage(school.Lead, school.Class, page).ShouldSatisfyAllConditions(p => (p.Title, p.Text, p.Version).ShouldBe(("Rules", "Apron on.", 2)), p => p.Writers.ShouldBeEmpty());
        (await Refused(() => school.Items.ChangePage(school.Lead, school.Class, page, "x", "y", seen.Version, CancellationToken.None))).ShouldBe("changed-meanwhile");
        school.Items.ReadPage(school.Lead, school.Class, page).Text.ShouldBe("Apron on.");
    }

    [Fact]
    public async Task Who_sees_the_folder_reads_the_page_and_only_its_writer_and_staff_change_it()
    {
        school.OpenClass();
        var page = await Write(school.Umi, "Shared table");

        school.Items.ReadPage(school.Rúna, school.Class, page).Title.ShouldBe("Bench rules");
        (await Refused(() => school.Items.ChangePage(school.Rúna, school.Class, page, "x", "y", 1, CancellationToken.None))).ShouldBe("item-not-yours");
        Refused(() => school.Items.ReadPage(school.Outsider, school.Class, page)).ShouldBe("not-found");
        await school.Items.ChangePage(school.Umi, school.Class, page, "Mine", "y", 1, CancellationToken.None);
    }

    [Fact]
    public async Task What_is_refused_leaves_no_file_behind()
    {
        school.OpenClass();
        var page = await Write(school.Umi, "Shared table");
        var kept = school.Premises.Files.All().Count();

        (await Refused(() => school.Items.ChangePage(school.Rúna, school.Class, page, "x", "not hers", 1, CancellationToken.None))).ShouldBe("item-not-yours");
        (await Refused(() => school.Items.ChangePage(school.Lead, school.Class, new(999), "x", "nobody's", 1, CancellationToken.None))).ShouldBe("not-found");
        (await Refused(() => school.Items.ChangePage(school.Outsider, school.Class, page, "x", "a stranger's", 1, CancellationToken.None))).ShouldBe("not-found");
        var structure = new StructureFiles(school.Premises);
        var file = structure.Write(school.Class);
        structure.Take(school.Lead, school.Class, file with { Things = [new("A page", null, "of a preview", [])] }, apply: false);

        school.Premises.Files.All().Count().ShouldBe(kept);
    }

    [Fact]
    public async Task In_the_archive_a_page_is_a_file_of_its_own()
    {
        school.OpenClass();
        var page = await Write(school.Lead, "Papers");

        using var download = school.Items.Open(school.Umi, school.Class, page).Content;
        using var text = new StreamReader(download);

        school.Items.Open(school.Umi, school.Class, page).Name.ShouldBe("Bench rules.md");
        (await text.ReadToEndAsync()).ShouldStartWith("# Rules");
    }

    [Theory]
    [InlineData("", "x", "missing")]
    [InlineData("   ", "x", "missing")]
    [InlineData("...", "x", "name-empty")]
    public async Task A_page_needs_a_title(string title, string text, string code) => (await Refused(() => Write(school.Lead, "Papers", title, text))).ShouldBe(code);

    [Fact]
    public async Task A_thing_is_renamed_and_a_link_gets_another_address()
    {
        var link = school.Items.AddLink(school.Lead, school.Class, school.FolderNamed("Papers"), "Tides", "https://tides.invalid/");
        var file = await school.Put(school.Lead, "Papers", "map.pdf", "x");
        await school.Put(school.Lead, "Papers", "chart.pdf", "y");

        school.Items.Rename(school.Lead, school.Class, link, "Tide tables", "https://tides.invalid/tables", 1);
        Refused(() => school.Items.Rename(school.Lead, school.Class, link, "Tides", "javascript:alert(1)", 2)).ShouldBe("url-wrong");
        Refused(() => school.Items.Rename(school.Lead, school.Class, file, "CHART.pdf", null, 1)).ShouldBe("name-taken");
        Refused(() => school.Items.Rename(school.Lead, school.Class, link, "x", null, 1)).ShouldBe("changed-meanwhile");

        var seen = school.Workspace.See(school.Lead, school.Class).Items.First(i => i.Id == link);
        (seen.Name, seen.Url).ShouldBe(("Tide tables", "https://tides.invalid/tables"));
    }

    [Fact]
    public async Task What_others_put_in_may_be_filed_in_one_more_folder_but_not_taken_out()
    {
        school.OpenClass();
        var item = await school.Put(school.Umi, "Shared table", "a.txt", "x");
        var table = school.FolderNamed("Shared table");
        var own = school.Workspace.See(school.Rúna, school.Class).Folders.First(f => f.Mine).Id;

        school.Items.FileIn(school.Rúna, school.Class, item, [table, own]);
        Refused(() => school.Items.FileIn(school.Rúna, school.Class, item, [own])).ShouldBe("item-not-yours");

        school.Workspace.See(school.Lead, school.Class).Items.Single(i => i.Id == item).Folders.Count.ShouldBe(2);
    }
}
