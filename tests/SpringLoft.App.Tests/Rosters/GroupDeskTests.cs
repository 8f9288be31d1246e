using SpringLoft.App.Rosters;
using SpringLoft.App.Workspaces;

namespace SpringLoft.App.Tests.Rosters;

public class GroupDeskTests : SchoolTest
{
    private GroupDesk Desk => new(school.Premises);
    private Arranging Arranging => new(school.Premises);

    private GroupId Crew(string name = "Port crew", params Caller[] members) => Desk.Make(school.Lead, school.Class, name, [.. members.Select(m => m.Id)]).Id;

    private FolderId Folder(GroupId group, GroupMay? may = null, string name = "Port crew") =>
        Arranging.Make(school.Lead, school.Class, new(name, null, FolderRule.OnePerGroup, null, 0) { Group = group, Members = may });

    private IEnumerable<string> SeenBy(Caller who) => school.Workspace.See(who, school.Class).Folders.Select(f => f.Name);

    [Fact]
    public void Only_members_and_staff_open_a_groups_folder()
    {
        school.OpenClass();
        Folder(Crew(members: school.Umi));

        SeenBy(school.Umi).ShouldContain("Port crew");
        SeenBy(school.CoTeacher).ShouldContain("Port crew");
        SeenBy(school.Rúna).ShouldNotContain("Port crew");
        Arranging.WhoSees(school.Class, school.FolderNamed("Port crew")).First(s => s.Person == school.Rúna.Id).Steps[^1].ShouldContain("not in that group");
    }

    [Fact]
    public async Task Members_may_add_rename_and_remove_as_the_folder_says()
    {
        school.OpenClass();
        var folder = Folder(Crew(members: [school.Umi, school.Rúna]), new(Add: true, Rename: true, Remove: false));
        var item = (await school.Items.AddFile(school.Umi, school.Class, folder, "keel.txt", TinySchool.Bytes("x"), CancellationToken.None)).Id;

        school.Items.Rename(school.Rúna, school.Class, item, "the keel.txt", null, 1);
        Refused(() => school.Items.Bin(school.Rúna, school.Class, item)).ShouldBe("item-not-yours");
        school.Items.Bin(school.Umi, school.Class, item);
    }

    [Fact]
    public async Task Members_who_may_only_look_add_nothing()
    {
        school.OpenClass();
        var folder = Folder(Crew(members: school.Umi), new(false, false, false));

        (await Refused(() => school.Items.AddFile(school.Umi, school.Class, folder, "a.txt", TinySchool.Bytes("x"), CancellationToken.None))).ShouldBe("folder-no-add");
    }

    [Fact]
    public void A_late_added_group_and_a_late_joiner_unfold_by_themselves_and_stand_in_their_order()
    {
        var id = school.Making.Make(school.Lead, school.New("Signals", plan: "Weeks, own folders and groups"));
        school.Roster.Enroll(school.Lead, id, [school.Rúna.Id], ClassRole.Student);

        Desk.Make(school.Lead, id, "B crew", [school.Rúna.Id]).Folders.ShouldBe(1);
        Desk.Make(school.Lead, id, "A crew", []).Folders.ShouldBe(1);
        school.Roster.Enroll(school.Lead, id, [school.Umi.Id], ClassRole.Student).Folders.ShouldBe(1);

        var folders = school.Workspace.See(school.Lead, id).Folders;
        var groups = folders.First(f => f.Name == "Groups").Id;
        folders.Where(f => f.Parent == groups).Select(f => f.Name).ShouldBe(["B crew", "A crew"]);
        var own = folders.First(f => f.Name == "Own folders").Id;
        // Hallgrímsson comes before Ravndal, though she came later.
        folders.Where(f => f.Parent == own).Select(f => f.Name).ShouldBe(["Hallgrímsson, Umi", "Ravndal, Rúna"]);
    }

    [Fact]
    public void Members_come_from_the_roster_only()
    {
        Refused(() => Crew(members: school.Outsider)).ShouldBe("group-not-on-roster");
        Desk.See(school.Class).Groups.ShouldBeEmpty();
    }

    [Fact]
    public void Of_two_who_change_a_group_at_once_the_second_is_told()
    {
        school.OpenClass();
        var crew = Crew();
        Desk.Change(school.Lead, school.Class, crew, "Port", [school.Umi.Id], 1);

        Refused(() => Desk.Change(school.CoTeacher, school.Class, crew, "Larboard", [], 1)).ShouldBe("changed-meanwhile");
        Desk.See(school.Class).Groups.Single().Members.ShouldBe([school.Umi.Id]);
    }

    [Fact]
    public async Task A_group_taken_away_leaves_no_work_behind_unseen()
    {
        school.OpenClass();
        var crew = Crew(members: school.Umi);
        var full = Folder(crew);
        Folder(crew, name: "Port crew, spare");
        await school.Items.AddFile(school.Umi, school.Class, full, "keel.txt", TinySchool.Bytes("x"), CancellationToken.None);

        Desk.Bin(school.Lead, school.Class, crew).ShouldBe(["Port crew"]);

        var left = school.Workspace.See(school.Lead, school.Class).Folders;
        left.Single(f => f.Name == "Port crew").Rule.ShouldBe(FolderRule.StaffOnly);
        left.ShouldNotContain(f => f.Name == "Port crew, spare");
        SeenBy(school.Umi).ShouldNotContain("Port crew");
    }

    [Fact]
    public void One_workspace_for_several_year_groups_gets_a_group_of_each_grade_with_its_folder()
    {
        var id = school.Making.Make(school.Lead, school.New("Signals", plan: "Weeks, own folders and groups"));
        school.Roster.Enroll(school.Lead, id, [school.Umi.Id, school.Rúna.Id], ClassRole.Student);

        Desk.MakeOfGrades(school.Lead, id).ShouldBe(new GroupsMade(1, 1));

        Desk.See(id).Groups.Single().ShouldSatisfyAllConditions(g => g.Name.ShouldBe("Grade 6"), g => g.Members.Count.ShouldBe(2), g => g.Folders.ShouldBe(["Grade 6"]));
        Refused(() => Desk.MakeOfGrades(school.Lead, id)).ShouldBe("groups-none");
    }

    [Fact]
    public void A_group_without_members_is_a_blind_spot_and_mended_in_one_act()
    {
        school.OpenClass();
        Folder(Crew("Rigging", school.Rúna), name: "Rigging");
        Folder(Crew());

        var spot = Arranging.BlindSpots(school.Class).Single();
        Arranging.Mend(school.Lead, school.Class, spot.Kind, spot.Folder, spot.Assignment);

        Arranging.BlindSpots(school.Class).ShouldBeEmpty();
        SeenBy(school.Umi).ShouldContain("Port crew");
    }

    [Fact]
    public void One_per_group_needs_a_group_of_this_class() =>
        Refused(() => Arranging.Make(school.Lead, school.Class, new("x", null, FolderRule.OnePerGroup, null, 0) { Group = new(987) })).ShouldBe("rule-group");
}
