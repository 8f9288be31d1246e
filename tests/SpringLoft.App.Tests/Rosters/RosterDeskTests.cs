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
        school.Workspace.See(school.Umi, school.Class).Folders.ShouldBeEmpty();
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
}
