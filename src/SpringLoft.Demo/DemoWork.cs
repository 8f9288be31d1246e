using SpringLoft.Core.Plans;
using System.Globalization;
using System.Text;
using SpringLoft.App;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Files;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.Demo;

/// <summary>Fills a demo class: papers, links, notices, assignments, and a year of work handed in, marked and returned.</summary>
internal sealed class DemoWork(Premises premises)
{
    private readonly Dictionary<string, StoredFile> texts = [];

    internal void Fill(IDbConnection c, ClassId id, DemoCourse course, Person lead, IReadOnlyList<Person> roster, SchoolYear year, int index, DemoState state)
    {
        var folders = FolderStore.OfClass(c, id).Where(f => f.PlanKey is not null).ToDictionary(f => f.PlanKey!.Text);
        var weeks = SchoolWeeks.Of(year);
        var start = folders["start"].Id;
        var early = DemoYears.At(year.First.PlusDays(-2));
        foreach (var (paper, i) in course.Papers.Select((p, i) => (p, i)))
            Item(c, id, lead, false, $"{paper}.txt", $"{course.Name}\n{paper}\n\nFor the yard wall and for your own folder.\n", i == 0 ? start : Somewhere(folders, "papers", "unit:eMaterials/unit-papers", "table", "start"), early);
        Link(c, id, lead, "Harbour tide gauge", "https://tides.skerrypoint.invalid/", start, early);
        Link(c, id, lead, $"{course.Name}: glossary", $"https://words.skerrypoint.invalid/{course.Mark}", start, early);
        Item(c, id, lead, false, "Term plan.csv", "week,topic\r\n1,Start\r\n2,First piece\r\n", folders["staff/staff-plans"].Id, early);
        Tell("Bring an apron and a pencil to the first lesson.", DemoYears.At(year.First));
        Tell("Open day on the quay: everybody shows one piece.", DemoYears.At(weeks[^6].Days[0]));
        void Tell(string text, Instant at) => NoticeStore.Add(c, new NoticeRow { AuthorId = lead.Id, Text = text, MadeAt = at, PostedAt = at }, [(id, null)]);

        foreach (var (title, n) in course.Assignments.Select((t, n) => (t, n)))
            Assignment(c, id, course, lead, roster, folders, weeks, title, n, index, state);

        if (state == DemoState.Tidy && index % 3 == 0 && year.First.Year == 2026)
        {
            Spring(c, id, lead, roster, weeks, start, told: index % 9 == 3);
            Speak(c, id, lead, roster, Somewhere(folders, "table", "start"));
        }
        if (index % 2 == 0 && year.First.Year == 2026) Days(c, id, roster, weeks);
        if (state == DemoState.DraftLeft)
            AssignmentStore.Add(c, id, new AssignmentRow { Title = "Idea for next year", Instructions = "Not ready yet.", MadeAt = DemoYears.At(weeks[^8].Days[0]) }, [start], []);
        if (state == DemoState.Unfiled)
            for (var i = 1; i <= 6; i++)
                Item(c, id, lead, false, $"scan {i:000}.txt", $"A loose sheet, number {i}, class {id.Value}.\n", null, DemoYears.At(weeks[^7].Days[0]));
        if (state == DemoState.FolderGone) DemoStore.BinFolder(c, id, folders.ContainsKey("table") ? "table" : "start", DemoYears.At(weeks[^5].Days[0]));
        foreach (var (s, i) in roster.Select((s, i) => (s, i)).Where(x => x.i % 4 == 0))
            if (folders.Values.FirstOrDefault(f => f.StudentId == s.Id) is { } own)
                Item(c, id, s, true, "my notes.txt", $"Notes of {s.Name.Display}, {course.Name}.\n", own.Id, DemoYears.At(weeks[4 + (i % 9)].Days[0]));
    }

