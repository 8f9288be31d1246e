using SpringLoft.Core.Naming;

namespace SpringLoft.Core.Workspaces;

/// <summary>A folder among its kin, as far as arranging goes.</summary>
public sealed record ArrangedFolder(FolderId Id, FolderId? Parent, string Name, int Position);

/// <summary>Where a folder is to stand, and how it is to be called.</summary>
/// <param name="Name">Safe already.</param>
/// <param name="Place">Among its siblings, 0 and up; null for the end, or for where it stands if the parent stays.</param>
public sealed record Arrangement(FolderId? Parent, string Name, int? Place);

/// <summary>Decides whether a folder may stand somewhere, and in which order its siblings then stand.</summary>
public static class FolderArranging
{
    /// <summary>Deepest level, the top being 1.</summary>
    public const int MaxDepth = 20;

    /// <summary>The new position of every sibling whose position changes, the folder itself included.</summary>
    /// <param name="moving">The folder; null for one that is being made, which then stands last or at its place.</param>
    /// <param name="all">Folders of the class, the bin left out.</param>
    /// <exception cref="RefusedException"><c>name-taken</c>, <c>folder-in-itself</c>, <c>folder-too-deep</c>, <c>not-found</c>.</exception>
    public static IReadOnlyDictionary<FolderId, int> Decide(FolderId? moving, Arrangement to, IReadOnlyList<ArrangedFolder> all)
    {
        var byId = all.ToDictionary(f => f.Id);
        if (to.Parent is { } p && !byId.ContainsKey(p)) throw new RefusedException("not-found", "The folder it is to stand in is not there.", "It may have been binned: reload the page.", "parent");
        var depth = 1;
        for (var at = to.Parent; at is { } a; at = byId[a].Parent, depth++)
            if (a == moving) throw new RefusedException("folder-in-itself", $"“{to.Name}” can't stand inside itself.", "Move it somewhere else.", "parent");
        if (depth + Height(moving, all) > MaxDepth) throw new RefusedException("folder-too-deep", $"There it would make {depth + Height(moving, all)} levels of folders.", $"Keep it to {MaxDepth}.", "parent");
        var siblings = all.Where(f => f.Parent == to.Parent && f.Id != moving).OrderBy(f => f.Position).ThenBy(f => f.Id.Value).ToList();
        if (siblings.FirstOrDefault(f => SafeName.Clash(f.Name, to.Name)) is { } same) throw new RefusedException("name-taken", $"There is already a folder “{same.Name}” here.", "Give this one another name.", "name");
        if (moving is not { } id) return new Dictionary<FolderId, int>();
        var stays = byId[id].Parent == to.Parent && to.Place is null;
        var place = stays ? siblings.Count(s => (s.Position, s.Id.Value).CompareTo((byId[id].Position, id.Value)) < 0) : Math.Clamp(to.Place ?? siblings.Count, 0, siblings.Count);
        siblings.Insert(place, byId[id]);
        return siblings.Select((f, i) => (f, i)).Where(x => x.f.Position != x.i || x.f.Id == id).ToDictionary(x => x.f.Id, x => x.i);
    }

    // How many levels hang below a folder; 0 for none.
    private static int Height(FolderId? id, IReadOnlyList<ArrangedFolder> all) =>
        id is { } i && all.Where(f => f.Parent == i).Select(f => (int?)Height(f.Id, all)).Max() is { } below ? below + 1 : 0;
}
