using System.Collections.Concurrent;
using System.Net.Http.Json;
using System.Text;
using Dapper;

namespace SpringLoft.Server.Tests.Hosting;

/// <summary>
/// Many people at once while the process is killed again and again: whatever was acknowledged is there once, whatever was cut
/// off is sent again with its key and is there once too, and each retry gets the answer of the first.
/// </summary>
public sealed class KillCampaignTests : IDisposable
{
    private const int Kills = 40;
    private const int People = 14;

    private readonly TinySchool school = new();

    public KillCampaignTests() => school.OpenClass();

    private sealed record Sent(string Mark, string Key, Func<HttpRequestMessage> Request)
    {
        internal string? Answer { get; set; }
    }

    // What people do all day, each time with something that can be found again.
    private Sent Act(int person, int n, FolderId papers, FolderId own)
    {
        var mark = $"mark-{person}-{n}";
        var path = $"/api/classes/{school.Class.Value}";
        HttpRequestMessage With(HttpMethod method, string to, HttpContent body)
        {
            var request = new HttpRequestMessage(method, to) { Content = body };
            request.Headers.Add("Idempotency-Key", mark);
            return request;
        }
        StreamContent Bytes()
        {
            var body = new StreamContent(new MemoryStream(Encoding.UTF8.GetBytes(mark)));
            body.Headers.ContentType = new("application/octet-stream");
            return body;
        }
        return new(mark, mark, (n % 3) switch
        {
            0 => () => With(HttpMethod.Post, $"{path}/notices", JsonContent.Create(new { text = mark })),
            1 => () => With(HttpMethod.Post, $"{path}/folders/{papers.Value}/files?name={mark}.txt", Bytes()),
            _ => () => With(HttpMethod.Post, $"{path}/folders/{own.Value}/links", JsonContent.Create(new { title = mark, url = "https://a.invalid/" })),
        });
    }

    // Signed in once and for all: what was acknowledged goes on through every kill, a sign-in too.
    private static async Task<string> SignIn(RealServer server, string userName)
    {
        using var http = new HttpClient(new HttpClientHandler { UseCookies = false }) { BaseAddress = server.Address };
        using var answer = await http.PostAsJsonAsync("/api/sign-in", new { userName, password = TinySchool.Password });
        return answer.Headers.GetValues("Set-Cookie").First(c => c.StartsWith("spring-loft=", StringComparison.Ordinal)).Split(';')[0];
    }

    private static HttpClient With(RealServer server, string cookie)
    {
        var http = new HttpClient(new HttpClientHandler { UseCookies = false }) { BaseAddress = server.Address, Timeout = Timeout.InfiniteTimeSpan };
        http.DefaultRequestHeaders.Add("Cookie", cookie);
        return http;
    }

    private int Times(string mark) => school.Read(c => c.ExecuteScalar<int>(
        "SELECT (SELECT count(*) FROM notice WHERE text = @mark) + (SELECT count(*) FROM item WHERE name IN (@mark, @mark || '.txt') OR name LIKE @mark || ' (%' OR name LIKE @mark || '.txt (%')", new { mark }));

    [Fact]
    public async Task Whatever_was_acknowledged_is_there_once_and_every_retry_gets_the_same_answer()
    {
        var (papers, own) = (school.FolderNamed("Papers"), school.FolderNamed("Start here"));
        var waiting = new ConcurrentQueue<Sent>[People];
        for (var i = 0; i < People; i++) waiting[i] = new();
        var done = new ConcurrentBag<Sent>();
        var next = new int[People];
        var cutOff = 0;
        string[]? signedIn = null;
        for (var kill = 0; kill <= Kills; kill++)
        {
            using var server = RealServer.Start(school.Folder);
            signedIn ??= [await SignIn(server, "lead"), await SignIn(server, "co")];
            using var stop = new CancellationTokenSource();
            var answered = 0;
            var enough = new TaskCompletionSource();
            var last = kill == Kills;
            var work = Enumerable.Range(0, People).Select(i => Task.Run(async () =>
            {
                using var http = With(server, signedIn[i % 2]);
                while (!stop.IsCancellationRequested)
                {
                    if (!waiting[i].TryDequeue(out var act))
                    {
                        if (last) return;
                        act = Act(i, next[i]++, papers, own);
                    }
                    try
                    {
                        using var answer = await http.SendAsync(act.Request());
                        var text = await answer.Content.ReadAsStringAsync();
                        answer.IsSuccessStatusCode.ShouldBeTrue($"{act.Mark}: {(int)answer.StatusCode} {text}");
                        act.Answer = $"{(int)answer.StatusCode} {text}";
                        done.Add(act);
                        if (Interlocked.Increment(ref answered) == 40) enough.TrySetResult();
                    }
                    catch (Exception e) when (e is HttpRequestException or IOException)
                    {
                        Interlocked.Increment(ref cutOff);
                        waiting[i].Enqueue(act);
                        return;
                    }
                }
            })).ToList();
            if (!last)
            {
                await Task.WhenAny(enough.Task, Task.WhenAll(work));
                server.Kill();
                await stop.CancelAsync();
            }
            await Task.WhenAll(work);
            if (last)
            {
                // Each act once more: the answer is the first one's, and nothing is done again.
                using var lead = With(server, signedIn[0]);
                using var co = With(server, signedIn[1]);
                foreach (var act in done)
                {
                    using var answer = await (int.Parse(act.Mark.Split('-')[1], System.Globalization.CultureInfo.InvariantCulture) % 2 == 0 ? lead : co).SendAsync(act.Request());
                    $"{(int)answer.StatusCode} {await answer.Content.ReadAsStringAsync()}".ShouldBe(act.Answer, act.Mark);
                }
            }
            school.Read(c => c.ExecuteScalar<string>("PRAGMA integrity_check")).ShouldBe("ok");
            school.Read(c => c.Query("PRAGMA foreign_key_check").Count()).ShouldBe(0);
        }
        done.Count.ShouldBeGreaterThan(Kills * 20);
        cutOff.ShouldBeGreaterThan(Kills, "the kills met people at work");
        foreach (var act in done) Times(act.Mark).ShouldBe(1, act.Mark);
    }

    public void Dispose() => school.Dispose();
}
