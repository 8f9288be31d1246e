using SpringLoft.App.Rosters;
using SpringLoft.Core.People;
using SpringLoft.Core.Rosters;

namespace SpringLoft.App.Tests.Rosters;

public class RosterDeskTests : SchoolTest
{
    [Theory]
    [InlineData("hall")]
    [InlineData("HALLGRIMS")]
    [InlineData("hallgrímss")]
    [InlineData("umi")]
    [InlineData("1001")]
    public void People_are_found_by_the_first_letters_of_either_name_or_of_the_number(string typed) =>
        school.Roster.Search(school.Class, typed, students: true).ShouldHaveSingleItem().SortName.ShouldBe("Hallgrímsson, Umi");

    [Fact]
    public void Students_and_staff_are_looked_up_apart() => school.Roster.Search(school.Class, "farq", students: true).ShouldBeEmpty();

    [Fact]
    public void Enrolling_gives_each_student_their_own_folder_at_once()
    {
        var report = school.Roster.Enroll(school.Lead, school.Class, [school.Umi.Id, school.Rúna.Id], ClassRole.Student);

        (report.Joined, report.Folders).ShouldBe((2, 2));
        school.Roster.See(school.Class).Where(r => r.Role == ClassRole.Student).ShouldAllBe(r => r.HasFolder);
    }

    [Fact]
    public void Enrolling_again_changes_nothing_and_says_so()
    {
        school.Roster.Enroll(school.Lead, school.Class, [school.Umi.Id], ClassRole.Student);

        var again = school.Roster.Enroll(school.Lead, school.Class, [school.Umi.Id], ClassRole.Student);

        (again.Joined, again.Folders).ShouldBe((0, 0));
        again.Decisions.ShouldHaveSingleItem().Outcome.ShouldBe(EnrollOutcome.AlreadyHere);
    }

    [Fact]
    public void A_late_joiner_sees_materials_and_published_assignments_at_once()
    {
        school.OpenClass();
        school.Assign();

        school.Roster.Enroll(school.Lead, school.Class, [school.Outsider.Id], ClassRole.Student);

        var seen = school.Workspace.See(school.Outsider, school.Class);
        seen.Folders.ShouldContain(f => f.Mine);
        seen.Assignments.ShouldHaveSingleItem();
    }

    [Fact]
    public async Task A_student_whose_work_is_held_is_not_taken_off_until_it_is_returned()
    {
        school.OpenClass();
        var a = school.Assign();
        await school.HandIn(school.Umi, a);

        Refused(() => school.Roster.Remove(school.Lead, school.Class, school.Umi.Id)).ShouldBe("work-held");
        school.Returns.ReturnAll(school.Lead, school.Class, null, unmarkedToo: true, null);
        school.Roster.Remove(school.Lead, school.Class, school.Umi.Id);
        Refused(() => school.Workspace.See(school.Umi, school.Class)).ShouldBe("not-allowed");
    }

    [Fact]
    public void A_student_who_comes_back_finds_their_folder_again()
    {
        school.OpenClass();
        var before = school.Workspace.See(school.Umi, school.Class).Folders.First(f => f.Mine).Id;
        school.Roster.Remove(school.Lead, school.Class, school.Umi.Id);

        school.Roster.Enroll(school.Lead, school.Class, [school.Umi.Id], ClassRole.Student).Folders.ShouldBe(0);

        school.Workspace.See(school.Umi, school.Class).Folders.First(f => f.Mine).Id.ShouldBe(before);
    }

    [Fact]
    public void Nobody_and_strangers_are_refused_and_nobody_else_is_enrolled()
    {
        Refused(() => school.Roster.Enroll(school.Lead, school.Class, [], ClassRole.Student)).ShouldBe("missing");
        Refused(() => school.Roster.Enroll(school.Lead, school.Class, [school.Umi.Id, new(999)], ClassRole.Student)).ShouldBe("person-unknown");
        Refused(() => school.Roster.Enroll(school.Lead, school.Class, [school.Umi.Id], ClassRole.Lead)).ShouldBe("role-lead");
        school.Roster.See(school.Class).ShouldHaveSingleItem();
    }

    [Fact]
    public void A_pasted_list_says_whom_the_directory_knows_who_might_be_meant_and_who_is_nobody()
    {
        school.Roster.Enroll(school.Lead, school.Class, [school.Rúna.Id], ClassRole.Student);

        var lines = school.Roster.ReadPaste(school.Class, "1001\nRavndal, Rúna\nUmi Halgrimsson\nZdeněk Quiroga\n", students: true);

        lines.Select(l => l.Knowledge).ShouldBe([Knowledge.Known, Knowledge.Known, Knowledge.Possible, Knowledge.Unknown]);
        lines[0].People.Single().Id.ShouldBe(school.Umi.Id);
        lines[1].People.Single().InThisClass.ShouldBe(ClassRole.Student);
        lines[2].People.First().Id.ShouldBe(school.Umi.Id);
        school.Roster.See(school.Class).Count(r => r.Role == ClassRole.Student).ShouldBe(1);
    }

    [Fact]
    public void All_of_a_class_a_group_or_a_grade_are_taken_at_once_by_who_may_see_them()
    {
        school.OpenClass();
        var crew = new GroupDesk(school.Premises).Make(school.Lead, school.Class, "Crew", [school.Umi.Id]).Id;
        var other = school.Making.Make(school.Lead, school.New("Rope"));

        school.Roster.All(school.Lead, other, new(school.Class, null, null)).Count.ShouldBe(2);
        school.Roster.All(school.Lead, other, new(school.Class, crew, null)).Single().Id.ShouldBe(school.Umi.Id);
        school.Roster.All(school.Lead, other, new(null, null, "6")).Count.ShouldBe(3);
        Refused(() => school.Roster.All(school.OtherTeacher, other, new(school.Class, null, null))).ShouldBe("not-found");
        Refused(() => school.Roster.All(school.Lead, other, new(null, null, " "))).ShouldBe("missing");
    }
}
