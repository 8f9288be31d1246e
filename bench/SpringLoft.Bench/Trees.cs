using System.Diagnostics;
using SpringLoft.App;
using SpringLoft.App.Workspaces;
using SpringLoft.Demo;
using SpringLoft.Formats.Zips;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

internal static class Trees
{
    /// <summary>Takes a tree of files into a class: bytes, digests, folders and rows, all flushed to the disk.</summary>
    internal static async Task Run(Premises premises, string tree)
    {
        var id = BigSchool.Make(premises, new(1, 0, 0))[0];
        var (lead, folder) = premises.Db.Read(c => (RosterStore.Members(c, id)[0], FolderStore.OfClass(c, id)[0].Id));
        var by = new Caller(lead.PersonId, SpringLoft.Core.Workspaces.SchoolRole.Teacher, lead.Name.Display);
        var files = Directory.GetFiles(tree, "*", SearchOption.AllDirectories).Order().Select(p => new ZipTreeFile(
            Path.GetDirectoryName(Path.GetRelativePath(tree, p))!, Path.GetFileName(p), new FileInfo(p).Length, () => File.OpenRead(p))).ToList();
        var watch = Stopwatch.StartNew();
        var taken = await new TreeIntake(premises).TakeTree(by, id, folder, [.. files.Select(f => f.Path).Where(p => p.Length > 0).Distinct()], files, [], CancellationToken.None);
        watch.Stop();
        Console.WriteLine($"{watch.Elapsed.TotalSeconds:0.00} {Process.GetCurrentProcess().PeakWorkingSet64 / 1e6:0} {taken.Files}");
    }
}
