using System.Net;

namespace SpringLoft.Server.Tests.Workspaces;

/// <summary>The way on which pages are written together is shut to whoever is not signed in; which pages it leads to is the use case's.</summary>
public sealed class TogetherHubTests(ServerAndSchool at) : IClassFixture<ServerAndSchool>
{
    [Fact]
    public async Task Whoever_is_not_signed_in_is_not_connected()
    {
        const string way = "/api/together/negotiate?negotiateVersion=1";
        using var nobody = at.Server.Nobody();
        (await nobody.PostAsync(way, null)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await nobody.GetAsync("/api/together?id=x")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        using var umi = await at.Server.As("umi");
        (await umi.PostAsync(way, null)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }
}
