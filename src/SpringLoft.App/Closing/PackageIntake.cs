using System.Globalization;
using System.IO.Compression;
using System.Text.Json;
using NodaTime.Text;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Naming;
using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Bags;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Files;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Closing;

/// <summary>What a package holds, and what reading it in does, or did.</summary>
/// <param name="Name">Of the class here; another if that name is taken.</param>
/// <param name="Known">People of its roster whom the directory knows; the others come in as inactive.</param>
/// <param name="Made">The class in the loft; null for a preview.</param>
public sealed record PackageRead(string Name, string Course, string YearLabel, int Files, int Folders, int Items, int Assignments, int Work, int People, int Known, ClassId? Made);

/// <summary>Reads an archive package back in, on this or on another installation: the class stands in the loft, read-only, as it was.</summary>
public sealed class PackageIntake(Premises premises)
{
    private const long MostBytes = 20L * 1024 * 1024 * 1024;
    private static readonly string[] Tables = ["class", "roster", "folders", "groups", "items", "assignments", "marks", "comments", "notices"];

    // Packages that were written before these were do not have them.
    private static readonly string[] Later = ["attached", "talk", "messages", "acknowledged", "noticeFiles"];

    /// <summary>Checks a package and says what it holds; with <paramref name="apply"/> takes it in.</summary>
    /// <exception cref="RefusedException"><c>package-wrong</c>: not a package of this kind, or something in it is not as it was written; nothing is taken in.</exception>
    public async Task<PackageRead> Read(Caller by, YearId year, Stream content, bool apply, CancellationToken stop)
    {
        using var zip = premises.Files.Scratch();
        await premises.Files.Spool(content, zip, stop).ConfigureAwait(false);
        if (zip.Length > MostBytes) throw Wrong($"It is longer than {MostBytes >> 30} GB.");
        var reading = BagReader.Read(zip, null, stop);
        if (reading.Problems.Count > 0) throw Wrong($"{string.Join("; ", reading.Problems.Take(3))}{(reading.Problems.Count > 3 ? $"; and {reading.Problems.Count - 3} more" : "")}.");
        zip.Position = 0;
        using var archive = Formats.Zips.ReadZip.Open(zip);
        var entries = archive.Entries.ToDictionary(e => e.FullName[(e.FullName.IndexOf('/', StringComparison.Ordinal) + 1)..], StringComparer.Ordinal);
        var tables = Tables.Concat(Later.Where(t => entries.ContainsKey($"data/metadata/{t}.json"))).ToDictionary(t => t, t => Table(entries, t));
        if (tables["class"].Count != 1) throw Wrong("metadata/class.json does not tell of one class.");
        var said = premises.Db.Read(c => new Taking(c, by, year, tables, reading.Payload, new Dictionary<string, StoredFile>(), premises.Clock.Now).Preview());
        if (!apply) return said;

        zip.Position = 0;
        var package = await premises.Files.TakeIn(zip, MostBytes, stop).ConfigureAwait(false);
        var files = new Dictionary<string, StoredFile>(StringComparer.Ordinal);
        using var batch = premises.Files.Batch();
        foreach (var path in reading.Payload.Keys.Where(p => !p.StartsWith("metadata/", StringComparison.Ordinal)))
        {
            await using var from = entries[$"data/{path}"].Open();
            files[path] = await batch.TakeIn(from, MostBytes, stop).ConfigureAwait(false);
        }
        batch.Keep();
        return premises.Db.Write(c => new Taking(c, by, year, tables, reading.Payload, files, premises.Clock.Now).Do(package));
    }

    private static List<Dictionary<string, string?>> Table(Dictionary<string, ZipArchiveEntry> entries, string name)
    {
        if (!entries.TryGetValue($"data/metadata/{name}.json", out var entry)) throw Wrong($"metadata/{name}.json is missing.");
        using var json = entry.Open();
        try { return JsonSerializer.Deserialize<List<Dictionary<string, string?>>>(json) ?? throw Wrong($"metadata/{name}.json is empty."); }
        catch (JsonException e) { throw Wrong($"metadata/{name}.json can't be read: {e.Message}"); }
    }

    private static RefusedException Wrong(string why) => new("package-wrong", $"This is no archive package that can be read in: {why}", "Fetch the package again from where it was made; nothing was taken in.", "file");

    private sealed class Taking(IDbConnection c, Caller by, YearId yearId, Dictionary<string, List<Dictionary<string, string?>>> tables, IReadOnlyDictionary<string, string> payload, Dictionary<string, StoredFile> files, Instant now)
    {
        private Dictionary<string, string?> Class => tables["class"][0];

