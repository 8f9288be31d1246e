using System.Text;
using SpringLoft.Formats.Print;

namespace SpringLoft.Formats.Tests.Print;

/// <summary>Pages for homes: what people wrote in it can do nothing, and stays what it says.</summary>
public class HomePageTests
{
    // Source: the examples of the CommonMark specification 0.31.2 that these follow.
    [Theory]
    [InlineData("*foo* and **bar**", "<p><em>foo</em> and <strong>bar</strong></p>\n")]
    [InlineData("# foo", "<h1>foo</h1>\n")]
    [InlineData("- a\n- b", "<ul>\n<li>a</li>\n<li>b</li>\n</ul>\n")]
    [InlineData("[link](https://a.example/b)", "<p><a href=\"https://a.example/b\" rel=\"noopener noreferrer\">link</a></p>\n")]
    public void Formatted_text_reads_as_it_was_written(string text, string html) => HomePage.Html(text, lines: false).ShouldBe(html);

    [Theory]
    [InlineData("<script>alert(1)</script>")]
    [InlineData("<img src=x onerror=alert(1)>")]
    [InlineData("[x](javascript:alert(1))")]
    [InlineData("[x](data:text/html,<script>alert(1)</script>)")]
    [InlineData("![x](https://spy.example/pixel.png)")]
    [InlineData("<javascript:alert(1)>")]
    [InlineData("[x]: javascript:alert(1)\n\n[x]")]
    [InlineData("[x](\"onmouseover=alert(1) https://a.example)")]
    [InlineData("[![x](https://spy.example/a.png)](javascript:alert(1))")]
    public void Nothing_in_it_runs_or_is_fetched(string text)
    {
        var html = HomePage.Html(text, lines: true);
        foreach (var bad in new[] { "<script", "<img", "href=\"javascript", "href=\"data" }) html.ShouldNotContain(bad, Case.Insensitive);
    }

    [Theory]
    [InlineData("> ")]
    [InlineData("[")]
    [InlineData("![")]
    [InlineData("- ")]
    [InlineData("*a ")]
    [InlineData("`")]
    public void A_page_of_nothing_but_marks_is_a_page(string mark) => HomePage.Html(string.Concat(Enumerable.Repeat(mark, 100_000 / mark.Length)), lines: false).ShouldNotBeNull();

    [Fact]
    public void A_new_line_stays_one_in_a_notice_and_not_in_a_page()
    {
        HomePage.Html("a\nb", lines: true).ShouldBe("<p>a<br />\nb</p>\n");
        HomePage.Html("a\nb", lines: false).ShouldBe("<p>a\nb</p>\n");
    }

    [Fact]
    public void Names_and_titles_are_text()
    {
        var page = Encoding.UTF8.GetString(HomePage.Write("en", "A & <b>", "T<i>", ["\"p\""], null, [("/home/x/file", "<open>")], new("name", "Your \"name\"", "Read", "<bad>"), null));
        page.ShouldContain("<h1>T&lt;i&gt;</h1>");
        page.ShouldContain("A &amp; &lt;b&gt;");
        page.ShouldContain("&lt;bad&gt;");
        page.ShouldContain("method=\"post\"");
        page.ShouldNotContain("<script");
    }

    [Fact]
    public void A_paper_for_each_home_four_to_a_page()
    {
        using var pdf = new MemoryStream();
        HomeSheet.Write(pdf, [.. Enumerable.Range(1, 5).Select(n => new PrintedHome($"Umi {n} Hallgrímsson", "6", "CDFG-HJKM-NPQR", "https://loft.example/home/CDFG-HJKM-NPQR"))], "Tiny", "Clay 6B", "Syllabus", "By Friday.", "https://loft.example/home", Paper.A4);
        pdf.Position = 0;
        using var read = PdfSharp.Pdf.IO.PdfReader.Open(pdf, PdfSharp.Pdf.IO.PdfDocumentOpenMode.Import);
        read.PageCount.ShouldBe(2);
    }
}
