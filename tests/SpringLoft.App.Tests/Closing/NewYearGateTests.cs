using SpringLoft.App.Closing;
using SpringLoft.App.Rosters;
using SpringLoft.Core.Closing;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.Tests.Closing;

/// <summary>The gate between two school years, and the feed that waits for it.</summary>
public class NewYearGateTests : SchoolTest
{
    public NewYearGateTests()
    {
        school.OpenClass();
        school.HandIn(school.Umi, school.Assign(), "umi's pot").Wait();
    }

    private YearId Year => school.Years[0].Id;
    private NewYearGate Gate => new(school.Premises);

    private void Return() => school.Returns.ReturnAll(school.Lead, school.Class, null, true, null);

    [Fact]
    public void The_gate_opens_when_every_class_is_verified_or_signed_off_by_name()
    {
        Gate.See(Year).ShouldSatisfyAllConditions(g => g.Open.ShouldBeFalse(), g => g.Missing.ShouldHaveSingleItem().Why.ShouldContain("held by the teacher"));
        Refused(() => Gate.Begin(school.Coordinator, Year, true, true)).ShouldBe("gate-shut");
        Refused(() => Gate.SignOff(school.Coordinator, [school.Class], " ")).ShouldBe("missing");

        Gate.SignOff(school.Coordinator, [school.Class], "Its teacher is on leave until August.");

        Gate.See(Year).ShouldSatisfyAllConditions(g => g.Open.ShouldBeTrue(), g => g.Exceptions.ShouldHaveSingleItem().SignedOffBy.ShouldBe("Wren Aldersund"));
        Gate.SignOff(school.Coordinator, [school.Class], null);
        Gate.See(Year).Open.ShouldBeFalse();
        Return();
        school.Close();
        Gate.See(Year).ShouldSatisfyAllConditions(g => g.Open.ShouldBeTrue(), g => g.Verified.ShouldBe(1));
        Refused(() => Gate.SignOff(school.Coordinator, [school.Class], "why not")).ShouldBe("class-archived");
    }

    [Fact]
    public void Whoever_was_in_a_class_that_ended_their_enrollment_is_no_new_entrant()
    {
        var before = Gate.See(Year).Entrants;
        Return();
        school.Go(school.Runs.Begin(school.Coordinator, [school.Class], new(AfterArchive.View, EndEnrollments: true)));
        school.Read(c => RosterStore.Members(c, school.Class)).Where(m => m.Role == ClassRole.Student).ShouldAllBe(m => m.LeftAt != null);

        Gate.See(Year).Entrants.ShouldBe(before);
    }

    [Fact]
    public void When_the_year_begins_students_go_up_and_the_feed_may_have_its_new_dates()
    {
        school.Premises.Db.Write(c => PersonStore.SetGrades(c, [(school.Umi.Id, "6", true), (school.Rúna.Id, "10", true)]));
        var feeding = new Feeding(school.Premises, null!, null!, null!, new(InsideToo: false));
        FeedDraft Feed(LocalDate first, LocalDate last) => new("https://records.example/", "id", "secret", school.Years[1].Id, first, last, 5, true, false);
        var next = school.Years[1].Year;
        Refused(() => feeding.Set(school.Coordinator, Feed(next.First, next.Last))).ShouldBe("gate-shut");
        Gate.SignOff(school.Coordinator, [school.Class], "On leave.");

        Gate.See(Year).Grades.ShouldNotBeEmpty();
        feeding.Offer().ShouldSatisfyAllConditions(o => o.Year.ShouldBe(Year), o => o.Years[1].Shut!.ShouldContain("nobody has begun it"), o => o.Years[0].Shut.ShouldBeNull());
        Gate.Begin(school.Coordinator, Year, true, true).ShouldSatisfyAllConditions(g => g.BegunAt.ShouldNotBeNull(), g => g.Grades.ShouldBeEmpty("nobody goes up twice"));

        school.Read(c => PersonStore.Find(c, school.Umi.Id))!.Grade.ShouldBe("7");
        school.Read(c => PersonStore.Find(c, school.Rúna.Id))!.Active.ShouldBeFalse();
        Refused(() => Gate.Begin(school.Coordinator, Year, true, true)).ShouldBe("year-begun");
        Refused(() => feeding.Set(school.Coordinator, Feed(next.First.PlusDays(-30), next.Last))).ShouldNotBeNull();
        feeding.Offer().ShouldSatisfyAllConditions(o => o.Year.ShouldBe(school.Years[1].Id), o => o.Years[1].ShouldBe(new(school.Years[1].Id, next.Label, next.First, next.Last, null)));
        Gate.See(Year).FeedSet.ShouldBeFalse();
        feeding.Set(school.Coordinator, Feed(next.First, next.Last));
        feeding.See()!.Quiet.ShouldNotBeNull("the school is between years");
        Gate.See(Year).FeedSet.ShouldBeTrue();
    }

    [Fact]
    public void What_was_done_when_the_year_began_is_shown_as_it_was_then()
    {
        school.Premises.Db.Write(c => PersonStore.SetGrades(c, [(school.Umi.Id, "8", true), (school.Rúna.Id, "10", true)]));
        Gate.SignOff(school.Coordinator, [school.Class], "On leave.");
        Gate.See(Year).Did.ShouldBeNull();

        Gate.Begin(school.Coordinator, Year, true, true);
        // What becomes of it later does not change what was done.
        school.Premises.Db.Write(c => PersonStore.SetGrades(c, [(school.Umi.Id, "4", true)]));
        Gate.SignOff(school.Coordinator, [school.Class], null);

        var did = Gate.See(Year).Did!;
        (did.By, did.Verified, did.SignedOff).ShouldBe(("Wren Aldersund", 0, 1));
        did.Grades.Select(g => (g.From, g.To, g.Students)).ShouldBe([("6", "7", 1), ("8", "9", 1), ("10", null, 1)]);
    }

    [Fact]
    public void A_year_may_begin_with_nobody_going_up()
    {
        school.Premises.Db.Write(c => PersonStore.SetGrades(c, [(school.Umi.Id, "6", true), (school.Rúna.Id, "10", true)]));
        Gate.SignOff(school.Coordinator, [school.Class], "On leave.");

        Gate.Begin(school.Coordinator, Year, false, true).Did!.Grades.ShouldBeEmpty();

        school.Read(c => PersonStore.Find(c, school.Umi.Id))!.Grade.ShouldBe("6");
    }

    [Fact]
    public void Many_classes_are_signed_off_with_one_reason_all_or_none()
    {
        var more = Enumerable.Range(1, 3).Select(n => school.Making.Make(school.Lead, school.New("Tides", $"{n}A"))).ToList();
        Gate.See(Year).Missing.Count.ShouldBe(4);
        Return();
        school.Close();

        Refused(() => Gate.SignOff(school.Coordinator, [.. more, school.Class], "Never taught.")).ShouldBe("class-archived");
        Gate.See(Year).Missing.Count.ShouldBe(3, "none of them, for one can't be");
        Refused(() => Gate.SignOff(school.Coordinator, [], "Never taught.")).ShouldBe("missing");
        Gate.SignOff(school.Coordinator, more, "Never taught.");

        Gate.See(Year).ShouldSatisfyAllConditions(g => g.Open.ShouldBeTrue(), g => g.Exceptions.Count.ShouldBe(3), g => g.Exceptions.ShouldAllBe(e => e.Reason == "Never taught."));
        Gate.SignOff(school.Coordinator, more[..2], null);
        Gate.See(Year).Missing.Count.ShouldBe(2);
    }
}
