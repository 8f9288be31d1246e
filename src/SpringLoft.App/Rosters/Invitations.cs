using System.Security.Cryptography;
using System.Text;
using SpringLoft.App.Plans;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Letters;
using SpringLoft.Core.People;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Letters;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Rosters;

/// <summary>How an invitation stands.</summary>
public enum InvitationState { Open, Accepted, Expired, Withdrawn }

/// <summary>An invitation of a class.</summary>
/// <param name="Letter">How its letter stands; null if it was sent long ago.</param>
/// <param name="Trouble">Why the last try to send the letter failed; null if none did.</param>
public sealed record InvitationView(long Id, string Email, ClassRole Role, Instant SentAt, Instant ExpiresAt, InvitationState State, LetterState? Letter, string? Trouble);

/// <summary>What was written, and what was not.</summary>
/// <param name="Written">Invitations that are made, with their letters on their way.</param>
/// <param name="NotWritten">Addresses with the reason.</param>
public sealed record InvitationsSent(int Written, IReadOnlyList<string> NotWritten);

/// <summary>An invitation as the one who got it sees it before accepting.</summary>
public sealed record InvitationLook(string ClassName, string Teacher, ClassRole Role, string Email, InvitationState State);

/// <summary>Invitations by e-mail: for people who have an account, and are not to be looked up one by one.</summary>
public sealed class Invitations(Premises premises)
{
    private const int MostAtOnce = 100;

    /// <summary>Most that one person sends in a day: the school's mail server is not a way to write to strangers.</summary>
    public const int MostADay = 300;
    private static readonly Duration Lives = Duration.FromDays(21);

    /// <summary>Invitations of a class, newest first.</summary>
    public IReadOnlyList<InvitationView> Of(ClassId id) => premises.Db.Read(c =>
    {
        var letters = LetterStore.OfInvitations(c, id);
        return JoinStore.Invitations(c, id).Select(i =>
        {
            var letter = i.LetterId is { } l ? letters.GetValueOrDefault(l) : null;
            return new InvitationView(i.Id, i.Email, i.Role, i.SentAt, i.ExpiresAt, StateOf(i), letter?.State, letter?.Trouble);
        }).ToList();
    });

    /// <summary>Invites: the invitations and their letters are there together, and the letters go when the mail server takes them. An address that can't be written to is told; the others are invited.</summary>
    /// <param name="origin">Where Spring Loft is reached, as "https://loft.school.example".</param>
    public InvitationsSent Send(Caller by, ClassId id, string? addresses, ClassRole role, string origin)
    {
        if (role == ClassRole.Lead) throw new RefusedException("role-lead", "A lead teacher is not invited this way.", "Invite them as co-teacher.", "role");
        var list = Refusals.Needed(addresses, "addresses", "The address", 10_000).Split([',', ';', '\n', '\r', ' ', '\t'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).Distinct(StringComparer.OrdinalIgnoreCase).ToList();
        if (list.Count > MostAtOnce) throw new RefusedException("too-many", $"{list.Count} invitations at once are too many.", $"Send up to {MostAtOnce}.", "addresses");
        return premises.Db.Write(c =>
        {
            var k = ClassGate.Demand(c, by, id, Act.ManageRoster).NotArchived().Class;
            var (school, now) = (SchoolStore.Get(c)!.Name, premises.Clock.Now);
            var sent = JoinStore.InvitedSince(c, by.Id, now - Duration.FromDays(1));
            if (sent + list.Count > MostADay) throw new RefusedException("too-many", $"You have sent {sent} invitations within a day, and {list.Count} more would be more than {MostADay}.", "Send the rest tomorrow, or enroll people from the directory.", "addresses");
            var notWritten = new List<string>();
            foreach (var email in list)
            {
                if (WhyNot(c, id, email) is { } why) { notWritten.Add(why); continue; }
                var token = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(20));
                var letter = LetterStore.Add(c, email, email, $"{by.Name} invites you to {k.Name}", Letter(by.Name, k, school, role, $"{origin}/invitation?token={token}", premises.Clock.DateOf(now + Lives)), now);
                JoinStore.Invite(c, new InvitationRow { ClassId = id, Email = email, Role = role, SentAt = now, ExpiresAt = now + Lives, LetterId = letter }, Sha(token), by.Id);
                Premises.Add(c, by, now, new("invited", "class", id.Value, id, $"{email} as {(role == ClassRole.Student ? "student" : "co-teacher")}"));
            }
            return new InvitationsSent(list.Count - notWritten.Count, notWritten);
        });
    }

