namespace SpringLoft.App.Tests.Workspaces;

public class ItemsTests : SchoolTest
{
    private Task<ItemId> Put(string name, string text = "x", string folder = "Papers") => school.Put(school.Lead, folder, name, text);

    private IEnumerable<string> Names(string folder = "Papers") =>
        school.Workspace.See(school.Lead, school.Class) is var w ? w.Items.Where(i => i.Folders.Contains(school.FolderNamed(folder))).Select(i => i.Name) : [];

    [Theory]
    [InlineData("../../etc/passwd", "passwd")]
    [InlineData("C:\\work\\plan.doc", "plan.doc")]
    [InlineData("con.txt", "_con.txt")]
    [InlineData("what?.txt", "what-.txt")]
    public async Task A_name_is_made_safe_and_never_says_where_a_file_goes(string name, string kept)
    {
        await Put(name);

        Names().ShouldBe([kept]);
    }

    [Theory]
    [InlineData("   ")]
    [InlineData("..")]
    public async Task A_name_of_nothing_is_refused(string name) => (await Refused(() => Put(name))).ShouldBe("name-empty");

    [Fact]
    public async Task A_file_of_0_bytes_is_refused_and_nothing_is_kept()
    {
        (await Refused(() => Put("empty.txt", ""))).ShouldBe("file-empty");
        Names().ShouldBeEmpty();
    }

    [Fact]
    public async Task A_file_that_is_too_long_is_refused_and_nothing_is_kept()
    {
        (await Refused(() => Put("long.txt", new string('x', 50_000_001)))).ShouldBe("file-too-long");
        Directory.EnumerateFiles(Path.Combine(school.Folder, "files", "incoming")).ShouldBeEmpty();
    }

    [Fact]
    public async Task Students_add_where_the_rule_says_and_nowhere_else()
    {
        school.OpenClass();
        await school.Put(school.Umi, "Shared table", "mine.txt", "x");

        (await Refused(() => school.Put(school.Umi, "Papers", "no.txt", "x"))).ShouldBe("folder-no-add");
        (await Refused(() => school.Put(school.Umi, "Staff room", "no.txt", "x"))).ShouldBe("not-found");
        (await Refused(() => school.Put(school.Umi, "Ravndal, Rúna", "no.txt", "x"))).ShouldBe("not-found");
    }

    [Fact]
    public async Task Who_adds_changes_their_own_things_and_not_those_of_others()
    {
        school.OpenClass();
        var hers = await school.Put(school.Rúna, "Shared table", "hers.txt", "x");

        Refused(() => school.Items.Bin(school.Umi, school.Class, hers)).ShouldBe("item-not-yours");
        school.Items.Bin(school.Rúna, school.Class, hers);
        school.ClassBin.BringBack(school.Lead, school.Class, "File", hers.Value);
        Names("Shared table").ShouldBe(["hers.txt"]);
    }

    [Fact]
    public async Task A_thing_in_a_folder_that_is_not_seen_cannot_be_opened_by_its_number()
    {
        school.OpenClass();
        var notes = await Put("notes.txt", folder: "Staff room");

        Refused(() => school.Items.Open(school.Umi, school.Class, notes)).ShouldBe("not-found");
    }

    [Fact]
    public async Task One_thing_stands_in_several_folders_and_is_there_once()
    {
        var item = await Put("plan.txt");
        school.Items.FileIn(school.Lead, school.Class, item, [school.FolderNamed("Papers"), school.FolderNamed("Start here")]);

        school.Workspace.See(school.Lead, school.Class).Items.ShouldHaveSingleItem().Folders.Count.ShouldBe(2);
    }

    [Theory]
    [InlineData("javascript:alert(1)")]
    [InlineData("not an address")]
    [InlineData("file:///etc/passwd")]
    [InlineData(null)]
    public void A_link_leads_to_the_web_and_nowhere_else(string? url) =>
        Refused(() => school.Items.AddLink(school.Lead, school.Class, school.FolderNamed("Papers"), "Site", url)).ShouldBe("url-wrong");

    [Fact]
    public async Task The_same_bytes_are_kept_once()
    {
        await Put("a.txt", "same bytes");
        await Put("b.txt", "same bytes");

        Directory.EnumerateFiles(Path.Combine(school.Folder, "files"), "*", SearchOption.AllDirectories).Count().ShouldBe(1);
    }
}
