using SpringLoft.Core.People;
using SpringLoft.Core.School;

namespace SpringLoft.Core.Tests.School;

public class SchoolRulesTests
{
    private static string? Field(SchoolRules rules)
    {
        try { rules.Check(); }
        catch (RefusedException e) { return e.Refusal.Field; }
        return null;
    }

    [Fact]
    public void What_holds_by_itself_is_in_order_and_lets_go_of_no_line_and_nobody() => SchoolRules.Default.ShouldSatisfyAllConditions(
        r => Field(r).ShouldBeNull(), r => r.AuditYears.ShouldBeNull(), r => r.PeopleYears.ShouldBeNull(), r => r.SecondStep.ShouldBe(SecondStepFor.Nobody));

    [Fact]
    public void A_number_that_would_keep_nothing_or_hold_nothing_is_told_with_its_field()
    {
        Field(SchoolRules.Default with { FileMegabytes = 0 }).ShouldBe("fileMegabytes");
        Field(SchoolRules.Default with { FileMegabytes = 2049 }).ShouldBe("fileMegabytes");
        Field(SchoolRules.Default with { PersonMegabytes = 9 }).ShouldBe("personMegabytes");
        Field(SchoolRules.Default with { ClassMegabytes = -1 }).ShouldBe("classMegabytes");
        Field(SchoolRules.Default with { SchoolGigabytes = 0 }).ShouldBe("schoolGigabytes");
        Field(SchoolRules.Default with { AuditYears = 0 }).ShouldBe("auditYears");
        Field(SchoolRules.Default with { LetterDays = 6 }).ShouldBe("letterDays");
        Field(SchoolRules.Default with { LeaverDays = 89 }).ShouldBe("leaverDays");
        Field(SchoolRules.Default with { PeopleYears = 51 }).ShouldBe("peopleYears");
    }

    [Fact]
    public void Nobody_is_erased_sooner_than_their_take_home_waits_for_them()
    {
        Field(SchoolRules.Default with { LeaverDays = 400, PeopleYears = 1 }).ShouldBe("peopleYears");
        Field(SchoolRules.Default with { LeaverDays = 364, PeopleYears = 1 }).ShouldBeNull();
    }

    [Fact]
    public void The_limit_that_is_reached_first_is_the_one_that_counts()
    {
        Room.Tightest([]).ShouldBeNull();
        Room.Tightest([new(RoomFor.Class, 90, 100), new(RoomFor.Student, 10, 15), new(RoomFor.School, 0, 1000)])!.Of.ShouldBe(RoomFor.Student);
        new RoomOf(RoomFor.Class, 120, 100).Left.ShouldBe(0, "what stands there since before stays, and there is no room");
        Room.Full(new(RoomFor.Class, 52_428_800, 52_428_800), "a.png").ShouldSatisfyAllConditions(r => r.Code.ShouldBe("quota-full"), r => r.What.ShouldContain("50 of the 50 MB of this class"), r => r.Field.ShouldBe("file"));
    }
}
