using SpringLoft.Core.Naming;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Plans;

/// <summary>What was done to one folder, with what it takes to take it back.</summary>
/// <param name="Was">The folder before; null for one that was added.</param>
/// <param name="Now">As the act left it.</param>
public sealed record FolderStep(PutKind Kind, long Folder, FolderShape? Was, FolderShape Now);

/// <summary>What a plan decides about a folder.</summary>
public sealed record FolderShape(string Name, FolderRule Rule, int Position, FolderKey? PlanKey, string? GivenName, FolderRule? GivenRule, int? GivenPosition)
{
    internal static FolderShape Of(FolderRow f) => new(f.Name, f.Rule, f.Position, f.PlanKey, f.GivenName, f.GivenRule, f.GivenPosition);

    /// <summary>Is a folder still as this?</summary>
    internal bool Is(KeptFolder f) => f.Name == Name && f.Rule == Rule.ToString() && f.Position == Position && f.PlanKey == PlanKey?.Text
        && f.GivenName == GivenName && f.GivenRule == GivenRule?.ToString() && f.GivenPosition == GivenPosition;

    /// <summary>A folder that has become this.</summary>
    internal KeptFolder On(KeptFolder f, bool isBinned) => f with
    {
        IsBinned = isBinned,
        Name = Name,
        Rule = Rule.ToString(),
        Position = Position,
        PlanKey = PlanKey?.Text,
        GivenName = GivenName,
        GivenRule = GivenRule?.ToString(),
        GivenPosition = GivenPosition,
    };
}

/// <summary>Carries out the list of changes of a plan in a workspace, and takes it back.</summary>
internal static class FolderSteps
{
    /// <summary>Folders with something in them at any depth: things, assignments, or folders that no plan made.</summary>
    internal static HashSet<FolderId> Holding(IReadOnlyList<FolderRow> rows, IEnumerable<FolderId> filled)
    {
        var byId = rows.ToDictionary(f => f.Id);
        var full = new HashSet<FolderId>();
        foreach (var start in filled.Concat(rows.Where(f => f.PlanKey is null && f.BinnedAt is null && f.ParentId is not null).Select(f => f.ParentId!.Value)))
            for (FolderId? at = start; at is { } id && full.Add(id) && byId.TryGetValue(id, out var row); at = row.ParentId) { }
        return full;
    }

    /// <summary>Folders in which a thing or an assignment is filed.</summary>
    internal static IEnumerable<FolderId> Filled(IDbConnection c, ClassId id) =>
        ItemStore.Filings(c, id).Select(f => f.Folder).Concat(AssignmentStore.Filings(c, id).SelectMany(a => a));

    /// <param name="anew">True if the class followed another plan: its folders first let go of that one's keys.</param>
    internal static IReadOnlyList<FolderStep> Apply(IDbConnection c, ClassId id, IReadOnlyList<PutStep> steps, IReadOnlyList<FolderRow> rows, bool anew, Instant now)
    {
        var byId = rows.ToDictionary(f => f.Id);
        var byKey = anew ? [] : rows.Where(f => f.PlanKey is not null).ToDictionary(f => f.PlanKey!, f => f.Id);
        var names = new SiblingNames(rows.Select(f => (f.ParentId, f.Name, f.BinnedAt is not null)));
        var done = new List<FolderStep>();
        foreach (var was in rows.Where(f => anew && f.PlanKey is not null))
        {
            var free = was with { PlanKey = null, GivenName = null, GivenRule = null, GivenPosition = null };
            Save(c, free);
            byId[was.Id] = free with { Version = free.Version + 1 };
            done.Add(new(PutKind.Adopt, was.Id.Value, FolderShape.Of(was), FolderShape.Of(free)));
        }
        // What goes makes room first: a new folder may take its name. Deepest first, so that none is left without its parent.
        foreach (var s in steps.Where(s => s.Kind == PutKind.Remove).Reverse())
        {
            var was = byId[s.Folder!.Value];
            var gone = was with { BinnedAt = now, PlanKey = null, GivenName = null, GivenRule = null, GivenPosition = null };
            Save(c, gone);
            names.Free(was.ParentId, was.Name);
            done.Add(new(PutKind.Remove, was.Id.Value, FolderShape.Of(was), FolderShape.Of(gone)));
        }
        foreach (var s in steps.Where(s => s.Kind is PutKind.Change or PutKind.KeepTeachers && s.Wanted is not null && s.Folder is not null))
        {
            var was = byId[s.Folder!.Value];
            var w = s.Wanted!;
            var next = was with { GivenName = w.Name, GivenRule = w.Rule, GivenPosition = w.Position, Rule = s.Takes.Rule ?? was.Rule, Position = s.Takes.Position ?? was.Position };
            if (s.Takes.Name is { } name) next = next with { Name = names.Move(was.ParentId, was.Name, name) };
            Save(c, next);
            byId[was.Id] = next with { Version = next.Version + 1 };
            done.Add(new(s.Kind, was.Id.Value, FolderShape.Of(was), FolderShape.Of(next)));
        }
        foreach (var s in steps.Where(s => s.Kind is PutKind.Add or PutKind.Adopt))
        {
            var w = s.Wanted!;
            if (s.Kind == PutKind.Adopt)
            {
                var was = byId[s.Folder!.Value];
                var own = was with { PlanKey = w.Key, GivenName = w.Name, GivenRule = w.Rule, GivenPosition = w.Position };
                Save(c, own);
                byKey[w.Key] = was.Id;
                done.Add(new(PutKind.Adopt, was.Id.Value, FolderShape.Of(was), FolderShape.Of(own)));
                continue;
            }
            FolderId? parent = w.ParentKey is { } p ? byKey[p] : null;
            var name = names.Take(parent, w.Name);
            byKey[w.Key] = FolderStore.Add(c, id, parent, name, w.Position, w.Rule, w.Student, w.Key, new(w.Name, w.Rule, w.Position), w.Group);
            done.Add(new(PutKind.Add, byKey[w.Key].Value, null, new(name, w.Rule, w.Position, w.Key, w.Name, w.Rule, w.Position)));
        }
        return done;
    }

