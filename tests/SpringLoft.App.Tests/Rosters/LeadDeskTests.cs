using Dapper;
using SpringLoft.App.Rosters;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.Tests.Rosters;

public class LeadDeskTests : SchoolTest
{
    private LeadDesk Desk => new(school.Premises);

    public LeadDeskTests() => school.OpenClass();

    private ClassRole? RoleOf(Caller who) => school.Premises.Db.Read(c => RosterStore.Member(c, school.Class, who.Id)) is { LeftAt: null } m ? m.Role : null;

    private string Shown => school.Premises.Db.Read(c => Store.Workspaces.ClassStore.Find(c, school.Class)!.TeacherShown);

    private bool May(Caller who, Act act) => school.Premises.Db.Read(c => ClassGate.May(c, who, school.Class, act));

    [Fact]
    public void The_coordinator_says_who_leads_and_it_is_so_at_once()
    {
        var means = Desk.Preview(school.Coordinator, school.Class, school.OtherTeacher.Id);
        (means.Joins, means.StepDown.Single(), means.ShownNow, means.ShownThen).ShouldBe((true, "Oisín Farquhar", "Oisín Farquhar", "Ngozi Castellan"));
        RoleOf(school.OtherTeacher).ShouldBeNull("a preview writes nothing");

        Desk.Set(school.Coordinator, school.Class, school.OtherTeacher.Id);

        (RoleOf(school.OtherTeacher), RoleOf(school.Lead), Shown).ShouldBe((ClassRole.Lead, ClassRole.CoTeacher, "Ngozi Castellan"));
        (May(school.OtherTeacher, Act.CloseClass), May(school.Lead, Act.CloseClass), May(school.Lead, Act.Mark)).ShouldBe((true, false, true));
        Desk.See(school.Coordinator, school.Class).ShouldSatisfyAllConditions(s => s.Leads.ShouldBe(["Ngozi Castellan"]), s => s.Trouble.ShouldBe(LeadTrouble.None));
    }

    [Fact]
    public void A_lead_asks_a_colleague_and_leads_until_the_answer_is_yes()
    {
        Desk.Offer(school.Lead, school.Class, school.CoTeacher.Id);
        Desk.Mine(school.OtherTeacher).ShouldBeEmpty();
        Desk.Mine(school.CoTeacher).Single().ByName.ShouldBe("Oisín Farquhar");
        RoleOf(school.Lead).ShouldBe(ClassRole.Lead);

        Refused(() => Desk.Answer(school.OtherTeacher, school.Class, yes: true)).ShouldBe("not-found");
        Desk.Answer(school.CoTeacher, school.Class, yes: true);

        (RoleOf(school.CoTeacher), RoleOf(school.Lead)).ShouldBe((ClassRole.Lead, ClassRole.CoTeacher));
        Refused(() => Desk.Answer(school.CoTeacher, school.Class, yes: true)).ShouldBe("not-found");
        Desk.See(school.CoTeacher, school.Class).Offer.ShouldBeNull();
    }

    [Fact]
    public void On_a_no_and_when_it_is_taken_back_all_stays()
    {
        Desk.Offer(school.Lead, school.Class, school.CoTeacher.Id);
        Desk.Answer(school.CoTeacher, school.Class, yes: false);
        (RoleOf(school.Lead), Desk.Mine(school.CoTeacher).Count).ShouldBe((ClassRole.Lead, 0));

        Desk.Offer(school.Lead, school.Class, school.CoTeacher.Id);
        Desk.Withdraw(school.Lead, school.Class);
        Refused(() => Desk.Answer(school.CoTeacher, school.Class, yes: true)).ShouldBe("not-found");
        Refused(() => Desk.Withdraw(school.Lead, school.Class)).ShouldBe("not-found");
    }

    [Fact]
    public void An_offer_is_over_when_whoever_made_it_leads_no_more()
    {
        Desk.Offer(school.Lead, school.Class, school.CoTeacher.Id);
        Desk.Set(school.Coordinator, school.Class, school.OtherTeacher.Id);
        Refused(() => Desk.Answer(school.CoTeacher, school.Class, yes: true)).ShouldBe("not-found");
        RoleOf(school.OtherTeacher).ShouldBe(ClassRole.Lead);
    }

