using SpringLoft.App.Audit;
using SpringLoft.Core.Audit;

namespace SpringLoft.App.Tests.Audit;

public class ReadingsTests : SchoolTest
{
    private readonly Readings readings;

    public ReadingsTests() => readings = new(school.Premises);

    private IReadOnlyList<AuditView> Lines(string act) => [.. new AuditTrail(school.Premises).See(null, null, act, null).Where(l => l.Act == act)];

    [Fact]
    public void A_coordinator_s_look_into_somebody_else_s_class_is_noted_once_an_hour_and_who_teaches_there_is_not()
    {
        school.OpenClass();
        readings.Note(school.Lead, Reading.Work, school.Class, null, "returns");
        readings.Note(school.CoTeacher, Reading.Roster, school.Class, null, "roster");
        readings.Note(school.Umi, Reading.Work, school.Class, null, "itemContent");
        Lines("looked at work").ShouldBeEmpty();

        for (var i = 0; i < 3; i++) readings.Note(school.Coordinator, Reading.Work, school.Class, null, "returns");
        Lines("looked at work").ShouldHaveSingleItem().ShouldSatisfyAllConditions(l => l.Who.ShouldBe(school.Coordinator.Name), l => l.Class.ShouldBe(school.Class));

        readings.Note(school.Coordinator, Reading.Roster, school.Class, null, "roster");
        Lines("looked at roster").Count.ShouldBe(1);
        school.Clock.AdvanceHours(1);
        readings.Note(school.Coordinator, Reading.Work, school.Class, null, "returns");
        Lines("looked at work").Count.ShouldBe(2);
    }

    [Fact]
    public void What_is_carried_away_is_noted_each_time_and_whoever_does_it()
    {
        school.OpenClass();
        readings.Note(school.Lead, Reading.Export, school.Class, null, "exportRoster");
        readings.Note(school.Lead, Reading.Export, school.Class, null, "exportRoster");
        readings.Note(school.Coordinator, Reading.Package, school.Class, null, "package");

        Lines("exported").Count.ShouldBe(2);
        Lines("fetched package").Count.ShouldBe(1);
    }

    [Fact]
    public void A_line_says_from_where_and_in_which_sign_in()
    {
        readings.Note(school.Lead with { From = new("192.0.2.9", new(77)) }, Reading.Export, null, null, "exportRosters");

        Lines("exported").Single().ShouldSatisfyAllConditions(l => l.Address.ShouldBe("192.0.2.9"), l => l.Session.ShouldBe(77));
    }

    [Fact]
    public void Lines_are_sought_by_a_day_of_the_school_s()
    {
        readings.Note(school.Lead, Reading.Export, null, null, "first");
        school.Clock.AdvanceDays(2);
        readings.Note(school.Lead, Reading.Export, null, null, "second");

        new AuditTrail(school.Premises).See(null, null, "exported", school.Premises.Clock.Today.PlusDays(-1)).Select(l => l.Detail).ShouldBe(["first"]);
    }

    [Fact]
    public void Whose_data_was_fetched_is_said()
    {
        readings.Note(school.Coordinator, Reading.Person, null, school.Umi.Id, "all data");

        Lines("fetched a person's data").Single().ShouldSatisfyAllConditions(l => l.Detail.ShouldBe("Umi Hallgrímsson: all data"), l => (l.Thing, l.ThingId).ShouldBe(("person", school.Umi.Id.Value)));
    }
}
