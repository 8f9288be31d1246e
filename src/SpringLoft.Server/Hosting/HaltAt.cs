using SpringLoft.App.Closing;

namespace SpringLoft.Server.Hosting;

/// <summary>
/// For tests of what a killed process leaves: stands still for good at a named point of a run, so that the process can
/// be killed right there. On only if SPRING_LOFT_HALT_AT names a point.
/// </summary>
internal sealed class HaltAt(string point, ILogger<HaltAt> log) : IRunMilestones
{
    public void Reached(string reached)
    {
        if (reached != point) return;
        log.LogWarning("Halted at {Point}", point);
        Thread.Sleep(Timeout.Infinite);
    }
}
