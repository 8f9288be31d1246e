using System.Globalization;
using SpringLoft.App;
using SpringLoft.App.People;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Files;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Plans;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.Demo;

/// <summary>How big a generated school is.</summary>
/// <param name="StudentsInClass">On each roster.</param>
/// <param name="AssignmentsInClass">Each with a returned piece of work of every student.</param>
public sealed record SchoolSize(int Classes, int StudentsInClass, int AssignmentsInClass);

/// <summary>Generates schools of any size, the same every time, for measuring. Nobody's data.</summary>
public static class BigSchool
{
    /// <summary>Fills an empty database: one year and the next, a coordinator “bench” with the demo's staff password, open classes.</summary>
    /// <returns>The classes, in the order in which they were made.</returns>
    public static IReadOnlyList<ClassId> Make(Premises premises, SchoolSize size)
    {
        var at = DemoYears.At(DemoCalendar.Years[1].First);
        return premises.Db.Write(c =>
        {
            SchoolStore.Set(c, new SchoolRow { Name = "Big school", Zone = "Etc/UTC", ClassNamePattern = ClassName.DefaultPattern, UploadLimitBytes = 2L * 1024 * 1024 * 1024, IsDemo = true });
            var year = YearStore.Add(c, DemoCalendar.Years[1]);
            YearStore.Add(c, DemoCalendar.Years[2]);
            var plan = PlanStore.Add(c, ShippedPlans.Small, at);
            var bench = Person(c, SchoolRole.Coordinator, "Bench", "Coordinator", "bench", null);
            PersonStore.SetPassword(c, bench, SigningIn.Hash(DemoSchool.StaffPassword), mustChange: false, null, at);
            var leads = Enumerable.Range(0, Math.Max(1, size.Classes / 6)).Select(i => Person(c, SchoolRole.Teacher, DemoNames.Given[i % DemoNames.Given.Length], $"Teacher {i:0000}", $"t{i}", null)).ToList();
            var students = Enumerable.Range(0, Math.Max(size.StudentsInClass, size.Classes * size.StudentsInClass / 6)).Select(i =>
                Person(c, SchoolRole.Student, DemoNames.Given[i % DemoNames.Given.Length], DemoNames.Family[i / 7 % DemoNames.Family.Length], $"b{i}", (100_000 + i).ToString(CultureInfo.InvariantCulture))).ToList();
            var work = premises.Files.Make(to => to.Write("A piece of work.\n"u8));
            ItemStore.AddBlob(c, work, at);
            return Enumerable.Range(0, size.Classes).Select(i => Class(c, i, size, year, plan, leads[i % leads.Count], students, work.Sha256, at)).ToList();
        });
    }

    /// <summary>Puts a file into the first folder of a class.</summary>
    public static void AddFile(Premises premises, ClassId id, string name, StoredFile file) => premises.Db.Write(c =>
    {
        var lead = RosterStore.Members(c, id)[0].PersonId;
        var at = DemoYears.At(DemoCalendar.Years[1].First);
        ItemStore.AddBlob(c, file, at);
        ItemStore.File(c, ItemStore.Add(c, id, new ItemRow { Kind = ItemKind.File, Name = name, Sha256 = file.Sha256, AddedBy = lead, AddedAt = at }), FolderStore.OfClass(c, id)[0].Id);
    });

    private static PersonId Person(IDbConnection c, SchoolRole role, string given, string family, string userName, string? number) =>
        PersonStore.Add(c, new PersonRow { Role = role, Given = given, Family = family, UserName = userName, StudentNumber = number, Grade = number is null ? null : "7" });

    private static ClassId Class(IDbConnection c, int i, SchoolSize size, YearId year, PlanId plan, PersonId lead, List<PersonId> students, string work, Instant at)
    {
        var course = DemoCourses.All[i % DemoCourses.All.Length];
        var o = SchoolStore.CourseNamed(c, course.Name, course.Mark, course.Department);
        var section = (i / DemoCourses.All.Length + 1).ToString(CultureInfo.InvariantCulture);
        var id = ClassStore.Add(c, new ClassRow
        {
            YearId = year,
            CourseId = o.Id,
            Section = section,
            Period = "1",
            Name = ClassName.Preview(ClassName.DefaultPattern, new(course.Name, section, "1", null, "2026–27"), []).Name,
            TeacherShown = "Teacher",
            PlanId = plan,
            PlanVersion = 1,
            MadeAt = at,
        });
        RosterStore.Put(c, id, lead, ClassRole.Lead, at);
        var roster = Enumerable.Range(0, size.StudentsInClass).Select(n => students[((i * 17) + n) % students.Count]).Distinct().ToList();
        foreach (var s in roster) RosterStore.Put(c, id, s, ClassRole.Student, at);
        var setting = new PlanSetting(SchoolWeeks.Of(DemoCalendar.Years[1]), [.. roster.Select(s => new PlanStudent(s, $"Student {s.Value}", null))]);
        FolderStore.Unfold(c, id, PlanUnfolding.Unfold(ShippedPlans.Small, setting));
        ClassStore.SetState(c, ClassStore.Find(c, id)!, ClassState.Open, at, AfterArchive.View);
        for (var n = 0; n < size.AssignmentsInClass; n++)
        {
            var a = AssignmentStore.Add(c, id, new AssignmentRow { Title = $"Assignment {n + 1}", Points = 20, MadeAt = at }, [FolderStore.OfClass(c, id)[0].Id], []);
            AssignmentStore.Publish(c, a, 1, at);
            foreach (var s in roster)
            {
                var row = WorkStore.Begin(c, id, a, s);
                WorkStore.AddFile(c, row.Id, "work.txt", work, s, at);
                WorkStore.Save(c, row with { State = WorkState.Returned, Score = 12, ReturnedScore = 12, HandedInAt = at, ReturnedAt = at });
            }
        }
        return id;
    }
}
