using System.Globalization;
using Microsoft.Extensions.Logging;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Bags;
using SpringLoft.Formats.Zips;
using SpringLoft.Store.Audit;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Files;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Closing;

/// <summary>
/// Carries a closing run to its end, a step at a time. Each step is safe to repeat: what a killed process left is done
/// again and ends the same, since every package is computed from the workspace and the run's own start.
/// </summary>
public sealed class ClosingRunner(Premises premises, RunNews news, IRunMilestones milestones, IPost post, ILogger<ClosingRunner> log)
{
    /// <summary>Does what is still to be done. A stop between two files parks the run; it goes on at the next start.</summary>
    public void Go(RunId id, CancellationToken stop)
    {
        var run = premises.Db.Read(c => RunStore.Find(c, id))!;
        if (run.State != StepState.Working) return;
        foreach (var k in premises.Db.Read(c => RunStore.Classes(c, id)).Where(k => k.State is StepState.Waiting or StepState.Working))
        {
            if (Paused(id)) return;
            if (!Class(run, k.ClassId, stop)) return;
            if (premises.Db.Read(c => RunStore.Find(c, id))!.Wish != RunWish.StopAfterClass) continue;
            premises.Db.Write(c => RunStore.SkipWaiting(c, id, $"The run was stopped after “{k.Name}”, before it came to this class."));
            break;
        }
        premises.Db.Write(c =>
        {
            var failed = RunStore.States(c, id).ContainsKey(StepState.Failed);
            RunStore.End(c, id, failed ? StepState.Failed : StepState.Done, premises.Clock.Now);
        });
        news.Ring(id);
    }

    private bool Paused(RunId id) => premises.Db.Read(c => RunStore.Find(c, id))!.Wish == RunWish.Pause;

