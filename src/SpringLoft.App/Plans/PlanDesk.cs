using SpringLoft.App.Workspaces;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Zips;
using SpringLoft.Store.Plans;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Plans;

/// <summary>A folder plan, and how many classes follow it.</summary>
/// <param name="Behind">Of those, how many follow an older version.</param>
/// <param name="LastPut">The newest run that put it to classes; null if none did.</param>
public sealed record PlanView(PlanId Id, int Version, string Name, string About, IReadOnlyList<OutlineLine> Outline, int Classes, int Behind, RunId? LastPut);

/// <summary>A folder that a plan unfolds to.</summary>
/// <param name="Parent">Index of the folder it stands in; null at the top.</param>
/// <param name="ForEach">True for the sample that stands for each student or group.</param>
public sealed record UnfoldedView(int? Parent, string Name, FolderRule Rule, bool ForEach, bool Clashed);

/// <summary>What a plan unfolds to, with counts.</summary>
/// <param name="LongestPath">The longest path of folders, with slashes; its bytes are what some computers can't store.</param>
public sealed record UnfoldingView(int Folders, int ForEachStudent, int SchoolWeeks, int Clashes, string LongestPath, IReadOnlyList<UnfoldedView> Tree);

/// <summary>How a plan is called, and what it is for.</summary>
public sealed record PlanTitle(string? Name, string? About);

/// <summary>What came of two who wrote on one plan.</summary>
/// <param name="Version">Of the plan as it stands now: what is saved next is saved at this one.</param>
/// <param name="By">Who wrote it meanwhile.</param>
/// <param name="Open">How many places a person has to decide yet.</param>
/// <param name="Lines">Both together; null while something is open.</param>
/// <param name="Title">What it is called when both are taken: mine where I changed it.</param>
/// <param name="TheirTitle">What the other called it; null where not both changed that.</param>
public sealed record PlanTogether(int Version, string By, Instant? At, IReadOnlyList<OutlineChunk> Chunks, int Open, IReadOnlyList<OutlineLine>? Lines, PlanTitle Title, PlanTitle? TheirTitle);

/// <summary>What a plan is unfolded for: a class with its roster, or a year or term without one.</summary>
public sealed record UnfoldFor(ClassId? Class, YearId? Year, TermId? Term);

/// <summary>Writes plans and shows what they unfold to.</summary>
public sealed class PlanDesk(Premises premises)
{
    /// <summary>All plans, newest version.</summary>
    public IReadOnlyList<PlanView> Plans() => premises.Db.Read(c =>
    {
        var uses = PlanStore.Uses(c);
        return PlanStore.All(c).Select(p => new PlanView(p.Id, p.Version, p.Plan.Name, p.Plan.About, Outline.Of(p.Plan),
            uses.GetValueOrDefault(p.Id).Classes, uses.GetValueOrDefault(p.Id).Behind, PlanPutStore.Newest(c, p.Id))).ToList();
    });

    /// <summary>What a plan unfolds to for a class that is not made yet.</summary>
    public UnfoldingView UnfoldKept(PlanId plan, UnfoldFor at) => premises.Db.Read(c =>
        View((PlanStore.Find(c, plan) ?? throw Refusals.NotFound("folder plan")).Plan, Setting(c, at)));

    /// <summary>What an outline would unfold to. Writes nothing.</summary>
    public UnfoldingView Unfold(Caller who, IReadOnlyList<OutlineLine> lines, UnfoldFor at) => premises.Db.Read(c =>
    {
        // Names on a roster are for the staff of that class.
        if (at.Class is { } id) ClassGate.Demand(c, who, id, Act.Arrange);
        return View(Outline.Make("draft", "", lines, 1).Plan, Setting(c, at));
    });

    /// <summary>What each kind of person would see in each arrangement of some sections. Writes nothing.</summary>
    public IReadOnlyList<ArrangementSight> Arrange(PlanId plan, YearId? year, TermId? term, IReadOnlyList<string> sections) => premises.Db.Read(c =>
    {
        var names = sections.Select(s => s.Trim()).Where(s => s.Length > 0).Distinct(StringComparer.OrdinalIgnoreCase).ToList();
        if (names.Count is 0 or > 30) throw new RefusedException("sections-count", $"{names.Count} sections can't be compared.", "Name 1 to 30 sections or year groups.", "sections");
        return Arrangements.Show((PlanStore.Find(c, plan) ?? throw Refusals.NotFound("folder plan")).Plan, Setting(c, new(null, year, term)), names);
    });

