using System.Globalization;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Csv;
using SpringLoft.Formats.OneRoster;
using SpringLoft.Store.Naming;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Rosters;

/// <summary>Rosters going out, in open formats.</summary>
public sealed class RostersOut(Premises premises)
{
    /// <summary>All rosters of a year as a OneRoster 1.2 bundle.</summary>
    public Download Bundle(YearId id)
    {
        var bundle = Of(id);
        var file = premises.Files.Scratch();
        OneRosterRosters.Write(file, bundle, premises.Clock.Now);
        file.Position = 0;
        return new Download("oneroster-rosters.zip", file, file.Length);
    }

    /// <summary>All rosters of a year.</summary>
    public OutBundle Of(YearId id) => premises.Db.Read(c => Gather(c, id));

    /// <summary>The roster of one class as a plain table that spreadsheets open.</summary>
    public Download Table(ClassId id) => premises.Db.Read(c =>
    {
        var k = ClassStore.Find(c, id) ?? throw Refusals.NotFound("class");
        return Table($"{k.Name}, roster.csv", Rows(c, k));
    });

    /// <summary>All rosters of a year as one such table, class by class; it can be sent in again as a delivery.</summary>
    public Download Table(YearId id) => premises.Db.Read(c =>
    {
        var year = YearStore.All(c).FirstOrDefault(y => y.Id == id) ?? throw Refusals.NotFound("school year");
        return Table($"rosters {year.Year.Label}.csv", ClassStore.OfYear(c, id).SelectMany(k => Rows(c, k)));
    });

    private static Download Table(string name, IEnumerable<IReadOnlyList<string?>> rows)
    {
        var bytes = new MemoryStream(CsvTable.Write(["class", "family name", "given name", "student number", "grade", "user name", "e-mail", "role in class", "since"], rows));
        return new Download(name, bytes, bytes.Length);
    }

    private IEnumerable<IReadOnlyList<string?>> Rows(IDbConnection c, ClassRow k)
    {
        var emails = RosterStore.Emails(c, k.Id);
        return RosterStore.Members(c, k.Id).Where(m => m.LeftAt is null).Select(m => new[]
        {
            k.Name, m.Family, m.Given, m.StudentNumber, m.Grade, m.UserName, emails.GetValueOrDefault(m.PersonId),
            InWords.Of(m.Role),
            premises.Clock.DateOf(m.JoinedAt).ToString("uuuu-MM-dd", CultureInfo.InvariantCulture),
        });
    }

    private static OutBundle Gather(IDbConnection c, YearId id)
    {
        var year = YearStore.All(c).FirstOrDefault(y => y.Id == id) ?? throw Refusals.NotFound("school year");
        var yearRef = $"year-{id.Value}";
        var classes = ClassStore.OfYear(c, id);
        var refs = classes.ToDictionary(k => k.Id, k => k.RecordId ?? $"class-{k.Id.Value}");
        var people = DeliveredStore.People(c).ToDictionary(p => p.Id, p => p);
        string Ref(PersonId p) => people[p].RecordId ?? $"person-{p.Value}";
        var members = DeliveredStore.Members(c, id).Where(m => !m.Left && refs.ContainsKey(m.Class)).ToList();
        return new(new("school", SchoolStore.Get(c)!.Name),
            [new(yearRef, year.Year.Label, "schoolYear", year.Year.First, year.Year.Last, null), .. year.Terms.Select(t => new OutSession($"term-{t.Id.Value}", t.Name, "term", t.FirstDay, t.LastDay, yearRef))],
            [.. classes.Select(k => (k.CourseId, k.Course)).Distinct().Select(o => new OutCourse($"course-{o.CourseId.Value}", o.Course))],
            [.. classes.Select(k => new OutClass(refs[k.Id], k.Name, $"course-{k.CourseId.Value}", k.Section, k.Room, k.Period, k.TermId is { } t ? [$"term-{t.Value}"] : [.. year.Terms.Select(x => $"term-{x.Id.Value}")]))],
            [.. people.Values.Where(p => p.Active).Select(p => new OutUser(Ref(p.Id), p.Given, p.Family, p.Role, p.StudentNumber, p.Email, p.UserName, p.Grade, true))],
            [.. members.Where(m => people[m.Person].Active).Select(m => new OutEnrollment($"{refs[m.Class]}-{Ref(m.Person)}", refs[m.Class], Ref(m.Person), m.Role, null))]);
    }
}
