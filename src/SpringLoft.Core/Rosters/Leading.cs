using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Rosters;

/// <summary>Somebody who leads a class, or might.</summary>
/// <param name="Here">What they are on its roster; null if not on it, or off it again.</param>
/// <param name="WasStudent">True if they were a student of the class: what was theirs there stays theirs.</param>
public sealed record LeadFact(PersonId Id, string Name, SchoolRole Role, bool Active, ClassRole? Here, bool WasStudent = false);

/// <summary>What is wrong with who leads a class.</summary>
public enum LeadTrouble
{
    /// <summary>Nothing: one leads it who is in the school.</summary>
    None,

    /// <summary>Nobody leads it.</summary>
    NobodyLeads,

    /// <summary>Whoever leads it has left the school, or is no staff any more.</summary>
    LeadIsGone,

    /// <summary>More than one leads it.</summary>
    SeveralLead,
}

/// <summary>What a change of who leads a class does.</summary>
/// <param name="To">Who leads it from then on, alone.</param>
/// <param name="Joins">True if they come onto the roster with it.</param>
/// <param name="StepDown">Who led it before and stays as co-teacher.</param>
/// <param name="Leave">Who led it before and is off its roster with it: they are not in the school any more.</param>
/// <param name="ShownFrom">The name that students see for the teacher, where it follows; else it stays as it is.</param>
public sealed record LeadChange(LeadFact To, bool Joins, IReadOnlyList<LeadFact> StepDown, IReadOnlyList<LeadFact> Leave, string? ShownFrom);

/// <summary>Who may lead a class, and what it means when another does. A class is led by one, and is never left without.</summary>
public static class Leading
{
    /// <summary>May somebody lead a class at all? Staff of the school who are there.</summary>
    public static bool May(SchoolRole role, bool active) => active && role != SchoolRole.Student;

    /// <summary>What is wrong with those who lead a class.</summary>
    public static LeadTrouble TroubleOf(IReadOnlyCollection<LeadFact> leads) => leads.Count == 0 ? LeadTrouble.NobodyLeads
        : !leads.Any(l => May(l.Role, l.Active)) ? LeadTrouble.LeadIsGone
        : leads.Count > 1 ? LeadTrouble.SeveralLead : LeadTrouble.None;

    /// <summary>Decides a change.</summary>
    /// <param name="leads">Who leads it now.</param>
    /// <param name="shown">The name that students see for the teacher: it follows where it is that of who led, and stays where it was chosen.</param>
    /// <exception cref="RefusedException"><c>class-archived</c>, <c>lead-not-staff</c>, <c>lead-was-student</c>, <c>lead-same</c>.</exception>
    public static LeadChange Decide(LeadFact to, IReadOnlyList<LeadFact> leads, ClassState state, string shown)
    {
        if (state == ClassState.Archived) throw new RefusedException("class-archived", "The class is archived, so its roster stays as it was.", "Restore the class from the loft first.");
        if (!May(to.Role, to.Active)) throw new RefusedException("lead-not-staff", $"{to.Name} {(to.Active ? "is not staff of the school" : "has left the school")}, and can't lead a class.", "Choose somebody of the staff.", "person");
        if (to.WasStudent) throw new RefusedException("lead-was-student", $"{to.Name} was a student of this class: their work stands in it as theirs.", "Choose somebody else.", "person");
        if (leads is [var one] && one.Id == to.Id) throw new RefusedException("lead-same", $"{to.Name} leads this class already.", "Choose somebody else, or leave it as it is.", "person");
        var others = leads.Where(l => l.Id != to.Id).ToList();
        return new(to, to.Here is null, [.. others.Where(l => May(l.Role, l.Active))], [.. others.Where(l => !May(l.Role, l.Active))],
            others.Any(l => string.Equals(l.Name, shown, StringComparison.Ordinal)) ? to.Name : null);
    }
}
