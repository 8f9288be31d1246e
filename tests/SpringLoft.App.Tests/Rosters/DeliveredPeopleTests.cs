using SpringLoft.App.Rosters;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.Tests.Rosters;

/// <summary>Who people of a delivery are, where that is not clear: asked, decided, kept, taken back.</summary>
public class DeliveredPeopleTests : DeliveryTest
{
    [Fact]
    public async Task Somebody_unclear_is_settled_and_their_one_account_is_kept()
    {
        var twin1 = school.Add("twin1", SchoolRole.Student, "Stu0", "Dent0");
        school.Add("twin2", SchoolRole.Student, "Stu0", "Dent0");
        var id = await Receive(new Records(students: 1, classes: 1));
        var hold = deliveries.See(id).Holds.ShouldHaveSingleItem();

        hold.People.Count.ShouldBe(2);
        deliveries.Decide(school.Coordinator, id, hold.Key, HoldDecision.Yes, twin1.Id);
        Apply(id);

        school.Read(DeliveredStore.People).Single(p => p.Id == twin1.Id).ShouldSatisfyAllConditions(p => p.RecordId.ShouldBe("s0"), p => p.UserName.ShouldBe("twin1"));
        school.Read(DeliveredStore.People).Count(p => p.Family == "Dent0").ShouldBe(2);
    }

    /// <summary>Umi's record under Rúna's number, and a yes that it is the one given (null: somebody new).</summary>
    private async Task<long> MixedUp(PersonId? who)
    {
        await ApplyTable("record id,student number,given,family\nrec-u,1001,Umi,Hallgrímsson\n");
        var id = await Table("record id,student number,given,family\nrec-u,1002,Umi,Hallgrímsson\n");
        deliveries.Decide(school.Coordinator, id, deliveries.See(id).Holds.ShouldHaveSingleItem().Key, HoldDecision.Yes, who);
        return id;
    }

    private async Task<long> Table(string text)
    {
        var id = await deliveries.Receive(school.Coordinator, school.Years[0].Id, "people.csv", TinySchool.Bytes(text), CancellationToken.None);
        deliveries.SetColumns(school.Coordinator, id, [.. deliveries.See(id).Columns.Select(c => c.Is)], false);
        return id;
    }

    private async Task ApplyTable(string text) => Apply(await Table(text));

    private TodayPerson Who(PersonId id) => school.Read(DeliveredStore.People).Single(p => p.Id == id);

    [Fact]
    public async Task A_record_under_somebody_else_s_number_settled_as_somebody_new_is_theirs_and_can_be_applied_twice_and_taken_back()
    {
        var id = await MixedUp(null);
        var before = State();

        Apply(id).Changes.ShouldBe(2);

        var come = school.Read(DeliveredStore.People).Single(p => p.RecordId == "rec-u");
        come.ShouldSatisfyAllConditions(p => p.Id.ShouldNotBe(school.Umi.Id), p => p.StudentNumber.ShouldBeNull());
        Who(school.Umi.Id).ShouldSatisfyAllConditions(p => p.RecordId.ShouldBeNull(), p => p.StudentNumber.ShouldBe("1001"), p => p.Active.ShouldBeTrue());
        Who(school.Rúna.Id).StudentNumber.ShouldBe("1002");
        deliveries.Decide(school.Coordinator, id, deliveries.See(id).Holds[0].Key, HoldDecision.Yes, come.Id);
        Refused(() => Apply(id)).ShouldBe("delivery-nothing");

        applying.TakeBack(school.Coordinator, id).Left.ShouldBeEmpty();
        State().ShouldBe(before);
    }

