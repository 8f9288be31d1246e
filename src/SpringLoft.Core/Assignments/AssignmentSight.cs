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
}
