using System.Diagnostics;
using System.Threading.Channels;
using SpringLoft.App;
using SpringLoft.App.Closing;
using SpringLoft.App.Plans;
using SpringLoft.Core;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.People;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

internal static class Puts
{
    /// <summary>Puts a plan of 250 folders to every class of a school and prints the seconds it took.</summary>
    internal static void Run(Premises premises)
    {
        var person = premises.Db.Read(c => PersonStore.ByUserName(c, "bench"))!;
        var by = new Caller(person.Id, person.Role, person.Name.Display);
        var lines = Enumerable.Range(0, 50).SelectMany(i => (OutlineLine[])
        [
            new(null, 0, $"Unit {i:00}", Stands.Once, FolderRule.ClassViews, []),
            .. Enumerable.Range(0, 4).Select(n => new OutlineLine(null, 1, $"Part {n}", Stands.Once, FolderRule.AsAbove, [])),
        ]).ToList();
        var plan = new PlanDesk(premises).Make(by, "Bench", "", lines);
        var classes = premises.Db.Read(c => ClassStore.OfYear(c, YearStore.All(c)[0].Id)).Select(k => k.Id).ToList();
        var putting = new PuttingPlans(premises, Channel.CreateUnbounded<RunId>().Writer, new NoMilestones());
        var watch = Stopwatch.StartNew();
        var run = putting.Begin(by, plan, classes);
        putting.Go(run, CancellationToken.None);
        watch.Stop();
        var report = putting.See(by, run);
        Console.WriteLine($"{watch.Elapsed.TotalSeconds:0.00} {report.Classes.Sum(k => k.Adds)} {report.State}");
    }

    /// <summary>Puts a plan of 20,000 folders to the first class; keeps a copy of the database as it is then; takes the plan back and prints the seconds that took, and those of the first time.</summary>
    internal static void TakeBack(Premises premises, string copy)
    {
        var person = premises.Db.Read(c => PersonStore.ByUserName(c, "bench"))!;
        var by = new Caller(person.Id, person.Role, person.Name.Display);
        string[] entries = [.. Enumerable.Range(1, 200).Select(i => $"Unit {i:000}")];
        var lines = new List<OutlineLine> { new(null, 0, "{entry}", Stands.EachEntry, FolderRule.ClassViews, entries) };
        lines.AddRange(Enumerable.Range(1, 99).Select(n => new OutlineLine(null, 1, $"Part {n:00}", Stands.Once, FolderRule.AsAbove, [])));
        var plan = new PlanDesk(premises).Make(by, "Bench, large", "", lines);
        var id = premises.Db.Read(c => ClassStore.OfYear(c, YearStore.All(c)[0].Id))[0].Id;
        var putting = new PuttingPlans(premises, Channel.CreateUnbounded<RunId>().Writer, new NoMilestones());
        RunId Put()
        {
            var run = putting.Begin(by, plan, [id]);
            putting.Go(run, CancellationToken.None);
            return run;
        }
        // Once before, as in a program that has been running: what a method costs when it is first called is told apart.
        var first = Put();
        var cold = Stopwatch.StartNew();
        putting.TakeBack(by, first, id);
        cold.Stop();
        var run = Put();
        var folders = premises.Db.Read(c => FolderStore.OfClass(c, id)).Count;
        using (var c = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={premises.Db.Path};Pooling=False"))
        {
            c.Open();
            using var keep = c.CreateCommand();
            keep.CommandText = "VACUUM INTO $copy";
            keep.Parameters.AddWithValue("$copy", copy);
            keep.ExecuteNonQuery();
        }
        var watch = Stopwatch.StartNew();
        var stay = putting.TakeBack(by, run, id);
        watch.Stop();
        var left = premises.Db.Read(c => FolderStore.OfClass(c, id)).Count;
        Console.WriteLine($"{watch.Elapsed.TotalSeconds:0.00} {folders - left} {stay.Count} {id.Value} {cold.Elapsed.TotalSeconds:0.00}");
    }
}
