using System.Collections.Concurrent;
using System.Globalization;
using System.Runtime.ExceptionServices;
using Microsoft.Extensions.Logging;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Bags;
using SpringLoft.Formats.Print;
using SpringLoft.Formats.Zips;
using SpringLoft.Store.Audit;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Files;
using SpringLoft.Store.Letters;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Closing;

/// <summary>
/// Carries a closing run to its end, a step at a time. Each step is safe to repeat: what a killed process left is done
/// again and ends the same, since every package is computed from the workspace and the run's own start.
/// </summary>
public sealed class ClosingRunner(Premises premises, RunNews news, IRunMilestones milestones, ILogger<ClosingRunner> log, Workspaces.WritingTogether together)
{
    private const int Cores = 2;

    // A run over no more classes than this goes one by one, as its page shows it.
    private const int Few = 8;
    private long told;

    /// <summary>Does what is still to be done. A stop between two files parks the run; it goes on at the next start.</summary>
    public void Go(RunId id, CancellationToken stop)
    {
        var run = premises.Db.Read(c => RunStore.Find(c, id))!;
        if (run.State != StepState.Working) return;
        var left = new ConcurrentQueue<RunClassRow>(premises.Db.Read(c => RunStore.Classes(c, id)).Where(k => k.State is StepState.Waiting or StepState.Working));
        var (parked, last) = (false, (string?)null);
        void Lane()
        {
            while (!parked && last is null && left.TryDequeue(out var k))
            {
                if (Paused(id) || !Class(run, k.ClassId, stop)) parked = true;
                else if (premises.Db.Read(c => RunStore.Find(c, id))!.Wish == RunWish.StopAfterClass) last = k.Name;
            }
        }
        // Half of a class's time goes into digests and half into the disk: in a long run one class is packed while another is read back.
        try { Task.WaitAll([.. Enumerable.Range(0, left.Count > Few ? Cores : 1).Select(_ => Task.Run(Lane, CancellationToken.None))], CancellationToken.None); }
        catch (AggregateException e) { ExceptionDispatchInfo.Throw(e.Flatten().InnerExceptions[0]); }
        if (parked) return;
        if (last is not null) premises.Db.Write(c => RunStore.SkipWaiting(c, id, $"The run was stopped after “{last}”, before it came to this class."));
        premises.Db.Write(c =>
        {
            var failed = RunStore.States(c, id).ContainsKey(StepState.Failed);
            RunStore.End(c, id, failed ? StepState.Failed : StepState.Done, premises.Clock.Now);
            SchoolKeys.SignReport(c, id, premises.Clock.Now);
        });
        news.Ring(id);
    }

    private bool Paused(RunId id) => premises.Db.Read(c => RunStore.Find(c, id))!.Wish == RunWish.Pause;

    // False if the run is paused in the middle of the class; it goes on there.
    private bool Class(RunRow run, ClassId id, CancellationToken stop)
    {
        var at = ClosingStep.TakeHomes;
        using var passing = new Passing(run, id, premises.Files.Batch(), premises.Db.Read(c => RunStore.Steps(c, run.Id, id).ToDictionary(s => s.Step, s => s.State)));
        try
        {
            // What was typed up to now is in its pages' texts; from here on they stand still.
            together.Settle(id);
            while (ClosingSteps.Next(passing.States) is { } step)
            {
                stop.ThrowIfCancellationRequested();
                if (Paused(run.Id)) return false;
                at = step;
                log.LogInformation("Run {Run}, class {Class}: {Step} begins", run.Id.Value, id.Value, step);
                Tell(passing, step, 0, 0);
                milestones.Reached($"{step}:begin");
                Do(passing, step, stop);
                passing.States[step] = StepState.Done;
                milestones.Reached($"{step}:end");
            }
            log.LogInformation("Run {Run}, class {Class}: verified and archived", run.Id.Value, id.Value);
        }
        catch (OperationCanceledException)
        {
            log.LogInformation("Run {Run}, class {Class}: parked at {Step}", run.Id.Value, id.Value, at);
            throw;
        }
        catch (Exception e) when (e is RefusedException or IOException or UnauthorizedAccessException)
        {
            // A class that fails is named with its reason; the others of the run go on.
            log.LogWarning(e, "Run {Run}, class {Class}: {Step} failed", run.Id.Value, id.Value, at);
            var reason = e switch
            {
                RefusedException r => $"{r.Refusal.What} {r.Refusal.Mend}",
                DiskFullException => "The disk is full. Make room, then try again.",
                DamagedFileException d => $"{Named(id, d.Sha256)} damaged on the disk. Bring it back from a backup, or put it in again, then try again.",
                FileNotFoundException { FileName: { } sha } => $"{Named(id, sha)} missing from the file store. Bring it back from a backup, or put it in again, then try again.",
                _ => $"A file could not be read or written: {e.Message}",
            };
            premises.Db.Write(c =>
            {
                RunStore.SetStep(c, run.Id, id, at, StepState.Failed, 0, 0, reason);
                RunStore.SetClass(c, run.Id, id, StepState.Failed, reason);
            });
        }
        news.Ring(run.Id);
        return true;
    }

