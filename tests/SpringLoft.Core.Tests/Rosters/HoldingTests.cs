using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using static SpringLoft.Core.Tests.Rosters.SmallRecords;

namespace SpringLoft.Core.Tests.Rosters;

/// <summary>What is held: docs/rules.md, "People and rosters".</summary>
public class HoldingTests
{
    private static readonly TodayPerson[] Hundred = [.. Enumerable.Range(1, 100).Select(i => Person(i))];

    // Everybody is in class 2 as well, so that nobody is in no class.
    private static RosterToday School(int inClass) => Today(Hundred, [Class(1), Class(2, "Tides")], [.. Hundred.Take(inClass).Select(p => Member(1, p.Id.Value)), .. Hundred.Select(p => Member(2, p.Id.Value))]);

    private static RosterChanges Losing(RosterToday t, int n, int k = 1)
    {
        var d = Same(t);
        var gone = d.Enrollments.Where(e => e.ClassRef == $"k{k}").Take(n).ToHashSet();
        return Compare(d with { Enrollments = [.. d.Enrollments.Where(e => !gone.Contains(e))] }, t);
    }

    [Theory]
    [InlineData(10, 2, false)] // a fifth, and fewer than 3
    [InlineData(4, 2, false)] // half, but fewer than 3
    [InlineData(15, 3, false)] // a fifth and no more
    [InlineData(14, 3, true)]
    [InlineData(3, 3, true)]
    [InlineData(30, 6, false)]
    [InlineData(30, 7, true)]
    public void A_class_is_held_that_would_lose_more_than_a_fifth_and_three_at_the_least(int before, int losing, bool held)
    {
        Holding.ClassIsHeld(before, losing).ShouldBe(held);
        var changes = Losing(School(before), losing);
        changes.Changes.Count.ShouldBe(losing);
        changes.Changes.ShouldAllBe(c => c.Holds.Any() == held);
    }

    [Fact]
    public void A_class_once_held_stays_held_though_others_have_joined_since()
    {
        var held = Losing(School(14), 3).Holds.ShouldHaveSingleItem();
        var grown = School(15);
        var d = Same(grown);
        var gone = d.Enrollments.Where(e => e.ClassRef == "k1").Take(3).ToHashSet();
        d = d with { Enrollments = [.. d.Enrollments.Where(e => !gone.Contains(e))] };

        Compare(d, grown).Holds.ShouldBeEmpty();
        CompareAgain(d, grown, [held.Key]).Changes.ShouldAllBe(c => c.Holds.Single() == held.Key);
        CompareAgain(Same(grown), grown, [held.Key]).Holds.ShouldBeEmpty("nobody leaves any more");
    }

    [Theory]
    [InlineData(100, 5, false)]
    [InlineData(100, 6, true)]
    [InlineData(19, 1, true)]
    [InlineData(20, 1, false)]
    [InlineData(20, 0, false)]
    public void A_school_is_held_that_would_lose_more_than_a_twentieth(int before, int losing, bool held) => Holding.SchoolIsHeld(before, losing).ShouldBe(held);

    [Theory]
    [InlineData(5, false)]
    [InlineData(6, true)]
    public void Students_who_would_be_in_no_class_any_more_are_lost_to_the_school(int losing, bool held)
    {
        var t = School(0) with { Members = [.. Hundred.Select(p => Member(2, p.Id.Value))] };

        Losing(t, losing, 2).Holds.Any(h => h.Kind == HoldKind.SchoolLoses).ShouldBe(held);
    }

