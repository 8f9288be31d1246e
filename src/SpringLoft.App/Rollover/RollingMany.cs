using System.Text.Json;
using System.Threading.Channels;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Rollover;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.People;
using SpringLoft.Store.Rollover;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Rollover;

/// <summary>A class of last year, with what next year has of it.</summary>
/// <param name="Made">Classes of the next year that were made from it.</param>
public sealed record LastYearClass(ClassId Id, string Name, string Mark, string Course, string? Section, string? Period, PersonId? LeadId, string Lead, string? Department, ClassState State, IReadOnlyList<NextYearClass> Made);

/// <summary>A class of next year.</summary>
public sealed record NextYearClass(ClassId Id, string Name, ClassState State);

/// <summary>Somebody who teaches.</summary>
public sealed record TeacherChoice(PersonId Id, string Name);

/// <summary>Last year beside next year.</summary>
/// <param name="NextLabel">Null if no calendar is laid down after this year.</param>
/// <param name="Run">The newest run that rolled over; null if there was none.</param>
public sealed record RollDesk(YearId Year, string YearLabel, YearId? Next, string? NextLabel, IReadOnlyList<LastYearClass> Classes, IReadOnlyList<TeacherChoice> Teachers, RunId? Run);

/// <summary>A class that is to be made.</summary>
/// <param name="From">One class or several, the first giving course, plan and welcome note.</param>
/// <param name="Section">Null for that of the first class.</param>
/// <param name="Lead">Null for the lead teacher of the first class.</param>
public sealed record RollLine(IReadOnlyList<ClassId> From, string? Section, string? Period, PersonId? Lead);

/// <summary>What is to be rolled over.</summary>
public sealed record RollDraft(YearId? Year, IReadOnlyList<RollLine> Lines, CarryChoice Choice);

/// <summary>What one line would make.</summary>
/// <param name="Refused">Null if it can be made.</param>
/// <param name="Tree">Folders of the new class, from the top, each with how deep it stands.</param>
/// <param name="Staying">The first things that do not come along, those of students left out, which are theirs.</param>
public sealed record RollPreview(string Name, string? Refused, int Folders, int Things, int Assignments, int PlanAdds, IReadOnlyList<AlongLine> Lines, IReadOnlyList<TreeFolder> Tree, IReadOnlyList<CarriedDate> Dates, IReadOnlyList<StayingThing> Staying, int StayingInAll);

/// <summary>A folder of the new class.</summary>
public sealed record TreeFolder(string Name, int Depth, string? Was, int Items);

/// <summary>What became of a line.</summary>
public sealed record RollOutcome(int Position, IReadOnlyList<string> From, string? Name, ClassId? Made, StepState State, string? Reason, IReadOnlyList<ParityLine> Parity, bool Undone);

/// <summary>A run that rolled classes over.</summary>
public sealed record RollRunView(RunId Id, StepState State, string? Reason, Instant StartedAt, Instant? EndedAt, IReadOnlyList<RollOutcome> Lines);

/// <summary>Rolls many classes over in one run, shows first what comes of it, and compares afterwards.</summary>
public sealed class RollingMany(Premises premises, ChannelWriter<RunId> queue, Closing.IRunMilestones milestones)
{
    private const int AtOnce = 20;
    private const int MostShown = 400;
    private const int MostStaying = 40;
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    /// <summary>Last year beside next year, as far as the asker may roll over.</summary>
    /// <param name="asked">The year that is rolled over; null for the one that is going on, or the last if the year line stands in a gap.</param>
    public RollDesk See(Caller who, YearId? asked) => premises.Db.Read(c =>
    {
        var years = YearStore.All(c);
        var year = asked is { } id ? years.FirstOrDefault(y => y.Id == id) ?? throw Refusals.NotFound("school year") : Ending(years);
        var next = years.FirstOrDefault(y => y.Year.First > year.Year.Last);
        var made = (next is null ? [] : ClassStore.OfYear(c, next.Id)).Where(k => k.RolledFrom is not null).ToLookup(k => k.RolledFrom!.Value);
        var rows = ClassStore.OfYear(c, year.Id).Where(k => ClassGate.May(c, who, k.Id, Act.RollOver)).Select(k =>
        {
            var lead = RosterStore.Members(c, k.Id).FirstOrDefault(m => m.Role == ClassRole.Lead && m.LeftAt is null);
            return new LastYearClass(k.Id, k.Name, k.Mark, k.Course, k.Section, k.Period, lead?.PersonId, lead?.Name.Display ?? "–", k.Department, k.State, [.. made[k.Id].Select(m => new NextYearClass(m.Id, m.Name, m.State))]);
        }).ToList();
        return new RollDesk(year.Id, year.Year.Label, next?.Id, next?.Year.Label, rows, who.Role == SchoolRole.Coordinator ? [.. PersonStore.Staff(c).Where(p => p.Active).Select(p => new TeacherChoice(p.Id, p.Name.Display))] : [],
            RunStore.Newest(c, RunKind.RollOver, who.Role == SchoolRole.Coordinator ? null : who.Id));
    });

