using SpringLoft.Core.Naming;
using SpringLoft.Core.Plans;

namespace SpringLoft.Core.Assignments;

/// <summary>A folder as far as finding its like in another class goes.</summary>
/// <param name="Key">Its place in the plan; null for one that no plan made.</param>
/// <param name="OfSome">It is somebody's own, or a group's.</param>
public sealed record PlacedFolder(FolderId Id, FolderId? Parent, string Name, FolderKey? Key, bool OfSome);

/// <summary>Where what is filed in a class belongs in another.</summary>
public static class MatchingPlace
{
    /// <summary>
    /// The folder that is reached by the same names, whatever their case; else the one at the same place of the plan. What is in a
    /// folder of somebody, or of a group, has no like anywhere.
    /// </summary>
    /// <returns>Null where there is none: nothing is guessed.</returns>
    public static FolderId? Of(FolderId folder, IReadOnlyCollection<PlacedFolder> here, IReadOnlyCollection<PlacedFolder> there)
    {
        var from = here.ToDictionary(f => f.Id);
        if (!from.TryGetValue(folder, out var it) || Way(it, from) is not { } way) return null;
        var to = there.ToDictionary(f => f.Id);
        var byKey = it.Key is { } key ? there.Where(f => f.Key == key && Way(f, to) is not null) : [];
        return there.Where(f => Way(f, to) == way).Concat(byKey).Select(f => (FolderId?)f.Id).FirstOrDefault();
    }

    // The names from the top, as they are compared; null where any of them is of somebody.
    private static string? Way(PlacedFolder folder, Dictionary<FolderId, PlacedFolder> all)
    {
        var names = new List<string>();
        for (PlacedFolder? f = folder; f is not null; f = f.Parent is { } p ? all.GetValueOrDefault(p) : null)
        {
            if (f.OfSome) return null;
            names.Insert(0, SafeName.Key(f.Name));
        }
        return string.Join('/', names);
    }
}
