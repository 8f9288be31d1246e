using System.Net.Http.Json;
using System.Text.RegularExpressions;
using SpringLoft.Server.Hosting;

namespace SpringLoft.Server.Tests.Hosting;

/// <summary>The last coordinator gets back in from the machine, and nobody else is let in that way.</summary>
public sealed class BackInTests : IDisposable
{
    private readonly TinySchool school = new();

    public void Dispose() => school.Dispose();

    private static (int Code, string Said) Run(string data, string? name)
    {
        using var say = new StringWriter();
        return (BackIn.Run(data, name, say), say.ToString());
    }

    [Fact]
    public async Task A_coordinator_has_a_first_password_from_the_machine_and_it_is_on_record()
    {
        var (code, said) = Run(school.Folder, "COORD");
        code.ShouldBe(0, said);
        var phrase = Regex.Match(said, "[a-z]+-[a-z]+-[a-z]+-[0-9]{2}").Value;

        using var server = RealServer.Start(school.Folder);
        using var http = await server.As("coord", phrase);
        (await http.PostAsJsonAsync("/api/me/password", new { oldPassword = phrase, newPassword = "plum-otter-walks-home" })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await http.GetStringAsync("/api/audit")).ShouldContain("on the server itself");
        // While the program runs on it, the folder is not to be had.
        Run(school.Folder, "coord").Code.ShouldBe(3);
    }

    [Theory]
    [InlineData("lead")]
    [InlineData("nobody")]
    [InlineData(null)]
    public void Others_are_not_let_in_that_way(string? name)
    {
        var (code, said) = Run(school.Folder, name);

        code.ShouldBe(1);
        said.ShouldContain("Coordinators here: coord");
        school.SignIn("lead").Me.Id.ShouldBe(school.Lead.Id);
    }

    [Fact]
    public void A_folder_without_a_school_is_left_as_it_is()
    {
        var empty = Path.Combine(school.Folder, "elsewhere");

        Run(empty, "coord").Code.ShouldBe(3);
        Directory.Exists(empty).ShouldBeFalse();
    }
}
