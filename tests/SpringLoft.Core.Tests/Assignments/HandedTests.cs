using System.Text;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Assignments;

public class HandedTests
{
    [Theory]
    [InlineData("glaze.jpg", null, ItemKind.File, "glaze.jpg")]
    [InlineData("My week.md", null, ItemKind.Page, "My week")]
    [InlineData("LOUD.MD", null, ItemKind.Page, "LOUD")]
    [InlineData(".md", null, ItemKind.File, ".md")]
    [InlineData("Tides.html", "https://tides.example/", ItemKind.Link, "Tides")]
    [InlineData("Tides.html", null, ItemKind.File, "Tides.html")]
    [InlineData("notes.md", "https://x.example/", ItemKind.Link, "notes.md")]
    public void What_it_is_and_what_it_is_called(string name, string? url, ItemKind kind, string title) =>
        (Handed.KindOf(name, url), Handed.TitleOf(name, url)).ShouldBe((kind, title));

    [Fact]
    public void A_link_as_a_page_cannot_be_made_to_do_anything()
    {
        var page = Encoding.UTF8.GetString(Handed.LinkPage("</title><script>alert(1)</script>", "https://x.example/?a=\"><img src=x onerror=1>"));
        page.ShouldNotContain("<script");
        page.ShouldNotContain("<img");
        page.ShouldContain("&lt;script&gt;");
    }
}

public class ReceiptTests
{
    private static readonly Instant At = Instant.FromUtc(2027, 6, 7, 12, 30, 15);
    private static readonly ReceiptThing[] Things = [new("glaze.jpg", new('a', 64), 1200), new("My week.md", new('b', 64), 80)];

    [Fact]
    public void The_code_is_the_same_each_time_and_another_one_for_whatever_differs()
    {
        var code = Receipt.CodeOf(7, At, Things);
        code.ShouldMatch("^[0-9A-HJKMNP-TV-Z]{4}-[0-9A-HJKMNP-TV-Z]{4}$");
        Receipt.CodeOf(7, At, [.. Things]).ShouldBe(code);
        string[] others =
        [
            Receipt.CodeOf(8, At, Things), Receipt.CodeOf(7, At + Duration.FromMilliseconds(1), Things), Receipt.CodeOf(7, At, [Things[1], Things[0]]),
            Receipt.CodeOf(7, At, [Things[0]]), Receipt.CodeOf(7, At, [Things[0] with { Name = "glaze.jpeg" }, Things[1]]),
            Receipt.CodeOf(7, At, [Things[0] with { Sha256 = new('c', 64) }, Things[1]]),
        ];
        others.ShouldNotContain(code);
        others.Distinct().Count().ShouldBe(others.Length);
    }

    // SHA-256 of the text "1\n0\n", by coreutils: printf '1\n0\n' | sha256sum; the first five bytes are read as base 32 by hand.
    [Fact]
    public void The_code_is_forty_bits_of_a_published_hash() => Receipt.CodeOf(1, NodaConstants.UnixEpoch, []).ShouldBe("BP8E-YZY0");

    [Fact]
    public void The_text_says_who_what_when_and_how_late()
    {
        var text = Receipt.Text("Skerry Point School", "Clay 9B", "Show piece", "Ana María Ólafsdóttir", new LocalDateTime(2027, 6, 7, 14, 30, 15), "Atlantic/Faroe", Duration.FromMinutes(1565), "7KQ4-M2XD", Things);
        text.Split('\n').ShouldContain("Receipt 7KQ4-M2XD");
        text.ShouldContain("Monday 7 June 2027, 14:30:15 (Atlantic/Faroe)");
        text.ShouldContain("Late by 1 d 2 h 5 min");
        text.ShouldContain($"glaze.jpg\n  1200 bytes, SHA-256 {new string('a', 64)}");
        Receipt.Text("S", "K", "A", "N", new(2027, 6, 7, 14, 30), "UTC", null, "x", Things).ShouldNotContain("Late");
    }
}
