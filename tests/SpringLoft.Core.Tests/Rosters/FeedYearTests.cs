using SpringLoft.Core.Rosters;

namespace SpringLoft.Core.Tests.Rosters;

public class FeedYearTests
{
    private static FeedYear Year(long id, bool begun) => new(new(id), new((int)id, 8, 31), new((int)id + 1, 6, 18), begun);

    [Theory]
    [InlineData("2026-10-01", "", 2026)] // the one that is now
    [InlineData("2027-06-10", "2027", 2027)] // the next was begun before the old one's last day
    [InlineData("2027-07-10", "", 2027)] // between years
    [InlineData("2027-07-10", "2026 2027", 2027)]
    [InlineData("2028-05-01", "2027", 2027)]
    [InlineData("2030-01-01", "2027", 2028)] // all are over: the last that there is
    [InlineData("2027-06-10", "2026", 2026)] // the next is laid down, not begun
    public void The_newest_that_was_begun_is_offered_else_the_one_that_is_now_else_the_next(string today, string begun, long offered)
    {
        var years = new long[] { 2025, 2026, 2027, 2028 }.Select(y => Year(y, begun.Contains($"{y}", StringComparison.Ordinal))).ToList();

        FeedYear.Offered(years, NodaTime.Text.LocalDatePattern.Iso.Parse(today).Value).ShouldBe(new YearId(offered));
        FeedYear.Offered([], new(2027, 1, 1)).ShouldBeNull();
    }

    [Theory]
    [InlineData("2027-06-18", true)]
    [InlineData("2027-08-30", true)]
    [InlineData("2027-08-31", false)] // touches the year: held, or taken
    [InlineData(null, false)] // it does not say
    public void What_ends_before_the_year_is_of_the_past(string? last, bool past)
    {
        LocalDate? day = last is null ? null : NodaTime.Text.LocalDatePattern.Iso.Parse(last).Value;

        FeedYear.IsPast(new([], [], [], null, null, null, day is null ? null : new(2026, 8, 31), day), new(2027, 8, 31)).ShouldBe(past);
    }
}
