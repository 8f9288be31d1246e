using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Naming;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Assignments;

namespace SpringLoft.App.Assignments;

/// <summary>What was handed in each time, for staff and for the student alike.</summary>
internal static class WorkTurns
{
    /// <summary>Each time, newest first.</summary>
    internal static IReadOnlyList<TurnView> Of(IDbConnection c, WorkId work)
    {
        var files = WorkStore.FilesOfTurns(c, work).ToLookup(f => f.TurnId);
        return [.. WorkStore.Turns(c, work).Reverse().Select(t => new TurnView(t.Id, t.HandedInAt, t.TakenBackAt, t.ReturnedAt, t.Score, [.. files[t.Id].Select(WorkFileView.Of)], CodeOf(t, files[t.Id])))];
    }

    private static string CodeOf(TurnRow t, IEnumerable<TurnFileRow> files) => Receipt.CodeOf(t.Id, t.HandedInAt, [.. files.Select(f => new ReceiptThing(f.Name, f.Sha256, f.Size))]);

    /// <summary>The receipt of one time: what came in, when, against which day, with the SHA-256 of each thing.</summary>
    internal static Download ReceiptOf(Premises premises, IDbConnection c, ClassRow k, AssignmentRow a, WorkRow work, long turn)
    {
        var t = WorkStore.Turns(c, work.Id).FirstOrDefault(t => t.Id == turn) ?? throw Refusals.NotFound("receipt");
        var files = WorkStore.FilesOfTurns(c, work.Id).Where(f => f.TurnId == turn).ToList();
        var student = PersonStore.Find(c, work.StudentId)!;
        var late = a.Due.LateBy(t.HandedInAt, premises.Clock.Zone);
        var text = Receipt.Text(SchoolStore.Get(c)!.Name, k.Name, a.Title, student.Name.Display, premises.Clock.LocalOf(t.HandedInAt), premises.Clock.Zone.Id, late, CodeOf(t, files), [.. files.Select(f => new ReceiptThing(f.Name, f.Sha256, f.Size))]);
        var bytes = System.Text.Encoding.UTF8.GetBytes(text);
        return new Download(SafeName.Make($"Receipt {CodeOf(t, files)}.txt")!.Name, new MemoryStream(bytes), bytes.Length);
    }

    /// <summary>Opens a file of one time.</summary>
    internal static Download Open(Premises premises, IDbConnection c, WorkId work, long turn, int position) =>
        WorkStore.FilesOfTurns(c, work).FirstOrDefault(f => f.TurnId == turn && f.Position == position) is { } f
            ? new Download(f.Name, premises.Files.Open(f.Sha256), f.Size) : throw Refusals.NotFound("file");
}
