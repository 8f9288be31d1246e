using OtpNet;
using SpringLoft.App.Audit;
using SpringLoft.App.People;
using SpringLoft.Core.People;
using SpringLoft.Store.People;

namespace SpringLoft.App.Tests.People;

public class SecondStepsTests : SchoolTest
{
    private readonly SecondSteps steps;

    public SecondStepsTests() => steps = new(school.Premises, new(school.Premises, new(() => new("https://loft.example"))));

    private SessionId Enter(string userName = "coord") => school.Sessions.Who(school.SignIn(userName).Token)!.Session;

    private string CodeOf(AppToSetUp app) => new Totp(Base32Encoding.ToBytes(app.Secret)).ComputeTotp(school.Clock.GetCurrentInstant().ToDateTimeUtc());

    private (AppToSetUp App, IReadOnlyList<string> Codes) SetUp(Caller who, SessionId here)
    {
        var app = steps.BeginApp(who);
        var codes = steps.ConfirmApp(who, here, CodeOf(app)).Codes;
        school.Clock.AdvanceMinutes(1);
        return (app, codes);
    }

    private Door DoorOf(string token) => school.Sessions.Who(token)!.Me.Door;

    private int Acts(string act) => new AuditTrail(school.Premises).See(null, null, act, null).Count(l => l.Act == act);

    [Fact]
    public void With_an_app_the_password_alone_opens_nothing_and_the_code_does()
    {
        var (app, codes) = SetUp(school.Coordinator, Enter());
        codes.Count.ShouldBe(SecondStepRules.RecoveryCodes);

        var signed = school.SignIn("coord");
        signed.Me.Door.ShouldBe(Door.StepNeeded);
        var here = school.Sessions.Who(signed.Token)!.Session;
        Refused(() => steps.Pass(school.Coordinator, here, "000000")).ShouldBe("code-not-right");
        DoorOf(signed.Token).ShouldBe(Door.StepNeeded);

        steps.Pass(school.Coordinator, here, CodeOf(app));

        DoorOf(signed.Token).ShouldBe(Door.Open);
        (Acts("passed second step"), Acts("wrong second step")).ShouldBe((1, 1));
    }

    [Fact]
    public void A_code_that_somebody_saw_is_worth_nothing_once_it_was_used()
    {
        var (app, _) = SetUp(school.Coordinator, Enter());
        var code = CodeOf(app);
        steps.Pass(school.Coordinator, Enter(), code);

        Refused(() => steps.Pass(school.Coordinator, Enter(), code)).ShouldBe("code-not-right");
    }

    [Fact]
    public void A_recovery_code_is_good_once_and_new_ones_end_the_old()
    {
        var (_, codes) = SetUp(school.Coordinator, Enter());
        steps.Pass(school.Coordinator, Enter(), codes[0].ToUpperInvariant());
        Refused(() => steps.Pass(school.Coordinator, Enter(), codes[0])).ShouldBe("code-not-right");
        steps.See(school.Coordinator).RecoveryCodes.ShouldBe(9);

        var next = steps.RenewCodes(school.Coordinator).Codes;

        Refused(() => steps.Pass(school.Coordinator, Enter(), codes[1])).ShouldBe("code-not-right");
        steps.Pass(school.Coordinator, Enter(), next[1]);
        Refused(() => steps.Pass(school.Lead, Enter("lead"), next[2])).ShouldBe("code-not-right", "they are one person's");
    }

    [Fact]
    public void An_app_that_showed_no_right_code_is_no_second_step()
    {
        var app = steps.BeginApp(school.Coordinator);
        var here = Enter();
        Refused(() => steps.ConfirmApp(school.Coordinator, here, "123456")).ShouldBe("code-not-right");

        school.SignIn("coord").Me.Door.ShouldBe(Door.Open);
        Refused(() => steps.Pass(school.Coordinator, here, CodeOf(app))).ShouldBe("code-not-right");
        Refused(() => steps.RenewCodes(school.Coordinator)).ShouldBe("app-none");
        steps.ConfirmApp(school.Coordinator, here, CodeOf(app));
        Refused(() => steps.BeginApp(school.Coordinator)).ShouldBe("app-there");
        Refused(() => steps.ConfirmApp(school.Coordinator, here, CodeOf(app))).ShouldBe("app-none");
    }

