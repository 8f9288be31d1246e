using OtpNet;

namespace SpringLoft.Core.People;

/// <summary>Codes of an authenticator app: TOTP of RFC 6238 with its defaults, HMAC-SHA1, 30 seconds and 6 digits.</summary>
public static class OneTimeCode
{
    /// <summary>Bytes of a secret: as long as the HMAC's, as RFC 4226 section 4 asks.</summary>
    public const int SecretBytes = 20;

    /// <summary>The time step at which a code is right; null if it is not right, or was used before.</summary>
    /// <param name="secret">As the app has it.</param>
    /// <param name="code">As typed; blanks in it do not count.</param>
    /// <param name="last">The step of the code that was right last: RFC 6238 section 5.2 takes each only once.</param>
    public static long? StepOf(byte[] secret, string code, Instant now, long last)
    {
        var typed = new string([.. code.Where(c => !char.IsWhiteSpace(c))]);
        if (typed.Length != 6 || !typed.All(char.IsAsciiDigit)) return null;
        // One step to each side: section 5.2 on clocks that differ.
        return new Totp(secret).VerifyTotp(now.ToDateTimeUtc(), typed, out var step, new VerificationWindow(previous: 1, future: 1)) && step > last ? step : null;
    }

    /// <summary>A secret as people type it into an app: base32 of RFC 4648.</summary>
    public static string Text(byte[] secret) => Base32Encoding.ToString(secret).TrimEnd('=');

    /// <summary>The address that an app reads from a QR code, as authenticator apps agree on it (the "Key URI" format, from memory).</summary>
    public static string Address(string school, string userName, byte[] secret) =>
        $"otpauth://totp/{Uri.EscapeDataString($"Spring Loft {school}:{userName}")}?secret={Text(secret)}&issuer={Uri.EscapeDataString($"Spring Loft {school}")}";
}
