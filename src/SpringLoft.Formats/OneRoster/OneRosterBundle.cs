using System.IO.Compression;
using NodaTime;
using NodaTime.Text;
using SpringLoft.Core;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Csv;

namespace SpringLoft.Formats.OneRoster;

/// <summary>A bundle that was read.</summary>
/// <param name="Version">As its manifest says, "1.1" or "1.2"; null without one.</param>
/// <param name="Findings">The first <see cref="OneRosterBundle.MostFindings"/> of all.</param>
/// <param name="AllFindings">How many there are in all.</param>
public sealed record ReadBundle(RosterDelivery Delivery, string? Version, IReadOnlyList<DeliveryFinding> Findings, int AllFindings);

/// <summary>
/// Reads a bundle of rosters as OneRoster 1.1 and 1.2 write it (1EdTech, "OneRoster CSV Binding"): a zip with manifest.csv,
/// academicSessions.csv, orgs.csv, courses.csv, classes.csv, users.csv, roles.csv (1.2) and enrollments.csv. File and column
/// names are written here from memory of those documents. A row that can't be taken is told and left out; the others come.
/// </summary>
public sealed class OneRosterBundle
{
    /// <summary>Findings that are told one by one; more are only counted.</summary>
    public const int MostFindings = 1000;

    private const long MostBytes = 1024L * 1024 * 1024;
    private static readonly string[] Known = ["manifest.csv", "academicSessions.csv", "orgs.csv", "courses.csv", "classes.csv", "users.csv", "roles.csv", "enrollments.csv"];
    private static readonly Dictionary<string, SchoolRole> SchoolRoles = new(StringComparer.OrdinalIgnoreCase)
    {
        ["student"] = SchoolRole.Student,
        ["teacher"] = SchoolRole.Teacher,
        ["administrator"] = SchoolRole.Staff,
        ["aide"] = SchoolRole.Teacher,
        ["proctor"] = SchoolRole.Staff,
        ["districtAdministrator"] = SchoolRole.Staff,
        ["siteAdministrator"] = SchoolRole.Staff,
        ["systemAdministrator"] = SchoolRole.Staff,
        ["principal"] = SchoolRole.Staff,
        ["counselor"] = SchoolRole.Staff,
    };

    // Who is at home with students; "relative" is 1.1's.
    private static readonly HashSet<string> FamilyRoles = new(StringComparer.OrdinalIgnoreCase) { "parent", "guardian", "relative" };

    private readonly ZipArchive zip;
    private readonly List<DeliveryFinding> findings = [];
    private readonly Dictionary<string, string> manifest = new(StringComparer.OrdinalIgnoreCase);
    private int allFindings;

    private OneRosterBundle(ZipArchive zip) => this.zip = zip;

    /// <summary>Reads a bundle.</summary>
    /// <param name="from">A zip, seekable; files may stand in a folder inside it.</param>
    /// <exception cref="RefusedException"><c>zip-…</c>, <c>table-…</c>, <c>oneroster-nothing</c> for a zip without any roster.</exception>
    public static ReadBundle Read(Stream from)
    {
        ZipArchive zip;
        try { zip = Zips.ReadZip.Open(from); }
        catch (InvalidDataException) { throw new RefusedException("zip-broken", "The zip can't be read: it is broken, or no zip at all.", "Export it again and send it once more.", "file"); }
        using (zip)
        {
            Zips.ReadZip.CheckExpansion(zip.Entries.Sum(e => e.Length), from.Length);
            return new OneRosterBundle(zip).ReadAll();
        }
    }

