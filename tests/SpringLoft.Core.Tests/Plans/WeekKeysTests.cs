using SpringLoft.Core.Plans;
using SpringLoft.Core.Years;

namespace SpringLoft.Core.Tests.Plans;

public class WeekKeysTests
{
    // Weeks 1, 2, 3, 4, 5; without the second one, weeks 3 to 5 become 2 to 4.
    private static readonly SchoolYear Without = Calendars.Short with { DaysOff = [.. Calendars.Short.DaysOff, new("Ferry week", Calendars.Day(2026, 9, 14), Calendars.Day(2026, 9, 18))] };

    private static string Move(string key) => new WeekKeys(Calendars.Short, Without).Move(FolderKey.Parse(key)).Text;

    [Theory]
    [InlineData("weeks/week:w1", "weeks/week:w1")]
    [InlineData("weeks/week:w3", "weeks/week:w2")]
    [InlineData("week:w4/day:w4-1", "week:w3/day:w3-1")]
    [InlineData("week:w5/day:w5-2/papers", "week:w4/day:w4-2/papers")]
    [InlineData("week:w2/day:w2-4", "week:x20260914/day:x20260914-4")]
    public void A_folder_stays_with_its_week_whatever_that_is_numbered_now(string key, string moved) => Move(key).ShouldBe(moved);

    [Theory]
    [InlineData("papers")]
    [InlineData("unit:ew3")]
    [InlineData("unit:ew3 things/l2")]
    [InlineData("half:tw3")]
    [InlineData("own/own-each:s17")]
    public void A_key_without_a_week_stays(string key) => Move(key).ShouldBe(key);

    [Fact]
    public void A_week_that_comes_back_finds_its_folders_again()
    {
        var back = new WeekKeys(Without, Calendars.Short);

        foreach (var key in new[] { "week:w1", "week:w2", "week:w3/day:w3-1", "week:w5" }) back.Move(FolderKey.Parse(Move(key))).Text.ShouldBe(key);
    }
}