    // What a kept file is called in a class: "“plan.txt” is".
    private string Named(ClassId id, string sha256) => premises.Db.Read(c => FilePlaces.Of(c, sha256)).Where(p => p.Class == id).Select(p => $"“{p.Name}”").Distinct().ToList() is { Count: > 0 } names
        ? $"{string.Join(" and ", names.Take(3))} {(names.Count == 1 ? "is" : "are")}" : "A file of this class is";

    private static void Write(IDbConnection c, ClassRow k, Instant at)
    {
        var leads = PersonStore.Find(c, RosterStore.Members(c, k.Id).Where(m => m.Role == ClassRole.Lead && m.LeftAt is null).Select(m => m.PersonId));
        foreach (var lead in leads.Where(l => l.Email is not null))
            LetterStore.Add(c, lead.Email!, lead.Name.Display, $"{k.Name} is in the loft", $"“{k.Name}” was closed. Its archive package was read back and matches the workspace. You can restore the class from the loft at any time.", at);
    }

    private void Do(Passing p, ClosingStep step, CancellationToken stop)
    {
        switch (step)
        {
            case ClosingStep.TakeHomes: TakeHomes(p, stop); break;
            case ClosingStep.ArchivePackage: Package(p, stop); break;
            case ClosingStep.Check: Check(p, stop); break;
            case ClosingStep.Archive: Archive(p); break;
            default: throw new ArgumentOutOfRangeException(nameof(step));
        }
    }

    // Take-homes are written aside only; they are kept with the package, in one go: a flush of the disk costs more than a file.
    private void TakeHomes(Passing p, CancellationToken stop)
    {
        var (students, pages) = premises.Db.Read(c => (RosterStore.Members(c, p.Class).Where(m => m.Role == ClassRole.Student).ToList(), new StudentPages(c, p.Class, premises.Clock)));
        var made = new (PackageRow Row, StoredFile File)?[students.Count];
        var done = 0;
        try
        {
            Parallel.For(0, students.Count, new() { MaxDegreeOfParallelism = Cores, CancellationToken = stop }, i =>
            {
                made[i] = TakeHome(p, students[i], pages, stop);
                Tell(p, ClosingStep.TakeHomes, Interlocked.Increment(ref done), students.Count);
            });
        }
        catch (AggregateException e) { ExceptionDispatchInfo.Throw(e.Flatten().InnerExceptions[0]); }
        p.Made.AddRange(made.OfType<(PackageRow, StoredFile)>());
        p.Students = students.Count;
    }

