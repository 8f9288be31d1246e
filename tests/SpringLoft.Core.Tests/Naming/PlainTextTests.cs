using SpringLoft.Core.Naming;

namespace SpringLoft.Core.Tests.Naming;

public class PlainTextTests
{
    [Theory]
    [InlineData("Umi\r\nHallgrímsson", "Umi Hallgrímsson")]
    [InlineData("a\u2028b\u0000c", "a b c")]
    [InlineData("\u202Eevil\u202C \u2067x\u2069", "evil x")]
    // A name in Hebrew or Arabic turns by itself, and joiners belong to scripts and to emoji.
    [InlineData("\u05D3\u05DF \u05DC\u05D5\u05D9", "\u05D3\u05DF \u05DC\u05D5\u05D9")]
    [InlineData("\u06A9\u200C\u0627", "\u06A9\u200C\u0627")]
    public void A_name_is_one_line_that_reads_as_it_is_written(string typed, string name) => PlainText.Name(typed).ShouldBe(name);

    [Fact]
    public void Longer_text_keeps_its_lines() => PlainText.WithoutTurns("one\n\u202Atwo").ShouldBe("one\ntwo");
}
