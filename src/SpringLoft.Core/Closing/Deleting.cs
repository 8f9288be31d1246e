using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Closing;

/// <summary>What is known about an archived class that somebody wants gone.</summary>
/// <param name="Held">Pieces of work that a teacher holds.</param>
/// <param name="WithWork">Students who have work or files in it.</param>
/// <param name="WithTakeHome">Of those, how many have all of it, in every version that was handed in, in a take-home; compared by content.</param>
/// <param name="OpenShelves">Open shelves of it that somebody may be reading.</param>
public sealed record DeletingFacts(ClassState State, int Held, int WithWork, int WithTakeHome, int OpenShelves = 0);

/// <summary>May an archived class be deleted? Archiving is the advice; deleting is not.</summary>
public static class Deleting
{
    /// <summary>Days in the bin before it is gone for good.</summary>
    public const int Days = Binning.Days;

    /// <summary>What stands against it, in words; none if it may go.</summary>
    public static IReadOnlyList<string> Against(DeletingFacts f)
    {
        var list = new List<string>();
        if (f.State != ClassState.Archived) list.Add("It is not archived: only what stands in the loft can be deleted.");
        if (f.Held > 0) list.Add($"{f.Held} {(f.Held == 1 ? "piece of work is" : "pieces of work are")} held by the teacher: return {(f.Held == 1 ? "it" : "them")} first.");
        if (f.WithTakeHome < f.WithWork) list.Add($"{f.WithWork - f.WithTakeHome} of {f.WithWork} students with work in it have no take-home that holds all of it as it is now: make take-homes first.");
        if (f.OpenShelves > 0) list.Add("An open shelf of it may still be read: shut it first.");
        return list;
    }

    /// <summary>Days for which a file stays on the disk after it was first found that nothing refers to it.</summary>
    public const int UnusedDays = 7;

    /// <summary>Since when a file must have been unused to be taken off the disk now.</summary>
    public static Instant UnusedSince(Instant now) => now - Duration.FromDays(UnusedDays);

    /// <summary>When a class in the bin is gone for good.</summary>
    public static Instant GoneAt(Instant binnedAt) => binnedAt + Duration.FromDays(Days);
}
