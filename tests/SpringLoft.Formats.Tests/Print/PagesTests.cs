using System.Text;
using System.Text.Json;
using SpringLoft.Core.Letters;
using SpringLoft.Formats.Print;

namespace SpringLoft.Formats.Tests.Print;

/// <summary>The pages of take-homes and shelves, read by Python's own HTML parser: what leads where, and that nothing is fetched from elsewhere.</summary>
public class PagesTests
{
    private const string Reader =
        """
        import sys, json, html.parser, urllib.parse
        class R(html.parser.HTMLParser):
            links, tags, text = [], set(), []
            def handle_starttag(self, tag, attrs):
                self.tags.add(tag)
                for k, v in attrs:
                    if k in ("href", "src"): self.links.append(v)
            def handle_data(self, data): self.text.append(data)
        r = R(); r.feed(open(sys.argv[1], encoding="utf-8").read())
        print(json.dumps({"links": [urllib.parse.unquote(l) for l in r.links], "tags": sorted(r.tags), "text": " ".join(r.text)}))
        """;

    private static (List<string> Links, List<string> Tags, string Text) Read(byte[] page)
    {
        using var scratch = new Scratch();
        File.WriteAllBytes(scratch.Under("page.html"), page);
        File.WriteAllText(scratch.Under("read.py"), Reader);
        var (code, said) = Shell.Run(scratch.Path, "/usr/bin/python3", "read.py", "page.html");
        code.ShouldBe(0, said);
        using var json = JsonDocument.Parse(said);
        return ([.. json.RootElement.GetProperty("links").EnumerateArray().Select(l => l.GetString()!)], [.. json.RootElement.GetProperty("tags").EnumerateArray().Select(l => l.GetString()!)], json.RootElement.GetProperty("text").GetString()!);
    }

    private static byte[] TakeHome(string file, string title = "Pinch pot", string comment = "Fine.") => TakeHomePage.Write("Umi Hallgrímsson", "Skerry <Point>", "2026–27", new(2027, 6, 7),
        [new("Clay & Glass", "O. Farquhar", [new(title, "returned", "17.5 of 20", [new("Oisín Farquhar", comment, new(2027, 5, 3, 14, 5))], [new(file, $"Clay & Glass/{title}/{file}")])], [new("sketch.txt", "Clay & Glass/own folder/sketch.txt")])]);

    [Theory]
    [InlineData("pot.txt")]
    [InlineData("100 % fired? #1 & \"more\".txt")]
    [InlineData("陶器のスケッチ.png")]
    [InlineData("رسم.pdf")]
    [InlineData("Żółta łódź – żagiel.odt")]
    [InlineData("🏺🔥.jpg")]
    public void Every_file_is_led_to_whatever_its_name(string file) => Read(TakeHome(file)).Links.ShouldBe([$"Clay & Glass/Pinch pot/{file}", "Clay & Glass/own folder/sketch.txt"]);

    [Fact]
    public void A_name_of_255_bytes_is_led_to()
    {
        var name = string.Concat(Enumerable.Repeat("陶", 83)) + ".txt2";
        Encoding.UTF8.GetByteCount(name).ShouldBeInRange(250, 255);

        Read(TakeHome(name)).Links[0].ShouldEndWith(name);
    }

    [Fact]
    public void What_people_wrote_is_text_and_never_runs()
    {
        var page = Read(TakeHome("a.txt", "<script>alert(1)</script>", "<img src=x onerror=alert(1)>"));

        page.Tags.ShouldNotContain("script");
        page.Tags.ShouldNotContain("img");
        page.Text.ShouldContain("<img src=x onerror=alert(1)>");
        page.Text.ShouldContain("Skerry <Point>");
    }

    [Fact]
    public void A_take_home_opens_without_a_network_and_says_mark_and_comment()
    {
        var bytes = TakeHome("a.txt");
        var page = Read(bytes);

        page.Tags.ShouldNotContain("link");
        page.Links.ShouldAllBe(l => !l.Contains("://"));
        Encoding.UTF8.GetString(bytes).ShouldNotContain("url(");
        foreach (var said in (string[])["Umi Hallgrímsson", "17.5 of 20", "Fine.", "Oisín Farquhar", "7 June 2027"]) page.Text.ShouldContain(said);
    }

