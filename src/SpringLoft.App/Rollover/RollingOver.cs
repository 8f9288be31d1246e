using SpringLoft.App.Workspaces;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Rollover;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Rollover;

/// <summary>Where the new class differs from the old one.</summary>
public sealed record NewYear(YearId? Year, string? Section, string? Period)
{
    /// <summary>What comes along; null for all, without dates.</summary>
    public CarryChoice? Choice { get; init; }
}

/// <summary>A folder of the new class.</summary>
/// <param name="Was">Its name last year, where that differs.</param>
public sealed record CarriedFolder(FolderId Id, FolderId? Parent, string Name, string? Was, FolderRule Rule, int Items);

/// <summary>What rolling over would make.</summary>
/// <param name="Dates">Dates of assignments that are moved, each with its reason.</param>
/// <param name="Staying">Things that do not come along.</param>
public sealed record RolloverView(
    YearId Year, string YearLabel, ClassNamePreview Name, IReadOnlyList<AlongLine> Lines, IReadOnlyList<CarriedFolder> Folders, IReadOnlyList<string> Drafts, IReadOnlyList<CarriedDate> Dates, IReadOnlyList<StayingThing> Staying, int PlanAdds, ClassId? AlreadyMade, string? AlreadyMadeName);

/// <summary>Makes next year's class from this year's.</summary>
public sealed class RollingOver(Premises premises)
{
    /// <summary>Says what comes along and what does not. Writes nothing.</summary>
    public RolloverView Preview(ClassId id, NewYear n) => premises.Db.Read(c =>
    {
        var p = Prepare(c, id, n);
        var made = ClassStore.RolledTo(c, id);
        var s = p.First;
        var seen = p.Seen();
        return new RolloverView(p.Year.Id, p.Year.Year.Label, p.Name, p.Lines(seen), seen.Folders, seen.Assignments, s.Dates, p.Staying(), p.PlanAdds, made?.Id, made?.Name);
    });

    /// <summary>Makes the class, in preparation. Files share their bytes with last year's.</summary>
    /// <exception cref="RefusedException"><c>name-taken</c> and others of naming; <c>year-none</c>; <c>rolled-already</c>.</exception>
    public ClassId Make(Caller by, ClassId id, NewYear n) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.RollOver);
        var p = Prepare(c, id, n);
        if (p.Name.Refusal is { } refusal) throw new RefusedException(refusal);
        if (ClassStore.RolledTo(c, id) is { } there && there.YearId == p.Year.Id && there.Section == p.Section && there.Period == p.Period)
            throw new RefusedException("rolled-already", $"“{there.Name}” is made from this class already.", "Open it, or choose another section or period for a second one.", "section");
        var now = premises.Clock.Now;
        var lead = RosterStore.Lead(c, id) ?? by.Id;
        var (made, _) = p.Make(c, lead, null, now);
        Premises.Add(c, by, now, new("rolled over", "class", made.Value, made, $"from “{p.First.Class.Name}”: {p.First.Copy.Folders.Count} folders, {p.First.Copy.Items.Count} things, {p.First.Copy.Assignments.Count} assignments"));
        return made;
    });

    private static RollStep Prepare(IDbConnection c, ClassId id, NewYear n) => RollStep.Prepare(c, [id], n.Year, n.Section, n.Period, n.Choice ?? new(), YearStore.All(c));
}
