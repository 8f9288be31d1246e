using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Zips;
using SpringLoft.Store.Files;
using SpringLoft.Store.Naming;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>Where the files of one folder of a dropped tree go.</summary>
/// <param name="Path">As it was sent.</param>
/// <param name="Changed">Names that had to be changed on the way, in words; empty if none.</param>
public sealed record TreePlace(string Path, FolderId Folder, IReadOnlyList<string> Changed);

/// <summary>The folders of a dropped tree.</summary>
/// <param name="Made">How many folders were made; the others stood there already.</param>
public sealed record TreeTaken(int Made, IReadOnlyList<TreePlace> Places);

/// <summary>What became of a zip.</summary>
/// <param name="Made">How many folders were made; the others stood there already.</param>
/// <param name="Changed">Names that had to be changed, in words.</param>
/// <param name="LeftOut">What was left out, each with its reason.</param>
public sealed record ZipTaken(int Made, int Files, long Bytes, IReadOnlyList<string> Changed, IReadOnlyList<string> LeftOut);

/// <summary>Takes in trees of folders so that they keep their shape: dropped ones, whose files then arrive one by one, and zips.</summary>
public sealed class TreeIntake(Premises premises)
{
    /// <summary>Most folders of one tree.</summary>
    public const int MostFolders = 5000;

    /// <summary>Most files and folders of one zip.</summary>
    public const int MostFiles = 20_000;

    /// <summary>Most bytes of one zip, unpacked; 2 GB.</summary>
    public const long MostBytes = 2L * 1024 * 1024 * 1024;

    /// <summary>Makes what is missing of the paths inside a folder. A folder that stands there under a name is used, not doubled.</summary>
    /// <param name="paths">With forward slashes, relative to <paramref name="folder"/>.</param>
    /// <exception cref="RefusedException"><c>path-leads-out</c>, <c>too-many</c>, <c>folder-too-deep</c>; then nothing is made.</exception>
    public TreeTaken Make(Caller by, ClassId id, FolderId folder, IReadOnlyList<string> paths)
    {
        if (paths.Count == 0) throw new RefusedException("missing", "There is no folder in what was dropped.", "Drop a folder, or add its files.", "paths");
        foreach (var path in paths)
            if (path.Split('/').Any(p => p is ".." or ".") || path.StartsWith('/') || path.Contains('\\', StringComparison.Ordinal) || path.Contains(':', StringComparison.Ordinal))
                throw new RefusedException("path-leads-out", $"“{path}” leads out of the folder it is dropped into.", "Drop the folder itself, not a link to it.", "paths");
        return premises.Db.Write(c =>
        {
            ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
            var taken = MakeFolders(c, id, folder, paths);
            if (taken.Made > 0) Premises.Add(c, by, premises.Clock.Now, new("dropped folder tree", "folder", folder.Value, id, $"{taken.Made} folders made"));
            return taken;
        });
    }

    /// <summary>Takes in a zip: its tree keeps its shape, its files are filed in it. All of it or nothing.</summary>
    /// <exception cref="RefusedException"><c>zip-…</c> and those of <see cref="Make"/>; then nothing is written.</exception>
    /// <exception cref="DiskFullException">No room; nothing is kept.</exception>
    public async Task<ZipTaken> TakeZip(Caller by, ClassId id, FolderId folder, Stream content, CancellationToken stop)
    {
        premises.Db.Read(c => MayTake(c, by, id, folder));
        await using var scratch = premises.Files.Scratch();
        await premises.Files.Spool(content, scratch, stop).ConfigureAwait(false);
        using var zip = ZipTree.Open(scratch, new(MostFiles, MostBytes));
        return await TakeTree(by, id, folder, zip.Folders, zip.Files, zip.LeftOut, stop).ConfigureAwait(false);
    }

    /// <summary>Takes in a tree of files: their bytes first, flushed together, then folders and files in one transaction.</summary>
    public async Task<ZipTaken> TakeTree(Caller by, ClassId id, FolderId folder, IReadOnlyList<string> folders, IReadOnlyList<ZipTreeFile> files, IReadOnlyList<string> leftOut, CancellationToken stop)
    {
        var (limit, room) = premises.Db.Read(c =>
        {
            ClassGate.Demand(c, by, id, Act.Arrange);
            return (SchoolStore.Get(c)!.UploadLimitBytes, FileIntake.RoomFor(c, null, id));
        });
        // A zip says how long its files are: whether they fit is known before the first is kept.
        if (room is not null && files.Sum(f => f.Size) > room.Left) throw new RefusedException(Core.School.Room.Full(room, "The zip"));
        using var batch = premises.Files.Batch();
        var kept = new List<(ZipTreeFile File, SafeNameResult Name, StoredFile Stored)>();
        foreach (var f in files)
        {
            var said = f.Path.Length == 0 ? f.Name : $"{f.Path}/{f.Name}";
            var name = SafeName.Make(f.Name, keepExtension: true) ?? new SafeNameResult("File", [new(f.Name, "nothing of the name can be kept")]);
            if (f.Size > limit) throw new RefusedException("file-too-long", $"“{said}” is longer than the {limit / (1024 * 1024)} MB that this school allows. Nothing of the zip was kept.", "Take it out and send the rest.", "file");
            try
            {
                await using var open = f.Open();
                kept.Add((f, name, await batch.TakeIn(open, f.Size, stop).ConfigureAwait(false)));
            }
            catch (Exception e) when (e is FileTooLongException or InvalidDataException)
            {
                throw new RefusedException("zip-broken", $"“{said}” in the zip is damaged. Nothing of the zip was kept.", "Make it again and send it once more.", "file");
            }
        }
        batch.Keep();
        return premises.Db.Write(c => Write(c, by, id, folder, folders, kept, leftOut));
    }

