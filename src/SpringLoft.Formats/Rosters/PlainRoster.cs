using SpringLoft.Core;
using SpringLoft.Core.Naming;
using SpringLoft.Core.People;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Csv;

namespace SpringLoft.Formats.Rosters;

/// <summary>What a column of a plain table may say.</summary>
public enum RosterColumn { Nothing, RecordId, StudentNumber, Given, Family, Name, Grade, Email, UserName, School, Role, Class, ClassRole }

/// <summary>A column of a table: its name, what it is taken for, and what stands in it.</summary>
/// <param name="Examples">The first few values.</param>
public sealed record ColumnGuess(string Name, RosterColumn Is, IReadOnlyList<string> Examples);

/// <summary>A plain table of people, or of people and their classes, as any school can export it.</summary>
public static class PlainRoster
{
    private const int MostFindings = 1000;

    private static readonly Dictionary<string, RosterColumn> Names = new(StringComparer.Ordinal)
    {
        ["record id"] = RosterColumn.RecordId,
        ["sourcedid"] = RosterColumn.RecordId,
        ["student number"] = RosterColumn.StudentNumber,
        ["number"] = RosterColumn.StudentNumber,
        ["student id"] = RosterColumn.StudentNumber,
        ["identifier"] = RosterColumn.StudentNumber,
        ["id"] = RosterColumn.StudentNumber,
        ["given"] = RosterColumn.Given,
        ["given name"] = RosterColumn.Given,
        ["givenname"] = RosterColumn.Given,
        ["first name"] = RosterColumn.Given,
        ["first"] = RosterColumn.Given,
        ["forename"] = RosterColumn.Given,
        ["family"] = RosterColumn.Family,
        ["family name"] = RosterColumn.Family,
        ["familyname"] = RosterColumn.Family,
        ["last name"] = RosterColumn.Family,
        ["last"] = RosterColumn.Family,
        ["surname"] = RosterColumn.Family,
        ["name"] = RosterColumn.Name,
        ["student"] = RosterColumn.Name,
        ["full name"] = RosterColumn.Name,
        ["grade"] = RosterColumn.Grade,
        ["grades"] = RosterColumn.Grade,
        ["year group"] = RosterColumn.Grade,
        ["e mail"] = RosterColumn.Email,
        ["email"] = RosterColumn.Email,
        ["user name"] = RosterColumn.UserName,
        ["username"] = RosterColumn.UserName,
        ["school"] = RosterColumn.School,
        ["role"] = RosterColumn.Role,
        ["class"] = RosterColumn.Class,
        ["class name"] = RosterColumn.Class,
        ["role in class"] = RosterColumn.ClassRole,
    };

    /// <summary>Says what each column is taken for by its name; a person confirms it.</summary>
    /// <param name="from">Seekable.</param>
    /// <exception cref="RefusedException"><c>table-…</c>.</exception>
    public static IReadOnlyList<ColumnGuess> Columns(Stream from, string file)
    {
        var text = TextEncoding.Open(from);
        IReadOnlyList<string> names = [];
        var examples = new List<List<string>>();
        try
        {
            CsvRows.Each(text.Utf8, file, [], c => { names = c.Names; examples = [.. names.Select(_ => new List<string>())]; }, r =>
            {
                for (var i = 0; i < names.Count; i++) if (r.At(i) is { } v && examples[i].Count < 3) examples[i].Add(v);
                if (r.Line > 50) throw new EnoughException();
            });
        }
        catch (EnoughException) { /* the first rows say what stands in a column */ }
        var used = new HashSet<RosterColumn>();
        return [.. names.Select((n, i) => new ColumnGuess(n, Names.GetValueOrDefault(PersonName.SearchKey(n)) is var g and not RosterColumn.Nothing && used.Add(g) ? g : RosterColumn.Nothing, examples[i]))];
    }

