using System.Globalization;
using System.Threading.Channels;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Print;
using SpringLoft.Formats.Zips;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Files;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Closing;

/// <summary>A student on the desk of take-homes.</summary>
/// <param name="HeldIn">Classes in which that work is held and which the asker may return.</param>
/// <param name="Stale">True if something of the student's stands in a class of that year and is not in it, compared by content; or if something was returned since it was made, or their account was joined with another.</param>
public sealed record TakeHomeLine(PersonId Student, string SortName, string? Grade, bool Active, int Classes, int Held, IReadOnlyList<ClassId> HeldIn, int? Files, long? Size, Instant? MadeAt, LocalDate? KeepUntil, Instant? FetchedAt, bool Stale);

/// <summary>The take-homes of a year, and the newest run that made some.</summary>
public sealed record TakeHomeDesk(YearId Year, string YearLabel, IReadOnlyList<TakeHomeLine> Students, TakeHomeRun? Run);

/// <summary>How far a run over students is.</summary>
public sealed record TakeHomeRun(RunId Id, StepState State, string? Reason, int Students, int Made, int Empty, int Failed, IReadOnlyList<string> Reasons);

/// <summary>One's own take-home of a year.</summary>
public sealed record OwnTakeHome(YearId Year, string YearLabel, int Files, int Classes, long Size, Instant MadeAt);

/// <summary>Each student's own work over all classes of a year as one zip, with a page to read it by.</summary>
public sealed class TakeHomes(Premises premises, ChannelWriter<RunId> queue, IRunMilestones milestones, LastCopies copies)
{
    private const int AtOnce = 25;

    /// <summary>The desk: all students of a year for a coordinator, those of one's own classes for a teacher.</summary>
    public TakeHomeDesk See(Caller who, YearId? asked) => premises.Db.Read(c =>
    {
        var years = YearStore.All(c);
        var year = asked is { } id ? years.FirstOrDefault(y => y.Id == id) ?? throw Refusals.NotFound("school year") : years.LastOrDefault(y => y.Year.First <= premises.Clock.Today) ?? years[0];
        var places = Places(c, who, year.Id);
        var made = TakeHomeStore.OfYear(c, year.Id);
        var held = TakeHomeStore.HeldOf(c, year.Id);
        var newest = TakeHomeStore.NewestChange(c, year.Id);
        var incomplete = LastCopyStore.Incomplete(c, year.Id);
        var people = PersonStore.Find(c, places.Select(p => p.Key)).ToDictionary(p => p.Id);
        var lines = places.Where(p => people.ContainsKey(p.Key)).Select(p =>
        {
            var t = made.GetValueOrDefault(p.Key);
            return new TakeHomeLine(p.Key, people[p.Key].Name.Sort, people[p.Key].Grade, people[p.Key].Active, p.Count(), held[p.Key].Count(), [.. held[p.Key].Distinct().Where(k => ClassGate.Find(c, who, k).Standing >= Standing.CoTeacher)], t?.Files, t?.Size, t?.MadeAt, t?.KeepUntil, t?.FetchedAt,
                t is not null && (incomplete.Contains(p.Key) || (newest.TryGetValue(p.Key, out var at) && at > t.MadeAt)));
        }).ToList();
        var run = RunStore.Newest(c, RunKind.TakeHomes, who.Role == SchoolRole.Coordinator ? null : who.Id);
        return new TakeHomeDesk(year.Id, year.Year.Label, lines, run is { } r ? View(c, r) : null);
    });

    /// <summary>Begins a run that makes take-homes.</summary>
    /// <param name="students">Null for all on the desk.</param>
    public RunId Begin(Caller by, YearId year, IReadOnlyList<PersonId>? students)
    {
        var run = premises.Db.Write(c =>
        {
            if (YearStore.All(c).All(y => y.Id != year)) throw Refusals.NotFound("school year");
            var there = Places(c, by, year).Select(p => p.Key).ToList();
            var chosen = students is null ? there : [.. there.Intersect(students)];
            if (chosen.Count == 0 || chosen.Count < (students?.Distinct().Count() ?? 0)) throw new RefusedException("not-found", "One of the students is not in your classes of that year.", "Choose among those on the desk.", "students");
            var made = RunStore.AddOver(c, RunKind.TakeHomes, [], by.Id, premises.Clock.Now);
            TakeHomeStore.AddStudents(c, made, year, chosen);
            Premises.Add(c, by, premises.Clock.Now, new("began making take-homes", "run", made.Value, null, $"{chosen.Count} students"));
            return made;
        });
        premises.Db.AfterCommit(() => queue.TryWrite(run));
        return run;
    }

    /// <summary>How far a run is.</summary>
    public TakeHomeRun See(Caller who, RunId id) => premises.Db.Read(c =>
        RunStore.Find(c, id) is { Kind: RunKind.TakeHomes } run && (who.Role == SchoolRole.Coordinator || run.StartedBy == who.Id) ? View(c, id) : throw Refusals.NotFound("run"));

