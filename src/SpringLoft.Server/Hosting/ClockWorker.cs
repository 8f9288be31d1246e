using SpringLoft.App.Closing;
using SpringLoft.App.Rosters;
using SpringLoft.Core;

namespace SpringLoft.Server.Hosting;

/// <summary>What is due by the clock: the roster feed, and what has lain in the bin long enough.</summary>
internal sealed class ClockWorker(Feeding feeding, LoftBin bin, ILogger<ClockWorker> log) : BackgroundService
{
    private static readonly TimeSpan Often = TimeSpan.FromSeconds(30);

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
                    bin.LetGo();
                    if (feeding.IsDue()) await feeding.Run(null, stoppingToken);
                }
                catch (RefusedException e) { log.LogWarning("The roster feed did not run: {Why}", e.Refusal.What); }
                catch (Exception e) when (e is not OperationCanceledException) { log.LogError(e, "The roster feed failed"); }
            }
        }
        catch (OperationCanceledException) { /* the program ends */ }
    }
}
