using SpringLoft.App.Assignments;
using SpringLoft.Core.Assignments;
using SpringLoft.Store.Assignments;

namespace SpringLoft.App.Workspaces;

/// <summary>A student's own work in a class, as the student may see it: no draft mark, and staff's comments once it is returned.</summary>
internal sealed class OwnWork
{
    private readonly Dictionary<AssignmentId, OwnWorkView> byAssignment = [];

    internal static OwnWork Of(IDbConnection c, ClassId id, PersonId student, DateTimeZone zone)
    {
        var own = new OwnWork();
        var due = AssignmentStore.OfClass(c, id).ToDictionary(a => a.Id, a => a.Due);
        var firstIn = WorkStore.FirstIn(c, id);
        foreach (var w in WorkStore.OfStudent(c, id, student))
        {
            var comments = WorkStore.CommentsOfWork(c, w.Id)
                .Where(m => WorkFlow.ReadsComment(w.State, w.ReturnedAt, m.AuthorId == student, m.At))
                .Select(m => new CommentView(m.Author, m.Text, m.At)).ToList();
            own.byAssignment[w.AssignmentId] = new(w.State, WorkFlow.Holder(w.State), w.ReturnedScore, MarkScheme.ReadChosen(w.ReturnedChosen),
                [.. WorkStore.Files(c, w.Id).Select(WorkFileView.Of)], comments, w.HandedInAt, w.ReturnedAt, due.TryGetValue(w.AssignmentId, out var d) ? Lateness.Of(d, w, firstIn, zone) : null, WorkTurns.Of(c, w.Id));
        }
        return own;
    }

    internal OwnWorkView? View(AssignmentId id) => byAssignment.GetValueOrDefault(id);
}
