using System.Text.Json;

namespace SpringLoft.Server.Tests.People;

/// <summary>The real program, a real school and a provider that says what it is told to say.</summary>
public sealed class ServerAndProvider : IAsyncLifetime
{
    internal OwnProvider Provider { get; private set; } = null!;
    internal TinySchool School { get; } = new(SpringLoft.Server.Hosting.KeyRingSeal.Of);
    internal RealServer Server { get; private set; } = null!;

    public async Task InitializeAsync()
    {
        Provider = await OwnProvider.Start();
        Server = Start(School.Folder, Provider.Settings());
    }

    internal static RealServer Start(string folder, params object[] providers)
    {
        var file = Path.Combine(folder, "providers.json");
        File.WriteAllText(file, JsonSerializer.Serialize(providers));
        return RealServer.Start(folder, settings: new Dictionary<string, string> { ["SPRING_LOFT_PROVIDERS"] = file, ["SPRING_LOFT_INSIDE"] = "1" });
    }

    public async Task DisposeAsync()
    {
        Server.Dispose();
        School.Dispose();
        await Provider.DisposeAsync();
    }
}

/// <summary>Signing in with a provider, message by message. Sources: OpenID Connect Core 1.0, sections 3.1.2 and 3.1.3.7; RFC 7636; OpenID Connect Back-Channel Logout 1.0, sections 2.4 to 2.6.</summary>
public sealed class SignOnTests : IClassFixture<ServerAndProvider>
{
    private static int accounts;
    private readonly ServerAndProvider at;
    private readonly OwnProvider provider;

    public SignOnTests(ServerAndProvider at)
    {
        (this.at, provider) = (at, at.Provider);
        (provider.Twist, provider.Signs, provider.Error) = (_ => { }, null, null);
        // Each test comes with an account and a person of its own.
        var n = Interlocked.Increment(ref accounts);
        provider.Subject = $"sub-{n}";
        at.School.Add($"person-{n}", SchoolRole.Student, "Person", $"Number{n}", $"77{n}");
        provider.Claims = new() { ["number"] = $"77{n}" };
    }

    // A browser that follows nothing by itself: each step can be looked at.
    private HttpClient Browser() => new(new HttpClientHandler { UseCookies = true, AllowAutoRedirect = false }) { BaseAddress = at.Server.Address };

    private static async Task<(HttpResponseMessage Last, List<Uri> Way)> Go(HttpClient browser, string from)
    {
        var way = new List<Uri>();
        var answer = await browser.GetAsync(from);
        while (answer.Headers.Location is { } next && way.Count < 10)
        {
            var to = next.IsAbsoluteUri ? next : new Uri(browser.BaseAddress!, next);
            way.Add(to);
            // Where the program's own pages begin, the way ends.
            if (to.Authority == browser.BaseAddress!.Authority && !to.AbsolutePath.StartsWith("/api/", StringComparison.Ordinal)) break;
            answer = await browser.GetAsync(to);
        }
        return (answer, way);
    }

    private static async Task<string> SignOn(HttpClient browser, string to = "/")
    {
        var (_, way) = await Go(browser, $"/api/single-sign-on/own/begin?to={Uri.EscapeDataString(to)}");
        return way.Count == 0 ? "" : way[^1].PathAndQuery;
    }

    private static async Task<string> Told(HttpClient browser, string place)
    {
        place.ShouldStartWith("/?told=");
        return await (await browser.GetAsync($"/api/single-sign-on/told/{place[7..]}")).Code();
    }

    private static async Task<HttpStatusCode> Me(HttpClient browser) => (await browser.GetAsync("/api/me")).StatusCode;

    [Fact]
    public async Task Somebody_comes_in_with_PKCE_and_arrives_where_they_wanted_to_go()
    {
        using var browser = Browser();
        (await (await browser.GetAsync("/api/single-sign-on")).Json())[0].GetProperty("name").GetString().ShouldBe("Own Provider");

        (await SignOn(browser, "/classes/7?x=1")).ShouldBe("/classes/7?x=1");

        var me = await (await browser.GetAsync("/api/me")).Json();
        me.GetProperty("name").GetString().ShouldStartWith("Person Number");
        provider.Proved.ShouldBeTrue();
    }

