using CsCheck;
using SpringLoft.Core.Rollover;
using SpringLoft.Core.Years;

namespace SpringLoft.Core.Tests.Rollover;

/// <summary>
/// Moving a date to another school year: docs/rules.md, "School weeks". The calendars are worked by hand: each comment
/// gives the week that a paper calendar shows.
/// </summary>
public class DateMoveTests
{
    // 2026: Mon 31 Aug is the first day. Autumn break Mon 26 – Fri 30 Oct. Weeks: 1 = 31 Aug, 8 = 19 Oct, (26 Oct none), 9 = 2 Nov.
    private static readonly SchoolYear Old = Year("2026–27", [("Autumn", new(2026, 8, 31), new(2026, 12, 18)), ("Spring", new(2027, 1, 11), new(2027, 6, 18))], [("Autumn break", new(2026, 10, 26), new(2026, 10, 30))]);

    // 2027: Mon 30 Aug is the first day. Autumn break Mon 18 – Fri 22 Oct. Wed 17 Nov is off. Weeks: 1 = 30 Aug, 7 = 11 Oct, (18 Oct none), 8 = 25 Oct, 9 = 1 Nov, 11 = 15 Nov.
    private static readonly SchoolYear New = Year("2027–28", [("Autumn", new(2027, 8, 30), new(2027, 12, 17)), ("Spring", new(2028, 1, 10), new(2028, 6, 16))], [("Autumn break", new(2027, 10, 18), new(2027, 10, 22)), ("Harbour day", new(2027, 11, 17), new(2027, 11, 17))]);

    private static SchoolYear Year(string label, (string, LocalDate, LocalDate)[] terms, (string, LocalDate, LocalDate)[] off, WeekNumbering numbering = WeekNumbering.Through) =>
        new(label, [.. terms.Select(t => new Term(t.Item1, t.Item2, t.Item3))], [.. off.Select(d => new DayOff(d.Item1, d.Item2, d.Item3))], SchoolYear.MondayToFriday, Numbering: numbering);

    private static MovedDate Move(int y, int m, int d) => new DateMove(Old, New).Move(new(y, m, d));

    [Theory]
    [InlineData(2026, 9, 2, 2027, 9, 1)] // week 1, Wednesday
    [InlineData(2026, 10, 23, 2027, 10, 29)] // week 8, Friday: the break lies elsewhere
    [InlineData(2026, 11, 3, 2027, 11, 2)] // week 9, Tuesday
    public void The_number_of_the_week_and_the_weekday_stay(int y, int m, int d, int ny, int nm, int nd) =>
        Move(y, m, d).ShouldSatisfyAllConditions(x => x.Will.ShouldBe(new LocalDate(ny, nm, nd)), x => x.Flagged.ShouldBeFalse());

    [Fact]
    public void A_day_that_is_off_gives_way_to_the_next_school_day_of_the_week() // week 11, Wednesday 18 Nov 2026 → Wed 17 Nov 2027 is Harbour day → Thu 18
        => Move(2026, 11, 18).ShouldSatisfyAllConditions(x => x.Will.ShouldBe(new LocalDate(2027, 11, 18)), x => x.Why.ShouldContain("Harbour day"), x => x.Flagged.ShouldBeTrue());

    [Fact]
    public void Without_a_later_day_in_the_week_it_is_the_one_before() // the last day of the year is a Friday there, a Wednesday here
    {
        var shortWeek = New with { DaysOff = [.. New.DaysOff, new("Fair", new(2027, 11, 18), new(2027, 11, 19))] };

        new DateMove(Old, shortWeek).Move(new(2026, 11, 20)).Will.ShouldBe(new LocalDate(2027, 11, 16));
    }

    [Fact]
    public void A_shorter_year_takes_what_is_beyond_it_in_its_last_week()
    {
        var brief = Year("2027–28", [("Autumn", new(2027, 8, 30), new(2027, 9, 17))], []);

        new DateMove(Old, brief).Move(new(2027, 6, 1)).ShouldSatisfyAllConditions(x => x.Will.ShouldBe(new LocalDate(2027, 9, 14)), x => x.Flagged.ShouldBeTrue(), x => x.Why.ShouldContain("no such week"));
    }

    [Fact]
    public void A_date_in_the_holidays_hangs_on_the_week_before_and_is_flagged() // Wed 28 Oct 2026 lies in the break; week 8 is before it
        => Move(2026, 10, 28).ShouldSatisfyAllConditions(x => x.Will.ShouldBe(new LocalDate(2027, 10, 27)), x => x.Flagged.ShouldBeTrue());

    [Fact]
    public void Weeks_that_begin_anew_in_each_term_are_found_in_their_term() // week 2 of Spring: Tue 19 Jan 2027 → Tue 18 Jan 2028
    {
        var (a, b) = (Old with { Numbering = WeekNumbering.PerTerm }, New with { Numbering = WeekNumbering.PerTerm });

        new DateMove(a, b).Move(new(2027, 1, 19)).ShouldSatisfyAllConditions(x => x.Will.ShouldBe(new LocalDate(2028, 1, 18)), x => x.Why.ShouldContain("2 of Spring"));
    }

    [Fact]
    public void A_year_without_a_school_day_has_nowhere_to_move_to() => Should.Throw<ArgumentException>(() => new DateMove(Old, New with { SchoolWeekdays = new HashSet<IsoDayOfWeek>() }));

    [Fact]
    public void Wherever_a_date_goes_there_is_school_and_without_a_flag_number_and_weekday_are_the_same()
    {
        var move = new DateMove(Old, New);
        var (was, will) = (SchoolWeeks.Of(Old), SchoolWeeks.Of(New));
        Gen.Int[0, 330].Sample(n =>
        {
            var m = move.Move(Old.First.PlusDays(n - 10));
            SchoolWeeks.IsSchoolDay(New, m.Will).ShouldBeTrue();
            if (m.Flagged) return;
            m.Will.DayOfWeek.ShouldBe(m.Was.DayOfWeek);
            will.Single(w => w.Days.Contains(m.Will)).Ordinal.ShouldBe(was.Single(w => w.Starts <= m.Was && m.Was < w.Starts.PlusWeeks(1)).Ordinal);
        }, iter: 500);
    }

    [Fact]
    public void There_and_back_again_is_the_same_date_where_nothing_gave_way() =>
        Gen.Int[0, 280].Sample(n =>
        {
            var there = new DateMove(Old, New).Move(Old.First.PlusDays(n));
            if (!there.Flagged && SchoolWeeks.IsSchoolDay(Old, there.Was)) new DateMove(New, Old).Move(there.Will).Will.ShouldBe(there.Was);
        }, iter: 300);
}