    [Theory]
    [InlineData(40, 2, false)]
    [InlineData(40, 3, true)]
    [InlineData(15, 15, true)] // a delivery without any teachers
    [InlineData(15, 1, true)]
    public void Staff_who_would_be_shut_out_are_held_at_more_than_a_twentieth(int staff, int losing, bool held)
    {
        TodayPerson[] teachers = [.. Enumerable.Range(201, staff).Select(i => Person(i) with { Role = SchoolRole.Teacher })];
        var t = Today([.. Hundred, .. teachers], [Class(1)], [.. Hundred.Select(p => Member(1, p.Id.Value)), .. teachers.Select(p => Member(1, p.Id.Value) with { Role = ClassRole.CoTeacher })]);
        var d = Same(t);
        var gone = teachers.Take(losing).Select(p => $"p{p.Id.Value}").ToHashSet();

        var compared = Compare(d with { People = [.. d.People.Where(p => !gone.Contains(p.Ref))], Enrollments = [.. d.Enrollments.Where(e => !gone.Contains(e.PersonRef))] }, t);

        compared.Holds.Any(h => h.Kind == HoldKind.StaffLoses).ShouldBe(held);
        compared.Changes.Where(c => c.Kind is ChangeKind.PersonGone or ChangeKind.Leaves).ShouldNotBeEmpty();
        compared.Changes.Where(c => c.Kind is ChangeKind.PersonGone or ChangeKind.Leaves).ShouldAllBe(c => c.Holds.Contains("staff:") == held);
    }

    [Fact]
    public void Each_school_is_counted_by_itself()
    {
        var t = School(0) with { People = [.. Hundred.Select((p, i) => p with { School = i < 10 ? "North" : "South" })] };
        var d = Same(t);
        d = d with { People = [.. d.People.Skip(1)], Enrollments = [.. d.Enrollments.Where(e => e.PersonRef != "p1")] };

        Compare(d, t).Holds.Single(h => h.Kind == HoldKind.SchoolLoses).Text.ShouldContain("North would lose 1 of its 10");
    }

    [Theory]
    [InlineData("people")]
    [InlineData("classes")]
    [InlineData("enrollments")]
    public void A_list_that_came_empty_is_held(string which)
    {
        var t = School(10);
        var d = Same(t);
        d = which switch { "people" => d with { People = [] }, "classes" => d with { Classes = [] }, _ => d with { Enrollments = [] } };
        var changes = Compare(d, t);

        changes.Holds.ShouldContain(h => h.Key == $"empty:{which}");
        var loses = which switch { "people" => ChangeKind.PersonGone, "classes" => ChangeKind.ClassGone, _ => ChangeKind.Leaves };
        changes.Changes.Where(c => c.Kind == loses).ShouldNotBeEmpty();
        changes.Changes.Where(c => c.Kind == loses).ShouldAllBe(c => c.Holds.Contains($"empty:{which}"));
    }

    [Theory]
    [InlineData("2025-09-01", "2026-06-19", true)]
    [InlineData("2026-09-01", "2027-06-19", false)]
    [InlineData("2027-06-18", "2027-09-01", false)]
    [InlineData("2027-06-19", "2027-09-01", true)]
    public void A_delivery_outside_the_years_dates_is_held_whole(string first, string last, bool held)
    {
        LocalDate Day(string s) => NodaTime.Text.LocalDatePattern.Iso.Parse(s).Value;
        var t = School(10);
        var d = Same(t);
        d = d with { People = [.. d.People, New("p999")], First = Day(first), Last = Day(last) };

        Compare(d, t).Changes.ShouldAllBe(c => c.Holds.Contains("dates") == held);
    }

    [Fact]
    public void A_change_with_two_reasons_to_wait_waits_for_both()
    {
        var t = School(0) with { Members = [.. Hundred.Select(p => Member(2, p.Id.Value))] };

        Losing(t, 30, 2).Changes.ShouldAllBe(c => c.Holds.Contains("class:2") && c.Holds.Contains("school:"));
    }

    [Fact]
    public void Moves_out_of_a_class_count_as_what_it_loses()
    {
        var t = Today(Hundred.Take(10), [Class(1, section: "A"), Class(2, section: "B")], Hundred.Take(10).Select(p => Member(1, p.Id.Value)));
        var d = Same(t);
        var changes = Compare(d with { Enrollments = [.. d.Enrollments.Select((e, i) => i < 3 ? In("k2", e.PersonRef) : e)] }, t);

        changes.Changes.Select(c => (c.Kind, c.Holds.Single())).ShouldBe(Enumerable.Repeat((ChangeKind.Moves, "class:1"), 3));
    }
}
