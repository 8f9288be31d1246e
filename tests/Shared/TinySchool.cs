using System.Data;
using System.Text;
using System.Threading.Channels;
using Microsoft.Extensions.Logging.Abstractions;
using NodaTime;
using NodaTime.Testing;
using SpringLoft.App;
using SpringLoft.App.Assignments;
using SpringLoft.App.Closing;
using SpringLoft.App.People;
using SpringLoft.App.Plans;
using SpringLoft.App.Rollover;
using SpringLoft.App.Rosters;
using SpringLoft.App.Workspaces;
using SpringLoft.Core;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;
using SpringLoft.Store;
using SpringLoft.Store.Files;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Plans;
using SpringLoft.Store.Years;

namespace SpringLoft.Tests.Shared;

/// <summary>
/// A school of a handful of people on a real database file and a real file store: one class in preparation with a lead
/// teacher, and people of every kind around it.
/// </summary>
internal sealed class TinySchool : IDisposable
{
    internal const string Password = "fine-words-here";
    private static readonly string Hash = SigningIn.Hash(Password);
    // An empty database file of the newest version: brought there once, not once for each test.
    private static readonly Lazy<byte[]> Empty = new(() =>
    {
        using var scratch = new Scratch();
        new Database(scratch.Under("empty.db")).Dispose();
        return File.ReadAllBytes(scratch.Under("empty.db"));
    });

    private readonly Scratch scratch = new();

    /// <param name="seal">For what lets somebody in, made for the folder; null to keep it in clear.</param>
    internal TinySchool(Func<string, SpringLoft.Store.Sealing.IDataSeal>? seal = null)
    {
        Clock = new FakeClock(Instant.FromUtc(2026, 9, 7, 8, 0));
        File.WriteAllBytes(Path.Combine(Folder, "spring-loft.db"), Empty.Value);
        Premises = new(new Database(Path.Combine(Folder, "spring-loft.db"), seal?.Invoke(Folder)), new FileStore(Path.Combine(Folder, "files")), new SchoolClock(Clock, DateTimeZone.Utc));
        Premises.Db.Write(c =>
        {
            SchoolStore.Set(c, new SchoolRow { Name = "Tiny", Zone = "Etc/UTC", ClassNamePattern = ClassName.DefaultPattern, UploadLimitBytes = 50_000_000 });
            foreach (var y in StartingYears.From(new LocalDate(2026, 9, 7))) YearStore.Add(c, y);
            foreach (var p in ShippedPlans.All) PlanStore.Add(c, p, Clock.GetCurrentInstant());
        });
        Coordinator = Add("coord", SchoolRole.Coordinator, "Wren", "Aldersund");
        Lead = Add("lead", SchoolRole.Teacher, "Oisín", "Farquhar");
        OtherTeacher = Add("other", SchoolRole.Teacher, "Ngozi", "Castellan");
        CoTeacher = Add("co", SchoolRole.Teacher, "Léa", "Winterbourne");
        Umi = Add("umi", SchoolRole.Student, "Umi", "Hallgrímsson", "1001");
        Rúna = Add("runa", SchoolRole.Student, "Rúna", "Ravndal", "1002");
        Outsider = Add("out", SchoolRole.Student, "Tāne", "Yılmaz", "1003");
        Years = Premises.Db.Read(YearStore.All);
        SigningIn = new(Premises, new GuessLimits(), Providers);
        Making = new(Premises, new PlanDesk(Premises));
        Class = Making.Make(Lead, New("Clay"));
    }

    internal string Folder => scratch.Path;
    internal FakeClock Clock { get; }
    internal Premises Premises { get; }
    internal IReadOnlyList<YearRow> Years { get; }
    internal Caller Coordinator { get; }
    internal Caller Lead { get; }
    internal Caller OtherTeacher { get; }
    internal Caller CoTeacher { get; }
    internal Caller Umi { get; }
    internal Caller Rúna { get; }
    internal Caller Outsider { get; }
    internal ClassId Class { get; }

    internal MakingClass Making { get; }
    internal Workspace Workspace => new(Premises);
    internal Items Items => new(Premises);
    internal RosterDesk Roster => new(Premises);
    internal Assigning Assigning => new(Premises);
    internal StudentWork Work => new(Premises);
    internal Returns Returns => new(Premises);
    internal Publishing Publishing => new(Premises);
    internal Loft Loft => new(Premises);
    internal RollingOver Rolling => new(Premises);
    internal Channel<RunId> Queue { get; } = Channel.CreateUnbounded<RunId>();
    internal ClosingDesk Closing => new(Premises, new RunNews(), Queue.Writer);
    /// <summary>A way in without limits on guesses but those of a name.</summary>
    internal SigningIn SigningIn { get; }

    /// <summary>Signs in with the right words, from a browser that was never here or from another.</summary>
    internal SignedIn SignIn(string? userName, string? password = Password, CameFrom? from = null) => SigningIn.SignIn(userName, password, from ?? CameFrom.New("Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0", "192.0.2.7"));

