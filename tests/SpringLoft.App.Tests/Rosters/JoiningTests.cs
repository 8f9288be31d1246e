using SpringLoft.App.Rosters;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.Tests.Rosters;

public class JoiningTests : SchoolTest
{
    private Joining Joining => new(school.Premises);

    private string Code(int days = 7, int? most = null, bool waits = false)
    {
        Joining.Renew(school.Lead, school.Class, days, most, waits);
        return Joining.See(school.Class).Code!;
    }

    [Fact]
    public void A_student_with_the_code_is_on_the_roster_with_their_own_folder()
    {
        school.OpenClass();
        var joined = Joining.Join(school.Outsider, Code().ToLowerInvariant().Replace("-", " ", StringComparison.Ordinal));

        (joined.Class, joined.Waits, joined.IsOpen).ShouldBe((school.Class, false, true));
        school.Workspace.See(school.Outsider, school.Class).Folders.ShouldContain(f => f.Mine);
        school.Roster.See(school.Class).Single(r => r.Id == school.Outsider.Id).By.ShouldBe(EnrolledBy.Code);
        Joining.See(school.Class).Used.ShouldBe(1);
    }

    [Fact]
    public void A_new_code_ends_the_one_before_and_time_and_number_end_both()
    {
        var first = Code();
        var second = Code(days: 2, most: 1);

        Refused(() => Joining.Join(school.Umi, first)).ShouldBe("code-wrong");
        Joining.Join(school.Umi, second);
        Refused(() => Joining.Join(school.Rúna, second)).ShouldBe("code-used-up");
        school.Clock.AdvanceDays(2);
        Refused(() => Joining.Join(school.Outsider, second)).ShouldBe("code-expired");
        Joining.Stop(school.Lead, school.Class);
        Refused(() => Joining.Join(school.Outsider, second)).ShouldBe("code-wrong");
    }

    [Fact]
    public void Joins_can_wait_for_a_yes_and_a_no_lets_nobody_in()
    {
        var code = Code(waits: true);
        Joining.Join(school.Umi, code).Waits.ShouldBeTrue();
        Joining.Join(school.Rúna, code);
        Joining.See(school.Class).Waiting.Select(w => w.Id).ShouldBe([school.Umi.Id, school.Rúna.Id]);

        Joining.Answer(school.Lead, school.Class, school.Umi.Id, true);
        Joining.Answer(school.Lead, school.Class, school.Rúna.Id, false);

        school.Roster.See(school.Class).Where(r => r.Role == ClassRole.Student).Select(r => r.Id).ShouldBe([school.Umi.Id]);
        Refused(() => Joining.Answer(school.Lead, school.Class, school.Rúna.Id, true)).ShouldBe("not-found");
    }

    [Fact]
    public void Whom_a_teacher_took_off_does_not_come_back_by_the_code_alone()
    {
        var code = Code();
        Joining.Join(school.Umi, code);
        school.Roster.Remove(school.Lead, school.Class, school.Umi.Id);

        Joining.Join(school.Umi, code).Waits.ShouldBeTrue();
    }

    [Fact]
    public void Five_thousand_wrong_codes_find_none_and_are_slowed_down()
    {
        var code = Code();
        var random = new Random(5);
        var tried = 0;
        for (var i = 0; i < 5000; i++)
        {
            // A guesser who waits a second between two tries.
            school.Clock.AdvanceSeconds(1);
            var refused = Refused(() => Joining.Join(school.Outsider, JoinCode.Make(random.Next)));
            if (refused == "code-wrong") tried++;
            else refused.ShouldBe("code-slow");
        }

        tried.ShouldBeLessThan(25);
        school.Roster.See(school.Class).ShouldNotContain(r => r.Id == school.Outsider.Id);
        // Others are not slowed down by one who guesses, and the right code still works for the one who waited.
        Joining.Join(school.Umi, code).Waits.ShouldBeFalse();
        school.Clock.AdvanceMinutes(16);
        Joining.Join(school.Outsider, code).Waits.ShouldBeFalse();
    }

    [Fact]
    public void Staff_do_not_join_by_code() => Refused(() => Joining.Join(school.OtherTeacher, Code())).ShouldBe("code-staff");

    [Fact]
    public void No_delivery_takes_off_who_joined_by_code()
    {
        Joining.Join(school.Umi, Code());

        school.Read(c => RosterStore.Member(c, school.Class, school.Umi.Id))!.EnrolledBy.ShouldBe(EnrolledBy.Code);
    }

