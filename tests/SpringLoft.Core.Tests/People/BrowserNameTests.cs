using SpringLoft.Core.People;

namespace SpringLoft.Core.Tests.People;

public class BrowserNameTests
{
    // As the browsers send them (MDN, "User-Agent header", its examples by browser; the versions are ours).
    [Theory]
    [InlineData("Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0", "Firefox on Linux")]
    [InlineData("Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36", "Chrome on Windows")]
    [InlineData("Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36 Edg/140.0.0.0", "Edge on Windows")]
    [InlineData("Mozilla/5.0 (X11; CrOS x86_64 14541.0.0) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36", "Chrome on a Chromebook")]
    [InlineData("Mozilla/5.0 (iPad; CPU OS 17_0 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/17.0 Mobile/15E148 Safari/604.1", "Safari on an iPad")]
    [InlineData("Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/17.0 Safari/605.1.15", "Safari on a Mac")]
    [InlineData("Mozilla/5.0 (Linux; Android 14) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Mobile Safari/537.36", "Chrome on Android")]
    [InlineData("curl/8.5.0", "curl/8.5.0")]
    [InlineData("", "a program that does not say its name")]
    [InlineData(null, "a program that does not say its name")]
    public void A_browser_is_named_as_its_owner_knows_it(string? sent, string name) => BrowserName.Of(sent).ShouldBe(name);

    [Fact]
    public void What_is_no_browser_is_cut_and_can_break_no_line() => BrowserName.Of("x\r\n" + new string('y', 500)).ShouldBe("x" + new string('y', 59) + "…");
}
