using System.Net;
using System.Text;
using SpringLoft.App.Rosters;
using SpringLoft.Core.People;

namespace SpringLoft.App.Tests.Rosters;

/// <summary>A class of another program, over real HTTP messages; the program itself stands in Chromium's tests.</summary>
public sealed class OutsideClassesTests : SchoolTest
{
    private Uri? asked;

    private OutsideClasses Outside(HttpStatusCode status, string body, bool connected = true) =>
        new(school.Premises, new HttpClient(new Answering(r => { asked = r.RequestUri; return new(status) { Content = new StringContent(body, Encoding.UTF8, "application/json") }; })), () => connected ? new("http://other.example/api/") : null);

    private Task<OutsideClass> Look(OutsideClasses outside, string? code = "HARBOUR7") => outside.Look(school.Class, code, CancellationToken.None);

    [Fact]
    public async Task People_are_known_by_e_mail_and_by_full_name_and_who_is_nobody_is_said()
    {
        var found = await Look(Outside(HttpStatusCode.OK, """
            {"name": "Harbour Choir", "people": [
              {"name": "Somebody Else", "email": "lead@tiny.invalid", "role": "teacher"},
              {"name": "Umi Hallgrímsson", "email": null, "role": "student"},
              {"name": "Thora Windle", "email": "thora@elsewhere.invalid", "role": "student"},
              {"name": " ", "email": null, "role": "student"}]}
            """));

        found.Name.ShouldBe("Harbour Choir");
        found.People.Select(p => (p.Name, p.IsTeacher, p.Knowledge)).ShouldBe([("Somebody Else", true, Knowledge.Known), ("Umi Hallgrímsson", false, Knowledge.Known), ("Thora Windle", false, Knowledge.Unknown)]);
        found.People[0].People.ShouldHaveSingleItem().Id.ShouldBe(school.Lead.Id);
        found.People[1].People.ShouldHaveSingleItem().Id.ShouldBe(school.Umi.Id);
        found.People[2].People.ShouldBeEmpty();
    }

    [Fact]
    public async Task The_code_is_one_step_of_the_address_whatever_is_in_it()
    {
        await Look(Outside(HttpStatusCode.OK, """{"name": "X", "people": []}"""), "../admin?x=1#y");

        asked!.AbsoluteUri.ShouldBe("http://other.example/api/classes/..%2Fadmin%3Fx%3D1%23y");
    }

    [Theory]
    [InlineData("..")]
    [InlineData(".")]
    public async Task A_code_that_leads_up_is_no_code_and_nobody_is_asked(string code)
    {
        (await Refused(() => Look(Outside(HttpStatusCode.OK, "{}"), code))).ShouldBe("outside-unknown");
        asked.ShouldBeNull();
    }

    [Theory]
    [InlineData(HttpStatusCode.NotFound, "", "outside-unknown")]
    [InlineData(HttpStatusCode.InternalServerError, "oh", "outside-unreachable")]
    [InlineData(HttpStatusCode.OK, "<html>a login page</html>", "outside-unreachable")]
    [InlineData(HttpStatusCode.OK, """{"people": "none"}""", "outside-unreachable")]
    public async Task What_the_other_program_can_not_tell_is_said(HttpStatusCode status, string body, string code) => (await Refused(() => Look(Outside(status, body)))).ShouldBe(code);

    [Fact]
    public async Task A_class_without_name_or_people_is_a_class()
    {
        (await Look(Outside(HttpStatusCode.OK, "{}"))).ShouldSatisfyAllConditions(k => k.Name.ShouldBe("HARBOUR7"), k => k.People.ShouldBeEmpty());
        (await Look(Outside(HttpStatusCode.OK, "null"))).People.ShouldBeEmpty();
    }

    [Fact]
    public async Task Without_a_code_or_another_program_nothing_is_asked()
    {
        (await Refused(() => Look(Outside(HttpStatusCode.OK, "{}"), " "))).ShouldBe("missing");
        (await Refused(() => Look(Outside(HttpStatusCode.OK, "{}", connected: false)))).ShouldBe("outside-none");
        asked.ShouldBeNull();
    }

    private sealed class Answering(Func<HttpRequestMessage, HttpResponseMessage> answer) : HttpMessageHandler
    {
        protected override Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken cancellationToken) => Task.FromResult(answer(request));
    }
}