    [Fact]
    public void An_invitation_is_written_accepted_once_and_by_nobody_else()
    {
        var invitations = new Invitations(school.Premises);
        var sent = invitations.Send(school.Lead, school.Class, $"other@tiny.invalid, not-an-address; lead@tiny.invalid {new string('q', 65)}@x.invalid", ClassRole.CoTeacher, "https://loft.tiny.invalid");

        (sent.Written, sent.NotWritten.Count).ShouldBe((1, 3));
        var token = Tokens().Single();
        invitations.Look(token).Email.ShouldBe("other@tiny.invalid");
        Refused(() => invitations.Accept(school.Umi, token)).ShouldBe("invitation-role");
        Refused(() => invitations.Accept(school.CoTeacher, token)).ShouldBe("invitation-other");
        invitations.Accept(school.OtherTeacher, token);
        Refused(() => invitations.Accept(school.OtherTeacher, token)).ShouldBe("invitation-over");
        school.Roster.See(school.Class).Single(r => r.Id == school.OtherTeacher.Id).ShouldSatisfyAllConditions(r => r.Role.ShouldBe(ClassRole.CoTeacher), r => r.By.ShouldBe(EnrolledBy.Invitation));
        // The token stands in the letter and nowhere else.
        school.Read(c => Dapper.SqlMapper.ExecuteScalar<long>(c, "SELECT count(*) FROM invitation WHERE token_sha256 = @token", new { token })).ShouldBe(0);
    }

    [Fact]
    public void A_letter_that_was_handed_on_lets_in_nobody_whose_address_it_is_not()
    {
        var invitations = new Invitations(school.Premises);
        school.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "UPDATE person SET email = 'umi@home.invalid' WHERE user_name = 'umi'"));
        invitations.Send(school.Lead, school.Class, "Umi@home.invalid nobody@home.invalid", ClassRole.Student, "https://x.invalid");
        var tokens = Tokens();

        // Rúna has no address in the directory; the one of the letter is Umi's.
        Refused(() => invitations.Accept(school.Rúna, tokens[0])).ShouldBe("invitation-other");
        invitations.Accept(school.Umi, tokens[0]);
        invitations.Accept(school.Rúna, tokens[1]);
        school.Roster.See(school.Class).Count(r => r.By == EnrolledBy.Invitation).ShouldBe(2);
    }

    [Fact]
    public void Nobody_sends_more_invitations_in_a_day_than_a_person_would()
    {
        var invitations = new Invitations(school.Premises);
        string Some(int from, int count) => string.Join(' ', Enumerable.Range(from, count).Select(i => $"a{i}@x.invalid"));
        for (var i = 0; i < 3; i++) invitations.Send(school.Lead, school.Class, Some(i * 100, 100), ClassRole.Student, "https://x.invalid").Written.ShouldBe(100);

        Refused(() => invitations.Send(school.Lead, school.Class, Some(300, 1), ClassRole.Student, "https://x.invalid")).ShouldBe("too-many");
        school.Roster.Enroll(school.Lead, school.Class, [school.CoTeacher.Id], ClassRole.CoTeacher);
        invitations.Send(school.CoTeacher, school.Class, Some(300, 1), ClassRole.Student, "https://x.invalid").Written.ShouldBe(1);
        school.Clock.AdvanceHours(25);
        invitations.Send(school.Lead, school.Class, Some(301, 1), ClassRole.Student, "https://x.invalid").Written.ShouldBe(1);
    }

    [Fact]
    public void An_invitation_runs_out_and_can_be_taken_back()
    {
        var invitations = new Invitations(school.Premises);
        invitations.Send(school.Lead, school.Class, "a@tiny.invalid\nb@tiny.invalid", ClassRole.Student, "https://x.invalid");
        var tokens = Tokens();
        invitations.Withdraw(school.Lead, school.Class, invitations.Of(school.Class).Single(i => i.Email == "a@tiny.invalid").Id);
        Refused(() => invitations.Accept(school.Umi, tokens[0])).ShouldBe("invitation-over");
        school.Clock.AdvanceDays(22);
        Refused(() => invitations.Accept(school.Umi, tokens[1])).ShouldBe("invitation-over");
        invitations.Of(school.Class).Select(i => i.State).ShouldBe([InvitationState.Expired, InvitationState.Withdrawn]);
    }

    private List<string> Tokens() => [.. school.Read(c => Store.Letters.LetterStore.Newest(c, 100)).OrderBy(l => l.Id).Select(l => l.Text!.Split("token=")[1].Split('\n', '\r')[0])];
}
