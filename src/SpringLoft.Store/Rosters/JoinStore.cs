using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Store.Rosters;

/// <summary>The join code of a class.</summary>
public sealed record JoinCodeRow
{
    public ClassId ClassId { get; init; }
    public string Code { get; init; } = "";
    public Instant MadeAt { get; init; }
    public Instant ExpiresAt { get; init; }
    public int? Most { get; init; }
    public int Used { get; init; }
    public bool Waits { get; init; }

    /// <summary>As the rules see it.</summary>
    public JoinCodeFact Fact => new(ExpiresAt, Most, Used);
}

/// <summary>An invitation by e-mail.</summary>
public sealed record InvitationRow
{
    public long Id { get; init; }
    public ClassId ClassId { get; init; }
    public string Email { get; init; } = "";
    public ClassRole Role { get; init; }
    public Instant SentAt { get; init; }
    public Instant ExpiresAt { get; init; }
    public Instant? AcceptedAt { get; init; }
    public Instant? WithdrawnAt { get; init; }

    /// <summary>The letter it is in; null once that is off the list.</summary>
    public long? LetterId { get; init; }
}

/// <summary>Owns join_code, join_wait, join_try and invitation.</summary>
public static class JoinStore
{
    private const string Columns = "class_id, code, made_at, expires_at, most, used, waits";
    private const string Invited = "id, class_id, email, role, sent_at, expires_at, accepted_at, withdrawn_at, letter_id";

    /// <summary>The code of a class; null if it has none.</summary>
    public static JoinCodeRow? OfClass(IDbConnection c, ClassId id) => c.QuerySingleOrDefault<JoinCodeRow>($"SELECT {Columns} FROM join_code WHERE class_id = @id", new { id });

    /// <summary>The class that has a code; null if none has.</summary>
    public static JoinCodeRow? ByCode(IDbConnection c, string code) => c.QuerySingleOrDefault<JoinCodeRow>($"SELECT {Columns} FROM join_code WHERE code = @code", new { code });

    /// <summary>Gives a class a code; the one it had is dead.</summary>
    public static void Put(IDbConnection c, JoinCodeRow j) => c.Execute(
        """
        INSERT INTO join_code(class_id, code, made_at, expires_at, most, waits) VALUES(@ClassId, @Code, @MadeAt, @ExpiresAt, @Most, @Waits)
        ON CONFLICT(class_id) DO UPDATE SET code = @Code, made_at = @MadeAt, expires_at = @ExpiresAt, most = @Most, waits = @Waits, used = 0
        """, j);

    /// <summary>Takes the code away.</summary>
    public static void Remove(IDbConnection c, ClassId id) => c.Execute("DELETE FROM join_code WHERE class_id = @id", new { id });

    /// <summary>Counts one who came by the code.</summary>
    public static void Count(IDbConnection c, ClassId id) => c.Execute("UPDATE join_code SET used = used + 1 WHERE class_id = @id", new { id });

    /// <summary>Who waits for a yes, the first first.</summary>
    public static IReadOnlyList<(PersonId Person, Instant At)> Waiting(IDbConnection c, ClassId id) =>
        [.. c.Query<(PersonId, Instant)>("SELECT person_id, asked_at FROM join_wait WHERE class_id = @id ORDER BY asked_at", new { id })];

    /// <summary>Somebody waits.</summary>
    public static void Wait(IDbConnection c, ClassId id, PersonId person, Instant at) => c.Execute("INSERT INTO join_wait(class_id, person_id, asked_at) VALUES(@id, @person, @at) ON CONFLICT DO NOTHING", new { id, person, at });

    /// <summary>Somebody waits no longer; false if they did not.</summary>
    public static bool WaitNoLonger(IDbConnection c, ClassId id, PersonId person) => c.Execute("DELETE FROM join_wait WHERE class_id = @id AND person_id = @person", new { id, person }) == 1;

    /// <summary>Wrong codes in a row of one person.</summary>
    public static (int Wrong, Instant? ShutUntil) Tries(IDbConnection c, PersonId person)
    {
        var row = c.QuerySingleOrDefault<(long Wrong, Instant? Shut)?>("SELECT wrong, shut_until FROM join_try WHERE person_id = @person", new { person });
        return row is { } r ? ((int)r.Wrong, r.Shut) : (0, null);
    }

    /// <summary>Keeps them.</summary>
    public static void SetTries(IDbConnection c, PersonId person, int wrong, Instant? shutUntil) => c.Execute(
        "INSERT INTO join_try(person_id, wrong, shut_until) VALUES(@person, @wrong, @shutUntil) ON CONFLICT(person_id) DO UPDATE SET wrong = @wrong, shut_until = @shutUntil", new { person, wrong, shutUntil });

    /// <summary>Adds an invitation.</summary>
    public static long Invite(IDbConnection c, InvitationRow i, string tokenSha256, PersonId by) => c.ExecuteScalar<long>(
        "INSERT INTO invitation(class_id, email, role, token_sha256, sent_at, sent_by, expires_at, letter_id) VALUES(@ClassId, @Email, @role, @tokenSha256, @SentAt, @by, @ExpiresAt, @LetterId) RETURNING id",
        new { i.ClassId, i.Email, role = i.Role.ToString(), tokenSha256, i.SentAt, by, i.ExpiresAt, i.LetterId });

    /// <summary>How many somebody has sent since a moment, of all classes.</summary>
    public static int InvitedSince(IDbConnection c, PersonId by, Instant since) => c.ExecuteScalar<int>("SELECT count(*) FROM invitation WHERE sent_by = @by AND sent_at > @since", new { by, since });

    /// <summary>Invitations of a class, newest first.</summary>
    public static IReadOnlyList<InvitationRow> Invitations(IDbConnection c, ClassId id) => [.. c.Query<InvitationRow>($"SELECT {Invited} FROM invitation WHERE class_id = @id ORDER BY id DESC", new { id })];

    /// <summary>The invitation of a letter; null if there is no such.</summary>
    public static InvitationRow? ByToken(IDbConnection c, string sha256) => c.QuerySingleOrDefault<InvitationRow>($"SELECT {Invited} FROM invitation WHERE token_sha256 = @sha256", new { sha256 });

    /// <summary>Keeps that it was accepted.</summary>
    public static void Accept(IDbConnection c, long id, PersonId by, Instant at) => c.Execute("UPDATE invitation SET accepted_at = @at, accepted_by = @by WHERE id = @id", new { id, by, at });

    /// <summary>Takes it back.</summary>
    public static int WithdrawOpen(IDbConnection c, ClassId id, Instant at) =>
        c.Execute("UPDATE invitation SET withdrawn_at = @at WHERE class_id = @id AND accepted_at IS NULL AND withdrawn_at IS NULL", new { id, at });

    /// <summary>Takes an invitation back.</summary>
    public static void Withdraw(IDbConnection c, long id, Instant at) => c.Execute("UPDATE invitation SET withdrawn_at = @at WHERE id = @id", new { id, at });
}
