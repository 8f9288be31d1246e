using System.Net;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Hosting;

namespace SpringLoft.Server.Tests.Workspaces;

/// <summary>What families open without an account: by a code, of one thing, for one student.</summary>
public sealed class AtHomePagesTests(ServerAndSchool at) : IClassFixture<ServerAndSchool>
{
    private async Task<(string Code, long Asking)> Paper()
    {
        var school = at.School;
        var item = await school.Items.AddPage(school.Lead, school.Class, school.FolderNamed("Papers"), $"Kiln & rules {Guid.NewGuid():N}", "Never **open** it hot.\n\n<script>alert(1)</script>", CancellationToken.None);
        var asks = new Acknowledgements(school.Premises);
        asks.Ask(school.Lead, school.Class, item, new(AskedOf.Home, null));
        var asking = asks.Of(school.Lead, school.Class).Single(a => a.Item == item).Id;
        return (asks.Papers(school.Lead, school.Class, asking).Papers.Single(p => p.Person == school.Umi.Id).Code, asking);
    }

    private static FormUrlEncodedContent Form(string name, string value) => new([new(name, value)]);

    [Fact]
    public async Task Somebody_at_home_reads_it_and_says_so()
    {
        var (code, asking) = await Paper();
        using var home = at.Server.Nobody();
        var typed = await home.PostAsync("/home", Form("code", code.ToLowerInvariant().Replace("-", " ", StringComparison.Ordinal)));
        (typed.Headers.Location?.ToString() ?? typed.RequestMessage!.RequestUri!.AbsolutePath).ShouldBe($"/home/{code}", "however it was typed");

        var page = await home.GetAsync($"/home/{code}");
        var text = await page.Content.ReadAsStringAsync();
        text.ShouldContain("Never <strong>open</strong> it hot.");
        text.ShouldContain("Kiln &amp; rules");
        text.ShouldNotContain("<script");
        text.ShouldNotContain("Hallgrímsson", Case.Insensitive, "the given name is enough");
        page.Headers.CacheControl!.NoStore.ShouldBeTrue();
        page.Headers.GetValues("X-Robots-Tag").ShouldBe(["noindex"]);

        (await home.PostAsync($"/home/{code}", Form("name", " "))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        await home.PostAsync($"/home/{code}", Form("name", "H. <b>"));
        (await home.GetStringAsync($"/home/{code}")).ShouldContain("H. &lt;b&gt; acknowledged this");
        new Acknowledgements(at.School.Premises).See(at.School.Lead, at.School.Class, asking).Rows.Single(r => r.Person == at.School.Umi.Id).HomeName.ShouldBe("H. <b>");
    }

    [Fact]
    public async Task It_is_read_in_the_language_that_the_browser_asks_for()
    {
        var (code, _) = await Paper();
        using var home = at.Server.Nobody();
        home.DefaultRequestHeaders.Add("Accept-Language", "de-CH,de;q=0.9");
        var text = await home.GetStringAsync($"/home/{code}");
        text.ShouldContain("<html lang=\"de\">");
        text.ShouldContain("Für die Familie von Umi");
        (await home.GetStringAsync($"/home/{code}?in=fr")).ShouldContain("Pour la famille de Umi");
    }

    [Theory]
    [InlineData("/home/CDFG-HJKM-NPQR")]
    [InlineData("/home/x")]
    [InlineData("/home/a%2fb")]
    public async Task A_code_that_is_none_opens_nothing_and_says_what_to_do(string address)
    {
        using var home = at.Server.Nobody();
        var page = await home.GetAsync(address);
        page.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await page.Content.ReadAsStringAsync()).ShouldContain("Look at it once more");
        (await home.PostAsync(address, Form("name", "me"))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await home.GetAsync($"{address}/file")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Theory]
    [InlineData("name=me", "text/plain")]
    [InlineData("name=%zz%00", "application/x-www-form-urlencoded")]
    [InlineData("--x", "multipart/form-data; boundary=x")]
    public async Task What_is_no_form_is_as_if_nothing_had_been_typed(string body, string type)
    {
        var (code, asking) = await Paper();
        using var home = at.Server.Nobody();
        HttpContent Body() => new StringContent(body, System.Net.Http.Headers.MediaTypeHeaderValue.Parse(type));
        (await home.PostAsync($"/home/{code}", Body())).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        ((int)(await home.PostAsync("/home", Body())).StatusCode).ShouldBeLessThan(500);
        new Acknowledgements(at.School.Premises).See(at.School.Lead, at.School.Class, asking).Line.Done.ShouldBe(0);
    }

    [Fact]
    public async Task What_a_mail_program_fetches_ahead_stops_no_letters_a_button_does()
    {
        var contact = new App.Letters.Families(at.School.Premises).Add(at.School.Coordinator, new("Mo & Co", "mo@home.example", "fr", [at.School.Umi.Id]));
        const string code = "CDFG-HJKM-NPQR-TVWX-CDFG-HJKM";
        at.School.Premises.Db.Write(c => Store.Letters.FamilyStore.SetStopCode(c, contact, code));
        bool Stopped() => at.School.Read(c => Store.Letters.FamilyStore.Find(c, contact))!.StoppedAt is not null;
        using var home = at.Server.Nobody();
        var page = await home.GetAsync($"/letters/stop/{code}");
        (await page.Content.ReadAsStringAsync()).ShouldContain("Ne plus recevoir les lettres");
        page.Headers.CacheControl!.NoStore.ShouldBeTrue();
        await home.PostAsync($"/letters/stop/{code}", Form("stopped", "maybe"));
        Stopped().ShouldBeFalse();
        await home.PostAsync($"/letters/stop/{code}", Form("stopped", "yes"));
        Stopped().ShouldBeTrue();
        var wrong = await home.GetAsync("/letters/stop/CDFG-HJKM-NPQR-TVWX-CDFG-HJKK");
        wrong.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await wrong.Content.ReadAsStringAsync()).ShouldContain("leads to no letter any more");
    }

    [Fact]
    public void The_code_is_in_no_line_of_the_log()
    {
        LoggedPath.Of("/home/CDFG-HJKM-NPQR").ShouldBe("/home/…");
        LoggedPath.Of("/home/CDFG-HJKM-NPQR/file").ShouldBe("/home/…/file");
        LoggedPath.Of("/letters/stop/CDFG-HJKM-NPQR-CDFG-HJKM-NPQR").ShouldBe("/letters/stop/…");
    }

    [Fact]
    public async Task Another_site_says_nothing_for_a_home()
    {
        var (code, _) = await Paper();
        using var home = at.Server.Nobody();
        var request = new HttpRequestMessage(HttpMethod.Post, $"/home/{code}") { Content = Form("name", "me") };
        request.Headers.Add("Sec-Fetch-Site", "cross-site");
        (await home.SendAsync(request)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }
}
