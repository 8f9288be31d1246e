using SpringLoft.App.Letters;
using SpringLoft.App.Rosters;
using SpringLoft.Core.Letters;
using SpringLoft.Store.Letters;

namespace SpringLoft.App.Tests.Letters;

/// <summary>Letters are rows of the act that writes them; a worker sends them when there is somebody who takes them.</summary>
public sealed class SendingLettersTests : IDisposable
{
    private readonly TinySchool school = new();
    private readonly Post post = new();

    private SendingLetters Sending => new(school.Premises, post);

    private LetterDesk Desk => new(school.Premises, post);

    private Invitations Invitations => new(school.Premises);

    private IEnumerable<(LetterState, int)> Stand => Desk.See().Letters.OrderBy(l => l.Id).Select(l => (l.State, l.Tries));

    [Fact]
    public void A_mail_server_that_is_away_stops_no_closing_run_and_gets_the_letter_when_it_is_back()
    {
        post.Refuses = NotTaken.ServerAway;
        school.OpenClass();
        school.Close().State.ShouldBe(Core.Closing.StepState.Done);
        Sending.Go(default).ShouldBe(1);
        Sending.Go(default).ShouldBe(0, "it is not its turn yet");
        Desk.See().Letters.Single().ShouldSatisfyAllConditions(l => l.State.ShouldBe(LetterState.Waiting), l => l.Tries.ShouldBe(1), l => l.Trouble.ShouldBe("no"), l => l.NextAt.ShouldBe(school.Clock.GetCurrentInstant() + Duration.FromMinutes(1)));

        post.Refuses = null;
        school.Clock.AdvanceMinutes(1);
        Sending.Go(default).ShouldBe(1);

        post.Taken.ShouldBe(["lead@tiny.invalid: Clay 6B · period 3 · 2026–27 is in the loft"]);
        Desk.See().Letters.Single().ShouldSatisfyAllConditions(l => l.State.ShouldBe(LetterState.Sent), l => l.Tries.ShouldBe(2), l => l.Trouble.ShouldBeNull(), l => l.MayTryAgain.ShouldBeFalse());
        school.Clock.AdvanceDays(1);
        Sending.Go(default).ShouldBe(0, "it is sent once");
    }

    [Fact]
    public void Where_the_act_is_undone_there_is_no_letter()
    {
        Should.Throw<InvalidOperationException>(() =>
        {
            using var unit = school.Premises.Db.Begin();
            Invitations.Send(school.Lead, school.Class, "a@x.invalid", ClassRole.Student, "https://l.invalid").Written.ShouldBe(1);
            throw new InvalidOperationException();
        });

        (Invitations.Of(school.Class).Count, Desk.See().Letters.Count, Sending.Go(default)).ShouldBe((0, 0, 0));
    }

    [Fact]
    public void Many_letters_wait_together_while_the_server_is_away()
    {
        post.Refuses = NotTaken.ServerAway;
        Invitations.Send(school.Lead, school.Class, "a@x.invalid b@x.invalid c@x.invalid", ClassRole.Student, "https://l.invalid");

        Sending.Go(default);

        post.Calls.ShouldBe(1, "nobody waits for a server once for each letter");
        Stand.ShouldBe([(LetterState.Waiting, 1), (LetterState.Waiting, 1), (LetterState.Waiting, 1)]);
    }

    [Fact]
    public void An_address_that_is_none_is_given_up_at_once_and_the_others_go()
    {
        post.RefusesOnly = "b@x.invalid";
        post.Refuses = NotTaken.Never;
        Invitations.Send(school.Lead, school.Class, "a@x.invalid b@x.invalid c@x.invalid", ClassRole.Student, "https://l.invalid");
        while (Sending.Go(default) > 0) { }

        Stand.ShouldBe([(LetterState.Sent, 1), (LetterState.GivenUp, 1), (LetterState.Sent, 1)]);
        Invitations.Of(school.Class).Select(i => (i.Email, i.Letter, i.Trouble)).ShouldBe([("c@x.invalid", LetterState.Sent, null), ("b@x.invalid", LetterState.GivenUp, "no"), ("a@x.invalid", LetterState.Sent, null)]);
        Desk.See().Letters[0].To.ShouldBe("b@x.invalid", "what did not go is seen first");
    }

    [Fact]
    public void It_is_given_up_after_five_days_and_goes_when_a_person_has_it_tried_again()
    {
        post.Refuses = NotTaken.Later;
        Invitations.Send(school.Lead, school.Class, "a@x.invalid", ClassRole.Student, "https://l.invalid");
        for (var hour = 0; hour < 24 * 6; hour++, school.Clock.AdvanceHours(1)) Sending.Go(default);
        Desk.See().Letters.Single().ShouldSatisfyAllConditions(l => l.State.ShouldBe(LetterState.GivenUp), l => l.Tries.ShouldBeInRange(100, 125), l => l.MayTryAgain.ShouldBeTrue());

        post.Refuses = null;
        Desk.See().TriedForDays.ShouldBe(5);
        Desk.TryAgain(school.Coordinator, Desk.See().Letters.Single().Id);
        Sending.Go(default);

        post.Taken.Count.ShouldBe(1);
        Refused(() => Desk.TryAgain(school.Coordinator, Desk.See().Letters.Single().Id)).ShouldBe("letter-sent");
        Refused(() => Desk.TryAgain(school.Coordinator, 999)).ShouldBe("not-found");
    }

    [Fact]
    public void The_letter_of_an_invitation_that_was_taken_back_goes_to_nobody()
    {
        Invitations.Send(school.Lead, school.Class, "a@x.invalid", ClassRole.Student, "https://l.invalid");
        Invitations.Withdraw(school.Lead, school.Class, Invitations.Of(school.Class).Single().Id);

        Sending.Go(default).ShouldBe(0);
        Refused(() => Desk.TryAgain(school.Coordinator, Desk.See().Letters.Single().Id)).ShouldBe("letter-taken-back");
    }

    [Fact]
    public void What_a_letter_said_is_kept_no_longer_than_until_it_is_sent_and_that_it_was_sent_for_thirty_days()
    {
        Invitations.Send(school.Lead, school.Class, "a@x.invalid", ClassRole.Student, "https://l.invalid");
        Sending.Go(default);
        school.Read(c => LetterStore.Newest(c, 1)).Single().Text.ShouldBeNull();

        school.Clock.AdvanceDays(30);
        Sending.LetGo();
        Desk.See().Letters.Count.ShouldBe(1);
        school.Clock.AdvanceHours(1);
        Sending.LetGo();
        Desk.See().Letters.ShouldBeEmpty();
        Invitations.Of(school.Class).Single().Letter.ShouldBeNull();
    }

    public void Dispose() => school.Dispose();

    private static string Refused(Action act) => Should.Throw<RefusedException>(act).Refusal.Code;

    private sealed class Post : IPost
    {
        public List<string> Taken { get; } = [];
        public NotTaken? Refuses { get; set; }
        public string? RefusesOnly { get; set; }
        public int Calls { get; private set; }
        public bool KeepsThem => false;

        public void LetGo(Instant moment) { }

        public void Send(long id, string to, string name, string subject, string text, Instant at)
        {
            Calls++;
            text.ShouldNotBeEmpty();
            if (Refuses is { } why && (RefusesOnly ?? to) == to) throw new NotTakenException(why, "no");
            Taken.Add($"{to}: {subject}");
        }
    }
}
