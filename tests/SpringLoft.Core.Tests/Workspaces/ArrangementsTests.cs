using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;

namespace SpringLoft.Core.Tests.Workspaces;

public class ArrangementsTests
{
    private static readonly PlanSetting Setting = new(SchoolWeeks.Of(Calendars.Short), []);

    private static ArrangementSight Of(ArrangementKind kind, FolderPlan plan) => Arrangements.Show(plan, Setting, ["6A", "6B", "7A"]).Single(a => a.Kind == kind);

    [Fact]
    public void Sharing_one_workspace_no_student_sees_another_sections_folder()
    {
        var shared = Of(ArrangementKind.Shared, ShippedPlans.Combined);

        shared.Workspaces.ShouldBe(1);
        shared.Warning.ShouldBeNull();
        shared.Kinds.ShouldAllBe(k => k.NotOthers);
        // Start here, Weeks with 5, Groups with one's own, Own folders with one's own; the staff room not.
        shared.Kinds[0].Sees.ShouldBe(1 + 6 + 2 + 2);
        shared.Kinds[^1].Sees.ShouldBe(shared.Kinds[^1].Of);
    }

    [Fact]
    public void A_plan_without_folders_for_groups_is_warned_of() => Of(ArrangementKind.Shared, ShippedPlans.Small).Warning.ShouldNotBeNull();

    [Fact]
    public void A_workspace_each_makes_as_many_folders_as_the_classes_will_have()
    {
        var each = Of(ArrangementKind.OnePerClass, ShippedPlans.Small);

        (each.Workspaces, each.Folders).ShouldBe((3, 3 * 8));
        each.Kinds.Select(k => k.Who).ShouldBe(["a student of 6A", "a student of 6B", "a student of 7A", "lead and co-teachers"]);
    }

    [Theory]
    [InlineData(ForWhom.Everybody, true)]
    [InlineData(ForWhom.StaffOnly, true)]
    [InlineData(ForWhom.SomeGrades, false)]
    [InlineData(ForWhom.SomeCourses, false)]
    public void A_shared_thing_fits_a_class_or_says_whom_it_is_for(ForWhom whom, bool fits) =>
        ResourceFit.Of(whom, ["9", "10"], ["Signals"], "Clay", ["6"]).Fits.ShouldBe(fits);

    [Fact]
    public void Grades_say_nothing_against_a_class_that_has_no_students_yet()
    {
        ResourceFit.Of(ForWhom.SomeGrades, ["9"], [], "Clay", []).Fits.ShouldBeTrue();
        ResourceFit.Of(ForWhom.SomeGrades, ["9"], [], "Clay", ["9"]).Fits.ShouldBeTrue();
        ResourceFit.Of(ForWhom.SomeCourses, [], ["clay"], "Clay", []).Fits.ShouldBeTrue();
    }
}
