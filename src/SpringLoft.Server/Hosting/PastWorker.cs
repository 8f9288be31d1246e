using System.Diagnostics;
using SpringLoft.App.Rollover;

namespace SpringLoft.Server.Hosting;

/// <summary>Reads what teachers set up in all years, so that it can be found: when somebody looks, not before.</summary>
internal sealed class PastWorker(PastWords words, ILogger<PastWorker> log) : BackgroundService
{
    // Whoever looks again at once finds what was read a moment ago.
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(5);

    // What was deleted leaves the index too, where nobody looks.
    private static readonly TimeSpan AtLatest = TimeSpan.FromHours(1);

    // In a large school a look at all there is takes long: it takes no more than a twentieth of a processor.
    private const int Share = 20;

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                if (!await words.Asked(AtLatest, stoppingToken) && !words.Exists) continue;
                var took = Stopwatch.StartNew();
                try { await Task.Run(() => words.Refresh(stoppingToken), stoppingToken); }
                catch (Exception e) when (e is not OperationCanceledException)
                {
                    log.LogError(e, "What was set up before could not be read");
                }
                await Task.Delay(Pause > took.Elapsed * Share ? Pause : took.Elapsed * Share, stoppingToken);
            }
            catch (OperationCanceledException) { return; }
        }
    }
}
