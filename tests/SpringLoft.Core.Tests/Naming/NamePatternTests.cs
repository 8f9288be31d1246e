using System.Text.RegularExpressions;
using CsCheck;
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

    // Said once more, slowly: each part is looked at and filled by itself.
    private static string Slowly(string pattern, Dictionary<string, string?> values)
    {
        var pieces = Regex.Split(pattern, @"( · |, | - | – | \| )");
        var result = "";
        for (var i = 0; i < pieces.Length; i += 2)
        {
            var names = Regex.Matches(pieces[i], @"\{([a-z ]+)\}").Select(m => m.Groups[1].Value).ToList();
            if (names.Count > 0 && names.All(n => string.IsNullOrWhiteSpace(values[n]))) continue;
            result += (result.Length > 0 ? pieces[i - 1] : "") + Regex.Replace(pieces[i], @"\{([a-z ]+)\}", m => values[m.Groups[1].Value]?.Trim() ?? "");
        }
        return Regex.Replace(result, " {2,}", " ").Trim();
    }

    [Fact]
    public void Any_pattern_is_filled_as_it_is_filled_slowly_whatever_was_filled_before()
    {
        string[] all = ["{course}", "{section}", "{period}", "{year}", " ", "  ", " · ", ", ", " - ", " – ", " | ", "period", "Ω", "{", "}", "-"];
        string?[] said = [null, "", "  ", "6B", " 3 ", "{course}", "a · b", "x  y"];
        var bits = Gen.Int[0, all.Length - 1].Select(i => all[i]);
        var value = Gen.Int[0, said.Length - 1].Select(i => said[i]);
        Gen.Select(bits.Array[0, 12].Select(b => string.Concat(b)).Array[1, 4], value.Array[3]).Sample((patterns, v) =>
        {
            var values = new Dictionary<string, string?> { ["course"] = "Clay", ["section"] = v[0], ["period"] = v[1], ["year"] = v[2] };
            // By turns, as two people would: what is kept of one pattern must not be used for the other.
            foreach (var pattern in patterns.Concat(patterns))
            {
                if (Regex.Matches(pattern, @"\{([a-z ]+)\}").All(m => values.ContainsKey(m.Groups[1].Value))) NamePattern.Fill(pattern, values).ShouldBe(Slowly(pattern, values));
                else Should.Throw<RefusedException>(() => NamePattern.Fill(pattern, values)).Refusal.Code.ShouldBe("pattern-unknown-placeholder");
            }
        }, iter: 2000);
    }
}
