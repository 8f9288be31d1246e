using SpringLoft.App.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

public class ClassBinTests : SchoolTest
{
    public ClassBinTests() => school.OpenClass();

    private Arranging Arranging => new(school.Premises);

    private IReadOnlyList<BinnedThing> Bin(Caller who) => school.ClassBin.See(who, school.Class);

    private void BringBack(Caller by, BinnedThing thing) => school.ClassBin.BringBack(by, school.Class, thing.Kind, thing.Id);

    private string? NameOf(ItemId item) => school.Read(c => ItemStore.Find(c, school.Class, item))?.Name;

    [Fact]
    public async Task What_is_binned_says_who_when_and_from_where_and_comes_back_to_where_it_stood()
    {
        var item = await school.Put(school.Lead, "Papers", "plan.txt", "the plan");
        school.Items.Bin(school.CoTeacher, school.Class, item);

        var thing = Bin(school.Lead).ShouldHaveSingleItem();
        (thing.Kind, thing.Name, thing.By, thing.From, thing.AddedBy, thing.WaitsFor.Count).ShouldBe(("File", "plan.txt", "Léa Winterbourne", "Papers", "Oisín Farquhar", 0));
        thing.GoneAt.ShouldBe(school.Premises.Clock.Now + Duration.FromDays(30));
        BringBack(school.Lead, thing);

        Bin(school.Lead).ShouldBeEmpty();
        school.Workspace.See(school.Lead, school.Class).Items.Single(i => i.Id == item).Folders.ShouldBe([school.FolderNamed("Papers")]);
    }

    [Fact]
    public async Task A_student_brings_back_their_own_and_sees_no_others()
    {
        var mine = await school.Put(school.Umi, "Shared table", "mine.txt", "x");
        var hers = await school.Put(school.Rúna, "Shared table", "hers.txt", "y");
        var staffs = await school.Put(school.Lead, "Papers", "plan.txt", "z");
        foreach (var i in new[] { mine, hers, staffs }) school.Items.Bin(school.Lead, school.Class, i);

        Bin(school.Umi).Select(b => b.Name).ShouldBe(["mine.txt"]);
        Refused(() => school.ClassBin.BringBack(school.Umi, school.Class, "File", hers.Value)).ShouldBe("not-found");
        BringBack(school.Umi, Bin(school.Umi)[0]);
        NameOf(mine).ShouldBe("mine.txt");
        Refused(() => Bin(school.Outsider)).ShouldBe("not-found");
    }

    [Fact]
    public async Task A_folder_comes_back_with_all_in_it_and_under_another_name_where_its_own_is_taken()
    {
        var papers = school.FolderNamed("Papers");
        var inner = Arranging.Make(school.Lead, school.Class, new("Inner", papers, FolderRule.AsAbove, null, 0));
        var item = (await school.Items.AddFile(school.Lead, school.Class, inner, "deep.txt", TinySchool.Bytes("deep"), CancellationToken.None)).Id;
        Arranging.Bin(school.Lead, school.Class, papers);
        Arranging.Make(school.Lead, school.Class, new("Papers", null, FolderRule.ClassViews, null, 0));

        var thing = Bin(school.Lead).ShouldHaveSingleItem();
        (thing.Kind, thing.Name, thing.Folders).ShouldBe(("Folder", "Papers", 1));
        BringBack(school.Lead, thing);

        school.Read(c => FolderStore.OfClass(c, school.Class)).Single(f => f.Id == papers).Name.ShouldBe("Papers (2)");
        school.Workspace.See(school.Lead, school.Class).Items.Single(i => i.Id == item).Folders.ShouldBe([inner]);
    }

    [Fact]
    public void An_assignment_comes_back_with_its_folders_also_when_another_has_its_title_by_now()
    {
        var pot = school.Assign("Pinch pot", 20, "Papers", "Start here");
        school.Assigning.Bin(school.Lead, school.Class, pot);
        school.Assign("Pinch pot");

        BringBack(school.CoTeacher, Bin(school.CoTeacher).ShouldHaveSingleItem());

        school.Read(c => AssignmentStore.OfClass(c, school.Class)).Select(a => a.Title).ShouldBe(["Pinch pot", "Pinch pot (2)"], ignoreOrder: true);
        school.Read(c => AssignmentStore.Filings(c, school.Class))[pot].Count().ShouldBe(2);
    }

