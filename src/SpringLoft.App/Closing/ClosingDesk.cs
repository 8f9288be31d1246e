using System.Runtime.CompilerServices;
using System.Threading.Channels;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Closing;

/// <summary>What stands before closing a class, and the newest run if there was one.</summary>
/// <param name="TakeHomes">How many the newest run made.</param>
/// <param name="Files">Files that the archive package will hold, each at every place it is filed.</param>
/// <param name="Bytes">Their size.</param>
public sealed record ClosingView(FindingLevel Level, IReadOnlyList<Finding> Findings, RunId? Run, int TakeHomes, int Students, int Files, long Bytes, ClassId? NextYear);

/// <summary>A step of a class in a run.</summary>
public sealed record RunStepView(ClosingStep Step, StepState State, int Done, int Total, string? Detail);

/// <summary>A class in a run.</summary>
/// <param name="Restored">It was archived by the run, and is archived no more.</param>
public sealed record RunClassView(ClassId Id, string Name, StepState State, string? Reason, IReadOnlyList<RunStepView> Steps, bool Restored = false);

/// <summary>A run and how far it is.</summary>
public sealed record RunView(RunId Id, StepState State, Instant StartedAt, Instant? EndedAt, IReadOnlyList<RunClassView> Classes);

/// <summary>The closing desk of a class: what is ready, what is not, and the run.</summary>
public sealed class ClosingDesk(Premises premises, RunNews news, ChannelWriter<RunId> queue)
{
    /// <summary>What is ready, what wants attention, what blocks.</summary>
    public ClosingView See(ClassId id) => premises.Db.Read(c =>
    {
        var k = ClassStore.Find(c, id) ?? throw Refusals.NotFound("class");
        var n = ClosingStore.Counts(c, k.YearId, premises.Clock.Today, premises.Clock.Now, id)[id];
        var findings = Readiness.Assess(n.Facts(k.State));
        var run = RunStore.Newest(c, id);
        var takeHomes = run is { } r ? RunStore.PackagesOf(c, r, id).Count(p => p.Kind == "TakeHome") : 0;
        var contents = ClassContents.Load(c, id);
        var laid = contents.Laid().Files;
        return new ClosingView(Readiness.Overall(findings), findings, run, takeHomes, n.StudentsEver, laid.Count, laid.Sum(f => f.File.Size), ClassStore.RolledTo(c, id)?.Id);
    });

    /// <summary>Begins a closing run for a class; refused while anything blocks.</summary>
    public RunId Close(Caller by, ClassId id, AfterArchive after)
    {
        var run = premises.Db.Write(c =>
        {
            var k = ClassGate.Demand(c, by, id, Act.CloseClass).Class;
            if (k.Kind != WorkspaceKind.Class) throw new RefusedException("department-stays", $"“{k.Name}” is no class: it stays from year to year.", "Close the classes instead.");
            Readiness.CheckMayClose(ClosingStore.Counts(c, k.YearId, premises.Clock.Today, premises.Clock.Now, id)[id].Facts(k.State));
            RoomToClose.Demand(c, premises, [k]);
            var now = premises.Clock.Now;
            var made = RunStore.Add(c, [id], new(after), by.Id, now);
            Premises.Add(c, by, now, new("began closing", "class", id.Value, id, $"run {made.Value}; students afterwards: {(after == AfterArchive.View ? "view" : "nothing")}"));
            return made;
        });
        premises.Db.AfterCommit(() => queue.TryWrite(run));
        return run;
    }

    /// <summary>A run that this class is in.</summary>
    public RunView See(ClassId id, RunId run) => premises.Db.Read(c => View(c, id, run));

    /// <summary>The run now and after each change, until it ends.</summary>
    public async IAsyncEnumerable<RunView> Follow(ClassId id, RunId run, [EnumeratorCancellation] CancellationToken stop)
    {
        string? last = null;
        while (!stop.IsCancellationRequested)
        {
            var next = news.Next(run, stop);
            var view = See(id, run);
            var now = Said(view);
            if (now != last) yield return view;
            last = now;
            if (view.State is StepState.Done or StepState.Failed) yield break;
            await next.ConfigureAwait(false);
        }
    }

    private static string Said(RunView v) => $"{v.State}|{string.Join('|', v.Classes.Select(k => $"{k.State}{string.Join(',', k.Steps.Select(s => $"{s.State}{s.Done}/{s.Total}"))}"))}";

    private static RunView View(IDbConnection c, ClassId id, RunId run)
    {
        var row = RunStore.Find(c, run);
        var classes = RunStore.Classes(c, run);
        if (row is null || classes.All(k => k.ClassId != id)) throw Refusals.NotFound("run");
        var steps = RunStore.Steps(c, run).ToLookup(s => s.ClassId);
        return new(run, row.State, row.StartedAt, row.EndedAt, [.. classes.Select(k =>
        {
            var restored = k.State == StepState.Done && ClassStore.Find(c, k.ClassId) is { State: not ClassState.Archived };
            return new RunClassView(k.ClassId, k.Name, k.State, k.Reason,
                [.. steps[k.ClassId].OrderBy(s => s.Step).Select(s => new RunStepView(s.Step, s.State, s.Done, s.Total,
                    s.Step == ClosingStep.Check ? null : restored && s.Step == ClosingStep.Archive ? "stood in the loft until it was restored" : s.Detail))], restored);
        })]);
    }
}
