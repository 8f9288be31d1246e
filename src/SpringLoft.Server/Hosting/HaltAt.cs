using SpringLoft.App.Closing;

namespace SpringLoft.Server.Hosting;

/// <summary>
/// For tests of what a killed process leaves: stands still for good at a named point of a run, so that the process can
/// be killed right there. On only if SPRING_LOFT_HALT_AT names a point; "point#2" means the second time it is reached.
/// </summary>
internal sealed class HaltAt(string point, ILogger<HaltAt> log) : IRunMilestones
{
    private readonly string name = point.Split('#')[0];
    private int left = point.Split('#') is [_, var times] ? int.Parse(times, System.Globalization.CultureInfo.InvariantCulture) : 1;

    public void Reached(string reached)
    {
        if (reached != name || Interlocked.Decrement(ref left) != 0) return;
        log.LogWarning("Halted at {Point}", point);
        Thread.Sleep(Timeout.Infinite);
    }
}
