using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Rosters;

public class LeadingTests
{
    private static LeadFact Teacher(long id, string name, ClassRole? here = null, bool active = true, SchoolRole role = SchoolRole.Teacher, bool student = false) => new(new(id), name, role, active, here, student);

    private static readonly LeadFact Kesi = Teacher(1, "Kesi Ora", ClassRole.Lead);
    private static readonly LeadFact Bram = Teacher(2, "Bram Solé", ClassRole.Lead);
    private static readonly LeadFact Ilse = Teacher(3, "Ilse Wren", ClassRole.CoTeacher);

    private static LeadChange To(LeadFact to, params LeadFact[] leads) => Leading.Decide(to, leads, ClassState.Open, "Kesi Ora");

    private static string Code(LeadFact to, ClassState state, params LeadFact[] leads) =>
        Should.Throw<RefusedException>(() => Leading.Decide(to, leads, state, "Kesi Ora")).Refusal.Code;

    [Fact]
    public void One_steps_down_and_the_other_leads_alone() =>
        To(Ilse, Kesi).ShouldSatisfyAllConditions(d => d.Joins.ShouldBeFalse(), d => d.StepDown.ShouldBe([Kesi]), d => d.Leave.ShouldBeEmpty());

    [Fact]
    public void Whoever_is_not_on_the_roster_comes_onto_it() => To(Teacher(9, "Noor Ha"), Kesi).Joins.ShouldBeTrue();

    [Fact]
    public void Of_two_who_lead_one_is_left() => To(Kesi, Kesi, Bram).ShouldSatisfyAllConditions(d => d.StepDown.ShouldBe([Bram]), d => d.Joins.ShouldBeFalse());

    [Fact]
    public void Who_is_not_in_the_school_any_more_leaves_with_it_and_is_no_co_teacher()
    {
        var gone = Kesi with { Active = false };
        var student = Bram with { Role = SchoolRole.Student };
        To(Ilse, gone, student).ShouldSatisfyAllConditions(d => d.StepDown.ShouldBeEmpty(), d => d.Leave.ShouldBe([gone, student]));
    }

    [Theory]
    [InlineData("Kesi Ora", "Ilse Wren")]
    [InlineData("Ms K", null)]
    [InlineData("", null)]
    public void The_name_that_students_see_follows_where_it_was_that_of_who_led(string shown, string? then) =>
        Leading.Decide(Ilse, [Kesi], ClassState.Open, shown).ShownFrom.ShouldBe(then);

    [Fact]
    public void A_class_without_anybody_gets_one() => To(Ilse).ShouldSatisfyAllConditions(d => d.StepDown.ShouldBeEmpty(), d => d.ShownFrom.ShouldBeNull());

    [Fact]
    public void It_refuses_whoever_can_not_lead()
    {
        Code(Kesi, ClassState.Open, Kesi).ShouldBe("lead-same");
        Code(Ilse with { Active = false }, ClassState.Open, Kesi).ShouldBe("lead-not-staff");
        Code(Teacher(9, "Umi", role: SchoolRole.Student), ClassState.Open, Kesi).ShouldBe("lead-not-staff");
        Code(Teacher(9, "Umi", student: true), ClassState.Open, Kesi).ShouldBe("lead-was-student");
        Code(Ilse, ClassState.Archived, Kesi).ShouldBe("class-archived");
    }

    [Fact]
    public void It_says_what_is_wrong_with_who_leads()
    {
        Leading.TroubleOf([]).ShouldBe(LeadTrouble.NobodyLeads);
        Leading.TroubleOf([Kesi]).ShouldBe(LeadTrouble.None);
        Leading.TroubleOf([Kesi, Bram]).ShouldBe(LeadTrouble.SeveralLead);
        Leading.TroubleOf([Kesi with { Active = false }]).ShouldBe(LeadTrouble.LeadIsGone);
        Leading.TroubleOf([Kesi with { Active = false }, Bram]).ShouldBe(LeadTrouble.SeveralLead);
    }
}
