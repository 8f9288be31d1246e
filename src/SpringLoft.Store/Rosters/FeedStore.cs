using SpringLoft.Core.Rosters;

namespace SpringLoft.Store.Rosters;

/// <summary>The feed of the school's records.</summary>
public sealed record FeedRow
{
    public string Address { get; init; } = "";
    public string ClientId { get; init; } = "";
    public string ClientSecret { get; init; } = "";
    public YearId YearId { get; init; }
    public LocalDate FirstDay { get; init; }
    public LocalDate LastDay { get; init; }
    public int Hour { get; init; }
    public bool IsOn { get; init; }

    /// <summary>True if what nothing holds is applied without anybody's yes.</summary>
    public bool Applies { get; init; }
    public Instant? LastAt { get; init; }
    public string? LastResult { get; init; }
    public bool? LastOk { get; init; }

    /// <summary>When it may run.</summary>
    public FeedWindow Window => new(FirstDay, LastDay, Hour, IsOn);
}

/// <summary>Owns roster_feed: there is one, or none.</summary>
public static class FeedStore
{
    /// <summary>The feed; null if none is set up.</summary>
    public static FeedRow? Get(IDbConnection c) =>
        c.QuerySingleOrDefault<FeedRow>("SELECT address, client_id, ifnull(unseal(client_secret), '') AS client_secret, year_id, first_day, last_day, hour, is_on, applies, last_at, last_result, last_ok FROM roster_feed");

    /// <summary>Sets it up; what it last did stays.</summary>
    public static void Set(IDbConnection c, FeedRow f) => c.Execute(
        """
        INSERT INTO roster_feed(id, address, client_id, client_secret, year_id, first_day, last_day, hour, is_on, applies) VALUES(1, @Address, @ClientId, seal(@ClientSecret), @YearId, @FirstDay, @LastDay, @Hour, @IsOn, @Applies)
        ON CONFLICT(id) DO UPDATE SET address = @Address, client_id = @ClientId, client_secret = excluded.client_secret, year_id = @YearId, first_day = @FirstDay, last_day = @LastDay, hour = @Hour, is_on = @IsOn, applies = @Applies
        """, f);

    /// <summary>Keeps what it last did.</summary>
    public static void SetLast(IDbConnection c, Instant at, bool ok, string result) => c.Execute("UPDATE roster_feed SET last_at = @at, last_ok = @ok, last_result = @result", new { at, ok, result });
}
