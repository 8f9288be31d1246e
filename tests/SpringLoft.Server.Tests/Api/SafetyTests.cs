using System.Net.Http.Json;
using System.Text;
using Dapper;

namespace SpringLoft.Server.Tests.Api;

/// <summary>What keeps pages of others, and files of others, from doing anything here.</summary>
public sealed class SafetyTests(ServerAndSchool at) : IClassFixture<ServerAndSchool>
{
    private async Task<HttpResponseMessage> Post(string header, string value)
    {
        var http = await at.Server.As("lead");
        var request = new HttpRequestMessage(HttpMethod.Post, $"{at.ClassPath}/notices") { Content = JsonContent.Create(new { text = "From elsewhere" }) };
        request.Headers.Add(header, value);
        return await http.SendAsync(request);
    }

    [Theory]
    [InlineData("Sec-Fetch-Site", "cross-site")]
    [InlineData("Sec-Fetch-Site", "same-site")]
    [InlineData("Sec-Fetch-Site", "none")]
    [InlineData("Origin", "https://elsewhere.invalid")]
    [InlineData("Origin", "null")]
    public async Task A_request_that_a_page_of_another_site_makes_changes_nothing(string header, string value)
    {
        var answer = await Post(header, value);

        (answer.StatusCode, await answer.Code()).ShouldBe((HttpStatusCode.Forbidden, "cross-site"));
        at.School.Workspace.See(at.School.Lead, at.School.Class).Notices.ShouldNotContain(n => n.Text == "From elsewhere");
    }

    [Fact]
    public async Task Our_own_pages_are_let_through() => (await Post("Sec-Fetch-Site", "same-origin")).StatusCode.ShouldBe(HttpStatusCode.NoContent);

