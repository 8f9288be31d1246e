using System.Net.Sockets;
using SpringLoft.App;
using SpringLoft.Core.People;
using SpringLoft.Formats.OneRoster;

namespace SpringLoft.Server.Hosting;

/// <summary>
/// How other programs are asked: at the address that was given and nowhere else. A redirect is an answer and not followed; an
/// address inside the network is not asked, whatever name leads there, unless the operator says so.
/// </summary>
internal static class Fetching
{
    /// <summary>The client for everything that is fetched.</summary>
    internal static HttpClient Client(OutsideRules rules)
    {
        var handler = new SocketsHttpHandler { AllowAutoRedirect = false, UseCookies = false, UseProxy = false, ConnectTimeout = TimeSpan.FromSeconds(20) };
        if (!rules.InsideToo) handler.ConnectCallback = Connect;
        return new(handler) { Timeout = TimeSpan.FromMinutes(5) };
    }

    // Looked at where the connection is made: a name that is answered otherwise the second time leads nowhere else.
    private static async ValueTask<Stream> Connect(SocketsHttpConnectionContext context, CancellationToken stop)
    {
        var addresses = await System.Net.Dns.GetHostAddressesAsync(context.DnsEndPoint.Host, stop);
        var outside = addresses.Where(a => !InsideAddress.Is(a)).ToArray();
        if (outside.Length == 0 && addresses.Length > 0) throw new InsideAddressException();
        var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
        try
        {
            await socket.ConnectAsync(outside, context.DnsEndPoint.Port, stop);
            return new NetworkStream(socket, ownsSocket: true);
        }
        catch
        {
            socket.Dispose();
            throw;
        }
    }
}
