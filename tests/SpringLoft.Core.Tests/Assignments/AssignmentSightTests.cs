using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Assignments;

public class AssignmentSightTests
{
    private static readonly Instant Joined = Instant.FromUtc(2026, 10, 5, 9, 0);

    [Theory]
    [InlineData(-1, false, false, false)]
    [InlineData(0, false, false, true)]
    [InlineData(1, false, false, true)]
    [InlineData(-1, true, false, true)]
    [InlineData(-1, false, true, true)]
    public void A_late_joiner_has_what_is_set_from_the_moment_they_came_and_what_is_theirs_by_name_or_begun(int seconds, bool byName, bool begun, bool has) =>
        AssignmentSight.InTime(Joined + Duration.FromSeconds(seconds), Joined, byName, begun).ShouldBe(has);

    [Fact]
    public void Who_sees_all_and_what_is_a_draft_is_not_asked_about_time()
    {
        AssignmentSight.InTime(Joined - Duration.FromDays(30), null, false, false).ShouldBeTrue();
        AssignmentSight.InTime(null, Joined, false, false).ShouldBeTrue();
    }

    [Theory]
    [InlineData(true, false, Right.View, true)]
    [InlineData(true, false, Right.None, false)]
    [InlineData(true, true, Right.View, false)]
    [InlineData(false, false, Right.View, false)]
    public void It_is_seen_if_it_is_published_given_to_them_and_stands_where_they_see(bool published, bool toAnother, Right right, bool sees) =>
        AssignmentSight.Sees(published, toAnother ? [new PersonId(2)] : [], new(1), right).ShouldBe(sees);
}
