using SpringLoft.App.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

public class ArrangingTests : SchoolTest
{
    private Arranging Arranging => new(school.Premises);

    private FolderView Folder(string name) => school.Workspace.See(school.Lead, school.Class).Folders.First(f => f.Name == name);

    private static FolderDraft Draft(FolderView f, string? name = null, FolderRule? rule = null, FolderId? parent = null, int? place = null) => new(name ?? f.Name, parent ?? f.Parent, rule ?? f.Rule, place, f.Version);

    private IEnumerable<string> Top() => school.Workspace.See(school.Lead, school.Class).Folders.Where(f => f.Parent is null).Select(f => f.Name);

    [Fact]
    public void Folders_are_made_renamed_moved_and_ordered_by_hand()
    {
        Arranging.Make(school.Lead, school.Class, new("Quay walks: photos", null, FolderRule.ClassAdds, null, 0));
        Top().Last().ShouldBe("Quay walks- photos");

        Arranging.Change(school.Lead, school.Class, Folder("Quay walks- photos").Id, Draft(Folder("Quay walks- photos"), "Quay", place: 0));
        Top().First().ShouldBe("Quay");

        Arranging.Change(school.Lead, school.Class, Folder("Quay").Id, Draft(Folder("Quay"), parent: Folder("Papers").Id));
        Folder("Quay").Parent.ShouldBe(Folder("Papers").Id);
    }

    [Fact]
    public void A_changed_rule_is_a_changed_view_at_once()
    {
        school.OpenClass();
        Arranging.Change(school.Lead, school.Class, Folder("Papers").Id, Draft(Folder("Papers"), rule: FolderRule.StaffOnly));

        school.Workspace.See(school.Umi, school.Class).Folders.ShouldNotContain(f => f.Name == "Papers");
        Folder("Papers").Bent.ShouldBeTrue();
        Refused(() => Arranging.Change(school.Lead, school.Class, Folder("Papers").Id, Draft(Folder("Papers"), rule: FolderRule.OneEach))).ShouldBe("rule-one-each");
        Refused(() => Arranging.Change(school.Lead, school.Class, Folder("Hallgrímsson, Umi").Id, Draft(Folder("Hallgrímsson, Umi"), rule: FolderRule.ClassViews))).ShouldBe("rule-one-each");
    }

    [Fact]
    public void Of_two_who_rearrange_at_once_the_second_is_told_and_nothing_of_theirs_is_written()
    {
        school.Roster.Enroll(school.Lead, school.Class, [school.CoTeacher.Id], ClassRole.CoTeacher);
        var seen = Folder("Papers");
        Arranging.Change(school.Lead, school.Class, seen.Id, Draft(seen, "First"));

        Refused(() => Arranging.Change(school.CoTeacher, school.Class, seen.Id, Draft(seen, "Second", place: 0))).ShouldBe("changed-meanwhile");
        Top().ShouldContain("First");
        Top().First().ShouldBe("Start here");
    }

    [Fact]
    public async Task A_folder_is_binned_with_those_in_it_and_comes_back_with_them_and_its_things()
    {
        await school.Put(school.Lead, "Lesson plans", "plan.txt", "x");
        var staff = Folder("Staff room").Id;

        Arranging.Bin(school.Lead, school.Class, staff);
        school.Workspace.See(school.Lead, school.Class).Folders.ShouldNotContain(f => f.Name == "Lesson plans");
        Arranging.Make(school.Lead, school.Class, new("Staff room", null, FolderRule.StaffOnly, null, 0));
        school.ClassBin.BringBack(school.Lead, school.Class, "Folder", staff.Value);

        Top().ShouldContain("Staff room (2)");
        school.Workspace.See(school.Lead, school.Class).Items.Single().Folders.ShouldBe([Folder("Lesson plans").Id]);
    }

