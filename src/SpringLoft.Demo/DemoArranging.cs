using SpringLoft.Core.Plans;
using SpringLoft.App;
using SpringLoft.App.Assignments;
using SpringLoft.App.Plans;
using SpringLoft.App.Rosters;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.Demo;

/// <summary>What the demo school has besides its classes, made by the same acts as people would make it.</summary>
internal sealed class DemoArranging(Premises premises, DemoPeople people)
{
    private const string Welcome = """
        **Welcome.** Here is where everything of this class stands.

        - *Start here* has the papers of the term.
        - Put your own sketches into your own folder: only you and I see it.
        - If something is missing, write to me before Friday.
        """;

    private const string SafetyPage = """
        ## Before you pick up a tool

        1. Apron on, sleeves up, hair tied back.
        2. Look at the tool. If anything is loose, **put it down** and say so.
        3. One person at the bench saw.

        ## After

        - Oil the blade.
        - Hang it where its shadow is painted on the board.
        """;

    internal void Make(IReadOnlyList<ClassId> classes)
    {
        var coordinator = Coordinator();
        // Before the open day, to everybody of the school.
        premises.Db.Write(c => NoticeStore.Add(c, new NoticeRow { AuthorId = coordinator.Id, Text = "Open day on the quay, Saturday 19 June, from ten. Families are welcome.", ForSchool = true, MadeAt = DemoYears.At(new LocalDate(2027, 6, 1)), PostedAt = DemoYears.At(new LocalDate(2027, 6, 1)), PinnedUntil = new LocalDate(2027, 6, 19) }, []));
        var things = new SharedThings(premises);
        things.Add(coordinator, new("Tide tables of the island", "https://tides.skerrypoint.invalid/tables", ForWhom.Everybody, null, null, 0));
        things.Add(coordinator, new("Reading room catalogue", "https://books.skerrypoint.invalid/", ForWhom.Everybody, null, null, 0));
        things.Add(coordinator, new("Signal flags trainer", "https://flags.skerrypoint.invalid/", ForWhom.SomeCourses, null, ["Signals", "Wayfinding"], 0));
        things.Add(coordinator, new("Planning board of the staff", "https://staff.skerrypoint.invalid/plan", ForWhom.StaffOnly, null, null, 0));

        var first = classes[0];
        var lead = LeadOf(first);
        var offered = things.For(first).Where(t => t.WhyNot is null).Select(t => t.Id).Take(2).ToList();
        things.Use(lead, first, offered);
        new ClassDetails(premises).SetWelcome(lead, first, "", Welcome);
        var start = premises.Db.Read(c => FolderStore.OfClass(c, first).First(f => f.PlanKey == FolderKey.Top("start")).Id);
        new Items(premises).AddPage(lead, first, start, "Safe at the bench", SafetyPage, CancellationToken.None).GetAwaiter().GetResult();
        Groups(first, lead);
        Department(coordinator, classes);
    }

    private void Groups(ClassId id, Caller lead)
    {
        var students = premises.Db.Read(c => RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null).Select(m => m.PersonId).ToList());
        var desk = new GroupDesk(premises);
        var arranging = new Arranging(premises);
        var top = arranging.Make(lead, id, new("Crews", null, FolderRule.ClassViews, null, 0));
        foreach (var (name, n) in ((string[])["Port crew", "Starboard crew", "Rigging crew"]).Select((name, n) => (name, n)))
        {
            var group = desk.Make(lead, id, name, [.. students.Where((_, i) => i % 3 == n)]).Id;
            arranging.Make(lead, id, new(name, top, FolderRule.OnePerGroup, null, 0) { Group = group, Members = new(Add: true, Rename: n != 1, Remove: n == 0) });
        }
    }

    // A bank with two assignments, one of them used in two classes that have a draft left anyhow, and changed since.
    private void Department(Caller coordinator, IReadOnlyList<ClassId> classes)
    {
        var departments = new Departments(premises);
        var id = departments.Make(coordinator, "Crafts department", "pot", [people.Teachers[0].Id, people.Teachers[2].Id]);
        var bank = premises.Db.Read(c => FolderStore.OfClass(c, id).First(f => f.Name == "Bank").Id);
        var assigning = new Assigning(premises);
        var made = assigning.Make(coordinator, id, new("Measured drawing", "Draw one piece from three sides, to scale.", 20, null, null, null, [bank], null, false, null)).Id;
        assigning.Make(coordinator, id, new("Tool care diary", "A week of notes on one tool.", 10, null, null, null, [bank], null, false, null));
        new GivingOut(premises).Give(coordinator, id, new(null, null, [made], false, [classes[9], classes[21]]));
        assigning.Change(coordinator, id, made, new("Measured drawing", "Draw one piece from three sides, to scale, with every measure written in.", 20, null, null, null, [bank], null, false, null), 1);
    }

    private Caller Coordinator() => premises.Db.Read(c =>
    {
        var row = Store.People.PersonStore.ByUserName(c, "wren")!;
        return new Caller(row.Id, row.Role, row.Name.Display);
    });

    private Caller LeadOf(ClassId id) => premises.Db.Read(c =>
    {
        var m = RosterStore.Members(c, id).First(x => x.Role == ClassRole.Lead);
        return new Caller(m.PersonId, SchoolRole.Teacher, m.Name.Display);
    });
}