    /// <summary>Does what is still to be done, some students at a time.</summary>
    public void Go(RunId id, CancellationToken stop)
    {
        var (run, waiting) = premises.Db.Read(c => (RunStore.Find(c, id)!, TakeHomeStore.Students(c, id).Where(s => s.State == StepState.Waiting).ToList()));
        if (waiting.Count > 0)
        {
            copies.Read();
            var making = premises.Db.Read(c => new Making(c, premises, waiting[0].YearId, run.StartedAt));
            foreach (var some in waiting.Chunk(AtOnce))
            {
                stop.ThrowIfCancellationRequested();
                using var batch = premises.Files.Batch();
                var outcomes = some.Select(s => One(making, batch, s.PersonId, stop)).ToList();
                batch.Keep();
                milestones.Reached("TakeHome:kept");
                premises.Db.Write(c =>
                {
                    foreach (var (person, row, file, held, reason) in outcomes)
                    {
                        if (row is not null && file is not null)
                        {
                            ItemStore.AddBlob(c, file, premises.Clock.Now);
                            TakeHomeStore.Put(c, row);
                            LastCopyStore.SetHolds(c, row.Sha256, held);
                        }
                        TakeHomeStore.SetStudent(c, id, person, reason is null ? row is null ? StepState.Skipped : StepState.Done : StepState.Failed, reason);
                    }
                });
            }
        }
        premises.Db.Write(c => RunStore.End(c, id, TakeHomeStore.Students(c, id).Any(s => s.State == StepState.Failed) ? StepState.Failed : StepState.Done, premises.Clock.Now));
    }

    /// <summary>One's own take-homes.</summary>
    public IReadOnlyList<OwnTakeHome> Mine(Caller who) => premises.Db.Read(c =>
    {
        var years = YearStore.All(c).ToDictionary(y => y.Id, y => y.Year.Label);
        return TakeHomeStore.Of(c, who.Id).Select(t => new OwnTakeHome(t.YearId, years[t.YearId], t.Files, t.Classes, t.Size, t.MadeAt)).ToList();
    });

    /// <summary>Opens one's own take-home of a year.</summary>
    public Download OpenMine(Caller who, YearId year) => Open(who.Id, year);

    /// <summary>Opens a student's take-home, to be handed out. It holds what other teachers said to the student in private: a coordinator's act.</summary>
    public Download Open(Caller by, PersonId student, YearId year)
    {
        premises.Db.Write(c =>
        {
            if (by.Role != SchoolRole.Coordinator) throw new RefusedException("not-allowed", "A take-home holds work of all classes: the student fetches it, or the coordinator hands it out.", "Ask the coordinator.");
            Premises.Add(c, by, premises.Clock.Now, new("handed out take-home", "person", student.Value, null, $"year {year.Value}"));
        });
        return Open(student, year);
    }

    private Download Open(PersonId student, YearId year)
    {
        var t = premises.Db.Write(c =>
        {
            var row = TakeHomeStore.Of(c, student).FirstOrDefault(x => x.YearId == year);
            if (row is not null) TakeHomeStore.Fetched(c, student, year, premises.Clock.Now);
            return row;
        }) ?? throw new RefusedException("not-found", "There is no take-home of that year.", "The coordinator or a teacher makes it before the classes are closed.");
        return new Download(t.Name, premises.Files.Open(t.Sha256), t.Size);
    }

    private static (PersonId Person, TakeHomeRow? Row, StoredFile? File, IReadOnlyList<string> Holds, string? Reason) One(Making making, FileBatch batch, PersonId student, CancellationToken stop)
    {
        try
        {
            var (row, file, held) = making.Make(student, batch, stop);
            return (student, row, file, held, null);
        }
        catch (FileNotFoundException) { return (student, null, null, [], "A file is missing from the file store. Bring it back from a backup, then try again."); }
        catch (DamagedFileException) { return (student, null, null, [], "A file of theirs is damaged on the disk. Bring it back from a backup, then try again."); }
        catch (InvalidDataException) { return (student, null, null, [], "Their take-home of before is damaged, and something may stand in it alone. Bring it back from a backup, then try again."); }
        catch (DiskFullException) { return (student, null, null, [], "The disk is full. Make room, then try again."); }
    }

    private static List<IGrouping<PersonId, ClassId>> Places(IDbConnection c, Caller who, YearId year)
    {
        var all = TakeHomeStore.Places(c, year);
        if (who.Role == SchoolRole.Coordinator) return [.. all.GroupBy(p => p.Person, p => p.Class)];
        var mine = ClassStore.OfYear(c, year).Where(k => ClassGate.May(c, who, k.Id, Act.Mark)).Select(k => k.Id).ToHashSet();
        var students = all.Where(p => mine.Contains(p.Class)).Select(p => p.Person).ToHashSet();
        return [.. all.Where(p => students.Contains(p.Person)).GroupBy(p => p.Person, p => p.Class)];
    }

