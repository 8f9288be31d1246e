using SpringLoft.Store.Files;
using SpringLoft.Store.Naming;

namespace SpringLoft.App.Workspaces;

/// <summary>Streams uploads to the store, with the limits that hold for all of them.</summary>
internal static class FileIntake
{
    internal static async Task<StoredFile> TakeIn(Premises premises, Stream content, string name, CancellationToken stop)
    {
        var limit = premises.Db.Read(c => SchoolStore.Get(c)!.UploadLimitBytes);
        StoredFile file;
        try { file = await premises.Files.TakeIn(content, limit, stop).ConfigureAwait(false); }
        catch (FileTooLongException e)
        {
            throw new RefusedException("file-too-long", $"“{name}” is longer than the {e.Limit / (1024 * 1024)} MB that this school allows.", "Make it smaller or link to it instead.", "file");
        }
        if (file.Size == 0) throw new RefusedException("file-empty", $"“{name}” has 0 bytes: there is nothing in it.", "Save it again in the program it was made with, then add it.", "file");
        return file;
    }
}
