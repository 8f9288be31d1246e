using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using NodaTime;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.OneRoster;
using SpringLoft.StandIns;
using SpringLoft.Tests.Shared;

namespace SpringLoft.StandIns.Tests;

/// <summary>The stand-in for the school's records, and our reading of it, over real HTTP. OAuth 2 by RFC 6749.</summary>
public sealed class RecordsServiceTests : IAsyncLifetime
{
    private readonly Scratch scratch = new();
    private readonly HttpClient http = new();
    private WebApplication app = null!;
    private Uri root = null!;

    public async Task InitializeAsync()
    {
        var path = scratch.Under("records.zip");
        await using (var file = File.Create(path))
            OneRosterRosters.Write(file, new(new("o", "Skerry Point School"), [new("y", "2026–27", "schoolYear", new(2026, 8, 31), new(2027, 6, 18), null), new("t", "Autumn", "term", new(2026, 8, 31), new(2026, 12, 18), "y")], [new("c", "Clay")], [new("k", "Clay 6B", "c", "6B", "Shed", "3", ["t"])],
                [new("t1", "Oisín", "Farquhar", SchoolRole.Teacher, null, "o@x.invalid", "ois", null, true), .. Enumerable.Range(1, 6000).Select(i => new OutUser($"p{i}", $"Given{i}", "Ö'Malley, \"x\"", SchoolRole.Student, $"{1000 + i}", null, $"u{i}", "6", true))],
                [new("e0", "k", "t1", ClassRole.Lead, null), .. Enumerable.Range(1, 6000).Select(i => new OutEnrollment($"e{i}", "k", $"p{i}", ClassRole.Student, null))]), Instant.FromUtc(2026, 9, 1, 0, 0));
        var builder = WebApplication.CreateSlimBuilder();
        builder.WebHost.UseUrls("http://127.0.0.1:0");
        app = builder.Build();
        new RecordsService(path).Map(app.MapGroup("/records"));
        await app.StartAsync();
        root = new Uri(app.Urls.First() + "/records");
    }

    public async Task DisposeAsync()
    {
        await app.DisposeAsync();
        http.Dispose();
        scratch.Dispose();
    }

    private OneRosterRest Rest(string secret = RecordsService.ClientSecret) => new(http, new(root, RecordsService.ClientId, secret));

    private async Task<(HttpStatusCode Status, JsonElement Body)> Token(string form, string? user = null)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, $"{root}/token") { Content = new StringContent(form, Encoding.UTF8, "application/x-www-form-urlencoded") };
        if (user is not null) request.Headers.Authorization = new AuthenticationHeaderValue("Basic", Convert.ToBase64String(Encoding.UTF8.GetBytes(user)));
        using var answer = await http.SendAsync(request);
        return (answer.StatusCode, JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement);
    }

    [Fact]
    public async Task What_the_records_have_is_fetched_page_by_page_and_read_like_a_file()
    {
        using var to = new MemoryStream();
        await Rest().Fetch(to, CancellationToken.None);
        to.Position = 0;
        var read = OneRosterBundle.Read(to);

        read.Findings.ShouldBeEmpty();
        read.Delivery.People.Count.ShouldBe(6001);
        read.Delivery.People[0].ShouldSatisfyAllConditions(p => p.Given.ShouldBe("Oisín"), p => p.Role.ShouldBe(SchoolRole.Teacher), p => p.School.ShouldBe("Skerry Point School"));
        read.Delivery.People[6000].ShouldSatisfyAllConditions(p => p.Family.ShouldBe("Ö'Malley, \"x\""), p => p.StudentNumber.ShouldBe("7000"), p => p.Grade.ShouldBe("6"));
        read.Delivery.Classes.Single().ShouldSatisfyAllConditions(k => k.Course.ShouldBe("Clay"), k => k.Section.ShouldBe("6B"), k => k.Period.ShouldBe("3"), k => k.Term.ShouldBe("Autumn"));
        read.Delivery.Enrollments.Count(e => e.Role == ClassRole.Student).ShouldBe(6000);
        (read.Delivery.First, read.Delivery.Last).ShouldBe((new(2026, 8, 31), new(2027, 6, 18)));
    }

    /// <summary>RFC 6749, sections 4.4.3 and 5.1.</summary>
    [Fact]
    public async Task A_known_client_gets_a_bearer_token()
    {
        var (status, body) = await Token("grant_type=client_credentials", $"{RecordsService.ClientId}:{RecordsService.ClientSecret}");

        status.ShouldBe(HttpStatusCode.OK);
        body.GetProperty("token_type").GetString()!.ToLowerInvariant().ShouldBe("bearer");
        body.GetProperty("access_token").GetString().ShouldNotBeNullOrEmpty();
        body.GetProperty("expires_in").GetInt32().ShouldBeGreaterThan(0);
    }

    /// <summary>RFC 6749, section 5.2.</summary>
    [Theory]
    [InlineData("grant_type=client_credentials", "spring-loft:wrong", 401, "invalid_client")]
    [InlineData("grant_type=client_credentials", null, 401, "invalid_client")]
    [InlineData("grant_type=password", "spring-loft:only-a-stand-in", 400, "unsupported_grant_type")]
    public async Task What_is_wrong_with_a_request_for_a_token_is_told_as_the_standard_says(string form, string? user, int status, string error)
    {
        var (got, body) = await Token(form, user);

        ((int)got, body.GetProperty("error").GetString()).ShouldBe((status, error));
    }

    [Fact]
    public async Task A_wrong_secret_is_told_with_what_to_do() =>
        (await Should.ThrowAsync<RefusedException>(() => Rest("wrong").Fetch(Stream.Null, CancellationToken.None))).Refusal.ShouldSatisfyAllConditions(r => r.Code.ShouldBe("feed-refused"), r => r.What.ShouldContain("invalid_client"));

    [Fact]
    public async Task Records_that_do_not_answer_and_answers_that_are_none_are_told()
    {
        async Task<string> Code(string address)
        {
            using var to = new MemoryStream();
            return (await Should.ThrowAsync<RefusedException>(() => new OneRosterRest(http, new(new(address), "a", "b")).Fetch(to, CancellationToken.None))).Refusal.Code;
        }

        (await Code("http://127.0.0.1:9/x")).ShouldBe("feed-unreachable");
        (await Code(root.AbsoluteUri.Replace("/records", "/nowhere", StringComparison.Ordinal))).ShouldBe("feed-refused");
    }

    [Fact]
    public async Task Without_a_token_nothing_is_given() => (await http.GetAsync($"{root}/ims/oneroster/rostering/v1p2/users")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
}
