using SpringLoft.App.Workspaces;
using SpringLoft.Store.Assignments;

namespace SpringLoft.App.Assignments;

/// <summary>What was handed in each time, for staff and for the student alike.</summary>
internal static class WorkTurns
{
    /// <summary>Each time, newest first.</summary>
    internal static IReadOnlyList<TurnView> Of(IDbConnection c, WorkId work)
    {
        var files = WorkStore.FilesOfTurns(c, work).ToLookup(f => f.TurnId);
        return [.. WorkStore.Turns(c, work).Reverse().Select(t => new TurnView(t.Id, t.HandedInAt, t.TakenBackAt, t.ReturnedAt, t.Score, [.. files[t.Id].Select(f => new WorkFileView(f.Position, f.Name, f.Size, f.AddedAt))]))];
    }

    /// <summary>Opens a file of one time.</summary>
    internal static Download Open(Premises premises, IDbConnection c, WorkId work, long turn, int position) =>
        WorkStore.FilesOfTurns(c, work).FirstOrDefault(f => f.TurnId == turn && f.Position == position) is { } f
            ? new Download(f.Name, premises.Files.Open(f.Sha256), f.Size) : throw Refusals.NotFound("file");
}