    [Fact]
    public async Task A_thing_that_is_back_takes_another_name_where_its_own_is_taken()
    {
        var item = await school.Put(school.Lead, "Papers", "plan.txt", "the plan");
        school.Items.Bin(school.Lead, school.Class, item);
        await school.Put(school.Lead, "Papers", "plan.txt", "another plan");

        BringBack(school.Lead, Bin(school.Lead).Single());

        NameOf(item).ShouldBe("plan (2).txt");
    }

    [Fact]
    public async Task After_thirty_days_it_is_gone_and_not_before()
    {
        var item = await school.Put(school.Lead, "Papers", "plan.txt", "the plan");
        var pot = school.Assign();
        var table = school.FolderNamed("Shared table");
        var loose = await school.Put(school.Umi, "Shared table", "kept.txt", "a thing that only stood there");
        school.Items.Bin(school.Lead, school.Class, item);
        school.Assigning.Bin(school.Lead, school.Class, pot);
        Arranging.Bin(school.Lead, school.Class, table);
        school.Clock.Advance(Duration.FromDays(30) - Duration.FromSeconds(1));
        school.ClassBin.LetGo().ShouldBe(0);
        school.Clock.AdvanceSeconds(1);

        school.ClassBin.LetGo().ShouldBe(3);

        Bin(school.Lead).ShouldBeEmpty();
        school.Read(c => FolderStore.WithBin(c, school.Class)).ShouldNotContain(f => f.Id == table);
        NameOf(loose).ShouldBe("kept.txt", "a folder that goes takes nothing of people's along");
        school.Read(c => Dapper.SqlMapper.Query(c, "PRAGMA foreign_key_check").Count()).ShouldBe(0);
    }

    [Fact]
    public async Task A_page_on_which_two_wrote_and_one_binned_waits_for_the_other()
    {
        var folder = Arranging.Make(school.Lead, school.Class, new("Wall", null, FolderRule.ClassEdits, null, 0));
        var page = await school.Items.AddPage(school.Umi, school.Class, folder, "Poem", "umi's line", CancellationToken.None);
        await school.Items.ChangePage(school.Rúna, school.Class, page, "Poem", "rúna's line", 1, CancellationToken.None);
        await school.Items.ChangePage(school.Umi, school.Class, page, "Poem", "umi's other line", 2, CancellationToken.None);
        school.Items.Bin(school.Umi, school.Class, page);

        Bin(school.Lead).Single().WaitsFor.ShouldBe(["Rúna Ravndal"]);
        school.Clock.AdvanceDays(31);
        school.ClassBin.LetGo().ShouldBe(0);
        school.TakeHomes.Go(school.TakeHomes.Begin(school.Coordinator, school.Years[0].Id, null), CancellationToken.None);
        Bin(school.Lead).Single().WaitsFor.ShouldBeEmpty();
        school.ClassBin.LetGo().ShouldBe(1);
    }

    [Fact]
    public async Task What_a_student_made_and_another_binned_stays_until_it_is_in_their_take_home()
    {
        var theirs = await school.Put(school.Umi, "Shared table", "mine.txt", "umi's own");
        var own = await school.Put(school.Umi, "Shared table", "let go.txt", "umi let it go");
        school.Items.Bin(school.Lead, school.Class, theirs);
        school.Items.Bin(school.Umi, school.Class, own);
        Bin(school.Lead).Single(b => b.Name == "mine.txt").WaitsFor.ShouldBe(["Umi Hallgrímsson"]);
        school.Clock.AdvanceDays(31);
        school.ClassBin.LetGo().ShouldBe(1);
        Bin(school.Lead).Select(b => b.Name).ShouldBe(["mine.txt"]);

        school.TakeHomes.Go(school.TakeHomes.Begin(school.Coordinator, school.Years[0].Id, null), CancellationToken.None);

        Bin(school.Lead).Single().WaitsFor.ShouldBeEmpty();
        school.ClassBin.LetGo().ShouldBe(1);
        Bin(school.Lead).ShouldBeEmpty();
        using var zip = new System.IO.Compression.ZipArchive(school.TakeHomes.OpenMine(school.Umi, school.Years[0].Id).Content);
        zip.Entries.ShouldContain(e => e.Name == "mine.txt");
    }

    [Fact]
    public async Task The_bin_of_an_archived_class_stays_as_it_is()
    {
        school.Items.Bin(school.Lead, school.Class, await school.Put(school.Lead, "Papers", "plan.txt", "the plan"));
        var thing = Bin(school.Lead).Single();
        school.Close();
        school.Clock.AdvanceDays(60);

        school.ClassBin.LetGo().ShouldBe(0);
        Refused(() => BringBack(school.Lead, thing)).ShouldBe("class-archived");
    }
}
