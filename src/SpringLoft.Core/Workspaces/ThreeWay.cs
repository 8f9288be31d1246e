namespace SpringLoft.Core.Workspaces;

/// <summary>
/// Two people changed one thing that has several parts: each part is decided by itself. Who did not touch a part does not
/// take back what the other made of it.
/// </summary>
public static class ThreeWay
{
    /// <summary>One part.</summary>
    /// <param name="was">What I began with.</param>
    /// <param name="mine">What I made of it.</param>
    /// <param name="now">What it is by now.</param>
    /// <returns>What it is to be; and true if both made something else of it, so that a person decides.</returns>
    public static (T Value, bool Both) Decide<T>(T was, T mine, T now) =>
        Equal(mine, was) ? (now, false) : (mine, !Equal(now, was) && !Equal(now, mine));

    private static bool Equal<T>(T one, T other) => EqualityComparer<T>.Default.Equals(one, other);
}