    [Theory]
    [InlineData("https://evil.example/")]
    [InlineData("//evil.example/")]
    [InlineData("/\\evil.example")]
    [InlineData("javascript:alert(1)")]
    [InlineData("/x\r\nSet-Cookie: a=b")]
    public async Task It_leads_nowhere_else(string to)
    {
        using var browser = Browser();

        (await SignOn(browser, to)).ShouldBe("/");
    }

    [Theory]
    [InlineData("iss")]
    [InlineData("aud")]
    [InlineData("nonce")]
    [InlineData("no nonce")]
    [InlineData("no sub")]
    [InlineData("expired")]
    [InlineData("stranger")]
    [InlineData("secret")]
    [InlineData("none")]
    public async Task An_identity_token_that_is_not_what_the_standard_asks_lets_nobody_in(string wrong)
    {
        provider.Twist = claims =>
        {
            if (wrong == "iss") claims["iss"] = "https://evil.example/";
            if (wrong == "aud") claims["aud"] = "another-program";
            if (wrong == "nonce") claims["nonce"] = "of-another-sign-in";
            if (wrong == "no nonce") claims.Remove("nonce");
            if (wrong == "no sub") claims.Remove("sub");
            if (wrong == "expired") claims["exp"] = DateTimeOffset.UtcNow.AddHours(-1).ToUnixTimeSeconds();
        };
        provider.Signs = wrong switch
        {
            "stranger" => () => provider.OfAStranger,
            "secret" => () => OwnProvider.ByTheSecret,
            "none" => () => null,
            _ => null,
        };
        using var browser = Browser();

        var code = await Told(browser, await SignOn(browser));

        code.ShouldBeOneOf("sign-on-failed", "sign-on-late");
        (await Me(browser)).ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task What_came_to_another_browser_lets_nobody_in()
    {
        using var theirs = Browser();
        using var mine = Browser();
        var asked = (await theirs.GetAsync("/api/single-sign-on/own/begin?to=/")).Headers.Location!;
        using var there = new HttpClient(new HttpClientHandler { AllowAutoRedirect = false });
        var back = (await there.GetAsync(asked)).Headers.Location!;

        var (_, way) = await Go(mine, back.PathAndQuery);

        (await Told(mine, way[^1].PathAndQuery)).ShouldBe("sign-on-failed");
        (await Me(mine)).ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task Breaking_off_there_is_said_and_told_once()
    {
        provider.Error = "access_denied";
        using var browser = Browser();

        var place = await SignOn(browser);

        (await Told(browser, place)).ShouldBe("sign-on-declined");
        (await Told(browser, place)).ShouldBe("sign-on-failed", "a ticket is good once");
    }

    [Fact]
    public async Task Nobody_of_the_school_is_told_so_and_stands_in_the_audit_trail()
    {
        provider.Claims = new() { ["preferred_username"] = "visitor" };
        using var browser = Browser();

        (await Told(browser, await SignOn(browser))).ShouldBe("sign-on-nobody");

        using var coordinator = await at.Server.As("coord");
        (await coordinator.GetStringAsync("/api/audit")).ShouldContain("turned away");
    }

    [Fact]
    public async Task A_provider_that_is_not_there_is_told_at_the_door()
    {
        using var folder = new TinySchool(SpringLoft.Server.Hosting.KeyRingSeal.Of);
        using var server = ServerAndProvider.Start(folder.Folder, new { key = "gone", name = "Gone", issuer = "http://127.0.0.1:9/", clientId = "x" });
        using var browser = new HttpClient(new HttpClientHandler { AllowAutoRedirect = false }) { BaseAddress = server.Address };

        var answer = await browser.GetAsync("/api/single-sign-on/gone/begin");

        (await Told(browser, answer.Headers.Location!.OriginalString)).ShouldBe("provider-unreachable");
        (await (await browser.GetAsync("/api/single-sign-on/unknown/begin")).Code()).ShouldBe("not-found");
    }

    [Fact]
    public async Task What_is_said_twice_and_not_alike_says_nothing()
    {
        var mine = provider.Claims["number"];
        provider.Claims = new() { ["number"] = new[] { mine, "1001" } };
        using var browser = Browser();
        (await Told(browser, await SignOn(browser))).ShouldBe("sign-on-nobody");

        provider.Claims = new() { ["number"] = new[] { mine, mine } };
        await SignOn(browser);
        (await Me(browser)).ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task The_log_has_nothing_that_lets_somebody_in()
    {
        using var browser = Browser();
        var (_, way) = await Go(browser, "/api/single-sign-on/own/begin");
        (await Me(browser)).ShouldBe(HttpStatusCode.OK);

        var code = System.Web.HttpUtility.ParseQueryString(way.First(w => w.AbsolutePath.EndsWith("/back", StringComparison.Ordinal)).Query)["code"]!;
        foreach (var log in Directory.GetFiles(Path.Combine(at.School.Folder, "logs")))
        {
            await using var open = new FileStream(log, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
            using var reading = new StreamReader(open);
            var text = await reading.ReadToEndAsync();
            text.ShouldNotContain(code);
            text.ShouldNotContain(OwnProvider.Secret);
        }
    }

    [Fact]
    public async Task Signing_out_goes_on_at_the_provider_and_comes_back()
    {
        using var browser = Browser();
        await SignOn(browser);

        var next = (await (await browser.PostAsync("/api/sign-out", null)).Json()).GetProperty("next").GetString()!;
        var (_, way) = await Go(browser, next);

        way[0].AbsoluteUri.ShouldStartWith(provider.Issuer + "end?");
        way[0].Query.ShouldContain("id_token_hint=");
        way[^1].PathAndQuery.ShouldBe("/");
        (await Me(browser)).ShouldBe(HttpStatusCode.Unauthorized);
        using var coordinator = await at.Server.As("coord");
        (await (await coordinator.PostAsync("/api/sign-out", null)).Json()).GetProperty("next").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    private Task<HttpResponseMessage> Tell(string token) => at.Server.Nobody().PostAsync("/api/single-sign-on/own/ended", new FormUrlEncodedContent([new("logout_token", token)]));

    [Fact]
    public async Task Signing_out_there_ends_the_sign_in_here()
    {
        using var browser = Browser();
        await SignOn(browser);
        (await Me(browser)).ShouldBe(HttpStatusCode.OK);

        (await Tell(provider.LogoutToken())).StatusCode.ShouldBe(HttpStatusCode.OK);

        (await Me(browser)).ShouldBe(HttpStatusCode.Unauthorized);
        // Its name with and without the stroke at the end is one name, here as at signing in.
        await SignOn(browser);
        (await Tell(provider.LogoutToken(claims => claims["iss"] = provider.Issuer.TrimEnd('/')))).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await Me(browser)).ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Theory]
    [InlineData("iss")]
    [InlineData("aud")]
    [InlineData("old")]
    [InlineData("later")]
    [InlineData("expired")]
    [InlineData("no iat")]
    [InlineData("nonce")]
    [InlineData("no event")]
    [InlineData("another event")]
    [InlineData("nobody")]
    [InlineData("no jti")]
    [InlineData("stranger")]
    [InlineData("secret")]
    [InlineData("nothing")]
    [InlineData("twice")]
    public async Task A_logout_token_that_is_not_what_the_standard_asks_ends_nothing(string wrong)
    {
        using var browser = Browser();
        var now = DateTimeOffset.UtcNow.ToUnixTimeSeconds();
        var token = wrong == "nothing" ? "" : provider.LogoutToken(claims =>
        {
            if (wrong == "iss") claims["iss"] = "https://evil.example/";
            if (wrong == "aud") claims["aud"] = "another-program";
            if (wrong == "old") (claims["iat"], claims["exp"]) = (now - 3600, now - 3500);
            if (wrong == "later") (claims["iat"], claims["exp"]) = (now + 3600, now + 3700);
            if (wrong == "expired") claims["exp"] = now - 3600;
            if (wrong == "no iat") claims.Remove("iat");
            if (wrong == "nonce") claims["nonce"] = "n";
            if (wrong == "no event") claims.Remove("events");
            if (wrong == "another event") claims["events"] = new Dictionary<string, object> { ["http://schemas.openid.net/event/another"] = new Dictionary<string, object>() };
            if (wrong == "nobody") claims.Remove("sub");
            if (wrong == "no jti") claims.Remove("jti");
        }, wrong == "stranger" ? provider.OfAStranger : wrong == "secret" ? OwnProvider.ByTheSecret : null);
        if (wrong == "twice") (await Tell(token)).StatusCode.ShouldBe(HttpStatusCode.OK);
        await SignOn(browser);

        (await (await Tell(token)).Code()).ShouldBe("logout-token");

        (await Me(browser)).ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_coordinator_forgets_an_account_and_the_way_back_in_does()
    {
        using var browser = Browser();
        await SignOn(browser);
        var id = (await (await browser.GetAsync("/api/me")).Json()).GetProperty("id").GetInt64();
        using var coordinator = await at.Server.As("coord");
        (await (await coordinator.GetAsync($"/api/people/{id}/accounts")).Json()).GetArrayLength().ShouldBe(1);

        (await coordinator.DeleteAsync($"/api/people/{id}/accounts")).StatusCode.ShouldBe(HttpStatusCode.NoContent);

        (await Me(browser)).ShouldBe(HttpStatusCode.Unauthorized);
        (await (await coordinator.GetAsync($"/api/people/{id}/accounts")).Json()).GetArrayLength().ShouldBe(0);
    }

    [Theory]
    [InlineData("""[{"key":"A B"}]""", "entry 1, “key”")]
    [InlineData("""[{"key":"a","name":""}]""", "entry 1, “name”")]
    [InlineData("""[{"key":"a","name":"A","issuer":"nowhere"}]""", "entry 1, “issuer”")]
    [InlineData("""[{"key":"a","name":"A","issuer":"http://id.example/"}]""", "without TLS")]
    [InlineData("""[{"key":"a","name":"A","issuer":"https://id.example/"}]""", "entry 1, “clientId”")]
    [InlineData("""[{"key":"a","name":"A","issuer":"https://id.example/","clientId":"x"},{"key":"a","name":"B","issuer":"https://b.example/","clientId":"x"}]""", "twice")]
    [InlineData("""[{"key":"a","name":"A","issuer":"https://id.example/","clientId":"x","groups":{"claim":"g"}}]""", "entry 1, “groups”")]
    [InlineData("""[{"key":"a","nmae":"A"}]""", "line 1")]
    [InlineData("[null]", "entry 1 is empty")]
    [InlineData("null", "no list")]
    [InlineData("{", "line 1")]
    public void What_is_wrong_in_the_operators_file_is_told_at_the_start_with_its_place(string text, string said)
    {
        var file = Path.Combine(at.School.Folder, $"{Guid.NewGuid():N}.json");
        File.WriteAllText(file, text);

        var e = Should.Throw<ArgumentException>(() => SpringLoft.Server.Hosting.ProviderFile.Read(file, openToo: false));

        e.Message.ShouldContain(said);
        e.Message.ShouldContain(file);
    }

    [Fact]
    public void A_file_that_is_not_there_is_told_too() =>
        Should.Throw<ArgumentException>(() => SpringLoft.Server.Hosting.ProviderFile.Read("/nowhere/providers.json", openToo: false)).Message.ShouldContain("can't be read");
}
