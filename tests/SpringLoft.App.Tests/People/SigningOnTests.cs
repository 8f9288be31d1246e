using SpringLoft.App.Audit;
using SpringLoft.App.People;
using SpringLoft.Core.People;

namespace SpringLoft.App.Tests.People;

public class SigningOnTests : SchoolTest
{
    private const string Issuer = "https://id.example/";
    private readonly SigningOn signingOn;
    private ProviderRules rules = new("Island District", PasswordsOffFor.Nobody, false, new HashSet<string>(), new HashSet<string>(), new HashSet<string>(["mfa"]));

    public SigningOnTests() => signingOn = new(school.Premises, new(() => [new("island", Issuer, rules)]));

    private SigningIn Passwords => new(school.Premises, new GuessLimits(), new(() => [new("island", Issuer, rules)]));

    private SignedIn Come(string subject, string? userName = null, string? number = null, string? session = null, string[]? methods = null) => signingOn.SignIn("island",
        new(subject, new(new(null, number, null, userName, null, false, null), false, new HashSet<string>(), new HashSet<string>(methods ?? [])), session, "id-token"), CameFrom.New("Firefox", "192.0.2.7"));

    private Present? Who(SignedIn signed) => school.Sessions.Who(signed.Token);

    private string[] Lines(string act) => [.. new AuditTrail(school.Premises).See(null, null, act, null).Where(l => l.Act == act).Select(l => l.Detail ?? "")];

