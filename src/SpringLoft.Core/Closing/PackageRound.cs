namespace SpringLoft.Core.Closing;

/// <summary>What reading a package again found.</summary>
public enum PackageFault
{
    /// <summary>It is not in the file store.</summary>
    Missing,

    /// <summary>Its bytes are not those that were written.</summary>
    Damaged,

    /// <summary>It is as it was written, and something that stands in its class is not in it.</summary>
    Incomplete,
}

/// <summary>The slow round over all packages of the loft: each is read again once a month, some every day, so that what rots is found while there are backups.</summary>
public static class PackageRound
{
    /// <summary>Within how many days each is read.</summary>
    public const int Days = 30;

    /// <summary>How many are read in a day, so that the round closes in time.</summary>
    /// <param name="packages">How many there are.</param>
    public static int ADay(int packages) => (packages + Days - 1) / Days;

    /// <summary>Which are read today: those that were read longest ago, those never read again first, and none that was read today already.</summary>
    /// <param name="packages">Each with the day on which it was read last, made and checked included.</param>
    public static IReadOnlyList<T> Today<T>(IReadOnlyCollection<(T Package, LocalDate Read)> packages, LocalDate today)
    {
        var doneToday = packages.Count(p => p.Read >= today);
        return [.. packages.Where(p => p.Read < today).OrderBy(p => p.Read).Take(Math.Max(0, ADay(packages.Count) - doneToday)).Select(p => p.Package)];
    }

    /// <summary>What is wrong in what was read; null if nothing is.</summary>
    /// <param name="problems">Of the bag itself.</param>
    /// <param name="inClass">Path and SHA-512 of what stands in the class.</param>
    /// <param name="inPackage">SHA-512 of what the package holds, wherever it stands there: a folder that was named anew is no fault.</param>
    public static (PackageFault Fault, string Detail)? FaultIn(IReadOnlyList<string> problems, IEnumerable<(string Path, string Sha512)> inClass, IEnumerable<string> inPackage)
    {
        if (problems.Count > 0) return (PackageFault.Damaged, Some(problems));
        var there = inPackage.ToHashSet(StringComparer.Ordinal);
        var missing = inClass.Where(f => !there.Contains(f.Sha512)).Select(f => f.Path).ToList();
        return missing.Count > 0 ? (PackageFault.Incomplete, Some(missing)) : null;
    }

    private static string Some(IReadOnlyList<string> all) => $"{string.Join("; ", all.Take(3))}{(all.Count > 3 ? $"; and {all.Count - 3} more" : "")}";
}
