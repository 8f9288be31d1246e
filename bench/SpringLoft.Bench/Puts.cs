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
}
