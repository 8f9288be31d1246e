using System.Text;
using OtpNet;
using SpringLoft.Core.People;

namespace SpringLoft.Core.Tests.People;

public class OneTimeCodeTests
{
    // RFC 6238, Appendix B, the rows of HMAC-SHA1; the secret is the ASCII text "12345678901234567890". The table has 8 digits: 6 are its last six.
    private static readonly byte[] Secret = Encoding.ASCII.GetBytes("12345678901234567890");

    [Theory]
    [InlineData(59, "94287082", 0x1)]
    [InlineData(1111111109, "07081804", 0x23523EC)]
    [InlineData(1111111111, "14050471", 0x23523ED)]
    [InlineData(1234567890, "89005924", 0x273EF07)]
    [InlineData(2000000000, "69279037", 0x3F940AA)]
    [InlineData(20000000000, "65353130", 0x27BC86AA)]
    public void Codes_of_the_standard_are_right_at_their_time(long seconds, string code, long step) =>
        OneTimeCode.StepOf(Secret, code[2..], Instant.FromUnixTimeSeconds(seconds), last: 0).ShouldBe(step);

    [Fact]
    public void A_code_is_right_one_step_early_or_late_and_not_two()
    {
        var at = Instant.FromUnixTimeSeconds(1111111109);
        foreach (var (off, right) in ((int, bool)[])[(-60, false), (-30, true), (0, true), (30, true), (60, false)])
            (OneTimeCode.StepOf(Secret, "081804", at + Duration.FromSeconds(off), 0) is not null).ShouldBe(right, $"{off} s");
    }

    [Fact]
    public void A_code_that_was_right_is_not_right_again_nor_one_from_before()
    {
        var at = Instant.FromUnixTimeSeconds(1111111111);
        OneTimeCode.StepOf(Secret, "050471", at, last: 0x23523ED).ShouldBeNull();
        OneTimeCode.StepOf(Secret, "081804", at, last: 0x23523ED).ShouldBeNull();
    }

    [Theory]
    [InlineData("")]
    [InlineData("05047")]
    [InlineData("0504711")]
    [InlineData("05047a")]
    [InlineData("٠٥٠٤٧١")]
    public void What_is_no_code_is_not_right(string typed) => OneTimeCode.StepOf(Secret, typed, Instant.FromUnixTimeSeconds(1111111111), 0).ShouldBeNull();

    [Fact]
    public void Blanks_in_a_code_do_not_count() => OneTimeCode.StepOf(Secret, " 050 471 ", Instant.FromUnixTimeSeconds(1111111111), 0).ShouldNotBeNull();

    [Fact]
    public void The_secret_is_told_in_base32_and_in_an_address_that_apps_read()
    {
        // RFC 4648, base32 of the same text.
        OneTimeCode.Text(Secret).ShouldBe("GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ");
        OneTimeCode.Address("Skerry Point", "wren", Secret).ShouldBe("otpauth://totp/Spring%20Loft%20Skerry%20Point%3Awren?secret=GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ&issuer=Spring%20Loft%20Skerry%20Point");
        Base32Encoding.ToBytes(OneTimeCode.Text(Secret)).ShouldBe(Secret);
    }
}
