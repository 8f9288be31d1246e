using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Rosters;

/// <summary>A person of the directory who might be enrolled, and what they are in the class already.</summary>
public sealed record Candidate(PersonId Id, string Name, SchoolRole Role, bool Active, ClassRole? HasRole, bool Left);

/// <summary>What enrolling one person will do.</summary>
public enum EnrollOutcome { Joins, ComesBack, AlreadyHere, Refused }

/// <summary>The decision for one person, with the reason where it is a no.</summary>
public sealed record EnrollDecision(PersonId Person, EnrollOutcome Outcome, string? Why);

/// <summary>Decides who may be put on a roster, and in which role.</summary>
public static class Enrolling
{
    /// <summary>One decision a candidate, in the order given; a person named twice is decided once.</summary>
    public static IReadOnlyList<EnrollDecision> Decide(IEnumerable<Candidate> candidates, ClassRole role, ClassState state)
    {
        if (state == ClassState.Archived)
            throw new RefusedException("class-archived", "The class is archived, so its roster stays as it was.", "Restore the class from the loft first.");
        return [.. candidates.DistinctBy(c => c.Id).Select(c => One(c, role))];
    }

    private static EnrollDecision One(Candidate c, ClassRole role) => c switch
    {
        { Active: false } => new(c.Id, EnrollOutcome.Refused, $"{c.Name} has left the school."),
        { HasRole: { } has, Left: false } when has == role => new(c.Id, EnrollOutcome.AlreadyHere, $"{c.Name} is on the roster already."),
        { HasRole: { } has, Left: false } => new(c.Id, EnrollOutcome.Refused, $"{c.Name} is {InWords.Of(has)} of this class; take them off the roster first."),
        { Role: SchoolRole.Student } when role != ClassRole.Student => new(c.Id, EnrollOutcome.Refused, $"{c.Name} is a student and can't be {InWords.Of(role)}."),
        { Role: not SchoolRole.Student } when role == ClassRole.Student => new(c.Id, EnrollOutcome.Refused, $"{c.Name} is staff; enroll them as co-teacher."),
        { HasRole: not null } => new(c.Id, EnrollOutcome.ComesBack, null),
        _ => new(c.Id, EnrollOutcome.Joins, null),
    };

    /// <summary>Why somebody can't be taken off a roster; null if they can.</summary>
    /// <param name="held">Pieces of their work that a teacher of the class holds.</param>
    public static string? WhyNotOff(string name, ClassRole role, int held) =>
        role == ClassRole.Lead ? $"{name} leads this class." : held > 0 ? $"{(held == 1 ? "1 piece" : $"{held} pieces")} of {name}'s work {(held == 1 ? "is" : "are")} held by the teacher." : null;
}