    [Fact]
    public void A_take_home_says_what_was_asked_when_it_was_due_and_came_back_and_what_was_handed_in_earlier()
    {
        var work = new PageWork("Pinch pot", "returned", "good (14 of 20): Rim “even”", [], [new("pot.jpg", "Clay/Pinch pot/pot.jpg")])
        {
            Instructions = "Thumbs only.\nNo tools.",
            Due = "due 3 May 2027",
            HandedIn = new(2027, 5, 2, 9, 30),
            Returned = new(2027, 5, 6, 8, 0),
            Earlier = [new("2027-05-01 pot.jpg", "Clay/handed in earlier/2027-05-01 pot.jpg")],
        };
        var page = Read(TakeHomePage.Write("Umi", "School", "2026–27", new(2027, 6, 7), [new("Clay", "O. Farquhar", [work], [])]));

        foreach (var said in (string[])["Thumbs only.", "due 3 May 2027", "handed in 2 May 2027, 09:30", "returned 6 May 2027, 08:00", "good (14 of 20): Rim “even”", "Handed in earlier"]) page.Text.ShouldContain(said);
        page.Links.ShouldBe(["Clay/Pinch pot/pot.jpg", "Clay/handed in earlier/2027-05-01 pot.jpg"]);
    }

    [Theory]
    [InlineData("javascript:alert(1)")]
    [InlineData("data:text/html,x")]
    [InlineData("file:///etc/passwd")]
    [InlineData("mailto:a@example.org")]
    public void An_address_that_is_none_of_the_webs_leads_nowhere(string address)
    {
        var thing = new ClassPageThing(new("Kiln", address, Outside: true), "O. Farquhar", new(2027, 5, 1));
        var page = Read(ClassPage.Write(new("Clay", "School", "2026–27", "O. Farquhar", new(2027, 6, 7), "", [new("Papers", "class views", [thing], [])], [], [], [], [], [], [])));

        page.Links.ShouldNotContain(address);
        page.Links.ShouldAllBe(l => !l.Contains(':'));
    }

    private static readonly ShelfPageThing[] Things = [new("Start here", "glaze & kiln.pdf", null), new("Start here", "Tide gauge", "https://tides.example/?a=1&b=2"), new("", "top.txt", null)];

    [Fact]
    public void A_shelf_leads_to_files_and_sites_under_their_folders()
    {
        var page = Read(ShelfPage.Write(HomeWords.Of("en"), "Clay, to read", "For the summer.", "School", new(2027, 9, 7), Things, t => $"token/{Array.IndexOf(Things, t)}"));

        page.Links.ShouldBe(["token/0", "https://tides.example/?a=1&b=2", "token/2"]);
        page.Text.ShouldContain("Open until Tuesday, 7 September 2027");
        page.Tags.ShouldNotContain("script");
    }

    [Fact]
    public void A_showcase_says_no_day_and_a_shut_shelf_tells_nothing_of_what_it_held()
    {
        Read(ShelfPage.Write(HomeWords.Of("en"), "Showcase", "", "School", null, Things, t => t.Name)).Text.ShouldNotContain("Open until");
        Read(ShelfPage.Shut(HomeWords.Of("en"), "Skerry Point School")).ShouldSatisfyAllConditions(p => p.Links.ShouldBeEmpty(), p => p.Text.ShouldContain("not open"));
    }

    [Fact]
    public void A_shelf_is_in_the_language_that_its_teacher_chose()
    {
        var words = HomeWords.Of("de");
        var page = ShelfPage.Write(words, "Ton", "", "Schule", new(2027, 9, 7), Things, t => t.Name);

        Encoding.UTF8.GetString(page).ShouldContain("<html lang=\"de\">");
        Read(page).Text.ShouldSatisfyAllConditions(t => t.ShouldContain("Offen bis Dienstag, 7. September 2027"), t => t.ShouldContain("Hier"), t => t.ShouldNotContain("Open until"));
        Read(ShelfPage.Thing(words, "Glasur", "# Kobalt", "Schule", ("Ton", "/shelf/x"))).ShouldSatisfyAllConditions(p => p.Links.ShouldBe(["/shelf/x"]), p => p.Text.ShouldContain("Kobalt"), p => p.Text.ShouldContain("Zurück zu „Ton“"));
    }

    [Fact]
    public void A_page_of_text_on_a_shelf_runs_nothing_and_leads_to_the_web_only()
    {
        var page = Read(ShelfPage.Thing(HomeWords.Of("en"), "Glaze", "<script>alert(1)</script> [a](javascript:alert(1)) [b](https://tides.example/) ![c](https://tides.example/p.png)", "School", null));

        page.Tags.ShouldNotContain("script");
        page.Tags.ShouldNotContain("img");
        page.Links.ShouldBe(["https://tides.example/"]);
    }
}
