using System.Globalization;
using System.Security.Cryptography;
using System.Text;

namespace SpringLoft.Core.Years;

/// <summary>
/// What nobody can guess of the address of a class's calendar: one person's own, so that it ends when their place in the class does,
/// and made from a secret of the class, so that none has to be kept (HMAC, RFC 2104, with SHA-256).
/// </summary>
/// <param name="Class">Whose calendar it is.</param>
/// <param name="Person">Whose address it is.</param>
public sealed record CalendarAddress(ClassId Class, PersonId Person)
{
    /// <summary>Hex digits of the part that is made from the secret: 160 bits.</summary>
    public const int MarkLength = 40;

    /// <summary>The address under a secret.</summary>
    public string Under(string secret) => string.Create(CultureInfo.InvariantCulture, $"{Class.Value}-{Person.Value}-{Mark(secret)}");

    /// <summary>Reads an address; null if it is none.</summary>
    public static (CalendarAddress Address, string Mark)? Read(string text)
    {
        var parts = text.Split('-');
        return parts.Length == 3 && parts[2].Length == MarkLength && Id(parts[0]) is { } k && Id(parts[1]) is { } p ? (new(new(k), new(p)), parts[2]) : null;
    }

    /// <summary>Was it made under this secret? Takes as long for a near miss as for a far one.</summary>
    public bool Fits(string secret, string mark) => CryptographicOperations.FixedTimeEquals(Encoding.ASCII.GetBytes(Mark(secret)), Encoding.ASCII.GetBytes(mark));

    private string Mark(string secret) => Convert.ToHexStringLower(HMACSHA256.HashData(Encoding.UTF8.GetBytes(secret),
        Encoding.UTF8.GetBytes(string.Create(CultureInfo.InvariantCulture, $"calendar of {Class.Value} for {Person.Value}"))))[..MarkLength];

    private static long? Id(string text) => long.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var id) && id.ToString(CultureInfo.InvariantCulture) == text ? id : null;
}