    private static TakeHomeRun View(IDbConnection c, RunId id)
    {
        var students = TakeHomeStore.Students(c, id);
        var run = RunStore.Find(c, id)!;
        int Count(StepState s) => students.Count(x => x.State == s);
        return new(id, run.State, run.Reason, students.Count, Count(StepState.Done), Count(StepState.Skipped), Count(StepState.Failed), [.. students.Select(s => s.Reason).OfType<string>().Distinct().Take(5)]);
    }

    // What is the same for all students of a year is read once.
    private sealed class Making
    {
        private readonly int leaverDays;
        private readonly Premises premises;
        private readonly YearRow year;
        private readonly string school;
        private readonly Instant at;
        private readonly ILookup<PersonId, ClassId> places;
        private readonly Dictionary<ClassId, StudentPages> classes = [];

        internal Making(IDbConnection c, Premises premises, YearId year, Instant at)
        {
            this.premises = premises;
            this.at = at;
            this.year = YearStore.All(c).First(y => y.Id == year);
            school = SchoolStore.Get(c)!.Name;
            leaverDays = Store.School.RulesStore.Get(c).Rules.LeaverDays;
            places = TakeHomeStore.Places(c, year).ToLookup(p => p.Person, p => p.Class);
            foreach (var id in places.SelectMany(g => g).Distinct())
                classes[id] = new(c, id, premises.Clock);
        }

        internal (TakeHomeRow? Row, StoredFile? File, IReadOnlyList<string> Holds) Make(PersonId student, FileBatch batch, CancellationToken stop)
        {
            var person = premises.Db.Read(c => PersonStore.Find(c, student))!;
            var files = new List<LaidFile>();
            var pages = new List<PageClass>();
            foreach (var id in places[student])
            {
                var (laid, page) = classes[id].Of(student);
                if (laid.Count == 0 && page.Wrote.Count == 0) continue;
                files.AddRange(laid);
                pages.Add(page);
            }
            var before = KeptBefore(student, files);
            if (files.Count + before.Count + pages.Count == 0) return (null, null, []);
            if (before.Count > 0) pages.Add(new("Kept from a take-home of before", "", [], [.. before.Select(f => new PageLink(f.Path.Split('/')[^1], f.Path))]));
            var told = TakeHomePage.Write(person.Name.Display, school, year.Year.Label, premises.Clock.DateOf(at), pages);
            var file = batch.Make(to => ZipWriter.Write(to, [new ZipFile(StudentPages.Page, at, () => new MemoryStream(told)), .. files.Select(f => new ZipFile(f.Path, f.File.Modified, () => premises.Files.Open(f.File.Sha256))), .. before.Select(f => new ZipFile(f.Path, at, f.Open))], null, stop), inManifests: false);
            return (new() { PersonId = student, YearId = year.Id, Name = $"{person.Name.Display}, {year.Year.Label}.zip", Sha256 = file.Sha256, Files = files.Count + before.Count, Classes = pages.Count(p => p.Teacher.Length > 0 || p.Work.Count > 0), MadeAt = at, KeepUntil = premises.Clock.DateOf(at).PlusDays(leaverDays) }, file, [.. files.Select(f => f.File.Sha256), .. before.Select(f => f.Sha256)]);
        }

        // What only the take-home of before holds goes along into the new one: making it anew loses nothing.
        private List<(string Path, string Sha256, Func<Stream> Open)> KeptBefore(PersonId student, List<LaidFile> files)
        {
            var there = files.Select(f => f.File.Sha256).ToHashSet();
            var paths = files.Select(f => f.Path).ToHashSet(StringComparer.OrdinalIgnoreCase);
            var (old, alone) = premises.Db.Read(c => TakeHomeStore.Of(c, student).FirstOrDefault(t => t.YearId == year.Id) is { } t ? (t, LastCopyStore.AloneIn(c, student, t.Sha256)) : (null, null));
            if (old is null || alone is null || !alone.Any(sha => !there.Contains(sha))) return [];
            using var zip = premises.Files.Open(old.Sha256);
            return [.. ZipContents.Read(zip).Where(f => alone.Contains(f.Sha256) && !there.Contains(f.Sha256)).DistinctBy(f => f.Sha256).Select(f => (paths.Add(f.Path) ? f.Path : $"kept from before/{f.Path}", f.Sha256, (Func<Stream>)(() => Out(old.Sha256, f.Path))))];
        }

        private FileStream Out(string zip, string path)
        {
            var scratch = premises.Files.Scratch();
            using var from = premises.Files.Open(zip);
            ZipContents.Copy(from, path, scratch);
            scratch.Position = 0;
            return scratch;
        }
    }
}
