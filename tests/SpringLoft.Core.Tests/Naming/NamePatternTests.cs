using SpringLoft.Core.Naming;

namespace SpringLoft.Core.Tests.Naming;

public class NamePatternTests
{
    private static string Fill(string pattern, string? section = null, string? period = null) =>
        NamePattern.Fill(pattern, new Dictionary<string, string?> { ["course"] = "Clay", ["section"] = section, ["period"] = period, ["year"] = "2026–27" });

    [Fact]
    public void All_placeholders_are_filled() => Fill("{course} {section} · period {period} · {year}", "6B", "3").ShouldBe("Clay 6B · period 3 · 2026–27");

    [Theory]
    [InlineData("{course} {section} · period {period} · {year}", "Clay · 2026–27")]
    [InlineData("period {period}, {course}", "Clay")]
    [InlineData("{course} - {section}", "Clay")]
    [InlineData("{section} | {course}", "Clay")]
    public void A_part_that_hangs_on_an_empty_placeholder_goes_with_its_separator(string pattern, string expected) => Fill(pattern).ShouldBe(expected);

    [Fact]
    public void Blank_counts_as_empty() => Fill("{course} · period {period}", period: "  ").ShouldBe("Clay");

    [Fact]
    public void A_part_without_placeholders_stays() => Fill("Clay room · {course}").ShouldBe("Clay room · Clay");

    [Fact]
    public void An_unknown_placeholder_is_named_and_the_known_ones_are_told()
    {
        var refusal = Should.Throw<RefusedException>(() => Fill("{course} {grade}")).Refusal;

        refusal.Code.ShouldBe("pattern-unknown-placeholder");
        refusal.What.ShouldContain("grade");
        refusal.Mend.ShouldContain("course, period, section, year");
    }
}
