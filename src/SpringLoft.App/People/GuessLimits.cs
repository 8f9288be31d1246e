using System.Threading.RateLimiting;

namespace SpringLoft.App.People;

/// <summary>
/// How many wrong passwords may come from one network address, and from everywhere together, before only browsers that were
/// signed in before are still let try. Each user name is slowed down besides, see <see cref="SigningIn"/>.
/// </summary>
/// <param name="fromAddress">At once from one address: a school behind one address has a morning of children who mistype.</param>
/// <param name="overAll">At once from everywhere.</param>
/// <param name="again">After this time a tenth of each is allowed anew.</param>
public sealed class GuessLimits(int fromAddress = 200, int overAll = 2000, TimeSpan? again = null) : IDisposable
{
    private readonly PartitionedRateLimiter<string> byAddress = PartitionedRateLimiter.Create<string, string>(a => RateLimitPartition.GetTokenBucketLimiter(a, _ => Bucket(fromAddress, again)));
    private readonly TokenBucketRateLimiter all = new(Bucket(overAll, again));

    /// <summary>May somebody still try from there?</summary>
    public bool MayTry(string address) =>
        byAddress.GetStatistics(address) is { CurrentAvailablePermits: > 0 } && all.GetStatistics() is { CurrentAvailablePermits: > 0 };

    /// <summary>Counts a wrong one.</summary>
    public void Wrong(string address)
    {
        using var here = byAddress.AttemptAcquire(address);
        using var anywhere = all.AttemptAcquire();
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        byAddress.Dispose();
        all.Dispose();
    }

    private static TokenBucketRateLimiterOptions Bucket(int most, TimeSpan? again) => new()
    {
        TokenLimit = most,
        TokensPerPeriod = Math.Max(1, most / 10),
        ReplenishmentPeriod = again ?? TimeSpan.FromMinutes(1),
        QueueLimit = 0,
    };
}