    [Fact]
    public async Task The_cookie_is_for_this_site_only_and_out_of_reach_of_scripts()
    {
        using var http = new HttpClient(new HttpClientHandler { UseCookies = false }) { BaseAddress = at.Server.Address };

        var cookies = (await http.PostAsJsonAsync("/api/sign-in", new { userName = "lead", password = TinySchool.Password })).Headers.GetValues("Set-Cookie").ToList();

        cookies.Count.ShouldBe(2);
        cookies.ShouldAllBe(c => c.Contains("httponly", StringComparison.OrdinalIgnoreCase) && c.Contains("samesite=strict", StringComparison.OrdinalIgnoreCase));
        // The sign-in ends with the browser; that the browser was here is remembered, and opens nothing.
        cookies.Single(c => c.StartsWith("spring-loft=", StringComparison.Ordinal)).ShouldNotContain("max-age", Case.Insensitive);
        (await Me(cookies.Single(c => c.StartsWith("spring-loft-known=", StringComparison.Ordinal)).Split(';')[0])).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    private async Task<HttpResponseMessage> Me(string cookie)
    {
        using var http = new HttpClient(new HttpClientHandler { UseCookies = false }) { BaseAddress = at.Server.Address };
        http.DefaultRequestHeaders.Add("Cookie", cookie);
        return await http.GetAsync("/api/me");
    }

    [Fact]
    public async Task What_is_somebodys_is_kept_by_no_cache()
    {
        using var http = await at.Server.As("lead");

        foreach (var path in (string[])["/api/me", "/api/board", at.ClassPath, $"{at.ClassPath}/workspace"])
            (await http.GetAsync(path)).Headers.CacheControl!.NoStore.ShouldBeTrue(path);
    }

    [Fact]
    public async Task A_cookie_that_was_copied_is_dead_once_its_owner_signed_out()
    {
        using var http = new HttpClient(new HttpClientHandler { UseCookies = false }) { BaseAddress = at.Server.Address };
        var cookie = (await http.PostAsJsonAsync("/api/sign-in", new { userName = "co", password = TinySchool.Password })).Headers.GetValues("Set-Cookie").First(c => c.StartsWith("spring-loft=", StringComparison.Ordinal)).Split(';')[0];
        (await Me(cookie)).StatusCode.ShouldBe(HttpStatusCode.OK);

        http.DefaultRequestHeaders.Add("Cookie", cookie);
        await http.PostAsync("/api/sign-out", null);

        (await Me(cookie)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task What_a_screen_asks_by_itself_is_answered_and_keeps_no_sign_in_awake()
    {
        using var http = await at.Server.As("co");
        var then = NodaTime.Instant.FromUnixTimeSeconds(NodaTime.SystemClock.Instance.GetCurrentInstant().ToUnixTimeSeconds()) - NodaTime.Duration.FromMinutes(30);
        string Seen() => at.School.Read(c => c.QuerySingle<string>("SELECT max(seen_at) FROM session WHERE person_id = @Id", new { at.School.CoTeacher.Id }));
        at.School.Premises.Db.Write(c => c.Execute("UPDATE session SET seen_at = @then WHERE person_id = @Id", new { then, at.School.CoTeacher.Id }));
        var before = Seen();

        using var byItself = new HttpRequestMessage(HttpMethod.Get, "/api/board");
        byItself.Headers.Add("By-Itself", "1");
        (await http.SendAsync(byItself)).StatusCode.ShouldBe(HttpStatusCode.OK);
        Seen().ShouldBe(before);

        (await http.GetAsync("/api/board")).StatusCode.ShouldBe(HttpStatusCode.OK);
        Seen().ShouldNotBe(before);
    }

    [Fact]
    public async Task Another_place_is_seen_and_signed_out()
    {
        using var here = await at.Server.As("other");
        using var there = await at.Server.As("other");
        var seen = await here.GetFromJsonAsync<System.Text.Json.JsonElement>("/api/me/sign-ins");
        var away = seen.GetProperty("sessions").EnumerateArray().First(s => !s.GetProperty("here").GetBoolean()).GetProperty("id").GetInt64();

        (await here.DeleteAsync($"/api/me/sign-ins/{away}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);

        (await there.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await here.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Every_answer_forbids_foreign_scripts_frames_and_guessing_of_types()
    {
        using var http = at.Server.Nobody();
        var headers = (await http.GetAsync("/health")).Headers;

        var policy = headers.GetValues("Content-Security-Policy").Single();
        policy.ShouldContain("script-src 'self';");
        policy.Split(';').First(p => p.Trim().StartsWith("script-src")).ShouldNotContain("unsafe");
        policy.ShouldContain("object-src 'none'");
        policy.ShouldContain("frame-ancestors 'none'");
        // The headers that OWASP's Secure Headers Project proposes (from memory of its list), but for Cross-Origin-Embedder-Policy: a page
        // of ours embeds nothing of others, by its content security policy.
        foreach (var (name, value) in ((string, string)[])[("Cross-Origin-Opener-Policy", "same-origin"), ("Cross-Origin-Resource-Policy", "same-origin"), ("X-Permitted-Cross-Domain-Policies", "none")])
            headers.GetValues(name).Single().ShouldBe(value);
        foreach (var off in (string[])["geolocation=()", "microphone=()", "payment=()", "usb=()"]) headers.GetValues("Permissions-Policy").Single().ShouldContain(off);
        headers.Contains("Server").ShouldBeFalse();
        headers.Contains("X-Powered-By").ShouldBeFalse();
        headers.GetValues("X-Content-Type-Options").Single().ShouldBe("nosniff");
        headers.GetValues("X-Frame-Options").Single().ShouldBe("DENY");
        headers.GetValues("Referrer-Policy").Single().ShouldBe("no-referrer");
        headers.Contains("Server").ShouldBeFalse();
    }

    [Fact]
    public async Task A_file_is_sent_to_be_saved_and_never_run_in_the_page()
    {
        using var http = await at.Server.As("lead");
        var folder = at.School.FolderNamed("Papers").Value;
        var sent = await http.PostAsync($"{at.ClassPath}/folders/{folder}/files?name=page.html", new StringContent("<script>alert(1)</script>", Encoding.UTF8, "application/octet-stream"));
        var item = (await sent.Json()).GetProperty("id").GetInt64();

        var answer = await http.GetAsync($"{at.ClassPath}/items/{item}/content");

        answer.Content.Headers.ContentType!.MediaType.ShouldBe("application/octet-stream");
        answer.Content.Headers.ContentDisposition!.DispositionType.ShouldBe("attachment");
        answer.Content.Headers.ContentDisposition.FileNameStar.ShouldBe("page.html");
    }

    [Fact]
    public async Task A_first_password_stands_on_its_slip_and_not_among_the_answers_that_are_kept()
    {
        at.School.Add("slipped", SchoolRole.Student, "New", "Slip", "2002");
        var student = at.School.Read(c => Store.People.PersonStore.ByUserName(c, "slipped")!.Id);
        at.School.Roster.Enroll(at.School.Lead, at.School.Class, [student], ClassRole.Student);
        using var http = await at.Server.As("coord");
        http.DefaultRequestHeaders.Add("Idempotency-Key", "one-slip");

        (await http.PostAsJsonAsync($"{at.ClassPath}/slips", new { people = new[] { student.Value } })).StatusCode.ShouldBe(HttpStatusCode.NoContent);

        var phrase = at.School.Read(c => Store.People.PersonStore.FirstPhrases(c, at.School.Class))[student].Phrase!;
        (await http.GetStringAsync($"{at.ClassPath}/slips")).ShouldNotContain(phrase);
        (await http.GetStringAsync($"{at.ClassPath}/slips/shown?people={student.Value}")).ShouldContain(phrase);
        at.School.Read(c => Dapper.SqlMapper.ExecuteScalar<int>(c, "SELECT count(*) FROM once WHERE instr(body, @phrase) > 0", new { phrase })).ShouldBe(0);
        at.School.Read(c => Dapper.SqlMapper.ExecuteScalar<int>(c, "SELECT count(*) FROM audit WHERE instr(detail, @phrase) > 0", new { phrase })).ShouldBe(0);
    }

    [Fact]
    public async Task A_class_calendar_is_read_without_an_account_and_names_no_student()
    {
        var address = new App.Years.ClassCalendars(at.School.Premises).Make(at.School.Lead, at.School.Class);
        using var http = at.Server.Nobody();

        var answer = await http.GetAsync(address);

        answer.Content.Headers.ContentType!.MediaType.ShouldBe("text/calendar");
        var text = await answer.Content.ReadAsStringAsync();
        text.ShouldStartWith("BEGIN:VCALENDAR");
        text.ShouldNotContain("Hallgr");
        (await http.GetAsync($"{address[..^5]}.ics")).StatusCode.ShouldBe(HttpStatusCode.Gone);
        // Somebody else's number before the same mark.
        (await http.GetAsync(address.Replace($"-{at.School.Lead.Id.Value}-", $"-{at.School.CoTeacher.Id.Value}-", StringComparison.Ordinal))).StatusCode.ShouldBe(HttpStatusCode.Gone);
    }

    [Fact]
    public async Task What_opens_something_by_itself_is_in_no_line_of_the_log()
    {
        using var school = new TinySchool(SpringLoft.Server.Hosting.KeyRingSeal.Of);
        school.OpenClass();
        var address = new App.Years.ClassCalendars(school.Premises).Make(school.Lead, school.Class);
        using (var server = RealServer.Start(school.Folder))
        {
            using var http = server.Nobody();
            (await http.GetAsync(address)).StatusCode.ShouldBe(HttpStatusCode.OK);
            (await http.PostAsync($"/shelf/{new string('a', 40)}", null)).StatusCode.ShouldBe(HttpStatusCode.MethodNotAllowed);
        }

        var log = string.Concat(Directory.GetFiles(Path.Combine(school.Folder, "logs")).Select(File.ReadAllText));
        log.ShouldContain("/api/calendars/");
        log.ShouldNotContain(address.Split('-')[^1].Split('.')[0]);
        log.ShouldContain("/shelf/");
        log.ShouldNotContain(new string('a', 40));
    }

    [Fact]
    public async Task Wrong_passwords_are_counted_and_slowed_down()
    {
        using var school = new TinySchool();
        school.Add("guessed", SchoolRole.Student, "Often", "Guessed", "2001");
        var clock = Path.Combine(school.Folder, "clock");
        void Now(int second) => File.WriteAllText(clock, $"2026-09-07T08:00:{second:00}Z");
        Now(0);
        using var server = RealServer.Start(school.Folder, clock: clock);
        using var http = server.Nobody();
        async Task<string> Guess(string password) => await (await http.PostAsJsonAsync("/api/sign-in", new { userName = "guessed", password })).Code();
        var codes = new List<string>();
        for (var i = 0; i < 6; i++) codes.Add(await Guess($"guess number {i}"));

        codes.ShouldBe(["sign-in-wrong", "sign-in-wrong", "sign-in-wrong", "sign-in-wrong", "sign-in-wrong", "sign-in-shut"]);
        (await Guess(TinySchool.Password)).ShouldBe("sign-in-shut", "the right one does not get through either");
        Now(2);
        (await Guess(TinySchool.Password)).ShouldBe("", "two seconds after the fifth wrong one it is open again");
        using var coord = await server.As("coord");
        (await (await coord.GetAsync("/api/audit")).Content.ReadAsStringAsync()).ShouldContain("slowed down sign-in");
    }

    [Fact]
    public async Task A_large_upload_passes_through_without_filling_the_memory()
    {
        using var http = await at.Server.As("lead");
        at.School.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "UPDATE school SET upload_limit_bytes = 2000000000"));
        var before = at.Server.PeakMemory();
        var content = new StreamContent(new Zeros(400_000_000));
        content.Headers.ContentType = new("application/octet-stream");

        var answer = await http.PostAsync($"{at.ClassPath}/folders/{at.School.FolderNamed("Papers").Value}/files?name=large.bin", content);

        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        (await answer.Json()).GetProperty("size").GetInt64().ShouldBe(400_000_000);
        (at.Server.PeakMemory() - before).ShouldBeLessThan(100_000_000);
    }

    private sealed class Zeros(long length) : Stream
    {
        private long left = length;
        public override bool CanRead => true;
        public override bool CanSeek => false;
        public override bool CanWrite => false;
        public override long Length => throw new NotSupportedException();
        public override long Position { get => throw new NotSupportedException(); set => throw new NotSupportedException(); }
        public override int Read(byte[] buffer, int offset, int count)
        {
            var n = (int)Math.Min(count, left);
            Array.Clear(buffer, offset, n);
            left -= n;
            return n;
        }
        public override void Flush() { }
        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();
        public override void SetLength(long value) => throw new NotSupportedException();
        public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
    }

    [Fact]
    public async Task An_open_shelf_needs_no_account_is_kept_by_no_browser_and_is_gone_once_it_is_shut()
    {
        await at.School.Put(at.School.Lead, "Papers", "to read.html", "<script>alert(1)</script>");
        var shelf = new SpringLoft.App.Closing.OpenShelf(at.School.Premises, new(at.School.Premises));
        var set = shelf.Set(at.School.Lead, at.School.Class, new("To <read>", "", at.School.Premises.Clock.Today.PlusDays(400), [at.School.FolderNamed("Papers")], [], []));
        using var visitor = at.Server.Nobody();

        var page = await visitor.GetAsync(set.Address);
        var file = await visitor.GetAsync($"{set.Address}/0");

        page.StatusCode.ShouldBe(HttpStatusCode.OK);
        (await page.Content.ReadAsStringAsync()).ShouldContain("To &lt;read&gt;");
        page.Headers.CacheControl!.NoStore.ShouldBeTrue();
        page.Headers.GetValues("X-Robots-Tag").ShouldBe(["noindex"]);
        page.Headers.GetValues("Content-Security-Policy").Single().ShouldContain("script-src 'self'");
        // A page that somebody put in is handed over as a file, never shown as a page of ours.
        (file.Content.Headers.ContentType!.MediaType, file.Content.Headers.ContentDisposition!.DispositionType).ShouldBe(("application/octet-stream", "attachment"));
        shelf.Shut(at.School.Lead, at.School.Class, set.Id);
        (await visitor.GetAsync(set.Address)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await visitor.GetAsync($"{set.Address}/0")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await visitor.GetAsync($"/shelf/{new string('f', 40)}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }
}
