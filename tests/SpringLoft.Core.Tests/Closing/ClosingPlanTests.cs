using System.Text;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Closing;

public class ClosingPlanTests
{
    private static readonly ClosingFacts Ready = new(ClassState.Open, 27, 0, 0, 0, 0, 0, true, false);
    private static readonly ClosingOptions All = new(AfterArchive.View, true, true, true, true);

    private static ClosingPlan Of(ClosingFacts f, ClosingOptions? o = null, string name = "Clay 6B", bool taken = false) => ClosingPlan.Of(o ?? All, new(f, name, "2026–27", taken));

    [Fact]
    public void What_will_be_done_is_said_line_by_line() =>
        Of(Ready with { CalendarOn = true, Invitations = 2 }).Will.ShouldBe(["called “Clay 6B · 2026–27”", "calendar retired", "27 enrollments ended: no student sees the class any more, only what is returned to them", "set-up kept as a copy", "2 open invitations withdrawn"]);

    [Fact]
    public void Without_options_nothing_but_closing_is_done() => Of(Ready, new(AfterArchive.Nothing, RetireCalendar: false)).ShouldSatisfyAllConditions(p => p.Will.ShouldBeEmpty(), p => p.Skipped.ShouldBeNull(), p => p.NewName.ShouldBeNull());

    [Fact]
    public void Who_may_see_nothing_anyway_is_not_told_that_they_lose_sight_of_the_class() =>
        Of(Ready with { Students = 1 }, new(AfterArchive.Nothing, EndEnrollments: true)).Will.ShouldBe(["1 enrollment ended"]);

    [Fact]
    public void A_calendar_that_is_off_is_not_retired() => Of(Ready).Will.ShouldNotContain("calendar retired");

    [Theory]
    [InlineData(1, 0, false, ClassState.Open, "draft until then")]
    [InlineData(0, 2, false, ClassState.Open, "not marked")]
    [InlineData(0, 0, true, ClassState.Open, "at work on this class")]
    [InlineData(0, 0, false, ClassState.Archived, "archived already")]
    [InlineData(0, 0, false, ClassState.InPreparation, "never opened")]
    public void What_blocks_a_class_is_why_it_is_passed_over(int marked, int unmarked, bool going, ClassState state, string why)
    {
        var plan = Of(Ready with { HeldMarked = marked, HeldUnmarked = unmarked, RunGoing = going, State = state });

        plan.Skipped.ShouldNotBeNull().ShouldContain(why);
        plan.Will.ShouldBeEmpty();
    }

    [Fact]
    public void A_name_that_says_the_year_already_stays() => Of(Ready, name: "Clay 6B · 2026–27").NewName.ShouldBeNull();

    [Fact]
    public void A_name_that_is_taken_stays_and_it_is_said()
    {
        var plan = Of(Ready, taken: true);

        plan.NewName.ShouldBeNull();
        plan.Will[0].ShouldBe("keeps its name: “Clay 6B · 2026–27” is another class's");
    }

    [Theory]
    [InlineData("a", 255)]
    [InlineData("é", 127)]
    [InlineData("陶", 85)]
    [InlineData("🏺", 63)]
    public void The_year_stands_whole_at_the_end_of_the_longest_names(string letter, int times)
    {
        var marked = ClosingPlan.NameWithYear(string.Concat(Enumerable.Repeat(letter, times)), "2026–27")!;

        marked.ShouldEndWith(" · 2026–27");
        Encoding.UTF8.GetByteCount(marked).ShouldBeLessThanOrEqualTo(255);
        marked.ShouldNotContain('\uFFFD');
    }

    [Fact]
    public void Every_state_of_readiness_has_its_mend()
    {
        var f = Ready with { HeldMarked = 2, BlindCopies = 1, Invitations = 1, OnHold = 3, CalendarOn = true, ShelfSet = true };
        var found = Readiness.Assess(f).ToDictionary(x => x.Code);

        found["blind-copies"].ShouldSatisfyAllConditions(x => x.Level.ShouldBe(FindingLevel.Blocks), x => x.Mend.ShouldBe(Mend.None, "returning what is held mends it"));
        found["invitations"].ShouldSatisfyAllConditions(x => x.Level.ShouldBe(FindingLevel.Attention), x => x.Mend.ShouldBe(Mend.WithdrawInvitations));
        found["on-hold"].Mend.ShouldBe(Mend.SeeDeliveries);
        found["calendar"].ShouldSatisfyAllConditions(x => x.Level.ShouldBe(FindingLevel.Ready), x => x.Mend.ShouldBe(Mend.RetireCalendar));
        found.ContainsKey("shelf-set").ShouldBeTrue();
        Readiness.Assess(Ready).Any(x => x.Code == "shelf").ShouldBeTrue();
    }

    [Theory]
    [InlineData("5", "6", false)]
    [InlineData("9", "10", false)]
    [InlineData("10", "10", true)]
    [InlineData("K", "K", false)]
    [InlineData(null, null, false)]
    public void Numbered_grades_go_up_and_the_highest_leaves(string? grade, string? next, bool leaves) =>
        GoingUp.Next(grade, ["K", "5", "9", "10"]).ShouldBe(new GoingUp(next, leaves));

    [Fact]
    public void Only_an_archived_class_with_nothing_held_and_all_take_homes_may_be_deleted()
    {
        Deleting.Against(new(ClassState.Archived, 0, 27, 27)).ShouldBeEmpty();
        Deleting.Against(new(ClassState.Open, 2, 27, 25)).Count.ShouldBe(3);
        Deleting.Against(new(ClassState.Archived, 0, 27, 26)).ShouldHaveSingleItem().ShouldContain("1 of 27 students");
        Deleting.Against(new(ClassState.Archived, 0, 27, 27, 1)).ShouldHaveSingleItem().ShouldContain("shut it first");
        Deleting.GoneAt(Instant.FromUtc(2027, 6, 30, 12, 0)).ShouldBe(Instant.FromUtc(2027, 7, 30, 12, 0));
        Deleting.UnusedSince(Instant.FromUtc(2027, 6, 30, 12, 0)).ShouldBe(Instant.FromUtc(2027, 6, 23, 12, 0));
    }
}