    private ReadBundle ReadAll()
    {
        if (zip.Entries.Sum(e => e.Length) is var bytes && bytes > MostBytes) throw new RefusedException("zip-expands", $"Unpacked, the zip is {bytes / (1024 * 1024)} MB.", $"Send up to {MostBytes / (1024 * 1024)} MB.", "file");
        Rows("manifest.csv", ["propertyName", "value"], r => { if (r["propertyName"] is { } name) manifest[name] = r["value"] ?? ""; });
        if (!new[] { "users.csv", "classes.csv", "enrollments.csv" }.Any(Has))
            throw new RefusedException("oneroster-nothing", $"There is no users.csv, classes.csv or enrollments.csv in the zip. It holds: {string.Join(", ", zip.Entries.Take(10).Select(e => e.FullName))}.", "Export rosters as a OneRoster CSV bundle.", "file");
        foreach (var e in zip.Entries.Where(e => e.Name.EndsWith(".csv", StringComparison.OrdinalIgnoreCase) && !Known.Contains(e.Name, StringComparer.OrdinalIgnoreCase)))
            Finding(e.Name, 0, "", "is not read: rosters do not need it.");
        var schools = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        Rows("orgs.csv", ["sourcedId", "name"], r => { if (r["sourcedId"] is { } id && r["name"] is { } name && Is(r["type"], "school")) schools[id] = name; });
        var (terms, first, last) = Sessions();
        var courses = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        Rows("courses.csv", ["sourcedId", "title"], r => { if (r["sourcedId"] is { } id && r["title"] is { } title) courses[id] = title; });
        var (people, contacts) = People(schools);
        var classes = Classes(courses, terms);
        var enrollments = Enrollments();
        return new(new RosterDelivery(people, classes, enrollments, List("users"), List("classes"), List("enrollments"), first, last) { Contacts = contacts }, manifest.GetValueOrDefault("oneroster.version"), findings, allFindings);
    }

    private (Dictionary<string, string> Terms, LocalDate? First, LocalDate? Last) Sessions()
    {
        var terms = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        LocalDate? first = null, last = null;
        Rows("academicSessions.csv", ["sourcedId", "title", "startDate", "endDate"], r =>
        {
            if (Gone(r) || r["sourcedId"] is not { } id || r["title"] is not { } title) return;
            if (Is(r["type"], "term") || Is(r["type"], "semester")) terms[id] = title;
            if (Date(r, "startDate") is { } starts && (first is null || starts < first)) first = starts;
            if (Date(r, "endDate") is { } ends && (last is null || ends > last)) last = ends;
        });
        return (terms, first, last);

        LocalDate? Date(CsvRow r, string column)
        {
            if (r[column] is not { } text) return null;
            if (LocalDatePattern.Iso.Parse(text) is { Success: true } day) return day.Value;
            Finding("academicSessions.csv", r.Line, column, $"“{text}” is no date like 2026-08-31: it is left out.");
            return null;
        }
    }