    [Fact]
    public void The_first_time_the_directory_says_who_it_is_and_from_then_on_the_account()
    {
        Come("abc", number: "1001").Me.Id.ShouldBe(school.Umi.Id);
        school.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "UPDATE person SET student_number = '9999', user_name = 'another' WHERE user_name = 'umi'"));

        Come("abc", userName: "runa").Me.Id.ShouldBe(school.Umi.Id);
        Lines("known at a provider").ShouldBe(["Island District"]);
        signingOn.AccountsOf(school.Umi.Id).Select(a => a.Provider).ShouldBe(["Island District"]);
    }

    [Fact]
    public void Since_when_an_account_is_known_is_told_in_the_time_that_the_school_lives_in()
    {
        school.Premises.Clock.MoveTo(new LocalDate(2029, 9, 1));
        school.ProviderList = [new("island", Issuer, rules)];

        var present = Who(Come("abc", userName: "umi"))!;

        var since = signingOn.AccountsOf(school.Umi.Id).Single().Since;
        since.InUtc().Date.ShouldBe(new LocalDate(2029, 9, 1));
        school.Sessions.Of(school.Umi, present.Session).Accounts.Single().Since.ShouldBe(since);
    }

    [Fact]
    public void Who_is_turned_away_leaves_a_line_and_no_trace_else()
    {
        Refused(() => Come("v", userName: "visitor")).ShouldBe("sign-on-nobody");
        Refused(() => Come("two", userName: "lead", number: "1001")).ShouldBe("sign-on-two");

        Lines("turned away").Length.ShouldBe(2);
        Lines("turned away")[0].ShouldContain("names two different people");
        school.Premises.Db.Read(c => Dapper.SqlMapper.ExecuteScalar<int>(c, "SELECT (SELECT count(*) FROM provider_account) + (SELECT count(*) FROM session)")).ShouldBe(0);
    }

    [Fact]
    public void Nobody_is_asked_to_change_a_first_password_that_they_do_not_use()
    {
        school.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "UPDATE sign_in SET must_change = 1"));

        Who(Come("abc", userName: "umi"))!.Me.MustChangePassword.ShouldBeFalse();
        Who(school.SignIn("umi"))!.Me.MustChangePassword.ShouldBeTrue();
    }

    [Fact]
    public void Somebody_without_a_password_signs_in_and_sees_their_sign_ins()
    {
        school.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "DELETE FROM sign_in WHERE person_id = @id", new { id = school.Umi.Id.Value }));

        var present = Who(Come("abc", userName: "umi"))!;

        school.ProviderList = [new("island", Issuer, rules)];
        school.Sessions.Of(school.Umi, present.Session).Sessions.Single().With.ShouldBe("Island District");
    }

    [Fact]
    public void A_password_is_off_once_its_owner_came_with_the_provider_and_good_again_when_the_account_is_forgotten()
    {
        var from = CameFrom.New(null, "192.0.2.7");
        rules = rules with { PasswordsOff = PasswordsOffFor.Students };
        Passwords.SignIn("umi", TinySchool.Password, from).Me.Id.ShouldBe(school.Umi.Id);
        Come("abc", userName: "umi");
        Come("l", userName: "lead");

        // A right one is no wrong one, as often as it comes; a wrong one learns nothing.
        for (var i = 0; i < 12; i++) Refused(() => Passwords.SignIn("umi", TinySchool.Password, from)).ShouldBe("password-off");
        Refused(() => Passwords.SignIn("umi", "wrong", from)).ShouldBe("sign-in-wrong");
        Passwords.SignIn("lead", TinySchool.Password, from).Me.Id.ShouldBe(school.Lead.Id);
        Passwords.SignIn("runa", TinySchool.Password, from).Me.Id.ShouldBe(school.Rúna.Id);

        signingOn.Forget(school.Coordinator, school.Umi.Id);
        Passwords.SignIn("umi", TinySchool.Password, from).Me.Id.ShouldBe(school.Umi.Id);
        Refused(() => signingOn.Forget(school.Coordinator, school.Umi.Id)).ShouldBe("not-found");
    }

    [Fact]
    public void Forgetting_an_account_signs_out_and_takes_another_one()
    {
        var signed = Come("lost", userName: "lead");
        Refused(() => Come("new", userName: "lead")).ShouldBe("sign-on-other-account");

        signingOn.Forget(school.Coordinator, school.Lead.Id);

        Who(signed).ShouldBeNull();
        Come("new", userName: "lead").Me.Id.ShouldBe(school.Lead.Id);
        Lines("forgot account").ShouldBe(["Oisín Farquhar, Island District"]);
    }

    [Fact]
    public void A_second_step_shown_there_is_one_here_and_a_password_shown_there_is_not()
    {
        school.SetRules(r => r with { SecondStep = SecondStepFor.Staff });

        Who(Come("a", userName: "lead"))!.Me.Door.ShouldBe(Door.StepToSetUp);
        Who(Come("a", userName: "lead", methods: ["pwd", "mfa"]))!.Me.Door.ShouldBe(Door.Open);
    }

    [Fact]
    public void Signing_out_there_ends_what_that_account_or_that_session_began_and_nothing_else()
    {
        var (one, two, other) = (Come("abc", userName: "umi", session: "s1"), Come("abc", session: "s2"), Come("r", userName: "runa", session: "s3"));
        var password = school.SignIn("umi");

        signingOn.SignedOutThere("island", "abc", "s1");
        (Who(one) is null, Who(two) is null).ShouldBe((true, false));
        signingOn.SignedOutThere("island", "abc", null);
        Who(two).ShouldBeNull();
        signingOn.SignedOutThere("island", null, "s3");
        Who(other).ShouldBeNull();

        Who(password).ShouldNotBeNull();
        Lines("signed out").ShouldAllBe(d => d == "at Island District");
    }

    [Fact]
    public void Signing_out_says_where_it_goes_on()
    {
        school.ProviderList = [new("island", Issuer, rules)];

        school.Sessions.SignOut(Come("abc", userName: "umi").Token).ShouldBe(new("island", "id-token"));
        school.Sessions.SignOut(school.SignIn("umi").Token).ShouldBeNull();
    }

    [Fact]
    public void An_account_of_somebody_who_was_joined_into_another_is_that_ones()
    {
        Come("abc", userName: "runa");

        new SchoolDirectory(school.Premises).Join(school.Coordinator, school.Umi.Id, school.Rúna.Id);

        Come("abc").Me.Id.ShouldBe(school.Umi.Id);
    }

    [Fact]
    public void Whoever_is_erased_is_known_at_no_provider()
    {
        Come("abc", userName: "umi");
        school.Premises.Db.Write(c => Store.People.ErasingStore.Erase(c, school.Umi.Id, "person", school.Clock.GetCurrentInstant()));

        signingOn.AccountsOf(school.Umi.Id).ShouldBeEmpty();
        Refused(() => Come("abc", number: "1001")).ShouldBe("sign-on-nobody");
    }
}