    private (PackageRow Row, StoredFile File)? TakeHome(Passing p, MemberRow student, StudentPages pages, CancellationToken stop)
    {
        var (laid, page) = pages.Of(student.PersonId);
        if (laid.Count == 0) return null;
        var at = p.Run.StartedAt;
        var told = TakeHomePage.Write(student.Name.Display, pages.School, pages.Year, premises.Clock.DateOf(at), [page]);
        var file = p.Batch.Make(to => ZipWriter.Write(to, [new ZipFile(StudentPages.Page, at, () => new MemoryStream(told)), .. laid.Select(f => new ZipFile(f.Path, f.File.Modified, () => premises.Files.Open(f.File.Sha256)))], null, stop), inManifests: false);
        milestones.Reached("TakeHomes:one");
        return (new() { RunId = p.Run.Id, ClassId = p.Class, Kind = "TakeHome", StudentId = student.PersonId, Name = $"{student.Name.Display}, {pages.Class.Name}.zip", Sha256 = file.Sha256, Files = laid.Count, MadeAt = at }, file);
    }

    private void Package(Passing p, CancellationToken stop)
    {
        var key = SchoolKeys.Current(premises);
        (p.Package, p.Seen) = premises.Db.Read(c => (ArchivePackage.Of(c, premises.Files, p.Class), AuditStore.Newest(c)));
        var total = p.Package.Payload.Count;
        var bag = p.Package.Bag(p.Run.StartedAt, premises.Clock, key);
        var file = p.Batch.Make(to =>
        {
            BagWriter.Write(to, bag, n =>
            {
                Tell(p, ClosingStep.ArchivePackage, Math.Min(n, total), total);
                milestones.Reached("ArchivePackage:file", stop);
            }, stop);
            milestones.Reached("ArchivePackage:written");
        }, inManifests: false, beside: written => p.Reading = BagReader.Read(written, null, stop));
        p.Batch.Keep();
        premises.Db.Write(c =>
        {
            foreach (var (row, made) in p.Made.Append((new() { RunId = p.Run.Id, ClassId = p.Class, Kind = "Archive", Name = $"{p.Package.Folder}.zip", Sha256 = file.Sha256, Files = total, ClassFiles = p.Package.ClassFiles, MadeAt = p.Run.StartedAt }, file)))
            {
                ItemStore.AddBlob(c, made, premises.Clock.Now);
                RunStore.PutPackage(c, row);
            }
            if (p.Students is { } students) RunStore.SetStep(c, p.Run.Id, p.Class, ClosingStep.TakeHomes, StepState.Done, students, students, $"{p.Made.Count} take-homes for {students} students");
            RunStore.SetStep(c, p.Run.Id, p.Class, ClosingStep.ArchivePackage, StepState.Done, total, total, string.Create(CultureInfo.InvariantCulture, $"{total} files, {Math.Max(0.1, file.Size / 1e6):0.0} MB"));
        });
        news.Ring(p.Run.Id);
    }

    private void Check(Passing p, CancellationToken stop)
    {
        var (archive, expected) = premises.Db.Read(c => (RunStore.PackagesOf(c, p.Run.Id, p.Class).First(g => g.Kind == "Archive"), p.Package is { } known && AuditStore.Newest(c) == p.Seen ? known : null));
        if (expected is null) (expected, p.Seen) = premises.Db.Read(c => (ArchivePackage.Of(c, premises.Files, p.Class), AuditStore.Newest(c)));
        var reading = p.Reading ?? ReadBack(p, archive, stop);
        var problems = reading.Problems.Concat(PackageComparison.Differences(expected.Listing, reading.Payload)).ToList();
        if (problems.Count > 0)
        {
            // The package is made anew at the next try: a file may have been put right since.
            premises.Db.Write(c => RunStore.SetStep(c, p.Run.Id, p.Class, ClosingStep.ArchivePackage, StepState.Waiting, 0, 0, null));
            throw new RefusedException("package-wrong", $"The archive package does not match the workspace: {string.Join("; ", problems.Take(3))}{(problems.Count > 3 ? $"; and {problems.Count - 3} more" : "")}.",
                "Nothing was archived. Try again; if it stays, the named file is damaged in the file store.");
        }
        (p.Checked, p.Package) = (archive, expected);
    }

    // The package of an earlier process, or of before a pause.
    private BagReading ReadBack(Passing p, PackageRow archive, CancellationToken stop)
    {
        using var zip = premises.Files.Open(archive.Sha256);
        return BagReader.Read(zip, n => Tell(p, ClosingStep.Check, n, archive.Files), stop);
    }

