using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Rosters;

/// <summary>What a delivery would change.</summary>
public enum ChangeKind { NewPerson, ChangedPerson, PersonGone, PersonBack, NewClass, ChangedClass, ClassGone, Joins, Leaves, Moves, ChangesRole, NewContact, ChangedContact, ContactGone }

/// <summary>One change that a delivery would make.</summary>
/// <param name="Who">The person's name as it sorts; empty for a change of a class.</param>
/// <param name="ClassName">Name of the class; empty for a change of a person.</param>
/// <param name="Why">The reason, for a person.</param>
public sealed record RosterChange(ChangeKind Kind, string Who, string ClassName, string Why)
{
    /// <summary>As the delivery calls the person, or the family contact; null where it does not name them: a changed person without is one whose record turned out to be somebody else's.</summary>
    public string? PersonRef { get; init; }

    /// <summary>The person of the directory; null for one who is new or still to be settled.</summary>
    public PersonId? Person { get; init; }

    /// <summary>As the delivery calls the class; null where it does not name it.</summary>
    public string? ClassRef { get; init; }

    /// <summary>The class; null for one that is new.</summary>
    public ClassId? Class { get; init; }

    /// <summary>For a move: the class that is left.</summary>
    public ClassId? FromClass { get; init; }

    /// <summary>The role from now on; null where roles have nothing to do with it.</summary>
    public ClassRole? Role { get; init; }

    /// <summary>Keys of the holds that the change waits for; all must be lifted.</summary>
    public IReadOnlyList<string> Holds { get; init; } = [];

    /// <summary>The same for the same change, however often a delivery is compared.</summary>
    public (ChangeKind, PersonId?, string?, ClassId?, string?, ClassId?, ClassRole?, string) Key => (Kind, Person, Person is null ? PersonRef : null, Class, Class is null ? ClassRef : null, FromClass, Role, Why);

    /// <summary>Does every change stand on the list that was shown? What is more on that list does not matter.</summary>
    public static bool AllStandOn(IReadOnlyList<RosterChange> changes, IReadOnlyList<RosterChange> shown)
    {
        // As long as both go in one order, as they do where nothing happened in between, nothing has to be looked up.
        var at = 0;
        HashSet<(ChangeKind, PersonId?, string?, ClassId?, string?, ClassId?, ClassRole?, string)>? keys = null;
        foreach (var x in changes)
        {
            while (at < shown.Count && shown[at].Key != x.Key) at++;
            if (at < shown.Count) at++;
            else if (!(keys ??= [.. shown.Select(s => s.Key)]).Contains(x.Key)) return false;
        }
        return true;
    }
}

/// <summary>Why changes wait for a person.</summary>
public enum HoldKind { ClassLoses, SchoolLoses, StaffLoses, CameEmpty, OutsideDates, PersonUnclear, ClassGone }

/// <summary>A reason for which changes wait until a person says yes.</summary>
/// <param name="Key">The same for the same hold, however often a delivery is compared.</param>
/// <param name="Text">What would happen, with its numbers.</param>
/// <param name="Class">Whose change it is; null for a hold of more than one class.</param>
/// <param name="PersonRef">For somebody who is unclear: as the delivery calls them.</param>
/// <param name="Candidates">For somebody who is unclear: who of the directory might be meant.</param>
public sealed record Hold(string Key, HoldKind Kind, string Text, ClassId? Class, string? PersonRef, IReadOnlyList<PersonId> Candidates);

/// <summary>What came of comparing a delivery with what is there.</summary>
/// <param name="Matched">Who of the directory each person of the delivery is; null for somebody new. Those still unclear are not in it.</param>
/// <param name="ClassNames">How each new class would be called.</param>
/// <param name="AsSettled">People of the delivery about whom a person decided, as they come in: without what belongs to somebody else.</param>
/// <param name="Same">Places on rosters that are already as the delivery has them.</param>
public sealed record RosterChanges(
    IReadOnlyList<RosterChange> Changes, IReadOnlyList<Hold> Holds, IReadOnlyList<DeliveryFinding> Findings,
    IReadOnlyDictionary<string, PersonId?> Matched, IReadOnlyDictionary<string, ClassId?> ClassesMatched, IReadOnlyDictionary<string, string> ClassNames, IReadOnlyDictionary<string, DeliveredPerson> AsSettled, int Same);
