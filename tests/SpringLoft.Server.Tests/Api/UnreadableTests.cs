using System.Net;
using System.Text;
using System.Text.Json;

namespace SpringLoft.Server.Tests.Api;

/// <summary>What can't be read is told by its place in the request, and never by the names of the program's own types.</summary>
public class UnreadableTests
{
    [Fact]
    public async Task The_place_is_named_and_no_type_is()
    {
        using var school = new TinySchool();
        using var server = RealServer.Start(school.Folder);
        using var http = await server.As("coord");
        async Task<(string Title, string? Field)> Sent(HttpMethod method, string path, string? body)
        {
            using var request = new HttpRequestMessage(method, path) { Content = body is null ? null : new StringContent(body, Encoding.UTF8, "application/json") };
            using var answer = await http.SendAsync(request);
            answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest, path);
            var text = await answer.Content.ReadAsStringAsync();
            text.ShouldNotContain("SpringLoft.");
            text.ShouldNotContain("System.");
            text.ShouldNotContain("Nullable");
            using var json = JsonDocument.Parse(text);
            return (json.RootElement.GetProperty("title").GetString()!, json.RootElement.TryGetProperty("field", out var f) ? f.GetString() : null);
        }
        var k = $"/api/classes/{school.Class.Value}";

        (await Sent(HttpMethod.Post, $"{k}/welcome/together", """{"was":"","text":"a","decided":{"seen":1,"choices":[{"place":0,"side":"Ours"}]}}""")).Field.ShouldBe("decided.choices[0].side");
        (await Sent(HttpMethod.Put, $"{k}/about", """{"was":7}""")).ShouldSatisfyAllConditions(a => a.Title.ShouldContain("at “was”"), a => a.Field.ShouldBe("was"));
        (await Sent(HttpMethod.Post, $"{k}/notices", "{")).Title.ShouldContain("can't be read");
        (await Sent(HttpMethod.Post, $"{k}/notices", "[]")).Title.ShouldContain("can't be read");
        (await Sent(HttpMethod.Get, "/api/board?year=last", null)).ShouldSatisfyAllConditions(a => a.Title.ShouldContain("“last” is no value for “year”"), a => a.Field.ShouldBe("year"));
        await Sent(HttpMethod.Get, "/api/closing?year=99999999999999999999999", null);
    }
}
