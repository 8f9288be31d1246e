using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using static SpringLoft.Core.Tests.Rosters.SmallRecords;

namespace SpringLoft.Core.Tests.Rosters;

/// <summary>What a delivery would do to classes.</summary>
public class ComparedClassesTests
{
    private static readonly TodayPerson[] Ten = [.. Enumerable.Range(1, 20).Select(i => Person(i))];
    private static readonly RosterToday School = Today(Ten, [Class(1, section: "A"), Class(2, section: "B"), Class(3, "Tides")], Ten.Select(p => Member(1, p.Id.Value)));

    [Fact]
    public void A_class_that_was_made_by_hand_is_known_by_its_name_and_linked()
    {
        var t = School with { Classes = [.. School.Classes, Class(9, "Signals", "5A", record: null)] };
        var d = Same(School);
        var changes = Compare(d with { Classes = [.. d.Classes, new("r9", "r9", "Signals", "5A", null, null, null, false, 4)] }, t);

        changes.Changes.ShouldHaveSingleItem().ShouldSatisfyAllConditions(c => c.Kind.ShouldBe(ChangeKind.ChangedClass), c => c.Class.ShouldBe(new ClassId(9)));
    }

    [Fact]
    public void New_classes_are_named_by_the_pattern_and_no_two_alike()
    {
        var d = Same(School);
        var changes = Compare(d with { Classes = [.. d.Classes, new("r1", "r1", "Pottery", null, null, null, null, false, 4), new("r2", "r2", "Pottery", null, null, null, null, false, 5), new("r3", "r3", "Clay", "A", null, null, null, false, 6)] }, School);

        changes.ClassNames.Values.ShouldBe(["Pottery", "Pottery (2)", "Clay A (2)"]);
    }

    [Fact]
    public void A_class_that_is_gone_stays_and_waits_for_a_yes()
    {
        var d = Same(School);
        var changes = Compare(d with { Classes = [.. d.Classes.Where(k => k.Ref != "k3")] }, School);

        changes.Only(ChangeKind.ClassGone).Holds.ShouldBe(["gone:3"]);
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void A_class_that_is_gone_keeps_whoever_goes_with_it_but_for_those_who_move(bool whole)
    {
        var d = Same(School);
        var classGone = d with { Classes = [.. whole ? d.Classes.Where(k => k.Ref != "k1") : d.Classes.Select(k => k.Ref == "k1" ? k with { Gone = true } : k)], Enrollments = [.. whole ? d.Enrollments.Where(e => e.ClassRef != "k1") : d.Enrollments.Select(e => e.ClassRef == "k1" ? e with { Gone = true } : e)] };

        Compare(classGone, School).Changes.ShouldHaveSingleItem().Kind.ShouldBe(ChangeKind.ClassGone);
        // Who has left the school with it stays on its roster too; who is in another set of the course is moved there with their work.
        var more = classGone with { People = [.. classGone.People.Where(p => p.Ref != "p1")], Enrollments = [.. classGone.Enrollments, In("k2", "p2")] };
        Compare(more, School).Changes.Select(c => (c.Kind, c.Person)).ShouldBe([(ChangeKind.PersonGone, new PersonId(1)), (ChangeKind.ClassGone, null), (ChangeKind.Moves, new PersonId(2))], ignoreOrder: true);
    }

    [Fact]
    public void An_archived_class_is_left_in_peace()
    {
        var t = School with { Classes = [.. School.Classes.Select(k => k with { State = ClassState.Archived })] };

        Compare(Whole([.. Ten.Select(p => Said(p))], [], []), t).Changes.ShouldBeEmpty();
    }

    [Fact]
    public void Whatever_the_records_say_of_an_archived_class_it_stays_as_it_was()
    {
        var t = School with { Classes = [.. School.Classes.Select(k => k.Id.Value == 1 ? k with { State = ClassState.Archived } : k)], People = [.. School.People, Person(60)] };
        var d = Same(t);
        // Another room and section, somebody new on its roster, somebody of it who has left the school.
        d = d with
        {
            People = [.. d.People.Where(p => p.Ref != "p1")],
            Classes = [.. d.Classes.Select(k => k.Ref == "k1" ? k with { Room = "Barn", Section = "Z" } : k)],
            Enrollments = [.. d.Enrollments.Where(e => e.PersonRef != "p1"), In("k1", "p60")],
        };

        Compare(d, t).Changes.Where(c => c.Class == new ClassId(1) || c.FromClass == new ClassId(1)).ShouldBeEmpty();
        Compare(d with { Classes = [.. d.Classes.Select(k => k with { Gone = k.Ref == "k1" })] }, t).Changes.ShouldNotContain(c => c.Kind == ChangeKind.ClassGone);
    }

    [Fact]
    public void An_archived_class_that_is_said_twice_is_still_left_in_peace()
    {
        var t = School with { Classes = [.. School.Classes.Select(k => k.Id.Value == 1 ? k with { State = ClassState.Archived } : k)] };
        var d = Same(t);

        Compare(d with { Enrollments = [.. d.Enrollments, .. d.Enrollments] }, t).ShouldSatisfyAllConditions(c => c.Changes.ShouldBeEmpty(), c => c.Same.ShouldBe(20), c => c.Findings.Count.ShouldBe(20));
    }
}
