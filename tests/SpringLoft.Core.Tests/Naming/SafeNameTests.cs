using System.Globalization;
using System.Text;
using CsCheck;
using SpringLoft.Core.Naming;

namespace SpringLoft.Core.Tests.Naming;

public class SafeNameTests
{
    [Theory]
    [InlineData("Week 03", "Week 03")]
    [InlineData("a/b\\c:d*e?f\"g<h>i|j", "a-b-c-d-e-f-g-h-i-j")]
    [InlineData("  spaces  ", "spaces")]
    [InlineData("dots...", "dots")]
    [InlineData("line\nbreak\ttab", "line break tab")]
    [InlineData(".hidden", ".hidden")]
    [InlineData("essay\u202Efdp.exe", "essayfdp.exe")]
    [InlineData("\u2066left\u2069 \u202Aright\u202C", "left right")]
    // Right-to-left text itself stays as it is.
    [InlineData("\u05E9\u05DC\u05D5\u05DD", "\u05E9\u05DC\u05D5\u05DD")]
    public void Names_become_what_any_computer_can_store(string raw, string safe) => SafeName.Make(raw)!.Name.ShouldBe(safe);

    [Theory]
    [InlineData("")]
    [InlineData("   ")]
    [InlineData("..")]
    [InlineData("///")]
    [InlineData("\u0001\u0002")]
    public void A_name_of_nothing_is_no_name(string raw) => SafeName.Make(raw).ShouldBeNull();

    [Fact]
    public void Both_Unicode_forms_of_a_name_become_the_same() =>
        SafeName.Make("Ru\u0301na")!.Name.ShouldBe(SafeName.Make("R\u00FAna")!.Name);

    [Fact]
    public void Siblings_clash_without_regard_to_case_and_form() =>
        SafeName.Clash("RU\u0301NA", "r\u00FAna").ShouldBeTrue();

    [Fact]
    public void A_long_file_name_keeps_its_extension_within_255_bytes()
    {
        var name = SafeName.Make(new string('å', 300) + ".pdf", keepExtension: true)!;

        name.Name.ShouldEndWith(".pdf");
        Encoding.UTF8.GetByteCount(name.Name).ShouldBeLessThanOrEqualTo(255);
        name.Changes.ShouldContain(c => c.Was == "length");
    }

    [Fact]
    public void A_cut_never_tears_a_letter_from_its_accents_or_a_joined_sign_apart()
    {
        var family = "👩‍👩‍👧";
        var name = SafeName.Make(string.Concat(Enumerable.Repeat(family, 20)))!.Name;

        name.Replace(family, "", StringComparison.Ordinal).ShouldBeEmpty();
    }

    [Fact]
    public void A_lone_surrogate_is_replaced() => SafeName.Make("a\uD800b")!.Name.ShouldBe("a\uFFFDb");

    [Theory]
    [InlineData("report.txt", true, "report (2).txt")]
    [InlineData("Week 1.5", false, "Week 1.5 (2)")]
    public void A_taken_name_gets_a_number_before_its_extension(string name, bool isFile, string expected) =>
        SafeName.Distinct(name, new HashSet<string> { SafeName.Key(name) }, isFile).ShouldBe(expected);

    [Fact]
    public void Whatever_comes_in_what_goes_out_keeps_every_rule() =>
        Gen.String[Gen.OneOf(Gen.Char, Gen.Char["<>:\"/\\|?*. \tCONAUX.txt"]), 0, 400].Sample(raw =>
        {
            if (SafeName.Make(raw, keepExtension: true) is not { } made) return;
            var name = made.Name;
            name.IsNormalized(NormalizationForm.FormC).ShouldBeTrue();
            name.ShouldNotContain(c => char.GetUnicodeCategory(c) == UnicodeCategory.Control || "<>:\"/\\|?*".Contains(c));
            name.ShouldBe(name.Trim());
            name.ShouldNotEndWith(".");
            name.Length.ShouldBeGreaterThan(0);
            Encoding.UTF8.GetByteCount(name).ShouldBeLessThanOrEqualTo(255);
            if (made.Changes.Count == 0) name.ShouldBe(raw.Normalize(NormalizationForm.FormC));
            SafeName.Make(name, keepExtension: true)!.Name.ShouldBe(name);
        });

    [Fact]
    public void Many_siblings_of_one_name_all_differ()
    {
        var taken = new HashSet<string>();
        for (var i = 0; i < 50; i++) taken.Add(SafeName.Key(SafeName.Distinct("scan.pdf", taken, isFile: true))).ShouldBeTrue();
    }
}