    [Fact]
    public async Task Applied_once_more_somebody_new_is_not_new_again()
    {
        var id = await MixedUp(null);
        Apply(id);
        var people = school.Read(DeliveredStore.People).Count;

        Refused(() => Apply(id)).ShouldBe("delivery-nothing");

        deliveries.See(id).Holds.ShouldHaveSingleItem().SettledAs.ShouldBe(school.Read(DeliveredStore.People).Single(p => p.RecordId == "rec-u").Id);
        school.Read(DeliveredStore.People).Count.ShouldBe(people);
    }

    [Fact]
    public async Task Decided_anew_somebody_new_is_the_one_who_came_whatever_was_said_in_between()
    {
        var id = await MixedUp(null);
        Apply(id);
        var come = school.Read(DeliveredStore.People).Single(p => p.RecordId == "rec-u").Id;
        var people = school.Read(DeliveredStore.People).Count;
        var key = deliveries.See(id).Holds.ShouldHaveSingleItem().Key;
        void Decide(HoldDecision decision, PersonId? who = null) => deliveries.Decide(school.Coordinator, id, key, decision, who);

        Decide(HoldDecision.Waiting);
        Decide(HoldDecision.Yes);

        deliveries.See(id).Holds.ShouldHaveSingleItem().SettledAs.ShouldBe(come);
        Refused(() => Apply(id)).ShouldBe("delivery-nothing");

        Decide(HoldDecision.Waiting);
        Decide(HoldDecision.Yes, school.Umi.Id);
        Apply(id);
        Who(school.Umi.Id).RecordId.ShouldBe("rec-u");
        Decide(HoldDecision.Waiting);
        Decide(HoldDecision.Yes);
        Apply(id);

        Who(come).RecordId.ShouldBe("rec-u");
        school.Read(DeliveredStore.People).Count.ShouldBe(people);
    }

    [Fact]
    public async Task What_was_decided_one_night_is_not_asked_the_next_unless_it_was_taken_back()
    {
        const string again = "record id,student number,given,family\nrec-u,1002,Umi,Hallgrímsson\n";
        var id = await MixedUp(school.Umi.Id);
        Refused(() => Apply(id)).ShouldBe("delivery-nothing");

        var next = await Table(again);
        deliveries.See(next).ShouldSatisfyAllConditions(d => d.Holds.ShouldBeEmpty(), d => d.Findings.ShouldHaveSingleItem().Text.ShouldContain("1002 is that of Ravndal, Rúna"), d => d.Summary.Changes.ShouldBeEmpty());
    }

    [Fact]
    public async Task A_decision_that_was_taken_back_is_asked_again()
    {
        const string again = "record id,student number,given,family\nrec-u,1002,Umi,Hallgrímsson\n";
        var id = await MixedUp(null);
        Apply(id);
        deliveries.See(await Table(again)).Holds.ShouldBeEmpty();

        applying.TakeBack(school.Coordinator, id);

        deliveries.See(await Table(again)).Holds.ShouldHaveSingleItem();
    }

    [Fact]
    public async Task Two_accounts_joined_here_stay_one_though_the_records_keep_sending_both()
    {
        const string both = "record id,student number,given,family,grade\nrec-a,1001,Umi,Hallgrímsson,6\nrec-b,1999,Umi,Halgrimson,6\n";
        await ApplyTable(both);
        var twin = school.Read(DeliveredStore.People).Single(p => p.RecordId == "rec-b");
        new App.People.SchoolDirectory(school.Premises).Join(school.Coordinator, school.Umi.Id, twin.Id);
        var people = school.Read(DeliveredStore.People).Count;

        var seen = deliveries.See(await Table(both));

        seen.Summary.Changes.ShouldBeEmpty();
        seen.Holds.ShouldBeEmpty();
        seen.Findings.ShouldHaveSingleItem().Text.ShouldContain("same person as line 2");
        Apply(await Table(both.Replace("rec-a,1001,Umi,Hallgrímsson,6\n", "", StringComparison.Ordinal).Replace("Halgrimson,6", "Hallgrímsson,7", StringComparison.Ordinal)));
        Who(school.Umi.Id).ShouldSatisfyAllConditions(p => p.Grade.ShouldBe("7"), p => p.RecordId.ShouldBe("rec-a"), p => p.StudentNumber.ShouldBe("1001"));
        school.Read(DeliveredStore.People).Count.ShouldBe(people);
    }

