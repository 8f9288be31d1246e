using SpringLoft.Core.People;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.People;

public class SlipRulesTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 9, 10, 8, 0);

    private static SlipBar Of(EnrolledBy by, Duration ago, SchoolRole role = SchoolRole.Student, bool yes = false, bool made = false) =>
        SlipRules.ForStaffOfClass(role, by, Now - ago, yes, made, Now);

    [Theory]
    [InlineData(EnrolledBy.Feed, SlipBar.None)]
    [InlineData(EnrolledBy.Hand, SlipBar.TooNew)]
    [InlineData(EnrolledBy.Code, SlipBar.TooNew)]
    [InlineData(EnrolledBy.Invitation, SlipBar.TooNew)]
    public void On_the_first_day_a_class_has_the_slips_of_those_whom_the_records_put_there(EnrolledBy by, SlipBar bar) => Of(by, Duration.Zero).ShouldBe(bar);

    [Fact]
    public void After_three_days_it_has_those_of_everybody_who_is_a_student()
    {
        Of(EnrolledBy.Hand, Duration.FromDays(3) - Duration.FromSeconds(1)).ShouldBe(SlipBar.TooNew);
        Of(EnrolledBy.Hand, Duration.FromDays(3)).ShouldBe(SlipBar.None);
        Of(EnrolledBy.Hand, Duration.FromDays(300), SchoolRole.Teacher).ShouldBe(SlipBar.IsStaff);
        Of(EnrolledBy.Feed, Duration.FromDays(300), SchoolRole.Coordinator, yes: true, made: true).ShouldBe(SlipBar.IsStaff);
    }

    [Fact]
    public void A_coordinators_yes_and_a_password_of_ones_own_making_count_at_once()
    {
        Of(EnrolledBy.Hand, Duration.Zero, yes: true).ShouldBe(SlipBar.None);
        Of(EnrolledBy.Hand, Duration.Zero, made: true).ShouldBe(SlipBar.None);
    }

    [Fact]
    public void A_password_of_somebodys_own_is_ended_by_coordinators_only() =>
        Enum.GetValues<SchoolRole>().Where(r => Permissions.InSchool(r, Act.EndOwnPassword)).ShouldBe([SchoolRole.Coordinator]);
}
