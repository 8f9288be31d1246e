using System.Threading.RateLimiting;
using SpringLoft.Core;

namespace SpringLoft.Server.People;

/// <summary>
/// Hashing a password is slow on purpose. So many are computed at a time that the rest of the program goes on; the others wait
/// in the order in which they came, and who gives up waiting is not computed at all.
/// </summary>
/// <param name="atOnce">How many are computed at a time; null for half the processors.</param>
/// <param name="waiting">How many may wait.</param>
internal sealed class HashTurns(int? atOnce = null, int waiting = 2000) : IDisposable
{
    private readonly ConcurrencyLimiter limiter = new(new()
    {
        PermitLimit = atOnce ?? Math.Max(1, Environment.ProcessorCount / 2),
        QueueLimit = waiting,
        QueueProcessingOrder = QueueProcessingOrder.OldestFirst,
    });

    /// <summary>Waits for one's turn; it is over when the lease is let go.</summary>
    /// <exception cref="RefusedException"><c>sign-in-busy</c> where thousands wait.</exception>
    internal async Task<RateLimitLease> Take(CancellationToken gaveUp)
    {
        var lease = await limiter.AcquireAsync(1, gaveUp);
        if (lease.IsAcquired) return lease;
        lease.Dispose();
        throw new RefusedException("sign-in-busy", "Too many people are signing in at this moment.", "Try again in a minute.");
    }

    public void Dispose() => limiter.Dispose();
}