    [Fact]
    public async Task A_record_and_a_number_of_a_joined_account_settled_as_somebody_new_can_be_applied_and_taken_back()
    {
        await ApplyTable("record id,student number,given,family,grade\nrec-a,1001,Umi,Hallgrímsson,6\nrec-b,1999,Umi,Halgrimson,6\n");
        var twin = school.Read(DeliveredStore.People).Single(p => p.RecordId == "rec-b");
        new App.People.SchoolDirectory(school.Premises).Join(school.Coordinator, school.Umi.Id, twin.Id);
        var before = State();
        // The joined account's record under Rúna's number, and another record under its number.
        var id = await Table("record id,student number,given,family\nrec-b,1002,Third,Child\nrec-c,1999,Fourth,Child\n");
        foreach (var hold in deliveries.See(id).Holds) deliveries.Decide(school.Coordinator, id, hold.Key, HoldDecision.Yes, null);

        Apply(id);

        school.Read(DeliveredStore.People).Single(p => p.RecordId == "rec-b").Given.ShouldBe("Third");
        applying.TakeBack(school.Coordinator, id);
        State().ShouldBe(before);
    }

    [Fact]
    public async Task Who_came_can_be_taken_back_though_a_later_delivery_was_said_to_mean_them_or_they_were_told_apart()
    {
        var first = await Table("record id,student number,given,family\nrec-n,3001,New,Comer\n");
        Apply(first);
        var come = school.Read(DeliveredStore.People).Single(p => p.RecordId == "rec-n");
        new App.People.SchoolDirectory(school.Premises).SetApart(school.Coordinator, come.Id, school.Umi.Id);
        var later = await Table("record id,student number,given,family\nrec-n,1002,New,Comer\n");
        deliveries.Decide(school.Coordinator, later, deliveries.See(later).Holds.ShouldHaveSingleItem().Key, HoldDecision.Yes, come.Id);

        applying.TakeBack(school.Coordinator, first).Left.ShouldBeEmpty();

        school.Read(DeliveredStore.People).ShouldNotContain(p => p.Id == come.Id);
        deliveries.See(later).Holds.ShouldAllBe(h => h.SettledAs == null);
    }

    [Fact]
    public async Task A_child_whom_the_records_have_anew_under_another_record_keeps_their_one_account()
    {
        await ApplyTable("record id,student number,given,family,grade\nrec-u,1001,Umi,Hallgrímsson,6\n");
        var people = school.Read(DeliveredStore.People).Count;

        var id = await Table("record id,given,family,grade\nrec-new,Umi,HALLGRIMSSON,6\n");
        var hold = deliveries.See(id).Holds.ShouldHaveSingleItem();
        hold.Text.ShouldContain("under another record");
        hold.People.ShouldHaveSingleItem().Id.ShouldBe(school.Umi.Id);
        Refused(() => Apply(id)).ShouldBe("delivery-nothing");
        deliveries.Decide(school.Coordinator, id, hold.Key, HoldDecision.Yes, school.Umi.Id);
        Apply(id);

        Who(school.Umi.Id).ShouldSatisfyAllConditions(p => p.RecordId.ShouldBe("rec-new"), p => p.StudentNumber.ShouldBe("1001"), p => p.UserName.ShouldNotBeEmpty());
        school.Read(DeliveredStore.People).Count.ShouldBe(people);
        deliveries.See(await Table("record id,given,family,grade\nrec-new,Umi,HALLGRIMSSON,6\n")).Holds.ShouldBeEmpty();
    }

