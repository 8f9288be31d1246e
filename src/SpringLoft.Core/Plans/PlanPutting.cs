using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Plans;

/// <summary>A folder of a class as it stands, and as the plan gave it when it was last put.</summary>
/// <param name="Given">Null for a folder that no plan made.</param>
/// <param name="Holds">Is anything in it: items, assignments, or folders that no plan made, at any depth.</param>
public sealed record StandingFolder(FolderId Id, FolderId? Parent, FolderKey? PlanKey, string Name, FolderRule Rule, int Position, GivenFolder? Given, bool Binned, bool Holds, PersonId? Student = null, GroupId? Group = null);

/// <summary>What a plan gave a folder.</summary>
public sealed record GivenFolder(string Name, FolderRule Rule, int Position);

/// <summary>What putting a plan does to one folder.</summary>
public enum PutKind
{
    /// <summary>The plan asks for it and it is not there.</summary>
    Add,

    /// <summary>It stands there under that name already, from another plan or by hand: the plan takes it for its own, as it stands.</summary>
    Adopt,

    /// <summary>The plan changed it and the teacher did not.</summary>
    Change,

    /// <summary>The plan no longer asks for it and nothing is in it.</summary>
    Remove,

    /// <summary>The teacher changed it: theirs stays.</summary>
    KeepTeachers,

    /// <summary>The plan no longer asks for it, but something is in it.</summary>
    KeepFull,
}

/// <summary>What a folder that stands takes from the plan, attribute by attribute; what is null stays as it is.</summary>
public sealed record PlanTakes(string? Name, FolderRule? Rule, int? Position)
{
    /// <summary>Everything stays as it is.</summary>
    public static PlanTakes Nothing { get; } = new(null, null, null);
}

/// <summary>
/// One line of the list of changes, and all that is decided about it: whoever carries it out asks nothing again.
/// </summary>
/// <param name="Folder">Null for one that is to be added.</param>
/// <param name="Wanted">What the plan wants, and is noted to have given from now on; null where it no longer asks for the folder.</param>
/// <param name="Why">In words, for a person.</param>
public sealed record PutStep(PutKind Kind, FolderId? Folder, UnfoldedFolder? Wanted, string Name, string Why)
{
    /// <summary>What a folder that stands takes from the plan.</summary>
    public PlanTakes Takes { get; init; } = PlanTakes.Nothing;
}

/// <summary>
/// Puts a plan to a class that has folders already: three-way, between what the plan gave last time, what it gives now, and
/// what the teacher made of it. A folder with anything in it is never removed.
/// </summary>
public static class PlanPutting
{
    /// <summary>Every change and everything that is kept against the plan; what is as it should be is not listed.</summary>
    /// <param name="wanted">The plan unfolded for this class, parents first.</param>
    /// <param name="standing">All folders of the class, the bin included.</param>
    public static IReadOnlyList<PutStep> Decide(IReadOnlyList<UnfoldedFolder> wanted, IReadOnlyList<StandingFolder> standing)
    {
        var byKey = standing.Where(f => f.PlanKey is not null).ToDictionary(f => f.PlanKey!);
        var steps = new List<PutStep>();
        foreach (var w in wanted)
        {
            if (!byKey.TryGetValue(w.Key, out var there)) steps.Add(new(PutKind.Add, null, w, w.Name, w.Clashed ? "told apart from a sibling of the same name" : "the plan asks for it"));
            else if (there.Binned) steps.Add(new(PutKind.KeepTeachers, there.Id, w, there.Name, "the teacher binned it"));
            else Compare(w, there, steps);
        }
        var asked = wanted.Select(w => w.Key).ToHashSet();
        foreach (var f in standing.Where(f => f.PlanKey is not null && !f.Binned && !asked.Contains(f.PlanKey)))
        {
            if (f.Holds) steps.Add(new(PutKind.KeepFull, f.Id, null, f.Name, "the plan no longer asks for it, but something is in it"));
            else if (f.Given is { } g && (g.Name != f.Name || g.Rule != f.Rule)) steps.Add(new(PutKind.KeepTeachers, f.Id, null, f.Name, "the plan no longer asks for it, but the teacher changed it"));
            else steps.Add(new(PutKind.Remove, f.Id, null, f.Name, "the plan no longer asks for it and it is empty"));
        }
        return KeepParents(steps, standing);
    }

