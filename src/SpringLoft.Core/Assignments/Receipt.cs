using System.Globalization;
using System.Security.Cryptography;
using System.Text;

namespace SpringLoft.Core.Assignments;

/// <summary>A thing as it was handed in, for a receipt.</summary>
/// <param name="Sha256">Of its bytes, in hexadecimal.</param>
/// <param name="Size">In bytes.</param>
public sealed record ReceiptThing(string Name, string Sha256, long Size);

/// <summary>A receipt of one handing-in: a code that both sides can hold against each other, and a text to keep.</summary>
public static class Receipt
{
    // Without what is mistaken for something else when it is read out or copied by hand: I, L, O, U. Crockford's base 32 (from memory).
    private const string Letters = "0123456789ABCDEFGHJKMNPQRSTVWXYZ";

    /// <summary>
    /// Eight letters, as <c>7KQ4-M2XD</c>: 40 bits of the SHA-256 of which handing-in it was, when, and every thing in it. It is the
    /// same whenever it is worked out, and another one if a byte, a name, the order or the moment differs.
    /// </summary>
    /// <param name="turn">The number of the handing-in.</param>
    public static string CodeOf(long turn, Instant at, IReadOnlyList<ReceiptThing> things)
    {
        var text = new StringBuilder($"{turn}\n{at.ToUnixTimeTicks()}\n");
        foreach (var t in things) text.Append(t.Sha256).Append(' ').Append(t.Name).Append('\n');
        var bits = SHA256.HashData(Encoding.UTF8.GetBytes(text.ToString()));
        var n = bits.Take(5).Aggregate(0UL, (sum, b) => (sum << 8) | b);
        var code = new char[9];
        for (var i = 0; i < 8; i++) code[i < 4 ? i : i + 1] = Letters[(int)((n >> (35 - (5 * i))) & 31)];
        code[4] = '-';
        return new(code);
    }

    /// <summary>The receipt as plain text, lines of its own for each fact.</summary>
    /// <param name="at">By the school's clock, in the zone that is named beside it.</param>
    /// <param name="late">By how much it was late; null for in time, or without a day.</param>
    public static string Text(string school, string className, string assignment, string student, LocalDateTime at, string zone, Duration? late, string code, IReadOnlyList<ReceiptThing> things)
    {
        var text = new StringBuilder($"{school}\nReceipt {code}\n\n{assignment}\n{className}\n\nHanded in by {student}\n");
        text.Append(CultureInfo.InvariantCulture, $"{at.ToString("dddd d MMMM uuuu, HH:mm:ss", CultureInfo.InvariantCulture)} ({zone})\n");
        if (late is { } by) text.Append(CultureInfo.InvariantCulture, $"Late by {(by.Days > 0 ? $"{by.Days} d " : "")}{by.Hours} h {by.Minutes} min\n");
        text.Append('\n');
        foreach (var t in things) text.Append(CultureInfo.InvariantCulture, $"{t.Name}\n  {t.Size} bytes, SHA-256 {t.Sha256}\n");
        return text.ToString();
    }
}