    [Fact]
    public async Task Nobody_can_be_two_rows_of_one_delivery()
    {
        await ApplyTable("record id,student number,given,family\nrec-u,1001,Umi,Hallgrímsson\nrec-r,1002,Rúna,Ravndal\n");
        var id = await Table("record id,student number,given,family\nrec-u,1002,Umi,Hallgrímsson\nrec-r,,Rúna,Ravndal\n");
        var hold = deliveries.See(id).Holds.ShouldHaveSingleItem();

        Refused(() => deliveries.Decide(school.Coordinator, id, hold.Key, HoldDecision.Yes, school.Rúna.Id)).ShouldBe("person-own-record");
        deliveries.See(id).Holds.Single().Decision.ShouldBe(HoldDecision.Waiting);
        deliveries.Decide(school.Coordinator, id, hold.Key, HoldDecision.Yes, school.Umi.Id);
    }

    [Fact]
    public async Task Settled_as_the_one_with_the_number_the_record_changes_hands_there_and_back()
    {
        var id = await MixedUp(school.Rúna.Id);
        var before = State();

        Apply(id);

        (Who(school.Umi.Id).RecordId, Who(school.Rúna.Id).RecordId).ShouldBe((null, "rec-u"));
        applying.TakeBack(school.Coordinator, id);
        State().ShouldBe(before);
        Who(school.Umi.Id).RecordId.ShouldBe("rec-u");
    }

    [Fact]
    public async Task A_number_that_somebody_else_was_given_since_stays_theirs_when_a_delivery_is_taken_back()
    {
        await ApplyTable("record id,student number,given,family\nrec-u,1001,Umi,Hallgrímsson\n");
        var id = await Table("record id,student number,given,family\nrec-u,1999,Umi,Hallgrímsson\n");
        Apply(id);
        school.Add("later", SchoolRole.Student, "Later", "Comer", "1001");

        applying.TakeBack(school.Coordinator, id).Left.ShouldHaveSingleItem().ShouldContain("1001 of Hallgrímsson, Umi is Comer, Later's by now");

        Who(school.Umi.Id).ShouldSatisfyAllConditions(p => p.StudentNumber.ShouldBeNull(), p => p.RecordId.ShouldBe("rec-u"));
    }

    [Fact]
    public async Task A_table_of_a_class_does_not_make_its_teacher_a_student()
    {
        var text = $"class,name,e-mail,role in class\n{school.Workspace.Head(school.Lead, school.Class).Name},\"Castellan, Ngozi\",other@tiny.invalid,";

        deliveries.See(await Table($"{text}co-teacher\n")).Summary.Changes.Keys.ShouldBe([ChangeKind.Joins]);
        deliveries.See(await Table($"{text}\n")).Holds.ShouldHaveSingleItem().Text.ShouldContain("is staff here and a student in the delivery");
    }

    [Fact]
    public async Task Who_becomes_staff_is_nobody_s_student_any_more_and_is_again_when_it_is_taken_back()
    {
        school.OpenClass();
        await ApplyTable("record id,student number,given,family,role\nrec-u,1001,Umi,Hallgrímsson,student\n");
        bool On() => school.Read(c => Store.Rosters.RosterStore.Member(c, school.Class, school.Umi.Id)) is { LeftAt: null };
        var before = State();
        var id = await Table("record id,student number,given,family,role\nrec-u,1001,Umi,Hallgrímsson,teacher\n");
        deliveries.Decide(school.Coordinator, id, deliveries.See(id).Holds.Single().Key, HoldDecision.Yes, school.Umi.Id);
        On().ShouldBeTrue();

        Apply(id);

        On().ShouldBeFalse();
        Who(school.Umi.Id).Role.ShouldBe(SchoolRole.Teacher);
        school.Read(c => Store.Rosters.RosterStore.Member(c, school.Class, school.Rúna.Id))!.LeftAt.ShouldBeNull();
        applying.TakeBack(school.Coordinator, id);
        State().ShouldBe(before);
    }
}
