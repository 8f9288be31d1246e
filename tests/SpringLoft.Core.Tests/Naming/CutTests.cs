using SpringLoft.Core.Naming;

namespace SpringLoft.Core.Tests.Naming;

public class CutTests
{
    [Theory]
    [InlineData("kiln", 0, 2, "ki")]
    [InlineData("kiln", 1, 9, "iln")]
    [InlineData("kiln", 4, 3, "")]
    [InlineData("", 0, 3, "")]
    [InlineData("a🏺b", 0, 2, "a")] // not half of it
    [InlineData("a🏺b", 0, 3, "a🏺")]
    [InlineData("a🏺b", 2, 3, "b")]
    [InlineData("🏺", 0, 1, "")]
    public void A_sign_is_there_whole_or_not_at_all(string text, int start, int most, string part) => Cut.Whole(text, start, most).ShouldBe(part);
}
