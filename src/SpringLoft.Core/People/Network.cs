using System.Net;
using System.Net.Sockets;

namespace SpringLoft.Core.People;

/// <summary>What counts as one place when guesses are counted by where they come from.</summary>
public static class Network
{
    /// <summary>
    /// An address of IPv4 by itself; of IPv6 the first 64 bits, which is what one subscriber is given (RFC 6177; RFC 4291 section
    /// 2.5.4): by the whole of it a guesser would have as many places as they like. Text that is no address is a place of its own.
    /// </summary>
    public static string Of(string address)
    {
        if (!IPAddress.TryParse(address, out var ip)) return address;
        if (ip.IsIPv4MappedToIPv6) return ip.MapToIPv4().ToString();
        if (ip.AddressFamily != AddressFamily.InterNetworkV6) return ip.ToString();
        var bytes = ip.GetAddressBytes();
        bytes.AsSpan(8).Clear();
        return $"{new IPAddress(bytes)}/64";
    }
}
