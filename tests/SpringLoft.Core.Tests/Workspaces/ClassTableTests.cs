using SpringLoft.Core.Naming;
using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

public class ClassTableTests
{
    private static readonly StaffName Wren = new(new(1), new("Wren", "Aldersund"), "wren", null);
    private static readonly StaffName Oisín = new(new(2), new("Oisín", "Farquhar"), "oisin", "oisin@tiny.invalid");
    private static readonly StaffName Ngozi = new(new(3), new("Ngozi", "Castellan"), "ngozi", null);
    private static readonly StaffName OtherNgozi = new(new(4), new("Ngozi", "Castellan"), "ngozi2", null);

    private static TableSetting At(StaffName? self = null, bool others = true, params string[] taken) =>
        new(ClassName.DefaultPattern, "2026–27", ["Autumn", "Spring"], ["Small start", "By week"], [Wren, Oisín, Ngozi, OtherNgozi], taken, self ?? Wren, others);

    private static TableRow Row(string? course = "Clay", string? section = "6A", string? lead = null, string? term = null, string? plan = null, string? period = "1") => new(course, section, period, null, null, term, lead, plan);

    private static TableDecision Decide(TableRow row, TableSetting? at = null) => ClassTable.Decide([row], at ?? At()).Single();

    [Theory]
    [InlineData("oisin")]
    [InlineData("OISIN@tiny.invalid")]
    [InlineData("Oisin Farquhar")]
    [InlineData("Farquhar, Oisín")]
    [InlineData("farquhar oisin")]
    [InlineData("Farquhar")]
    public void A_lead_teacher_is_known_by_user_name_address_or_name_in_either_order(string said) => Decide(Row(lead: said)).Lead.ShouldBe(Oisín.Id);

    [Theory]
    [InlineData("Nobody Known", "lead-unknown")]
    [InlineData("Ngozi Castellan", "lead-several")]
    public void Who_is_nobody_or_two_people_is_refused(string said, string code) => Decide(Row(lead: said)).Refusal!.Code.ShouldBe(code);

    [Fact]
    public void Two_people_of_one_name_are_told_apart_by_their_user_names() => Decide(Row(lead: "ngozi2")).Lead.ShouldBe(OtherNgozi.Id);

    [Fact]
    public void A_teacher_makes_classes_for_themselves_only()
    {
        Decide(Row(lead: "wren"), At(Oisín, others: false)).Refusal!.Code.ShouldBe("lead-other");
        Decide(Row(), At(Oisín, others: false)).Lead.ShouldBe(Oisín.Id);
    }

    [Fact]
    public void Two_rows_of_one_name_are_both_refused_and_so_is_a_name_that_is_taken()
    {
        ClassTable.Decide([Row(), Row(), Row(section: "6B")], At()).Select(d => d.Refusal?.Code).ShouldBe(["name-twice", "name-twice", null]);
        Decide(Row(), At(taken: "CLAY 6A · period 1 · 2026–27")).Refusal!.Code.ShouldBe("name-taken");
    }

    [Theory]
    [InlineData("Winter", null, "term-unknown")]
    [InlineData(null, "By moon", "plan-unknown")]
    public void A_term_or_plan_that_is_not_there_is_named(string? term, string? plan, string code) => Decide(Row(term: term, plan: plan)).Refusal!.Code.ShouldBe(code);

    [Fact]
    public void Term_and_plan_are_found_whatever_their_case()
    {
        var d = Decide(Row(term: "spring", plan: "by WEEK"));

        (d.Term, d.Plan, d.Refusal).ShouldBe((1, 1, null));
    }

    [Fact]
    public void A_row_without_a_course_or_with_too_long_a_room_is_refused_with_its_field()
    {
        Decide(Row(course: " ")).Refusal!.Field.ShouldBe("course");
        Decide(Row() with { Room = new string('x', 41) }).Refusal!.Field.ShouldBe("room");
    }
}
