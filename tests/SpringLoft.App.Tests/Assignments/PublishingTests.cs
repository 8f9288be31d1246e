namespace SpringLoft.App.Tests.Assignments;

public class PublishingTests : SchoolTest
{
    private int Version => school.Workspace.See(school.Lead, school.Class).Assignments.Single().Version;

    private AssignmentId Draft(string folder, PersonId[]? to = null) => school.Assigning.Make(school.Lead, school.Class, new("Pinch pot", "", 5, null, null, null, [school.FolderNamed(folder)], to, Publish: false)).Id;

    [Fact]
    public void What_nobody_can_see_is_published_only_on_a_yes()
    {
        school.OpenClass();
        var id = Draft("Staff room");

        var refusal = Should.Throw<RefusedException>(() => school.Assigning.Publish(school.Lead, school.Class, id, Version)).Refusal;

        refusal.Code.ShouldBe("publish-unseen");
        refusal.What.ShouldContain("None of the 2 students");
        school.Workspace.See(school.Lead, school.Class).Assignments.Single().Published.ShouldBeFalse();
        school.Assigning.Publish(school.Lead, school.Class, id, Version, evenSo: true);
        school.Workspace.See(school.Lead, school.Class).Assignments.Single().Published.ShouldBeTrue();
    }

    [Fact]
    public void What_one_of_them_can_see_is_published_without_a_question_and_so_is_what_waits_for_its_class_to_open()
    {
        school.Roster.Enroll(school.Lead, school.Class, [school.Umi.Id, school.Rúna.Id], ClassRole.Student);

        Should.NotThrow(() => school.Assigning.Publish(school.Lead, school.Class, Draft("Papers"), Version));
    }

    [Fact]
    public void In_a_class_without_students_there_is_nobody_to_ask_about() => Should.NotThrow(() => school.Assigning.Publish(school.Lead, school.Class, Draft("Staff room"), Version));
}
