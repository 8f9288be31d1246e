using SpringLoft.App.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

/// <summary>A file that is put in again under its name is a new version; the one before is kept, looked at and brought back.</summary>
public class PutInAgainTests : SchoolTest
{
    private Task<TakenIn> Put(Caller by, string name, string text, string folder = "Shared table") => school.Items.AddFile(by, school.Class, school.FolderNamed(folder), name, TinySchool.Bytes(text), CancellationToken.None);

    private string Text(ItemId item, int? version = null)
    {
        using var text = new StreamReader((version is { } v ? school.Items.OpenVersion(school.Umi, school.Class, item, v) : school.Items.Open(school.Umi, school.Class, item)).Content);
        return text.ReadToEnd();
    }

    private IEnumerable<string> Names => school.Workspace.See(school.Lead, school.Class).Items.Select(i => i.Name);

    [Fact]
    public async Task By_whoever_put_it_in_it_is_a_new_version_and_the_one_before_comes_back()
    {
        school.OpenClass();
        var first = await Put(school.Umi, "plan.txt", "first");
        var second = await Put(school.Umi, "PLAN.txt", "second");

        (second.Id, second.Name, second.NewVersion).ShouldBe((first.Id, "plan.txt", true));
        Names.ShouldBe(["plan.txt"]);
        Text(first.Id).ShouldBe("second");
        var before = school.Items.Versions(school.Rúna, school.Class, first.Id).Single();
        (before.By, Text(first.Id, before.Version)).ShouldBe((school.Umi.Name, "first"));

        school.Items.BringBackVersion(school.Umi, school.Class, first.Id, before.Version, 2);
        Text(first.Id).ShouldBe("first");
        school.Items.Versions(school.Umi, school.Class, first.Id).Select(v => Text(first.Id, v.Version)).ShouldBe(["second", "first"]);
    }

    [Fact]
    public async Task By_somebody_else_it_is_another_file()
    {
        school.OpenClass();
        var umis = await Put(school.Umi, "plan.txt", "umi's");
        var rúnas = await Put(school.Rúna, "plan.txt", "rúna's");
        var leads = await Put(school.Lead, "plan.txt", "the teacher's");

        new[] { umis, rúnas, leads }.ShouldAllBe(t => !t.NewVersion);
        Names.ShouldBe(["plan.txt", "plan (2).txt", "plan (3).txt"], ignoreOrder: true);
        Text(umis.Id).ShouldBe("umi's");
    }

    [Fact]
    public async Task Of_staff_it_is_staffs_whoever_of_them_puts_it_in_again()
    {
        school.OpenClass();
        var first = await Put(school.Lead, "rules.pdf", "one", "Papers");

        var again = await Put(school.CoTeacher, "rules.pdf", "two", "Papers");

        (again.Id, again.NewVersion).ShouldBe((first.Id, true));
        school.Items.Versions(school.Umi, school.Class, first.Id).Single().By.ShouldBe(school.Lead.Name);
    }

    [Fact]
    public async Task The_same_bytes_are_no_new_version_and_what_is_in_the_bin_is_none_of_that_name()
    {
        school.OpenClass();
        var first = await Put(school.Umi, "plan.txt", "first");

        (await Put(school.Umi, "plan.txt", "first")).ShouldSatisfyAllConditions(t => t.Id.ShouldBe(first.Id), t => t.NewVersion.ShouldBeFalse(), t => t.Was.ShouldHaveSingleItem().ShouldContain("the same file"));
        school.Items.Versions(school.Umi, school.Class, first.Id).ShouldBeEmpty();
        school.Items.Bin(school.Umi, school.Class, first.Id);
        (await Put(school.Umi, "plan.txt", "second")).Id.ShouldNotBe(first.Id);
    }

    [Fact]
    public async Task A_page_is_compared_word_by_word_with_what_it_was()
    {
        var page = await school.Items.AddPage(school.Lead, school.Class, school.FolderNamed("Papers"), "Rules", "We begin at nine.", CancellationToken.None);
        await school.Items.ChangePage(school.Lead, school.Class, page, "Rules", "We begin at ten.", 1, CancellationToken.None);

        school.Items.Differences(school.Lead, school.Class, page, 1).Select(d => (d.Kind, d.Text)).ShouldBe([(DifferenceKind.Same, "We begin at "), (DifferenceKind.Gone, "nine"), (DifferenceKind.New, "ten"), (DifferenceKind.Same, ".")]);
        (await Should.ThrowAsync<RefusedException>(() => school.Items.ChangePage(school.Lead, school.Class, page, "Rules", null, 2, CancellationToken.None))).Refusal.Code.ShouldBe("missing");
        Refused(() => school.Items.Differences(school.Outsider, school.Class, page, 1)).ShouldBe("not-found");
    }
}
