using SpringLoft.Core.Naming;

namespace SpringLoft.Core.Workspaces;

/// <summary>A folder on the way to a thing: how it is called, and what rule it has if it is to be made.</summary>
public sealed record WayFolder(string Name, FolderRule Rule);

/// <summary>The way from the top of a workspace to a folder.</summary>
public sealed record Way(IReadOnlyList<WayFolder> Folders)
{
    /// <summary>As a person says it.</summary>
    public override string ToString() => string.Join(" / ", Folders.Select(f => f.Name));
}

/// <summary>A thing that is to stand in several classes.</summary>
/// <param name="Index">By which the caller finds it again.</param>
/// <param name="Same">What two things have in common that are the same: their bytes, their address, their title.</param>
public sealed record ThingToGive(int Index, string Name, string Same, bool IsFile, IReadOnlyList<Way> Ways);

/// <summary>A folder of the class that receives.</summary>
public sealed record ReceivingFolder(FolderId Id, FolderId? Parent, string Name, FolderRule Rule = FolderRule.ClassViews);

/// <summary>A thing that stands there already.</summary>
public sealed record ReceivingThing(FolderId Folder, string Name, string Same);

/// <summary>A folder that has to be made.</summary>
/// <param name="Parent">Index of a folder that has to be made before it; null if it stands in one that is there, or at the top.</param>
/// <param name="In">The folder that is there in which it stands; null at the top or in one that has to be made.</param>
public sealed record FolderToMake(int? Parent, FolderId? In, string Name, FolderRule Rule, string Way);

/// <summary>Where a thing will stand.</summary>
/// <param name="In">A folder that is there; null for one that has to be made.</param>
/// <param name="Made">Index of the folder that has to be made.</param>
public sealed record ThingPlace(FolderId? In, int? Made, string Way);

/// <summary>What becomes of one thing.</summary>
/// <param name="Name">As it will be called there.</param>
/// <param name="There">True if the same thing stands there already in every place: then nothing is done.</param>
public sealed record GivenStep(int Index, string Name, bool There, IReadOnlyList<ThingPlace> Places);

/// <summary>What giving does to one class.</summary>
public sealed record GivePlan(IReadOnlyList<FolderToMake> Folders, IReadOnlyList<GivenStep> Things);

/// <summary>
/// Puts the same things into another class at the same place: folders are found by their names from the top down, and made
/// where they are missing. Given again, nothing doubles; nothing that is there is changed.
/// </summary>
public static class Giving
{
    /// <summary>The folder of a class into which what comes from a bank goes.</summary>
    /// <param name="asked">As somebody called it; blank for the first at the top that the class sees, or one that is made.</param>
    /// <param name="folders">Of the class, in their order.</param>
    public static WayFolder Into(string? asked, string bank, IReadOnlyList<ReceivingFolder> folders)
    {
        var tops = Tops(folders);
        if (string.IsNullOrWhiteSpace(asked)) return tops.FirstOrDefault(f => f.Rule != FolderRule.StaffOnly) is { } first ? new(first.Name, first.Rule) : new($"From {bank}", FolderRule.ClassViews);
        return tops.FirstOrDefault(f => SafeName.Clash(f.Name, asked)) is { } there ? new(there.Name, there.Rule) : new(asked, FolderRule.ClassViews);
    }

    /// <summary>Folders at the top that things for everybody can be put into.</summary>
    public static IReadOnlyList<ReceivingFolder> Tops(IReadOnlyList<ReceivingFolder> folders) => [.. folders.Where(f => f.Parent is null && f.Rule is not (FolderRule.OneEach or FolderRule.OnePerGroup))];

    /// <summary>A way in a class for one in a bank: what only staff see of it stays behind at its beginning, for in a class it is for students.</summary>
    public static Way FromBank(Way way, WayFolder into) => new([into, .. way.Folders.SkipWhile(f => f.Rule == FolderRule.StaffOnly)]);

    /// <summary>Of what is added, how much no student of the class will see, by the rules on access.</summary>
    /// <param name="folders">All of the class.</param>
    public static int Unseen(GivePlan plan, IEnumerable<FolderFact> folders)
    {
        // Folders that are to be made have no id yet: they stand with ids of their own, below all that there are.
        static FolderId Made(int n) => new(-1 - n);
        var all = folders.Concat(plan.Folders.Select((f, n) => new FolderFact(Made(n), f.Parent is { } p ? Made(p) : f.In, f.Name, f.Rule, null)));
        var anybody = new Access(new Viewer(new(-1), Standing.Student, true, ClassState.Open, AfterArchive.View), all);
        return plan.Things.Count(t => !t.There && anybody.OfThing(t.Places.Select(p => p.Made is { } n ? Made(n) : p.In!.Value)) < Right.View);
    }

    /// <summary>Decides for one class.</summary>
    /// <param name="empty">Ways that are to stand though nothing is in them.</param>
    public static GivePlan Decide(IReadOnlyList<ThingToGive> things, IReadOnlyList<Way> empty, IReadOnlyList<ReceivingFolder> folders, IReadOnlyList<ReceivingThing> there)
    {
        var byPlace = folders.GroupBy(f => (f.Parent, SafeName.Key(f.Name))).ToDictionary(g => g.Key, g => g.First().Id);
        var names = there.GroupBy(t => t.Folder).ToDictionary(g => g.Key, g => g.ToList());
        var make = new List<FolderToMake>();
        var made = new Dictionary<string, int>(StringComparer.Ordinal);
        var madeNames = new Dictionary<int, HashSet<string>>();

        ThingPlace Find(Way way)
        {
            FolderId? at = null;
            int? index = null;
            for (var i = 0; i < way.Folders.Count; i++)
            {
                var f = way.Folders[i];
                if (index is null && byPlace.TryGetValue((at, SafeName.Key(f.Name)), out var known)) { at = known; continue; }
                var said = string.Join(" / ", way.Folders.Take(i + 1).Select(x => x.Name));
                var key = SafeName.Key(said);
                if (!made.TryGetValue(key, out var n))
                {
                    made[key] = n = make.Count;
                    make.Add(new(index, index is null ? at : null, f.Name, f.Rule, said));
                }
                index = n;
                at = null;
            }
            return new(index is null ? at : null, index, way.ToString());
        }

        foreach (var way in empty) Find(way);
        var steps = new List<GivenStep>();
        foreach (var t in things)
        {
            var places = t.Ways.Select(Find).DistinctBy(p => (p.In, p.Made)).ToList();
            var open = places.Where(p => p.In is not { } f || names.GetValueOrDefault(f)?.Any(x => x.Same == t.Same) != true).ToList();
            if (open.Count == 0)
            {
                steps.Add(new(t.Index, t.Name, true, places));
                continue;
            }
            var taken = open.SelectMany(p => p.In is { } f ? names.GetValueOrDefault(f)?.Select(x => SafeName.Key(x.Name)) ?? [] : madeNames.GetValueOrDefault(p.Made!.Value) ?? []).ToHashSet();
            var name = t.IsFile || taken.Contains(SafeName.Key(t.Name)) ? SafeName.Distinct(t.Name, taken, t.IsFile) : t.Name;
            foreach (var p in open)
            {
                if (p.In is { } f) (names.TryGetValue(f, out var list) ? list : names[f] = []).Add(new(f, name, t.Same));
                else (madeNames.TryGetValue(p.Made!.Value, out var set) ? set : madeNames[p.Made.Value] = []).Add(SafeName.Key(name));
            }
            steps.Add(new(t.Index, name, false, open));
        }
        return new(make, steps);
    }
}
