using System.Threading.Channels;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Runs;

namespace SpringLoft.App.Runs;

/// <summary>What becomes of a run that met a fault: it is failed with its reason, and can be tried again. Alike for all kinds.</summary>
public sealed class RunFaults(Premises premises, ChannelWriter<RunId> queue)
{
    /// <summary>Ends a run that met a fault: what was done stays, what was not is failed.</summary>
    /// <param name="what">The fault, as it is told to whoever looks after the program.</param>
    public void Failed(RunId id, string what) => premises.Db.Write(c =>
    {
        if (RunStore.Find(c, id) is not { State: StepState.Working } run) return;
        var now = premises.Clock.Now;
        RunStore.Fail(c, id, $"A fault in the program stopped it: {what}. What was done stays; try the rest again, and tell whoever looks after the program if it stops again.", now);
        Premises.Add(c, null, now, new("run failed", "run", id.Value, null, $"{run.Kind}: {what}"));
    });

    /// <summary>Takes up again what failed of a run. Closing runs are tried again as runs of their own.</summary>
    /// <exception cref="RefusedException"><c>not-found</c>; <c>run-none-failed</c>.</exception>
    public void Again(Caller by, RunId id) => premises.Db.Write(c =>
    {
        if (RunStore.Find(c, id) is not { } run || run.Kind == RunKind.Closing || (run.StartedBy != by.Id && by.Role != SchoolRole.Coordinator)) throw Refusals.NotFound("run");
        // A fault after the last class left nothing to do but to end it.
        if (run.State != StepState.Failed || (RunStore.TakeUp(c, id) == 0 && run.Reason is null)) throw new RefusedException("run-none-failed", "Nothing of this run failed.", "There is nothing to try again.");
        Premises.Add(c, by, premises.Clock.Now, new("tried run again", "run", id.Value, null, run.Kind.ToString()));
        premises.Db.AfterCommit(() => queue.TryWrite(id));
    });
}
