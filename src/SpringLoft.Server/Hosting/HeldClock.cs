using NodaTime;
using NodaTime.Text;

namespace SpringLoft.Server.Hosting;

/// <summary>
/// For tests of what depends on the moment: the time stands in a file, and moves only when the test writes another one.
/// On only if SPRING_LOFT_CLOCK names the file.
/// </summary>
/// <param name="file">Holds one instant in ISO 8601, like 2026-09-07T08:00:00Z.</param>
internal sealed class HeldClock(string file) : IClock
{
    /// <inheritdoc/>
    public Instant GetCurrentInstant() => InstantPattern.ExtendedIso.Parse(File.ReadAllText(file).Trim()).Value;
}
