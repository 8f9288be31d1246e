using System.Security.Cryptography;
using System.Text;
using Microsoft.Data.Sqlite;

namespace SpringLoft.Store.Sealing;

/// <summary>
/// Columns that are sealed. Statements write them with <c>seal(…)</c> and read them with <c>unseal(…)</c>; whatever stands there in
/// clear, from before there was a seal, is sealed when the file is opened.
/// </summary>
public static class SealedColumns
{
    private const string Mark = "sealed:";

    /// <summary>Table and column of each.</summary>
    public static IReadOnlyList<(string Table, string Column)> All { get; } =
        [("sign_in", "first_phrase"), ("roster_feed", "client_secret"), ("class", "calendar_token"), ("shelf", "token"), ("letter", "text"), ("second_step", "secret"), ("session", "id_token"), ("acknowledged", "code"), ("contact", "stop_code"), ("school_key", "secret")];

    /// <summary>By which something is found whose own text is sealed: lower-case hex of the SHA-256.</summary>
    public static string Digest(string clear) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(clear)));

    internal static void Register(SqliteConnection c, IDataSeal seal)
    {
        c.CreateFunction("seal", (string? clear) => Sealed(seal, clear));
        // What can't be opened any more is as if it were not there: a secret is asked for again, a slip is made anew.
        c.CreateFunction("unseal", (string? kept) => kept is null || !kept.StartsWith(Mark, StringComparison.Ordinal) ? kept : seal.Open(kept[Mark.Length..]));
    }

    /// <summary>Seals what stands in clear.</summary>
    /// <returns>How many values there were.</returns>
    internal static int SealOld(IDbConnection c, IDataSeal seal)
    {
        foreach (var (id, token) in c.Query<(long, string)>("SELECT id, unseal(token) FROM shelf WHERE token_sha256 IS NULL"))
            c.Execute("UPDATE shelf SET token_sha256 = @sha WHERE id = @id", new { id, sha = Digest(token) });
        if (seal is NoSeal) return 0;
        return All.Sum(s => c.Execute($"UPDATE {s.Table} SET {s.Column} = seal({s.Column}) WHERE {s.Column} <> '' AND substr({s.Column}, 1, {Mark.Length}) <> '{Mark}'"));
    }

    private static string? Sealed(IDataSeal seal, string? clear) => clear is null or "" || seal is NoSeal ? clear : Mark + seal.Seal(clear);
}
