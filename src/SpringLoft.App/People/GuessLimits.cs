using System.Threading.RateLimiting;

namespace SpringLoft.App.People;

/// <summary>
/// How many wrong passwords may come from one network, and from everywhere together, before only browsers that were
/// signed in before are still let try. Each user name is slowed down besides, see <see cref="SigningIn"/>.
/// </summary>
/// <param name="fromNetwork">At once from one network, see <see cref="Core.People.Network"/>: a school behind one has a morning of children who mistype.</param>
/// <param name="overAll">At once from everywhere.</param>
/// <param name="again">After this time a tenth of each is allowed anew.</param>
public sealed class GuessLimits(int fromNetwork = 200, int overAll = 2000, TimeSpan? again = null) : IDisposable
{
    private readonly PartitionedRateLimiter<string> byNetwork = PartitionedRateLimiter.Create<string, string>(a => RateLimitPartition.GetTokenBucketLimiter(a, _ => Bucket(fromNetwork, again)));
    private readonly TokenBucketRateLimiter all = new(Bucket(overAll, again));

    /// <summary>May somebody still try from there?</summary>
    public bool MayTry(string network) =>
        byNetwork.GetStatistics(network) is { CurrentAvailablePermits: > 0 } && all.GetStatistics() is { CurrentAvailablePermits: > 0 };

    /// <summary>Counts a wrong one.</summary>
    public void Wrong(string network)
    {
        using var here = byNetwork.AttemptAcquire(network);
        using var anywhere = all.AttemptAcquire();
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        byNetwork.Dispose();
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