    /// <summary>Makes a plan of an outline.</summary>
    public PlanId Make(Caller by, string? name, string? about, IReadOnlyList<OutlineLine> lines)
    {
        var plan = Outline.Make(Refusals.Needed(name, "name", "The name of the plan", 80), Refusals.NotLonger(about?.Trim() ?? "", "about", "What it is for", 300), [.. lines.Select(l => l with { Key = null })], 1).Plan;
        return premises.Db.Write(c =>
        {
            CheckFree(c, plan.Name, null);
            var id = PlanStore.Add(c, plan, premises.Clock.Now);
            Premises.Add(c, by, premises.Clock.Now, new("made folder plan", "plan", id.Value, null, plan.Name));
            return id;
        });
    }

    /// <summary>Keeps an outline as the plan's next version. Classes keep their folders until it is put to them.</summary>
    public int Save(Caller by, PlanId id, int version, string? name, string? about, IReadOnlyList<OutlineLine> lines)
    {
        var title = Refusals.Needed(name, "name", "The name of the plan", 80);
        return premises.Db.Write(c =>
        {
            var ever = PlanStore.KeysEver(c, id);
            if (lines.FirstOrDefault(l => !string.IsNullOrEmpty(l.Key) && !ever.Contains(l.Key)) is { } stranger)
                throw new RefusedException("plan-key-unknown", $"“{stranger.NamePattern}” has a key that this plan never had.", "Reload the page and write the line anew.", "lines");
            var next = ever.Select(k => k.StartsWith('l') && int.TryParse(k.AsSpan(1), out var n) ? n : 0).DefaultIfEmpty(0).Max() + 1;
            var plan = Outline.Make(title, Refusals.NotLonger(about?.Trim() ?? "", "about", "What it is for", 300), lines, next).Plan;
            CheckFree(c, title, id);
            if (!PlanStore.Save(c, id, version, plan, by.Id, premises.Clock.Now)) throw Refusals.ChangedMeanwhile("folder plan");
            Premises.Add(c, by, premises.Clock.Now, new("changed folder plan", "plan", id.Value, null, $"{title}, version {version + 1}"));
            return version + 1;
        });
    }

    /// <summary>What comes of an outline that was begun on an earlier version and the plan as it stands now. Writes nothing.</summary>
    /// <param name="begun">Version that it was begun on.</param>
    /// <param name="was">How the plan was called then.</param>
    public PlanTogether Together(PlanId id, int begun, PlanTitle? was, PlanTitle? mine, IReadOnlyList<OutlineLine> lines, Decided? decided) => premises.Db.Read(c =>
    {
        var now = PlanStore.Find(c, id) ?? throw Refusals.NotFound("folder plan");
        var then = PlanStore.Find(c, id, begun) ?? throw Refusals.NotFound("version of the plan");
        var (chunks, open, merged) = OutlineMerge.Merge(Outline.Of(then.Plan), lines, Outline.Of(now.Plan), (decided ?? new(null, null)).About(now.Version));
        var name = ThreeWay.Decide(was?.Name?.Trim() ?? "", mine?.Name?.Trim() ?? "", now.Plan.Name);
        var about = ThreeWay.Decide(was?.About?.Trim() ?? "", mine?.About?.Trim() ?? "", now.Plan.About);
        var by = PlanStore.NewestBy(c, id);
        return new PlanTogether(now.Version, by is { } b ? Store.People.PersonStore.Find(c, b.By)!.Name.Display : "Somebody", by?.At, chunks, open, merged,
            new(name.Value, about.Value), name.Both || about.Both ? new(now.Plan.Name, now.Plan.About) : null);
    });

    /// <summary>An outline of a pasted, indented list.</summary>
    public IReadOnlyList<OutlineLine> ReadList(string? text) => Outline.Read(Refusals.NotLonger(text ?? "", "text", "The list", 100_000));

    /// <summary>An outline of paths of folders, as a dropped folder has them.</summary>
    public IReadOnlyList<OutlineLine> ReadPaths(IReadOnlyList<string>? paths)
    {
        if ((paths?.Count ?? 0) > 200_000) throw new RefusedException("too-many", $"{paths!.Count} paths are too many.", "Drop a part of the tree.", "paths");
        return Outline.OfPaths((paths ?? []).Select(p => p.Replace('\\', '/')).Select(p => p.Contains("../", StringComparison.Ordinal) || p == ".." ? "" : p));
    }

