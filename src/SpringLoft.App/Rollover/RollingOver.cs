using SpringLoft.App.Plans;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Rollover;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Plans;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Rollover;

/// <summary>Where the new class differs from the old one.</summary>
public sealed record NewYear(YearId? Year, string? Section, string? Period);

/// <summary>A folder of the new class.</summary>
/// <param name="Was">Its name last year, where that differs.</param>
public sealed record CarriedFolder(FolderId Id, FolderId? Parent, string Name, string? Was, FolderRule Rule, int Items);

/// <summary>What rolling over would make.</summary>
public sealed record RolloverView(YearId Year, string YearLabel, ClassNamePreview Name, IReadOnlyList<AlongLine> Lines, IReadOnlyList<CarriedFolder> Folders, IReadOnlyList<string> Drafts, int PlanAdds, ClassId? AlreadyMade, string? AlreadyMadeName);

/// <summary>Makes next year's class from this year's.</summary>
public sealed class RollingOver(Premises premises)
{
    /// <summary>Says what comes along and what does not. Writes nothing.</summary>
    public RolloverView Preview(ClassId id, NewYear n) => premises.Db.Read(c =>
    {
        var p = Prepare(c, id, n);
        var made = ClassStore.RolledTo(c, id);
        return new RolloverView(p.Year.Id, p.Year.Year.Label, p.Name, p.Along.Lines, p.Folders, [.. p.Assignments.Select(a => a.Title)], p.PlanAdds, made?.Id, made?.Name);
    });

    /// <summary>Makes the class, in preparation. Files share their bytes with last year's.</summary>
    /// <exception cref="RefusedException"><c>name-taken</c> and others of naming; <c>year-none</c>; <c>rolled-already</c>.</exception>
    public ClassId Make(Caller by, ClassId id, NewYear n) => premises.Db.Write(c =>
    {
        var p = Prepare(c, id, n);
        if (p.Name.Refusal is { } refusal) throw new RefusedException(refusal);
        if (ClassStore.RolledTo(c, id) is { } there && there.YearId == p.Year.Id && Same(there, p))
            throw new RefusedException("rolled-already", $"“{there.Name}” is made from this class already.", "Open it, or choose another section or period for a second one.", "section");
        var now = premises.Clock.Now;
        var made = ClassStore.Add(c, new ClassRow
        {
            YearId = p.Year.Id,
            CourseId = p.Old.CourseId,
            Section = p.Section,
            Period = p.Period,
            Name = p.Name.Name,
            Level = p.Old.Level,
            TeacherShown = p.Old.TeacherShown,
            Welcome = p.Old.Welcome,
            PlanId = p.Old.PlanId,
            PlanVersion = p.Old.PlanVersion,
            RolledFrom = id,
            MadeAt = now,
        });
        var lead = RosterStore.Members(c, id).FirstOrDefault(m => m.Role == ClassRole.Lead && m.LeftAt is null)?.PersonId ?? by.Id;
        RosterStore.Put(c, made, lead, ClassRole.Lead, now);
        var folders = SetUpCopy.Into(c, made, new(id, p.Rows, p.Folders, p.Along.Items, p.Assignments), now);
        Settings.Unfold(c, ClassStore.Find(c, made)!);
        Premises.Add(c, by, now, new("rolled over", "class", made.Value, made, $"from “{p.Old.Name}”: {folders} folders, {p.Along.Items.Count} things, {p.Assignments.Count} assignments"));
        return made;
    });

    private sealed record Prepared(
        ClassRow Old, YearRow Year, string? Section, string? Period, ClassNamePreview Name, ComesAlong Along, IReadOnlyList<CarriedFolder> Folders,
        IReadOnlyList<FolderRow> Rows, IReadOnlyList<AssignmentRow> Assignments, int PlanAdds);

