using System.Net.Http.Json;
using SpringLoft.App;

namespace SpringLoft.Server.Tests.Hosting;

/// <summary>Where links lead is the operator's word, and no request's.</summary>
public sealed class AddressTests : IDisposable
{
    private readonly TinySchool school = new();

    public void Dispose() => school.Dispose();

    private static HttpRequestMessage From(string host, HttpMethod method, string path, object? body = null)
    {
        var request = new HttpRequestMessage(method, path) { Content = body is null ? null : JsonContent.Create(body) };
        request.Headers.Host = host;
        return request;
    }

    // As it came to the stand-in of a mail server; in the database its text is gone once it is sent.
    private async Task<string> Letter(RealServer server)
    {
        var outbox = Path.Combine(school.Folder, "outbox");
        await server.Until("a letter", () => Directory.Exists(outbox) && Directory.EnumerateFiles(outbox, "*.eml").Any());
        var (file, text) = (Directory.EnumerateFiles(outbox, "*.eml").Single(), "");
        await server.Until("the whole letter", () => (text = MimeKit.MimeMessage.Load(file).TextBody ?? "").Contains("/invitation", StringComparison.Ordinal));
        return text;
    }

    [Fact]
    public async Task An_invitation_leads_to_the_school_whatever_host_the_request_names()
    {
        school.OpenClass();
        using var server = RealServer.Start(school.Folder);
        using var http = await server.As("lead");

        var answer = await http.SendAsync(From("evil.example", HttpMethod.Post, $"/api/classes/{school.Class.Value}/invitations", new { addresses = "a@x.invalid", role = "Student" }));

        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        var letter = await Letter(server);
        letter.ShouldNotContain("evil.example");
        letter.ShouldContain($"{server.Address.GetLeftPart(UriPartial.Authority)}/invitation");
    }

    [Fact]
    public async Task With_an_address_of_its_own_it_answers_under_that_one_only_and_the_cookie_is_for_TLS()
    {
        school.OpenClass();
        using var server = RealServer.Start(school.Folder, address: "https://loft.example");
        using var http = new HttpClient(new HttpClientHandler { UseCookies = false }) { BaseAddress = server.Address };

        var wrong = await http.SendAsync(From("evil.example", HttpMethod.Get, "/api/school"));
        ((int)wrong.StatusCode, await wrong.Code()).ShouldBe((421, "host-wrong"));
        (await http.GetAsync("/health")).StatusCode.ShouldBe(HttpStatusCode.OK);
        var signIn = await http.SendAsync(From("loft.example", HttpMethod.Post, "/api/sign-in", new { userName = "lead", password = TinySchool.Password }));
        signIn.StatusCode.ShouldBe(HttpStatusCode.OK);
        signIn.Headers.GetValues("Strict-Transport-Security").Single().ShouldBe("max-age=31536000");
        var cookie = signIn.Headers.GetValues("Set-Cookie").Single(c => c.StartsWith("spring-loft=", StringComparison.Ordinal));
        signIn.Headers.GetValues("Set-Cookie").ShouldAllBe(c => c.Contains("; secure", StringComparison.OrdinalIgnoreCase));

        http.DefaultRequestHeaders.Add("Cookie", cookie.Split(';')[0]);
        (await http.SendAsync(From("loft.example", HttpMethod.Post, $"/api/classes/{school.Class.Value}/invitations", new { addresses = "b@x.invalid", role = "Student" }))).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await Letter(server)).ShouldContain("https://loft.example/invitation");
        (await http.GetFromJsonAsync<System.Text.Json.JsonElement>("/api/school")).GetProperty("address").GetString().ShouldBe("https://loft.example");
    }

    [Fact]
    public async Task Where_somebody_comes_from_is_believed_of_named_proxies_only()
    {
        async Task<string> Seen(string? proxy)
        {
            using var server = RealServer.Start(school.Folder, proxy: proxy);
            using var http = server.Nobody();
            var signIn = From(server.Address.Authority, HttpMethod.Post, "/api/sign-in", new { userName = "lead", password = TinySchool.Password });
            signIn.Headers.Add("X-Forwarded-For", "198.51.100.23");
            await http.SendAsync(signIn);
            return (await http.GetFromJsonAsync<System.Text.Json.JsonElement>("/api/me/sign-ins")).GetProperty("sessions").EnumerateArray().Single(s => s.GetProperty("here").GetBoolean()).GetProperty("address").GetString()!;
        }

        (await Seen(null)).ShouldBe("127.0.0.1");
        (await Seen("10.9.9.9")).ShouldBe("127.0.0.1");
        (await Seen("127.0.0.1")).ShouldBe("198.51.100.23");
    }

    [Theory]
    [InlineData("loft.example")]
    [InlineData("ftp://loft.example")]
    [InlineData("https://loft.example/here")]
    [InlineData("https://me@loft.example")]
    public void What_is_no_address_of_a_site_is_refused_at_the_start(string setting) => Should.Throw<ArgumentException>(() => SchoolAddress.Read(setting)).Message.ShouldContain(setting);
}