    /// <summary>What each line would make. Writes nothing.</summary>
    public IReadOnlyList<RollPreview> Preview(Caller who, RollDraft draft) => premises.Db.Read(c =>
    {
        Check(c, who, draft);
        var years = YearStore.All(c);
        var known = new Unfoldings();
        var taken = new HashSet<string>();
        return draft.Lines.Select(l =>
        {
            try
            {
                var step = RollStep.Prepare(c, l.From, draft.Year, l.Section, l.Period, draft.Choice, years, known);
                var refused = step.Name.Refusal is { } r ? $"{r.What} {r.Mend}" : !taken.Add(SafeName.Key(step.Name.Name)) ? "Another line makes a class of that name. Give one of them another section or period." : null;
                var seen = step.Seen();
                var staying = step.Staying().Where(t => t.Why != StaysWhy.OfStudent).ToList();
                return new RollPreview(step.Name.Name, refused, seen.Folders.Count, seen.Things, seen.Assignments.Count, step.PlanAdds, step.Lines(seen), Tree(seen.Folders), [.. step.Sources.SelectMany(x => x.Dates)], [.. staying.Take(MostStaying)], staying.Count);
            }
            catch (RefusedException e) { return new RollPreview("", $"{e.Refusal.What} {e.Refusal.Mend}", 0, 0, 0, 0, [], [], [], [], 0); }
        }).ToList();
    });

    /// <summary>Begins the run.</summary>
    public RunId Begin(Caller by, RollDraft draft)
    {
        var run = premises.Db.Write(c =>
        {
            Check(c, by, draft);
            var years = YearStore.All(c);
            var now = premises.Clock.Now;
            var to = draft.Year ?? RollStep.Prepare(c, draft.Lines[0].From, null, null, null, draft.Choice, years).Year.Id;
            var made = RunStore.AddOver(c, RunKind.RollOver, [], by.Id, now);
            RollStore.Add(c, draft.Lines.Select((l, i) => new RollRow { RunId = made, Position = i, YearId = to, FromIds = JsonSerializer.Serialize(l.From.Select(f => f.Value)), Section = l.Section, Period = l.Period, LeadId = l.Lead, Choice = JsonSerializer.Serialize(draft.Choice, Json) }));
            Premises.Add(c, by, now, new("began rolling over", "run", made.Value, null, $"{draft.Lines.Count} classes"));
            return made;
        });
        premises.Db.AfterCommit(() => queue.TryWrite(run));
        return run;
    }

    /// <summary>Does what is still to be done, some classes in one transaction: a killed run goes on with the next.</summary>
    public void Go(RunId id, CancellationToken stop)
    {
        var known = new Unfoldings();
        foreach (var lines in premises.Db.Read(c => RollStore.Of(c, id)).Where(l => l.State is StepState.Waiting or StepState.Working).Chunk(AtOnce))
        {
            stop.ThrowIfCancellationRequested();
            premises.Db.Write(c =>
            {
                var run = RunStore.Find(c, id)!;
                var years = YearStore.All(c);
                foreach (var l in lines) RollStore.Done(c, One(c, run, l, years, known));
            });
            milestones.Reached("RollOver:some");
        }
        premises.Db.Write(c => RunStore.End(c, id, RollStore.Of(c, id).Any(l => l.State == StepState.Failed) ? StepState.Failed : StepState.Done, premises.Clock.Now));
    }

    /// <summary>A run and what it made.</summary>
    public RollRunView See(Caller who, RunId id) => premises.Db.Read(c =>
    {
        var run = Find(c, who, id);
        return new RollRunView(id, run.State, run.Reason, run.StartedAt, run.EndedAt, [.. RollStore.Of(c, id).Select(l => new RollOutcome(l.Position, [.. From(l).Select(f => ClassStore.Find(c, f)?.Name ?? "a class that is gone")],
            l.MadeName, l.MadeId, l.State, l.Reason, l.Parity is { } p ? JsonSerializer.Deserialize<List<ParityLine>>(p, Json)! : [], l.UndoneAt is not null))]);
    });

