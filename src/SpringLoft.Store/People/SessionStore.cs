using SpringLoft.Core.People;
using SpringLoft.Store.Sealing;

namespace SpringLoft.Store.People;

/// <summary>A sign-in that goes on, on one browser.</summary>
public sealed record SessionRow
{
    public SessionId Id { get; init; }
    public PersonId PersonId { get; init; }
    public Instant BegunAt { get; init; }
    public Instant SeenAt { get; init; }

    /// <summary>What the browser is, in words.</summary>
    public string Browser { get; init; } = "";

    /// <summary>The network address that it was begun from.</summary>
    public string Address { get; init; } = "";

    /// <summary>When the second step was last shown in it; null if it was not.</summary>
    public Instant? StepAt { get; init; }

    /// <summary>The provider that it was begun with; null for one with a password.</summary>
    public string? Issuer { get; init; }

    /// <summary>True if a second step was asked there that counts here.</summary>
    public bool StepElsewhere { get; init; }
}

/// <summary>What is kept of a provider for a sign-in that it began.</summary>
/// <param name="Session">How it calls its own session; null if it does not say.</param>
/// <param name="IdToken">By which it knows again who signs out.</param>
/// <param name="ShowedStep">True if a second step was asked there that counts here.</param>
public sealed record ProviderPart(string Issuer, string? Session, string? IdToken, bool ShowedStep);

/// <summary>Owns session.</summary>
public static class SessionStore
{
    private const string Columns = "id, person_id, begun_at, seen_at, browser, address, step_at, issuer, step_elsewhere";

    /// <summary>Begins one; of the token only its digest is kept.</summary>
    public static SessionId Begin(IDbConnection c, PersonId who, string token, string browser, string address, Instant now, ProviderPart? provider = null) => new(c.ExecuteScalar<long>(
        """
        INSERT INTO session(person_id, token_sha, begun_at, seen_at, browser, address, issuer, provider_session, id_token, step_elsewhere)
        VALUES(@who, @sha, @now, @now, @browser, @address, @Issuer, @Session, seal(@IdToken), @step) RETURNING id
        """, new { who, sha = SealedColumns.Digest(token), now, browser, address, provider?.Issuer, provider?.Session, provider?.IdToken, step = provider?.ShowedStep ?? false }));

    /// <summary>The one that a token belongs to; null if there is none, or none any more.</summary>
    public static SessionRow? Find(IDbConnection c, string token) => c.QuerySingleOrDefault<SessionRow>($"SELECT {Columns} FROM session WHERE token_sha = @sha", new { sha = SealedColumns.Digest(token) });

    /// <summary>A person's, the one used last first.</summary>
    public static IReadOnlyList<SessionRow> Of(IDbConnection c, PersonId who) => [.. c.Query<SessionRow>($"SELECT {Columns} FROM session WHERE person_id = @who ORDER BY seen_at DESC, id DESC", new { who })];

    /// <summary>Notes that the person is here.</summary>
    public static void Seen(IDbConnection c, SessionId id, Instant now) => c.Execute("UPDATE session SET seen_at = @now WHERE id = @id", new { id, now });

    /// <summary>Notes that the second step was shown.</summary>
    public static void Stepped(IDbConnection c, SessionId id, Instant now) => c.Execute("UPDATE session SET step_at = @now WHERE id = @id", new { id, now });

    /// <summary>By which the provider of a sign-in knows it again; null if it keeps none.</summary>
    public static string? IdToken(IDbConnection c, SessionId id) => c.ExecuteScalar<string?>("SELECT unseal(id_token) FROM session WHERE id = @id", new { id });

    /// <summary>Ends the sign-ins that an account of a provider began; of one session of the provider's alone, if one is named. Says whose they were, each as often as there were.</summary>
    public static IReadOnlyList<PersonId> EndOfProvider(IDbConnection c, string issuer, string? subject, string? session) => [.. c.Query<PersonId>(
        """
        DELETE FROM session WHERE issuer = @issuer AND (@session IS NULL OR provider_session = @session)
          AND (@subject IS NULL OR person_id IN (SELECT person_id FROM provider_account WHERE issuer = @issuer AND subject = @subject)) RETURNING person_id
        """, new { issuer, subject, session })];

    /// <summary>How long a sign-in goes on.</summary>
    public static SessionLimits Limits(IDbConnection c) => c.QuerySingleOrDefault<LimitsRow>("SELECT idle_hours, most_days FROM school") is { } l ? new(l.IdleHours, l.MostDays) : SessionLimits.Default;

    /// <summary>Ends one of a person's; says whether it was there.</summary>
    public static bool End(IDbConnection c, PersonId who, SessionId id) => c.Execute("DELETE FROM session WHERE id = @id AND person_id = @who", new { id, who }) > 0;

    /// <summary>Ends all of a person's, but for one if one is named; says how many.</summary>
    public static int EndAll(IDbConnection c, PersonId who, SessionId? but = null) => c.Execute("DELETE FROM session WHERE person_id = @who AND id IS NOT @but", new { who, but });

    /// <summary>Clears up those that have ended by themselves.</summary>
    public static void EndOld(IDbConnection c, Instant now)
    {
        var limits = Limits(c);
        EndOld(c, now - limits.Idle(), now - limits.Most());
    }

    private static void EndOld(IDbConnection c, Instant seenBefore, Instant begunBefore) => c.Execute("DELETE FROM session WHERE seen_at <= @seenBefore OR begun_at <= @begunBefore", new { seenBefore, begunBefore });

    private sealed record LimitsRow
    {
        public int IdleHours { get; init; }
        public int MostDays { get; init; }
    }
}
