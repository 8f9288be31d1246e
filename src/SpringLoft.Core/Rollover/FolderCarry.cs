using SpringLoft.Core.Plans;

namespace SpringLoft.Core.Rollover;

/// <summary>How a folder of last year is called in next year's class.</summary>
public static class FolderCarry
{
    /// <summary>
    /// The new year's name where the plan gives the folder one (its week has other dates now), the old name where the
    /// teacher had renamed it, where it is the teacher's own, or where the new year has no such week.
    /// </summary>
    /// <param name="planKey">Null for a folder that no plan made.</param>
    /// <param name="oldUnfolding">Key to name as the plan gave it last year.</param>
    /// <param name="newUnfolding">Key to name as the plan gives it next year.</param>
    public static string NewName(string name, FolderKey? planKey, IReadOnlyDictionary<FolderKey, string> oldUnfolding, IReadOnlyDictionary<FolderKey, string> newUnfolding) =>
        planKey is { } key && newUnfolding.TryGetValue(key, out var next) && oldUnfolding.GetValueOrDefault(key) == name ? next : name;

    /// <summary>Key to name of an unfolding.</summary>
    public static IReadOnlyDictionary<FolderKey, string> Names(IEnumerable<UnfoldedFolder> unfolded) => unfolded.ToDictionary(f => f.Key, f => f.Name);
}
