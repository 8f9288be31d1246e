using System.Globalization;
using MailKit.Security;

namespace SpringLoft.Server.Hosting;

/// <summary>The school's mail server, as the operator names it.</summary>
/// <param name="Secured">How TLS is had; a server that can't is not handed a letter.</param>
/// <param name="User">Null where no sign-in is asked.</param>
internal sealed record MailServer(string Host, int Port, string From, SecureSocketOptions Secured, string? User, string? Password)
{
    private const int Submissions = 465;

    /// <summary>The stand-in on this machine.</summary>
    internal static MailServer StandIn(int port) => new("127.0.0.1", port, "loft@school.invalid", SecureSocketOptions.None, null, null);

    /// <summary>Reads the settings; null if none is named.</summary>
    /// <exception cref="ArgumentException">One of them says nothing that can be used; told at the start.</exception>
    internal static MailServer? Read(Func<string, string?> setting)
    {
        if (setting("SPRING_LOFT_SMTP") is not { Length: > 0 } at) return null;
        var parts = at.Split(':');
        var port = 587;
        if (parts.Length > 2 || parts[0].Length == 0 || (parts.Length == 2 && !int.TryParse(parts[1], NumberStyles.None, CultureInfo.InvariantCulture, out port)) || port is 0 or > 65535)
            throw new ArgumentException($"SPRING_LOFT_SMTP “{at}” is no mail server like mail.school.example:587.");
        var secured = (setting("SPRING_LOFT_SMTP_TLS") ?? "") switch
        {
            // RFC 8314: submission by TLS from the first byte, or by STARTTLS; letters have links that let people in.
            "" or "required" => port == Submissions ? SecureSocketOptions.SslOnConnect : SecureSocketOptions.StartTls,
            "none" => SecureSocketOptions.None,
            var other => throw new ArgumentException($"SPRING_LOFT_SMTP_TLS “{other}” is neither required nor none."),
        };
        var user = setting("SPRING_LOFT_SMTP_USER") is { Length: > 0 } u ? u : null;
        if (user is not null && secured == SecureSocketOptions.None) throw new ArgumentException("SPRING_LOFT_SMTP_USER is set and SPRING_LOFT_SMTP_TLS is none: the password would be readable on the way.");
        return new(parts[0], port, setting("SPRING_LOFT_MAIL_FROM") ?? "loft@school.invalid", secured, user, setting("SPRING_LOFT_SMTP_PASSWORD"));
    }
}
