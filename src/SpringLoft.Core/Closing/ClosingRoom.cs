namespace SpringLoft.Core.Closing;

/// <summary>A closing run that has ended.</summary>
/// <param name="Classes">That it packed.</param>
/// <param name="Bytes">Of the packages that it made.</param>
/// <param name="Took">From its beginning to its end.</param>
public sealed record EndedRun(int Classes, long Bytes, Duration Took);

/// <summary>How much room and time closing takes, said before it begins.</summary>
public static class ClosingRoom
{
    /// <summary>What stays free on the disk, whatever is closed: a database that can't grow stops a school.</summary>
    public const long Reserve = 256L * 1024 * 1024;

    // Of pages, tables, and the zip's own lists.
    private const long PerClass = 1024 * 1024;

    /// <summary>The room that closing takes at most, in bytes: each file once in the package of its class, and once more in a take-home.</summary>
    /// <param name="bytes">Of the classes' files.</param>
    public static long Needed(int classes, long bytes) => (2 * bytes) + (PerClass * classes);

    /// <summary>Is there room for it on a disk with so much free, and <see cref="Reserve"/> left over?</summary>
    public static bool Fits(long needed, long free) => needed + Reserve <= free;

    /// <summary>About how long it will take, as runs of before went: by classes or by bytes, whichever is longer; null where none went before.</summary>
    public static Duration? Takes(int classes, long bytes, IEnumerable<EndedRun> before)
    {
        var runs = before.Where(r => r.Classes > 0 && r.Took > Duration.Zero).ToList();
        if (runs.Count == 0 || classes == 0) return null;
        var took = runs.Aggregate(Duration.Zero, (sum, r) => sum + r.Took);
        var byClass = took / runs.Sum(r => r.Classes) * classes;
        var packed = runs.Sum(r => r.Bytes);
        return packed == 0 ? byClass : Duration.Max(byClass, took * ((double)bytes / packed));
    }
}
