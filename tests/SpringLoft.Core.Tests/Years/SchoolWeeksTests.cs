using System.Globalization;
using CsCheck;
using SpringLoft.Core.Years;

namespace SpringLoft.Core.Tests.Years;

public class SchoolWeeksTests
{
    [Fact]
    public void A_week_without_a_school_day_has_no_number()
    {
        var weeks = SchoolWeeks.Of(Calendars.Short);

        weeks.Select(w => (w.Number, w.Starts)).ShouldBe([
            (1, Calendars.Day(2026, 9, 7)), (2, Calendars.Day(2026, 9, 14)), (3, Calendars.Day(2026, 9, 28)),
            (4, Calendars.Day(2026, 10, 12)), (5, Calendars.Day(2026, 10, 19))]);
    }

    [Fact]
    public void A_week_is_labelled_by_its_first_and_last_school_day()
    {
        var year = Calendars.Short with { DaysOff = [new("Long weekend", Calendars.Day(2026, 9, 7), Calendars.Day(2026, 9, 8))] };

        SchoolWeeks.Of(year)[0].Label.ShouldBe((Calendars.Day(2026, 9, 9), Calendars.Day(2026, 9, 11)));
    }

    [Fact]
    public void A_day_off_in_the_middle_leaves_the_others_of_its_week() =>
        SchoolWeeks.Of(Calendars.Short)[1].Days.Select(d => d.Day).ShouldBe([14, 15, 17, 18]);

    [Fact]
    public void Numbers_begin_anew_in_each_term_if_so_set()
    {
        var weeks = SchoolWeeks.Of(Calendars.Short with { Numbering = WeekNumbering.PerTerm });

        weeks.Select(w => (w.Number, w.Ordinal, w.Term.Name)).ShouldBe([
            (1, 1, "Autumn"), (2, 2, "Autumn"), (3, 3, "Autumn"), (1, 4, "Winter"), (2, 5, "Winter")]);
    }

    // A term that ends on a Tuesday, and the next that begins on the Thursday: it is the week of the term that its first day lies in.
    [Fact]
    public void A_week_in_two_terms_is_of_the_first()
    {
        var year = new SchoolYear("2026–27", [new("One", Calendars.Day(2026, 9, 7), Calendars.Day(2026, 9, 15)), new("Two", Calendars.Day(2026, 9, 17), Calendars.Day(2026, 9, 25))], [],
            new HashSet<IsoDayOfWeek> { IsoDayOfWeek.Monday, IsoDayOfWeek.Tuesday, IsoDayOfWeek.Wednesday, IsoDayOfWeek.Thursday, IsoDayOfWeek.Friday }, IsoDayOfWeek.Monday)
        { Numbering = WeekNumbering.PerTerm };

        SchoolWeeks.Of(year).Select(w => (w.Number, w.Term.Name, w.Days.Count)).ShouldBe([(1, "One", 5), (2, "One", 4), (1, "Two", 5)]);
    }

    [Fact]
    public void Schools_that_keep_Sunday_to_Thursday_have_weeks_that_start_on_Sunday()
    {
        var year = new SchoolYear("2026–27", [new("One", Calendars.Day(2026, 9, 6), Calendars.Day(2026, 9, 17))], [],
            new HashSet<IsoDayOfWeek> { IsoDayOfWeek.Sunday, IsoDayOfWeek.Monday, IsoDayOfWeek.Tuesday, IsoDayOfWeek.Wednesday, IsoDayOfWeek.Thursday }, IsoDayOfWeek.Sunday);

        var weeks = SchoolWeeks.Of(year);

        weeks.Count.ShouldBe(2);
        weeks[0].Label.ShouldBe((Calendars.Day(2026, 9, 6), Calendars.Day(2026, 9, 10)));
        weeks[1].Starts.ShouldBe(Calendars.Day(2026, 9, 13));
    }

    [Fact]
    public void A_year_without_terms_has_no_weeks() =>
        SchoolWeeks.Of(new SchoolYear("x", [], [], SchoolYear.MondayToFriday)).ShouldBeEmpty();

    // By hand: 5 + 4 + 0 + 5 school days in autumn, 5 + 5 in winter.
    [Theory]
    [InlineData(8, 1, 24)]
    [InlineData(9, 14, 19)]
    [InlineData(9, 16, 17)]
    [InlineData(10, 23, 1)]
    [InlineData(10, 24, 0)]
    public void Days_left_count_today_and_no_day_off(int month, int day, int left) =>
        SchoolWeeks.DaysLeft(Calendars.Short, Calendars.Day(2026, month, day)).ShouldBe(left);

    // ISO 8601 weeks as System.Globalization.ISOWeek computes them: a reference outside this project.
    [Fact]
    public void Weeks_that_start_on_Monday_are_the_weeks_of_ISO_8601() =>
        Gen.Int[0, 40_000].Sample(n =>
        {
            var day = Calendars.Day(1990, 1, 1).PlusDays(n);
            var start = SchoolWeeks.StartOfWeek(day, IsoDayOfWeek.Monday).ToDateTimeUnspecified();
            var there = day.ToDateTimeUnspecified();
            start.ShouldBe(ISOWeek.ToDateTime(ISOWeek.GetYear(there), ISOWeek.GetWeekOfYear(there), DayOfWeek.Monday));
        });

    [Fact]
    public void Every_school_day_of_any_calendar_is_in_exactly_one_week()
    {
        var off = Gen.Select(Gen.Int[0, 60], Gen.Int[0, 9], (from, days) =>
            new DayOff("off", Calendars.Day(2026, 9, 7).PlusDays(from), Calendars.Day(2026, 9, 7).PlusDays(from + days))).List[0, 6];
        Gen.Select(off, Gen.Int[1, 7], Gen.Bool).Sample((days, first, perTerm) =>
        {
            var year = Calendars.Short with
            {
                DaysOff = days,
                FirstWeekday = (IsoDayOfWeek)first,
                Numbering = perTerm ? WeekNumbering.PerTerm : WeekNumbering.Through,
            };
            var inWeeks = SchoolWeeks.Of(year).SelectMany(w => w.Days).ToList();
            var all = Enumerable.Range(0, 60).Select(Calendars.Day(2026, 9, 1).PlusDays).Where(d => SchoolWeeks.IsSchoolDay(year, d));
            inWeeks.ShouldBe(all);
        });
    }
}
