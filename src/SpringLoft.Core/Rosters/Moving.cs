using SpringLoft.Core.Naming;
using SpringLoft.Core.Plans;

namespace SpringLoft.Core.Rosters;

/// <summary>A folder that is a student's own, or stands in one.</summary>
/// <param name="Key">Its place in the class's plan; null for one that no plan made.</param>
/// <param name="Path">Names from the top, with slashes between.</param>
public sealed record OwnPlace(FolderId Id, FolderKey? Key, string Path);

/// <summary>Something in a student's own folder.</summary>
public sealed record OwnThing(ItemId Item, string Name, FolderId In);

/// <summary>Where a thing goes when its student moves to another set.</summary>
/// <param name="From">Path of the folder it is in.</param>
/// <param name="To">The folder in the new class; null if the student has no own folder there: then it stays.</param>
/// <param name="ToPath">Its path; null if it stays.</param>
public sealed record CarriedThing(ItemId Item, string Name, string From, FolderId? To, string? ToPath);

/// <summary>Carries a student's own things from one class of a course to another, so that nothing is stranded.</summary>
public static class Moving
{
    /// <summary>
    /// Where each thing goes: to the folder with the same place in the plan, where both classes follow one plan; else to the
    /// own folder of the same name; else to the student's first own folder in the new class.
    /// </summary>
    /// <param name="old">Own folders in the class that is left.</param>
    /// <param name="places">Own folders in the class that is joined, in the order in which they stand.</param>
    public static IReadOnlyList<CarriedThing> Decide(IReadOnlyList<OwnPlace> old, IReadOnlyList<OwnThing> things, IReadOnlyList<OwnPlace> places, bool samePlan)
    {
        var from = old.ToDictionary(o => o.Id);
        var byKey = samePlan ? places.Where(p => p.Key is not null).ToDictionary(p => p.Key!) : [];
        var byPath = places.GroupBy(p => SafeName.Key(p.Path)).ToDictionary(g => g.Key, g => g.First());
        return [.. things.Select(t =>
        {
            var was = from[t.In];
            var to = was.Key is { } k && byKey.TryGetValue(k, out var same) ? same : byPath.GetValueOrDefault(SafeName.Key(was.Path)) ?? places.FirstOrDefault();
            return new CarriedThing(t.Item, t.Name, was.Path, to?.Id, to?.Path);
        })];
    }
}
