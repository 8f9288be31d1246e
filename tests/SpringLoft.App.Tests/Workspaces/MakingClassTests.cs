using SpringLoft.App.Workspaces;
namespace SpringLoft.App.Tests.Workspaces;

public class MakingClassTests : SchoolTest
{
    [Fact]
    public void A_new_class_is_in_preparation_with_its_plans_folders_and_its_maker_as_lead()
    {
        var view = school.Workspace.See(school.Lead, school.Class);

        view.Head.State.ShouldBe(ClassState.InPreparation);
        view.Head.Standing.ShouldBe(Standing.Lead);
        view.Head.Name.ShouldBe("Clay 6B · period 3 · 2026–27");
        view.Folders.Where(f => f.Parent is null).Select(f => f.Name).ShouldBe(["Start here", "Papers", "Shared table", "Own folders", "Staff room"]);
    }

    [Fact]
    public void The_preview_counts_what_making_then_makes()
    {
        var preview = school.Making.Preview(school.Lead, school.New("Signals", plan: "By week"));

        var made = school.Making.Make(school.Lead, school.New("Signals", plan: "By week"));

        school.Workspace.See(school.Lead, made).Folders.Count.ShouldBe(preview.Folders!.Folders);
        preview.Folders.SchoolWeeks.ShouldBeGreaterThan(30);
        preview.Folders.ForEachStudent.ShouldBe(1);
    }

    [Fact]
    public void A_name_that_is_taken_is_refused_and_nothing_is_made()
    {
        Refused(() => school.Making.Make(school.OtherTeacher, school.New("CLAY"))).ShouldBe("name-taken");
        school.Workspace.Mine(school.OtherTeacher).ShouldBeEmpty();
    }

    [Fact]
    public void A_course_section_or_shown_name_of_great_length_is_refused_with_its_field()
    {
        var refusal = Should.Throw<RefusedException>(() => school.Making.Make(school.Lead, school.New(new string('x', 81)))).Refusal;

        (refusal.Code, refusal.Field).ShouldBe(("too-long", "course"));
    }

    [Fact]
    public void A_course_that_is_new_is_kept_for_the_next_class()
    {
        school.Making.Make(school.Lead, school.New("Rope and Knot"));

        school.Making.Courses().Select(c => c.Name).ShouldBe(["Clay", "Rope and Knot"]);
    }

    [Fact]
    public void A_class_is_opened_once_and_only_at_the_version_that_was_seen()
    {
        var seen = school.Workspace.Head(school.Lead, school.Class).Version;
        new ClassDetails(school.Premises).SetWelcome(school.Lead, school.Class, "", "Bring an apron.");

        Refused(() => school.Making.Open(school.Lead, school.Class, seen)).ShouldBe("changed-meanwhile");
        school.Making.Open(school.Lead, school.Class, seen + 1);
        Refused(() => school.Making.Open(school.Lead, school.Class, seen + 2)).ShouldBe("class-open");
    }

    [Fact]
    public void Students_see_nothing_of_a_class_in_preparation_and_find_it_once_open()
    {
        school.Roster.Enroll(school.Lead, school.Class, [school.Umi.Id], ClassRole.Student);
        school.Workspace.See(school.Umi, school.Class).Folders.ShouldBeEmpty();
        school.Workspace.Mine(school.Umi).ShouldBeEmpty();

        school.Making.Open(school.Lead, school.Class, school.Workspace.Head(school.Lead, school.Class).Version);

        school.Workspace.See(school.Umi, school.Class).Folders.Select(f => f.Name).ShouldBe(["Start here", "Papers", "Shared table", "Own folders", "Hallgrímsson, Umi"]);
        school.Workspace.Mine(school.Umi).ShouldHaveSingleItem().Name.ShouldStartWith("Clay");
    }
}
