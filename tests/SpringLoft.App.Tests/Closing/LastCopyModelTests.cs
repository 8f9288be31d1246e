using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;
using CsCheck;
using Dapper;
using SpringLoft.App.Assignments;
using SpringLoft.App.Closing;
using SpringLoft.App.People;
using SpringLoft.App.Plans;
using SpringLoft.App.Rollover;
using SpringLoft.App.Rosters;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Files;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Closing;

/// <summary>
/// Whatever people do, in whatever order, while years go by and the program clears up after itself: every byte that a student
/// put in stands in a class, in its bin or in a take-home, and on the disk, unless a named person let it go. What stands where
/// is read off the database and the zips by this test itself, not asked of the program.
/// </summary>
public sealed class LastCopyModelTests
{
    internal sealed class World : IDisposable
    {
        internal readonly TinySchool School = new();
        internal readonly ClassId Other;
        internal readonly AssignmentId Pot;
        // What a student put in and nobody let go of, and what of it was handed in: that is kept even where its student takes it out.
        internal readonly HashSet<string> Owed = [];
        internal readonly HashSet<string> HandedIn = [];
        private readonly Dictionary<ItemId, (Caller By, string Sha256)> things = [];
        private readonly Dictionary<(ItemId, PersonId), string> words = [];
        private readonly FolderId wall;
        private int texts;

        internal World()
        {
            School.OpenClass();
            Other = School.Making.Make(School.Lead, School.New("Clay", "6C"));
            School.Making.Open(School.Lead, Other, School.Workspace.Head(School.Lead, Other).Version);
            Pot = School.Assign();
            wall = new Arranging(School.Premises).Make(School.Lead, School.Class, new("Wall", null, FolderRule.ClassEdits, null, 0));
            foreach (var student in new[] { School.Umi, School.Rúna })
            {
                Put(student, own: true);
                Put(student, own: false);
                Work(student);
            }
            HandIn(School.Umi);
        }

        internal YearId Year => School.Years[0].Id;

        internal MemoryStream New(out string sha256)
        {
            var text = Encoding.UTF8.GetBytes($"text {++texts}");
            sha256 = Convert.ToHexStringLower(SHA256.HashData(text));
            return new(text);
        }

        internal void Put(Caller by, bool own)
        {
            var see = School.Workspace.See(by, School.Class).Folders;
            var into = own ? see.FirstOrDefault(f => f.Name.StartsWith(by.Name.Split(' ')[^1], StringComparison.Ordinal)) : see.FirstOrDefault(f => f.Name == "Shared table");
            if (into is null) return;
            var text = New(out var sha);
            var item = School.Items.AddFile(by, School.Class, into.Id, $"thing {texts}.txt", text, default).GetAwaiter().GetResult().Id;
            things[item] = (by, sha);
            Owed.Add(sha);
        }

        // Under the name it has: the text before it was theirs to write over.
        internal void PutAgain(Caller by)
        {
            var mine = things.Where(t => t.Value.By.Id == by.Id).Select(t => t.Key).ToHashSet();
            var item = School.Read(c => ItemStore.OfClass(c, School.Class)).LastOrDefault(i => i.Kind == ItemKind.File && mine.Contains(i.Id));
            if (item is null) return;
            var text = New(out var sha);
            var folder = School.Read(c => ItemStore.Filings(c, School.Class)).First(f => f.Item == item.Id).Folder;
            var taken = School.Items.AddFile(by, School.Class, folder, item.Name, text, default).GetAwaiter().GetResult();
            if (taken.Id == item.Id) Owed.Remove(things[item.Id].Sha256);
            things[taken.Id] = (by, sha);
            Owed.Add(sha);
        }

        internal void Work(Caller by)
        {
            var text = New(out var sha);
            School.Work.AddFile(by, School.Class, Pot, $"work {texts}.txt", text, default).GetAwaiter().GetResult();
            Owed.Add(sha);
        }

        // On the newest page of the wall, or a page of one's own where there is none: whoever comes later writes over the one before.
        internal void Write(Caller by, bool anew)
        {
            var page = anew ? null : School.Read(c => ItemStore.OfClass(c, School.Class)).Where(i => i.Kind == ItemKind.Page).MaxBy(i => i.Id.Value);
            var (text, name) = (new StreamReader(New(out var sha)).ReadToEnd(), page?.Name ?? $"page {texts}");
            var item = page?.Id ?? School.Items.AddPage(by, School.Class, wall, name, text, default).GetAwaiter().GetResult();
            if (page is not null) School.Items.ChangePage(by, School.Class, page.Id, name, text, page.Version, default).GetAwaiter().GetResult();
            School.Read(c => ItemStore.Find(c, School.Class, item))!.Sha256.ShouldBe(sha);
            if (by.Role != SchoolRole.Student) return;
            if (page is null || page.AddedBy == by.Id) things[item] = (by, sha);
            // Written over by themselves it is theirs to let go; by anybody else it is not.
            if (words.TryGetValue((item, by.Id), out var before)) Owed.Remove(before);
            words[(item, by.Id)] = sha;
            Owed.Add(sha);
        }

