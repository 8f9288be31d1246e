using System.Text.Json;
using System.Threading.Channels;
using SpringLoft.App.Closing;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Audit;
using SpringLoft.Store.Plans;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Plans;

/// <summary>One change, or one thing kept against the plan.</summary>
public sealed record PutLine(PutKind Kind, string Folder, string Why);

/// <summary>What putting the plan would do to one class.</summary>
/// <param name="Anew">True if the class follows another plan now; then nothing of that one goes.</param>
/// <param name="Adopts">Folders that stand there under that name already.</param>
/// <param name="Refused">Why it can't be put to this class; null if it can.</param>
/// <param name="Lines">The first of them, at most <see cref="PuttingPlans.MostLines"/>; the counts are of all.</param>
public sealed record ClassPutPreview(ClassId Class, string Name, string? Refused, bool Anew, int Adds, int Adopts, int Changes, int Removes, int Keeps, int Clashes, IReadOnlyList<PutLine> Lines);

/// <summary>What became of one class.</summary>
public sealed record ClassPutReport(ClassId Class, string Name, StepState State, string? Said, int Adds, int Changes, int Removes, int Keeps, bool TakenBack, IReadOnlyList<PutLine> Kept);

/// <summary>A run that puts a plan to classes.</summary>
public sealed record PlanRunView(RunId Id, PlanId Plan, string PlanName, int Version, StepState State, string? Reason, Instant StartedAt, Instant? EndedAt, IReadOnlyList<ClassPutReport> Classes);

/// <summary>Puts plans to classes: shows what it will do, does it class by class, and takes it back.</summary>
public sealed class PuttingPlans(Premises premises, ChannelWriter<RunId> queue, IRunMilestones milestones)
{
    /// <summary>Most lines told of a class.</summary>
    public const int MostLines = 200;

