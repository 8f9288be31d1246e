using System.Globalization;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Dapper;

namespace SpringLoft.Server.Tests.Hosting;

/// <summary>The real process killed while it applies a delivery: it is there whole afterwards, or not at all.</summary>
public sealed class DeliveryFaultTests : IDisposable
{
    private const int Students = 4000;
    private readonly TinySchool school = new();

    public void Dispose() => school.Dispose();

    private long Count(string sql) => school.Read(c => c.ExecuteScalar<long>(sql));

    private static MemoryStream Bundle()
    {
        var users = new StringBuilder("sourcedId,role,givenName,familyName,identifier,grades\n");
        var enrollments = new StringBuilder("sourcedId,classSourcedId,userSourcedId,role,primary\n");
        var classes = new StringBuilder("sourcedId,title,classCode,periods\n");
        for (var k = 0; k < 200; k++) classes.AppendLine(CultureInfo.InvariantCulture, $"k{k},Course {k},S{k},1");
        for (var i = 0; i < Students; i++)
        {
            users.AppendLine(CultureInfo.InvariantCulture, $"p{i},student,Given{i},Family{i},{9000 + i},6");
            for (var n = 0; n < 5; n++) enrollments.AppendLine(CultureInfo.InvariantCulture, $"e{i}-{n},k{(i + (n * 37)) % 200},p{i},student,false");
        }
        return Zip.Of(("users.csv", users.ToString()), ("classes.csv", classes.ToString()), ("enrollments.csv", enrollments.ToString()));
    }

    [Fact]
    public async Task Killed_at_any_moment_of_applying_it_is_there_whole_or_not_at_all()
    {
        var people = Count("SELECT count(*) FROM person");
        long id;
        using (var server = RealServer.Start(school.Folder))
        using (var http = await server.As("coord"))
        {
            using var body = new StreamContent(Bundle());
            body.Headers.ContentType = new("application/octet-stream");
            var answer = await http.PostAsync($"/api/deliveries/files?year={school.Years[0].Id.Value}&name=big.zip", body);
            id = (await answer.Json()).GetProperty("id").GetInt64();
            server.Terminate();
        }
        var whole = false;
        // Each time it is given four times as long, until it comes to its end; every outcome on the way is looked at.
        for (var wait = TimeSpan.FromMilliseconds(60); !whole; wait *= 4)
        {
            using (var server = RealServer.Start(school.Folder))
            using (var http = await server.As("coord"))
            {
                var version = (await http.GetFromJsonAsync<JsonElement>($"/api/deliveries/{id}")).GetProperty("summary").GetProperty("version").GetInt32();
                var applying = http.PostAsJsonAsync($"/api/deliveries/{id}/apply", new { plan = (long?)null, version });
                await Task.WhenAny(applying, Task.Delay(wait));
                server.Kill();
                try { await applying; }
                catch (HttpRequestException) { /* it was killed in the middle of it */ }
            }
            var (come, places, state) = (Count("SELECT count(*) FROM person") - people, Count("SELECT count(*) FROM member WHERE enrolled_by = 'Feed'"), school.Read(c => c.ExecuteScalar<string>("SELECT state FROM delivery")));
            whole = state == "Applied";
            (come, places).ShouldBe(whole ? (Students, Students * 5) : (0, 0), $"killed after {wait}");
            Count("SELECT count(*) FROM delivery_applied").ShouldBe(whole ? 1 : 0);
        }
        school.Read(c => c.ExecuteScalar<string>("PRAGMA integrity_check")).ShouldBe("ok");
    }
}
