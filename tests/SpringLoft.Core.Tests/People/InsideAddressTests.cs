using System.Net;
using SpringLoft.Core.People;

namespace SpringLoft.Core.Tests.People;

public class InsideAddressTests
{
    // RFC 6890 and its updates, RFC 1918, RFC 4193, RFC 6598, RFC 3927; the cloud's own address for secrets is link-local.
    [Theory]
    [InlineData("127.0.0.1")]
    [InlineData("127.255.255.254")]
    [InlineData("10.0.0.1")]
    [InlineData("172.16.0.1")]
    [InlineData("172.31.255.255")]
    [InlineData("192.168.1.1")]
    [InlineData("169.254.169.254")]
    [InlineData("100.64.0.1")]
    [InlineData("0.0.0.0")]
    [InlineData("224.0.0.1")]
    [InlineData("255.255.255.255")]
    [InlineData("::1")]
    [InlineData("::")]
    [InlineData("fe80::1")]
    [InlineData("fd12:3456::1")]
    [InlineData("ff02::1")]
    [InlineData("::ffff:10.0.0.1")]
    [InlineData("64:ff9b::7f00:1")]
    [InlineData("2002:7f00:1::")]
    public void Addresses_that_lead_inside_are_known(string address) => InsideAddress.Is(IPAddress.Parse(address)).ShouldBeTrue();

    [Theory]
    [InlineData("93.184.215.14")]
    [InlineData("172.15.255.255")]
    [InlineData("172.32.0.0")]
    [InlineData("100.63.255.255")]
    [InlineData("9.255.255.255")]
    [InlineData("2606:2800:21f::1")]
    [InlineData("::ffff:93.184.215.14")]
    [InlineData("64:ff9b::5db8:d70e")]
    public void Addresses_of_others_are_not(string address) => InsideAddress.Is(IPAddress.Parse(address)).ShouldBeFalse();
}
