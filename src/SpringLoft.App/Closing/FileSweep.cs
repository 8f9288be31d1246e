using System.Globalization;
using SpringLoft.Core.Closing;
using SpringLoft.Store.Files;

namespace SpringLoft.App.Closing;

/// <summary>
/// Takes files off the disk that nothing refers to any more: those of a class that was deleted for good, of pages that were
/// written anew, of uploads that were refused. Only what was found unused once, and still is a week later; and only what this
/// database took in itself, or what came while the program runs.
/// </summary>
public sealed class FileSweep(Premises premises)
{
    /// <summary>Looks through the store once.</summary>
    /// <returns>How many files were taken off the disk.</returns>
    public int Go(CancellationToken stop)
    {
        var onDisk = premises.Files.All().ToList();
        var due = premises.Db.Write(c =>
        {
            UnusedFiles.Note(c, onDisk, premises.Clock.Now);
            return UnusedFiles.Since(c, Deleting.UnusedSince(premises.Clock.Now));
        });
        var (gone, bytes) = (0, 0L);
        foreach (var sha in due)
        {
            stop.ThrowIfCancellationRequested();
            // Nobody can begin to refer to it while this writes; whoever has just brought the same bytes keeps them.
            premises.Db.Write(c =>
            {
                if (!IsOurs(c, sha) || UnusedFiles.IsUsed(c, sha) || premises.Files.Remove(sha) is not { } size) return;
                UnusedFiles.Remove(c, sha);
                (gone, bytes) = (gone + 1, bytes + size);
            });
        }
        if (gone > 0)
            premises.Db.Write(c => Premises.Add(c, null, premises.Clock.Now, new("removed unused files", "file", null, null, string.Create(CultureInfo.InvariantCulture, $"{gone} files that nothing refers to, {bytes / 1e6:0.0} MB"))));
        return gone;
    }

    // A file that stood there before the program started and that the database never took in may be another database's, of
    // which this one is an older copy: it is left alone.
    private bool IsOurs(IDbConnection c, string sha) => UnusedFiles.Knows(c, sha) || !premises.Files.StoodBefore(sha);
}
