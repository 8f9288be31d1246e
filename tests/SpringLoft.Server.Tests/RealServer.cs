using System.Diagnostics;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Runtime.InteropServices;
using System.Text.Json;

namespace SpringLoft.Server.Tests;

/// <summary>The real program as a process of its own, on a real folder and a real port.</summary>
internal sealed class RealServer : IDisposable
{
    private readonly Process process;
    private readonly Task<string> said;

    private RealServer(Process process, Uri address)
    {
        this.process = process;
        said = process.StandardOutput.ReadToEndAsync();
        Address = address;
    }

    internal Uri Address { get; }

    /// <summary>Starts the program on a data folder and waits until it answers.</summary>
    /// <param name="haltAt">A point of a run at which it stands still.</param>
    /// <param name="smallDisk">Megabytes; the file store, with what is in it, is then on a disk of that size, in a mount that only the process sees.</param>
    /// <param name="small">The folder of the data that is on the small disk; blank for all of it, the database too.</param>
    internal static RealServer Start(string data, string? haltAt = null, int? smallDisk = null, string small = "files")
    {
        var port = FreePort();
        var address = new Uri($"http://127.0.0.1:{port}");
        var program = Path.Combine(AppContext.BaseDirectory, "SpringLoft.Server.dll");
        var start = smallDisk is { } mb
            ? new ProcessStartInfo("unshare", ["-rm", "sh", "-c", $"cp -a '{data}/{small}' '{data}-aside' && mount -t tmpfs -o size={mb}m tmpfs '{data}/{small}' && cp -a '{data}-aside/.' '{data}/{small}' && rm -rf '{data}-aside' && exec dotnet '{program}' --urls {address}"])
            : new ProcessStartInfo("dotnet", [program, "--urls", address.ToString()]);
        start.RedirectStandardOutput = true;
        start.Environment["SPRING_LOFT_DATA"] = data;
        if (haltAt is not null) start.Environment["SPRING_LOFT_HALT_AT"] = haltAt;
        var server = new RealServer(Process.Start(start)!, address);
        try { server.WaitUntilUp().Wait(); }
        catch
        {
            server.Dispose();
            throw;
        }
        return server;
    }

    private static int lastPort = 20_000 + (Environment.ProcessId % 100 * 100);

    // Below the ports that the system gives to clients: one of those could be taken again before the server has it.
    private static int FreePort()
    {
        while (true)
        {
            var port = Interlocked.Increment(ref lastPort);
            using var listener = new TcpListener(IPAddress.Loopback, port);
            try { listener.Start(); }
            catch (SocketException) { continue; }
            return port;
        }
    }

    private async Task WaitUntilUp()
    {
        using var http = new HttpClient { BaseAddress = Address };
        for (var i = 0; i < 1200; i++)
        {
            if (process.HasExited) throw new InvalidOperationException($"The server ended at once: {await said}");
            try
            {
                if ((await http.GetAsync("/health")).IsSuccessStatusCode) return;
            }
            catch (HttpRequestException) { }
            await Task.Delay(100);
        }
        throw new TimeoutException("The server did not answer within two minutes.");
    }

    /// <summary>A client without a sign-in.</summary>
    internal HttpClient Nobody() => new(new HttpClientHandler { UseCookies = true }) { BaseAddress = Address, Timeout = TimeSpan.FromMinutes(10) };

    /// <summary>A client signed in.</summary>
    internal async Task<HttpClient> As(string userName, string password = TinySchool.Password)
    {
        var http = Nobody();
        var answer = await http.PostAsJsonAsync("/api/sign-in", new { userName, password });
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
        return http;
    }

    /// <summary>Memory that the process has used at its highest, in bytes.</summary>
    internal long PeakMemory() =>
        long.Parse(File.ReadLines($"/proc/{process.Id}/status").First(l => l.StartsWith("VmHWM:")).Split(' ', StringSplitOptions.RemoveEmptyEntries)[1], System.Globalization.CultureInfo.InvariantCulture) * 1024;

    /// <summary>A path as the process sees it, on its small disk.</summary>
    internal string Inside(string path) => $"/proc/{process.Id}/root{path}";

    /// <summary>Ends the process as kill -9 does.</summary>
    internal void Kill()
    {
        process.Kill(entireProcessTree: true);
        process.WaitForExit();
    }

    /// <summary>Asks the process to end, as a service manager does, and gives its exit code.</summary>
    internal int Terminate()
    {
        const int sigterm = 15;
        Send(process.Id, sigterm).ShouldBe(0);
        process.WaitForExit(120_000).ShouldBeTrue();
        return process.ExitCode;
    }

    public void Dispose()
    {
        if (!process.HasExited) Kill();
        process.Dispose();
    }

    [DllImport("libc", EntryPoint = "kill")]
    private static extern int Send(int pid, int signal);
}

/// <summary>Answers read as tests need them.</summary>
internal static class Answers
{
    internal static async Task<JsonElement> Json(this HttpResponseMessage answer) =>
        JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement;

    /// <summary>The stable code of an explained error; empty for anything else.</summary>
    internal static async Task<string> Code(this HttpResponseMessage answer) =>
        answer.Content.Headers.ContentType?.MediaType == "application/problem+json" && (await answer.Json()).TryGetProperty("code", out var code) ? code.GetString()! : "";
}
