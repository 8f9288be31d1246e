using System.Collections.Concurrent;

namespace SpringLoft.App.Closing;

/// <summary>Points of a run that are worth stopping at when a fault is being provoked.</summary>
public interface IRunMilestones
{
    /// <summary>Called when a point is reached.</summary>
    /// <param name="point">Its name.</param>
    /// <param name="stop">The stop that the run looks for at this point; none where it is not to be stopped here.</param>
    void Reached(string point, CancellationToken stop = default);
}

/// <summary>Nothing happens at any point.</summary>
public sealed class NoMilestones : IRunMilestones
{
    /// <inheritdoc/>
    public void Reached(string point, CancellationToken stop = default) { }
}

/// <summary>Wakes those who follow a run when something changed in it.</summary>
public sealed class RunNews
{
    private readonly ConcurrentDictionary<RunId, TaskCompletionSource> bells = new();

    /// <summary>Something changed.</summary>
    public void Ring(RunId run)
    {
        if (bells.TryRemove(run, out var bell)) bell.TrySetResult();
    }

    /// <summary>Done when something changes, or after a second in case that was missed.</summary>
    public Task Next(RunId run, CancellationToken stop)
    {
        var bell = bells.GetOrAdd(run, _ => new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously));
        return Task.WhenAny(bell.Task, Task.Delay(1000, stop));
    }
}