    private void Assignment(IDbConnection c, ClassId id, DemoCourse course, Person lead, IReadOnlyList<Person> roster, Dictionary<string, FolderRow> folders, IReadOnlyList<SchoolWeek> weeks, string title, int n, int index, DemoState state)
    {
        var week = weeks[(n + 1) * (weeks.Count - 4) / (course.Assignments.Length + 1)];
        var due = week.Days[^1];
        decimal? points = n % 4 == 3 ? null : 20;
        var places = new List<FolderId> { Somewhere(folders, "papers", "units", "weeks", "start") };
        if (folders.Values.FirstOrDefault(f => f.PlanKey is { } k && k.Parts[^1].Mark is FolderMark.Week { Day: null } w && w.Ordinal == week.Ordinal) is { } inWeek) places.Add(inWeek.Id);
        var made = AssignmentStore.Add(c, id, new AssignmentRow { Title = title, Instructions = $"{title}: one page or one file. Say what you tried and what you would do otherwise.", Points = points, DueOn = due, DueTime = n % 3 == 0 ? new LocalTime(15, 30) : null, LateDays = n % 3 == 0 ? 7 : null, MadeAt = DemoYears.At(week.Days[0]) }, places, []);
        AssignmentStore.Publish(c, made, 1, DemoYears.At(week.Days[0]));

        var last = n == course.Assignments.Length - 1;
        foreach (var (s, i) in roster.Select((s, i) => (s, i)))
        {
            // Not everybody hands in everything.
            if ((i * 7 + n * 3 + index) % 13 == 0) continue;
            var handed = DemoYears.At(due) + Duration.FromMinutes(i * 11);
            var row = WorkStore.Begin(c, id, made, s.Id);
            var text = $"{title}\n{course.Name}\n\nVersion {(i % 5) + 1}. What I tried: {Words(i + n)}.\n";
            var file = Text(c, text, handed);
            WorkStore.AddFile(c, row.Id, $"{title}, {s.Name.Family}.txt", file.Sha256, s.Id, handed);
            var score = points is null ? (decimal?)null : 9 + ((i * 5 + n * 7 + index) % 12);
            var held = last && state switch
            {
                DemoState.HeldMarked => i < 3,
                DemoState.HeldUnmarked => i is >= 3 and < 7,
                DemoState.HeldBoth => i < 2,
                _ => false,
            };
            var marked = !held || state == DemoState.HeldMarked || (state == DemoState.HeldBoth && i == 0);
            if (i % 6 == 2 && !held) WorkStore.AddComment(c, row.Id, lead.Id, "Good care taken. Look again at the second part.", handed + Duration.FromDays(2));
            WorkStore.Save(c, row with
            {
                State = held ? WorkState.HandedIn : WorkState.Returned,
                Score = marked ? score : null,
                ReturnedScore = marked && !held ? score : null,
                HandedInAt = handed,
                ReturnedAt = held ? null : handed + Duration.FromDays(4),
            });
        }
    }

    // Who was there on which of the last school days: most on most, and one in ten has gone quiet two weeks ago.
    private static void Days(IDbConnection c, ClassId id, IReadOnlyList<Person> roster, IReadOnlyList<SchoolWeek> weeks)
    {
        var days = weeks.TakeLast(11).SelectMany(w => w.Days).Where(d => d <= new LocalDate(2027, 6, 7)).ToList();
        ActivityStore.NoteAll(c, id, from s in roster.Select((s, i) => (Person: s, At: i))
                                     from d in days.Select((d, n) => (Day: d, At: n))
                                     where s.At % 10 != 3 || d.At < days.Count - 11
                                     let what = ((s.At * 37) + (d.At * 11) + (s.At * d.At % 13)) % 12
                                     where what > 3
                                     select (s.Person.Id, d.Day, what < 7 ? Did.OpenedClass : what < 10 ? Did.OpenedClass | Did.OpenedThing : what == 10 ? Did.OpenedClass | Did.Wrote : Did.OpenedClass | Did.OpenedThing | Did.Wrote | Did.HandedIn));
    }

    // One that stands on top to the end of the year, and that most have seen.
    private static void Tell(IDbConnection c, ClassId id, Person lead, IReadOnlyList<Person> roster, IReadOnlyList<SchoolWeek> weeks)
    {
        var day = weeks[^3].Days[1];
        var told = NoticeStore.Add(c, new NoticeRow { AuthorId = lead.Id, Text = "Aprons and boots come home on the **last Friday**. What is left here then goes to the quay sale.", MadeAt = DemoYears.At(day), PostedAt = DemoYears.At(day), PinnedUntil = weeks[^1].Days[^1] }, [(id, null)]);
        foreach (var s in roster.Where((_, i) => i % 5 != 2)) NoticeStore.See(c, s.Id, [told], DemoYears.At(day.PlusDays(1)));
        var asking = AskingStore.AskNotice(c, told, AskedOf.Both, new LocalDate(2027, 6, 11), lead.Id, DemoYears.At(day));
        foreach (var (s, i) in roster.Select((s, i) => (s, i)))
        {
            if (i % 5 is 1 or 3) AskingStore.SayOwn(c, asking, s.Id, 1, DemoYears.At(day.PlusDays(1)) + Duration.FromMinutes(i * 3));
            if (i % 3 == 1) AskingStore.SayHome(c, asking, s.Id, 1, $"family {s.Name.Family}", i % 6 == 1 ? lead.Id : null, DemoYears.At(day.PlusDays(2)) + Duration.FromMinutes(i * 17));
        }
    }

    // A place to ask for help, and to say each morning that one is there; some have, some have not.
    private static void Speak(IDbConnection c, ClassId id, Person lead, IReadOnlyList<Person> roster, FolderId folder)
    {
        TalkStore.Put(c, id, new() { FolderId = folder, Writers = TalkWriters.Readers, Question = "Are you here, and what do you need?" });
        var friday = new LocalDate(2027, 6, 4);
        long Say(Person who, string text, LocalDate day, int minute, long? answers = null) =>
            TalkStore.Add(c, id, folder, who.Id, text, answers, DemoYears.At(day) + Duration.FromMinutes(minute), day);
        var asked = Say(roster[1], "Which glue holds on wet wood?", friday, 5);
        Say(lead, "None of ours. **Dry it first**, over the week-end, then the brown one.", friday, 21, asked);
        Say(roster[4 % roster.Count], "We tried, it took two days.", friday, 40, asked);
        TalkStore.Hide(c, Say(roster[3], "Nobody reads this anyway.", friday, 52), DemoYears.At(friday) + Duration.FromMinutes(80), lead.Id, "Said to his face instead.");
        Say(roster[2], "Here.", friday, 54);
        Say(roster[2], "May mine stay in the shed over the summer? It is not dry yet.", friday, 55);
        foreach (var (s, i) in roster.Select((s, i) => (s, i)).Where(x => x.i % 3 == 0)) Say(s, i % 2 == 0 ? "Here. Nothing." : "Here. A pencil, please.", new LocalDate(2027, 6, 7), 2 + i);
    }