        internal PackageRead Preview()
        {
            var year = YearStore.All(c).FirstOrDefault(y => y.Id == yearId) ?? throw Refusals.NotFound("school year");
            return new(Name(), Text(Class, "course"), year.Year.Label, payload.Count, tables["folders"].Count, tables["items"].Count, tables["assignments"].Count, tables["marks"].Count, tables["roster"].Count, tables["roster"].Count(r => Known(r) is not null), null);
        }

        internal PackageRead Do(StoredFile package)
        {
            var said = Preview();
            foreach (var f in files.Values.Append(package)) ItemStore.AddBlob(c, f, now);
            var id = ClassStore.Add(c, new ClassRow
            {
                YearId = yearId,
                CourseId = SchoolStore.CourseNamed(c, said.Course, CourseMarks.All[^1], null).Id,
                Section = Class.GetValueOrDefault("section"),
                Period = Class.GetValueOrDefault("period"),
                Level = Class.GetValueOrDefault("level"),
                Room = Class.GetValueOrDefault("room"),
                Welcome = Class.GetValueOrDefault("welcome") ?? "",
                Name = said.Name,
                TeacherShown = Text(Class, "teacherShown"),
                MadeAt = At(Class, "made") ?? now,
            });
            var people = People(id);
            PersonId Who(string? user) => user is not null && people.TryGetValue(user, out var p) ? p : by.Id;
            var groups = tables["groups"].ToDictionary(g => Text(g, "name"), g => GroupStore.Add(c, id, Text(g, "name")));
            var folders = Folders(id, people, groups);
            var items = Items(id, folders, Who);
            var assignments = Assignments(id, folders, people);
            Work(id, assignments, people, Who);
            Talk(id, folders, groups, Who);
            // What was withdrawn, or never posted, was told to nobody.
            var notices = new Dictionary<string, long>();
            var bytes = BySha512();
            foreach (var n in tables["notices"].Where(n => At(n, "withdrawn") is null && At(n, "posted") is not null))
            {
                var notice = notices[Text(n, "notice")] = NoticeStore.Add(c, new NoticeRow { AuthorId = by.Id, Text = $"{n.GetValueOrDefault("author")}: {Text(n, "text")}", MadeAt = now, PostedAt = At(n, "posted"), ChangedAt = At(n, "changed") }, [(id, null)]);
                NoticeFileStore.Set(c, notice, [.. tables.GetValueOrDefault("noticeFiles", []).Where(f => Text(f, "notice") == Text(n, "notice") && bytes.ContainsKey(f.GetValueOrDefault("sha512") ?? "")).Select(f => new NoticeFileRow { Name = Text(f, "name"), Sha256 = bytes[Text(f, "sha512")].Sha256 })]);
            }
            Acknowledged(items, notices, people, Who);
            ClassStore.SetState(c, ClassStore.Find(c, id)!, ClassState.Open, At(Class, "opened") ?? now, AfterArchive.View);
            ClassStore.SetState(c, ClassStore.Find(c, id)!, ClassState.Archived, now, AfterArchive.View);
            // Its own package is the proof that it is as it was written.
            var run = RunStore.Add(c, [id], new(AfterArchive.View), by.Id, now);
            RunStore.SetClass(c, run, id, StepState.Done, null);
            foreach (var s in ClosingSteps.InOrder) RunStore.SetStep(c, run, id, s, StepState.Done, payload.Count, payload.Count, "read in");
            RunStore.PutPackage(c, new PackageRow { RunId = run, ClassId = id, Kind = "Archive", Name = $"{said.Name}.zip", Sha256 = package.Sha256, Files = payload.Count, MadeAt = now });
            RunStore.SetVerified(c, RunStore.PackagesOf(c, run, id)[0].Id, now);
            RunStore.End(c, run, StepState.Done, now);
            Premises.Add(c, by, now, new("read package in", "class", id.Value, id, $"{said.Name}: {payload.Count} files, {people.Count} people"));
            return said with { Made = id };
        }

        // A name never collides with another class's: the one that was there keeps it.
        private string Name()
        {
            var name = SafeName.Make(Text(Class, "name"))?.Name ?? "class";
            var free = name;
            for (var n = 2; ClassStore.Names(c, SafeName.Key(free)).Count > 0; n++) free = SafeName.Make($"{name} (read in{(n > 2 ? $" {n - 1}" : "")})")!.Name;
            return free;
        }