    [Fact]
    public async Task Guessing_codes_is_slowed_down_also_when_they_are_sent_at_once()
    {
        SetUp(school.Coordinator, Enter());
        var here = Enter();

        var answers = await Task.WhenAll(Enumerable.Range(0, 20).Select(i => Task.Run(() => Refused(() => steps.Pass(school.Coordinator, here, $"{i:000000}")))));

        answers.Count(a => a == "code-not-right").ShouldBe(5);
        answers.Count(a => a == "sign-in-shut").ShouldBe(15);
    }

    [Fact]
    public void Where_the_school_asks_one_who_has_none_sets_it_up_first_and_the_last_one_stays()
    {
        school.SetRules(r => r with { SecondStep = SecondStepFor.Coordinators });
        var signed = school.SignIn("coord");
        signed.Me.Door.ShouldBe(Door.StepToSetUp);
        school.SignIn("lead").Me.Door.ShouldBe(Door.Open);

        SetUp(school.Coordinator, school.Sessions.Who(signed.Token)!.Session);

        DoorOf(signed.Token).ShouldBe(Door.Open);
        Refused(() => steps.RemoveApp(school.Coordinator)).ShouldBe("step-required");
    }

    [Fact]
    public void Taken_away_nothing_of_it_is_left()
    {
        var (_, codes) = SetUp(school.Coordinator, Enter());

        steps.RemoveApp(school.Coordinator);

        school.SignIn("coord").Me.Door.ShouldBe(Door.Open);
        steps.See(school.Coordinator).RecoveryCodes.ShouldBe(0);
        Refused(() => steps.Pass(school.Coordinator, Enter(), codes[0])).ShouldBe("code-not-right");
    }

    [Fact]
    public void Who_has_lost_it_is_helped_by_another_coordinator_with_a_trace_and_a_letter()
    {
        SetUp(school.Lead, Enter("lead"));
        var token = school.SignIn("lead").Token;

        steps.EndOf(school.Coordinator, school.Lead.Id);

        school.Sessions.Who(token).ShouldBeNull("whoever may have it now is signed out");
        school.SignIn("lead").Me.Door.ShouldBe(Door.Open);
        Acts("ended second step").ShouldBe(1);
        Refused(() => steps.EndOf(school.Coordinator, school.Lead.Id)).ShouldBe("not-found");
        SetUp(school.Coordinator, Enter());
        Refused(() => steps.EndOf(school.Coordinator, school.Coordinator.Id)).ShouldBe("step-own");
    }

    [Fact]
    public void Who_becomes_a_student_has_none_any_more()
    {
        SetUp(school.Lead, Enter("lead"));

        school.Premises.Db.Write(c => { Dapper.SqlMapper.Execute(c, "UPDATE person SET role = 'Student' WHERE id = @id", new { id = school.Lead.Id.Value }); });

        school.Read(c => SecondStepStore.Of(c, school.Lead.Id)).Has.ShouldBeFalse();
        school.SignIn("lead").Me.Door.ShouldBe(Door.Open);
    }

    [Fact]
    public void A_passkey_is_for_a_name_and_never_for_a_number()
    {
        new Passkeys(school.Premises, new(() => new("http://127.0.0.1:5080"))).Offered.ShouldBeFalse();
        var passkeys = new Passkeys(school.Premises, new(() => new("https://loft.example")));
        passkeys.Offered.ShouldBeTrue();
        passkeys.AskForNew(school.Lead, Enter("lead")).Options.ShouldContain("\"id\":\"loft.example\"");
        Refused(() => passkeys.Ask(school.Lead, Enter("lead"))).ShouldBe("not-found");
    }

    [Fact]
    public async Task What_is_no_answer_of_a_passkey_is_refused_and_a_challenge_is_answered_once()
    {
        var passkeys = new Passkeys(school.Premises, new(() => new("https://loft.example")));
        var here = Enter("lead");
        foreach (var answer in (string?[])[null, "", "{}", "[]", """{"id":"x","rawId":"eA","type":"public-key","response":{}}"""])
        {
            passkeys.AskForNew(school.Lead, here);
            (await Refused(() => passkeys.Add(school.Lead, here, "Phone", answer, CancellationToken.None))).ShouldBe("passkey-wrong", answer);
        }
        (await Refused(() => passkeys.Pass(school.Lead, here, "{}", CancellationToken.None))).ShouldBe("passkey-wrong");
    }
}
