using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.SignalR;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

/// <summary>What one says, all others hear; nothing else.</summary>
public sealed class Echo : Hub
{
    public Task Say(string text) => Clients.Others.SendAsync("Said", text);

    /// <summary>Serves it until the process is ended; prints where.</summary>
    internal static async Task Serve()
    {
        var builder = WebApplication.CreateBuilder();
        builder.Logging.ClearProviders();
        builder.Services.AddSignalR();
        var app = builder.Build();
        app.Urls.Add("http://127.0.0.1:0");
        app.MapHub<Echo>("/echo");
        await app.StartAsync();
        Console.WriteLine($"echo on {app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First()}");
        await app.WaitForShutdownAsync();
    }
}