    /// <summary>Most classes in one act.</summary>
    public const int MostClasses = 2000;

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web) { Converters = { new FolderKeyJson() } };

    /// <summary>The list of changes, class by class. Writes nothing.</summary>
    public IReadOnlyList<ClassPutPreview> Preview(Caller who, PlanId id, IReadOnlyList<ClassId> classes) => premises.Db.Read(c =>
    {
        var plan = PlanStore.Find(c, id) ?? throw Refusals.NotFound("folder plan");
        var years = YearStore.All(c);
        return Chosen(c, who, classes).Select(k =>
        {
            if (k.State == ClassState.Archived) return new ClassPutPreview(k.Id, k.Name, "It is archived: restore it from the loft first.", false, 0, 0, 0, 0, 0, 0, []);
            try
            {
                var steps = Decide(c, k, plan, years).Steps;
                return new(k.Id, k.Name, null, k.PlanId is not null && k.PlanId != plan.Id, Count(steps, PutKind.Add), Count(steps, PutKind.Adopt), Count(steps, PutKind.Change), Count(steps, PutKind.Remove), Kept(steps).Count(), steps.Count(s => s.Wanted?.Clashed == true), [.. steps.Take(MostLines).Select(Line)]);
            }
            catch (RefusedException e) { return new(k.Id, k.Name, $"{e.Refusal.What} {e.Refusal.Mend}", false, 0, 0, 0, 0, 0, 0, []); }
        }).ToList();
    });

    /// <summary>Begins a run that puts the newest version of a plan to classes.</summary>
    public RunId Begin(Caller by, PlanId id, IReadOnlyList<ClassId> classes)
    {
        var run = premises.Db.Write(c =>
        {
            var plan = PlanStore.Find(c, id) ?? throw Refusals.NotFound("folder plan");
            var chosen = Chosen(c, by, classes).Select(k => k.Id).ToList();
            var now = premises.Clock.Now;
            var made = RunStore.AddOver(c, RunKind.PutPlan, chosen, by.Id, now);
            PlanPutStore.Add(c, made, chosen, id, plan.Version);
            Premises.Add(c, by, now, new("put folder plan", "plan", id.Value, null, $"{plan.Plan.Name}, version {plan.Version}, to {chosen.Count} classes: run {made.Value}"));
            return made;
        });
        premises.Db.AfterCommit(() => queue.TryWrite(run));
        return run;
    }

    /// <summary>Does what is still to be done of a run, a class in one transaction: a killed run goes on with the next class.</summary>
    public void Go(RunId id, CancellationToken stop)
    {
        foreach (var k in premises.Db.Read(c => RunStore.Classes(c, id)).Where(k => k.State is StepState.Waiting or StepState.Working))
        {
            stop.ThrowIfCancellationRequested();
            try
            {
                premises.Db.Write(c => One(c, id, k.ClassId));
                milestones.Reached("PutPlan:one");
            }
            catch (RefusedException e) { premises.Db.Write(c => RunStore.SetClass(c, id, k.ClassId, StepState.Failed, $"{e.Refusal.What} {e.Refusal.Mend}")); }
        }
        premises.Db.Write(c => RunStore.End(c, id, RunStore.Classes(c, id).Any(k => k.State == StepState.Failed) ? StepState.Failed : StepState.Done, premises.Clock.Now));
    }

    /// <summary>A run and what it did to each class.</summary>
    public PlanRunView See(Caller who, RunId id) => premises.Db.Read(c =>
    {
        var run = RunStore.Find(c, id);
        if (run is not { Kind: RunKind.PutPlan }) throw Refusals.NotFound("run");
        var puts = PlanPutStore.Of(c, id).ToDictionary(p => p.ClassId);
        // Of classes that are gone since nothing is told; of a run over none but those, nothing at all.
        var any = puts.Values.FirstOrDefault() ?? throw Refusals.NotFound("run");
        return new PlanRunView(id, any.PlanId, PlanStore.Find(c, any.PlanId)!.Plan.Name, any.Version, run.State, run.Reason, run.StartedAt, run.EndedAt, [.. RunStore.Classes(c, id).Where(k => ClassGate.May(c, who, k.ClassId, Act.PutPlan)).Select(k =>
        {
            var put = puts[k.ClassId];
            var done = put.Steps.Length == 0 ? new Done([], []) : JsonSerializer.Deserialize<Done>(put.Steps, Json)!;
            return new ClassPutReport(k.ClassId, k.Name, k.State, k.Reason, done.Steps.Count(s => s.Kind == PutKind.Add), done.Steps.Count(s => s.Kind == PutKind.Change),
                done.Steps.Count(s => s.Kind == PutKind.Remove), done.Kept.Count, put.TakenBackAt is not null, done.Kept);
        })]);
    });

    /// <summary>Takes back what a run did to a class. What was changed or filled since stays, and is told.</summary>
    /// <returns>Names of folders that stay as they are.</returns>
    public IReadOnlyList<string> TakeBack(Caller by, RunId id, ClassId classId) => premises.Db.Write(c =>
    {
        var put = PlanPutStore.Of(c, id).FirstOrDefault(p => p.ClassId == classId) ?? throw Refusals.NotFound("class in this run");
        var k = Own(c, by, classId);
        if (k.State == ClassState.Archived) throw new RefusedException("class-archived", $"“{k.Name}” is archived: nobody changes anything in it.", "Restore it from the loft first.");
        if (put.TakenBackAt is not null || put.Steps.Length == 0) throw new RefusedException("nothing-to-take-back", "There is nothing to take back for this class.", "Look at the report again.");
        var done = JsonSerializer.Deserialize<Done>(put.Steps, Json)!;
        var stay = FolderSteps.TakeBack(c, classId, done.Steps);
        if (k.PlanId == put.PlanId && k.PlanVersion == put.Version) ClassStore.SetPlan(c, classId, put.PlanBefore, put.VersionBefore);
        var now = premises.Clock.Now;
        PlanPutStore.SetTakenBack(c, id, classId, now);
        Premises.Add(c, by, now, new("took back folder plan", "class", classId.Value, classId, $"run {id.Value}; {stay.Count} folders stay"));
        return stay;
    });

    private void One(IDbConnection c, RunId run, ClassId id)
    {
        var put = PlanPutStore.Of(c, run, id);
        var k = ClassStore.Find(c, id)!;
        if (k.State == ClassState.Archived) throw new RefusedException("class-archived", $"“{k.Name}” is archived: nobody changes anything in it.", "Restore it from the loft first.");
        var plan = PlanStore.Find(c, put.PlanId, put.Version)!;
        var (steps, rows) = Decide(c, k, plan, YearStore.All(c));
        var done = new Done([.. FolderSteps.Apply(c, id, steps, rows, k.PlanId != put.PlanId, premises.Clock.Now)], [.. Kept(steps).Take(MostLines).Select(Line)]);
        ClassStore.SetPlan(c, id, put.PlanId, put.Version);
        PlanPutStore.SetDone(c, put with { PlanBefore = k.PlanId, VersionBefore = k.PlanVersion, Steps = JsonSerializer.Serialize(done, Json) });
        RunStore.SetClass(c, run, id, StepState.Done, null);
        AuditStore.Add(c, premises.Clock.Now, RunStore.Find(c, run)!.StartedBy, "put folder plan", "class", id.Value, id, $"{plan.Plan.Name}, version {put.Version}: {done.Steps.Count} changes");
    }

    private static (IReadOnlyList<PutStep> Steps, IReadOnlyList<FolderRow> Rows) Decide(IDbConnection c, ClassRow k, PlanRow plan, IReadOnlyList<YearRow> years)
    {
        var rows = FolderStore.WithBin(c, k.Id);
        var full = FolderSteps.Holding(rows, FolderSteps.Filled(c, k.Id));
        var wanted = PlanUnfolding.Unfold(plan.Plan, Settings.Of(c, years.First(y => y.Id == k.YearId), k.TermId, k.Id));
        // Own folders of students who left are nobody's to ask for: they stay as they are.
        var left = wanted.Where(w => w.Student is not null).Select(w => w.Student!.Value).ToHashSet();
        var standing = rows.Where(f => f.StudentId is not { } s || left.Contains(s) || f.PlanKey is null).ToList();
        var facts = standing.Select(f => new StandingFolder(f.Id, f.ParentId, f.PlanKey, f.Name, f.Rule, f.Position, f.Given, f.BinnedAt is not null, full.Contains(f.Id), f.StudentId, f.GroupId)).ToList();
        return (k.PlanId == plan.Id ? PlanPutting.Decide(wanted, facts) : PlanPutting.DecideAnew(wanted, facts), rows);
    }

    private static IReadOnlyList<ClassRow> Chosen(IDbConnection c, Caller who, IReadOnlyList<ClassId> classes)
    {
        if (classes.Count == 0) throw new RefusedException("missing", "No class is ticked.", "Tick the classes the plan is to be put to.", "classes");
        if (classes.Count > MostClasses) throw new RefusedException("too-many", $"{classes.Count} classes at once are too many.", $"Take up to {MostClasses} in one act.", "classes");
        return [.. classes.Distinct().Select(id => Own(c, who, id))];
    }

    // A plan is put by who leads the class, or by the coordinator.
    private static ClassRow Own(IDbConnection c, Caller who, ClassId id) =>
        ClassGate.Demand(c, who, id, Act.PutPlan).Class;

    private static int Count(IEnumerable<PutStep> steps, PutKind kind) => steps.Count(s => s.Kind == kind);

    private static IEnumerable<PutStep> Kept(IEnumerable<PutStep> steps) => steps.Where(s => s.Kind is PutKind.KeepTeachers or PutKind.KeepFull);

    private static PutLine Line(PutStep s) => new(s.Kind, s.Name, s.Why);

    private sealed record Done(IReadOnlyList<FolderStep> Steps, IReadOnlyList<PutLine> Kept);
}
