using System.Diagnostics;
using System.Net.Http.Json;
using System.Runtime.InteropServices;
using System.Text.Json;

namespace SpringLoft.Server.Tests;

/// <summary>The real program as a process of its own, on a real folder and a real port.</summary>
internal sealed class RealServer : IDisposable
{
    /// <summary>The program: where the environment says that it was published, or as it was built beside the tests.</summary>
    private static readonly string Program = Path.Combine(Environment.GetEnvironmentVariable("SPRING_LOFT_PROGRAM") ?? AppContext.BaseDirectory, "SpringLoft.Server.dll");

    private readonly Process process;

    private RealServer(Process process, Uri address)
    {
        this.process = process;
        Address = address;
    }

    internal Uri Address { get; }

    /// <summary>Starts the program on a data folder and waits until it answers, on a port that the system chooses.</summary>
    /// <param name="haltAt">A point of a run at which it stands still.</param>
    /// <param name="smallDisk">Megabytes; the file store, with what is in it, is then on a disk of that size, in a mount that only the process sees.</param>
    /// <param name="small">The folder of the data that is on the small disk; blank for all of it, the database too.</param>
    /// <param name="address">What links for others begin with; null for where it listens.</param>
    /// <param name="proxy">The network address of a proxy that it is to believe.</param>
    /// <param name="clock">A file with the moment that the program believes in; null for the real time.</param>
    /// <param name="settings">More settings of the operator's, as the environment has them.</param>
    /// <exception cref="InvalidOperationException">It ended before it answered; with what it said.</exception>
    internal static RealServer Start(string data, string? haltAt = null, int? smallDisk = null, string small = "files", string? clock = null, string? address = null, string? proxy = null, IReadOnlyDictionary<string, string>? settings = null)
    {
        const string any = "http://127.0.0.1:0";
        var start = smallDisk is { } mb
            ? new ProcessStartInfo("unshare", ["-rm", "sh", "-c", $"cp -a '{data}/{small}' '{data}-aside' && mount -t tmpfs -o size={mb}m tmpfs '{data}/{small}' && cp -a '{data}-aside/.' '{data}/{small}' && rm -rf '{data}-aside' && exec dotnet '{Program}' --urls {any}"])
            : new ProcessStartInfo("dotnet", [Program, "--urls", any]);
        (start.RedirectStandardOutput, start.RedirectStandardError) = (true, true);
        start.Environment["SPRING_LOFT_DATA"] = data;
        foreach (var (name, value) in settings ?? new Dictionary<string, string>()) start.Environment[name] = value;
        if (haltAt is not null) start.Environment["SPRING_LOFT_HALT_AT"] = haltAt;
        if (address is not null) start.Environment["SPRING_LOFT_ADDRESS"] = address;
        if (proxy is not null) start.Environment["SPRING_LOFT_PROXY"] = proxy;
        if (clock is not null) start.Environment["SPRING_LOFT_CLOCK"] = clock;
        var process = Process.Start(start)!;
        try { return new(process, Answers(process)); }
        catch
        {
            if (!process.HasExited) process.Kill(entireProcessTree: true);
            process.Dispose();
            throw;
        }
    }

    /// <summary>The program on a data folder that it is to refuse: its exit code and what it said.</summary>
    internal static (int Code, string Said) Refused(string data, params string[] arguments)
    {
        var start = new ProcessStartInfo("dotnet", [Program, .. arguments]) { RedirectStandardOutput = true, RedirectStandardError = true };
        start.Environment["SPRING_LOFT_DATA"] = data;
        using var process = Process.Start(start)!;
        var error = process.StandardError.ReadToEndAsync();
        var said = process.StandardOutput.ReadToEnd() + error.Result;
        process.WaitForExit();
        return (process.ExitCode, said);
    }

    // It says where it answers once it does; that, or its end, is what is waited for.
    private static Uri Answers(Process process)
    {
        const string mark = "Spring Loft answers on ";
        var error = process.StandardError.ReadToEndAsync();
        var said = new System.Text.StringBuilder();
        while (process.StandardOutput.ReadLine() is { } line)
        {
            if (line.StartsWith(mark, StringComparison.Ordinal))
            {
                _ = process.StandardOutput.ReadToEndAsync();
                return new(line[mark.Length..]);
            }
            said.AppendLine(line);
        }
        throw new InvalidOperationException($"The server ended before it answered: {said}{error.Result}");
    }

    /// <summary>A client without a sign-in.</summary>
    internal HttpClient Nobody() => new(new HttpClientHandler { UseCookies = true }) { BaseAddress = Address, Timeout = Timeout.InfiniteTimeSpan };

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

    /// <summary>Gives its small disk more room while it runs.</summary>
    internal void Grow(int megabytes)
    {
        var disk = File.ReadLines($"/proc/{process.Id}/mounts").Last(l => l.StartsWith("tmpfs ", StringComparison.Ordinal) && l.Contains("spring-loft", StringComparison.Ordinal)).Split(' ')[1];
        Shell.Run("/", "nsenter", "-t", $"{process.Id}", "-U", "-m", "--preserve-credentials", "mount", "-o", $"remount,size={megabytes}m", disk).Code.ShouldBe(0);
    }

    /// <summary>Looks again and again until something is so; gives up only if the process ends.</summary>
    internal async Task Until(string what, Func<Task<bool>> there)
    {
        while (!await there())
        {
            if (process.HasExited) throw new InvalidOperationException($"The server ended before there was {what}.");
            await Task.Delay(50);
        }
    }

    /// <inheritdoc cref="Until(string, Func{Task{bool}})"/>
    internal Task Until(string what, Func<bool> there) => Until(what, () => Task.FromResult(there()));

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
        process.WaitForExit();
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
