using System.Globalization;
using MimeKit;
using NodaTime;
using SpringLoft.App.Closing;

namespace SpringLoft.StandIns;

/// <summary>A stand-in for the school's mail: every letter is kept as an <c>.eml</c> file (RFC 5322) that any mail program opens.</summary>
/// <param name="folder">Made when the first letter is sent.</param>
public sealed class Outbox(string folder) : IPost
{
    private int count;

    /// <inheritdoc/>
    public void Send(string to, string name, string subject, string text, Instant at)
    {
        Directory.CreateDirectory(folder);
        using var letter = new MimeMessage
        {
            Subject = subject,
            Date = at.ToDateTimeOffset(),
            Body = new TextPart("plain") { Text = text },
        };
        letter.From.Add(new MailboxAddress("Spring Loft", "loft@school.invalid"));
        letter.To.Add(new MailboxAddress(name, to));
        var stamp = at.ToString("uuuuMMdd'T'HHmmss'Z'", CultureInfo.InvariantCulture);
        letter.WriteTo(Path.Combine(folder, $"{stamp}-{Interlocked.Increment(ref count):0000}.eml"));
    }
}
