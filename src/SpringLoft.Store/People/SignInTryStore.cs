using SpringLoft.Core.People;

namespace SpringLoft.Store.People;

/// <summary>Owns sign_in_try: tries in a row that were not right, by user name and by where they come from.</summary>
public static class SignInTryStore
{
    /// <summary>Tries in a row so far, and until when there is none; zero and null if there was none yet.</summary>
    public static (int InRow, Instant? ShutUntil) Of(IDbConnection c, string userName, string place) =>
        c.QuerySingleOrDefault<TryRow>("SELECT in_row, shut_until FROM sign_in_try WHERE name_key = @key AND place = @place", new { key = SignInRules.NameKey(userName), place }) is { } row ? (row.InRow, row.ShutUntil) : (0, null);

    /// <summary>Counts one.</summary>
    public static void Count(IDbConnection c, string userName, string place, int inRow, Instant? shutUntil, Instant now) => c.Execute(
        """
        INSERT INTO sign_in_try(name_key, place, in_row, shut_until, last_at) VALUES(@key, @place, @inRow, @shutUntil, @now)
        ON CONFLICT(name_key, place) DO UPDATE SET in_row = @inRow, shut_until = @shutUntil, last_at = @now
        """, new { key = SignInRules.NameKey(userName), place, inRow, shutUntil, now });

    /// <summary>Forgets the tries from one place: the right one came.</summary>
    public static void Forget(IDbConnection c, string userName, string place) => c.Execute("DELETE FROM sign_in_try WHERE name_key = @key AND place = @place", new { key = SignInRules.NameKey(userName), place });

    /// <summary>Forgets them from everywhere: there is another password.</summary>
    public static void Forget(IDbConnection c, string userName) => c.Execute("DELETE FROM sign_in_try WHERE name_key = @key", new { key = SignInRules.NameKey(userName) });

    /// <summary>Forgets what is older than a moment.</summary>
    public static void ForgetOld(IDbConnection c, Instant before) => c.Execute("DELETE FROM sign_in_try WHERE last_at < @before", new { before });

    private sealed record TryRow
    {
        public int InRow { get; init; }
        public Instant? ShutUntil { get; init; }
    }
}