        // By number or user name, and only if the name is the same: another school may give the same number to somebody else.
        private PersonRow? Known(Dictionary<string, string?> r)
        {
            var name = PersonName.SearchKey($"{r.GetValueOrDefault("givenName")} {r.GetValueOrDefault("familyName")}");
            bool Same(PersonRow? p) => p is not null && PersonName.SearchKey($"{p.Given} {p.Family}") == name;
            var numbered = r.GetValueOrDefault("studentNumber") is { Length: > 0 } number ? PersonStore.ByNumber(c, number) : null;
            if (Same(numbered)) return numbered;
            var called = PersonStore.ByUserName(c, Text(r, "userName"));
            return Same(called) ? called : null;
        }

        private Dictionary<string, PersonId> People(ClassId id)
        {
            var people = new Dictionary<string, PersonId>(StringComparer.OrdinalIgnoreCase);
            foreach (var r in tables["roster"])
            {
                var role = Enum.TryParse<ClassRole>(Text(r, "role"), out var parsed) ? parsed : ClassRole.Student;
                var person = Known(r)?.Id ?? Add(r, role);
                people[Text(r, "userName")] = person;
                RosterStore.Put(c, id, person, role, At(r, "joined") ?? now);
                if (At(r, "left") is { } left) RosterStore.Leave(c, id, person, left);
            }
            return people;
        }

        private PersonId Add(Dictionary<string, string?> r, ClassRole role)
        {
            var user = Text(r, "userName");
            var free = user;
            for (var n = 2; PersonStore.ByUserName(c, free) is not null; n++) free = string.Create(CultureInfo.InvariantCulture, $"{user}-{n}");
            var number = r.GetValueOrDefault("studentNumber") is { Length: > 0 } s && PersonStore.ByNumber(c, s) is null ? s : null;
            return PersonStore.Add(c, new PersonRow { Role = role == ClassRole.Student ? SchoolRole.Student : SchoolRole.Teacher, Given = Text(r, "givenName"), Family = Text(r, "familyName"), StudentNumber = number, Grade = r.GetValueOrDefault("grade"), UserName = free, Active = false });
        }

        private Dictionary<string, FolderId> Folders(ClassId id, Dictionary<string, PersonId> people, Dictionary<string, GroupId> groups)
        {
            var rows = tables["folders"].ToDictionary(f => Text(f, "folder"));
            var made = new Dictionary<string, FolderId>();
            FolderId Make(string key)
            {
                if (made.TryGetValue(key, out var there)) return there;
                var f = rows[key];
                FolderId? parent = f.GetValueOrDefault("inFolder") is { } p && rows.ContainsKey(p) ? Make(p) : null;
                var student = f.GetValueOrDefault("ownFolderOf") is { } u && people.TryGetValue(u, out var person) ? person : (PersonId?)null;
                var group = f.GetValueOrDefault("group") is { } g && groups.TryGetValue(g, out var gid) ? gid : (GroupId?)null;
                return made[key] = FolderStore.Add(c, id, parent, Text(f, "name"), int.TryParse(f.GetValueOrDefault("position"), CultureInfo.InvariantCulture, out var n) ? n : 0, Enum.TryParse<FolderRule>(Text(f, "rule"), out var rule) ? rule : FolderRule.StaffOnly, student, null, group: group);
            }
            foreach (var key in rows.Keys) Make(key);
            return made;
        }

        private Dictionary<string, StoredFile> BySha512() => payload.Where(p => files.ContainsKey(p.Key)).GroupBy(p => p.Value).ToDictionary(g => g.Key, g => files[g.First().Key]);

        private void Acknowledged(Dictionary<string, ItemId> items, Dictionary<string, long> notices, Dictionary<string, PersonId> people, Func<string?, PersonId> who)
        {
            foreach (var rows in tables.GetValueOrDefault("acknowledged", []).GroupBy(a => Text(a, "asking")))
            {
                var a = rows.First();
                var asked = Enum.TryParse<AskedOf>(Text(a, "askedOf"), out var of) ? of : AskedOf.Student;
                LocalDate? until = a.GetValueOrDefault("until") is { } d && LocalDatePattern.Iso.Parse(d) is { Success: true } day ? day.Value : null;
                var at = At(a, "asked") ?? now;
                if (items.TryGetValue(Text(a, "item"), out var item)) Said(AskingStore.AskItem(c, item, asked, until, by.Id, at), rows);
                else if (notices.TryGetValue(Text(a, "notice"), out var notice)) Said(AskingStore.AskNotice(c, notice, asked, until, by.Id, at), rows);
            }

            int Wording(Dictionary<string, string?> r, string column) => (int)Math.Clamp(Number(r, column) ?? 1, 1, 1_000_000);

            void Said(long asking, IEnumerable<Dictionary<string, string?>> rows)
            {
                if (Wording(rows.First(), "wording") is > 1 and var wording) AskingStore.Anew(c, asking, At(rows.First(), "asked") ?? now, wording - 1);
                foreach (var r in rows.Where(r => people.ContainsKey(Text(r, "student"))))
                {
                    if (At(r, "own") is { } own) AskingStore.SayOwn(c, asking, people[Text(r, "student")], Wording(r, "ownWording"), own);
                    if (At(r, "home") is { } home) AskingStore.SayHome(c, asking, people[Text(r, "student")], Wording(r, "homeWording"), Text(r, "homeName"), r.GetValueOrDefault("homeNotedBy") is { } noted ? who(noted) : null, home);
                }
            }
        }