    /// <summary>Takes away a class that a run made, while nothing has been added to it.</summary>
    /// <exception cref="RefusedException"><c>roll-used</c>, saying what was added.</exception>
    public void Undo(Caller by, RunId id, int position) => premises.Db.Write(c =>
    {
        Find(c, by, id);
        var line = RollStore.Of(c, id).FirstOrDefault(l => l.Position == position);
        if (line?.MadeId is not { } made || ClassStore.Find(c, made) is not { } k) throw Refusals.NotFound("class of this run");
        var folders = JsonSerializer.Deserialize<List<ParityLine>>(line.Parity!, Json)!.First(p => p.What == "Folders").Here;
        var uses = ClassRemoval.UsedSince(c, made, k.MadeAt);
        var why = FolderStore.OfClass(c, made).Count != folders ? "folders were added to it or taken away" : ClassUses.Said(uses);
        if (why.Length > 0) throw new RefusedException("roll-used", $"“{k.Name}” can't be undone: {why}.", "Keep it, or bin what is in it by hand.");
        ClassRemoval.Go(c, made);
        RollStore.Undone(c, id, position, premises.Clock.Now);
        Premises.Add(c, by, premises.Clock.Now, new("undid rolling over", "class", made.Value, null, k.Name));
    });

    private RollRow One(IDbConnection c, RunRow run, RollRow l, IReadOnlyList<YearRow> years, Unfoldings known)
    {
        try
        {
            var from = From(l);
            var step = RollStep.Prepare(c, from, l.YearId, l.Section, l.Period, JsonSerializer.Deserialize<CarryChoice>(l.Choice, Json)!, years, known);
            var lead = l.LeadId ?? RosterStore.Lead(c, from[0]) ?? run.StartedBy;
            var (made, parity) = step.Make(c, lead, l.LeadId is null ? null : PersonStore.Find(c, lead)!.Name.Display, premises.Clock.Now);
            Store.Audit.AuditStore.Add(c, premises.Clock.Now, run.StartedBy, "rolled over", "class", made.Value, made, $"from “{step.First.Class.Name}”");
            return l with { State = StepState.Done, MadeId = made, MadeName = step.Name.Name, Parity = JsonSerializer.Serialize(parity, Json) };
        }
        // Refused before anything is written: the others of the run go on.
        catch (RefusedException e) { return l with { State = StepState.Failed, Reason = $"{e.Refusal.What} {e.Refusal.Mend}" }; }
    }

    private static List<ClassId> From(RollRow l) => [.. JsonSerializer.Deserialize<long[]>(l.FromIds)!.Select(f => new ClassId(f))];

    private static List<TreeFolder> Tree(IReadOnlyList<CarriedFolder> folders)
    {
        var inside = folders.ToLookup(f => f.Parent is { } p && folders.Any(x => x.Id == p) ? p : default);
        var tree = new List<TreeFolder>();
        void Add(FolderId parent, int depth)
        {
            foreach (var f in inside[parent])
            {
                if (tree.Count >= MostShown) return;
                tree.Add(new(f.Name, depth, f.Was, f.Items));
                Add(f.Id, depth + 1);
            }
        }
        Add(default, 0);
        return tree;
    }

    private YearRow Ending(IReadOnlyList<YearRow> years) => years.LastOrDefault(y => y.Year.First <= premises.Clock.Today) ?? years[0];

    private static RunRow Find(IDbConnection c, Caller who, RunId id)
    {
        var run = RunStore.Find(c, id);
        if (run is not { Kind: RunKind.RollOver } || (who.Role != SchoolRole.Coordinator && run.StartedBy != who.Id)) throw Refusals.NotFound("run");
        return run;
    }

    private static void Check(IDbConnection c, Caller who, RollDraft draft)
    {
        Refusals.CheckTicked(draft.Choice is null ? 0 : draft.Lines?.Count ?? 0, Closing.ClosingRuns.MostClasses, "lines");
        foreach (var l in draft.Lines!)
        {
            if (l.From is not { Count: > 0 } || l.From.Any(f => !ClassGate.May(c, who, f, Act.RollOver))) throw new RefusedException("not-found", "One of the classes is not among those you may roll over.", "Choose among your own classes.", "lines");
            if (l.Lead is not { } lead) continue;
            if (who.Role != SchoolRole.Coordinator && lead != who.Id) throw new RefusedException("not-allowed", "Only the coordinator gives a class to another teacher.", "Ask the coordinator, or keep the class.", "lines");
            if (PersonStore.Find(c, lead) is not { } p || !Core.Rosters.Leading.May(p.Role, p.Active)) throw Refusals.NotFound("teacher");
        }
    }
}
