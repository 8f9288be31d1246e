using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

public class ThreeWayTests
{
    [Theory]
    [InlineData("a", "a", "a", "a", false)]
    [InlineData("a", "a", "b", "b", false)]
    [InlineData("a", "b", "a", "b", false)]
    [InlineData("a", "b", "b", "b", false)]
    [InlineData("a", "b", "c", "b", true)]
    [InlineData(null, "b", null, "b", false)]
    [InlineData("a", null, "c", null, true)]
    public void Each_part_is_decided_by_itself(string? was, string? mine, string? now, string? value, bool both) => ThreeWay.Decide(was, mine, now).ShouldBe((value, both));
}
