namespace SpringLoft.Core.People;

/// <summary>A take-home that is kept for somebody.</summary>
/// <param name="Alone">How many of its files stand nowhere else.</param>
public sealed record KeptHome(string Year, int Alone, bool Fetched);

/// <summary>What there is of somebody who is to be erased.</summary>
/// <param name="LeftOn">The day they left; null while they are here.</param>
/// <param name="OnRosters">Classes that are not archived and have them on their roster.</param>
/// <param name="Held">Pieces of their work that a teacher holds.</param>
public sealed record ErasureFacts(bool Active, bool Erased, bool Joined, LocalDate? LeftOn, int OnRosters, int Held, IReadOnlyList<KeptHome> Homes);

/// <summary>Why somebody can't be erased, or not yet.</summary>
public enum ErasureBar
{
    /// <summary>Nothing is in the way.</summary>
    None,

    /// <summary>They have not left.</summary>
    StillHere,

    /// <summary>They are erased already.</summary>
    Erased,

    /// <summary>Their account is joined into another, which is theirs now.</summary>
    Joined,

    /// <summary>A teacher holds work of theirs.</summary>
    WorkHeld,

    /// <summary>They stand on the roster of a class that goes on.</summary>
    OnRoster,

    /// <summary>A take-home holds what stands nowhere else; they have not fetched it, and have had too little time to.</summary>
    NotFetched,
}

/// <summary>Decides when a person's data may be taken out of the directory.</summary>
public static class Erasure
{
    /// <summary>What is in the way; the first of all.</summary>
    /// <param name="leaverDays">How long the school keeps take-homes for those who left.</param>
    public static ErasureBar BarOf(ErasureFacts f, LocalDate today, int leaverDays) =>
        f.Erased ? ErasureBar.Erased
        : f.Joined ? ErasureBar.Joined
        : f.Active ? ErasureBar.StillHere
        : f.Held > 0 ? ErasureBar.WorkHeld
        : f.OnRosters > 0 ? ErasureBar.OnRoster
        : today < FetchableUntil(f, leaverDays) && f.Homes.Any(h => h is { Alone: > 0, Fetched: false }) ? ErasureBar.NotFetched
        : ErasureBar.None;

    /// <summary>The day until which what is theirs alone waits for them; null while they are here.</summary>
    public static LocalDate? FetchableUntil(ErasureFacts f, int leaverDays) => f.LeftOn?.PlusDays(leaverDays);

    /// <summary>What stands in the place of the name: it says nothing of who it was, and is nobody else's.</summary>
    public static string Pseudonym(PersonId id, bool student) => $"Former {(student ? "student" : "staff")} {id.Value}";
}
