namespace SpringLoft.Server.Tests.Hosting;

/// <summary>How the built front end goes out: hashed files are the same for ever (RFC 8246), pages are asked for anew, and what was made small is sent so to whoever takes it (RFC 9110, 12.5.3).</summary>
public sealed class ClientFilesTests : IDisposable
{
    private readonly TinySchool school = new(SpringLoft.Server.Hosting.KeyRingSeal.Of);
    private readonly RealServer server;
    private readonly HttpClient http;

    public ClientFilesTests()
    {
        var web = Path.Combine(school.Folder, "web");
        Directory.CreateDirectory(Path.Combine(web, "assets"));
        File.WriteAllText(Path.Combine(web, "index.html"), "<!doctype html><title>Page</title>");
        foreach (var (name, text) in new[] { ("all-1a2b.js", "plain"), ("all-1a2b.js.br", "brotli"), ("all-1a2b.js.gz", "gzip"), ("alone-3c4d.css", "style") })
            File.WriteAllText(Path.Combine(web, "assets", name), text);
        server = RealServer.Start(school.Folder, settings: new Dictionary<string, string> { ["SPRING_LOFT_WEB"] = web });
        http = new HttpClient { BaseAddress = server.Address };
    }

    private async Task<(string Text, HttpResponseMessage Answer)> Get(string path, string? takes = null)
    {
        var request = new HttpRequestMessage(HttpMethod.Get, path);
        if (takes is not null) request.Headers.TryAddWithoutValidation("Accept-Encoding", takes);
        var answer = await http.SendAsync(request);
        return (await answer.Content.ReadAsStringAsync(), answer);
    }

    [Theory]
    [InlineData("gzip, deflate, br, zstd", "brotli", "br")]
    [InlineData("gzip", "gzip", "gzip")]
    [InlineData("br;q=0, gzip;q=0.5", "gzip", "gzip")]
    [InlineData("identity", "plain", null)]
    [InlineData(null, "plain", null)]
    public async Task Whoever_takes_it_small_has_it_small(string? takes, string text, string? coding)
    {
        var (said, answer) = await Get("/assets/all-1a2b.js", takes);

        said.ShouldBe(text);
        answer.Content.Headers.ContentEncoding.SingleOrDefault().ShouldBe(coding);
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("text/javascript");
        answer.Headers.CacheControl!.ToString().ShouldBe("public, max-age=31536000, immutable");
        answer.Headers.Vary.ShouldContain("Accept-Encoding");
    }

    [Fact]
    public async Task What_was_not_made_small_goes_as_it_is()
    {
        var (said, answer) = await Get("/assets/alone-3c4d.css", "identity");

        (said, answer.Content.Headers.ContentType!.MediaType).ShouldBe(("style", "text/css"));
    }

    [Theory]
    [InlineData("/")]
    [InlineData("/index.html")]
    [InlineData("/classes/7/set-up")]
    public async Task A_page_is_asked_for_anew(string path)
    {
        var (said, answer) = await Get(path);

        said.ShouldContain("<title>Page</title>");
        answer.Headers.CacheControl!.NoCache.ShouldBeTrue();
        answer.Headers.ETag.ShouldNotBeNull();
    }

    [Theory]
    [InlineData("/assets/gone-5e6f.js")]
    [InlineData("/assets/../../spring-loft.db")]
    [InlineData("/assets/%2e%2e/%2e%2e/spring-loft.db")]
    public async Task What_is_not_there_is_not_made_up(string path)
    {
        var (said, answer) = await Get(path, "br");

        answer.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        said.ShouldNotContain("SQLite");
    }

    public void Dispose()
    {
        http.Dispose();
        server.Dispose();
        school.Dispose();
    }
}
