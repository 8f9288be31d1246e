using SpringLoft.Core.People;

namespace SpringLoft.Core.Tests.People;

public class NetworkTests
{
    // Addresses of documentation: RFC 5737 and RFC 3849.
    [Theory]
    [InlineData("192.0.2.7", "192.0.2.7")]
    [InlineData("::ffff:192.0.2.7", "192.0.2.7")]
    [InlineData("2001:db8:1:2:aaaa:bbbb:cccc:dddd", "2001:db8:1:2::/64")]
    [InlineData("2001:db8:1:2::1", "2001:db8:1:2::/64")]
    [InlineData("2001:db8:1:3::1", "2001:db8:1:3::/64")]
    [InlineData("", "")]
    public void One_subscriber_is_one_place(string address, string place) => Network.Of(address).ShouldBe(place);
}