    [Fact]
    public void A_second_offer_replaces_the_first()
    {
        Desk.Offer(school.Lead, school.Class, school.CoTeacher.Id);
        Desk.Offer(school.Lead, school.Class, school.OtherTeacher.Id);
        Refused(() => Desk.Answer(school.CoTeacher, school.Class, yes: true)).ShouldBe("not-found");
        Desk.Answer(school.OtherTeacher, school.Class, yes: true);
        RoleOf(school.OtherTeacher).ShouldBe(ClassRole.Lead);
    }

    [Fact]
    public void A_class_that_a_delivery_gave_two_has_one_again()
    {
        school.Premises.Db.Write(c => RosterStore.Put(c, school.Class, school.OtherTeacher.Id, ClassRole.Lead, school.Premises.Clock.Now, EnrolledBy.Feed));
        Desk.See(school.Lead, school.Class).Trouble.ShouldBe(LeadTrouble.SeveralLead);
        Desk.Set(school.Coordinator, school.Class, school.Lead.Id);
        (RoleOf(school.Lead), RoleOf(school.OtherTeacher)).ShouldBe((ClassRole.Lead, ClassRole.CoTeacher));
        // By hand: the next delivery leaves it so.
        school.Premises.Db.Read(c => RosterStore.Member(c, school.Class, school.OtherTeacher.Id))!.EnrolledBy.ShouldBe(EnrolledBy.Hand);
    }

    [Fact]
    public void Whose_lead_has_left_the_school_gets_another_and_they_are_off_the_roster()
    {
        school.Premises.Db.Write(c => c.Execute("UPDATE person SET active = 0 WHERE id = @id", new { id = school.Lead.Id }));
        Desk.See(school.CoTeacher, school.Class).Trouble.ShouldBe(LeadTrouble.LeadIsGone);
        Desk.Set(school.Coordinator, school.Class, school.CoTeacher.Id);
        (RoleOf(school.CoTeacher), RoleOf(school.Lead)).ShouldBe((ClassRole.Lead, null));
    }

    [Fact]
    public void A_name_that_was_chosen_for_students_stays()
    {
        school.Premises.Db.Write(c => c.Execute("UPDATE class SET teacher_shown = 'Mr F' WHERE id = @id", new { id = school.Class }));
        Desk.Set(school.Coordinator, school.Class, school.CoTeacher.Id);
        Shown.ShouldBe("Mr F");
    }

    [Fact]
    public void Who_may_not_is_refused()
    {
        Refused(() => Desk.Set(school.Lead, school.Class, school.CoTeacher.Id)).ShouldBe("not-allowed");
        Refused(() => Desk.Offer(school.CoTeacher, school.Class, school.OtherTeacher.Id)).ShouldBe("not-allowed");
        Refused(() => Desk.Offer(school.Coordinator, school.Class, school.OtherTeacher.Id)).ShouldBe("lead-not-yours");
        Refused(() => Desk.Set(school.Coordinator, school.Class, school.Umi.Id)).ShouldBe("lead-not-staff");
        Refused(() => Desk.Mine(school.Umi)).ShouldBe("not-allowed");
    }

    [Fact]
    public void It_is_written_down_and_told()
    {
        school.Premises.Db.Write(c => c.Execute("UPDATE person SET email = user_name || '@example.org'"));
        Desk.Offer(school.Lead, school.Class, school.CoTeacher.Id);
        Desk.Answer(school.CoTeacher, school.Class, yes: true);
        school.Premises.Db.Read(c => c.Query<string>("SELECT act FROM audit WHERE act LIKE '%lead%' OR act LIKE 'made co%' ORDER BY id").ToList()).ShouldBe(["offered the lead", "made lead teacher", "made co-teacher"]);
        school.Premises.Db.Read(c => c.Query<string>("SELECT to_address FROM letter ORDER BY id").ToList()).ShouldBe(["co@example.org", "lead@example.org"]);
    }

    [Fact]
    public void When_the_coordinator_says_it_both_are_told()
    {
        school.Premises.Db.Write(c => c.Execute("UPDATE person SET email = user_name || '@example.org'"));
        Desk.Set(school.Coordinator, school.Class, school.CoTeacher.Id);
        school.Premises.Db.Read(c => c.Query<string>("SELECT to_address FROM letter ORDER BY id").ToList()).ShouldBe(["co@example.org", "lead@example.org"]);
    }
}
