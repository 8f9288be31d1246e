using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.OneRoster;
using SpringLoft.Formats.Scores;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.Assignments;

/// <summary>A mark that a file brings.</summary>
/// <param name="Counts">The mark that was returned last, which counts on until this one is returned.</param>
/// <param name="Draft">The draft mark that this one takes the place of.</param>
/// <param name="OnPaper">Nothing was handed in for it here.</param>
public sealed record ScoreChange(int Line, string Section, PersonId Student, string SortName, AssignmentId Assignment, string Title, decimal? Counts, decimal? Draft, decimal To, bool OnPaper);

/// <summary>What a file of scores would do, or has done.</summary>
/// <param name="Seen">Names exactly these changes; sent along when they are to be made.</param>
/// <param name="Same">Scores that say what stands there already.</param>
/// <param name="Findings">The first <see cref="ScoresIn.MostFindings"/> of what does not come in.</param>
/// <param name="AllFindings">How many there are in all.</param>
/// <param name="Import">By what it is taken back; null where nothing was written.</param>
public sealed record ScoresRead(string Seen, IReadOnlyList<ScoreChange> Changes, int Same, IReadOnlyList<ScoreFinding> Findings, int AllFindings, long? Import);

/// <summary>What taking back did.</summary>
/// <param name="Stayed">Marks that were returned, or given anew, since: they stay.</param>
public sealed record ScoresTakenBack(int TakenBack, int Stayed);

/// <summary>Scores from other programs: shown first, in as draft marks, taken back in one act.</summary>
public sealed class ScoresIn(Premises premises)
{
    /// <summary>Findings that are told one by one; more are only counted.</summary>
    public const int MostFindings = 1000;

    /// <summary>Longest file in bytes.</summary>
    public const int MostBytes = 20 * 1024 * 1024;

    /// <summary>Says what a file does to a class, and does it where <paramref name="seen"/> names just that.</summary>
    /// <param name="seen">Of the preview; null to be shown it.</param>
    /// <exception cref="RefusedException"><c>changed-meanwhile</c>: it would do something else by now.</exception>
    public Task<ScoresRead> OfClass(Caller by, ClassId id, string? name, string? seen, Stream content, CancellationToken stop) => Read(c => ScoreScope.OfClass(c, by, id), by, name, seen, content, stop);

    /// <summary>The same of the sections of a combined roster.</summary>
    public Task<ScoresRead> OfCombined(Caller by, long combined, string? name, string? seen, Stream content, CancellationToken stop) => Read(c => ScoreScope.OfCombined(c, by, combined), by, name, seen, content, stop);

    /// <summary>Takes back what came in with a file, where it still stands as a draft.</summary>
    public ScoresTakenBack TakeBack(Caller by, long import) => premises.Db.Write(c =>
    {
        var marks = ScoreImportStore.Find(c, import) is { TakenBackAt: null } ? ScoreImportStore.Marks(c, import) : [];
        if (marks.Count == 0) throw Refusals.NotFound("set of scores");
        foreach (var id in marks.Select(m => m.ClassId).Distinct()) ClassGate.Demand(c, by, id, Act.Mark).NotArchived();
        var now = premises.Clock.Now;
        var back = 0;
        foreach (var of in marks.GroupBy(m => m.ClassId))
        {
            foreach (var m in of)
            {
                if (WorkStore.Find(c, m.ClassId, m.WorkId) is not { } row || row.Score != m.After || !WorkFlow.IsDraft(Returns.Fact(row))) continue;
                // Without a draft before, it is as it would be with none: what was returned counts on.
                var before = m.Before ?? (row.State == WorkState.Returned ? row.ReturnedScore : null);
                if (!WorkStore.Save(c, row with { Score = before })) throw Refusals.ChangedMeanwhile("work");
                if (m.Begun) WorkStore.RemoveEmpty(c, row.Id);
                back++;
            }
            Premises.Add(c, by, now, new("took scores back", "class", of.Key.Value, of.Key, $"{of.Count()} marks"));
        }
        ScoreImportStore.TakenBack(c, import, now);
        return new ScoresTakenBack(back, marks.Count - back);
    });

