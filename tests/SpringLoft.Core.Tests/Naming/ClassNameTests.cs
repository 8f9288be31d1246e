using SpringLoft.Core.Naming;

namespace SpringLoft.Core.Tests.Naming;

public class ClassNameTests
{
    private static readonly ClassNameParts Parts = new("Boatbuilding", "6B", "3", null, "2026–27");

    [Fact]
    public void The_name_says_course_section_period_and_year() =>
        ClassName.Preview(ClassName.DefaultPattern, Parts, []).ShouldSatisfyAllConditions(
            p => p.Name.ShouldBe("Boatbuilding 6B · period 3 · 2026–27"), p => p.Refusal.ShouldBeNull(), p => p.Advice.ShouldBeNull());

    [Fact]
    public void A_name_that_differs_only_by_case_is_taken() =>
        ClassName.Preview(ClassName.DefaultPattern, Parts, ["BOATBUILDING 6B · PERIOD 3 · 2026–27"]).Refusal!.Code.ShouldBe("name-taken");

    [Fact]
    public void A_pattern_without_the_year_warns_of_next_years_collision() =>
        ClassName.Preview("{course} {section}", Parts, []).Advice!.ShouldContain("next year");

    [Fact]
    public void A_class_without_a_course_is_refused() =>
        ClassName.Preview(ClassName.DefaultPattern, Parts with { Course = " " }, []).Refusal!.Code.ShouldBe("course-missing");

    [Fact]
    public void What_no_computer_can_store_is_replaced_and_told()
    {
        var preview = ClassName.Preview(ClassName.DefaultPattern, Parts with { Section = "6/7" }, []);

        preview.Name.ShouldBe("Boatbuilding 6-7 · period 3 · 2026–27");
        preview.Changes.ShouldHaveSingleItem().Was.ShouldBe("/");
    }

    [Fact]
    public void A_course_of_signs_only_is_refused() =>
        ClassName.Preview("{course}", Parts with { Course = "???" }, []).Refusal!.Code.ShouldBe("name-empty");
}
