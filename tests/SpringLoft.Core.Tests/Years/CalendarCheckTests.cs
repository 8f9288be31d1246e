using SpringLoft.Core.Years;

namespace SpringLoft.Core.Tests.Years;

public class CalendarCheckTests
{
    private static IEnumerable<string> Codes(SchoolYear year) => CalendarCheck.Of(year).Select(r => r.Code);

    [Fact]
    public void A_good_calendar_has_no_refusal() => Codes(Calendars.Short).ShouldBeEmpty();

    [Fact]
    public void Terms_that_overlap_are_refused_by_name()
    {
        var year = Calendars.Short with { Terms = [new("A", Calendars.Day(2026, 9, 7), Calendars.Day(2026, 10, 2)), new("B", Calendars.Day(2026, 10, 2), Calendars.Day(2026, 10, 9))] };

        var refusal = CalendarCheck.Of(year).ShouldHaveSingleItem();

        refusal.Code.ShouldBe("terms-overlap");
        refusal.What.ShouldContain("“A” and “B”");
    }

    [Fact]
    public void A_term_that_ends_before_it_starts_is_refused() =>
        Codes(Calendars.Short with { Terms = [new("A", Calendars.Day(2026, 9, 7), Calendars.Day(2026, 9, 1))] }).ShouldBe(["term-ends-before-start"]);

    [Fact]
    public void A_year_without_terms_is_refused() => Codes(Calendars.Short with { Terms = [] }).ShouldBe(["year-no-terms"]);

    [Fact]
    public void A_year_without_a_school_day_is_refused() =>
        Codes(Calendars.Short with { DaysOff = [new("all", Calendars.Day(2026, 9, 1), Calendars.Day(2026, 12, 31))] }).ShouldBe(["year-no-school-days"]);

    [Theory]
    [InlineData(2026, 8, "2026–27")]
    [InlineData(2027, 6, "2026–27")]
    [InlineData(2027, 7, "2027–28")]
    [InlineData(2099, 9, "2099–00")]
    public void The_first_guess_of_a_year_turns_in_July(int year, int month, string label)
    {
        var years = StartingYears.From(Calendars.Day(year, month, 1));

        years[0].Label.ShouldBe(label);
        years.ShouldAllBe(y => CalendarCheck.Of(y).Count == 0);
        years[1].First.ShouldBeGreaterThan(years[0].Last);
    }
}