    private (List<DeliveredPerson> People, List<DeliveredContact> Contacts) People(Dictionary<string, string> schools)
    {
        var contacts = new List<DeliveredContact>();
        var atHome = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        // Either side may name the other.
        var children = new List<(string Contact, string Student)>();
        var roles = new Dictionary<string, SchoolRole>(StringComparer.OrdinalIgnoreCase);
        var isPrimary = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        Rows("roles.csv", ["userSourcedId", "role"], r =>
        {
            if (r["userSourcedId"] is not { } id || Gone(r)) return;
            if (r["role"] is { } family && FamilyRoles.Contains(family)) atHome.Add(id);
            if (r["role"] is not { } said || !SchoolRoles.TryGetValue(said, out var role)) return;
            // Of several roles the primary one counts.
            if (Is(r["roleType"], "primary") ? isPrimary.Add(id) : !roles.ContainsKey(id)) roles[id] = role;
        });
        var people = new List<DeliveredPerson>();
        var seen = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        var numbers = new Dictionary<string, int>(StringComparer.OrdinalIgnoreCase);
        var other = 0;
        Rows("users.csv", ["sourcedId", "givenName", "familyName"], r =>
        {
            const string file = "users.csv";
            if (Id(file, r, seen) is not { } id) return;
            var given = r["preferredGivenName"] ?? r["givenName"];
            var family = r["preferredFamilyName"] ?? r["familyName"];
            if (given is null && family is null) { Finding(file, r.Line, "familyName", "is empty, and so is givenName: the row is left out."); return; }
            var agents = (r["agentSourcedIds"] ?? r["agents"] ?? "").Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
            SchoolRole role;
            if (r["role"] is { } said)
            {
                if (!SchoolRoles.TryGetValue(said, out role))
                {
                    if (FamilyRoles.Contains(said)) { Contact(); return; }
                    Finding(file, r.Line, "role", $"“{said}” is no role that is known: the row is left out.");
                    return;
                }
            }
            else if (!roles.TryGetValue(id, out role))
            {
                if (atHome.Contains(id)) Contact();
                else other++;
                return;
            }
            var number = r["identifier"] is { } n && role == SchoolRole.Student ? n : null;
            if (number is not null && !numbers.TryAdd(number, r.Line)) { Finding(file, r.Line, "identifier", $"the student number {number} stands in line {numbers[number]} already: the row is left out."); return; }
            var email = Email();
            if (role == SchoolRole.Student) children.AddRange(agents.Select(a => (a, id)));
            var school = r["primaryOrgSourcedId"] ?? First(r["orgSourcedIds"]);
            var grade = First(r["grades"]);
            people.Add(new(id, id, PlainText.Name(given ?? ""), PlainText.Name(family ?? ""), role, grade is { Length: 2 } && grade[0] == '0' ? grade[1..] : grade, number, email, r["username"],
                school is not null ? schools.GetValueOrDefault(school) : null, Gone(r) || Is(r["enabledUser"], "false"), r.Line));
            // A teacher can be at home with a student too.
            if (atHome.Contains(id) && role != SchoolRole.Student) Contact();

            void Contact()
            {
                contacts.Add(new(id, PlainText.Name($"{given} {family}".Trim()), Email(), [], Gone(r), r.Line));
                children.AddRange(agents.Select(a => (id, a)));
            }

            string? Email()
            {
                if (r["email"] is not { } said) return null;
                if (said.Contains('@', StringComparison.Ordinal)) return said;
                Finding(file, r.Line, "email", $"“{said}” is no e-mail address: it is left out, the person comes.");
                return null;
            }
        });
        if (other > 0) Finding("users.csv", 0, "role", $"{other} people are neither students nor staff, nor contacts at home, and are left out.");
        var theirs = children.ToLookup(x => x.Contact, x => x.Student, StringComparer.OrdinalIgnoreCase);
        return (people, [.. contacts.Select(k => k with { Children = [.. theirs[k.Ref].Distinct(StringComparer.OrdinalIgnoreCase).Order(StringComparer.Ordinal)] })]);
    }

    private List<DeliveredClass> Classes(Dictionary<string, string> courses, Dictionary<string, string> terms)
    {
        var classes = new List<DeliveredClass>();
        var seen = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        Rows("classes.csv", ["sourcedId", "title"], r =>
        {
            if (Id("classes.csv", r, seen) is not { } id) return;
            var title = r["title"];
            var course = r["courseSourcedId"] is { } c ? courses.GetValueOrDefault(c) : null;
            if ((course ?? title) is not { } name) { Finding("classes.csv", r.Line, "title", "is empty, and no course gives one: the row is left out."); return; }
            // A class's own title says what its section is only where it says more than the course.
            var section = r["classCode"] ?? (course is not null && title is not null && !Is(title, course) ? title : null);
            var term = First(r["termSourcedIds"]);
            classes.Add(new(id, id, name, section, First(r["periods"]), r["location"], term is not null ? terms.GetValueOrDefault(term) : null, Gone(r), r.Line));
        });
        return classes;
    }

