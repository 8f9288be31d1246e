using SpringLoft.App.People;
using SpringLoft.App.Rosters;

namespace SpringLoft.App.Tests.People;

public class SessionsTests : SchoolTest
{
    private Present? Who(SignedIn signed) => school.Sessions.Who(signed.Token);

    [Fact]
    public void One_sees_where_one_is_signed_in_and_ends_one_place_or_all_others()
    {
        var (here, laptop, library) = (school.SignIn("umi"), school.SignIn("umi", from: CameFrom.New("Mozilla/5.0 (Windows NT 10.0) AppleWebKit/537.36 Chrome/140.0 Safari/537.36", "198.51.100.9")), school.SignIn("umi"));
        var session = Who(here)!.Session;

        var seen = school.Sessions.Of(school.Umi, session).Sessions;
        seen.Count.ShouldBe(3);
        seen.Single(s => s.Here).Browser.ShouldBe("Firefox on Linux");
        var away = seen.Single(s => s.Address == "198.51.100.9");
        away.Browser.ShouldBe("Chrome on Windows");

        school.Sessions.End(school.Umi, away.Id);
        Who(laptop).ShouldBeNull();
        Who(library).ShouldNotBeNull();
        Refused(() => school.Sessions.End(school.Umi, away.Id)).ShouldBe("not-found");
        Refused(() => school.Sessions.End(school.Rúna, session)).ShouldBe("not-found");
        school.Sessions.EndOthers(school.Umi, session).ShouldBe(1);
        Who(library).ShouldBeNull();
        Who(here)!.Me.Id.ShouldBe(school.Umi.Id);
    }

    [Fact]
    public void A_token_that_was_copied_is_worth_nothing_after_signing_out()
    {
        var signed = school.SignIn("lead");

        school.Sessions.SignOut(signed.Token);

        Who(signed).ShouldBeNull();
        school.Sessions.SignOut(signed.Token);
        school.Sessions.Who("made up").ShouldBeNull();
    }

    [Fact]
    public void A_sign_in_ends_ten_hours_after_it_was_used_last_and_five_days_after_it_was_begun()
    {
        var (idle, used) = (school.SignIn("lead"), school.SignIn("lead"));
        for (var hour = 9; hour < 120; hour += 9)
        {
            school.Clock.AdvanceHours(9);
            Who(used).ShouldNotBeNull($"after {hour} hours");
        }
        Who(idle).ShouldBeNull();
        school.Clock.AdvanceHours(4);

        Who(used).ShouldBeNull();
    }

    [Fact]
    public void A_screen_that_asks_by_itself_keeps_no_sign_in_awake()
    {
        var signed = school.SignIn("lead");
        for (var hour = 0; hour < 9; hour++)
        {
            school.Clock.AdvanceHours(1);
            school.Sessions.Who(signed.Token, byItself: true).ShouldNotBeNull();
        }
        school.Clock.AdvanceHours(1);
        school.Sessions.Who(signed.Token, byItself: true).ShouldBeNull("nobody was before it for ten hours");
    }

    [Fact]
    public void How_long_a_sign_in_goes_on_is_the_schools_to_lay_down()
    {
        var signed = school.SignIn("lead");
        school.SetRules(r => r with { IdleHours = 2, MostDays = 1 });
        var view = school.Sessions.Of(school.Lead, Who(signed)!.Session);
        (view.IdleHours, view.MostDays).ShouldBe((2, 1));

        school.Clock.AdvanceHours(2);

        Who(signed).ShouldBeNull();
        var again = school.SignIn("lead");
        for (var hour = 1; hour < 24; hour++)
        {
            school.Clock.AdvanceHours(1);
            Who(again).ShouldNotBeNull($"after {hour} hours");
        }
        school.Clock.AdvanceHours(1);
        Who(again).ShouldBeNull();
    }

    [Fact]
    public void The_date_of_a_demo_that_is_moved_signs_nobody_out()
    {
        var signed = school.SignIn("lead");

        school.Premises.Clock.MoveTo(new LocalDate(2029, 9, 1));

        Who(signed).ShouldNotBeNull();
    }

    [Fact]
    public void Another_role_and_leaving_sign_out_everywhere()
    {
        var directory = new SchoolDirectory(school.Premises);
        var (teacher, student, other) = (school.SignIn("other"), school.SignIn("umi"), school.SignIn("co"));

        directory.SetRole(school.Coordinator, [school.OtherTeacher.Id], SchoolRole.Coordinator);
        new Leavers(school.Premises).Mark(school.Coordinator, [school.Umi.Id], offRosters: false);

        Who(teacher).ShouldBeNull();
        Who(student).ShouldBeNull();
        Who(other).ShouldNotBeNull();
        // Back again, an old sign-in does not come to life.
        new Leavers(school.Premises).BringBack(school.Coordinator, [school.Umi.Id]);
        Who(student).ShouldBeNull();
    }

    [Fact]
    public void Who_set_the_password_is_told_to_whose_it_is()
    {
        school.OpenClass();
        new Slips(school.Premises).Renew(school.Coordinator, null, [school.Umi.Id]);

        school.Sessions.Of(school.Umi, default).ShouldSatisfyAllConditions(v => v.SetBy.ShouldBe("Wren Aldersund"), v => v.SetBySelf.ShouldBeFalse(), v => v.SetAt.ShouldNotBeNull());
    }

    [Fact]
    public void Of_a_token_nothing_but_its_digest_is_kept()
    {
        var signed = school.SignIn("lead");

        var everything = school.Read(c => string.Join('|', Dapper.SqlMapper.Query<string>(c, "SELECT token_sha FROM session")));
        everything.ShouldNotContain(signed.Token);
        everything.ShouldContain(Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(signed.Token))));
    }
}