    /// <summary>Those of single sign-on; none until a test says so.</summary>
    internal SignOnProviders Providers => new(() => ProviderList);
    internal IReadOnlyList<Provider> ProviderList { get; set; } = [];
    internal Sessions Sessions => new(Premises, Providers);
    internal ClosingRuns Runs => new(Premises, new RunNews(), Queue.Writer);
    internal RollingMany RollingMany => new(Premises, Queue.Writer, new NoMilestones());
    internal TakeHomes TakeHomes => new(Premises, Queue.Writer, new NoMilestones(), Copies);
    internal LastCopies Copies => new(Premises);
    internal LoftBin Bin => new(Premises, Copies);
    internal ClassBin ClassBin => new(Premises, Copies);
    /// <summary>What was written, as "to: subject", the first first.</summary>
    internal IReadOnlyList<string> Letters => [.. Read(c => SpringLoft.Store.Letters.LetterStore.Newest(c, 1000)).OrderBy(l => l.Id).Select(l => $"{l.ToAddress}: {l.Subject}")];

    /// <summary>A plan that ships, by its name.</summary>
    internal PlanId Plan(string name) => Premises.Db.Read(PlanStore.All).First(p => p.Plan.Name == name).Id;

    internal NewClass New(string course, string? section = "6B", string plan = "Small start") => new(Years[0].Id, course, section, "3", null, Plan(plan), null);

    internal Caller Add(string userName, SchoolRole role, string given, string family, string? number = null) => Premises.Db.Write(c =>
    {
        var id = PersonStore.Add(c, new PersonRow { Role = role, Given = given, Family = family, UserName = userName, StudentNumber = number, Grade = number is null ? null : "6", Email = number is null ? $"{userName}@tiny.invalid" : null });
        PersonStore.SetPassword(c, id, Hash, mustChange: false, null, Clock.GetCurrentInstant());
        return new Caller(id, role, $"{given} {family}");
    });

    /// <summary>Lays down other rules of the school.</summary>
    internal void SetRules(Func<SpringLoft.Core.School.SchoolRules, SpringLoft.Core.School.SchoolRules> change)
    {
        var desk = new SpringLoft.App.School.RulesDesk(Premises);
        desk.Set(Coordinator, change(desk.See().Rules), desk.See().Version);
    }

    /// <summary>What is said about the class, as somebody sees it who begins to change it.</summary>
    internal AboutClass About(Caller by) => Workspace.Head(by, Class) is var h ? new(h.Name, h.Section, h.Period, h.Level, h.Room, h.Term, h.EndsOn, h.TeacherShown, h.Mark) : null!;

    /// <summary>Enrolls both students and the co-teacher, and opens the class.</summary>
    internal void OpenClass()
    {
        Roster.Enroll(Lead, Class, [Umi.Id, Rúna.Id], ClassRole.Student);
        Roster.Enroll(Lead, Class, [CoTeacher.Id], ClassRole.CoTeacher);
        Making.Open(Lead, Class, Workspace.Head(Lead, Class).Version);
    }

    internal FolderId FolderNamed(string name) => Workspace.See(Lead, Class).Folders.First(f => f.Name == name).Id;

    internal async Task<ItemId> Put(Caller by, string folder, string name, string text) =>
        (await Items.AddFile(by, Class, FolderNamed(folder), name, Bytes(text), CancellationToken.None)).Id;

    internal AssignmentId Assign(string title = "Pinch pot", decimal? points = 20, params string[] folders) =>
        Assigning.Make(Lead, Class, new(title, "Make one.", points, null, null, null, [.. (folders.Length == 0 ? ["Papers"] : folders).Select(FolderNamed)], null, Publish: true, PublishAt: null)).Id;

    /// <summary>A student puts a file into their work and hands it in.</summary>
    internal async Task HandIn(Caller student, AssignmentId assignment, string text = "work")
    {
        await Work.AddFile(student, Class, assignment, "pot.txt", Bytes(text), CancellationToken.None);
        Work.HandIn(student, Class, assignment);
    }

    /// <summary>Closes the class with a run and carries the run to its end.</summary>
    internal RunView Close(IRunMilestones? milestones = null, WritingTogether? together = null)
    {
        var run = Closing.Close(Lead, Class, AfterArchive.View);
        return Go(run, milestones, together);
    }

    internal RunView Go(RunId run, IRunMilestones? milestones = null, WritingTogether? together = null)
    {
        new ClosingRunner(Premises, new RunNews(), milestones ?? new NoMilestones(), NullLogger<ClosingRunner>.Instance, together ?? new(Premises)).Go(run, CancellationToken.None);
        return Closing.See(Class, run);
    }

    internal T Read<T>(Func<IDbConnection, T> read) => Premises.Db.Read(read);

    internal static MemoryStream Bytes(string text) => new(Encoding.UTF8.GetBytes(text));

    public void Dispose()
    {
        Premises.Db.Dispose();
        scratch.Dispose();
    }
}

/// <summary>Does something at a named point of a run.</summary>
internal sealed class AtPoint(string point, Action act) : IRunMilestones
{
    public void Reached(string reached, CancellationToken stop = default)
    {
        if (reached == point) act();
    }
}
