using SpringLoft.App.Letters;

namespace SpringLoft.Server.Hosting;

/// <summary>Sends letters as they are written, and again those that were not taken.</summary>
internal sealed class LetterWorker(SendingLetters letters, ILogger<LetterWorker> log) : BackgroundService
{
    private static readonly TimeSpan Often = TimeSpan.FromSeconds(2);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Task.Yield();
        using var timer = new PeriodicTimer(Often);
        try
        {
            while (await timer.WaitForNextTickAsync(stoppingToken))
            {
                try
                {
                    while (letters.Go(stoppingToken) > 0) await Task.Yield();
                }
                catch (Exception e) when (e is not OperationCanceledException) { log.LogError(e, "Letters could not be sent"); }
            }
        }
        catch (OperationCanceledException) { /* the program ends */ }
    }
}