        // The school's records bring two classes of their own, with both students in one; later they move them, or no longer name them.
        internal void Deliver(Caller student, int turn)
        {
            var deliveries = new Deliveries(School.Premises);
            string Row(Caller s, string number, int at) => at < 0 ? "" : $"e{number}-{at},k{at},p{number},student,false\n";
            var (umi, rúna) = (student.Id == School.Umi.Id ? turn - 1 : 0, student.Id == School.Umi.Id ? 0 : turn - 1);
            var bundle = Zip.Of(
                ("users.csv", "sourcedId,role,givenName,familyName,identifier,grades\nt0,teacher,Tea,Cher,,\np1001,student,Umi,Hallgrímsson,1001,6\np1002,student,Rúna,Ravndal,1002,6\n"),
                ("courses.csv", "sourcedId,title\nc0,Rigging\n"),
                ("classes.csv", "sourcedId,title,courseSourcedId,classCode,periods\nk0,Class,c0,R0,1\nk1,Class,c0,R1,2\n"),
                ("enrollments.csv", $"sourcedId,classSourcedId,userSourcedId,role,primary\nt0-0,k0,t0,teacher,true\nt0-1,k1,t0,teacher,true\n{Row(School.Umi, "1001", umi)}{Row(School.Rúna, "1002", rúna)}"));
            var id = deliveries.Receive(School.Coordinator, Year, "rosters.zip", bundle, default).GetAwaiter().GetResult();
            new ApplyingDelivery(School.Premises, deliveries).Apply(School.Coordinator, id, School.Plan("Small start"), deliveries.See(id).Summary.Version);
            applied.Push(id);
        }

        private readonly Stack<long> applied = new();

        internal void TakeDeliveryBack()
        {
            if (!applied.TryPeek(out var id)) return;
            new ApplyingDelivery(School.Premises, new Deliveries(School.Premises)).TakeBack(School.Coordinator, id);
            applied.Pop();
        }

        internal void PutIntoDelivered(Caller by)
        {
            var ids = School.Read(c => c.Query<long>("SELECT k.id FROM class k JOIN member m ON m.class_id = k.id WHERE k.record_id IS NOT NULL AND m.person_id = @Id AND m.left_at IS NULL", new { by.Id })).ToList();
            if (ids.Count == 0) return;
            var id = new ClassId(ids[0]);
            if (School.Workspace.Head(School.Coordinator, id).State == ClassState.InPreparation) School.Making.Open(School.Coordinator, id, Version(id));
            var into = School.Workspace.See(by, id).Folders.First(f => f.Name == "Shared table" || f.Name.StartsWith(by.Name.Split(' ')[^1], StringComparison.Ordinal));
            var text = New(out var sha);
            School.Items.AddFile(by, id, into.Id, $"thing {texts}.txt", text, default).GetAwaiter().GetResult();
            Owed.Add(sha);
        }

        private readonly Stack<RunId> rolled = new();

        internal void RollAndUndo(bool undo)
        {
            if (!undo)
            {
                var run = School.RollingMany.Begin(School.Coordinator, new(null, [new([School.Class], Guid.NewGuid().ToString("N")[..6], null, null)], new()));
                School.RollingMany.Go(run, default);
                rolled.Push(run);
            }
            else if (rolled.TryPop(out var run)) School.RollingMany.Undo(School.Coordinator, run, 0);
        }

        internal void Shelf(bool set)
        {
            var shelf = new OpenShelf(School.Premises, new(School.Premises));
            if (!set) foreach (var s in shelf.See(School.Class).Shelves.Where(s => s.Open)) shelf.Shut(School.Lead, School.Class, s.Id);
            else shelf.Set(School.Lead, School.Class, new("Shelf", "", School.Premises.Clock.Today.PlusDays(60), [School.FolderNamed("Shared table")], null, null));
        }

