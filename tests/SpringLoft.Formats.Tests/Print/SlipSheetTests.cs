using System.Diagnostics;
using System.Text;
using SpringLoft.Formats.Print;

namespace SpringLoft.Formats.Tests.Print;

/// <summary>Slips as PDF, read back by <c>pdftotext</c> and <c>pdfinfo</c> (Debian's poppler-utils).</summary>
public class SlipSheetTests
{
    private static readonly PrintedSlip[] Nine = [.. Enumerable.Range(1, 7).Select(i => new PrintedSlip($"Noor {i}", "6", $"noor{i}", $"melon-lemon-paper-5{i}")),
        new("Żemaitė Guðmundsdóttir-Ó Flaithearta van der Wal Łukasik-Hrafnkelsson", "6", "zg", "kite-otter-plum-18"), new("潮 美海", null, "chao", "linen-oak-raven-19")];

    private static (string Text, string Info) Read(Paper paper, bool letters)
    {
        using var scratch = new Scratch();
        var path = scratch.Under("slips.pdf");
        using (var to = File.Create(path)) SlipSheet.Write(to, Nine, "Skerry Point School", "https://loft.school.example", paper, letters);
        return (Said("pdftotext", "-layout", path, "-"), Said("pdfinfo", path));
    }

    private static string Said(string program, params string[] args)
    {
        using var p = Process.Start(new ProcessStartInfo(program, args) { RedirectStandardOutput = true })!;
        var text = p.StandardOutput.ReadToEnd();
        p.WaitForExit();
        p.ExitCode.ShouldBe(0);
        return text;
    }

    [Theory]
    [InlineData(Paper.A4, "595", "842")] // ISO 216: 210 × 297 mm
    [InlineData(Paper.Letter, "612", "792")] // ANSI/ASME Y14.1: 8.5 × 11 in
    public void Eight_stand_on_a_page_of_the_paper_and_each_says_all(Paper paper, string width, string height)
    {
        var (text, info) = Read(paper, false);

        info.ShouldMatch(@"Pages:\s+2");
        info.ShouldMatch($@"Page size:\s+{width}(\.\d+)? x {height}");
        foreach (var s in Nine[..8]) text.ShouldSatisfyAllConditions(t => t.ShouldContain(s.Name), t => t.ShouldContain(s.UserName), t => t.ShouldContain(s.Password));
        text.Split("https://loft.school.example").Length.ShouldBe(10);
        text.Split('\f')[0].Split("First password").Length.ShouldBe(9);
    }

    [Fact]
    public void A_letter_each_is_a_page_each() => Read(Paper.A4, true).ShouldSatisfyAllConditions(r => r.Info.ShouldMatch(@"Pages:\s+9"), r => r.Text.Split('\f')[3].ShouldContain("noor4"));

    // What pdftotext reads back is what stands on paper; Arabic letters come back in their forms, which are compatible with the letters.
    [Theory]
    [InlineData("潮 美海")]
    [InlineData("たかはし ユイ")]
    [InlineData("김서연")]
    [InlineData("ნინო ბერიძე")]
    [InlineData("Łukasik Ólafsdóttir Ψυχή Ж")]
    [InlineData("Nguyễn Thị Hạnh")]
    [InlineData("נועה לוי")]
    [InlineData("ليلى الأحمد")]
    [InlineData("پگاه چمنی")]
    public void A_name_is_printed_in_its_own_letters(string name)
    {
        using var scratch = new Scratch();
        var path = scratch.Under("slip.pdf");
        using (var to = File.Create(path)) SlipSheet.Write(to, [new(name, null, "user", "linen-oak-raven-19")], "School", "https://loft.school.example", Paper.A4, letters: true);

        var back = Said("pdftotext", path, "-").Normalize(NormalizationForm.FormKC);

        string Letters(string text) => string.Concat(text.Normalize(NormalizationForm.FormKC).Where(char.IsLetter).Order());
        back.Split('\n').Select(Letters).ShouldContain(Letters(name));
        Said("pdffonts", path).Split('\n').Skip(2).Where(l => l.Length > 0).ShouldAllBe(l => l.Contains(" yes yes "), "each typeface is embedded and cut down to its letters");
    }

    [Fact]
    public void Of_a_name_in_letters_that_no_typeface_here_has_the_transliteration_is_printed()
    {
        SlipSheet.Printable("आरव शर्मा").ShouldAllBe(c => c < 128);
        SlipSheet.Printable("潮 美海").ShouldBe("潮 美海");
    }

    // By hand, from the joining classes of The Unicode Standard, section 9.2, and its charts FB50 and FE70 (from memory).
    [Theory]
    [InlineData("باب", "\uFE8F\uFE8E\uFE91")] // beh initial, alef final, beh isolated, turned round
    [InlineData("محمد", "\uFEAA\uFEE4\uFEA4\uFEE3")] // meem initial, hah medial, meem medial, dal final
    [InlineData("دار", "\uFEAD\uFE8D\uFEA9")] // none joins the next
    [InlineData("سلام", "\uFEE1\uFEFC\uFEB3")] // seen initial, lam-alef final, meem isolated
    [InlineData("لا", "\uFEFB")]
    [InlineData("Ana לוי", "Ana \u05D9\u05D5\u05DC")]
    [InlineData("לוי-כהן Ana", "\u05DF\u05D4\u05DB-\u05D9\u05D5\u05DC Ana")]
    public void What_is_written_from_the_right_is_joined_and_turned_round(string name, string onPaper) =>
        string.Concat(PrintedText.Runs(name).Select(r => r.Text)).ShouldBe(onPaper);
}
