using AngleSharp.Html.Parser;
using CsCheck;
using SpringLoft.Formats.Print;
using SpringLoft.Formats.Words;

namespace SpringLoft.Formats.Tests.Words;

public class HtmlAsTextTests
{
    [Theory]
    [InlineData("<h2>Kiln  rules</h2><p>Wear <b>gloves</b> and <i>goggles</i>.</p>", "## Kiln rules\n\nWear **gloves** and *goggles*.\n")]
    [InlineData("<ul><li>clay<li>glaze<ul><li>blue</li></ul></li></ul><p>Then fire.</p>", "- clay\n- glaze\n    - blue\n\nThen fire.\n")]
    [InlineData("<ol><li>wedge</li><li>roll</li></ol>", "1. wedge\n2. roll\n")]
    [InlineData("<p>See <a href='https://quay.example/a b'>the quay</a>, not <a href='javascript:alert(1)'>this</a>.</p>", "See [the quay](<https://quay.example/a%20b>), not this.\n")]
    [InlineData("<blockquote><p>Slowly.</p><p>Always.</p></blockquote>", "> Slowly.\n>\n> Always.\n")]
    [InlineData("<p>one<br>two</p><hr><pre>a\n  b</pre>", "one  \ntwo\n\n---\n\n```\na\n  b\n```\n")]
    [InlineData("<p>2 * 3 _ x [y] &lt;b&gt;</p>", "2 \\* 3 \\_ x \\[y\\] \\<b\\>\n")]
    [InlineData("<p>a<b> b </b>c</p>", "a **b** c\n")]
    [InlineData("<script>ran()</script><style>p{}</style><p onclick=ran()>Seen <img src=x alt='a pot' onerror=ran()></p><iframe src=x>in</iframe>", "Seen a pot\n")]
    public void A_page_comes_as_text(string html, string text) => HtmlAsText.Of(html).Text.ShouldBe(text);

    [Fact]
    public void Its_title_is_known() => HtmlAsText.Of("<html><head><title> Kiln\n rules </title></head><body><p>x</p></body></html>").ShouldBe(("Kiln rules", "x\n"));

    private static Gen<string> One(params string[] all) => Gen.Int[0, all.Length - 1].Select(i => all[i]);

    // AngleSharp reads both the page and what CommonMark makes of its text: no letter is lost, whatever was left open, and no element acts. Where a link is left open its address may be read beside its words.
    [Fact]
    public void No_letter_is_lost_and_nothing_in_it_acts() =>
        Gen.Select(One("p", "b", "i", "li", "ul", "ol", "h1", "h3", "div", "blockquote", "a", "br", "pre", "td", "tr", "table", "script", "x-own"), One("<{0}>", "</{0}>", "<{0} href='https://x.example/'>", "<{0} href='javascript:x()' onclick=x()>"),
            One("clay", " ", "a*b", "_c_", "<", "1. ", "# ", "- d", "`e`", "[f](g)", "&amp;", "\n", "ö𝔘", "~~h~~", "> ")).Array[0, 25].Sample(parts =>
        {
            var html = string.Concat(parts.Select(p => string.Format(System.Globalization.CultureInfo.InvariantCulture, p.Item2, p.Item1) + p.Item3)).Replace("script", "em", StringComparison.Ordinal);
            var page = new HtmlParser().ParseDocument($"<body>{html}");
            var made = new HtmlParser().ParseDocument($"<body>{HomePage.Html(HtmlAsText.Of($"<body>{html}").Text, lines: false)}");
            static Dictionary<char, int> Letters(string? s) => (s ?? "").Where(char.IsLetter).CountBy(x => x).ToDictionary();
            var kept = Letters(made.Body!.TextContent);
            Letters(page.Body!.TextContent).ShouldAllBe(x => kept.GetValueOrDefault(x.Key) >= x.Value);
            made.QuerySelectorAll("script, [onclick], [href^=javascript]").Length.ShouldBe(0);
        });

    [Fact]
    public void A_page_that_nests_without_end_is_read() => HtmlAsText.Of(string.Concat(Enumerable.Repeat("<ul><li><blockquote><b>", 50_000)) + "deep").Text.ShouldContain("deep");
}
