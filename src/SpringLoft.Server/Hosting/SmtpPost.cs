using MailKit;
using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;
using NodaTime;
using SpringLoft.App.Letters;

namespace SpringLoft.Server.Hosting;

/// <summary>Sends mail over SMTP.</summary>
/// <param name="from">Address that letters come from.</param>
/// <param name="keepsThem">True for the stand-in that keeps letters.</param>
internal sealed class SmtpPost(string host, int port, string from, bool keepsThem) : IPost
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(15);

    /// <inheritdoc/>
    public bool KeepsThem => keepsThem;

    /// <inheritdoc/>
    public void Send(long id, string to, string name, string subject, string text, Instant at)
    {
        try
        {
            using var letter = new MimeMessage { Subject = subject, Date = at.ToDateTimeOffset(), Body = new TextPart("plain") { Text = text }, MessageId = $"letter-{id}.{at.ToUnixTimeMilliseconds()}@spring-loft" };
            letter.From.Add(new MailboxAddress("Spring Loft", from));
            letter.To.Add(new MailboxAddress(name, to));
            using var smtp = new SmtpClient { Timeout = (int)Patience.TotalMilliseconds };
            smtp.Connect(host, port, SecureSocketOptions.StartTlsWhenAvailable);
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
        // Whatever else there is between here and a mail server: a letter that does not go is no reason to stop anything.
        catch (Exception e) { throw new NotTakenException(NotTaken.ServerAway, e.Message, e); }
    }
}