    /// <summary>
    /// Puts a plan to a class that followed another one, or none. Keys of another plan say nothing here: what stands in the
    /// same place under the same name is taken for the plan's own, and everything else stays as it is. Nothing goes.
    /// </summary>
    public static IReadOnlyList<PutStep> DecideAnew(IReadOnlyList<UnfoldedFolder> wanted, IReadOnlyList<StandingFolder> standing)
    {
        var byPlace = standing.Where(f => !f.Binned).GroupBy(f => (f.Parent, SafeName.Key(f.Name))).ToDictionary(g => g.Key, g => g.First());
        var placed = new Dictionary<FolderKey, FolderId?>();
        var steps = new List<PutStep>();
        foreach (var w in wanted)
        {
            FolderId? parent = w.ParentKey is { } p ? placed[p] : null;
            var reachable = w.ParentKey is null || parent is not null;
            if (reachable && byPlace.TryGetValue((parent, SafeName.Key(w.Name)), out var there) && there.Student == w.Student && there.Group == w.Group)
            {
                placed[w.Key] = there.Id;
                steps.Add(new(PutKind.Adopt, there.Id, w, there.Name, there.Rule == w.Rule ? "stands there already" : $"stands there already and is {InWords.Of(there.Rule)}; the plan says {InWords.Of(w.Rule)}"));
            }
            else
            {
                placed[w.Key] = null;
                steps.Add(new(PutKind.Add, null, w, w.Name, "the plan asks for it"));
            }
        }
        return steps;
    }

    private static void Compare(UnfoldedFolder w, StandingFolder there, List<PutStep> steps)
    {
        // A folder of before the program knew what a plan gave counts as given as it stands.
        var given = there.Given ?? new(there.Name, there.Rule, there.Position);
        var planMoved = given.Name != w.Name || given.Rule != w.Rule || given.Position != w.Position;
        if (!planMoved) return;
        var nameTheirs = there.Name != given.Name && there.Name != w.Name && given.Name != w.Name;
        var ruleTheirs = there.Rule != given.Rule && there.Rule != w.Rule && given.Rule != w.Rule;
        if (nameTheirs || ruleTheirs)
            steps.Add(new(PutKind.KeepTeachers, there.Id, w, there.Name, string.Join("; ", Theirs(w, there, nameTheirs, ruleTheirs))));
        // Each attribute by itself: what the plan changed and the teacher did not is taken, whatever became of the others.
        var takes = new PlanTakes(
            given.Name != w.Name && there.Name == given.Name ? w.Name : null,
            given.Rule != w.Rule && there.Rule == given.Rule ? w.Rule : null,
            given.Position != w.Position && there.Position == given.Position ? w.Position : null);
        var changes = new List<string>();
        if (takes.Name is { } name) changes.Add($"called “{name}” now");
        if (takes.Rule is { } rule) changes.Add($"{InWords.Of(rule)} now, {InWords.Of(given.Rule)} before");
        if (takes.Position is not null) changes.Add("stands elsewhere in the order");
        if (changes.Count > 0) steps.Add(new(PutKind.Change, there.Id, w, there.Name, string.Join("; ", changes)) { Takes = takes });
    }

    private static IEnumerable<string> Theirs(UnfoldedFolder w, StandingFolder there, bool name, bool rule)
    {
        if (name) yield return $"the teacher calls it so; the plan would call it “{w.Name}”";
        if (rule) yield return $"the teacher made it {InWords.Of(there.Rule)}; the plan says {InWords.Of(w.Rule)}";
    }

    // A folder does not go while one stands in it that stays.
    private static List<PutStep> KeepParents(List<PutStep> steps, IReadOnlyList<StandingFolder> standing)
    {
        var going = steps.Where(s => s.Kind == PutKind.Remove).Select(s => s.Folder!.Value).ToHashSet();
        var byId = standing.ToDictionary(f => f.Id);
        var needed = new HashSet<FolderId>();
        foreach (var f in standing.Where(f => !f.Binned && !going.Contains(f.Id)))
            for (var at = f.Parent; at is { } p && byId.TryGetValue(p, out var parent); at = parent.Parent) needed.Add(p);
        return [.. steps.Select(s => s.Kind == PutKind.Remove && needed.Contains(s.Folder!.Value)
            ? s with { Kind = PutKind.KeepFull, Why = "the plan no longer asks for it, but a folder that stays stands in it" } : s)];
    }
}