    /// <summary>Undoes the steps in turn; gives the names of folders that were changed or filled since and stay as they are.</summary>
    internal static IReadOnlyList<string> TakeBack(IDbConnection c, ClassId id, IReadOnlyList<FolderStep> steps)
    {
        var stay = new List<string>();
        var rows = FolderStore.AsKept(c, id).ToDictionary(f => f.Id);
        var changed = FolderStore.Some(c, id, steps.Where(s => s.Kind != PutKind.Add).Select(s => new FolderId(s.Folder))).ToDictionary(f => f.Id);
        // Asked for only where a folder gets a name back; where all that was made goes, there is none to be taken.
        SiblingNames? names = null;
        var filled = Filled(c, id).ToHashSet();
        var within = rows.Values.Where(f => f.ParentId is not null).GroupBy(f => f.ParentId!.Value).ToDictionary(g => g.Key, g => g.Count());
        // Together, not one by one: of 20,000 folders that is most of the time.
        var going = new List<FolderId>();
        void Go()
        {
            if (going.Count > 0) FolderStore.Delete(c, going);
            going.Clear();
        }
        foreach (var s in steps.Reverse())
        {
            if (s.Kind != PutKind.Add) Go();
            if (!rows.TryGetValue(new(s.Folder), out var row)) continue;
            var asLeft = s.Now.Is(row);
            if (s.Kind == PutKind.Add)
            {
                if (!asLeft || row.IsBinned || filled.Contains(row.Id) || within.GetValueOrDefault(row.Id) > 0)
                {
                    stay.Add(row.Name);
                    continue;
                }
                going.Add(row.Id);
                rows.Remove(row.Id);
                names?.Free(row.ParentId, row.Name);
                if (row.ParentId is { } parent) within[parent]--;
            }
            else if (!asLeft) stay.Add(row.Name);
            else
            {
                var was = s.Was!;
                names ??= new SiblingNames(rows.Values.Select(f => (f.ParentId, f.Name, f.IsBinned)));
                var name = s.Kind == PutKind.Remove ? names.Take(row.ParentId, was.Name) : names.Move(row.ParentId, row.Name, was.Name);
                var full = changed[row.Id];
                var back = full with { Name = name, Rule = was.Rule, Position = was.Position, PlanKey = was.PlanKey, GivenName = was.GivenName, GivenRule = was.GivenRule, GivenPosition = was.GivenPosition, BinnedAt = s.Kind == PutKind.Remove ? null : full.BinnedAt };
                Save(c, back);
                changed[row.Id] = back with { Version = back.Version + 1 };
                rows[row.Id] = FolderShape.Of(back).On(row, back.BinnedAt is not null);
            }
        }
        Go();
        return stay;
    }

    private static void Save(IDbConnection c, FolderRow row)
    {
        if (!FolderStore.Save(c, row)) throw Refusals.ChangedMeanwhile("folder");
    }

    // Names that stand in each folder, kept apart without regard to case.
    private sealed class SiblingNames(IEnumerable<(FolderId? ParentId, string Name, bool IsBinned)> rows)
    {
        private readonly Dictionary<FolderId, HashSet<string>> taken = rows.Where(f => !f.IsBinned).GroupBy(f => f.ParentId ?? default)
            .ToDictionary(g => g.Key, g => g.Select(f => SafeName.Key(f.Name)).ToHashSet());

        internal string Take(FolderId? parent, string name)
        {
            if (!taken.TryGetValue(parent ?? default, out var here)) taken[parent ?? default] = here = [];
            var free = SafeName.Distinct(name, here, isFile: false);
            here.Add(SafeName.Key(free));
            return free;
        }

        internal string Move(FolderId? parent, string from, string to)
        {
            Free(parent, from);
            return Take(parent, to);
        }

        internal void Free(FolderId? parent, string name)
        {
            if (taken.TryGetValue(parent ?? default, out var here)) here.Remove(SafeName.Key(name));
        }
    }
}