    // False if the run is paused in the middle of the class; it goes on there.
    private bool Class(RunRow run, ClassId id, CancellationToken stop)
    {
        premises.Db.Write(c => RunStore.SetClass(c, run.Id, id, StepState.Working, null));
        var at = ClosingStep.TakeHomes;
        try
        {
            while (Next(run.Id, id) is { } step)
            {
                stop.ThrowIfCancellationRequested();
                if (Paused(run.Id)) return false;
                at = step;
                log.LogInformation("Run {Run}, class {Class}: {Step} begins", run.Id.Value, id.Value, step);
                Report(run.Id, id, step, StepState.Working, 0, 0, null);
                milestones.Reached($"{step}:begin");
                Do(run, id, step, stop);
                milestones.Reached($"{step}:end");
            }
            premises.Db.Write(c => RunStore.SetClass(c, run.Id, id, StepState.Done, null));
            log.LogInformation("Run {Run}, class {Class}: verified and archived", run.Id.Value, id.Value);
            Tell(id);
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
                FileNotFoundException => "A file of this class is missing from the file store. Bring it back from a backup, then try again.",
                _ => $"A file could not be read or written: {e.Message}",
            };
            Report(run.Id, id, at, StepState.Failed, 0, 0, reason);
            premises.Db.Write(c => RunStore.SetClass(c, run.Id, id, StepState.Failed, reason));
        }
        news.Ring(run.Id);
        return true;
    }

    private void Tell(ClassId id)
    {
        var (k, leads) = premises.Db.Read(c => (ClassStore.Find(c, id)!,
            PersonStore.Find(c, RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Lead && m.LeftAt is null).Select(m => m.PersonId))));
        foreach (var lead in leads.Where(l => l.Email is not null))
        {
            // The class is archived whether or not the letter goes.
            try { post.Send(lead.Email!, lead.Name.Display, $"{k.Name} is in the loft", $"“{k.Name}” was closed. Its archive package was read back and matches the workspace. You can restore the class from the loft at any time.", premises.Clock.Now); }
            catch (IOException e) { log.LogWarning(e, "The letter on class {Class} was not sent", id.Value); }
        }
    }

    private ClosingStep? Next(RunId run, ClassId id) => premises.Db.Read(c =>
        ClosingSteps.Next(RunStore.Steps(c, run, id).ToDictionary(s => s.Step, s => s.State)));

    private void Do(RunRow run, ClassId id, ClosingStep step, CancellationToken stop)
    {
        switch (step)
        {
            case ClosingStep.TakeHomes: TakeHomes(run, id, stop); break;
            case ClosingStep.ArchivePackage: Package(run, id, stop); break;
            case ClosingStep.Check: Check(run, id, stop); break;
            case ClosingStep.Archive: Archive(run, id); break;
            default: throw new ArgumentOutOfRangeException(nameof(step));
        }
    }

    private void TakeHomes(RunRow run, ClassId id, CancellationToken stop)
    {
        var (k, students, class_) = premises.Db.Read(c => (ClassStore.Find(c, id)!, RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student).ToList(), StudentContents.Load(c, id)));
        var pace = new Pace();
        var done = 0;
        var made = new List<(PackageRow Row, StoredFile File)>();
        using var batch = premises.Files.Batch();
        foreach (var student in students)
        {
            stop.ThrowIfCancellationRequested();
            var contents = class_.Of(student.PersonId);
            var laid = PackageLayout.TakeHome(k.Name, contents.Folders, contents.Items, contents.Work);
            if (laid.Count > 0)
            {
                var file = batch.Make(to => ZipWriter.Write(to, laid.Select(f => new ZipFile(f.Path, f.File.Modified, () => premises.Files.Open(f.File.Sha256))), null, stop));
                made.Add((new() { RunId = run.Id, ClassId = id, Kind = "TakeHome", StudentId = student.PersonId, Name = $"{student.Name.Display}, {k.Name}.zip", Sha256 = file.Sha256, Files = laid.Count, MadeAt = run.StartedAt }, file));
                milestones.Reached("TakeHomes:one");
            }
            done++;
            if (pace.Due()) Report(run.Id, id, ClosingStep.TakeHomes, StepState.Working, done, students.Count, null);
        }
        batch.Keep();
        premises.Db.Write(c =>
        {
            foreach (var (row, file) in made)
            {
                ItemStore.AddBlob(c, file, premises.Clock.Now);
                RunStore.PutPackage(c, row);
            }
            RunStore.SetStep(c, run.Id, id, ClosingStep.TakeHomes, StepState.Done, students.Count, students.Count, $"{made.Count} take-homes for {students.Count} students");
        });
        news.Ring(run.Id);
    }

    private void Package(RunRow run, ClassId id, CancellationToken stop)
    {
        var package = premises.Db.Read(c => ArchivePackage.Of(c, premises.Files, id));
        var total = package.Payload.Count;
        var pace = new Pace();
        var file = premises.Files.Make(to =>
        {
            BagWriter.Write(to, package.Folder, package.Payload, Info(package), run.StartedAt,
                n => { if (pace.Due()) Report(run.Id, id, ClosingStep.ArchivePackage, StepState.Working, Math.Min(n, total), total, null); }, stop);
            milestones.Reached("ArchivePackage:written");
        });
        Keep(run, id, "Archive", $"{package.Folder}.zip", file, total);
        Report(run.Id, id, ClosingStep.ArchivePackage, StepState.Done, total, total, string.Create(CultureInfo.InvariantCulture, $"{total} files, {Math.Max(0.1, file.Size / 1e6):0.0} MB"));
    }

    private void Check(RunRow run, ClassId id, CancellationToken stop)
    {
        var (archive, expected) = premises.Db.Read(c =>
            (RunStore.PackagesOf(c, run.Id, id).First(p => p.Kind == "Archive"), ArchivePackage.Of(c, premises.Files, id)));
        var pace = new Pace();
        using var zip = premises.Files.Open(archive.Sha256);
        var reading = BagReader.Read(zip,
            n => { if (pace.Due()) Report(run.Id, id, ClosingStep.Check, StepState.Working, n, archive.Files, null); }, stop);
        var problems = reading.Problems.Concat(PackageComparison.Differences(expected.Listing, reading.Payload)).ToList();
        if (problems.Count > 0)
        {
            // The package is made anew at the next try: a file may have been put right since.
            premises.Db.Write(c => RunStore.SetStep(c, run.Id, id, ClosingStep.ArchivePackage, StepState.Waiting, 0, 0, null));
            throw new RefusedException("package-wrong", $"The archive package does not match the workspace: {string.Join("; ", problems.Take(3))}{(problems.Count > 3 ? $"; and {problems.Count - 3} more" : "")}.",
                "Nothing was archived. Try again; if it stays, the named file is damaged in the file store.");
        }
        premises.Db.Write(c => RunStore.SetVerified(c, archive.Id, premises.Clock.Now));
        Report(run.Id, id, ClosingStep.Check, StepState.Done, archive.Files, archive.Files, expected.Fingerprint);
    }

    private void Archive(RunRow run, ClassId id) => premises.Db.Write(c =>
    {
        var k = ClassStore.Find(c, id)!;
        var now = premises.Clock.Now;
        if (k.State != ClassState.Archived)
        {
            Readiness.CheckMayClose(ClosingStore.Counts(c, k.YearId, id)[id].Facts(k.State) with { RunGoing = false });
            // What was checked must still be what is there: somebody may have changed it since.
            var fingerprint = RunStore.Steps(c, run.Id, id).First(s => s.Step == ClosingStep.Check).Detail;
            if (ArchivePackage.Of(c, premises.Files, id).Fingerprint != fingerprint)
                throw new RefusedException("changed-meanwhile", "Somebody changed the class while it was being packed. Nothing was archived.", "Close it again: the package will have the change.");
            if (!ClassStore.SetState(c, k, ClassState.Archived, now, run.AfterArchive)) throw Refusals.ChangedMeanwhile("class");
            RunStore.SetUndo(c, run.Id, id, ClosingExtras.Do(c, k, run.Closing, run.StartedBy, now));
            AuditStore.Add(c, now, run.StartedBy, "archived class", "class", id.Value, id, "verified package");
        }
        RunStore.SetStep(c, run.Id, id, ClosingStep.Archive, StepState.Done, 1, 1, "stands in the loft, read-only");
    });

    private void Keep(RunRow run, ClassId id, string kind, string name, StoredFile file, int files) => premises.Db.Write(c =>
    {
        ItemStore.AddBlob(c, file, premises.Clock.Now);
        RunStore.PutPackage(c, new PackageRow { RunId = run.Id, ClassId = id, Kind = kind, Name = name, Sha256 = file.Sha256, Files = files, MadeAt = run.StartedAt });
    });

    private void Report(RunId run, ClassId id, ClosingStep step, StepState state, int done, int total, string? detail)
    {
        premises.Db.Write(c => RunStore.SetStep(c, run, id, step, state, done, total, detail));
        news.Ring(run);
    }

    private static IEnumerable<(string, string)> Info(ArchivePackage package) =>
    [
        ("Source-Organization", "Spring Loft"),
        ("External-Description", $"Class workspace: {package.Class.Name}"),
        ("External-Identifier", $"class-{package.Class.Id.Value}"),
    ];

    // Progress is written four times a second at most: a commit a file would cost more than the file.
    private sealed class Pace
    {
        private long next;

        internal bool Due()
        {
            var now = Environment.TickCount64;
            if (now < next) return false;
            next = now + 250;
            return true;
        }
    }
}
