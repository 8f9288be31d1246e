using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>Where the files of one folder of a dropped tree go.</summary>
/// <param name="Path">As it was sent.</param>
/// <param name="Changed">Names that had to be changed on the way, in words; empty if none.</param>
public sealed record TreePlace(string Path, FolderId Folder, IReadOnlyList<string> Changed);

/// <summary>The folders of a dropped tree.</summary>
/// <param name="Made">How many folders were made; the others stood there already.</param>
public sealed record TreeTaken(int Made, IReadOnlyList<TreePlace> Places);

/// <summary>Makes the folders of a tree that is dropped in, so that it keeps its shape; its files then arrive one by one.</summary>
public sealed class TreeIntake(Premises premises)
{
    /// <summary>Most folders of one tree.</summary>
    public const int MostFolders = 5000;

    /// <summary>Makes what is missing of the paths inside a folder. A folder that stands there under a name is used, not doubled.</summary>
    /// <param name="paths">With forward slashes, relative to <paramref name="folder"/>.</param>
    /// <exception cref="RefusedException"><c>path-leads-out</c>, <c>too-many</c>, <c>folder-too-deep</c>; then nothing is made.</exception>
    public TreeTaken Make(Caller by, ClassId id, FolderId folder, IReadOnlyList<string> paths)
    {
        if (paths.Count == 0) throw new RefusedException("missing", "There is no folder in what was dropped.", "Drop a folder, or add its files.", "paths");
        if (paths.Count > MostFolders) throw new RefusedException("too-many", $"{paths.Count} folders at once are too many.", $"Drop up to {MostFolders}.", "paths");
        foreach (var path in paths)
            if (path.Split('/').Any(p => p is ".." or ".") || path.StartsWith('/') || path.Contains('\\', StringComparison.Ordinal) || path.Contains(':', StringComparison.Ordinal))
                throw new RefusedException("path-leads-out", $"“{path}” leads out of the folder it is dropped into.", "Drop the folder itself, not a link to it.", "paths");
        return premises.Db.Write(c =>
        {
            ClassGate.Find(c, by, id).NotArchived();
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
            if (made > 0) Premises.Add(c, by, premises.Clock.Now, new("dropped folder tree", "folder", folder.Value, id, $"{made} folders made"));
            return new TreeTaken(made, places);
        });
    }

    private static int DepthOf(IReadOnlyList<FolderRow> all, FolderId id)
    {
        var byId = all.ToDictionary(f => f.Id);
        var depth = 0;
        for (FolderId? at = id; at is { } a; at = byId[a].ParentId) depth++;
        return depth;
    }
}
