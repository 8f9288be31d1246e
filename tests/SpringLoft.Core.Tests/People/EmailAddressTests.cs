using SpringLoft.Core.People;

namespace SpringLoft.Core.Tests.People;

public class EmailAddressTests
{
    [Theory]
    [InlineData("oisin@skerrypoint.invalid", true)]
    [InlineData("o'hara+class@x.invalid", true)]
    [InlineData("@x.invalid", false)]
    [InlineData("nobody@", false)]
    [InlineData("nonsense", false)]
    [InlineData("two words@x.invalid", false)]
    [InlineData("Oisín <oisin@x.invalid>", false)]
    public void A_bare_address_is_one(string text, bool one) => EmailAddress.IsOne(text).ShouldBe(one);

    // RFC 5321, 4.5.3.1 (from memory).
    [Theory]
    [InlineData(64, true)]
    [InlineData(65, false)]
    public void No_more_stands_before_the_sign_than_mail_servers_take(int length, bool one) => EmailAddress.IsOne($"{new string('q', length)}@x.invalid").ShouldBe(one);

    [Fact]
    public void Nor_in_all() => EmailAddress.IsOne($"a@{string.Join('.', Enumerable.Repeat(new string('x', 60), 5))}").ShouldBeFalse();
}