    private static readonly MarkScheme Sketch = new(null, [],
    [
        new("Line", [new("searching", 2), new("sure in places", 5), new("sure", 8, "Few lines, and each where it belongs.")]),
        new("Light", [new("none yet", 0), new("one side", 4), new("goes round", 8, "One sees where the light comes from.")]),
        new("Both beside each other", [new("not compared", 0), new("compared", 4, "It says what memory had changed.")]),
    ]);

    // What is going on in the last weeks: one that is late for some, one due today, one on Thursday.
    private void Spring(IDbConnection c, ClassId id, Person lead, IReadOnlyList<Person> roster, IReadOnlyList<SchoolWeek> weeks, FolderId start, bool told)
    {
        var friday = weeks[^3].Days[^1];
        Give("Log of the week", "Three sentences: what you made, what went wrong, what comes next.", 10, friday, new LocalTime(15, 30), 10);
        Give("List for the open day", "What you show on the quay, and what you need for it. One page or a photo.", null, weeks[^2].Days[0], null, null);
        if (told) Tell(c, id, lead, roster, weeks);
        Give("Last sketch", "From memory, in ten minutes. Then once more beside the thing itself.", Sketch.FullMarks, weeks[^2].Days[^2], null, 0, Sketch);

        void Give(string title, string instructions, decimal? points, LocalDate due, LocalTime? time, int? late, MarkScheme? scheme = null)
        {
            var at = DemoYears.At(due.PlusDays(-7));
            var made = AssignmentStore.Add(c, id, new AssignmentRow { Title = title, Instructions = instructions, Points = points, SchemeJson = scheme?.Write(), DueOn = due, DueTime = time, LateDays = late, MadeAt = at }, [start], []);
            AssignmentStore.Publish(c, made, 1, at);
            if (due != friday) return;
            foreach (var (s, i) in roster.Select((s, i) => (s, i)).Where(x => x.i % 4 != 0))
            {
                // Some came on Saturday: late, and taken.
                var handed = DemoYears.At(due) + Duration.FromMinutes(i * 7) + (i % 9 == 5 ? Duration.FromDays(1) : Duration.Zero);
                var row = WorkStore.Begin(c, id, made, s.Id);
                WorkStore.AddFile(c, row.Id, "log.txt", Text(c, $"Log of the week\n\nI made a {Words(i)}. It went wrong once. Next comes the edge.\n", handed).Sha256, s.Id, handed);
                WorkStore.AddTurn(c, id, row.Id, handed);
                var score = (decimal)(5 + (i * 3 % 6));
                var back = handed + Duration.FromDays(2);
                WorkStore.Save(c, row with { State = WorkState.Returned, Score = score, ReturnedScore = score, HandedInAt = handed, ReturnedAt = back });
                WorkStore.TurnReturned(c, row.Id, score, back);
            }
        }
    }

    private void Item(IDbConnection c, ClassId id, Person by, bool student, string name, string text, FolderId? folder, Instant at)
    {
        var file = Text(c, text, at);
        var item = ItemStore.Add(c, id, new ItemRow { Kind = ItemKind.File, Name = name, Sha256 = file.Sha256, AddedBy = by.Id, ByStudent = student, AddedAt = at });
        if (folder is { } f) ItemStore.File(c, item, f);
    }

    private static void Link(IDbConnection c, ClassId id, Person by, string title, string url, FolderId folder, Instant at) =>
        ItemStore.File(c, ItemStore.Add(c, id, new ItemRow { Kind = ItemKind.Link, Name = title, Url = url, AddedBy = by.Id, AddedAt = at }), folder);

    private StoredFile Text(IDbConnection c, string text, Instant at)
    {
        if (!texts.TryGetValue(text, out var file))
            texts[text] = file = premises.Files.Make(to => to.Write(Encoding.UTF8.GetBytes(text)));
        ItemStore.AddBlob(c, file, at);
        return file;
    }

    private static FolderId Somewhere(Dictionary<string, FolderRow> folders, params string[] keys)
    {
        foreach (var key in keys)
            if (folders.TryGetValue(key, out var found)) return found.Id;
        return folders.First(f => f.Value.Rule == FolderRule.ClassViews).Value.Id;
    }

    private static string Words(int n)
    {
        string[] words = ["a slower start", "two layers", "another angle", "less water", "a longer line", "the old way", "a finer brush", "more time"];
        return string.Create(CultureInfo.InvariantCulture, $"{words[n % words.Length]} and {words[(n + 3) % words.Length]}");
    }
}
