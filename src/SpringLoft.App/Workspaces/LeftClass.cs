using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;

namespace SpringLoft.App.Workspaces;

/// <summary>A returned piece of one's own work in a class.</summary>
public sealed record OwnReturned(string Assignment, decimal? Points, MarkScheme? Scheme, OwnWorkView Work);

/// <summary>What a student who has left a class still sees of it: their own returned work.</summary>
public sealed class LeftClass(Premises premises)
{
    /// <summary>One's own returned work in a class.</summary>
    public IReadOnlyList<OwnReturned> Returned(Caller who, ClassId id) => premises.Db.Read(c =>
    {
        ClassGate.Demand(c, who, id, Act.TakeHome);
        var own = OwnWork.Of(c, id, who.Id, premises.Clock.Zone);
        return AssignmentStore.OfClass(c, id).Select(a => (a, Work: own.View(a.Id))).Where(x => x.Work is { State: WorkState.Returned }).Select(x => new OwnReturned(x.a.Title, x.a.Points, x.a.Scheme, x.Work!)).ToList();
    });

    /// <summary>Opens a file of one's own returned work.</summary>
    public Download Open(Caller who, ClassId id, long file) => premises.Db.Read(c =>
    {
        ClassGate.Demand(c, who, id, Act.TakeHome);
        return WorkStore.OfStudent(c, id, who.Id).Where(w => w.State == WorkState.Returned).SelectMany(w => WorkStore.Files(c, w.Id)).FirstOrDefault(f => f.Id == file) is { } row
            ? new Download(row.Name, premises.Files.Open(row.Sha256), row.Size) : throw Refusals.NotFound("file");
    });
}
