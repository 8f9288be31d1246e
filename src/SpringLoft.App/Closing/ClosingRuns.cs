using System.Globalization;
using System.Runtime.CompilerServices;
using System.Threading.Channels;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Csv;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Letters;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Closing;

/// <summary>A class on the closing desk, against the steps of closing.</summary>
/// <param name="Held">Pieces of work with the teacher; of <paramref name="OnlyCopies"/> of those the student has no copy.</param>
/// <param name="Drafts">Assignments that were never published.</param>
/// <param name="Unsent">Pieces of work that were begun and never handed in.</param>
/// <param name="DraftMarks">Marks that are not returned, also on pieces that are with their students.</param>
/// <param name="SignedOff">By whom and why it is left unresolved; null if it is not.</param>
public sealed record ClosingRow(
    ClassId Id, string Name, string Mark, string Lead, string? Department, ClassState State, FindingLevel Level, IReadOnlyList<Finding> Findings,
    int Held, int DraftMarks, int OnlyCopies, int Unfiled, int Drafts, int Unsent, int Invitations, int OnHold, bool CalendarOn, bool NextYearMade, bool ShelfSet, bool RunGoing, string? SignedOff);

/// <summary>The closing desk of a year.</summary>
public sealed record ClosingMatrix(YearId Year, string YearLabel, IReadOnlyList<ClosingRow> Classes, RunId? Run);

/// <summary>What the run will do to a class.</summary>
/// <param name="Students">All who were on its roster, those who left too: each who has something in it gets a take-home.</param>
public sealed record PlannedClosing(ClassId Id, string Name, string? Skipped, IReadOnlyList<string> Will, int Students, int Files, long Bytes);

/// <summary>The plan of a closing run: everything that will be done, and what is passed over.</summary>
public sealed record ClosingRunPlan(IReadOnlyList<PlannedClosing> Classes, int Closes, int Skips, int Files, long Bytes);

/// <summary>How far a run over many is.</summary>
/// <param name="Now">The class at work; null between classes and at the end.</param>
public sealed record ClosingRunView(
    RunId Id, StepState State, string? Reason, RunWish Wish, ClosingOptions Options, Instant StartedAt, string StartedBy, Instant? EndedAt, int Classes, int Verified, int Skipped, int Failed, RunClassView? Now);

/// <summary>Closing many classes: how ready they are, the plan, the run, the report.</summary>
public sealed class ClosingRuns(Premises premises, RunNews news, ChannelWriter<RunId> queue)
{
    /// <summary>Most classes in one run.</summary>
    public const int MostClasses = 2000;

    /// <summary>The classes of a year that the asker may close, against the steps of closing.</summary>
    /// <param name="asked">Null for the year that is going on.</param>
    public ClosingMatrix See(Caller who, YearId? asked) => premises.Db.Read(c =>
    {
        var years = YearStore.All(c);
        var year = asked is { } id ? years.FirstOrDefault(y => y.Id == id) ?? throw Refusals.NotFound("school year") : Years.YearLine.Current(years, premises.Clock.Today);
        var counts = ClosingStore.Counts(c, year.Id, premises.Clock.Today, premises.Clock.Now);
        var staff = StaffStore.Of(c, year.Id);
        var off = SignOffStore.OfYear(c, year.Id).ToDictionary(s => s.ClassId);
        var rows = ClassStore.OfYear(c, year.Id).Where(k => who.Role == SchoolRole.Coordinator || staff.Mine(k.Id, who.Id)).Select(k =>
        {
            var n = counts[k.Id];
            var findings = Readiness.Assess(n.Facts(k.State));
            return new ClosingRow(k.Id, k.Name, k.Mark, staff.Lead(k.Id), k.Department, k.State, Readiness.Overall(findings.Where(f => f.Code != "next-year")), findings,
                n.HeldMarked + n.HeldUnmarked, n.HeldMarked + n.LooseDrafts, n.BlindCopies, n.Unfiled, n.DraftAssignments, n.Unsent, n.Invitations, n.OnHold, n.CalendarOn, n.NextYear is not null, n.ShelfSet, n.RunGoing,
                off.GetValueOrDefault(k.Id) is { } s ? $"{s.By}: {s.Reason}" : null);
        }).ToList();
        var last = RunStore.ClosingRuns(c, 50).FirstOrDefault(r => who.Role == SchoolRole.Coordinator || r.StartedBy == who.Id);
        return new ClosingMatrix(year.Id, year.Year.Label, rows, last?.Id);
    });

