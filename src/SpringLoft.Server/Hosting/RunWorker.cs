using System.Threading.Channels;
using SpringLoft.App;
using SpringLoft.App.Closing;
using SpringLoft.App.Plans;
using SpringLoft.App.Rollover;
using SpringLoft.Core;
using SpringLoft.Core.Closing;
using SpringLoft.Store.Files;
using SpringLoft.Store.Runs;

namespace SpringLoft.Server.Hosting;

/// <summary>Works runs off one after the other; at start, those that an earlier process left.</summary>
internal sealed class RunWorker(Premises premises, ClosingRunner closing, PuttingPlans putting, RollingMany rolling, TakeHomes takeHomes, Channel<RunId> queue, ILogger<RunWorker> log) : BackgroundService
{
    private static readonly TimeSpan AgainAfter = TimeSpan.FromSeconds(5);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Task.Yield();
        foreach (var left in premises.Db.Read(RunStore.Unfinished))
        {
            log.LogInformation("Run {Run} was left unfinished and goes on", left.Value);
            await Go(left, stoppingToken);
        }
        try
        {
            await foreach (var run in queue.Reader.ReadAllAsync(stoppingToken)) await Go(run, stoppingToken);
        }
        catch (OperationCanceledException) { log.LogInformation("Runs are parked; they go on at the next start"); }
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
            // The run stays unfinished and is taken up at the next start; other runs are not held up.
            log.LogError(e, "Run {Run} stopped on a fault", run.Value);
        }
    }
}
