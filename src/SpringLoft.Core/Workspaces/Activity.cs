namespace SpringLoft.Core.Workspaces;

/// <summary>What a student did in a class on a day, all of it.</summary>
[Flags]
public enum Did
{
    /// <summary>Nothing.</summary>
    None = 0,
    /// <summary>Opened the class.</summary>
    OpenedClass = 1,
    /// <summary>Opened a file or a page.</summary>
    OpenedThing = 2,
    /// <summary>Wrote a page, put a file or a link in, took a piece of work back.</summary>
    Wrote = 4,
    /// <summary>Handed in.</summary>
    HandedIn = 8,
}

/// <summary>How active students of a class were over some school days.</summary>
public static class Activity
{
    /// <summary>How long it is kept, in days.</summary>
    public const int KeptDays = 400;

    /// <summary>Whoever did nothing on so many school days in a row has gone quiet: a week of school.</summary>
    public const int QuietDays = 5;

    /// <summary>Who has done nothing for how many school days, up to and with the last.</summary>
    /// <param name="days">School days in their order.</param>
    /// <param name="did">What was done, by day; days on which nothing was are not in it.</param>
    public static int QuietFor(IReadOnlyList<LocalDate> days, IReadOnlyDictionary<LocalDate, Did> did)
    {
        var quiet = 0;
        for (var i = days.Count - 1; i >= 0 && did.GetValueOrDefault(days[i]) == Did.None; i--) quiet++;
        return quiet;
    }

    /// <summary>
    /// Has somebody gone quiet? Where there are fewer school days than <see cref="QuietDays"/> nobody knows. Days before they came
    /// into the class do not count.
    /// </summary>
    /// <param name="since">Since when they are in the class.</param>
    public static bool IsQuiet(IReadOnlyList<LocalDate> days, IReadOnlyDictionary<LocalDate, Did> did, LocalDate since) =>
        QuietFor([.. days.Where(d => d >= since)], did) >= QuietDays;
}