    /// <summary>What a run would do, class by class. Writes nothing.</summary>
    public ClosingRunPlan Plan(Caller who, IReadOnlyList<ClassId> classes, ClosingOptions options) => premises.Db.Read(c =>
    {
        var planned = Chosen(c, who, classes).Select(k =>
        {
            var n = ClosingStore.Counts(c, k.YearId, premises.Clock.Today, premises.Clock.Now, k.Id)[k.Id];
            var plan = ClosingPlan.Of(options, ClosingExtras.Subject(c, k, n.Facts(k.State)));
            var (files, bytes) = plan.Skipped is null ? ClosingStore.FilesOf(c, k.Id) : (0, 0);
            return new PlannedClosing(k.Id, k.Name, plan.Skipped, plan.Will, n.StudentsEver, files, bytes);
        }).ToList();
        var closes = planned.Where(p => p.Skipped is null).ToList();
        return new ClosingRunPlan(planned, closes.Count, planned.Count - closes.Count, closes.Sum(p => p.Files), closes.Sum(p => p.Bytes));
    });

    /// <summary>How much room and time it takes to close those of some classes that can be.</summary>
    public ClosingRoomView Room(Caller who, IReadOnlyList<ClassId> classes, ClosingOptions options) => premises.Db.Read(c =>
        RoomToClose.Of(c, premises, Chosen(c, who, classes).Where(k => ClosingPlan.Of(options, ClosingExtras.Subject(c, k, ClosingStore.Counts(c, k.YearId, premises.Clock.Today, premises.Clock.Now, k.Id)[k.Id].Facts(k.State))).Skipped is null)));

    /// <summary>Begins the run. What is blocked is in it too, passed over with the reason, so that the report leaves nothing out.</summary>
    public RunId Begin(Caller by, IReadOnlyList<ClassId> classes, ClosingOptions options)
    {
        var run = premises.Db.Write(c =>
        {
            var chosen = Chosen(c, by, classes);
            var skipped = new Dictionary<ClassId, string>();
            foreach (var k in chosen)
                if (ClosingPlan.Of(options, ClosingExtras.Subject(c, k, ClosingStore.Counts(c, k.YearId, premises.Clock.Today, premises.Clock.Now, k.Id)[k.Id].Facts(k.State))).Skipped is { } why) skipped[k.Id] = why;
            if (skipped.Count == chosen.Count) throw new RefusedException("closing-blocked", "None of these classes can be closed yet.", "Mend what the closing desk lists, then close.", "classes");
            // It is found out before, not when half of them are packed.
            RoomToClose.Demand(c, premises, chosen.Where(k => !skipped.ContainsKey(k.Id)));
            var now = premises.Clock.Now;
            var made = RunStore.Add(c, [.. chosen.Select(k => k.Id)], options, by.Id, now);
            foreach (var (k, why) in skipped) RunStore.SetClass(c, made, k, StepState.Skipped, why);
            Premises.Add(c, by, now, new("began closing run", "run", made.Value, null, $"{chosen.Count - skipped.Count} classes, {skipped.Count} passed over"));
            return made;
        });
        premises.Db.AfterCommit(() => queue.TryWrite(run));
        return run;
    }

