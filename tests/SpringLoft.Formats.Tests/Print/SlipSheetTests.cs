using System.Diagnostics;
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

    [Fact]
    public void Of_a_name_in_letters_that_the_typeface_lacks_the_transliteration_is_printed()
    {
        Read(Paper.A4, false).Text.ShouldContain(SlipSheet.Printable("潮 美海"));
        SlipSheet.Printable("潮 美海").ShouldAllBe(c => c < 128);
        SlipSheet.Printable("Łukasik Ólafsdóttir Ψυχή").ShouldBe("Łukasik Ólafsdóttir Ψυχή");
    }
}
