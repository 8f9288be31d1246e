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
}

/// <summary>Owns session.</summary>
public static class SessionStore
{
    private const string Columns = "id, person_id, begun_at, seen_at, browser, address, step_at";

    /// <summary>Begins one; of the token only its digest is kept.</summary>
    public static SessionId Begin(IDbConnection c, PersonId who, string token, string browser, string address, Instant now) => new(c.ExecuteScalar<long>(
        "INSERT INTO session(person_id, token_sha, begun_at, seen_at, browser, address) VALUES(@who, @sha, @now, @now, @browser, @address) RETURNING id", new { who, sha = SealedColumns.Digest(token), now, browser, address }));

    /// <summary>The one that a token belongs to; null if there is none, or none any more.</summary>
    public static SessionRow? Find(IDbConnection c, string token) => c.QuerySingleOrDefault<SessionRow>($"SELECT {Columns} FROM session WHERE token_sha = @sha", new { sha = SealedColumns.Digest(token) });

    /// <summary>A person's, the one used last first.</summary>
    public static IReadOnlyList<SessionRow> Of(IDbConnection c, PersonId who) => [.. c.Query<SessionRow>($"SELECT {Columns} FROM session WHERE person_id = @who ORDER BY seen_at DESC, id DESC", new { who })];

    /// <summary>Notes that the person is here.</summary>
    public static void Seen(IDbConnection c, SessionId id, Instant now) => c.Execute("UPDATE session SET seen_at = @now WHERE id = @id", new { id, now });

    /// <summary>Notes that the second step was shown.</summary>
    public static void Stepped(IDbConnection c, SessionId id, Instant now) => c.Execute("UPDATE session SET step_at = @now WHERE id = @id", new { id, now });

    /// <summary>Ends one of a person's; says whether it was there.</summary>
    public static bool End(IDbConnection c, PersonId who, SessionId id) => c.Execute("DELETE FROM session WHERE id = @id AND person_id = @who", new { id, who }) > 0;

    /// <summary>Ends all of a person's, but for one if one is named; says how many.</summary>
    public static int EndAll(IDbConnection c, PersonId who, SessionId? but = null) => c.Execute("DELETE FROM session WHERE person_id = @who AND id IS NOT @but", new { who, but });

    /// <summary>Clears up those that were not used since one moment, or begun before another.</summary>
    public static void EndOld(IDbConnection c, Instant seenBefore, Instant begunBefore) => c.Execute("DELETE FROM session WHERE seen_at <= @seenBefore OR begun_at <= @begunBefore", new { seenBefore, begunBefore });
}
