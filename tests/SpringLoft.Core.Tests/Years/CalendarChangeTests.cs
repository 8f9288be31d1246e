using CsCheck;
using SpringLoft.Core.Years;

namespace SpringLoft.Core.Tests.Years;

public class CalendarChangeTests
{
    private static readonly ClassId Class = new(1);

    private static CalendarEffects Effects(SchoolYear after, params HangingDate[] dates) => CalendarChange.Effects(Calendars.Short, after, dates);

    [Fact]
    public void A_calendar_that_does_not_change_does_nothing()
    {
        var effects = Effects(Calendars.Short with { }, new HangingDate(Class, "Pot", Calendars.Day(2026, 9, 14)));

        effects.Weeks.ShouldBeEmpty();
        effects.Stranded.ShouldBeEmpty();
        (effects.WeeksBefore, effects.WeeksAfter, effects.SchoolDaysBefore, effects.SchoolDaysAfter).ShouldBe((5, 5, 24, 24));
    }

    [Fact]
    public void A_week_given_back_is_new_and_those_after_it_count_one_more()
    {
        var effects = Effects(Calendars.Short with { DaysOff = [Calendars.Short.DaysOff[0]] });

        effects.Weeks[0].ShouldSatisfyAllConditions(w => w.Starts.ShouldBe(Calendars.Day(2026, 9, 21)), w => w.Was.ShouldBeNull(), w => w.Will!.Number.ShouldBe(3));
        effects.Weeks.Skip(1).Select(w => (w.Was!.Number, w.Will!.Number)).ShouldBe([(3, 4), (4, 5), (5, 6)]);
    }

    [Fact]
    public void A_date_that_loses_its_school_day_is_named_with_the_reason()
    {
        var strike = new DayOff("Ferry day", Calendars.Day(2026, 9, 14), Calendars.Day(2026, 9, 14));
        var dates = new[] { new HangingDate(Class, "Pot", Calendars.Day(2026, 9, 14)), new HangingDate(Class, "Vase", Calendars.Day(2026, 9, 15)), new HangingDate(Class, "Old", Calendars.Day(2026, 9, 16)) };

        Effects(Calendars.Short with { DaysOff = [.. Calendars.Short.DaysOff, strike] }, dates).Stranded
            .ShouldBe([new StrandedDate(Class, "Pot", Calendars.Day(2026, 9, 14), "Ferry day")]);
    }

    [Fact]
    public void A_year_on_keeps_every_weekday() => CalendarChange.YearOn(Calendars.Short, "2027–28").ShouldSatisfyAllConditions(
        y => y.First.ShouldBe(Calendars.Day(2027, 9, 6)), y => y.First.DayOfWeek.ShouldBe(Calendars.Short.First.DayOfWeek), y => SchoolWeeks.Of(y).Count.ShouldBe(5));

    [Fact]
    public void Letters_go_by_turns_or_begin_again_after_a_holiday()
    {
        IEnumerable<string?> Letters(WeekLetters how) => SchoolWeeks.Of(Calendars.Short with { Letters = how }).Select(w => w.Letter);

        Letters(WeekLetters.None).ShouldAllBe(l => l == null);
        Letters(WeekLetters.ByTurns).ShouldBe(["A", "B", "A", "B", "A"]);
        // Storm week and the week between the terms are holidays.
        Letters(WeekLetters.AnewAfterHoliday).ShouldBe(["A", "B", "A", "A", "B"]);
    }

    [Fact]
    public void Terms_of_one_name_a_year_without_weekdays_and_a_year_of_1970_are_refused()
    {
        IEnumerable<string> Codes(SchoolYear y) => CalendarCheck.Of(y).Select(r => r.Code);

        Codes(Calendars.Short with { Terms = [Calendars.Short.Terms[0], Calendars.Short.Terms[1] with { Name = "autumn" }] }).ShouldBe(["terms-same-name"]);
        Codes(Calendars.Short with { SchoolWeekdays = new HashSet<IsoDayOfWeek>() }).ShouldContain("year-no-weekdays");
        Codes(Calendars.Short with { Terms = [new("Old", Calendars.Day(1970, 1, 1), Calendars.Day(2026, 9, 30))] }).ShouldBe(["year-too-long"]);
        Codes(Calendars.Short with { DaysOff = [new("x", Calendars.Day(2026, 9, 9), Calendars.Day(2026, 9, 8))] }).ShouldBe(["day-off-ends-before-start"]);
        Codes(Calendars.Short with { Label = " " }).ShouldBe(["year-no-label"]);
    }

