using SpringLoft.App.Workspaces;

namespace SpringLoft.Server.Hosting;

/// <summary>Keeps the counts of blind spots fresh in the background; what changed a moment ago the board counts itself.</summary>
internal sealed class BlindWorker(BlindCounts counts, ILogger<BlindWorker> log) : BackgroundService
{
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(5);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                // In small helpings, so that the one writer is free between them.
                while (!stoppingToken.IsCancellationRequested && counts.Refresh(50) > 0) await Task.Yield();
            }
            catch (Exception e) when (e is not OperationCanceledException)
            {
                log.LogError(e, "Blind spots could not be counted");
            }
            try { await Task.Delay(Pause, stoppingToken); }
            catch (OperationCanceledException) { return; }
        }
    }
}
