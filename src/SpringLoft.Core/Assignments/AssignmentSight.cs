using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Assignments;

/// <summary>Does a student see an assignment?</summary>
public static class AssignmentSight
{
    /// <summary>Only if it is published, given to them, and stands in a folder that they see.</summary>
    /// <param name="givenTo">Empty for the whole class.</param>
    /// <param name="right">Their best right over the folders it is filed in.</param>
    public static bool Sees(bool published, IReadOnlyCollection<PersonId> givenTo, PersonId student, Right right) =>
        published && (givenTo.Count == 0 || givenTo.Contains(student)) && right >= Right.View;

    /// <summary>
    /// Is it one of those that a late joiner has to do with? Who came after a class was opened sees what is set from then on,
    /// and earlier ones only if the teacher said so, if it is given to them by name, or if they have begun it.
    /// </summary>
    /// <param name="seesFrom">Null where all are seen.</param>
    public static bool InTime(Instant? published, Instant? seesFrom, bool byName, bool begun) =>
        seesFrom is not { } from || published is null || published >= from || byName || begun;
}
