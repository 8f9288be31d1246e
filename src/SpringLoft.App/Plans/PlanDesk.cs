using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Plans;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Plans;

/// <summary>A line of a plan's outline, flat, with how deep it stands.</summary>
public sealed record OutlineLine(int Depth, string NamePattern, Stands Stands, int Entries, FolderRule Rule);

/// <summary>A folder plan.</summary>
public sealed record PlanView(PlanId Id, int Version, string Name, string About, IReadOnlyList<OutlineLine> Outline);

/// <summary>A folder that a plan unfolds to.</summary>
/// <param name="Parent">Index of the folder it stands in; null at the top.</param>
/// <param name="ForEach">True for the sample that stands for each student.</param>
public sealed record UnfoldedView(int? Parent, string Name, FolderRule Rule, bool ForEach, bool Clashed);

/// <summary>What a plan unfolds to, with counts.</summary>
public sealed record UnfoldingView(int Folders, int ForEachStudent, int SchoolWeeks, int Clashes, IReadOnlyList<UnfoldedView> Tree);

/// <summary>Shows plans and what they unfold to.</summary>
public sealed class PlanDesk(Premises premises)
{
    /// <summary>All plans, newest version.</summary>
    public IReadOnlyList<PlanView> Plans() => premises.Db.Read(c => PlanStore.All(c).Select(p =>
    {
        var lines = new List<OutlineLine>();
        void Add(IReadOnlyList<PlanLine> level, int depth)
        {
            foreach (var l in level)
            {
                lines.Add(new(depth, l.NamePattern, l.Stands, l.Entries.Count, l.Rule));
                Add(l.Within, depth + 1);
            }
        }
        Add(p.Plan.Lines, 0);
        return new PlanView(p.Id, p.Version, p.Plan.Name, p.Plan.About, lines);
    }).ToList());

    /// <summary>What a plan unfolds to for a class's real roster.</summary>
    public UnfoldingView UnfoldFor(PlanId plan, ClassId id) => premises.Db.Read(c =>
    {
        var row = PlanStore.Find(c, plan) ?? throw Refusals.NotFound("folder plan");
        var k = ClassStore.Find(c, id) ?? throw Refusals.NotFound("class");
        var year = YearStore.All(c).First(y => y.Id == k.YearId);
        return View(row.Plan, Settings.Of(c, year, k.TermId, id));
    });

    /// <summary>What a plan unfolds to for a class that is not made yet.</summary>
    public UnfoldingView UnfoldFor(PlanId plan, YearId year, TermId? term) => premises.Db.Read(c =>
    {
        var row = PlanStore.Find(c, plan) ?? throw Refusals.NotFound("folder plan");
        var y = YearStore.All(c).FirstOrDefault(x => x.Id == year) ?? throw Refusals.NotFound("school year");
        return View(row.Plan, new(Settings.Weeks(y, term), []));
    });

    private static UnfoldingView View(FolderPlan plan, PlanSetting setting)
    {
        // Without students, one sample shows where each will have a folder; it is not counted.
        var sample = setting.Students.Count == 0;
        var shown = sample ? setting with { Students = [new(default, "one for each student", null)] } : setting;
        var folders = PlanUnfolding.Unfold(plan, shown);
        var index = folders.Select((f, i) => (f.Key, i)).ToDictionary(x => x.Key, x => x.i);
        var forEach = new HashSet<int>();
        var tree = folders.Select((f, i) =>
        {
            int? parent = f.ParentKey is { } p ? index[p] : null;
            var each = sample && (f.Student is not null || (parent is { } a && forEach.Contains(a)));
            if (each) forEach.Add(i);
            return new UnfoldedView(parent, f.Name, f.Rule, each, f.Clashed);
        }).ToList();
        return new(folders.Count - forEach.Count, forEach.Count, setting.Weeks.Count, folders.Count(f => f.Clashed), tree);
    }
}