        internal void TakeOut(Caller by)
        {
            var file = School.Read(c => WorkStore.Of(c, Pot, by.Id) is { } w ? WorkStore.Files(c, w.Id).FirstOrDefault() : null);
            if (file is null) return;
            School.Work.RemoveFile(by, School.Class, Pot, file.Id);
            if (!HandedIn.Contains(file.Sha256)) Owed.Remove(file.Sha256);
        }

        internal void HandIn(Caller by)
        {
            School.Work.HandIn(by, School.Class, Pot);
            foreach (var f in School.Read(c => WorkStore.Files(c, WorkStore.Of(c, Pot, by.Id)!.Id))) HandedIn.Add(f.Sha256);
        }

        internal void Bin(Caller by, Caller student)
        {
            var mine = things.Where(t => t.Value.By.Id == student.Id).Select(t => t.Key).ToHashSet();
            var item = School.Read(c => ItemStore.OfClass(c, School.Class)).LastOrDefault(i => mine.Contains(i.Id));
            if (item is null) return;
            School.Items.Bin(by, School.Class, item.Id);
            if (by.Id == student.Id) Owed.Remove(things[item.Id].Sha256);
        }

        internal void BringBack(Caller by)
        {
            foreach (var b in School.ClassBin.See(by, School.Class))
            {
                School.ClassBin.BringBack(by, School.Class, b.Kind, b.Id);
                // Theirs to let go, and not let go of after all.
                if (b.Kind is nameof(ItemKind.File) or nameof(ItemKind.Page) && things.TryGetValue(new ItemId(b.Id), out var t)) Owed.Add(t.Sha256);
            }
        }

        internal void LetGo(Caller student)
        {
            // What only this take-home has goes with a person's name under it.
            var zip = School.Read(c => TakeHomeStore.Of(c, student.Id)).FirstOrDefault(t => t.YearId == Year);
            if (zip is null) return;
            School.Copies.LetGo(School.Coordinator, student.Id, Year, student.Name, "asked for by their parents");
            Owed.ExceptWith(In(zip.Sha256).Except(Standing()));
        }

        // What seldom comes of chance: each step that the program lets through, in the order in which a year ends.
        internal void EndTheYear(bool takeHomes)
        {
            Action[] steps =
            [
                () => School.Returns.ReturnAll(School.Lead, School.Class, null, true, null),
                () => { if (takeHomes) School.TakeHomes.Go(School.TakeHomes.Begin(School.Coordinator, Year, null), default); },
                () => School.Close(),
                () => School.Bin.Bin(School.Coordinator, School.Class, School.Workspace.Head(School.Coordinator, School.Class).Name),
            ];
            foreach (var step in steps)
                try { step(); }
                catch (RefusedException) { /* the rest may be let through all the same */ }
        }

        internal bool Deleted => School.Read(c => c.ExecuteScalar<int>("SELECT count(*) FROM class WHERE id = @Class", new { School.Class })) == 0;

        internal void Days(int days)
        {
            // Every so often, as the program does by itself while it runs.
            for (var left = days; left > 0; left -= 16)
            {
                School.Clock.AdvanceDays(Math.Min(left, 16));
                School.Bin.LetGo();
                School.ClassBin.LetGo();
                School.Copies.LetGoOfLeavers();
                new FileSweep(School.Premises).Go(CancellationToken.None);
            }
        }

        internal HashSet<string> Standing() => School.Read(c =>
        {
            var rows = c.Query<string>("SELECT sha256 FROM item WHERE sha256 IS NOT NULL UNION SELECT sha256 FROM item_version UNION SELECT sha256 FROM work_file UNION SELECT sha256 FROM work_turn_file").ToHashSet();
            foreach (var zip in c.Query<string>("SELECT sha256 FROM take_home")) rows.UnionWith(In(zip));
            return rows.Where(sha => !Owed.Contains(sha) || File.Exists(School.Premises.Files.PathOf(sha)) || InZips(c, sha)).ToHashSet();
        });

        private bool InZips(System.Data.IDbConnection c, string sha) => c.Query<string>("SELECT sha256 FROM take_home").Any(zip => In(zip).Contains(sha));

        private readonly Dictionary<string, HashSet<string>> read = [];

        private HashSet<string> In(string zip)
        {
            File.Exists(School.Premises.Files.PathOf(zip)).ShouldBeTrue("a take-home is on the disk");
            if (read.TryGetValue(zip, out var known)) return known;
            using var content = School.Premises.Files.Open(zip);
            using var archive = new ZipArchive(content);
            return read[zip] = [.. archive.Entries.Select(e =>
            {
                using var s = e.Open();
                return Convert.ToHexStringLower(SHA256.HashData(s));
            })];
        }

