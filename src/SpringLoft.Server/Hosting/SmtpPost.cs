using MailKit;
using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;
using NodaTime;
using SpringLoft.App.Closing;

namespace SpringLoft.Server.Hosting;

/// <summary>Sends mail over SMTP.</summary>
/// <param name="from">Address that letters come from.</param>
internal sealed class SmtpPost(string host, int port, string from) : IPost
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(15);

    /// <inheritdoc/>
    public void Send(string to, string name, string subject, string text, Instant at)
    {
        using var letter = new MimeMessage { Subject = subject, Date = at.ToDateTimeOffset(), Body = new TextPart("plain") { Text = text } };
        try
        {
            letter.From.Add(new MailboxAddress("Spring Loft", from));
            letter.To.Add(new MailboxAddress(name, to));
            using var smtp = new SmtpClient { Timeout = (int)Patience.TotalMilliseconds };
            smtp.Connect(host, port, SecureSocketOptions.StartTlsWhenAvailable);
            smtp.Send(letter);
            smtp.Disconnect(quit: true);
        }
        catch (Exception e) when (e is System.Net.Sockets.SocketException or ProtocolException or CommandException or ServiceNotConnectedException or ParseException or TimeoutException or AuthenticationException)
        {
            throw new IOException(e.Message, e);
        }
    }
}
