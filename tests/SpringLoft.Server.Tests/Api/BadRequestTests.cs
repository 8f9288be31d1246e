using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;

namespace SpringLoft.Server.Tests.Api;

/// <summary>What is wrong with a request is told, with a stable code, and nothing is written.</summary>
public sealed class BadRequestTests(ServerAndSchool at) : IClassFixture<ServerAndSchool>
{
    private const string OfClass = """
        "section":null,"period":null,"term":null,"plan":null,"teacherShown":null
        """;

    private static StringContent Body(string text, string type = "application/json") => new(text, Encoding.UTF8, type);

    [Theory]
    [InlineData("{\"course\":", "bad-request")]
    [InlineData("[]", "bad-request")]
    [InlineData("{\"course\":7,\"year\":1}", "bad-request")]
    [InlineData("{\"course\":\"Clay\",\"year\":\"one\"}", "bad-request")]
    [InlineData("{\"course\":\"Clay\",\"year\":99999,§}", "not-found")]
    [InlineData("{\"course\":\"   \",\"year\":1,§}", "course-missing")]
    [InlineData("{\"course\":null,\"year\":1,§}", "course-missing")]
    public async Task A_class_that_cannot_be_made_of_what_was_sent_is_refused(string body, string code)
    {
        using var http = await at.Server.As("lead");

        var answer = await http.PostAsync("/api/classes", Body(body.Replace("§", OfClass, StringComparison.Ordinal)));

        (await answer.Code()).ShouldBe(code);
        ((int)answer.StatusCode).ShouldBeInRange(400, 422);
        (await http.GetFromJsonAsync<System.Text.Json.JsonElement>("/api/board")).GetProperty("rows").GetArrayLength().ShouldBe(1);
    }

    [Theory]
    [InlineData("GET /api/people/%00 HTTP/1.1\r\nHost: loft.example\r\n\r\n", 400, "bad-request")]
    [InlineData("GET /api/people/1 HTTP/1.1\r\nHost: a b\r\n\r\n", 400, "bad-request")]
    [InlineData("no request at all\r\n\r\n", 400, "bad-request")]
    [InlineData("GET /health HTTP/1.1\r\nHost: loft.example\r\nX-Long: long\r\n\r\n", 431, "request-head-long")]
    public async Task What_the_web_server_refuses_by_itself_is_told_like_every_refusal(string request, int status, string code)
    {
        using var line = new System.Net.Sockets.TcpClient();
        await line.ConnectAsync(at.Server.Address.Host, at.Server.Address.Port);
        var stream = line.GetStream();
        await stream.WriteAsync(Encoding.ASCII.GetBytes(request.Replace("long\r", new string('x', 40_000) + "\r", StringComparison.Ordinal)));

        using var reader = new StreamReader(stream, Encoding.UTF8);
        var answer = await reader.ReadToEndAsync();

        answer.ShouldStartWith($"HTTP/1.1 {status} ");
        var (head, body) = (answer.Split("\r\n\r\n")[0], answer.Split("\r\n\r\n")[1]);
        head.ShouldContain("Content-Type: application/problem+json");
        head.ShouldContain($"Content-Length: {Encoding.UTF8.GetByteCount(body)}\r\n");
        var told = System.Text.Json.JsonDocument.Parse(body).RootElement;
        (told.GetProperty("status").GetInt32(), told.GetProperty("code").GetString()).ShouldBe((status, code));
        told.GetProperty("detail").GetString().ShouldNotBeNullOrEmpty();
    }

    [Fact]
    public async Task Text_that_is_not_UTF_8_is_refused()
    {
        using var http = await at.Server.As("lead");
        var content = new ByteArrayContent([.. "{\"text\":\""u8, 0xFF, 0xFE, .. "\"}"u8]);
        content.Headers.ContentType = new MediaTypeHeaderValue("application/json");

        (await (await http.PostAsync($"{at.ClassPath}/notices", content)).Code()).ShouldBe("bad-request");
    }

    [Theory]
    [InlineData("PATCH", "application/json", 405, "method-wrong")]
    [InlineData("POST", "text/plain", 415, "type-wrong")]
    public async Task A_wrong_method_or_type_is_told(string method, string type, int status, string code)
    {
        using var http = await at.Server.As("lead");

        var answer = await http.SendAsync(new HttpRequestMessage(new HttpMethod(method), $"{at.ClassPath}/notices") { Content = Body("{}", type) });

        ((int)answer.StatusCode, await answer.Code()).ShouldBe((status, code));
    }

    [Theory]
    [InlineData("null", "missing")]
    [InlineData("\"   \"", "missing")]
    public async Task A_notice_of_nothing_is_refused_with_its_field(string text, string code)
    {
        using var http = await at.Server.As("lead");

        var answer = await http.PostAsync($"{at.ClassPath}/notices", Body($"{{\"text\":{text}}}"));

        (await answer.Code()).ShouldBe(code);
        (await answer.Json()).GetProperty("field").GetString().ShouldBe("text");
    }

