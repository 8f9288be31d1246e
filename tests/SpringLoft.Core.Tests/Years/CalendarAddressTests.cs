using SpringLoft.Core.Years;

namespace SpringLoft.Core.Tests.Years;

public class CalendarAddressTests
{
    private static readonly CalendarAddress Address = new(new(12), new(7));

    [Fact]
    public void An_address_is_read_and_fits_the_secret_it_was_made_under_and_no_other()
    {
        var (read, mark) = CalendarAddress.Read(Address.Under("secret"))!.Value;

        read.ShouldBe(Address);
        read.Fits("secret", mark).ShouldBeTrue();
        read.Fits("secret2", mark).ShouldBeFalse();
        (read with { Person = new(8) }).Fits("secret", mark).ShouldBeFalse();
        (read with { Class = new(13) }).Fits("secret", mark).ShouldBeFalse();
    }

    [Fact]
    public void Its_mark_is_an_HMAC_with_SHA_256_cut_to_160_bits() =>
        // Made with Python's hmac module: hmac.new(b"secret", b"calendar of 12 for 7", "sha256").hexdigest()[:40]
        Address.Under("secret").ShouldBe("12-7-66c1f361c3ff845104e1babdf8e61336a58d5b9b");

    [Theory]
    [InlineData("")]
    [InlineData("12-7")]
    [InlineData("12-7-abc")]
    [InlineData("-12-7-0123456789012345678901234567890123456789")]
    [InlineData("012-7-0123456789012345678901234567890123456789")]
    [InlineData("+12-7-0123456789012345678901234567890123456789")]
    [InlineData("12-99999999999999999999-0123456789012345678901234567890123456789")]
    public void What_is_no_address_is_none(string text) => CalendarAddress.Read(text).ShouldBeNull();
}