    // What was checked must still be what is there: nobody may have changed anything since, or else it is compared anew.
    private void Archive(Passing p)
    {
        premises.Db.Write(c =>
        {
            var k = ClassStore.Find(c, p.Class)!;
            var now = premises.Clock.Now;
            if (k.State != ClassState.Archived)
            {
                Readiness.CheckMayClose(ClosingStore.Counts(c, k.YearId, premises.Clock.Today, premises.Clock.Now, p.Class)[p.Class].Facts(k.State) with { RunGoing = false });
                if (p.Checked is null || (AuditStore.Newest(c) != p.Seen && ArchivePackage.Of(c, premises.Files, p.Class).Fingerprint != p.Package!.Fingerprint))
                    throw new RefusedException("changed-meanwhile", "Somebody changed the class while it was being packed. Nothing was archived.", "Close it again: the package will have the change.");
                if (!ClassStore.SetState(c, k, ClassState.Archived, now, p.Run.AfterArchive)) throw Refusals.ChangedMeanwhile("class");
                RunStore.SetVerified(c, p.Checked.Id, now);
                RunStore.SetUndo(c, p.Run.Id, p.Class, ClosingExtras.Do(c, k, p.Run.Closing, p.Run.StartedBy, now));
                RunStore.SetStep(c, p.Run.Id, p.Class, ClosingStep.Check, StepState.Done, p.Checked.Files, p.Checked.Files, p.Package!.Fingerprint);
                AuditStore.Add(c, now, p.Run.StartedBy, AuditStore.Archived, "class", p.Class.Value, p.Class, "verified package");
                Write(c, k, now);
            }
            RunStore.SetStep(c, p.Run.Id, p.Class, ClosingStep.Archive, StepState.Done, 1, 1, "stands in the loft, read-only");
            RunStore.SetClass(c, p.Run.Id, p.Class, StepState.Done, null);
        });
        news.Ring(p.Run.Id);
    }

    // Progress is written four times a second at most: a commit a file would cost more than the file.
    private void Tell(Passing p, ClosingStep step, int done, int total)
    {
        var now = Environment.TickCount64;
        var last = Interlocked.Read(ref told);
        if (now < last || Interlocked.CompareExchange(ref told, now + 250, last) != last) return;
        premises.Db.Write(c =>
        {
            RunStore.SetClass(c, p.Run.Id, p.Class, StepState.Working, null);
            RunStore.SetStep(c, p.Run.Id, p.Class, step, StepState.Working, done, total, null);
        });
        news.Ring(p.Run.Id);
    }

    // A class on its way through the run: what was made of it so far and is not kept yet.
    private sealed class Passing(RunRow run, ClassId id, FileBatch batch, Dictionary<ClosingStep, StepState> states) : IDisposable
    {
        internal RunRow Run => run;
        internal ClassId Class => id;
        internal FileBatch Batch => batch;
        internal Dictionary<ClosingStep, StepState> States { get; } = Begun(states);
        internal List<(PackageRow Row, StoredFile File)> Made { get; } = [];

        /// <summary>Of whom take-homes were made here; null if an earlier process made them.</summary>
        internal int? Students { get; set; }
        internal ArchivePackage? Package { get; set; }

        /// <summary>What reading the package back found, while its digests were made; null if another process made it.</summary>
        internal BagReading? Reading { get; set; }

        /// <summary>The newest line of the audit trail when the package was computed: whatever changes the school adds one.</summary>
        internal long Seen { get; set; }
        internal PackageRow? Checked { get; set; }

        public void Dispose() => batch.Dispose();

        // Checking and archiving are kept together: a package that another process checked is checked again.
        private static Dictionary<ClosingStep, StepState> Begun(Dictionary<ClosingStep, StepState> states)
        {
            if (states.GetValueOrDefault(ClosingStep.Archive) != StepState.Done) states[ClosingStep.Check] = StepState.Waiting;
            return states;
        }
    }
}
