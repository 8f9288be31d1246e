using SpringLoft.App.Workspaces;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

public class GivingOutTests : SchoolTest
{
    private GivingOut Giving => new(school.Premises);

    private ClassId Other(string section) => school.Making.Make(school.Lead, school.New("Clay", section));

    private WorkspaceView See(ClassId id) => school.Workspace.See(school.Lead, id);

    [Fact]
    public async Task The_same_things_stand_in_several_classes_after_one_act_and_once()
    {
        var item = await school.Put(school.Lead, "Papers", "map.pdf", "map");
        var term = new Arranging(school.Premises).Make(school.Lead, school.Class, new("Term 1", school.FolderNamed("Papers"), FolderRule.AsAbove, null, 0));
        await school.Items.AddPage(school.Lead, school.Class, term, "Rules", "x", CancellationToken.None);
        new ClassDetails(school.Premises).SetWelcome(school.Lead, school.Class, "", "Welcome.");
        ClassId[] to = [Other("7A"), Other("7B")];
        var draft = new GiveDraft([item], [term], null, true, to);

        var preview = Giving.Preview(school.Lead, school.Class, draft);
        preview.ShouldAllBe(p => p.Adds == 2 && p.MakesFolders == 1 && p.Welcome && !p.WelcomeReplaced);
        See(to[0]).Items.ShouldBeEmpty();
        Giving.Give(school.Lead, school.Class, draft);

        foreach (var id in to)
        {
            var w = See(id);
            w.Items.Select(i => i.Name).ShouldBe(["map.pdf", "Rules"]);
            w.Folders.First(f => f.Name == "Term 1").Parent.ShouldBe(w.Folders.First(f => f.Name == "Papers").Id);
            w.Welcome.ShouldBe("Welcome.");
        }
        Giving.Give(school.Lead, school.Class, draft).ShouldAllBe(p => p.Adds == 0 && p.ThereAlready == 2 && p.MakesFolders == 0);
        See(to[0]).Items.Count.ShouldBe(2);
    }

    [Fact]
    public void It_is_said_which_assignments_leave_a_date_behind_and_which_are_drafts_there()
    {
        var dated = school.Assigning.Make(school.Lead, school.Class, new("Dated", "", 5, new LocalDate(2026, 10, 1), null, null, [school.FolderNamed("Papers")], null, Publish: true, PublishAt: null)).Id;
        var bare = school.Assign("Bare");
        var other = Other("7A");

        Giving.Preview(school.Lead, school.Class, new(null, null, [dated, bare], false, [other])).Single().ShouldSatisfyAllConditions(g => g.Undated.ShouldBe(1), g => g.Unpublished.ShouldBe(2), g => g.Unseen.ShouldBe(0));
        Giving.Give(school.Lead, school.Class, new(null, null, [dated, bare], false, [other]));

        See(other).Assignments.ShouldAllBe(a => !a.Published && a.DueOn == null);
        Giving.Preview(school.Lead, school.Class, new(null, null, [dated, bare], false, [other])).Single().ShouldSatisfyAllConditions(g => g.Undated.ShouldBe(0), g => g.Unpublished.ShouldBe(0));
    }

    [Fact]
    public async Task Files_share_their_bytes()
    {
        var item = await school.Put(school.Lead, "Papers", "map.pdf", "map");
        Giving.Give(school.Lead, school.Class, new([item], null, null, false, [Other("7A")]));

        school.Read(c => Dapper.SqlMapper.ExecuteScalar<int>(c, "SELECT count(*) FROM blob")).ShouldBe(1);
    }

    [Fact]
    public async Task What_students_made_and_own_folders_are_not_given()
    {
        school.OpenClass();
        await school.Put(school.Umi, "Shared table", "mine.txt", "x");
        var other = Other("7A");

        Giving.Give(school.Lead, school.Class, new(null, [school.FolderNamed("Own folders"), school.FolderNamed("Shared table")], null, false, [other]));

        See(other).Items.ShouldBeEmpty();
        See(other).Folders.ShouldNotContain(f => f.Name == "Hallgrímsson, Umi");
    }

    [Fact]
    public async Task An_archived_class_is_told_apart_and_a_class_of_somebody_else_is_not_there()
    {
        var item = await school.Put(school.Lead, "Papers", "map.pdf", "map");
        var theirs = school.Making.Make(school.OtherTeacher, school.New("Rope"));
        var old = Other("7A");
        school.Premises.Db.Write(c => ClassStore.SetState(c, ClassStore.Find(c, old)!, ClassState.Archived, school.Premises.Clock.Now, AfterArchive.View));

        Giving.Give(school.Lead, school.Class, new([item], null, null, false, [old])).Single().Refused.ShouldNotBeNull();
        Refused(() => Giving.Give(school.Lead, school.Class, new([item], null, null, false, [Other("7C"), theirs]))).ShouldBe("not-found");
        See(old).Items.ShouldBeEmpty();
        Refused(() => Giving.Preview(school.Lead, school.Class, new([item], null, null, false, []))).ShouldBe("missing");
        Refused(() => Giving.Preview(school.Lead, school.Class, new(null, null, null, false, [Other("7D")]))).ShouldBe("missing");
    }

    [Fact]
    public async Task A_thing_in_no_folder_has_no_place_elsewhere()
    {
        var item = await school.Put(school.Lead, "Papers", "map.pdf", "map");
        school.Items.FileIn(school.Lead, school.Class, item, []);

        Refused(() => Giving.Give(school.Lead, school.Class, new([item], null, null, false, [Other("7A")]))).ShouldBe("thing-unfiled");
    }
}