        private Dictionary<string, ItemId> Items(ClassId id, Dictionary<string, FolderId> folders, Func<string?, PersonId> who)
        {
            var students = tables["roster"].Where(r => Text(r, "role") == nameof(ClassRole.Student)).Select(r => Text(r, "userName")).ToHashSet(StringComparer.OrdinalIgnoreCase);
            var bytes = BySha512();
            var made = new Dictionary<string, ItemId>();
            foreach (var i in tables["items"])
            {
                var sha = i.GetValueOrDefault("sha512") is { } s && bytes.TryGetValue(s, out var file) ? file.Sha256 : null;
                var added = i.GetValueOrDefault("addedBy");
                var item = made[Text(i, "item")] = ItemStore.Add(c, id, new ItemRow { Kind = Enum.TryParse<ItemKind>(Text(i, "kind"), out var kind) ? kind : ItemKind.File, Name = Text(i, "name"), Sha256 = sha, Url = i.GetValueOrDefault("address"), AddedBy = who(added), ByStudent = added is not null && students.Contains(added), AddedAt = At(i, "added") ?? now });
                foreach (var f in Ids(i, "folders").Where(folders.ContainsKey)) ItemStore.File(c, item, folders[f]);
            }
            return made;
        }

        private Dictionary<string, AssignmentId> Assignments(ClassId id, Dictionary<string, FolderId> folders, Dictionary<string, PersonId> people)
        {
            var made = new Dictionary<string, AssignmentId>();
            var bytes = BySha512();
            foreach (var a in tables["assignments"])
            {
                var row = new AssignmentRow { Title = Text(a, "title"), Instructions = a.GetValueOrDefault("instructions") ?? "", Points = Number(a, "points"), SchemeJson = Scheme(a)?.Write(), DueOn = a.GetValueOrDefault("due") is { } d && LocalDatePattern.Iso.Parse(d) is { Success: true } day ? day.Value : null, DueTime = Time(a), LateDays = Number(a, "lateDays") is { } late and >= 0 and <= Core.Assignments.Due.MostLateDays ? (int)late : null, MadeAt = now };
                var assignment = made[Text(a, "assignment")] = AssignmentStore.Add(c, id, row, Ids(a, "folders").Where(folders.ContainsKey).Select(f => folders[f]), Ids(a, "givenTo").Where(people.ContainsKey).Select(p => people[p]));
                AttachedStore.Set(c, assignment, [.. tables.GetValueOrDefault("attached", []).Where(t => Text(t, "assignment") == Text(a, "assignment")).Select(t => new AttachedRow
                {
                    Kind = Enum.TryParse<ItemKind>(Text(t, "kind"), out var kind) ? kind : ItemKind.File,
                    Name = Text(t, "name"),
                    Url = t.GetValueOrDefault("address"),
                    Sha256 = t.GetValueOrDefault("sha512") is { } s && bytes.TryGetValue(s, out var file) ? file.Sha256 : null,
                }).Where(t => t.Sha256 is not null || t.Url is not null)]);
                if (At(a, "published") is { } at) AssignmentStore.Publish(c, assignment, 1, at);
            }
            return made;
        }