    private List<DeliveredEnrollment> Enrollments()
    {
        const string file = "enrollments.csv";
        // A row takes some forty bytes; lists that have to grow leave their smaller selves behind.
        var rows = (int)Math.Min(CsvRows.Most, (Entry(file)?.Length ?? 0) / 32);
        var enrollments = new List<DeliveredEnrollment>(rows);
        var seen = new HashSet<string>(rows, StringComparer.Ordinal);
        // The same ids come again and again; kept once each, a large school stays small in memory.
        var refs = new Dictionary<string, string>(StringComparer.Ordinal);
        string Once(string id) => refs.TryGetValue(id, out var known) ? known : refs[id] = id;
        int id = -1, status = -1, k = -1, user = -1, role = -1, primary = -1;
        Rows(file, ["sourcedId", "classSourcedId", "userSourcedId", "role"], r =>
        {
            if (r.At(id) is not { } own) { Finding(file, r.Line, "sourcedId", "is empty: the row is left out."); return; }
            if (!seen.Add(own)) { Finding(file, r.Line, "sourcedId", $"“{own}” stands there a second time: the row is left out."); return; }
            if (r.At(k) is not { } classId) { Finding(file, r.Line, "classSourcedId", "is empty: the row is left out."); return; }
            if (r.At(user) is not { } userId) { Finding(file, r.Line, "userSourcedId", "is empty: the row is left out."); return; }
            ClassRole asRole;
            if (Is(r.At(role), "student")) asRole = ClassRole.Student;
            else if (Is(r.At(role), "teacher")) asRole = Is(r.At(primary), "true") ? ClassRole.Lead : ClassRole.CoTeacher;
            else if (Is(r.At(role), "aide")) asRole = ClassRole.CoTeacher;
            else { Finding(file, r.Line, "role", $"“{r.At(role)}” has no place on a roster here: the row is left out."); return; }
            enrollments.Add(new(Once(classId), Once(userId), asRole, Is(r.At(status), "tobedeleted"), r.Line));
        }, c => (id, status, k, user, role, primary) = (c.At("sourcedId"), c.At("status"), c.At("classSourcedId"), c.At("userSourcedId"), c.At("role"), c.At("primary")));
        return enrollments;
    }

    private string? Id(string file, CsvRow r, HashSet<string> seen)
    {
        if (r["sourcedId"] is not { } id) { Finding(file, r.Line, "sourcedId", "is empty: the row is left out."); return null; }
        if (seen.Add(id)) return id;
        Finding(file, r.Line, "sourcedId", $"“{id}” stands there a second time: the row is left out.");
        return null;
    }

    // A bundle without a manifest is taken to be whole only where it says so.
    private DeliveredList? List(string name)
    {
        if (!Has($"{name}.csv")) return null;
        return new($"{name}.csv", manifest.Count == 0 || !Is(manifest.GetValueOrDefault($"file.{name}"), "delta"));
    }

    private bool Has(string file) => Entry(file) is not null;

    private ZipArchiveEntry? Entry(string file) => zip.Entries.FirstOrDefault(e => e.Name.Equals(file, StringComparison.OrdinalIgnoreCase) && !e.FullName.StartsWith("__MACOSX", StringComparison.Ordinal));

    private void Rows(string file, IReadOnlyList<string> needed, Action<CsvRow> row, Action<CsvColumns>? columns = null)
    {
        if (Entry(file) is not { } entry) return;
        if (entry.Length == 0) { Finding(file, 0, "", "has 0 bytes: it is taken as a list without anybody on it."); return; }
        // Unpacked aside, since the encoding is known only when all of it has been read.
        using var aside = entry.Length < 64 * 1024 * 1024 ? (Stream)new MemoryStream((int)entry.Length) : new FileStream(Path.GetTempFileName(), FileMode.Open, FileAccess.ReadWrite, FileShare.None, 65536, FileOptions.DeleteOnClose);
        try
        {
            using var open = new Zips.CheckedEntry(entry);
            open.CopyTo(aside);
        }
        catch (InvalidDataException) { throw new RefusedException("zip-broken", $"“{file}” in the zip is broken.", "Export it again and send it once more.", "file"); }
        var text = TextEncoding.Open(aside);
        if (text.Said is { } said) Finding(file, 0, "", $"is written in {said}, not in UTF-8: it was read so. Look whether accented letters are right.");
        CsvColumns? header = null;
        CsvRows.Each(text.Utf8, file, needed, c => { header = c; columns?.Invoke(c); }, r =>
        {
            if (r.Count > header!.Names.Count) Finding(file, r.Line, "", $"has {r.Count} fields where the header has {header.Names.Count}: what is over is left out.");
            row(r);
        });
    }

    private void Finding(string file, int line, string column, string text)
    {
        if (allFindings++ < MostFindings) findings.Add(new(file, line, column, text));
    }

    private static bool Gone(CsvRow r) => Is(r["status"], "tobedeleted");

    private static bool Is(string? said, string what) => string.Equals(said, what, StringComparison.OrdinalIgnoreCase);

    private static string? First(string? list) => list?.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries).FirstOrDefault();
}
