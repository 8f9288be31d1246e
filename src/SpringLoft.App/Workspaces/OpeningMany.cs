using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>A class that might be opened with others.</summary>
/// <param name="Version">As it is looked at.</param>
/// <param name="Check">What students would find in it.</param>
/// <param name="WantsALook">Whether it should not go unseen with the others.</param>
public sealed record OpeningLook(ClassId Class, string Name, string Mark, int Version, OpeningCheck Check, bool WantsALook);

/// <summary>A class that is to be opened.</summary>
/// <param name="Version">As it was looked at: what was changed since is looked at again.</param>
public sealed record OpeningPick(ClassId Class, int Version);

/// <summary>A class that was passed over.</summary>
public sealed record OpeningPassed(ClassId Class, string Name, string Why);

/// <summary>What became of opening many.</summary>
public sealed record OpenedMany(int Opened, int Students, IReadOnlyList<OpeningPassed> Passed);

/// <summary>Opens many classes in one act, each after its own check.</summary>
public sealed class OpeningMany(Premises premises)
{
    private const int Most = 500;

    /// <summary>Looks at those of some classes that are in preparation and that the asker may open; the others are left out.</summary>
    public IReadOnlyList<OpeningLook> Look(Caller who, IReadOnlyList<ClassId>? classes) => premises.Db.Read(c =>
    {
        Refusals.CheckTicked(classes?.Count ?? 0, Most, "classes");
        return classes!.Distinct().Where(id => ClassGate.May(c, who, id, Act.OpenClass)).Select(id => ClassStore.Find(c, id)!)
            .Where(k => k is { Kind: WorkspaceKind.Class, State: ClassState.InPreparation })
            .Select(k => (k, Check: MakingClass.Check(c, k))).Select(x => new OpeningLook(x.k.Id, x.k.Name, x.k.Mark, x.k.Version, x.Check, Opening.WantsALook(x.Check.Notes))).ToList();
    });

    /// <summary>Opens them. One that is open already, or was changed since it was looked at, is passed over and named; the others are opened.</summary>
    public OpenedMany Open(Caller by, IReadOnlyList<OpeningPick>? picks) => premises.Db.Write(c =>
    {
        Refusals.CheckTicked(picks?.Count ?? 0, Most, "classes");
        var passed = new List<OpeningPassed>();
        var (opened, students) = (0, 0);
        foreach (var p in picks!.DistinctBy(p => p.Class))
        {
            ClassGate.Demand(c, by, p.Class, Act.OpenClass);
            try
            {
                students += MakingClass.Open(c, by, p.Class, p.Version, premises.Clock.Now);
                opened++;
            }
            catch (RefusedException e) { passed.Add(new(p.Class, ClassStore.Find(c, p.Class)!.Name, $"{e.Refusal.What} {e.Refusal.Mend}")); }
        }
        return new OpenedMany(opened, students, passed);
    });
}