    [Fact]
    public async Task A_text_that_is_too_long_is_refused_and_so_is_a_body_beyond_all_measure()
    {
        using var http = await at.Server.As("lead");

        (await (await http.PostAsync($"{at.ClassPath}/notices", Body($"{{\"text\":\"{new string('x', 4001)}\"}}"))).Code()).ShouldBe("too-long");
        ((int)(await http.PostAsync($"{at.ClassPath}/notices", Body($"{{\"text\":\"{new string('x', 2_000_000)}\"}}"))).StatusCode).ShouldBe(413);
    }

    [Fact]
    public async Task An_error_is_a_problem_details_document()
    {
        using var http = await at.Server.As("lead");

        var problem = await (await http.PostAsync("/api/classes", Body($"{{\"course\":null,\"year\":1,{OfClass}}}"))).Json();

        // RFC 9457 section 3.1: type, status, title and detail.
        problem.GetProperty("type").GetString().ShouldBe("urn:spring-loft:course-missing");
        problem.GetProperty("status").GetInt32().ShouldBe(422);
        problem.GetProperty("title").GetString()!.ShouldNotBeEmpty();
        problem.GetProperty("detail").GetString()!.ShouldNotBeEmpty();
    }

    [Fact]
    public async Task A_class_number_that_is_no_number_is_not_found()
    {
        using var http = await at.Server.As("lead");

        (await http.GetAsync("/api/classes/abc")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await http.GetAsync("/api/classes/9999999999999999999999")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_second_click_is_done_once_and_gets_the_answer_of_the_first()
    {
        using var http = await at.Server.As("co");
        http.DefaultRequestHeaders.Add("Idempotency-Key", "one-intention");
        var body = new { course = "Twice", section = "1", period = "1", year = at.School.Years[0].Id.Value, term = (long?)null, plan = (long?)null, teacherShown = (string?)null };

        var answers = await Task.WhenAll(Enumerable.Range(0, 5).Select(_ => http.PostAsJsonAsync("/api/classes", body)));

        answers.ShouldAllBe(a => a.StatusCode == HttpStatusCode.OK);
        var ids = await Task.WhenAll(answers.Select(async a => (await a.Json()).GetProperty("id").GetInt64()));
        ids.Distinct().ShouldHaveSingleItem();
    }

    [Fact]
    public async Task What_was_refused_may_be_mended_and_sent_again_under_the_same_key()
    {
        using var http = await at.Server.As("co");
        http.DefaultRequestHeaders.Add("Idempotency-Key", "mended");

        (await http.PostAsJsonAsync($"{at.ClassPath}/notices", new { text = "" })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await http.PostAsJsonAsync($"{at.ClassPath}/notices", new { text = "Bring an apron." })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }

    public static TheoryData<string, string, string, string> Holes => new()
    {
        { "POST", "/api/people", "{}", "missing" },
        { "POST", "{class}/roster", """{"people":[0],"role":"Student","includeOpen":false}""", "person-unknown" },
        { "POST", "{class}/roster", """{"people":[0],"role":"CoTeacher","includeOpen":false}""", "person-unknown" },
        { "POST", "{class}/folders/1/tree", """{"paths":[null]}""", "missing" },
        { "POST", "{class}/structure?apply=false", """{"version":1,"folders":[],"things":[],"groups":[],"welcome":"","assignments":[{"title":"A","instructions":"","folders":[null]}]}""", "missing" },
        { "POST", "{class}/structure?apply=true", """{"version":1,"folders":[],"things":[],"groups":[],"welcome":"","assignments":[{"title":"A","instructions":"","folders":[[null]]}]}""", "missing" },
    };

    [Theory]
    [MemberData(nameof(Holes))]
    public async Task A_body_with_a_hole_in_it_is_refused(string method, string path, string body, string code)
    {
        using var http = await at.Server.As("coord");

        var answer = await http.SendAsync(new HttpRequestMessage(new(method), path.Replace("{class}", at.ClassPath, StringComparison.Ordinal)) { Content = Body(body) });

        (await answer.Code()).ShouldBe(code);
        ((int)answer.StatusCode).ShouldBeLessThan(500);
    }

    [Fact]
    public async Task A_body_without_what_it_is_about_is_not_taken_for_none_of_it()
    {
        var item = await at.School.Put(at.School.Lead, "Papers", "stays filed.txt", "x");
        using var http = await at.Server.As("coord");

        foreach (var (path, body, field) in ((string, string, string)[])[($"{at.ClassPath}/items/{item.Value}/folders", "{}", "folders"), ("/api/people/active", $"{{\"people\":[{at.School.OtherTeacher.Id.Value}]}}", "active")])
        {
            var answer = await http.PutAsync(path, Body(body));

            (await answer.Json()).ShouldSatisfyAllConditions(j => j.GetProperty("code").GetString().ShouldBe("missing"), j => j.GetProperty("field").GetString().ShouldBe(field));
        }
        at.School.Workspace.See(at.School.Lead, at.School.Class).Items.Single(i => i.Id == item).Folders.Count.ShouldBe(1);
        at.School.Read(c => Store.People.PersonStore.Find(c, at.School.OtherTeacher.Id))!.Active.ShouldBeTrue();
    }

    [Fact]
    public async Task An_encoding_that_there_is_not_is_refused()
    {
        using var http = await at.Server.As("lead");
        var body = Body("""{"text":"x"}""");
        body.Headers.ContentType = MediaTypeHeaderValue.Parse("application/json; charset=foo");

        var answer = await http.PostAsync($"{at.ClassPath}/notices", body);

        ((int)answer.StatusCode, await answer.Code()).ShouldBe((415, "type-wrong"));
    }

    public static TheoryData<string, string> BrokenZips => new()
    {
        { "/api/deliveries/files?year=1&name=r.zip", "count" }, { "/api/deliveries/files?year=1&name=r.zip", "method" },
        { "/api/loft/zips?year=1&apply=false", "count" }, { "/api/loft/zips?year=1&apply=false", "method" },
        { "/api/oneroster/resources/files?apply=false", "count" }, { "/api/oneroster/resources/files?apply=false", "method" },
        { "/api/plans/outline-of-zip/files", "count" }, { "/api/plans/outline-of-zip/files", "method" },
    };

    [Theory]
    [MemberData(nameof(BrokenZips))]
    public async Task A_zip_that_counts_wrong_or_is_packed_in_an_unknown_way_is_refused(string path, string how)
    {
        using var http = await at.Server.As("coord");
        var bytes = Zip.Of(("top/users.csv", "sourcedId,role,givenName,familyName\r\ns1,student,A,B\r\n"), ("resources.csv", "sourcedId,title\r\nr1,T\r\n")).ToArray();
        if (how == "count") bytes[^12]++;
        else
            for (var i = 0; i < bytes.Length - 12; i++)
            {
                // The method of packing, in each header of a file and in the list at the end (APPNOTE 4.3.7 and 4.3.12).
                if (bytes.AsSpan(i, 4).SequenceEqual("PK\x03\x04"u8)) bytes[i + 8] = 97;
                if (bytes.AsSpan(i, 4).SequenceEqual("PK\x01\x02"u8)) bytes[i + 10] = 97;
            }
        using var body = new ByteArrayContent(bytes);
        body.Headers.ContentType = new("application/octet-stream");

        var answer = await http.PostAsync(path, body);

        if (path.Contains("outline", StringComparison.Ordinal) && how == "method") return;
        ((int)answer.StatusCode).ShouldBeInRange(400, 422);
        (await answer.Code()).ShouldNotBeEmpty();
    }

    [Fact]
    public async Task A_key_that_was_used_for_something_else_is_refused_and_nothing_of_it_vanishes()
    {
        using var http = await at.Server.As("lead");
        var papers = at.School.FolderNamed("Papers").Value;
        Task<HttpResponseMessage> Put(string name, string text)
        {
            var body = new StreamContent(TinySchool.Bytes(text));
            body.Headers.ContentType = new("application/octet-stream");
            var request = new HttpRequestMessage(HttpMethod.Post, $"{at.ClassPath}/folders/{papers}/files?name={name}") { Content = body };
            request.Headers.Add("Idempotency-Key", "two-files");
            return http.SendAsync(request);
        }
        (await Put("first.txt", "one")).StatusCode.ShouldBe(HttpStatusCode.OK);

        (await (await Put("second.txt", "two")).Code()).ShouldBe("key-used");
        (await (await Put("first.txt", "two")).Code()).ShouldBe("key-used");
        (await Put("first.txt", "one")).StatusCode.ShouldBe(HttpStatusCode.OK);
        at.School.Read(c => Dapper.SqlMapper.ExecuteScalar<int>(c, "SELECT count(*) FROM item WHERE name LIKE 'first%' OR name LIKE 'second%'")).ShouldBe(1);
    }

    [Fact]
    public async Task What_is_changed_or_taken_away_twice_with_one_key_is_so_once()
    {
        using var http = await at.Server.As("lead");
        var item = await at.School.Put(at.School.Lead, "Papers", "to be binned.txt", "x");
        HttpRequestMessage Bin()
        {
            var request = new HttpRequestMessage(HttpMethod.Delete, $"{at.ClassPath}/items/{item.Value}");
            request.Headers.Add("Idempotency-Key", "bin-it");
            return request;
        }

        (await http.SendAsync(Bin())).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await http.SendAsync(Bin())).StatusCode.ShouldBe(HttpStatusCode.NoContent, "the answer of the first, not that it is gone already");
    }

    [Fact]
    public async Task A_number_is_no_name_of_a_choice()
    {
        using var http = await at.Server.As("lead", TinySchool.Password);
        var folder = at.School.FolderNamed("Papers").Value;
        foreach (var writers in new[] { "7", "0", "-1" })
        {
            var answer = await http.PutAsync($"{at.ClassPath}/folders/{folder}/talk", new StringContent($"{{\"writers\":{writers},\"group\":null,\"question\":null,\"closed\":false,\"version\":0}}", System.Text.Encoding.UTF8, "application/json"));
            answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest, $"{writers} would be kept, and nobody could read it");
        }
        at.School.Read(c => Store.Workspaces.TalkStore.OfClass(c, at.School.Class)).ShouldBeEmpty();
    }
}