        private void Work(ClassId id, Dictionary<string, AssignmentId> assignments, Dictionary<string, PersonId> people, Func<string?, PersonId> who)
        {
            var roster = tables["roster"].ToDictionary(r => Text(r, "userName"), StringComparer.OrdinalIgnoreCase);
            var marks = tables["marks"].Where(m => assignments.ContainsKey(Text(m, "assignment")) && people.ContainsKey(Text(m, "student"))).ToList();
            var places = PackageLayout.WorkPlaces(marks.Select(m =>
            {
                var r = roster[Text(m, "student")];
                return new LayWork(Text(m, "title"), people[Text(m, "student")], new PersonName(Text(r, "givenName"), Text(r, "familyName")).Sort, r.GetValueOrDefault("studentNumber"), []);
            }));
            var made = new Dictionary<string, WorkId>();
            foreach (var (m, place) in marks.Zip(places))
            {
                var student = people[Text(m, "student")];
                var work = WorkStore.Begin(c, id, assignments[Text(m, "assignment")], student);
                made[Text(m, "work")] = work.Id;
                foreach (var (path, file) in files.Where(f => f.Key.StartsWith($"{place}/", StringComparison.Ordinal)).OrderBy(f => f.Key, StringComparer.Ordinal)) WorkStore.AddFile(c, work.Id, path[(place.Length + 1)..], file.Sha256, student, At(m, "handedIn") ?? now);
                var state = Enum.TryParse<WorkState>(Text(m, "state"), out var said) ? said : WorkState.Returned;
                WorkStore.Save(c, work with { State = state, Score = Number(m, "score"), ReturnedScore = Number(m, m.ContainsKey("returnedScore") || state != WorkState.Returned ? "returnedScore" : "score"), Chosen = m.GetValueOrDefault("chosen"), ReturnedChosen = m.GetValueOrDefault("returnedChosen"), HandedInAt = At(m, "handedIn"), ReturnedAt = At(m, "returned") });
            }
            var byName = tables["roster"].GroupBy(r => new PersonName(Text(r, "givenName"), Text(r, "familyName")).Display).ToDictionary(g => g.Key, g => Text(g.First(), "userName"));
            foreach (var m in tables["comments"].Where(m => made.ContainsKey(Text(m, "work"))))
                WorkStore.AddComment(c, made[Text(m, "work")], who(byName.GetValueOrDefault(m.GetValueOrDefault("author") ?? "")), Text(m, "text"), At(m, "at") ?? now);
        }

        private void Talk(ClassId id, Dictionary<string, FolderId> folders, Dictionary<string, GroupId> groups, Func<string?, PersonId> who)
        {
            foreach (var t in tables.GetValueOrDefault("talk", []).Where(t => folders.ContainsKey(Text(t, "folder"))))
                TalkStore.Put(c, id, new() { FolderId = folders[Text(t, "folder")], Writers = Enum.TryParse<TalkWriters>(Text(t, "writers"), out var w) ? w : TalkWriters.Staff, GroupId = groups.TryGetValue(Text(t, "group"), out var g) ? g : null, Question = t.GetValueOrDefault("question"), ClosedAt = At(t, "closed") });
            var made = new Dictionary<string, long>();
            foreach (var m in tables.GetValueOrDefault("messages", []).Where(m => folders.ContainsKey(Text(m, "folder"))))
            {
                var at = At(m, "at") ?? now;
                var day = m.GetValueOrDefault("day") is { } d && LocalDatePattern.Iso.Parse(d) is { Success: true } parsed ? parsed.Value : at.InUtc().Date;
                var message = made[Text(m, "message")] = TalkStore.Add(c, id, folders[Text(m, "folder")], who(m.GetValueOrDefault("userName")), Text(m, "text"), made.TryGetValue(Text(m, "answers"), out var a) ? a : null, at, day);
                if (At(m, "hidden") is { } hidden) TalkStore.Hide(c, message, hidden, by.Id, $"{m.GetValueOrDefault("hiddenBy")}: {m.GetValueOrDefault("hiddenWhy")}");
            }
        }

        // What is no scheme by which anybody could mark is refused like anything else that is not as it was written.
        private static MarkScheme? Scheme(Dictionary<string, string?> a)
        {
            try { return MarkScheme.Read(a.GetValueOrDefault("scheme"))?.Checked("file"); }
            catch (JsonException e) { throw Wrong($"how “{Text(a, "title")}” is marked can't be read: {e.Message}"); }
        }

        private static string Text(Dictionary<string, string?> row, string key) => row.GetValueOrDefault(key) ?? "";

        private static IEnumerable<string> Ids(Dictionary<string, string?> row, string key) => Text(row, key).Split(' ', StringSplitOptions.RemoveEmptyEntries);

        private static LocalTime? Time(Dictionary<string, string?> row) => LocalTimePattern.CreateWithInvariantCulture("HH:mm").Parse(Text(row, "dueTime")) is { Success: true } t ? t.Value : null;

        private static decimal? Number(Dictionary<string, string?> row, string key) => decimal.TryParse(row.GetValueOrDefault(key), NumberStyles.Number, CultureInfo.InvariantCulture, out var n) ? n : null;

        private static Instant? At(Dictionary<string, string?> row, string key) => row.GetValueOrDefault(key) is { } text && InstantPattern.General.Parse(text) is { Success: true } at ? at.Value : null;
    }
}