    private static Prepared Prepare(IDbConnection c, ClassId id, NewYear n)
    {
        var old = ClassStore.Find(c, id) ?? throw Refusals.NotFound("class");
        if (old.Kind == WorkspaceKind.Department) throw new RefusedException("department-stays", $"“{old.Name}” is a department's workspace: it stays from year to year.", "Roll over the classes instead.");
        var years = YearStore.All(c);
        var oldYear = years.First(y => y.Id == old.YearId);
        var year = n.Year is { } asked ? years.FirstOrDefault(y => y.Id == asked) ?? throw Refusals.NotFound("school year")
            : years.FirstOrDefault(y => y.Year.First > oldYear.Year.Last);
        if (year is null || year.Year.First <= oldYear.Year.Last)
            throw new RefusedException("year-none", $"There is no school year after {oldYear.Year.Label} yet.", "The coordinator lays down next year's terms first.", "year");
        var section = Refusals.NotLonger(n.Section?.Trim() ?? old.Section ?? "", "section", "The section", 40);
        var period = Refusals.NotLonger(n.Period?.Trim() ?? old.Period ?? "", "period", "The period", 40);
        var name = MakingClass.NameOf(c, year, old.Course, section, period, null);

        var (rows, along) = WhatComes(c, id);
        var filings = ItemStore.Filings(c, id).ToLookup(f => f.Item, f => f.Folder);
        var assignments = AssignmentStore.OfClass(c, id);
        var (was, will) = Unfoldings(c, old, oldYear, year);
        var kept = along.Folders.ToHashSet();
        var counts = along.Items.SelectMany(i => filings[i]).GroupBy(f => f).ToDictionary(g => g.Key, g => g.Count());
        var carried = rows.Where(f => kept.Contains(f.Id)).Select(f =>
        {
            var next = FolderCarry.NewName(f.Name, f.PlanKey, was, will);
            return new CarriedFolder(f.Id, f.ParentId, next, next == f.Name ? null : f.Name, f.Rule, counts.GetValueOrDefault(f.Id));
        }).ToList();
        var keys = rows.Where(f => f.PlanKey is not null && kept.Contains(f.Id)).Select(f => f.PlanKey!).ToHashSet();
        return new(old, year, section.Length == 0 ? null : section, period.Length == 0 ? null : period, name, along, carried, rows, assignments, will.Keys.Count(k => !keys.Contains(k)));
    }

    /// <summary>Folders of a class with the bin, and what of it comes along into another.</summary>
    internal static (IReadOnlyList<FolderRow> Rows, ComesAlong Along) WhatComes(IDbConnection c, ClassId id)
    {
        var rows = FolderStore.WithBin(c, id);
        var filings = ItemStore.Filings(c, id).ToLookup(f => f.Item, f => f.Folder);
        var items = ItemStore.WithBin(c, id);
        var members = RosterStore.Members(c, id).Where(m => m.LeftAt is null).ToList();
        var assignments = AssignmentStore.OfClass(c, id);
        return (rows, ComesAlong.Decide(
            [.. rows.Select(f => new OldFolder(f.Id, f.ParentId, f.Rule, f.StudentId, f.BinnedAt is not null, f.GroupId))],
            [.. items.Select(i => new OldItem(i.Id, [.. filings[i.Id]], i.ByStudent, i.BinnedAt is not null))],
            new(assignments.Count, AssignmentStore.BinnedCount(c, id), members.Count(m => m.Role == ClassRole.Student), members.Count(m => m.Role == ClassRole.CoTeacher),
                ClassStore.Notices(c, id).Count, WorkStore.OfClass(c, id).Count)));
    }

    private static (IReadOnlyDictionary<string, string> Was, IReadOnlyDictionary<string, string> Will) Unfoldings(IDbConnection c, ClassRow old, YearRow oldYear, YearRow year)
    {
        if (old.PlanId is not { } id || PlanStore.Find(c, id, old.PlanVersion) is not { } plan) return (new Dictionary<string, string>(), new Dictionary<string, string>());
        IReadOnlyDictionary<string, string> Names(YearRow y, TermId? term) => FolderCarry.Names(PlanUnfolding.Unfold(plan.Plan, new(Settings.Weeks(y, term), [])));
        return (Names(oldYear, old.TermId), Names(year, null));
    }

    private static bool Same(ClassRow there, Prepared p) => there.Section == p.Section && there.Period == p.Period;
}