        internal int Version(ClassId id) => School.Workspace.Head(School.Coordinator, id).Version;

        public void Dispose() => School.Dispose();
    }

    internal static readonly (string Name, Action<World, Caller> Do)[] Acts =
    [
        ("put into the own folder", (w, s) => w.Put(s, own: true)),
        ("put on the shared table", (w, s) => w.Put(s, own: false)),
        ("put in again under its name", (w, s) => w.PutAgain(s)),
        ("add to work", (w, s) => w.Work(s)),
        ("take out of work", (w, s) => w.TakeOut(s)),
        ("hand in", (w, s) => w.HandIn(s)),
        ("hand in, and replace it once it is returned", (w, s) => { w.Work(s); w.HandIn(s); w.School.Returns.ReturnAll(w.School.Lead, w.School.Class, null, true, null); w.TakeOut(s); }),
        ("take back", (w, s) => w.School.Work.TakeBack(s, w.School.Class, w.Pot)),
        ("return all", (w, _) => w.School.Returns.ReturnAll(w.School.Lead, w.School.Class, null, true, null)),
        ("return many", (w, _) => new ReturningMany(w.School.Premises).Do(w.School.Coordinator, new([w.School.Class, w.Other], null, true, null), null)),
        ("write a page", (w, s) => w.Write(s, anew: true)),
        ("write on the newest page", (w, s) => w.Write(s, anew: false)),
        ("the teacher writes on the newest page", (w, _) => w.Write(w.School.Lead, anew: false)),
        ("the teacher bins a student's thing", (w, s) => w.Bin(w.School.Lead, s)),
        ("a student bins their own thing", (w, s) => w.Bin(s, s)),
        ("the teacher bins own folders", (w, s) => new Arranging(w.School.Premises).Bin(w.School.Lead, w.School.Class, w.School.Workspace.See(w.School.Lead, w.School.Class).Folders.First(f => f.Name.StartsWith(s.Name.Split(' ')[^1], StringComparison.Ordinal)).Id)),
        ("the teacher bins the shared table", (w, _) => new Arranging(w.School.Premises).Bin(w.School.Lead, w.School.Class, w.School.FolderNamed("Shared table"))),
        ("bin the assignment", (w, _) => w.School.Assigning.Bin(w.School.Lead, w.School.Class, w.Pot)),
        ("the teacher empties the bin back", (w, _) => w.BringBack(w.School.Lead)),
        ("a student brings back", (w, s) => w.BringBack(s)),
        ("put another plan", (w, s) => { var puts = new PuttingPlans(w.School.Premises, w.School.Queue.Writer, new NoMilestones()); puts.Go(puts.Begin(w.School.Lead, w.School.Plan(s.Id == w.School.Umi.Id ? "Small start" : "By unit"), [w.School.Class]), default); }),
        ("take off the roster", (w, s) => w.School.Roster.RemoveMany(w.School.Lead, w.School.Class, [s.Id])),
        ("enroll", (w, s) => w.School.Roster.Enroll(w.School.Lead, w.School.Class, [s.Id], ClassRole.Student)),
        ("move to the other class", (w, s) => new MovingSets(w.School.Premises).Move(w.School.Lead, w.School.Class, s.Id, w.Other, false)),
        ("move back", (w, s) => new MovingSets(w.School.Premises).Move(w.School.Lead, w.Other, s.Id, w.School.Class, false)),
        ("leave the school", (w, s) => new Leavers(w.School.Premises).Mark(w.School.Coordinator, [s.Id], offRosters: true)),
        ("come back to the school", (w, s) => new Leavers(w.School.Premises).BringBack(w.School.Coordinator, [s.Id])),
        ("join with another account", (w, s) => new SchoolDirectory(w.School.Premises).Join(w.School.Coordinator, s.Id == w.School.Umi.Id ? w.School.Outsider.Id : w.School.Umi.Id, s.Id == w.School.Umi.Id ? w.School.Umi.Id : w.School.Outsider.Id)),
        ("take a join back", (w, _) => { var joins = new SchoolDirectory(w.School.Premises); if (joins.Joins().FirstOrDefault(j => !j.Undone) is { } join) joins.UndoJoin(w.School.Coordinator, join.Id); }),
        ("close", (w, _) => w.School.Close()),
        ("close both with all options", (w, _) => w.School.Go(w.School.Runs.Begin(w.School.Coordinator, [w.School.Class, w.Other], new(AfterArchive.Nothing, true, true, true, true)))),
        ("make take-homes", (w, _) => w.School.TakeHomes.Go(w.School.TakeHomes.Begin(w.School.Coordinator, w.Year, null), default)),
        ("make take-homes again", (w, _) => w.School.TakeHomes.Go(w.School.TakeHomes.Begin(w.School.Coordinator, w.Year, null), default)),
        ("let go of a take-home", (w, s) => w.LetGo(s)),
        ("delete the class", (w, _) => w.School.Bin.Bin(w.School.Coordinator, w.School.Class, w.School.Workspace.Head(w.School.Coordinator, w.School.Class).Name)),
        ("end the year at once", (w, _) => w.EndTheYear(takeHomes: false)),
        ("end the year with take-homes", (w, _) => w.EndTheYear(takeHomes: true)),
        ("bring the class back", (w, _) => w.School.Bin.BringBack(w.School.Coordinator, w.School.Class)),
        ("restore", (w, _) => w.School.Loft.Restore(w.School.Coordinator, w.School.Class, w.Version(w.School.Class))),
        ("roll over", (w, _) => w.School.Rolling.Make(w.School.Coordinator, w.School.Class, new(null, Guid.NewGuid().ToString("N")[..6], null))),
        ("roll many over", (w, _) => w.RollAndUndo(undo: false)),
        ("undo the newest roll-over", (w, _) => w.RollAndUndo(undo: true)),
        ("set an open shelf", (w, _) => w.Shelf(set: true)),
        ("shut the shelf", (w, _) => w.Shelf(set: false)),
        ("the records bring their classes", (w, s) => w.Deliver(s, 1)),
        ("the records move a student", (w, s) => w.Deliver(s, 2)),
        ("the records name a student no longer", (w, s) => w.Deliver(s, 0)),
        ("take the newest delivery back", (w, _) => w.TakeDeliveryBack()),
        ("put into the class that the records brought", (w, s) => w.PutIntoDelivered(s)),
        ("a day goes by", (w, _) => w.Days(1)),
        ("a month goes by", (w, _) => w.Days(32)),
        ("a year and a half goes by", (w, _) => w.Days(500)),
    ];

