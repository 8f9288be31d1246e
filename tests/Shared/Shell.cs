using System.Diagnostics;

namespace SpringLoft.Tests.Shared;

/// <summary>Runs the stock tools that our files are checked with.</summary>
internal static class Shell
{
    /// <summary>Runs a program and gives its exit code and everything it printed.</summary>
    internal static (int Code, string Said) Run(string folder, string program, params string[] arguments)
    {
        var start = new ProcessStartInfo(program, arguments) { WorkingDirectory = folder, RedirectStandardOutput = true, RedirectStandardError = true };
        using var process = Process.Start(start) ?? throw new InvalidOperationException($"{program} did not start.");
        var error = process.StandardError.ReadToEndAsync();
        var said = process.StandardOutput.ReadToEnd() + error.Result;
        process.WaitForExit();
        return (process.ExitCode, said);
    }
}

/// <summary>A folder that is gone afterwards.</summary>
internal sealed class Scratch : IDisposable
{
    internal string Path { get; } = Directory.CreateTempSubdirectory("spring-loft-test-").FullName;

    internal string Under(params string[] parts) => System.IO.Path.Combine([Path, .. parts]);

    public void Dispose() => Directory.Delete(Path, recursive: true);
}
