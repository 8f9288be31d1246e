using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;

namespace SpringLoft.Server.Hosting;

/// <summary>Where this program is reached itself: known once it listens, as with port 0 the system chooses one.</summary>
internal sealed class OwnAddress(IServer server)
{
    /// <summary>The first address that the program listens on.</summary>
    /// <exception cref="InvalidOperationException">It does not listen yet.</exception>
    internal Uri Get() => server.Features.Get<IServerAddressesFeature>()?.Addresses.FirstOrDefault() is { } first ? new Uri(first.Replace("[::]", "127.0.0.1", StringComparison.Ordinal).Replace("0.0.0.0", "127.0.0.1", StringComparison.Ordinal).Replace("//+", "//127.0.0.1", StringComparison.Ordinal).Replace("//*", "//127.0.0.1", StringComparison.Ordinal))
        : throw new InvalidOperationException("The program does not listen yet.");
}