    [Fact]
    public void A_dropped_tree_keeps_its_shape_and_uses_what_stands_there()
    {
        var papers = Folder("Papers").Id;

        var taken = new TreeIntake(school.Premises).Make(school.Lead, school.Class, papers, ["Term 1/Week 1", "Term 1/Week 2", "con/a?b"]);
        var again = new TreeIntake(school.Premises).Make(school.Lead, school.Class, papers, ["term 1/WEEK 1"]);

        taken.Made.ShouldBe(5);
        again.Made.ShouldBe(0);
        again.Places.Single().Folder.ShouldBe(taken.Places.First(p => p.Path == "Term 1/Week 1").Folder);
        Folder("Term 1").Parent.ShouldBe(papers);
        taken.Places.First(p => p.Path == "con/a?b").Changed.ShouldBe(["“con” is kept as “_con”", "“a?b” is kept as “a-b”"]);
    }

    [Theory]
    [InlineData("../up", "path-leads-out")]
    [InlineData("/etc", "path-leads-out")]
    [InlineData("C:\\work", "path-leads-out")]
    [InlineData("1/2/3/4/5/6/7/8/9/10/11/12/13/14/15/16/17/18/19/20", "folder-too-deep")]
    public void A_tree_that_leads_out_or_too_deep_is_refused_whole(string path, string code)
    {
        Refused(() => new TreeIntake(school.Premises).Make(school.Lead, school.Class, Folder("Papers").Id, ["Good", path])).ShouldBe(code);
        school.Workspace.See(school.Lead, school.Class).Folders.ShouldNotContain(f => f.Name == "Good");
    }

    [Fact]
    public void See_as_is_exactly_what_that_student_sees()
    {
        school.OpenClass();
        school.Assign();

        var real = school.Workspace.See(school.Umi, school.Class);
        var seen = school.Workspace.SeeAs(school.Class, school.Umi.Id);

        seen.Folders.Select(f => (f.Name, f.Right, f.Mine)).ShouldBe(real.Folders.Select(f => (f.Name, f.Right, f.Mine)));
        seen.Assignments.Select(a => a.Title).ShouldBe(real.Assignments.Select(a => a.Title));
        school.Workspace.SeeAs(school.Class, null).Folders.ShouldNotContain(f => f.Mine);
        Refused(() => school.Workspace.SeeAs(school.Class, school.Outsider.Id)).ShouldBe("not-found");
    }

    [Fact]
    public void See_as_a_co_teacher_is_what_that_co_teacher_sees()
    {
        school.OpenClass();

        var seen = school.Workspace.SeeAs(school.Class, school.CoTeacher.Id);

        seen.Head.Standing.ShouldBe(Standing.CoTeacher);
        seen.Folders.Select(f => f.Name).ShouldBe(school.Workspace.See(school.CoTeacher, school.Class).Folders.Select(f => f.Name));
    }

    [Fact]
    public void For_any_folder_it_says_who_sees_it_and_why()
    {
        school.OpenClass();

        var sight = Arranging.WhoSees(school.Class, Folder("Hallgrímsson, Umi").Id);

        sight.Where(s => s.Role == ClassRole.Student).Select(s => (s.Name, s.Right)).ShouldBe([("Umi Hallgrímsson", Right.Edit), ("Rúna Ravndal", Right.None)]);
        sight.First(s => s.Name == "Rúna Ravndal").Steps.Last().ShouldContain("one each, and not theirs");
    }

    [Fact]
    public void Blind_spots_are_found_and_mended_each_in_one_act()
    {
        school.OpenClass();
        school.Assign(folders: "Staff room");
        Arranging.Bin(school.Lead, school.Class, Folder("Hallgrímsson, Umi").Id);
        Arranging.Make(school.Lead, school.Class, new("Hand-outs", Folder("Staff room").Id, FolderRule.ClassViews, null, 0));

        var spots = Arranging.BlindSpots(school.Class);
        spots.Select(s => s.Kind).ShouldBe([BlindKind.AssignmentUnseen, BlindKind.NoOwnFolder, BlindKind.ShutByAbove]);
        foreach (var s in spots) Arranging.Mend(school.Lead, school.Class, s.Kind, s.Folder, s.Assignment);

        Arranging.BlindSpots(school.Class).ShouldBeEmpty();
        school.Workspace.See(school.Umi, school.Class).Assignments.ShouldHaveSingleItem();
        school.Workspace.See(school.Umi, school.Class).Folders.ShouldContain(f => f.Mine);
        Refused(() => Arranging.Mend(school.Lead, school.Class, spots[0].Kind, spots[0].Folder, spots[0].Assignment)).ShouldBe("nothing-to-mend");
    }
}
