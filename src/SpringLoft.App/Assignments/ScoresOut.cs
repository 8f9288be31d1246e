using System.Globalization;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Csv;
using SpringLoft.Formats.OneRoster;
using SpringLoft.Formats.Scores;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.Assignments;

/// <summary>How scores leave.</summary>
public enum ScoreFormat
{
    /// <summary>A table: a student a row, an assignment a column.</summary>
    Table,
    /// <summary>Gradebook files of OneRoster 1.2.</summary>
    OneRoster,
}

/// <summary>Scores for other programs, by student number and section.</summary>
public sealed class ScoresOut(Premises premises)
{
    /// <summary>Of one class.</summary>
    public Download OfClass(Caller who, ClassId id, ScoreFormat format) => premises.Db.Read(c => Write(c, ScoreScope.OfClass(c, who, id), format));

    /// <summary>Of all sections of a combined roster: the assignments of one title are one column.</summary>
    public Download OfCombined(Caller who, long combined, ScoreFormat format) => premises.Db.Read(c => Write(c, ScoreScope.OfCombined(c, who, combined), format));

    // Marks that were returned, and no others: a draft mark is not a mark. Figures with a point, whatever the reader's language.
    private Download Write(IDbConnection c, ScoreScope scope, ScoreFormat format)
    {
        var bytes = format == ScoreFormat.OneRoster ? Gradebook(c, scope) : Table(c, scope);
        var name = $"{scope.Name}, scores.{(format == ScoreFormat.OneRoster ? "zip" : "csv")}";
        return new Download(SafeName.Make(name)?.Name ?? "scores", bytes, bytes.Length);
    }

    private static MemoryStream Table(IDbConnection c, ScoreScope scope)
    {
        var columns = new List<(string Key, string Head)>();
        var rows = new List<(string Class, MemberRow Member, string? Email, Dictionary<string, decimal> Scores)>();
        foreach (var k in scope.Sections)
        {
            var (assignments, work) = Marks(c, k.Class.Id);
            foreach (var a in assignments.Values.Where(a => columns.TrueForAll(x => x.Key != SafeName.Key(a.Title))))
                columns.Add((SafeName.Key(a.Title), $"{a.Title} ({Figure(a.Points!.Value)})"));
            var emails = RosterStore.Emails(c, k.Class.Id);
            rows.AddRange(ScoreScope.Students(c, k.Class.Id).Select(m => (k.Class.Name, m, emails.GetValueOrDefault(m.PersonId),
                work[m.PersonId].ToDictionary(w => SafeName.Key(assignments[w.AssignmentId].Title), w => w.ReturnedScore!.Value))));
        }
        return new MemoryStream(CsvTable.Write([.. PlainScores.About, .. columns.Select(x => x.Head)], rows.Select(r => (IReadOnlyList<string?>)
            [r.Member.StudentNumber, r.Email, r.Member.Family, r.Member.Given, r.Class, .. columns.Select(x => r.Scores.TryGetValue(x.Key, out var score) ? Figure(score) : null)])));
    }

    private MemoryStream Gradebook(IDbConnection c, ScoreScope scope)
    {
        var items = new List<GradebookItem>();
        var results = new List<GradebookResult>();
        foreach (var k in scope.Sections)
        {
            var (assignments, work) = Marks(c, k.Class.Id);
            items.AddRange(assignments.Values.Select(a => new GradebookItem(Item(a.Id), a.Title, a.Instructions, premises.Clock.LocalOf(a.PublishedAt!.Value).Date, a.DueOn, ScoreScope.SourcedId(k.Class), a.Points!.Value, a.Scheme)));
            foreach (var m in ScoreScope.Students(c, k.Class.Id))
            {
                var id = ScoreScope.SourcedId(PersonStore.Find(c, m.PersonId)!);
                results.AddRange(work[m.PersonId].Select(w => new GradebookResult(Item(w.AssignmentId), id, w.ReturnedScore!.Value, w.ReturnedAt is { } on ? premises.Clock.LocalOf(on).Date : null)));
            }
        }
        var bytes = new MemoryStream();
        OneRosterGradebook.Write(bytes, items, results, premises.Clock.Now);
        bytes.Position = 0;
        return bytes;
        static string Item(AssignmentId id) => $"assignment-{id.Value}";
    }

    private static (Dictionary<AssignmentId, AssignmentRow> Assignments, ILookup<PersonId, WorkRow> Work) Marks(IDbConnection c, ClassId id)
    {
        var assignments = AssignmentStore.OfClass(c, id).Where(a => a is { PublishedAt: not null, Points: not null }).ToDictionary(a => a.Id);
        return (assignments, WorkStore.OfClass(c, id).Where(w => w.ReturnedScore is not null && assignments.ContainsKey(w.AssignmentId)).ToLookup(w => w.StudentId));
    }

    private static string Figure(decimal n) => n.ToString("0.############", CultureInfo.InvariantCulture);
}
