using SpringLoft.Core.Naming;

namespace SpringLoft.Core.Workspaces;

/// <summary>Who is asked to say that they have read something.</summary>
public enum AskedOf
{
    /// <summary>The student, signed in.</summary>
    Student,

    /// <summary>Somebody at the student's home, by a code on paper or in a letter.</summary>
    Home,

    /// <summary>Both of them.</summary>
    Both,
}

/// <summary>What was said to something by a student and their home, as far as what is outstanding goes.</summary>
/// <param name="Own">The wording that the student acknowledged; null for none.</param>
/// <param name="Home">The wording that somebody at home did.</param>
public readonly record struct AcknowledgedFact(int? Own, int? Home);

/// <summary>What is still wanted.</summary>
public readonly record struct Outstanding(bool Own, bool Home)
{
    /// <summary>Anything at all?</summary>
    public bool Any => Own || Home;
}

/// <summary>When something counts as acknowledged.</summary>
public static class Acknowledging
{
    /// <summary>Groups of letters in a code for home: whoever guesses has 22^12, some 10^16, to go through.</summary>
    private const int CodeGroups = 3;

    /// <summary>
    /// What is outstanding for one student. What was said to an earlier wording does not count any more; what was said by somebody
    /// who was not asked is kept and never makes anything outstanding.
    /// </summary>
    /// <param name="wording">As it is asked now, 1 and up.</param>
    public static Outstanding Of(AskedOf asked, AcknowledgedFact said, int wording) =>
        new(asked != AskedOf.Home && !(said.Own >= wording), asked != AskedOf.Student && !(said.Home >= wording));

    /// <summary>Is it late? Once its last day is over and something is outstanding.</summary>
    public static bool IsLate(Outstanding left, LocalDate? until, LocalDate today) => left.Any && until < today;

    /// <summary>Makes a code for home.</summary>
    /// <inheritdoc cref="TypedCode.Make"/>
    public static string MakeCode(Func<int, int> chance) => TypedCode.Make(chance, CodeGroups);

    /// <summary>A code as it is kept, from what was typed; null if it can be none.</summary>
    public static string? ReadCode(string? typed) => TypedCode.Read(typed, CodeGroups);
}
