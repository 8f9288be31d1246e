using MailKit.Net.Smtp;
using MimeKit;
using SpringLoft.StandIns;
using SpringLoft.Tests.Shared;

namespace SpringLoft.StandIns.Tests;

public class OutboxTests
{
    [Fact]
    public async Task A_letter_sent_over_SMTP_is_kept_as_a_file_that_a_mail_reader_opens()
    {
        using var scratch = new Scratch();
        using var outbox = new SmtpOutbox(scratch.Under("outbox"));
        foreach (var subject in (string[])["Clay 6B · 2026–27 is in the loft", "Second"])
        {
            using var smtp = new SmtpClient();
            await smtp.ConnectAsync("127.0.0.1", outbox.Port);
            using var letter = new MimeMessage { Subject = subject, Body = new TextPart("plain") { Text = "It was closed.\nAll is well." }, Date = new DateTimeOffset(2027, 6, 22, 12, 0, 0, TimeSpan.Zero) };
            letter.From.Add(new MailboxAddress("Loft", "loft@school.invalid"));
            letter.To.Add(new MailboxAddress("Oisín Farquhar", "oisin@skerrypoint.invalid"));
            await smtp.SendAsync(letter);
            await smtp.DisconnectAsync(true);
        }

        var kept = Directory.GetFiles(scratch.Under("outbox"), "*.eml").Order().Select(f => MimeMessage.Load(f)).ToList();
        kept.Select(l => l.Subject).ShouldBe(["Clay 6B · 2026–27 is in the loft", "Second"]);
        kept[0].To.ToString().ShouldContain("oisin@skerrypoint.invalid");
        kept[0].Date.UtcDateTime.ShouldBe(new DateTime(2027, 6, 22, 12, 0, 0, DateTimeKind.Utc));
        outbox.Letters(10).Select(l => l.Subject).ShouldBe(["Second", "Clay 6B · 2026–27 is in the loft"]);
        outbox.LetGoBefore(DateTimeOffset.UtcNow.AddDays(-1)).ShouldBe(0);
        outbox.Letters(1).Single().Text.ReplaceLineEndings("\n").TrimEnd().ShouldBe("It was closed.\nAll is well.");
        outbox.LetGoBefore(DateTimeOffset.UtcNow.AddDays(1)).ShouldBe(2);
        outbox.Letters(10).ShouldBeEmpty();
    }
}