    private ZipTaken Write(IDbConnection c, Caller by, ClassId id, FolderId folder, IReadOnlyList<string> folders, List<(ZipTreeFile File, SafeNameResult Name, StoredFile Stored)> kept, IReadOnlyList<string> leftOut)
    {
        MayTake(c, by, id, folder);
        var taken = folders.Count == 0 ? new TreeTaken(0, []) : MakeFolders(c, id, folder, folders);
        var places = taken.Places.ToDictionary(p => p.Path, p => p.Folder, StringComparer.Ordinal);
        var changed = taken.Places.SelectMany(p => p.Changed).Distinct().ToList();
        var names = new Dictionary<FolderId, HashSet<string>>();
        var now = premises.Clock.Now;
        var items = new List<ItemRow>();
        foreach (var (file, name, stored) in kept)
        {
            var at = file.Path.Length == 0 ? folder : places[file.Path];
            if (!names.TryGetValue(at, out var there)) names[at] = there = [.. ItemStore.NamesIn(c, at).Select(SafeName.Key)];
            var free = SafeName.Distinct(name.Name, there, isFile: true);
            there.Add(SafeName.Key(free));
            if (free != file.Name.Normalize()) changed.Add($"“{file.Name}” is kept as “{free}”");
            ItemStore.AddBlob(c, stored, now);
            ItemStore.File(c, ItemStore.Add(c, id, new ItemRow { Kind = ItemKind.File, Name = free, Sha256 = stored.Sha256, AddedBy = by.Id, AddedAt = now }), at);
        }
        Premises.Add(c, by, now, new("took in a zip", "folder", folder.Value, id, $"{taken.Made} folders made, {kept.Count} files"));
        return new(taken.Made, kept.Count, kept.Sum(k => k.Stored.Size), changed, leftOut);
    }

    private static bool MayTake(IDbConnection c, Caller by, ClassId id, FolderId folder)
    {
        ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
        return FolderStore.OfClass(c, id).Any(f => f.Id == folder) ? true : throw Refusals.NotFound("folder");
    }

    private static TreeTaken MakeFolders(IDbConnection c, ClassId id, FolderId folder, IReadOnlyList<string> paths)
    {
        if (paths.Count > MostFolders) throw new RefusedException("too-many", $"{paths.Count} folders at once are too many.", $"Drop up to {MostFolders}.", "paths");
        var all = FolderStore.OfClass(c, id);
        if (all.All(f => f.Id != folder)) throw Refusals.NotFound("folder");
        var there = all.GroupBy(f => (f.ParentId ?? default, SafeName.Key(f.Name))).ToDictionary(g => g.Key, g => g.First().Id);
        var last = all.GroupBy(f => f.ParentId ?? default).ToDictionary(g => g.Key, g => g.Max(f => f.Position));
        var depth = DepthOf(all, folder);
        var made = 0;
        var places = paths.Distinct().Order(StringComparer.Ordinal).Select(path =>
        {
            var at = folder;
            var changed = new List<string>();
            var parts = path.Split('/', StringSplitOptions.RemoveEmptyEntries);
            if (depth + parts.Length > FolderArranging.MaxDepth) throw new RefusedException("folder-too-deep", $"“{path}” would make {depth + parts.Length} levels of folders.", $"Keep it to {FolderArranging.MaxDepth}.", "paths");
            foreach (var part in parts)
            {
                var safe = SafeName.Make(part)?.Name ?? "Folder";
                if (safe != part.Normalize()) changed.Add($"“{part}” is kept as “{safe}”");
                if (!there.TryGetValue((at, SafeName.Key(safe)), out var next))
                {
                    last[at] = last.GetValueOrDefault(at, -1) + 1;
                    there[(at, SafeName.Key(safe))] = next = FolderStore.Add(c, id, at, safe, last[at], FolderRule.AsAbove, null, null);
                    made++;
                }
                at = next;
            }
            return new TreePlace(path, at, changed);
        }).ToList();
        return new TreeTaken(made, places);
    }

    private static int DepthOf(IReadOnlyList<FolderRow> all, FolderId id)
    {
        var byId = all.ToDictionary(f => f.Id);
        var depth = 0;
        for (FolderId? at = id; at is { } a; at = byId[a].ParentId) depth++;
        return depth;
    }
}
