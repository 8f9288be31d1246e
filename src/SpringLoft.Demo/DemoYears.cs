using System.Globalization;
using SpringLoft.App;
using SpringLoft.App.Closing;
using SpringLoft.App.Rollover;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;
using SpringLoft.Store.Audit;
using SpringLoft.Store.Naming;
using SpringLoft.Store.Plans;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.Demo;

/// <summary>Makes the classes of three years: one closed by a real run, one near its end, one begun by rolling over.</summary>
internal sealed class DemoYears(Premises premises, ClosingRunner runner, DemoPeople people)
{
    private static readonly string[] Rooms = ["Slipway shed", "North room", "Kiln room", "Glasshouse", "Signal tower", "Reading room"];
    private readonly DemoWork work = new(premises);

    internal void Make(Action<string> say)
    {
        var years = premises.Db.Read(YearStore.All);
        say("  2025–26: classes and their closing run");
        Past(years[0]);
        say("  2026–27: 24 classes near the end of their year");
        var current = Current(years[1]);
        say("  2027–28: being planned");
        Next(years[2], current);
        say("  groups, a department with its bank, the school's list of sites");
        new DemoArranging(premises, people).Make(current);
    }

    private void Past(YearRow year)
    {
        var ended = At(year.Year.Last.PlusDays(3));
        var made = new List<ClassId>();
        foreach (var course in DemoCourses.All)
            foreach (var section in (string[])["A", "B"])
                made.Add(Class(year, course, section, made.Count, students: 9, DemoState.Tidy));
        var run = premises.Db.Write(c => RunStore.Add(c, made, new(AfterArchive.View), people.Teachers[0].Id, ended));
        runner.Go(run, CancellationToken.None);
        premises.Db.Write(c => DemoStore.ArchivedOn(c, year.Id, ended));
    }

    private List<ClassId> Current(YearRow year)
    {
        var made = new List<ClassId>();
        foreach (var course in DemoCourses.All)
            foreach (var section in (string[])["A", "B", "C"])
            {
                // The untidiness of real life: some work held, some never marked, some things in no folder, a draft forgotten.
                var state = (made.Count % 12) switch
                {
                    1 => DemoState.HeldMarked,
                    4 => DemoState.HeldUnmarked,
                    2 => DemoState.Unfiled,
                    8 => DemoState.HeldBoth,
                    9 => DemoState.DraftLeft,
                    11 => DemoState.FolderGone,
                    _ => DemoState.Tidy,
                };
                made.Add(Class(year, course, section, made.Count, 24 + (made.Count * 5 % 8), state));
            }
        return made;
    }

    private void Next(YearRow year, List<ClassId> current)
    {
        var rolling = new RollingOver(premises);
        foreach (var id in current.Where((_, i) => i % 3 == 0))
        {
            var lead = premises.Db.Read(c => RosterStore.Members(c, id).First(m => m.Role == ClassRole.Lead));
            rolling.Make(new Caller(lead.PersonId, SchoolRole.Teacher, lead.Name.Display), id, new NewYear(year.Id, null, null));
        }
    }

    private ClassId Class(YearRow year, DemoCourse course, string section, int index, int students, DemoState state)
    {
        var lead = people.Teachers[Array.FindIndex(DemoNames.Teachers, t => t.Course == course.Name)];
        var grade = 5 + (index % 6);
        var label = $"{grade}{section}";
        var period = (1 + (index % 3 * 2)).ToString(CultureInfo.InvariantCulture);
        var made = At(year.Year.First.PlusDays(-6));
        return premises.Db.Write(c =>
        {
            var o = SchoolStore.CourseNamed(c, course.Name, course.Mark, course.Department);
            var plan = PlanStore.All(c)[course.Plan];
            var name = ClassName.Preview(ClassName.DefaultPattern, new(course.Name, label, period, null, year.Year.Label), []).Name;
            var id = ClassStore.Add(c, new ClassRow
            {
                YearId = year.Id,
                CourseId = o.Id,
                Section = label,
                Period = period,
                Room = Rooms[index % Rooms.Length],
                Name = name,
                TeacherShown = $"{lead.Name.Display}",
                PlanId = plan.Id,
                PlanVersion = plan.Version,
                RecordId = $"skc-{year.Year.Last.Year}-{index + 1}",
                MadeAt = made,
            });
            RosterStore.Put(c, id, lead.Id, ClassRole.Lead, made, EnrolledBy.Feed);
            if (index % 3 != 1) RosterStore.Put(c, id, people.Others[index % people.Others.Count].Id, ClassRole.CoTeacher, made);
            var roster = people.Students.Where(s => s.Grade == grade.ToString(CultureInfo.InvariantCulture)).OrderBy(s => (int.Parse(s.Number, CultureInfo.InvariantCulture) * 37 + index * 11) % 101).Take(students).ToList();
            foreach (var s in roster) RosterStore.Put(c, id, s.Id, ClassRole.Student, made, EnrolledBy.Feed);
            var setting = new PlanSetting(SchoolWeeks.Of(year.Year),
                [.. roster.OrderBy(s => Core.People.PersonName.SearchKey(s.Name.Sort), StringComparer.Ordinal).Select(s => new PlanStudent(s.Id, s.Name.Sort, s.Number))]);
            FolderStore.Unfold(c, id, PlanUnfolding.Unfold(plan.Plan, setting));
            var opened = At(year.Year.First.PlusDays(index % 4));
            ClassStore.SetState(c, ClassStore.Find(c, id)!, ClassState.Open, opened, AfterArchive.View);
            AuditStore.Add(c, made, lead.Id, "made class", "class", id.Value, id, name);
            AuditStore.Add(c, opened, lead.Id, "opened class", "class", id.Value, id, $"to {roster.Count} students");
            work.Fill(c, id, course, lead, roster, year.Year, index, state);
            return id;
        });
    }

    internal static Instant At(LocalDate day) => day.At(new LocalTime(9, 30)).InUtc().ToInstant();
}

/// <summary>What is untidy about a class.</summary>
internal enum DemoState { Tidy, HeldMarked, HeldUnmarked, HeldBoth, Unfiled, DraftLeft, FolderGone }