    /// <summary>Begins a run over the classes of another that failed, and those alone.</summary>
    public RunId TryAgain(Caller by, RunId id)
    {
        var (row, failed) = premises.Db.Read(c =>
        {
            var r = Find(c, by, id);
            if (r.State == StepState.Working) throw new RefusedException("run-going", "The run is still at work.", "Wait until it has ended, or stop it after this class.");
            return (r, RunStore.Classes(c, id).Where(k => k.State == StepState.Failed).Select(k => k.ClassId).ToList());
        });
        if (failed.Count == 0) throw new RefusedException("run-none-failed", "No class of this run failed.", "There is nothing to try again.");
        return Begin(by, failed, row.Closing);
    }

    /// <summary>Asks a run to pause before its next step, to go on, or to stop after the class at work.</summary>
    public void Wish(Caller by, RunId id, RunWish wish)
    {
        premises.Db.Write(c =>
        {
            if (Find(c, by, id).State != StepState.Working) throw new RefusedException("run-ended", "The run has ended.", "Begin another one.");
            RunStore.SetWish(c, id, wish);
            Premises.Add(c, by, premises.Clock.Now, new(wish switch { RunWish.Pause => "paused run", RunWish.GoOn => "let run go on", _ => "asked run to stop" }, "run", id.Value, null, $"run {id.Value}"));
        });
        if (wish != RunWish.Pause) premises.Db.AfterCommit(() => queue.TryWrite(id));
        news.Ring(id);
    }

    /// <summary>How far the run is.</summary>
    public ClosingRunView See(Caller who, RunId id) => premises.Db.Read(c => View(c, Find(c, who, id)));

    /// <summary>The run now and after each change, until it ends.</summary>
    public async IAsyncEnumerable<ClosingRunView> Follow(Caller who, RunId id, [EnumeratorCancellation] CancellationToken stop)
    {
        string? last = null;
        while (!stop.IsCancellationRequested)
        {
            var next = news.Next(id, stop);
            var view = See(who, id);
            var now = $"{view.State}{view.Wish}{view.Verified}/{view.Skipped}/{view.Failed}{view.Now?.Id}{string.Join(',', view.Now?.Steps.Select(s => $"{s.State}{s.Done}") ?? [])}";
            if (now != last) yield return view;
            last = now;
            if (view.State is StepState.Done or StepState.Failed) yield break;
            await next.ConfigureAwait(false);
        }
    }

    /// <summary>What became of each class.</summary>
    public IReadOnlyList<ClosingOutcome> Report(Caller who, RunId id) => premises.Db.Read(c =>
    {
        Find(c, who, id);
        return ClosingReport.Of(c, id);
    });

    /// <summary>The report as a table for any spreadsheet.</summary>
    public Download ReportCsv(Caller who, RunId id)
    {
        var bytes = ClosingReport.Table(Report(who, id));
        return new Download($"closing run {id.Value}.csv", new MemoryStream(bytes), bytes.Length);
    }

    /// <summary>The report as it was when the run ended, signed with the school's key, as a zip.</summary>
    public Download SignedReport(Caller who, RunId id, CancellationToken stop)
    {
        var (report, key) = premises.Db.Read(c =>
        {
            var run = Find(c, who, id);
            if (SchoolKeyStore.Report(c, id) is not { } r)
                throw run.State == StepState.Working ? new RefusedException("not-signed", "The run is still going, so there is no report to sign yet.", "Fetch it when the run has ended.")
                    : new RefusedException("not-signed", "This run ended without a signed report.", "Fetch the report as a table.");
            return (r, SchoolKeyStore.All(c).First(k => k.Id == r.KeyId).Public);
        });
        var zip = premises.Files.Scratch();
        ClosingReport.Zip(zip, report, key, stop);
        zip.Position = 0;
        return new Download($"closing run {id.Value}, signed.zip", zip, zip.Length);
    }

