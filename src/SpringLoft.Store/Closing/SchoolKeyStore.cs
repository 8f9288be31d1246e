using SpringLoft.Core.Closing;

namespace SpringLoft.Store.Closing;

/// <summary>A key that the school signs with, or signed with.</summary>
/// <param name="Secret">Null where it can't be opened any more: what it signed can still be checked.</param>
public sealed record SchoolKeyRow(long Id, byte[] Public, byte[]? Secret, Instant MadeAt);

/// <summary>The report of a run as it was signed.</summary>
public sealed record RunReportRow
{
    public RunId RunId { get; init; }
    public string Report { get; init; } = "";
    public string Signature { get; init; } = "";
    public long KeyId { get; init; }
    public Instant SignedAt { get; init; }
}

/// <summary>Owns school_key and run_report.</summary>
public static class SchoolKeyStore
{
    /// <summary>All keys, the newest last.</summary>
    public static IReadOnlyList<SchoolKeyRow> All(IDbConnection c) => [.. c.Query<KeyText>("SELECT id, public_key, unseal(secret) AS secret, made_at FROM school_key ORDER BY id")
        .Select(k => new SchoolKeyRow(k.Id, Convert.FromHexString(k.PublicKey), Key(k.Secret), k.MadeAt))];

    /// <summary>Keeps a new key.</summary>
    public static long Add(IDbConnection c, byte[] publicKey, byte[] secret, Instant at) => c.ExecuteScalar<long>(
        "INSERT INTO school_key(public_key, secret, made_at) VALUES(@key, seal(@secret), @at) RETURNING id", new { key = Convert.ToHexStringLower(publicKey), secret = Convert.ToHexStringLower(secret), at });

    /// <summary>Keeps the report of a run that ended; that of an earlier end goes.</summary>
    public static void PutReport(IDbConnection c, RunReportRow r) => c.Execute(
        """
        INSERT INTO run_report(run_id, report, signature, key_id, signed_at) VALUES(@RunId, @Report, @Signature, @KeyId, @SignedAt)
        ON CONFLICT(run_id) DO UPDATE SET report = @Report, signature = @Signature, key_id = @KeyId, signed_at = @SignedAt
        """, r);

    /// <summary>The signed report of a run; null if none was signed.</summary>
    public static RunReportRow? Report(IDbConnection c, RunId id) => c.QuerySingleOrDefault<RunReportRow>("SELECT run_id, report, signature, key_id, signed_at FROM run_report WHERE run_id = @id", new { id });

    // What is no key, however that came about, is as if it could not be opened: signing goes on with another.
    private static byte[]? Key(string? secret)
    {
        try { return secret?.Length == 64 ? Convert.FromHexString(secret) : null; }
        catch (FormatException) { return null; }
    }

    private sealed record KeyText
    {
        public long Id { get; init; }
        public string PublicKey { get; init; } = "";
        public string? Secret { get; init; }
        public Instant MadeAt { get; init; }
    }
}
