using SpringLoft.App;
using SpringLoft.App.Assignments;
using SpringLoft.App.Closing;
using SpringLoft.App.Letters;
using SpringLoft.App.Rosters;
using SpringLoft.App.School;
using SpringLoft.App.Workspaces;
using SpringLoft.Core;

namespace SpringLoft.Server.Hosting;

/// <summary>What is due by the clock: drafts that are to be published, notices that are to be posted, the daily letters and the weekly ones to homes, the roster feed, what has lain in the bin long enough, and once a day what the school's rules keep no longer and the files that nothing refers to, and the packages of the loft, one at a time, that are to be read again.</summary>
internal sealed class ClockWorker(Premises premises, Publishing publishing, Notices notices, NewsLetters newsLetters, WeeklyLetters weekly, Feeding feeding, LoftBin bin, ClassBin bins, Keeping keeping, FileSweep sweep, PackageReading reading, ILogger<ClockWorker> log) : BackgroundService
{
    private static readonly TimeSpan Often = TimeSpan.FromSeconds(30);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Task.Yield();
        NodaTime.LocalDate? swept = null;
        using var timer = new PeriodicTimer(Often);
        try
        {
            while (await timer.WaitForNextTickAsync(stoppingToken))
            {
                try
                {
                    publishing.Go();
                    notices.Go();
                    newsLetters.Go();
                    weekly.Go();
                    bin.LetGo();
                    bins.LetGo();
                    if (swept != premises.Clock.Today)
                    {
                        swept = premises.Clock.Today;
                        keeping.Go();
                        sweep.Go(stoppingToken);
                    }
                    reading.Go(stoppingToken);
                    premises.Db.Forget();
                    if (feeding.IsDue()) await feeding.Run(null, stoppingToken);
                }
                catch (RefusedException e) { log.LogWarning("The roster feed did not run: {Why}", e.Refusal.What); }
                catch (Exception e) when (e is not OperationCanceledException) { log.LogError(e, "What was due by the clock failed"); }
            }
        }
        catch (OperationCanceledException) { /* the program ends */ }
    }
}
