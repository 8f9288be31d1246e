using System.Text;
using SpringLoft.Formats.Signatures;
using SpringLoft.Store.Closing;

namespace SpringLoft.App.Closing;

/// <summary>A key that the school signs with.</summary>
internal sealed record SchoolKey(long Id, byte[] Public, byte[] Secret)
{
    internal byte[] Sign(byte[] bytes) => SchoolSignature.Sign(Secret, bytes);
}

/// <summary>The school's key: made when it is first needed, and anew when the secret of the one of before can't be opened any more.</summary>
internal static class SchoolKeys
{
    /// <summary>The key to sign with.</summary>
    internal static SchoolKey Current(Premises premises) => premises.Db.Read(Usable) ?? premises.Db.Write(c => Current(c, premises.Clock.Now));

    /// <summary>The same in a transaction that is going.</summary>
    internal static SchoolKey Current(IDbConnection c, Instant now)
    {
        if (Usable(c) is { } there) return there;
        var secret = SchoolSignature.NewSecret();
        var key = SchoolSignature.PublicOf(secret);
        var id = SchoolKeyStore.Add(c, key, secret, now);
        Premises.Add(c, null, now, new("made a school key", "school", null, null, SchoolSignature.Fingerprint(key)));
        return new(id, key, secret);
    }

    /// <summary>Signs the report of a run that ended, in the transaction that ends it.</summary>
    internal static void SignReport(IDbConnection c, RunId run, Instant now)
    {
        var key = Current(c, now);
        var report = ClosingReport.Signed(c, run, now);
        SchoolKeyStore.PutReport(c, new() { RunId = run, Report = report, Signature = Convert.ToHexStringLower(key.Sign(Encoding.UTF8.GetBytes(report))), KeyId = key.Id, SignedAt = now });
    }

    // Only the newest: an older one was given up because it could not be opened.
    private static SchoolKey? Usable(IDbConnection c) => SchoolKeyStore.All(c) is [.., { Secret: { } secret } newest] ? new(newest.Id, newest.Public, secret) : null;
}
