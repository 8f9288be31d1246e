// Measures one thing a run; bench/*.sh set the stock tools beside it.
using System.Diagnostics;
using System.Globalization;
using Microsoft.Extensions.Logging.Abstractions;
using NodaTime;
using SpringLoft.App;
using SpringLoft.App.Closing;
using SpringLoft.App.Workspaces;
using SpringLoft.App.Years;
using SpringLoft.Core.Workspaces;
using SpringLoft.Demo;
using SpringLoft.StandIns;
using SpringLoft.Store;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Files;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
Directory.CreateDirectory(args[1]);
using var database = new Database(Path.Combine(args[1], "spring-loft.db"));
var premises = new Premises(database, new FileStore(Path.Combine(args[1], "files")), new SchoolClock(SystemClock.Instance, DateTimeZone.Utc));
premises.Clock.MoveTo(new LocalDate(2027, 6, 7));

switch (args[0])
{
    case "echo":
        await Echo.Serve();
        break;

    case "make-school":
        // args: folder, classes, students a class, assignments a class
        BigSchool.Make(premises, new(int.Parse(args[2]), int.Parse(args[3]), int.Parse(args[4])));
        break;

    case "make-class":
        // args: folder, folder of files to take in
        var id = BigSchool.Make(premises, new(1, 0, 0))[0];
        foreach (var path in Directory.GetFiles(args[2]).Order())
        {
            await using var from = File.OpenRead(path);
            BigSchool.AddFile(premises, id, Path.GetFileName(path), await premises.Files.TakeIn(from, long.MaxValue, CancellationToken.None));
        }
        break;

    case "close":
        // Packs, verifies and archives the one class; prints seconds and the peak of memory.
        var one = database.Read(c => ClassStore.OfYear(c, YearStore.All(c)[0].Id))[0].Id;
        var lead = database.Read(c => RosterStore.Members(c, one))[0].PersonId;
        var run = database.Write(c => RunStore.Add(c, [one], new(AfterArchive.View), lead, premises.Clock.Now));
        var watch = Stopwatch.StartNew();
        new ClosingRunner(premises, new RunNews(), new NoMilestones(), NullLogger<ClosingRunner>.Instance, new(premises)).Go(run, CancellationToken.None);
        watch.Stop();
        var state = database.Read(c => RunStore.Find(c, run))!.State;
        Console.WriteLine($"{watch.Elapsed.TotalSeconds:0.00} {Process.GetCurrentProcess().PeakWorkingSet64 / 1e6:0} {state}");
        break;

    case "make-year":
        // args: folder, classes, files, kilobytes a file, pieces of work; a year to be closed. Prints nothing.
        await YearEnd.Make(premises, int.Parse(args[2]), int.Parse(args[3]), int.Parse(args[4]), int.Parse(args[5]));
        break;

    case "close-year":
        // args: folder; closes all classes in one run. Prints seconds, the peak of memory, classes verified and in all.
        YearEnd.Close(premises);
        break;

    case "roll-year":
        // args: folder; rolls all classes over in one run. Prints seconds and how many were made.
        YearEnd.RollOver(premises);
        break;

    case "put":
        // args: folder; puts a plan of 250 folders to every class; prints seconds.
        Puts.Run(premises);
        break;

    case "take-back":
        // args: folder, file for a copy of the database before; takes a plan of 20,000 folders back; prints seconds, folders gone, folders that stay, class.
        Puts.TakeBack(premises, args[2]);
        break;

    case "board":
        // Where the time of the board goes, in milliseconds, the median of 20.
        var person = database.Read(c => PersonStore.ByUserName(c, "bench"))!;
        var caller = new Caller(person.Id, person.Role, person.Name.Display);
        var year = database.Read(YearStore.All)[0].Id;
        while (new BlindCounts(premises).Refresh(200) > 0) { }
        var board = new YearBoard(premises, new BlindCounts(premises));
        Console.WriteLine($"counts       {Median(() => database.Read(c => ClosingStore.Counts(c, year, premises.Clock.Today, premises.Clock.Now))):0.0} ms");
        Console.WriteLine($"classes      {Median(() => database.Read(c => ClassStore.OfYear(c, year))):0.0} ms");
        Console.WriteLine($"staff        {Median(() => database.Read(c => StaffStore.Of(c, year))):0.0} ms");
        Console.WriteLine($"whole board  {Median(() => board.See(caller, year)):0.0} ms (the rest: rules and rows)");
        var whole = board.See(caller, year);
        Console.WriteLine($"as JSON      {Median(() => System.Text.Json.JsonSerializer.SerializeToUtf8Bytes(whole)):0.0} ms");
        break;

    case "access":
        Sights.Run();
        break;

    case "deliver":
        // args: folder, bundle; prints seconds to read, match and compare, how many changes, and the peak of memory.
        await Rosters.Receive(premises, args[2]);
        break;

    case "apply":
        // args: folder, bundle; as deliver, then applies it; prints a second line of seconds and changes.
        await Rosters.Apply(premises, args[2]);
        break;

    case "tree":
        // args: folder, tree of files to take in; prints seconds, the peak of memory and how many files.
        await Trees.Run(premises, args[2]);
        break;

    default:
        throw new ArgumentException($"Nothing to measure called {args[0]}.");
}

static double Median(Action act)
{
    for (var i = 0; i < 5; i++) act();
    return Enumerable.Range(0, 20).Select(_ =>
    {
        var watch = Stopwatch.StartNew();
        act();
        return watch.Elapsed.TotalMilliseconds;
    }).Order().ElementAt(10);
}