    /// <summary>Takes an invitation back; its letter leads nowhere then.</summary>
    public void Withdraw(Caller by, ClassId id, long invitation) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.ManageRoster);
        var i = JoinStore.Invitations(c, id).FirstOrDefault(x => x.Id == invitation && StateOf(x) == InvitationState.Open) ?? throw Refusals.NotFound("open invitation");
        JoinStore.Withdraw(c, i.Id, premises.Clock.Now);
        if (i.LetterId is { } letter) LetterStore.TakeBack(c, letter, premises.Clock.Now);
        Premises.Add(c, by, premises.Clock.Now, new("took invitation back", "class", id.Value, id, i.Email));
    });

    /// <summary>What an invitation is to.</summary>
    public InvitationLook Look(string? token) => premises.Db.Read(c =>
    {
        var i = Find(c, token);
        var k = ClassStore.Find(c, i.ClassId) ?? throw Refusals.NotFound("invitation");
        return new InvitationLook(k.Name, k.TeacherShown, i.Role, i.Email, StateOf(i));
    });

    /// <summary>Accepts an invitation: the one signed in is enrolled.</summary>
    /// <exception cref="RefusedException"><c>invitation-over</c>, <c>invitation-role</c>, <c>invitation-other</c>.</exception>
    public Joined Accept(Caller by, string? token) => premises.Db.Write(c =>
    {
        var i = Find(c, token);
        var over = StateOf(i) switch { InvitationState.Open => null, InvitationState.Accepted => "has been accepted already", InvitationState.Withdrawn => "was taken back", _ => "has run out" };
        if (over is not null) throw new RefusedException("invitation-over", $"This invitation {over}.", "Ask the teacher for a new one.", "token");
        if (by.Role == SchoolRole.Student != (i.Role == ClassRole.Student)) throw new RefusedException("invitation-role", $"The invitation is for {(i.Role == ClassRole.Student ? "a student" : "staff")}.", "Sign in with the right account.", "token");
        // A letter that was handed on lets nobody in whose own address the school knows to be another, or knows to be somebody else's.
        var own = PersonStore.Find(c, by.Id)!.Email;
        if (own is null && PersonStore.HasEmail(c, i.Email))
            throw new RefusedException("invitation-other", $"The invitation was sent to {i.Email}, and that is somebody else's address here.", "Ask the teacher to enroll you.", "token");
        if (own is not null && !own.Equals(i.Email, StringComparison.OrdinalIgnoreCase))
            throw new RefusedException("invitation-other", $"The invitation was sent to {i.Email}, and your address is {own}.", "Ask the teacher to invite your address, or to enroll you.", "token");
        var k = ClassStore.Find(c, i.ClassId) ?? throw Refusals.NotFound("invitation");
        if (k.State == ClassState.Archived) throw new RefusedException("class-archived", $"“{k.Name}” is archived.", "Ask the teacher.", "token");
        var now = premises.Clock.Now;
        if (RosterStore.Member(c, k.Id, by.Id) is not { LeftAt: null })
            RosterStore.Put(c, k.Id, by.Id, i.Role, now, EnrolledBy.Invitation, RosterDesk.SeesFrom(k, i.Role, false, now));
        JoinStore.Accept(c, i.Id, by.Id, now);
        Settings.Unfold(c, k);
        Premises.Add(c, by, now, new("accepted invitation", "person", by.Id.Value, k.Id, by.Name));
        return new Joined(k.Id, k.Name, false, k.State == ClassState.Open);
    });

    private static string? WhyNot(IDbConnection c, ClassId id, string email)
    {
        if (!EmailAddress.IsOne(email)) return $"“{(email.Length > 80 ? email[..80] + "…" : email)}” is no e-mail address";
        return RosterStore.Emails(c, id).FirstOrDefault(e => e.Value.Equals(email, StringComparison.OrdinalIgnoreCase)) is { Value: not null } here && RosterStore.Member(c, id, here.Key) is { LeftAt: null }
            ? $"{email}: is on the roster already" : null;
    }

    private InvitationState StateOf(InvitationRow i) => i.AcceptedAt is not null ? InvitationState.Accepted : i.WithdrawnAt is not null ? InvitationState.Withdrawn : premises.Clock.Now >= i.ExpiresAt ? InvitationState.Expired : InvitationState.Open;

    private static InvitationRow Find(IDbConnection c, string? token) => JoinStore.ByToken(c, Sha(token ?? "")) ?? throw Refusals.NotFound("invitation");

    private static string Sha(string token) => Store.Sealing.SealedColumns.Digest(token);

    private static string Letter(string by, ClassRow k, string school, ClassRole role, string address, LocalDate until) =>
        $"""
        {by} invites you to the class “{k.Name}” at {school}, as {(role == ClassRole.Student ? "a student" : "a co-teacher")}.

        Open this address and sign in to Spring Loft to accept:

        {address}

        It works until {until:uuuu-MM-dd}. If you did not expect this letter, you need do nothing.
        """;
}
