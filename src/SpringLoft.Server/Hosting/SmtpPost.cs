using MailKit;
using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;
using NodaTime;
using SpringLoft.App.Letters;

namespace SpringLoft.Server.Hosting;

/// <summary>Sends mail over SMTP.</summary>
/// <param name="letGo">Of the stand-in that keeps letters: lets go of old ones; null for a real mail server.</param>
internal sealed class SmtpPost(MailServer server, Action<DateTimeOffset>? letGo = null) : IPost
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(15);

    /// <inheritdoc/>
    public bool KeepsThem => letGo is not null;

    /// <inheritdoc/>
    public void LetGo(Instant moment) => letGo?.Invoke(moment.ToDateTimeOffset());

    /// <inheritdoc/>
    public void Send(long id, string to, string name, string subject, string text, Instant at)
    {
        try
        {
            using var letter = new MimeMessage { Subject = subject, Date = at.ToDateTimeOffset(), Body = new TextPart("plain") { Text = text }, MessageId = $"letter-{id}.{at.ToUnixTimeMilliseconds()}@spring-loft" };
            letter.From.Add(new MailboxAddress("Spring Loft", server.From));
            letter.To.Add(new MailboxAddress(name, to));
            using var smtp = new SmtpClient { Timeout = (int)Patience.TotalMilliseconds };
            smtp.Connect(server.Host, server.Port, server.Secured);
            if (server.User is not null) smtp.Authenticate(server.User, server.Password ?? "");
            smtp.Send(letter);
            smtp.Disconnect(quit: true);
        }
        catch (SmtpCommandException e) when (e.ErrorCode is SmtpErrorCode.RecipientNotAccepted or SmtpErrorCode.MessageNotAccepted)
        {
            // RFC 5321, 4.2.1: 5yz is for good, 4yz for now.
            throw new NotTakenException((int)e.StatusCode >= 500 ? NotTaken.Never : NotTaken.Later, $"The mail server answered {(int)e.StatusCode}: {e.Message}", e);
        }
        catch (ParseException e) { throw new NotTakenException(NotTaken.Never, $"The address can't be read: {e.Message}", e); }
        catch (SslHandshakeException e) { throw new NotTakenException(NotTaken.ServerAway, "The mail server's certificate is not trusted, has run out, or is for another name.", e); }
        catch (NotSupportedException e) { throw new NotTakenException(NotTaken.ServerAway, "The mail server does not offer TLS (STARTTLS), or no sign-in; letters are not sent in the open.", e); }
        catch (AuthenticationException e) { throw new NotTakenException(NotTaken.ServerAway, "The mail server does not take the user name and password that it is signed in with.", e); }
        // Whatever else there is between here and a mail server: a letter that does not go is no reason to stop anything.
        catch (Exception e) { throw new NotTakenException(NotTaken.ServerAway, e.Message, e); }
    }
}
