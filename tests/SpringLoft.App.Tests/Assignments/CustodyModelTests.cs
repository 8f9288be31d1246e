using System.IO.Compression;
using CsCheck;
using SpringLoft.App.Assignments;
using SpringLoft.App.Closing;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Store.Assignments;

namespace SpringLoft.App.Tests.Assignments;

/// <summary>
/// Whatever staff and students do, in whatever order and on whatever path, a piece of work that the teacher holds is never
/// lost: its files are in the database and in the store until it is returned, and a closed class has them in its package.
/// </summary>
public class CustodyModelTests
{
    private sealed class World : IDisposable
    {
        internal readonly TinySchool School = new();
        private int sequences;

        internal World() => School.OpenClass();

        internal AssignmentId Pot { get; private set; }

        // A school is dear to make, an assignment cheap: many sequences share one, each with work of its own.
        internal void Begin()
        {
            try { School.Bin.BringBack(School.Coordinator, School.Class); }
            catch (RefusedException) { /* it is not in the bin */ }
            if (State == ClassState.Archived) School.Loft.Restore(School.Coordinator, School.Class, School.Workspace.Head(School.Coordinator, School.Class).Version);
            School.Returns.ReturnAll(School.Coordinator, School.Class, null, true, null);
            School.Roster.Enroll(School.Coordinator, School.Class, [School.Umi.Id, School.Rúna.Id], ClassRole.Student);
            Pot = School.Assign($"Pot {++sequences}", 20, "Start here");
        }

        internal bool Gone => School.Read(c => Store.Closing.LoftStore.Bin(c)).Count > 0;

        internal ClassState State => Gone ? ClassState.Archived : School.Workspace.Head(School.Coordinator, School.Class).State;

        internal WorkRow? Work(Caller student) => School.Read(c => WorkStore.Of(c, Pot, student.Id));

        internal int Files(Caller student) => School.Read(c => WorkStore.Of(c, Pot, student.Id) is { } w ? WorkStore.Files(c, w.Id).Count : 0);

        public void Dispose() => School.Dispose();
    }

    private static readonly (string Name, Action<World, Caller> Do)[] Acts =
    [
        ("add a file", (w, s) => w.School.Work.AddFile(s, w.School.Class, w.Pot, "a.txt", TinySchool.Bytes($"{Guid.NewGuid()}"), default).GetAwaiter().GetResult()),
        ("take a file out", (w, s) => w.School.Work.RemoveFile(s, w.School.Class, w.Pot, w.School.Read(c => WorkStore.Of(c, w.Pot, s.Id) is { } row ? WorkStore.Files(c, row.Id).FirstOrDefault()?.Id ?? 0 : 0))),
        ("hand in", (w, s) => w.School.Work.HandIn(s, w.School.Class, w.Pot)),
        ("take back", (w, s) => w.School.Work.TakeBack(s, w.School.Class, w.Pot)),
        ("mark", (w, s) => { if (w.Work(s) is { } row) w.School.Returns.Mark(w.School.Lead, w.School.Class, row.Id, 12, row.Version); }),
        ("return", (w, s) => { if (w.Work(s) is { } row) w.School.Returns.Return(w.School.CoTeacher, w.School.Class, row.Id, true, row.Version); }),
        ("return marked", (w, _) => w.School.Returns.ReturnAll(w.School.Lead, w.School.Class, null, false, "Back.")),
        ("take off the roster", (w, s) => w.School.Roster.Remove(w.School.Lead, w.School.Class, s.Id)),
        ("enroll", (w, s) => w.School.Roster.Enroll(w.School.Lead, w.School.Class, [s.Id], ClassRole.Student)),
        ("bin the assignment", (w, _) => w.School.Assigning.Bin(w.School.Lead, w.School.Class, w.Pot)),
        ("bin a folder", (w, _) => new Arranging(w.School.Premises).Bin(w.School.Lead, w.School.Class, w.School.FolderNamed("Papers"))),
        ("close", (w, _) => w.School.Close()),
        ("return many", (w, _) => new ReturningMany(w.School.Premises).Do(w.School.Coordinator, new([w.School.Class], null, true, null), null)),
        ("close with all options", (w, _) => w.School.Go(w.School.Runs.Begin(w.School.Coordinator, [w.School.Class], new(AfterArchive.Nothing, true, true, true, true)))),
        ("delete from the loft", (w, _) => w.School.Bin.Bin(w.School.Coordinator, w.School.Class, w.School.Workspace.Head(w.School.Coordinator, w.School.Class).Name)),
        ("make take-homes", (w, _) => w.School.TakeHomes.Go(w.School.TakeHomes.Begin(w.School.Coordinator, w.School.Years[0].Id, null), CancellationToken.None)),
        ("let go of the bin", (w, _) => w.School.Bin.LetGo()),
        ("roll over", (w, _) => w.School.Rolling.Make(w.School.Coordinator, w.School.Class, new(null, Guid.NewGuid().ToString("N")[..6], null))),
        ("restore", (w, _) => w.School.Loft.Restore(w.School.Lead, w.School.Class, w.School.Workspace.Head(w.School.Lead, w.School.Class).Version)),
    ];

    [Fact]
    public void No_sequence_of_acts_loses_work_that_the_teacher_holds() =>
        Gen.Select(Gen.Int[0, Acts.Length - 1], Gen.Bool).List[4, 16].List[50].Sample(sequences =>
        {
            using var world = new World();
            foreach (var sequence in sequences) Play(world, sequence);
        }, iter: 16, threads: 1);

    private static void Play(World world, List<(int, bool)> sequence)
    {
        world.Begin();
        foreach (var (which, first) in sequence)
        {
            var student = first ? world.School.Umi : world.School.Rúna;
            var before = new[] { world.School.Umi, world.School.Rúna }.ToDictionary(s => s.Id, s => (world.Work(s)?.State, Files: world.Files(s)));
            // Refused, or nothing there to do it to: either way nothing may be lost by having tried.
            try { Acts[which].Do(world, student); }
            catch (Exception e) when (e is RefusedException or InvalidOperationException) { }
            Check(world, before, Acts[which].Name);
        }
    }

    private static void Check(World world, Dictionary<PersonId, (WorkState? State, int Files)> before, string act)
    {
        var closed = world.State == ClassState.Archived;
        foreach (var student in new[] { world.School.Umi, world.School.Rúna })
        {
            var was = before[student.Id];
            var now = world.Work(student);
            var files = world.Files(student);
            // Only the student takes a file out, and only while they hold the work.
            if (files < was.Files) (act, was.State).ShouldBe(("take a file out", was.State == WorkState.HandedIn ? null : was.State));
            if (was.State == WorkState.HandedIn) files.ShouldBe(was.Files, act);
            if (now?.State == WorkState.HandedIn) files.ShouldBeGreaterThan(0, act);
            // A class is never archived while the teacher holds anything.
            if (closed) (now?.State).ShouldNotBe(WorkState.HandedIn, act);
            foreach (var f in now is null ? [] : world.School.Read(c => WorkStore.Files(c, now.Id))) File.Exists(world.School.Premises.Files.PathOf(f.Sha256)).ShouldBeTrue(act);
        }
        if (closed && act == "close") Packed(world);
    }

    private static void Packed(World world)
    {
        using var content = world.School.Loft.OpenPackage(world.School.Class).Content;
        using var zip = new ZipArchive(content);
        zip.Entries.Count(e => e.FullName.Contains("/data/work/", StringComparison.Ordinal)).ShouldBe(world.School.Read(c => WorkStore.FilesOfClass(c, world.School.Class).Sum(g => g.Count())));
    }
}
