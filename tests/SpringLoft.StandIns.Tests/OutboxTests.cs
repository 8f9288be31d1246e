using MimeKit;
using NodaTime;
using SpringLoft.StandIns;
using SpringLoft.Tests.Shared;

namespace SpringLoft.StandIns.Tests;

public class OutboxTests
{
    [Fact]
    public void A_letter_is_kept_as_a_file_that_a_mail_reader_opens()
    {
        using var scratch = new Scratch();
        var outbox = new Outbox(scratch.Under("outbox"));

        outbox.Send("oisin@skerrypoint.invalid", "Oisín Farquhar", "Clay 6B · 2026–27 is in the loft", "It was closed.\nAll is well.", Instant.FromUtc(2027, 6, 22, 12, 0));
        outbox.Send("oisin@skerrypoint.invalid", "Oisín Farquhar", "Second", "x", Instant.FromUtc(2027, 6, 22, 12, 0));

        var letters = Directory.GetFiles(scratch.Under("outbox"), "*.eml").Order().Select(f => MimeMessage.Load(f)).ToList();
        letters.Count.ShouldBe(2);
        letters[0].Subject.ShouldBe("Clay 6B · 2026–27 is in the loft");
        letters[0].To.ToString().ShouldContain("oisin@skerrypoint.invalid");
        letters[0].TextBody!.ReplaceLineEndings("\n").TrimEnd().ShouldBe("It was closed.\nAll is well.");
        letters[0].Date.UtcDateTime.ShouldBe(new DateTime(2027, 6, 22, 12, 0, 0, DateTimeKind.Utc));
    }
}
