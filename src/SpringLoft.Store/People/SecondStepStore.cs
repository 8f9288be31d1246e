using SpringLoft.Core.People;
using SpringLoft.Store.Sealing;

namespace SpringLoft.Store.People;

/// <summary>A passkey of somebody's; key and number are in base64url.</summary>
public sealed record PasskeyRow
{
    public long Id { get; init; }
    public PersonId PersonId { get; init; }
    public string Credential { get; init; } = "";
    public string PublicKey { get; init; } = "";
    public long SignCount { get; init; }
    public string Name { get; init; } = "";
    public Instant MadeAt { get; init; }
    public Instant? UsedAt { get; init; }
}

/// <summary>What somebody has as a second step, and what the school asks.</summary>
/// <param name="AppSince">Since when codes of an app are one; null if they are not.</param>
/// <param name="Passkeys">How many.</param>
public sealed record StepFacts(Instant? AppSince, int Passkeys, SecondStepFor Rule)
{
    /// <summary>True if there is one.</summary>
    public bool Has => AppSince is not null || Passkeys > 0;
}

/// <summary>Owns second_step, recovery_code and passkey.</summary>
public static class SecondStepStore
{
    private const string Columns = "id, person_id, credential, public_key, sign_count, name, made_at, used_at";

    /// <summary>What somebody has.</summary>
    public static StepFacts Of(IDbConnection c, PersonId who) => c.QuerySingleOrDefault<Facts>(
        "SELECT (SELECT since FROM second_step WHERE person_id = @who) AS app_since, (SELECT count(*) FROM passkey WHERE person_id = @who) AS passkeys, second_step AS rule FROM school", new { who }) is { } f
        ? new(f.AppSince, f.Passkeys, Enum.Parse<SecondStepFor>(f.Rule)) : new(null, 0, SecondStepFor.Nobody);

    /// <summary>Whoever of these people has one.</summary>
    public static IReadOnlySet<PersonId> Having(IDbConnection c) =>
        c.Query<PersonId>("SELECT person_id FROM second_step WHERE since IS NOT NULL UNION SELECT person_id FROM passkey").ToHashSet();

    /// <summary>The secret of somebody's app, in base64, and the step of the code that was right last; null if there is none.</summary>
    public static (string Secret, Instant? Since, long LastStep)? App(IDbConnection c, PersonId who) =>
        c.QuerySingleOrDefault<AppRow>("SELECT unseal(secret) AS secret, since, last_step FROM second_step WHERE person_id = @who", new { who }) is { Secret: { } secret } a ? (secret, a.Since, a.LastStep) : null;

    /// <summary>Keeps the secret of an app that is still to show a right code.</summary>
    public static void BeginApp(IDbConnection c, PersonId who, string secret) => c.Execute(
        "INSERT INTO second_step(person_id, secret) VALUES(@who, seal(@secret)) ON CONFLICT(person_id) DO UPDATE SET secret = excluded.secret, since = NULL, last_step = 0", new { who, secret });

    /// <summary>A code was right: it is not right a second time.</summary>
    /// <param name="since">When the app became a second step, if it was not one yet.</param>
    /// <returns>False if another request has used it meanwhile.</returns>
    public static bool Used(IDbConnection c, PersonId who, long step, Instant since) =>
        c.Execute("UPDATE second_step SET last_step = @step, since = ifnull(since, @since) WHERE person_id = @who AND last_step < @step", new { who, step, since }) == 1;

    /// <summary>Takes the app away.</summary>
    public static bool RemoveApp(IDbConnection c, PersonId who) => c.Execute("DELETE FROM second_step WHERE person_id = @who", new { who }) == 1;

    /// <summary>Puts new recovery codes in the place of those that are left.</summary>
    /// <param name="codes">As <see cref="RecoveryCode.Key"/> gives them.</param>
    public static void SetCodes(IDbConnection c, PersonId who, IEnumerable<string> codes)
    {
        c.Execute("DELETE FROM recovery_code WHERE person_id = @who", new { who });
        c.Execute("INSERT INTO recovery_code(person_id, digest) VALUES(@who, @digest)", codes.Select(code => new { who, digest = SealedColumns.Digest(code) }));
    }

    /// <summary>Uses up a recovery code; false if it is none, or was used before.</summary>
    public static bool UseCode(IDbConnection c, PersonId who, string code) =>
        c.Execute("DELETE FROM recovery_code WHERE person_id = @who AND digest = @digest", new { who, digest = SealedColumns.Digest(code) }) == 1;

    /// <summary>How many are left.</summary>
    public static int CodesLeft(IDbConnection c, PersonId who) => c.ExecuteScalar<int>("SELECT count(*) FROM recovery_code WHERE person_id = @who", new { who });

    /// <summary>Somebody's passkeys, in the order in which they were made.</summary>
    public static IReadOnlyList<PasskeyRow> Passkeys(IDbConnection c, PersonId who) => [.. c.Query<PasskeyRow>($"SELECT {Columns} FROM passkey WHERE person_id = @who ORDER BY id", new { who })];

    /// <summary>Is a credential somebody's already?</summary>
    public static bool IsKnown(IDbConnection c, string credential) => c.ExecuteScalar<bool>("SELECT EXISTS (SELECT 1 FROM passkey WHERE credential = @credential)", new { credential });

    /// <summary>Adds one.</summary>
    public static long AddPasskey(IDbConnection c, PasskeyRow p) => c.ExecuteScalar<long>(
        "INSERT INTO passkey(person_id, credential, public_key, sign_count, name, made_at) VALUES(@PersonId, @Credential, @PublicKey, @SignCount, @Name, @MadeAt) RETURNING id", p);

    /// <summary>Notes that one was used.</summary>
    public static void UsedPasskey(IDbConnection c, long id, long signCount, Instant at) => c.Execute("UPDATE passkey SET sign_count = @signCount, used_at = @at WHERE id = @id", new { id, signCount, at });

    /// <summary>Takes one of somebody's away; false if it is not theirs.</summary>
    public static bool RemovePasskey(IDbConnection c, PersonId who, long id) => c.Execute("DELETE FROM passkey WHERE id = @id AND person_id = @who", new { id, who }) == 1;

    /// <summary>Takes all of somebody's second step away; says whether there was any.</summary>
    public static bool End(IDbConnection c, PersonId who)
    {
        var had = Of(c, who).Has;
        c.Execute("DELETE FROM second_step WHERE person_id = @who; DELETE FROM recovery_code WHERE person_id = @who; DELETE FROM passkey WHERE person_id = @who", new { who });
        return had;
    }

    private sealed record Facts
    {
        public Instant? AppSince { get; init; }
        public int Passkeys { get; init; }
        public string Rule { get; init; } = "";
    }

    private sealed record AppRow
    {
        public string? Secret { get; init; }
        public Instant? Since { get; init; }
        public long LastStep { get; init; }
    }
}
