using System.Globalization;
using System.IO.Compression;
using NodaTime;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Csv;

namespace SpringLoft.Formats.OneRoster;

/// <summary>A school of a bundle.</summary>
public sealed record OutOrg(string SourcedId, string Name);

/// <summary>A school year or term of a bundle.</summary>
/// <param name="Type">schoolYear or term.</param>
public sealed record OutSession(string SourcedId, string Title, string Type, LocalDate First, LocalDate Last, string? ParentId);

/// <summary>A course of a bundle.</summary>
public sealed record OutCourse(string SourcedId, string Title);

/// <summary>A class of a bundle.</summary>
public sealed record OutClass(string SourcedId, string Title, string CourseId, string? Code, string? Location, string? Period, IReadOnlyList<string> TermIds);

/// <summary>A person of a bundle.</summary>
public sealed record OutUser(string SourcedId, string Given, string Family, SchoolRole Role, string? Number, string? Email, string UserName, string? Grade, bool Enabled);

/// <summary>A place on a roster of a bundle.</summary>
public sealed record OutEnrollment(string SourcedId, string ClassId, string UserId, ClassRole Role, LocalDate? Begins);

/// <summary>All that goes out in a bundle of rosters.</summary>
public sealed record OutBundle(OutOrg Org, IReadOnlyList<OutSession> Sessions, IReadOnlyList<OutCourse> Courses, IReadOnlyList<OutClass> Classes, IReadOnlyList<OutUser> Users, IReadOnlyList<OutEnrollment> Enrollments);

/// <summary>
/// Writes rosters as a OneRoster 1.2 bundle (1EdTech, "OneRoster CSV Binding"). File and column names are written here
/// from memory of that document.
/// </summary>
public static class OneRosterRosters
{
    /// <summary>Writes a zip with every list whole.</summary>
    public static void Write(Stream to, OutBundle b, Instant at)
    {
        using var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true);
        void Add(string name, IReadOnlyList<string> header, IEnumerable<IReadOnlyList<string?>> rows)
        {
            var entry = zip.CreateEntry(name, CompressionLevel.Fastest);
            entry.LastWriteTime = at.ToDateTimeOffset();
            using var open = entry.Open();
            CsvTable.Write(open, header, rows);
        }
        string[] lists = ["academicSessions", "orgs", "courses", "classes", "users", "roles", "enrollments"];
        Add("manifest.csv", ["propertyName", "value"], [["manifest.version", "1.0"], ["oneroster.version", "1.2"], .. lists.Select(l => new[] { $"file.{l}", "bulk" }), ["source.systemName", "Spring Loft"]]);
        Add("academicSessions.csv", ["sourcedId", "status", "dateLastModified", "title", "type", "startDate", "endDate", "parentSourcedId", "schoolYear"],
            b.Sessions.Select(s => new[] { s.SourcedId, null, null, s.Title, s.Type, Iso(s.First), Iso(s.Last), s.ParentId, b.Sessions.Max(x => x.Last.Year).ToString(CultureInfo.InvariantCulture) }));
        Add("orgs.csv", ["sourcedId", "status", "dateLastModified", "name", "type", "identifier", "parentSourcedId"], [[b.Org.SourcedId, null, null, b.Org.Name, "school", null, null]]);
        Add("courses.csv", ["sourcedId", "status", "dateLastModified", "schoolYearSourcedId", "title", "courseCode", "grades", "orgSourcedId", "subjects", "subjectCodes"],
            b.Courses.Select(c => new[] { c.SourcedId, null, null, null, c.Title, null, null, b.Org.SourcedId, null, null }));
        Add("classes.csv", ["sourcedId", "status", "dateLastModified", "title", "grades", "courseSourcedId", "classCode", "classType", "location", "schoolSourcedId", "termSourcedIds", "subjects", "subjectCodes", "periods"],
            b.Classes.Select(k => new[] { k.SourcedId, null, null, k.Title, null, k.CourseId, k.Code, "scheduled", k.Location, b.Org.SourcedId, string.Join(",", k.TermIds), null, null, k.Period }));
        Add("users.csv", ["sourcedId", "status", "dateLastModified", "enabledUser", "username", "userIds", "givenName", "familyName", "middleName", "identifier", "email", "sms", "phone", "agentSourcedIds", "grades", "password", "userMasterIdentifier", "resourceSourcedIds", "preferredGivenName", "preferredMiddleName", "preferredFamilyName", "primaryOrgSourcedId", "pronouns"],
            b.Users.Select(u => new[] { u.SourcedId, null, null, u.Enabled ? "true" : "false", u.UserName, null, u.Given, u.Family, null, u.Number, u.Email, null, null, null, u.Grade, null, null, null, null, null, null, b.Org.SourcedId, null }));
        Add("roles.csv", ["sourcedId", "status", "dateLastModified", "userSourcedId", "roleType", "role", "beginDate", "endDate", "orgSourcedId", "userProfileSourcedId"],
            b.Users.Select(u => new[] { $"role-{u.SourcedId}", null, null, u.SourcedId, "primary", Role(u.Role), null, null, b.Org.SourcedId, null }));
        Add("enrollments.csv", ["sourcedId", "status", "dateLastModified", "classSourcedId", "schoolSourcedId", "userSourcedId", "role", "primary", "beginDate", "endDate"],
            b.Enrollments.Select(e => new[] { e.SourcedId, null, null, e.ClassId, b.Org.SourcedId, e.UserId, e.Role == ClassRole.Student ? "student" : "teacher", e.Role == ClassRole.Lead ? "true" : "false", e.Begins is { } d ? Iso(d) : null, null }));
    }

    private static string Role(SchoolRole role) => role switch { SchoolRole.Student => "student", SchoolRole.Teacher => "teacher", _ => "siteAdministrator" };

    private static string Iso(LocalDate d) => d.ToString("uuuu-MM-dd", CultureInfo.InvariantCulture);
}
