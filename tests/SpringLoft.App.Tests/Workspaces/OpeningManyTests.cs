using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

public class OpeningManyTests : SchoolTest
{
    private OpeningMany Many => new(school.Premises);

    private ClassState State(ClassId id) => school.Read(c => ClassStore.Find(c, id)!.State);

    private ClassId Other(string course, Caller? lead = null) => school.Making.Make(lead ?? school.Lead, school.New(course));

    [Fact]
    public void Each_is_looked_at_and_those_that_want_a_look_say_why()
    {
        var empty = Other("Tides");
        school.Roster.Enroll(school.Lead, school.Class, [school.Umi.Id], ClassRole.Student);

        var look = Many.Look(school.Lead, [school.Class, empty]).ToDictionary(l => l.Class);

        look[school.Class].ShouldSatisfyAllConditions(l => l.Check.Students.ShouldBe(1), l => l.WantsALook.ShouldBeFalse(string.Join(", ", l.Check.Notes)));
        look[empty].ShouldSatisfyAllConditions(l => l.WantsALook.ShouldBeTrue(), l => l.Check.Notes[0].ShouldBe(OpeningNote.NoStudents));
    }

    [Fact]
    public void All_are_opened_in_one_act()
    {
        var other = Other("Tides");
        school.Roster.Enroll(school.Lead, other, [school.Umi.Id, school.Rúna.Id], ClassRole.Student);

        var done = Many.Open(school.Lead, [.. Many.Look(school.Lead, [school.Class, other]).Select(l => new OpeningPick(l.Class, l.Version))]);

        (done.Opened, done.Students, done.Passed.Count).ShouldBe((2, 2, 0));
        (State(school.Class), State(other)).ShouldBe((ClassState.Open, ClassState.Open));
        Many.Look(school.Lead, [school.Class, other]).ShouldBeEmpty();
    }

    [Fact]
    public void What_was_changed_or_opened_meanwhile_is_passed_over_and_the_others_are_opened()
    {
        var (other, third) = (Other("Tides"), Other("Signals"));
        var picks = Many.Look(school.Lead, [school.Class, other, third]).Select(l => new OpeningPick(l.Class, l.Version)).ToList();
        school.Making.Open(school.Lead, other, school.Workspace.Head(school.Lead, other).Version);
        new ClassDetails(school.Premises).SetWelcome(school.Lead, third, "", "Welcome.");

        var done = Many.Open(school.Lead, picks);

        done.Opened.ShouldBe(1);
        done.Passed.Select(p => p.Class).ShouldBe([other, third]);
        done.Passed.ShouldAllBe(p => p.Why.Length > 10);
        (State(school.Class), State(third)).ShouldBe((ClassState.Open, ClassState.InPreparation));
    }

    [Fact]
    public void A_class_that_is_not_ones_own_is_neither_seen_nor_opened_and_nothing_is_done()
    {
        var theirs = Other("Tides", school.OtherTeacher);
        Many.Look(school.Lead, [school.Class, theirs]).ShouldHaveSingleItem().Class.ShouldBe(school.Class);
        Refused(() => Many.Open(school.Lead, [new(school.Class, 1), new(theirs, 1)])).ShouldBe("not-found");
        (State(school.Class), State(theirs)).ShouldBe((ClassState.InPreparation, ClassState.InPreparation));
        Many.Look(school.Coordinator, [school.Class, theirs]).Count.ShouldBe(2);
    }
}