    private async Task<ScoresRead> Read(Func<IDbConnection, ScoreScope> scope, Caller by, string? name, string? seen, Stream content, CancellationToken stop)
    {
        var named = premises.Db.Read(c => scope(c).Sections.Select(s => (Id: ScoreScope.SourcedId(s.Class), s.Class.Name)).ToList());
        using var scratch = premises.Files.Scratch();
        await content.CopyToAsync(scratch, stop).ConfigureAwait(false);
        if (scratch.Length > MostBytes) throw new RefusedException("file-too-long", $"The file is longer than {MostBytes / (1024 * 1024)} MB.", "Send the scores alone, as a table.", "file");
        var file = Refusals.NotLonger(name?.Trim() ?? "", "name", "The name of the file", 255);
        // Read before anybody has to wait for it.
        scratch.Position = 0;
        var sheet = OneRosterGradebook.IsBundle(scratch) ? OneRosterGradebook.Read(scratch, id => named.Find(k => k.Id == id).Name) : PlainScores.Read(scratch, file.Length == 0 ? "the table" : file);
        return seen is null ? premises.Db.Read(c => Match(c, scope(c), sheet).View) : premises.Db.Write(c =>
        {
            var at = scope(c);
            foreach (var k in at.Sections) ClassGate.Demand(c, by, k.Class.Id, Act.Mark).NotArchived();
            var (view, steps) = Match(c, at, sheet);
            if (view.Seen != seen) throw Refusals.ChangedMeanwhile("score table");
            return view with { Import = steps.Count == 0 ? null : TakeIn(c, by, file.Length == 0 ? "scores" : file, steps) };
        });
    }

    private long TakeIn(IDbConnection c, Caller by, string file, IReadOnlyList<ScoreStep> steps)
    {
        var now = premises.Clock.Now;
        var import = ScoreImportStore.Add(c, file, by.Id, now);
        foreach (var of in steps.GroupBy(s => s.Class))
        {
            var into = AssignmentStore.OfClass(c, of.Key).ToDictionary(a => a.Id);
            foreach (var s in of)
            {
                var begun = WorkStore.Of(c, s.Assignment, s.Student) is null;
                var row = WorkStore.Begin(c, s.Class, s.Assignment, s.Student);
                var fact = WorkFlow.Mark(Returns.Fact(row), s.To, new(ClassState.Open, true, true, into[s.Assignment].Points, Scheme: into[s.Assignment].Scheme));
                if (!WorkStore.Save(c, row.With(fact))) throw Refusals.ChangedMeanwhile("work");
                ScoreImportStore.AddMark(c, import, new() { WorkId = row.Id, ClassId = s.Class, Before = WorkFlow.IsDraft(Returns.Fact(row)) ? row.Score : null, After = s.To, Begun = begun });
            }
            Premises.Add(c, by, now, new("took scores in", "class", of.Key.Value, of.Key, $"{of.Count()} draft marks from {file}"));
        }
        return import;
    }

    private static (ScoresRead View, IReadOnlyList<ScoreStep> Steps) Match(IDbConnection c, ScoreScope scope, ScoreSheet sheet)
    {
        var classes = scope.Sections.Select(s => s.Class).ToList();
        var members = classes.ToDictionary(k => k.Id, k => ScoreScope.Students(c, k.Id).ToDictionary(m => m.PersonId));
        var places = classes.SelectMany(k => members[k.Id].Values.Select(m => PersonStore.Find(c, m.PersonId)!).Select(p => new ScorePlace(k.Id, k.Name, p.Id, ScoreScope.SourcedId(p), p.StudentNumber, p.Email))).ToList();
        var targets = classes.SelectMany(k =>
        {
            var given = AssignmentStore.GivenTo(c, k.Id);
            return AssignmentStore.OfClass(c, k.Id).Select(a => new ScoreTarget(k.Id, a.Id, a.Title, a.Points, a.PublishedAt is not null, [.. given[a.Id]], a.Scheme));
        }).ToList();
        var work = classes.SelectMany(k => WorkStore.OfClass(c, k.Id)).ToDictionary(w => (w.AssignmentId, w.StudentId));
        var matched = ScoreMatching.Match(sheet, places, targets, (a, s) => work.GetValueOrDefault((a, s)) is { } row ? Returns.Fact(row) : null);
        var titles = targets.ToDictionary(t => t.Assignment, t => t.Title);
        var changes = matched.Steps.Select(s =>
        {
            var row = work.GetValueOrDefault((s.Assignment, s.Student));
            return new ScoreChange(s.Line, classes.Find(k => k.Id == s.Class)!.Name, s.Student, members[s.Class][s.Student].Name.Sort, s.Assignment, titles[s.Assignment],
                row?.ReturnedScore, row is not null && WorkFlow.IsDraft(Returns.Fact(row)) ? row.Score : null, s.To, row is null or { HandedInAt: null });
        }).ToList();
        return (new(Digest(changes), changes, matched.Same, [.. matched.Findings.Take(MostFindings)], matched.Findings.Count, null), matched.Steps);
    }

    private static string Digest(List<ScoreChange> changes) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(
        string.Join('\n', changes.Select(x => string.Create(CultureInfo.InvariantCulture, $"{x.Assignment.Value} {x.Student.Value} {x.Counts} {x.Draft} {x.To}"))))))[..32];
}
