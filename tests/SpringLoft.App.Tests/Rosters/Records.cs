using System.Text;

namespace SpringLoft.App.Tests.Rosters;

/// <summary>A school's records that change from delivery to delivery: students spread over classes of one course by turns, one teacher.</summary>
internal sealed class Records
{
    private readonly int classes;
    private readonly HashSet<string> staff = [];
    private readonly List<(string Id, string Given, string Family, string Number, string Grade, int Class)> students = [];

    internal Records(int students, int classes)
    {
        this.classes = classes;
        for (var i = 0; i < students; i++) this.students.Add(($"s{i}", $"Stu{i}", $"Dent{i}", $"{2000 + i}", "6", i % classes));
    }

    internal Records Gone(int i) => Change(i, null);

    internal Records Moved(int i, int k) => Change(i, s => s with { Class = k == s.Class ? (k + 1) % classes : k });

    internal Records Grade(int i, string grade) => Change(i, s => s with { Grade = grade });

    /// <summary>The records give a student the number of another, who has none now.</summary>
    internal Records NumberOf(int i, int other)
    {
        var number = $"{2000 + other}";
        Change(other, s => s with { Number = "" });
        return Change(i, s => s with { Number = number });
    }

    /// <summary>The records call a student staff.</summary>
    internal Records Staff(int i)
    {
        staff.Add($"s{i}");
        return this;
    }

    internal Records Added(string given, string family)
    {
        students.Add(($"a{students.Count}", given, family, $"{3000 + students.Count}", "6", 0));
        return this;
    }

    internal MemoryStream Bundle()
    {
        var users = new StringBuilder("sourcedId,role,givenName,familyName,identifier,grades\nt0,teacher,Tea,Cher,,\n");
        var enrollments = new StringBuilder("sourcedId,classSourcedId,userSourcedId,role,primary\n");
        foreach (var s in students)
        {
            users.AppendLine($"{s.Id},{(staff.Contains(s.Id) ? "teacher" : "student")},{s.Given},{s.Family},{s.Number},{s.Grade}");
            enrollments.AppendLine($"e-{s.Id}-{s.Class},k{s.Class},{s.Id},{(staff.Contains(s.Id) ? "teacher" : "student")},false");
        }
        var k = new StringBuilder("sourcedId,title,courseSourcedId,classCode,periods\n");
        for (var i = 0; i < classes; i++)
        {
            k.AppendLine($"k{i},Class,c0,S{i},{i + 1}");
            enrollments.AppendLine($"e-t0-{i},k{i},t0,teacher,true");
        }
        return Zip.Of(("users.csv", users.ToString()), ("courses.csv", "sourcedId,title\nc0,Course 0\n"), ("classes.csv", k.ToString()), ("enrollments.csv", enrollments.ToString()));
    }

    private Records Change(int i, Func<(string Id, string Given, string Family, string Number, string Grade, int Class), (string, string, string, string, string, int)>? to)
    {
        var at = students.FindIndex(s => s.Id == $"s{i}");
        if (to is null) students.RemoveAt(at);
        else students[at] = to(students[at]);
        return this;
    }
}
