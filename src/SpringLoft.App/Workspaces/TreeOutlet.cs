using SpringLoft.Core.Assignments;
using System.Net;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Zips;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>Gives a folder or a workspace out as a zip: exactly what the asker sees, with the folders' names and shape.</summary>
public sealed class TreeOutlet(Premises premises)
{
    /// <summary>Writes the zip aside; it is gone when the download is closed.</summary>
    /// <param name="folder">Null for the whole workspace.</param>
    public Download Zip(Caller who, ClassId id, FolderId? folder, CancellationToken stop)
    {
        var (name, files) = premises.Db.Read(c => Files(c, who, id, folder));
        var to = premises.Files.Scratch();
        try
        {
            ZipWriter.Write(to, files, null, stop);
            to.Position = 0;
            return new Download($"{name}.zip", to, to.Length);
        }
        catch
        {
            to.Dispose();
            throw;
        }
    }

    private (string Name, IReadOnlyList<ZipFile> Files) Files(IDbConnection c, Caller who, ClassId id, FolderId? folder)
    {
        var at = ClassGate.Demand(c, who, id, Act.SeeClass);
        var all = FolderStore.OfClass(c, id);
        var access = new Access(at.Viewer(who.Id), all.Select(f => f.Fact));
        var seen = all.Where(f => access.Of(f.Id).Right > Right.None).ToDictionary(f => f.Id);
        if (folder is { } top && !seen.ContainsKey(top)) throw Refusals.NotFound("folder");
        bool Within(FolderId? f) => f is { } x && seen.TryGetValue(x, out var row) && (folder is null || x == folder || Within(row.ParentId));
        var inside = seen.Values.Where(f => Within(f.Id)).ToDictionary(f => f.Id);
        var filings = ItemStore.Filings(c, id).ToLookup(f => f.Item, f => f.Folder);
        var written = new Dictionary<LayFile, byte[]>(ReferenceEqualityComparer.Instance);
        LayItem Lay(ItemRow i)
        {
            var file = new LayFile(i.Kind == ItemKind.Link ? Handed.LinkFile(i.Name) : i.FileName, i.Sha256 ?? "", "", 0, i.AddedAt);
            if (i.Kind == ItemKind.Link) written[file] = Handed.LinkPage(i.Name, i.Url!);
            return new(file, [.. filings[i.Id].Where(inside.ContainsKey)]);
        }
        var items = ItemStore.OfClass(c, id).Where(i => filings[i.Id].Any(inside.ContainsKey)).Select(Lay);
        var tree = inside.Values.Select(f => new LayFolder(f.Id, f.Id == folder ? null : f.ParentId, f.Name)).ToList();
        var laid = PackageLayout.Archive(tree, items, []);
        // Folders come out too, so that an empty one is not lost.
        var shape = PackageLayout.Folders(tree).Values.Order(StringComparer.Ordinal).Select(p => new ZipFile($"{p["folders/".Length..]}/", at.Class.MadeAt, () => Stream.Null));
        var name = SafeName.Make(folder is { } one ? seen[one].Name : at.Class.Name)?.Name ?? "workspace";
        return (name, [.. shape, .. laid.Select(f => new ZipFile(f.Path["folders/".Length..], f.File.Modified, () => written.TryGetValue(f.File, out var bytes) ? new MemoryStream(bytes) : premises.Files.Open(f.File.Sha256)))]);
    }
}
