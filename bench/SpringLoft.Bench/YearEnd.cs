using System.Diagnostics;
using System.Threading.Channels;
using Microsoft.Extensions.Logging.Abstractions;
using SpringLoft.App;
using SpringLoft.App.Closing;
using SpringLoft.App.Rollover;
using SpringLoft.Core;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Rollover;
using SpringLoft.Core.Workspaces;
using SpringLoft.Demo;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Files;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

/// <summary>A whole school's year: made, closed in one run, rolled over in one run.</summary>
internal static class YearEnd
{
    internal static async Task Make(Premises premises, int classes, int files, int kilobytes, int work)
    {
        const int students = 25;
        var ids = BigSchool.Make(premises, new(classes, students, 0));
        var random = new Random(7);
        var bytes = new byte[kilobytes * 1024];
        var at = premises.Clock.Now;
        // Of every class's files the half are papers of the staff; the other half are in the work of students, as in life.
        var each = files / classes;
        var mine = new List<StoredFile>();
        using (var batch = premises.Files.Batch())
        {
            for (var i = 0; i < files; i++)
            {
                random.NextBytes(bytes);
                mine.Add(await batch.TakeIn(new MemoryStream(bytes), long.MaxValue, CancellationToken.None));
            }
            batch.Keep();
        }
        var pieces = work / classes;
        premises.Db.Write(c =>
        {
            foreach (var f in mine) ItemStore.AddBlob(c, f, at);
            for (var k = 0; k < ids.Count; k++)
            {
                var roster = RosterStore.Members(c, ids[k]);
                var lead = roster.First(m => m.Role == ClassRole.Lead).PersonId;
                var pupils = roster.Where(m => m.Role == ClassRole.Student).Select(m => m.PersonId).ToList();
                var folder = FolderStore.OfClass(c, ids[k]).First(f => f.StudentId is null).Id;
                for (var i = 0; i < each / 2; i++)
                {
                    var f = mine[(k * each) + i];
                    ItemStore.File(c, ItemStore.Add(c, ids[k], new ItemRow { Kind = ItemKind.File, Name = $"paper {i:000}.bin", Sha256 = f.Sha256, AddedBy = lead, AddedAt = at }), folder);
                }
                var assignments = Enumerable.Range(0, (pieces + pupils.Count - 1) / pupils.Count).Select(n =>
                {
                    var a = AssignmentStore.Add(c, ids[k], new AssignmentRow { Title = $"Assignment {n + 1}", Points = 20, MadeAt = at }, [folder], []);
                    AssignmentStore.Publish(c, a, 1, at);
                    return a;
                }).ToList();
                for (var n = 0; n < pieces; n++)
                {
                    var student = pupils[n % pupils.Count];
                    var row = WorkStore.Begin(c, ids[k], assignments[n / pupils.Count], student);
                    if (n < each - (each / 2)) WorkStore.AddFile(c, row.Id, "work.bin", mine[(k * each) + (each / 2) + n].Sha256, student, at);
                    WorkStore.Save(c, row with { State = WorkState.Returned, Score = n % 21, HandedInAt = at, ReturnedAt = at });
                }
            }
        });
    }

    internal static void Close(Premises premises)
    {
        var (caller, ids) = All(premises);
        var queue = Channel.CreateUnbounded<RunId>().Writer;
        var runs = new ClosingRuns(premises, new RunNews(), queue);
        var watch = Stopwatch.StartNew();
        var run = runs.Begin(caller, ids, new(AfterArchive.View));
        new ClosingRunner(premises, new RunNews(), new NoMilestones(), NullLogger<ClosingRunner>.Instance, new(premises)).Go(run, CancellationToken.None);
        watch.Stop();
        var seen = runs.See(caller, run);
        Console.WriteLine($"{watch.Elapsed.TotalSeconds:0.00} {Process.GetCurrentProcess().PeakWorkingSet64 / 1e6:0} {seen.Verified} {seen.Classes}");
    }

    internal static void RollOver(Premises premises)
    {
        var (caller, ids) = All(premises);
        var many = new RollingMany(premises, Channel.CreateUnbounded<RunId>().Writer, new NoMilestones());
        var draft = new RollDraft(null, [.. ids.Select(id => new RollLine([id], null, null, null))], new CarryChoice());
        // As on the desk: what will come is shown before it is done.
        var watch = Stopwatch.StartNew();
        if (many.Preview(caller, draft).Any(p => p.Refused is not null)) throw new InvalidOperationException("A class can't be rolled over.");
        var shown = watch.Elapsed.TotalSeconds;
        watch.Restart();
        var run = many.Begin(caller, draft);
        many.Go(run, CancellationToken.None);
        watch.Stop();
        Console.WriteLine($"{watch.Elapsed.TotalSeconds:0.00} {many.See(caller, run).Lines.Count(l => l.State == StepState.Done && l.Parity.All(p => p.Even))} {shown:0.00}");
    }

    private static (Caller Caller, List<ClassId> Classes) All(Premises premises) => premises.Db.Read(c =>
    {
        var person = PersonStore.ByUserName(c, "bench")!;
        return (new Caller(person.Id, person.Role, person.Name.Display), ClassStore.OfYear(c, YearStore.All(c)[0].Id).Select(k => k.Id).ToList());
    });
}