    private static int Act(string name) => Array.FindIndex(Acts, a => a.Name == name);

    private static Gen<List<(int Which, bool First)>> Some(int acts, int least, int most) => Gen.Select(Gen.Int[0, acts - 1], Gen.Bool).List[least, most];

    // Half of them by chance alone; half with what is most dangerous in it: small acts between the take-homes and the end of the class.
    private static readonly Gen<List<(int Which, bool First)>> Sequences = Gen.OneOf(
        Some(Acts.Length, 10, 60),
        Gen.Select(Some(Acts.Length, 0, 6), Some(Act("put another plan"), 3, 14), Some(Acts.Length, 0, 12)).Select((before, small, after) => (List<(int, bool)>)
            [.. before, (Act("make take-homes"), true), .. small, (Act("end the year at once"), true), (Act("a month goes by"), true), .. after]));

    // As many as fit into the suite; SPRING_LOFT_SEQUENCES runs thousands.
    private static readonly long Sequenced = long.TryParse(Environment.GetEnvironmentVariable("SPRING_LOFT_SEQUENCES"), out var n) ? n : 150;

    [Fact]
    public void No_sequence_of_acts_over_years_loses_what_a_student_put_in()
    {
        var (deleted, owed) = (0, 0);
        Sequences.Sample(sequence =>
        {
            var (gone, kept) = Play(sequence);
            if (gone && kept > 0) deleted++;
            owed += kept;
        }, iter: Sequenced, threads: 1);

        // It went as far as to classes that were deleted while something of their students' had to stay.
        deleted.ShouldBeGreaterThan(0);
        owed.ShouldBeGreaterThan(100);
    }

    private static (bool Deleted, int Owed) Play(List<(int Which, bool First)> sequence)
    {
        using var world = new World();
        world.Owed.Except(world.Standing()).ShouldBeEmpty();
        foreach (var (which, first) in sequence)
        {
            var student = first ? world.School.Umi : world.School.Rúna;
            // Refused, or nothing there to do it to: either way nothing may be lost by having tried.
            try { Acts[which].Do(world, student); }
            catch (Exception e) when (e is RefusedException or InvalidOperationException) { }
            world.Owed.Except(world.Standing()).ShouldBeEmpty($"after “{Acts[which].Name}”: {string.Join("; ", sequence.Select(a => $"{Acts[a.Which].Name}{(a.First ? "" : " (2)")}"))}");
        }
        return (world.Deleted, world.Owed.Count);
    }
}
