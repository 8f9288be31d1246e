using System.Globalization;
using System.Security.Cryptography;
using System.Text;

namespace SpringLoft.Core.Audit;

/// <summary>A line of the audit trail as the chain has it: texts as they are kept in the database, null where nothing stands.</summary>
/// <param name="At">As it is written there, to the second and below.</param>
/// <param name="Words">Digest of who it was and what they did, in words: <see cref="AuditChain.Words"/>.</param>
public sealed record ChainedLine(long Id, string At, long? Person, string Act, string Thing, long? ThingId, long? Class, string? Address, long? Session, string Words);

/// <summary>
/// The chain of hashes (SHA-256, FIPS 180-4) over the audit trail: each line's hash is made of the line and of the hash before
/// it, so that no line can be changed, taken out or put in without all hashes after it changing. Names and words go in as a
/// salted digest: they can be taken out of a line for the sake of a person who is erased, and the chain holds.
/// </summary>
public static class AuditChain
{
    /// <summary>What stands before the first line of all.</summary>
    public const string Beginning = "0000000000000000000000000000000000000000000000000000000000000000";

    /// <summary>The digest of a line's words: lower-case hex.</summary>
    /// <param name="salt">Of this line alone; without it nobody can try names until one fits.</param>
    public static string Words(string salt, string who, string detail) => Digest(salt, who, detail);

    /// <summary>The hash of a line: lower-case hex.</summary>
    /// <param name="before">Of the line before it.</param>
    public static string Hash(string before, ChainedLine l) =>
        Digest(before, Text(l.Id), l.At, Text(l.Person), l.Act, l.Thing, Text(l.ThingId), Text(l.Class), l.Address, Text(l.Session), l.Words);

    // Each part as its length in bytes, a colon and itself, as netstrings are; "-" where there is none. No two lists of parts are written alike.
    private static string Digest(params string?[] parts)
    {
        var all = new StringBuilder();
        foreach (var part in parts)
        {
            if (part is null) all.Append('-');
            else all.Append(CultureInfo.InvariantCulture, $"{Encoding.UTF8.GetByteCount(part)}:{part},");
        }
        return Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(all.ToString())));
    }

    private static string? Text(long? number) => number?.ToString(CultureInfo.InvariantCulture);
}