    /// <summary>An outline of the folders in a zip.</summary>
    public async Task<IReadOnlyList<OutlineLine>> ReadZip(Stream content, CancellationToken stop)
    {
        await using var scratch = premises.Files.Scratch();
        await premises.Files.Spool(content, scratch, stop).ConfigureAwait(false);
        using var zip = ZipTree.Open(scratch, new(TreeIntake.MostFiles, TreeIntake.MostBytes));
        return Outline.OfPaths(zip.Folders);
    }

    /// <summary>An outline of a class's folders as they stand: its own folders become one line for each student, those of groups one for each group.</summary>
    public IReadOnlyList<OutlineLine> OfClass(ClassId id) => premises.Db.Read(c =>
    {
        var folders = FolderStore.OfClass(c, id);
        var lines = new List<OutlineLine>();
        void Add(FolderId? parent, int depth)
        {
            var here = folders.Where(f => f.ParentId == parent).OrderBy(f => f.Position).ThenBy(f => f.Id.Value).ToList();
            var own = here.FirstOrDefault(f => f.StudentId is not null);
            var group = here.FirstOrDefault(f => f.GroupId is not null);
            foreach (var f in here.Where(f => (f.StudentId is null || f == own) && (f.GroupId is null || f == group)))
            {
                lines.Add(f == group ? new(null, depth, "{group}", Stands.EachGroup, FolderRule.OnePerGroup, []) : f == own ? new(null, depth, "{student}", Stands.EachStudent, FolderRule.OneEach, []) : new(null, depth, f.Name.Replace('{', '(').Replace('}', ')'), Stands.Once, f.Rule, []));
                if (depth + 1 < Outline.MaxDepth) Add(f.Id, depth + 1);
            }
        }
        Add(null, 0);
        return lines.Count > 0 ? lines : throw new RefusedException("plan-empty", "This class has no folder to make a plan of.", "Choose another class.", "class");
    });

    private static void CheckFree(IDbConnection c, string name, PlanId? but)
    {
        if (PlanStore.NameTaken(c, name, but)) throw new RefusedException("name-taken", $"There is already a folder plan “{name}”.", "Give this one another name.", "name");
    }

    private static PlanSetting Setting(IDbConnection c, UnfoldFor at)
    {
        if (at.Class is { } id)
        {
            var k = ClassStore.Find(c, id) ?? throw Refusals.NotFound("class");
            return Settings.Of(c, YearStore.All(c).First(y => y.Id == k.YearId), k.TermId, id);
        }
        var years = YearStore.All(c);
        var year = at.Year is { } asked ? years.FirstOrDefault(y => y.Id == asked) ?? throw Refusals.NotFound("school year") : years[^1];
        return new(Settings.Weeks(year, at.Term), []);
    }

    private static UnfoldingView View(FolderPlan plan, PlanSetting setting)
    {
        // Without students, one sample shows where each will have a folder; it is not counted.
        var sample = setting.Students.Count == 0;
        var sampleGroup = setting.Groups.Count == 0;
        var shown = sample ? setting with { Students = [new(default, "one for each student", null)] } : setting;
        if (sampleGroup) shown = shown with { Groups = [new(default, "one for each group", [.. shown.Students.Select(s => s.Id)])] };
        var folders = PlanUnfolding.Unfold(plan, shown);
        var index = folders.Select((f, i) => (f.Key, i)).ToDictionary(x => x.Key, x => x.i);
        var forEach = new HashSet<int>();
        var paths = new string[folders.Count];
        var tree = folders.Select((f, i) =>
        {
            int? parent = f.ParentKey is { } p ? index[p] : null;
            paths[i] = parent is { } a ? $"{paths[a]}/{f.Name}" : f.Name;
            var each = (sample && f.Student is not null) || (sampleGroup && f.Group is not null) || (parent is { } b && forEach.Contains(b));
            if (each) forEach.Add(i);
            return new UnfoldedView(parent, f.Name, f.Rule, each, f.Clashed);
        }).ToList();
        return new(folders.Count - forEach.Count, forEach.Count, setting.Weeks.Count, folders.Count(f => f.Clashed),
            paths.MaxBy(System.Text.Encoding.UTF8.GetByteCount) ?? "", tree);
    }
}
