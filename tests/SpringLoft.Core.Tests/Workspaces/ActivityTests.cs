using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

public class ActivityTests
{
    // Two weeks of school, Monday to Friday.
    private static readonly LocalDate[] Days = [.. Enumerable.Range(0, 12).Select(n => new LocalDate(2027, 5, 24).PlusDays(n)).Where(d => d.DayOfWeek <= IsoDayOfWeek.Friday)];

    private static Dictionary<LocalDate, Did> On(params int[] days) => days.ToDictionary(n => Days[n], _ => Did.OpenedClass);

    [Theory]
    [InlineData(new[] { 9 }, 0, false)]
    [InlineData(new[] { 5 }, 4, false)]
    [InlineData(new[] { 4 }, 5, true)]
    [InlineData(new int[0], 10, true)]
    public void Whoever_did_nothing_for_a_week_of_school_has_gone_quiet(int[] active, int quiet, bool gone)
    {
        Activity.QuietFor(Days, On(active)).ShouldBe(quiet);
        Activity.IsQuiet(Days, On(active), Days[0]).ShouldBe(gone);
    }

    [Fact]
    public void Days_before_they_came_do_not_count_and_of_a_few_days_nobody_knows()
    {
        Activity.IsQuiet(Days, On(), Days[6]).ShouldBeFalse();
        Activity.IsQuiet(Days, On(), Days[5]).ShouldBeTrue();
        Activity.IsQuiet(Days[..4], On(), Days[0]).ShouldBeFalse();
    }
}