    /// <summary>Reads people, and the classes they are in where a column says so.</summary>
    /// <param name="columns">What each column is, in the order of the file.</param>
    /// <param name="whole">True if who is not in the table is no longer there; false if it only adds and changes.</param>
    /// <exception cref="RefusedException"><c>table-…</c>; <c>columns-needed</c> if nothing says who is meant.</exception>
    public static (RosterDelivery Delivery, IReadOnlyList<DeliveryFinding> Findings, int AllFindings) Read(Stream from, string file, IReadOnlyList<RosterColumn> columns, bool whole)
    {
        int At(RosterColumn c) => columns.ToList().IndexOf(c);
        if (columns.Where(c => c != RosterColumn.Nothing).GroupBy(c => c).FirstOrDefault(g => g.Count() > 1) is { } twice)
            throw new RefusedException("columns-needed", $"Two columns are taken for the {twice.Key}.", "Choose one of them.", "columns");
        if (At(RosterColumn.Name) < 0 && At(RosterColumn.Family) < 0 && At(RosterColumn.StudentNumber) < 0 && At(RosterColumn.Email) < 0 && At(RosterColumn.RecordId) < 0)
            throw new RefusedException("columns-needed", "No column says who is meant.", "Say which column is the name, the student number or the e-mail.", "columns");
        var at = Enum.GetValues<RosterColumn>().ToDictionary(c => c, At);
        var people = new Dictionary<string, DeliveredPerson>(StringComparer.OrdinalIgnoreCase);
        var classes = new Dictionary<string, DeliveredClass>(StringComparer.OrdinalIgnoreCase);
        var enrollments = new List<DeliveredEnrollment>();
        var findings = new List<DeliveryFinding>();
        var all = 0;
        void Finding(int line, string column, string text) { if (all++ < MostFindings) findings.Add(new(file, line, column, text)); }
        var read = TextEncoding.Open(from);
        if (read.Said is { } said) Finding(0, "", $"is written in {said}, not in UTF-8: it was read so. Look whether accented letters are right.");
        CsvRows.Each(read.Utf8, file, [], _ => { }, r =>
        {
            if (Person(r, at, Finding) is not { } p) return;
            var known = people.TryGetValue(p.Ref, out var before) ? before : people[p.Ref] = p;
            if (before is not null && at[RosterColumn.Class] < 0) { Finding(r.Line, "", $"{p.Given} {p.Family} stands in line {before.Line} already: the row is left out."); return; }
            if (Cell(r, at, RosterColumn.Class) is not { } k) return;
            classes.TryAdd(k, new(k, null, k, null, null, null, null, false, r.Line));
            var role = p.Role == SchoolRole.Student ? ClassRole.Student : Said(Cell(r, at, RosterColumn.ClassRole), "lead") ? ClassRole.Lead : ClassRole.CoTeacher;
            enrollments.Add(new(k, known.Ref, role, false, r.Line));
        });
        var hasClasses = at[RosterColumn.Class] >= 0;
        // A table of classes does not claim to name everybody of the school.
        return (new([.. people.Values], [.. classes.Values], enrollments, new(file, whole && !hasClasses), hasClasses ? new(file, false) : null, hasClasses ? new(file, whole) : null, null, null), findings, all);
    }

    private static DeliveredPerson? Person(CsvRow r, Dictionary<RosterColumn, int> at, Action<int, string, string> finding)
    {
        var (given, family) = (Cell(r, at, RosterColumn.Given), Cell(r, at, RosterColumn.Family));
        if (given is null && family is null && Cell(r, at, RosterColumn.Name) is { } name)
        {
            var comma = name.IndexOf(',', StringComparison.Ordinal);
            var space = name.LastIndexOf(' ');
            (given, family) = comma > 0 ? (name[(comma + 1)..].Trim(), name[..comma].Trim()) : space > 0 ? (name[..space].Trim(), name[(space + 1)..]) : ("", name);
        }
        var (number, email, record, user) = (Cell(r, at, RosterColumn.StudentNumber), Cell(r, at, RosterColumn.Email), Cell(r, at, RosterColumn.RecordId), Cell(r, at, RosterColumn.UserName));
        if (given is null && family is null) { finding(r.Line, "name", "is empty: the row is left out."); return null; }
        if (email is not null && !email.Contains('@', StringComparison.Ordinal)) { finding(r.Line, "e-mail", $"“{email}” is no e-mail address: it is left out, the person comes."); email = null; }
        // Without a word about the school, who teaches a class is no student.
        var said = Cell(r, at, RosterColumn.Role) ?? (Cell(r, at, RosterColumn.ClassRole) is { } inClass && (Said(inClass, "teacher") || Said(inClass, "lead") || Said(inClass, "staff")) ? "teacher" : null);
        SchoolRole role;
        if (said is null || Said(said, "student") || Said(said, "pupil")) role = SchoolRole.Student;
        else if (Said(said, "teacher") || Said(said, "staff") || Said(said, "coordinator") || Said(said, "lead")) role = SchoolRole.Teacher;
        else { finding(r.Line, "role", $"“{said}” is neither student nor teacher: the row is left out."); return null; }
        var key = record ?? (number is not null ? $"number {number}" : email is not null ? $"e-mail {email}" : $"{given} {family}, grade {Cell(r, at, RosterColumn.Grade)}");
        return new(key, record, given ?? "", family ?? "", role, Cell(r, at, RosterColumn.Grade), number, email, user, Cell(r, at, RosterColumn.School), false, r.Line);
    }

    private static string? Cell(CsvRow r, Dictionary<RosterColumn, int> at, RosterColumn column) => r.At(at[column]) is { } v && PlainText.Name(v) is { Length: > 0 } text ? text : null;

    private static bool Said(string? text, string what) => text?.Contains(what, StringComparison.OrdinalIgnoreCase) == true;

    private sealed class EnoughException : Exception;
}
