using SpringLoft.Core.Rosters;

namespace SpringLoft.Core.Tests.Rosters;

public class FeedWindowTests
{
    private static readonly FeedWindow Window = new(new(2026, 8, 31), new(2027, 6, 18), 5, true);

    private static LocalDateTime? At(string? text) => text is null ? null : NodaTime.Text.LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd HH:mm").Parse(text).Value;

    [Theory]
    [InlineData("2026-07-01 12:00", null, "2026-08-31 05:00")] // before its first day
    [InlineData("2026-08-31 04:59", null, "2026-08-31 05:00")]
    [InlineData("2026-10-01 09:00", "2026-09-30 05:00", "2026-10-01 05:00")] // missed while the program was down: made up for
    [InlineData("2026-10-01 09:00", "2026-10-01 05:00", "2026-10-02 05:00")]
    [InlineData("2027-06-18 09:00", "2027-06-18 05:01", null)] // its last
    [InlineData("2027-07-10 09:00", null, null)] // between years it is quiet
    public void It_runs_once_a_day_inside_its_dates_and_never_outside(string now, string? last, string? next) => Window.Next(At(now)!.Value, At(last)).ShouldBe(At(next));

    [Fact]
    public void Off_it_does_not_run() => (Window with { IsOn = false }).Next(At("2026-10-01 09:00")!.Value, null).ShouldBeNull();

    [Theory]
    [InlineData("2026-08-31", "2027-06-18", 5, null)]
    [InlineData("2026-08-30", "2027-06-18", 5, "feed-window")]
    [InlineData("2026-08-31", "2027-06-19", 5, "feed-window")]
    [InlineData("2026-12-01", "2026-11-01", 5, "feed-window")]
    [InlineData("2026-08-31", "2027-06-18", 24, "feed-hour")]
    public void Its_dates_lie_inside_the_year(string first, string last, int hour, string? code)
    {
        LocalDate Day(string s) => NodaTime.Text.LocalDatePattern.Iso.Parse(s).Value;
        void Check() => new FeedWindow(Day(first), Day(last), hour, true).Check(new(2026, 8, 31), new(2027, 6, 18));

        if (code is null) Should.NotThrow(Check);
        else Should.Throw<RefusedException>(Check).Refusal.Code.ShouldBe(code);
    }
}
