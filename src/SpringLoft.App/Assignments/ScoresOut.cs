using System.Globalization;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Csv;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Assignments;

/// <summary>Scores as a table for other programs: a student a row with number and section, an assignment a column.</summary>
public sealed class ScoresOut(Premises premises)
{
    private static readonly string[] about = ["student number", "e-mail", "family name", "given name", "class"];

    /// <summary>Of one class.</summary>
    public Download OfClass(Caller who, ClassId id) => premises.Db.Read(c =>
    {
        var at = ClassGate.Demand(c, who, id, Act.Mark);
        return Table(c, $"{at.Class.Name}, scores.csv", [at.Class]);
    });

    /// <summary>Of all sections of a combined roster: the assignments of one title are one column.</summary>
    public Download OfCombined(Caller who, long combined) => premises.Db.Read(c =>
    {
        var row = Rosters.CombinedRosters.Find(c, who, combined);
        return Table(c, $"{row.Name}, scores.csv", [.. CombinedStore.Sections(c, combined).Where(s => ClassGate.May(c, who, s.Class, Act.Mark)).Select(s => ClassStore.Find(c, s.Class)!)]);
    });

    // Marks that were returned, and no others: a draft mark is not a mark. Figures with a point, whatever the reader's language.
    private static Download Table(IDbConnection c, string name, IReadOnlyList<ClassRow> classes)
    {
        var columns = new List<(string Key, string Head)>();
        var rows = new List<(ClassRow Class, MemberRow Member, string? Email, Dictionary<string, decimal> Scores)>();
        foreach (var k in classes)
        {
            var assignments = AssignmentStore.OfClass(c, k.Id).Where(a => a is { PublishedAt: not null, Points: not null }).ToDictionary(a => a.Id);
            foreach (var a in assignments.Values.Where(a => columns.TrueForAll(x => x.Key != SafeName.Key(a.Title))))
                columns.Add((SafeName.Key(a.Title), $"{a.Title} ({Figure(a.Points!.Value)})"));
            var emails = RosterStore.Emails(c, k.Id);
            var work = WorkStore.OfClass(c, k.Id).Where(w => w.ReturnedScore is not null && assignments.ContainsKey(w.AssignmentId)).ToLookup(w => w.StudentId);
            rows.AddRange(RosterStore.Members(c, k.Id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null).Select(m => (k, m, emails.GetValueOrDefault(m.PersonId),
                work[m.PersonId].ToDictionary(w => SafeName.Key(assignments[w.AssignmentId].Title), w => w.ReturnedScore!.Value))));
        }
        var bytes = new MemoryStream(CsvTable.Write([.. about, .. columns.Select(x => x.Head)], rows.Select(r => (IReadOnlyList<string?>)
            [r.Member.StudentNumber, r.Email, r.Member.Family, r.Member.Given, r.Class.Name, .. columns.Select(x => r.Scores.TryGetValue(x.Key, out var score) ? Figure(score) : null)])));
        return new Download(SafeName.Make(name)?.Name ?? "scores.csv", bytes, bytes.Length);
    }

    private static string Figure(decimal n) => n.ToString("0.############", CultureInfo.InvariantCulture);
}