    // School year 2024–25 in Bavaria, from public rules: holidays of § 1 of the "Ferienordnung" (autumn 28–31 Oct, Christmas
    // 23 Dec – 3 Jan, spring 3–7 Mar, Easter 14–25 Apr, Whitsun 10–20 Jun) and public holidays of Art. 1 FTG (3 Oct, 1 Nov,
    // 1 May, 29 May Ascension, 9 Jun Whit Monday, 19 Jun within the holidays) plus the school-free Day of Prayer, 20 Nov.
    // First day Tue 10 Sep 2024, last Thu 31 Jul 2025. Dates from memory of the published tables; weeks counted by hand.
    [Fact]
    public void A_published_school_year_counts_as_worked_by_hand()
    {
        LocalDate D(int y, int m, int d) => Calendars.Day(y, m, d);
        DayOff Off(string name, LocalDate first, LocalDate? last = null) => new(name, first, last ?? first);
        var year = new SchoolYear("2024–25", [new("Year", D(2024, 9, 10), D(2025, 7, 31))],
            [
                Off("Unity", D(2024, 10, 3)), Off("Autumn", D(2024, 10, 28), D(2024, 10, 31)), Off("All Saints", D(2024, 11, 1)), Off("Prayer", D(2024, 11, 20)),
                Off("Christmas", D(2024, 12, 23), D(2025, 1, 3)), Off("Epiphany", D(2025, 1, 6)), Off("Spring", D(2025, 3, 3), D(2025, 3, 7)), Off("Easter", D(2025, 4, 14), D(2025, 4, 25)),
                Off("Labour", D(2025, 5, 1)), Off("Ascension", D(2025, 5, 29)), Off("Whit", D(2025, 6, 9)), Off("Whitsun", D(2025, 6, 10), D(2025, 6, 20)),
            ], SchoolYear.MondayToFriday);

        var weeks = SchoolWeeks.Of(year);

        // 47 calendar weeks from 9 Sep to 28 Jul, less autumn (1), Christmas (2), spring (1), Easter (2), Whitsun (2).
        weeks.Count.ShouldBe(39);
        // 6 to 10 January without Epiphany: Tue to Fri, the week after the 15th.
        weeks.First(w => w.Starts == D(2025, 1, 6)).ShouldSatisfyAllConditions(w => w.Days.Count.ShouldBe(4), w => w.Number.ShouldBe(15));
        weeks[^1].Label.ShouldBe((D(2025, 7, 28), D(2025, 7, 31)));
    }

    [Fact]
    public void Effects_tell_every_school_week_that_differs_and_no_other() => Gen.Select(Gen.Int[0, 45], Gen.Int[0, 9]).Sample((from, days) =>
    {
        var after = Calendars.Short with { DaysOff = [.. Calendars.Short.DaysOff, new DayOff("new", Calendars.Day(2026, 9, 7).PlusDays(from), Calendars.Day(2026, 9, 7).PlusDays(from + days))] };
        if (SchoolWeeks.Of(after).Count == 0) return;
        var told = Effects(after).Weeks.Select(w => w.Starts).ToHashSet();
        var before = SchoolWeeks.Of(Calendars.Short).ToDictionary(w => w.Starts, w => (w.Number, w.Label));
        var now = SchoolWeeks.Of(after).ToDictionary(w => w.Starts, w => (w.Number, w.Label));
        foreach (var start in before.Keys.Union(now.Keys))
            told.Contains(start).ShouldBe(!(before.TryGetValue(start, out var b) && now.TryGetValue(start, out var n) && b == n));
    });
}
