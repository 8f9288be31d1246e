using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using static SpringLoft.Core.Tests.Rosters.SmallRecords;

namespace SpringLoft.Core.Tests.Rosters;

/// <summary>What a delivery changes of family contacts.</summary>
public class ContactComparisonTests
{
    private static readonly TodayPerson[] Three = [Person(1, given: "Umi", family: "Hall"), Person(2, given: "Ada", family: "Hall"), Person(9, role: SchoolRole.Teacher, number: null)];
    private static readonly TodayContact Mother = new(new(5), "g1", "Ma Hall", "ma@hall.example", false, [new(1)], []);

    private static RosterToday With(params TodayContact[] contacts) => Today(Three, [], []) with { Contacts = contacts };

    private static RosterDelivery Says(RosterToday t, params DeliveredContact[] contacts) => Same(t) with { Contacts = contacts };

    private static DeliveredContact Says(string id = "g1", string name = "Ma Hall", string? email = "ma@hall.example", bool gone = false, params string[] of) => new(id, name, email, of.Length == 0 ? ["p1"] : of, gone, 7);

    [Fact]
    public void Who_is_not_known_is_new_with_the_students_named()
    {
        Compare(Says(With(), Says(of: ["p1", "p2"])), With()).Only(ChangeKind.NewContact).ShouldSatisfyAllConditions(c => c.Who.ShouldBe("Ma Hall"), c => c.Why.ShouldBe("contact of Umi Hall, Ada Hall"));
        Compare(Says(With(), Says(email: null)), With()).Only(ChangeKind.NewContact).Why.ShouldContain("without an e-mail address");
    }

    [Fact]
    public void Who_is_there_as_said_is_no_change_and_what_differs_is_told()
    {
        var t = With(Mother);
        Compare(Says(t, Says()), t).Changes.ShouldBeEmpty();
        Compare(Says(t, Says(email: "MA@hall.example")), t).Changes.ShouldBeEmpty();
        Compare(Says(t, Says(email: null)), t).Changes.ShouldBeEmpty("what is left blank says nothing");
        Compare(Says(t, Says(name: "Mo Hall", email: "mo@hall.example", of: ["p2"])), t).Only(ChangeKind.ChangedContact).Why
            .ShouldBe("name “Ma Hall” to “Mo Hall”; e-mail ma@hall.example to mo@hall.example; contact of Ada Hall too; no longer contact of Umi Hall");
    }

    [Fact]
    public void What_a_person_said_by_hand_no_delivery_takes_away()
    {
        var t = With(Mother with { ByHand = [new(2)] });
        Compare(Says(t, Says()), t).Changes.ShouldBeEmpty();
        Compare(Says(t, Says(of: ["p1", "p2"])), t).Changes.ShouldBeEmpty();
    }

    [Fact]
    public void Who_is_on_a_whole_list_no_more_goes_and_a_list_of_changes_or_one_without_contacts_says_nothing_of_it()
    {
        var t = With(Mother);
        Compare(Says(t, Says("g2", "Pa Hall")), t).Only(ChangeKind.ContactGone).Who.ShouldBe("Ma Hall");
        Compare(Says(t), t).Changes.ShouldBeEmpty();
        var some = Says(t, Says("g2", "Pa Hall"));
        Compare(some with { PeopleList = new("users.csv", false) }, t).Changes.ShouldHaveSingleItem().Kind.ShouldBe(ChangeKind.NewContact);
        Compare(Says(t, Says(gone: true)), t).Only(ChangeKind.ContactGone).Why.ShouldContain("the school's records say so");
        Compare(Says(With(Mother with { Gone = true }), Says()), With(Mother with { Gone = true })).Only(ChangeKind.ChangedContact).Why.ShouldBe("in the school's records again");
    }

    [Fact]
    public void Contact_of_nobody_who_is_known_or_of_staff_is_told_and_left_out()
    {
        var compared = Compare(Says(With(), Says(of: ["p77", "p9"])), With());
        compared.Changes.ShouldBeEmpty();
        compared.Findings.ShouldHaveSingleItem().ShouldSatisfyAllConditions(f => f.Line.ShouldBe(7), f => f.Text.ShouldContain("the contact of nobody who is known here"));
    }

    [Fact]
    public void A_child_who_comes_with_the_same_delivery_is_theirs_and_one_who_is_unclear_waits()
    {
        var t = With();
        var d = Says(t, Says(of: ["p50"]));
        Compare(d with { People = [.. d.People, New("p50", "Leo", "Hall")] }, t).Only(ChangeKind.NewContact).Why.ShouldBe("contact of Leo Hall");
        // The number is Umi's, the name another's: a person has to say who that is.
        var unclear = Compare(d with { People = [.. d.People, New("p50", "Leo", "Hall", "1001")] }, t);
        unclear.Changes.ShouldNotContain(c => c.Kind == ChangeKind.NewContact);
    }
}
