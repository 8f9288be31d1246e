using System.Diagnostics;
using SpringLoft.Formats.Print;

namespace SpringLoft.Formats.Tests.Print;

/// <summary>Lists as PDF, read back by <c>pdftotext</c> and <c>pdfinfo</c> (Debian's poppler-utils).</summary>
public class ListSheetTests
{
    private static (string Text, string Info) Read(Paper paper, params PrintedList[] lists)
    {
        using var scratch = new Scratch();
        var path = scratch.Under("lists.pdf");
        using (var to = File.Create(path)) ListSheet.Write(to, "Lists", lists, paper, 11);
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

    private static string Words(string text) => string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));

    [Theory]
    [InlineData(Paper.A4, "595", "842")] // ISO 216: 210 × 297 mm
    [InlineData(Paper.Letter, "612", "792")] // ANSI/ASME Y14.1: 8.5 × 11 in
    public void Each_list_begins_a_page_of_the_paper(Paper paper, string width, string height)
    {
        var (text, info) = Read(paper, new("Skerry Point", "Umi Tanaka", "As of today", [new("To hand in", [new("Coil pot · due Monday"), new("inside", 1)]), new("Left out", []), new("Came back", [], "Nothing.")]), new("Skerry Point", "潮 美海", "", []));

        info.ShouldMatch(@"Pages:\s+2");
        info.ShouldMatch($@"Page size:\s+{width}(\.\d+)? x {height}");
        Words(text.Split('\f')[0]).ShouldBe("Skerry Point Umi Tanaka As of today To hand in Coil pot · due Monday inside Came back Nothing.");
        text.Split('\f')[1].ShouldContain("潮 美海");
    }

    [Fact]
    public void Long_lines_are_wrapped_and_what_does_not_fit_goes_on_under_the_same_name_with_no_word_lost()
    {
        var lines = Enumerable.Range(1, 90).Select(i => new PrintedLine($"line{i} " + string.Join(' ', Enumerable.Range(1, 25).Select(n => $"w{i}x{n}")))).ToList();
        var (text, info) = Read(Paper.A4, new PrintedList("", "Umi Tanaka", "", [new("To hand in", [.. lines, new(new string('q', 400))])]));

        info.ShouldMatch(@"Pages:\s+[3-9]");
        var pages = text.Split('\f', StringSplitOptions.RemoveEmptyEntries);
        pages.ShouldAllBe(p => p.Contains("Umi Tanaka"));
        Words(text.Replace("Umi Tanaka", "", StringComparison.Ordinal).Replace("To hand in", "", StringComparison.Ordinal)).Replace(" ", "", StringComparison.Ordinal)
            .ShouldBe(string.Concat(lines.Select(l => l.Text)).Replace(" ", "", StringComparison.Ordinal) + new string('q', 400));
        // Nothing runs over the edge: 80 of these letters never fit on a line.
        text.Split('\n').Max(l => l.Trim().Length).ShouldBeLessThan(110);
    }
}
