using System.Net;
using System.Net.Sockets;

namespace SpringLoft.Core.People;

/// <summary>Which network addresses lead into the machine or the network that the program stands in, and not out to others.</summary>
public static class InsideAddress
{
    // IANA's registries of special-purpose addresses for IPv4 and IPv6 (RFC 6890 and its updates): whatever is not globally reachable,
    // multicast (RFC 5771, RFC 4291) too. The list is from memory of them.
    private static readonly IPNetwork[] Inside = [.. new[]
    {
        "0.0.0.0/8", "10.0.0.0/8", "100.64.0.0/10", "127.0.0.0/8", "169.254.0.0/16", "172.16.0.0/12", "192.0.0.0/24", "192.0.2.0/24",
        "192.168.0.0/16", "198.18.0.0/15", "198.51.100.0/24", "203.0.113.0/24", "224.0.0.0/4", "240.0.0.0/4",
        "::/128", "::1/128", "64:ff9b:1::/48", "100::/64", "2001:db8::/32", "fc00::/7", "fe80::/10", "fec0::/10", "ff00::/8",
    }.Select(text => IPNetwork.Parse(text))];

    // IPv4 inside IPv6: translated (RFC 6052) and 6to4 (RFC 3056).
    private static readonly IPNetwork Translated = IPNetwork.Parse("64:ff9b::/96");
    private static readonly IPNetwork SixToFour = IPNetwork.Parse("2002::/16");

    /// <summary>Does the address lead inside? One of IPv6 that only wraps one of IPv4 is judged by that.</summary>
    public static bool Is(IPAddress address)
    {
        if (address.IsIPv4MappedToIPv6) return Is(address.MapToIPv4());
        if (address.AddressFamily == AddressFamily.InterNetworkV6)
        {
            var bytes = address.GetAddressBytes();
            if (Translated.Contains(address)) return Is(new IPAddress(bytes.AsSpan(12, 4)));
            if (SixToFour.Contains(address)) return Is(new IPAddress(bytes.AsSpan(2, 4)));
        }
        return Inside.Any(n => n.Contains(address));
    }
}
