using System.Diagnostics;
using SpringLoft.App;
using SpringLoft.App.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.People;
using SpringLoft.Store.Years;

/// <summary>Deliveries of a large school.</summary>
internal static class Rosters
{
    internal static Task Receive(Premises premises, string bundle) => Measure(premises, new Deliveries(premises), bundle);

    private static async Task Measure(Premises premises, Deliveries deliveries, string bundle)
    {
        // A server has compared a delivery before; a process that was just started would measure the compiler.
        for (var i = 0; i < 2; i++)
        {
            await using var warm = File.OpenRead(bundle);
            deliveries.SetAside(Coordinator(premises), await deliveries.Receive(Coordinator(premises), Year(premises), "warm", warm, CancellationToken.None));
        }
        var watch = Stopwatch.StartNew();
        await using var from = File.OpenRead(bundle);
        var id = await deliveries.Receive(Coordinator(premises), Year(premises), Path.GetFileName(bundle), from, CancellationToken.None);
        watch.Stop();
        var seen = deliveries.See(id);
        Console.WriteLine($"{watch.Elapsed.TotalSeconds:0.00} {seen.Summary.Changes.Values.Sum()} {seen.Summary.OnHold} {Process.GetCurrentProcess().PeakWorkingSet64 / 1e6:0}");
    }

    /// <summary>Receives a delivery as above, then applies it, as one server does.</summary>
    internal static async Task Apply(Premises premises, string bundle)
    {
        var deliveries = new Deliveries(premises);
        await Measure(premises, deliveries, bundle);
        var newest = deliveries.All()[0];
        var watch = Stopwatch.StartNew();
        var done = new ApplyingDelivery(premises, deliveries).Apply(Coordinator(premises), newest.Id, null, newest.Version);
        watch.Stop();
        Console.WriteLine($"{watch.Elapsed.TotalSeconds:0.00} {done.Changes} {Process.GetCurrentProcess().PeakWorkingSet64 / 1e6:0}");
    }

    private static Caller Coordinator(Premises premises) => premises.Db.Read(c => PersonStore.Staff(c).First(p => p.Role == SchoolRole.Coordinator)) is var p ? new(p.Id, p.Role, p.Name.Display) : null!;

    private static SpringLoft.Core.YearId Year(Premises premises) => premises.Db.Read(YearStore.All)[0].Id;
}
