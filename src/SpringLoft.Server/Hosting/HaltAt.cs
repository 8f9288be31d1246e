using SpringLoft.App.Closing;

namespace SpringLoft.Server.Hosting;

/// <summary>
/// For tests of what a killed or a stopped process leaves: stands still at a named point of a run, so that the process
/// can be killed or asked to end right there; a stop lets it go on from where it stands. On only if SPRING_LOFT_HALT_AT names a point; "point#2" means the second time it is reached.
/// </summary>
internal sealed class HaltAt(string point, ILogger<HaltAt> log) : IRunMilestones
{
    private readonly string name = point.Split('#')[0];
    private int left = point.Split('#') is [_, var times] ? int.Parse(times, System.Globalization.CultureInfo.InvariantCulture) : 1;

    public void Reached(string reached, CancellationToken stop = default)
    {
        if (reached != name || Interlocked.Decrement(ref left) != 0) return;
        log.LogWarning("Halted at {Point}", point);
        stop.WaitHandle.WaitOne();
    }
}
