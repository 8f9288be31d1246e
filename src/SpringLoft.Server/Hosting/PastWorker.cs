using SpringLoft.App.Past;

namespace SpringLoft.Server.Hosting;

/// <summary>Reads what teachers set up in all years, so that it can be found: when somebody looks, not before.</summary>
internal sealed class PastWorker(PastWords words, ILogger<PastWorker> log) : BackgroundService
{
    // Whoever looks again at once finds what was read a moment ago.
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(5);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await words.Asked(stoppingToken);
                await Task.Run(() => words.Refresh(stoppingToken), stoppingToken);
                await Task.Delay(Pause, stoppingToken);
            }
            catch (OperationCanceledException) { return; }
            catch (Exception e)
            {
                log.LogError(e, "What was set up before could not be read");
            }
        }
    }
}
