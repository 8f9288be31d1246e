using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Assignments;

/// <summary>The assignments of a class that a person finds: their rule in one place, for the class and for somebody's day.</summary>
internal static class InSight
{
    /// <summary>Staff find all; a student what is published, theirs, in a folder that they see, and not of before their time.</summary>
    /// <param name="begun">Whether the student has begun work for one.</param>
    internal static IEnumerable<AssignmentRow> Of(IDbConnection c, ClassAndPlace at, PersonId who, Access access, ILookup<AssignmentId, FolderId> placed, ILookup<AssignmentId, PersonId> given, Func<AssignmentId, bool> begun)
    {
        var all = AssignmentStore.OfClass(c, at.Class.Id);
        if (at.Standing >= Standing.CoTeacher) return all;
        return IsOpen(at) ? all.Where(a => AssignmentSight.InTime(a.PublishedAt, at.Member?.SeesFrom, given[a.Id].Contains(who), begun(a.Id))
            && AssignmentSight.Sees(a.PublishedAt is not null, [.. given[a.Id]], who, access.OfThing(placed[a.Id]))) : [];
    }

    /// <summary>The same where nothing of the class is read yet.</summary>
    internal static IEnumerable<AssignmentRow> Of(IDbConnection c, ClassAndPlace at, PersonId who)
    {
        var (id, access) = (at.Class.Id, new Access(at.Viewer(who), FolderStore.OfClass(c, at.Class.Id).Select(f => f.Fact)));
        var begun = WorkStore.OfStudent(c, id, who).Select(w => w.AssignmentId).ToHashSet();
        return Of(c, at, who, access, AssignmentStore.Filings(c, id), AssignmentStore.GivenTo(c, id), begun.Contains);
    }

    /// <summary>Is there anything of the class for students to see?</summary>
    internal static bool IsOpen(ClassAndPlace at) => at.Class.State != ClassState.InPreparation && at.Class is not { State: ClassState.Archived, AfterArchive: AfterArchive.Nothing };
}
