using System.Threading.Channels;
using SpringLoft.App;
using SpringLoft.App.Closing;
using SpringLoft.App.Plans;
using SpringLoft.App.Rollover;
using SpringLoft.App.Runs;
using SpringLoft.Core;
using SpringLoft.Core.Closing;
using SpringLoft.Store.Files;
using SpringLoft.Store.Runs;

namespace SpringLoft.Server.Hosting;

/// <summary>Works runs off, those of a kind one after the other and the kinds side by side; at start, those that an earlier process left.</summary>
internal sealed class RunWorker(Premises premises, ClosingRunner closing, PuttingPlans putting, RollingMany rolling, TakeHomes takeHomes, RunFaults faults, Channel<RunId> queue, ILogger<RunWorker> log) : BackgroundService
{
    private static readonly TimeSpan AgainAfter = TimeSpan.FromSeconds(5);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Task.Yield();
        var kinds = Enum.GetValues<RunKind>().ToDictionary(k => k, _ => Channel.CreateUnbounded<RunId>());
        void Sort(RunId run)
        {
            if (premises.Db.Read(c => RunStore.Find(c, run)) is { } row) kinds[row.Kind].Writer.TryWrite(run);
        }
        foreach (var left in premises.Db.Read(RunStore.Unfinished))
        {
            log.LogInformation("Run {Run} was left unfinished and goes on", left.Value);
            Sort(left);
        }
        var workers = kinds.Values.Select(k => Each(k.Reader, stoppingToken)).ToList();
        try
        {
            await foreach (var run in queue.Reader.ReadAllAsync(stoppingToken)) Sort(run);
        }
        catch (OperationCanceledException) { /* the program ends */ }
        await Task.WhenAll(workers);
        log.LogInformation("Runs are parked; they go on at the next start");
    }

    private async Task Each(ChannelReader<RunId> runs, CancellationToken stop)
    {
        try
        {
            await foreach (var run in runs.ReadAllAsync(stop)) await Go(run, stop);
        }
        catch (OperationCanceledException) { /* the program ends */ }
    }

    private void Work(RunId run, CancellationToken stop)
    {
        if (premises.Db.Read(c => RunStore.Find(c, run)) is not { State: StepState.Working } row) return;
        switch (row.Kind)
        {
            case RunKind.PutPlan: putting.Go(run, stop); break;
            case RunKind.TakeHomes: takeHomes.Go(run, stop); break;
            case RunKind.RollOver: rolling.Go(run, stop); break;
            default: closing.Go(run, stop); break;
        }
    }

    private void Failed(RunId run, Exception e)
    {
        try { faults.Failed(run, e.GetType().Name); }
        // If not even that can be written, the run is taken up at the next start.
        catch (Exception again) { log.LogError(again, "That run {Run} failed could not be noted", run.Value); }
    }

    private async Task Go(RunId run, CancellationToken stop)
    {
        try { await Task.Run(() => Work(run, stop), stop); }
        catch (OperationCanceledException) when (stop.IsCancellationRequested) { throw; }
        catch (DiskFullException e)
        {
            // Not even that it failed can be written: it goes on by itself once there is room.
            log.LogError(e, "Run {Run} waits: the disk of the database is full", run.Value);
            _ = Task.Delay(AgainAfter, stop).ContinueWith(_ => queue.Writer.TryWrite(run), stop, TaskContinuationOptions.OnlyOnRanToCompletion, TaskScheduler.Default);
        }
        catch (Exception e)
        {
            log.LogError(e, "Run {Run} stopped on a fault", run.Value);
            Failed(run, e);
        }
    }
}