    /// <summary>Writes to the lead teachers of classes what is not ready there, a letter each.</summary>
    /// <returns>How many letters were written.</returns>
    public int TellTeachers(Caller by, IReadOnlyList<ClassId> classes, string? text)
    {
        var words = Refusals.NotLonger(text?.Trim() ?? "", "text", "The text", 2000);
        return premises.Db.Write(c =>
        {
            var letters = Chosen(c, by, classes).Select(k => (Class: k, Findings: Readiness.Assess(ClosingStore.Counts(c, k.YearId, premises.Clock.Today, premises.Clock.Now, k.Id)[k.Id].Facts(k.State)).Where(f => f.Level != FindingLevel.Ready && f.Code != "next-year").ToList(),
                Leads: Store.People.PersonStore.Find(c, RosterStore.Members(c, k.Id).Where(m => m.Role == ClassRole.Lead && m.LeftAt is null).Select(m => m.PersonId))))
                .Where(x => x.Findings.Count > 0).SelectMany(x => x.Leads.Select(l => (Lead: l, x.Class, x.Findings))).Where(x => x.Lead.Email is not null).GroupBy(x => x.Lead.Id).Select(g => g.ToList()).ToList();
            var now = premises.Clock.Now;
            foreach (var letter in letters)
            {
                var lead = letter[0].Lead;
                var body = string.Join("\n\n", (words.Length > 0 ? new[] { words } : []).Concat(letter.Select(x => $"{x.Class.Name}\n{string.Join("\n", x.Findings.Select(f => $"– {f.Text}"))}")));
                LetterStore.Add(c, lead.Email!, lead.Name.Display, letter.Count == 1 ? $"{letter[0].Class.Name}: before it is closed" : $"{letter.Count} classes: before they are closed", body, now);
            }
            Premises.Add(c, by, now, new("wrote what is not ready", "school", null, null, $"{letters.Count} letters about {classes.Count} classes"));
            return letters.Count;
        });
    }

    private static ClosingRunView View(IDbConnection c, RunRow run)
    {
        var states = RunStore.States(c, run.Id);
        var now = run.State == StepState.Working ? Now(c, run) : null;
        var by = Store.People.PersonStore.Find(c, run.StartedBy)?.Name.Display ?? "";
        return new(run.Id, run.State, run.Reason, run.Wish, run.Closing, run.StartedAt, by, run.EndedAt, states.Values.Sum(), states.GetValueOrDefault(StepState.Done), states.GetValueOrDefault(StepState.Skipped), states.GetValueOrDefault(StepState.Failed),
            now is null ? null : new RunClassView(now.ClassId, now.Name, now.State, now.Reason, [.. RunStore.Steps(c, run.Id, now.ClassId).OrderBy(s => s.Step).Select(s => new RunStepView(s.Step, s.State, s.Done, s.Total, s.Step == ClosingStep.Check ? null : s.Detail))]));
    }

    // A quick class is over before it is told of: then it is the one whose turn it is.
    private static RunClassRow? Now(IDbConnection c, RunRow run)
    {
        var classes = RunStore.Classes(c, run.Id);
        return classes.FirstOrDefault(k => k.State == StepState.Working) ?? (run.Wish == RunWish.Pause ? null : classes.FirstOrDefault(k => k.State == StepState.Waiting));
    }

    private static RunRow Find(IDbConnection c, Caller who, RunId id)
    {
        var run = RunStore.Find(c, id);
        if (run is not { Kind: RunKind.Closing } || (who.Role != SchoolRole.Coordinator && run.StartedBy != who.Id)) throw Refusals.NotFound("run");
        return run;
    }

    private static List<ClassRow> Chosen(IDbConnection c, Caller who, IReadOnlyList<ClassId>? classes)
    {
        Refusals.CheckTicked(classes?.Count ?? 0, MostClasses, "classes");
        return [.. classes!.Distinct().Select(id =>
        {
            var at = ClassGate.Find(c, who, id);
            if (!Permissions.InClass(at.Standing, Act.CloseClass) || at.Class.Kind != WorkspaceKind.Class) throw new RefusedException("not-found", "One of the classes is not among those you may close.", "Choose among your own classes.", "classes");
            return at.Class;
        })];
    }

    /// <summary>An outcome in our words.</summary>
}
