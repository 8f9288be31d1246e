using System.Globalization;
using SpringLoft.App;
using SpringLoft.App.Closing;
using SpringLoft.App.People;
using SpringLoft.Core.Naming;
using SpringLoft.Core.People;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Letters;
using SpringLoft.Store.Naming;
using SpringLoft.Store.People;
using SpringLoft.Store.Plans;
using SpringLoft.Store.School;
using SpringLoft.Store.Years;

namespace SpringLoft.Demo;

/// <summary>
/// Skerry Point School on an invented island: some 260 students, 16 staff, three school years, one of them in the loft,
/// one near its end and untidy, one being planned. The same every time.
/// </summary>
public static class DemoSchool
{
    /// <summary>First password of every student; it must be changed at the first sign-in.</summary>
    public const string StudentPassword = "tide-pool-lantern";

    /// <summary>Password of coordinator and teachers in the demo.</summary>
    public const string StaffPassword = "harbour-kiln-seven";

    private const string SchoolName = "Skerry Point School";

    /// <summary>The student whose sign-in is printed.</summary>
    public const string StudentUserName = "s1001";

    /// <summary>Makes the school in an empty database; finds it made otherwise.</summary>
    /// <param name="say">Told what is being made.</param>
    /// <returns>The sign-ins, to be printed.</returns>
    /// <exception cref="InvalidOperationException">The database holds a real school.</exception>
    public static string MakeOnce(Premises premises, ClosingRunner runner, Action<string> say)
    {
        if (premises.Db.Read(SchoolStore.Get) is { } there)
        {
            if (!there.IsDemo) throw new InvalidOperationException($"The data folder holds a real school, {there.Name}. Give the demo a folder of its own with SPRING_LOFT_DATA.");
            return SignIns();
        }
        say("Making the demo school …");
        var people = Ground(premises);
        new DemoYears(premises, runner, people).Make(say);
        // What was written about last year's closings was read last year.
        premises.Db.Write(c =>
        {
            foreach (var l in LetterStore.Newest(c, int.MaxValue)) LetterStore.Sent(c, l.Id, l.WrittenAt);
            LetterStore.RemoveBefore(c, premises.Clock.Now + Duration.FromDays(1));
        });
        return SignIns();
    }

    private static string SignIns() =>
        $"""

        Skerry Point School. Sign in as
          coordinator  wren      {StaffPassword}
          teacher      oisin     {StaffPassword}
          student      {StudentUserName}     {StudentPassword}   (asked for a new password the first time)

        """;

    private static DemoPeople Ground(Premises premises) => premises.Db.Write(c =>
    {
        SchoolStore.Set(c, new SchoolRow
        {
            Name = SchoolName,
            Zone = "Etc/UTC",
            ClassNamePattern = ClassName.DefaultPattern,
            UploadLimitBytes = 2L * 1024 * 1024 * 1024,
            IsDemo = true,
        });
        foreach (var year in DemoCalendar.Years) YearStore.Add(c, year);
        foreach (var plan in ShippedPlans.All) PlanStore.Add(c, plan, premises.Clock.Now);
        ScaleStore.Add(c, "Letters", new("Letters", [new("A", 5), new("B", 4), new("C", 3), new("D", 2), new("E", 1)], []));
        ScaleStore.Add(c, "Words of the workshop", new("Words of the workshop", [new("holds water", 3, "It could be sold on the quay."), new("holds", 2), new("leaks", 1)], []));
        foreach (var o in DemoCourses.All) SchoolStore.CourseNamed(c, o.Name, o.Mark, o.Department);

        // One hash for all who share a password: hashing 276 times would only slow the first start.
        var staffHash = SigningIn.Hash(StaffPassword);
        var studentHash = SigningIn.Hash(StudentPassword);
        Person Staff(SchoolRole role, string given, string family, string userName)
        {
            var id = PersonStore.Add(c, new PersonRow { Role = role, Given = given, Family = family, UserName = userName, Email = $"{userName}@skerrypoint.invalid", RecordId = role == SchoolRole.Coordinator ? null : $"skt-{userName}", School = SchoolName });
            PersonStore.SetPassword(c, id, staffHash, mustChange: false, null, premises.Clock.Now);
            return new(id, role, new PersonName(given, family), null, "");
        }
        Staff(SchoolRole.Coordinator, "Wren", "Aldersund", "wren");
        string UserName(string given) => PersonName.SearchKey(given).Replace(" ", "", StringComparison.Ordinal);
        var teachers = DemoNames.Teachers.Select(t => Staff(SchoolRole.Teacher, t.Given, t.Family, UserName(t.Given))).ToList();
        var others = DemoNames.OtherStaff.Select(t => Staff(SchoolRole.Teacher, t.Given, t.Family, UserName(t.Given) + UserName(t.Family)[..1])).ToList();

        var random = new Random(1871);
        var used = new HashSet<string>();
        var students = new List<Person>();
        for (var n = 0; n < 260; n++)
        {
            string given, family;
            do
            {
                given = DemoNames.Given[random.Next(DemoNames.Given.Length)];
                family = DemoNames.Family[random.Next(DemoNames.Family.Length)];
            }
            while (!used.Add($"{given} {family}") && n != 77);
            var grade = (5 + (n % 6)).ToString(CultureInfo.InvariantCulture);
            var number = (1001 + n).ToString(CultureInfo.InvariantCulture);
            var id = PersonStore.Add(c, new PersonRow { Role = SchoolRole.Student, Given = given, Family = family, Grade = grade, StudentNumber = number, UserName = $"s{number}", RecordId = $"skp-{number}", School = SchoolName });
            PersonStore.SetPassword(c, id, studentHash, mustChange: true, null, premises.Clock.Now, StudentPassword);
            students.Add(new(id, SchoolRole.Student, new PersonName(given, family), grade, number));
        }
        DemoFamilies.Add(c, students, premises.Clock.Now);
        // Somebody typed in a student who was there already: one child, two accounts.
        var twice = students[11].Name;
        PersonStore.Add(c, new PersonRow { Role = SchoolRole.Student, Given = twice.Given, Family = twice.Family.Replace("ss", "s", StringComparison.Ordinal) + (twice.Family.Contains("ss", StringComparison.Ordinal) ? "" : "e"), Grade = students[11].Grade, UserName = "visitor-11", School = SchoolName });
        return new DemoPeople(teachers, others, students);
    });
}

/// <summary>A person of the demo.</summary>
internal sealed record Person(PersonId Id, SchoolRole Role, PersonName Name, string? Grade, string Number);

/// <summary>Everybody of the demo but the coordinator.</summary>
internal sealed record DemoPeople(IReadOnlyList<Person> Teachers, IReadOnlyList<Person> Others, IReadOnlyList<Person> Students);
