using SpringLoft.App.Assignments;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>One piece of news.</summary>
/// <param name="Class">Null for what is about no class.</param>
/// <param name="Title">Of the assignment, the folder or the thing; of a notice, what it says.</param>
/// <param name="By">Who did it, the last of them where it is several; null for nobody by name.</param>
/// <param name="Others">How many others did the same there on the same day.</param>
/// <param name="Path">Where it leads, without the address of the school.</param>
/// <param name="Run">Of a run at its end.</param>
/// <param name="New">Since the list was looked at last.</param>
public sealed record NewsLine(NewsKind Kind, Instant At, ClassId? Class, string? Course, string? Mark, string Title, string? By, int Others, string Path, NewsRun? Run, int? OnHold, bool New);

/// <summary>A run at its end.</summary>
/// <param name="Done">Of its classes, those with which it came to the end.</param>
public sealed record NewsRun(RunKind Kind, bool Failed, int Classes, int Done);

/// <summary>Somebody's news.</summary>
/// <param name="Kinds">What they can be told.</param>
/// <param name="Quiet">Of them, what they do not want to be told.</param>
/// <param name="Letter">Does it come as a daily letter too?</param>
/// <param name="Email">Where that goes; null without an address.</param>
/// <param name="More">There is more than is listed.</param>
public sealed record NewsView(IReadOnlyList<NewsLine> Lines, bool More, int Days, IReadOnlyList<NewsKind> Kinds, IReadOnlyList<NewsKind> Quiet, bool Letter, string? Email);

/// <summary>How many are new.</summary>
public sealed record NewsCount(int New);

/// <summary>What one wants to be told.</summary>
public sealed record NewsWish(IReadOnlyList<NewsKind>? Quiet, bool Letter);

/// <summary>What concerns somebody, in one list: read from what happened, through the rules of who sees what, so that it is never more than they would find by themselves.</summary>
public sealed class News(Premises premises)
{
    /// <summary>Days that are listed.</summary>
    public const int Days = 30;

    private const int Most = 200;

    /// <summary>The asker's news, the newest first. Writes nothing.</summary>
    public NewsView See(Caller who) => premises.Db.Read(c =>
    {
        var lines = Lines(c, who, Since);
        var reader = NewsStore.Of(c, who.Id);
        return new NewsView([.. lines.Take(Most)], lines.Count > Most, Days, NewsKinds.Of(who.Role), [.. NewsStore.Quiet(c, who.Id)], reader.Letter, PersonStore.Find(c, who.Id)?.Email);
    });

    /// <summary>How many of them are new.</summary>
    public NewsCount Count(Caller who) => premises.Db.Read(c => new NewsCount(Lines(c, who, Later(Since, NewsStore.Of(c, who.Id).SeenAt)).Count(l => l.New)));

    /// <summary>Notes the look at the list: what was in it is not new any more.</summary>
    /// <param name="upTo">The moment of the newest that was shown.</param>
    public void Seen(Caller who, Instant upTo) => premises.Db.Write(c => NewsStore.See(c, who.Id, Instant.Min(upTo, premises.Clock.Now)));

    /// <summary>Sets what one is told, and whether it comes as a letter too.</summary>
    /// <exception cref="RefusedException"><c>news-no-address</c>.</exception>
    public void Set(Caller by, NewsWish wish) => premises.Db.Write(c =>
    {
        if (wish.Letter && PersonStore.Find(c, by.Id)?.Email is null) throw new RefusedException("news-no-address", "There is no e-mail address of yours in the directory: a letter would go nowhere.", "Ask the coordinator to add it.", "letter");
        NewsStore.Set(c, by.Id, wish.Quiet ?? [], wish.Letter);
    });

    /// <summary>Everything that happened since a moment and that somebody is told, the newest first.</summary>
    internal List<NewsLine> Lines(IDbConnection c, Caller who, Instant since)
    {
        var seen = NewsStore.Of(c, who.Id).SeenAt;
        var told = NewsKinds.Of(who.Role).Except(NewsStore.Quiet(c, who.Id)).ToHashSet();
        var all = ClassStore.OfPerson(c, who.Id).Where(k => k is { Kind: WorkspaceKind.Class, State: ClassState.Open }).Select(k => ClassGate.Find(c, who, k.Id))
            .SelectMany(at => at.Standing >= Standing.CoTeacher ? OfStaff(c, at, who, since) : at.Standing == Standing.Student ? OfStudent(c, at, who, since) : []);
        return [.. all.Concat(OfSchool(c, who, since)).Where(l => l.At > since && l.At <= premises.Clock.Now && told.Contains(l.Kind))
            // The same notice in several of their classes is told once.
            .DistinctBy(l => l.Kind is NewsKind.Notice or NewsKind.Asked ? (l.Kind, l.Title, l.At, l.By) : (object)l)
            .Select(l => l with { New = seen is null || l.At > seen }).OrderByDescending(l => l.At)];
    }

    private Instant Since => premises.Clock.Now - Duration.FromDays(Days);

    private static Instant Later(Instant a, Instant? b) => b is { } set && set > a ? set : a;

    private static NewsLine Line(ClassAndPlace at, NewsKind kind, Instant when, string title, string? by, string path) =>
        new(kind, when, at.Class.Id, at.Class.Course, at.Class.Mark, title, by, 0, $"/classes/{at.Class.Id.Value}{path}", null, null, false);

    private IEnumerable<NewsLine> OfStudent(IDbConnection c, ClassAndPlace at, Caller who, Instant since)
    {
        var id = at.Class.Id;
        var access = new Access(at.Viewer(who.Id), FolderStore.OfClass(c, id).Select(f => f.Fact));
        var placed = AssignmentStore.Filings(c, id);
        var work = WorkStore.OfStudent(c, id, who.Id).ToDictionary(w => w.AssignmentId);
        var found = InSight.Of(c, at, who.Id, access, placed, AssignmentStore.GivenTo(c, id), work.ContainsKey).ToDictionary(a => a.Id);
        string Place(AssignmentId a) => $"?folder={placed[a].First(f => access.Of(f).Right > Right.None).Value}";
        foreach (var a in found.Values)
        {
            if (a.PublishedAt > since && a.PublishedAt >= at.Member?.Since) yield return Line(at, NewsKind.Published, a.PublishedAt.Value, a.Title, null, Place(a.Id));
            if (work.GetValueOrDefault(a.Id) is { State: WorkState.Returned, ReturnedAt: { } returned }) yield return Line(at, NewsKind.Returned, returned, a.Title, null, Place(a.Id));
        }
        // What was written before the return came back with it; what the student does not read yet is told to nobody.
        foreach (var m in NewsStore.Comments(c, id, since).Where(m => m.StudentId == who.Id && m.AuthorId != who.Id && found.ContainsKey(m.AssignmentId)
            && work[m.AssignmentId] is var w && m.At > w.ReturnedAt && WorkFlow.ReadsComment(w.State, w.ReturnedAt, byStudent: false, m.At)))
            yield return Line(at, NewsKind.Comment, m.At, m.Title, m.Author, Place(m.AssignmentId));
        foreach (var m in Answers(c, at, who, since).Where(m => access.Of(m.FolderId).Right > Right.None)) yield return Line(at, NewsKind.Answer, m.At, m.Folder, m.Author, $"?folder={m.FolderId.Value}");
        foreach (var n in Notices.OfClass(c, at, premises.Clock.Today).Where(n => n.PostedAt is not null && n.AuthorId != who.Id)) yield return Line(at, NewsKind.Notice, n.PostedAt!.Value, n.Text, n.Author, "");
        foreach (var (a, own) in Acknowledgements.OfStudent(c, at, who.Id, premises.Clock.Today).Where(a => a.Own.Own))
            yield return Line(at, NewsKind.Asked, Later(a.AskedAt, own.RemindedAt), Acknowledgements.Called(a), a.AskedByName, "");
    }

    private IEnumerable<NewsLine> OfStaff(IDbConnection c, ClassAndPlace at, Caller who, Instant since)
    {
        var id = at.Class.Id;
        var students = RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student).Select(m => m.PersonId).ToHashSet();
        foreach (var m in NewsStore.Comments(c, id, since).Where(m => m.AuthorId == m.StudentId)) yield return Line(at, NewsKind.Comment, m.At, m.Title, m.Author, $"/marking?student={m.StudentId.Value}");
        var written = NewsStore.Messages(c, id, since).Where(m => m.AuthorId != who.Id).ToList();
        foreach (var m in written.Where(m => m.AnswersWhom == who.Id)) yield return Line(at, NewsKind.Answer, m.At, m.Folder, m.Author, $"/set-up?folder={m.FolderId.Value}");
        // Thirty who say in the morning that they are there are one piece of news.
        foreach (var day in written.Where(m => m.AnswersWhom is null && students.Contains(m.AuthorId)).GroupBy(m => (m.FolderId, premises.Clock.DateOf(m.At))))
            yield return Line(at, NewsKind.Question, day.Max(m => m.At), day.Last().Folder, day.Last().Author, $"/set-up?folder={day.Key.FolderId.Value}") with { Others = day.Select(m => m.AuthorId).Distinct().Count() - 1 };
        foreach (var n in Notices.OfClass(c, at, premises.Clock.Today).Where(n => n.PostedAt is not null && n.AuthorId != who.Id)) yield return Line(at, NewsKind.Notice, n.PostedAt!.Value, n.Text, n.Author, "/set-up");
    }

    private static IEnumerable<NewsMessageRow> Answers(IDbConnection c, ClassAndPlace at, Caller who, Instant since) => NewsStore.Messages(c, at.Class.Id, since).Where(m => m.AnswersWhom == who.Id && m.AuthorId != who.Id);

    private IEnumerable<NewsLine> OfSchool(IDbConnection c, Caller who, Instant since)
    {
        foreach (var n in NoticeStore.OfSchool(c, since, premises.Clock.Today).Where(n => n.AuthorId != who.Id))
            yield return new(NewsKind.Notice, n.PostedAt!.Value, null, null, null, n.Text, n.Author, 0, who.Role == SchoolRole.Student ? "/" : "/today", null, null, false);
        foreach (var r in NewsStore.Runs(c, who.Id, since))
            yield return new(NewsKind.RunEnded, r.EndedAt, null, null, null, "", null, 0, PathOf(r), new(r.Kind, r.Failed, r.Classes, r.Done), null, false);
        if (!Permissions.InSchool(who.Role, Act.TakeDeliveries)) yield break;
        foreach (var d in DeliveryStore.All(c, 20).Where(d => d is { State: DeliveryState.Waiting, OnHold: > 0 }))
            yield return new(NewsKind.Hold, d.ReceivedAt, null, null, null, d.Name, d.ReceivedByName, 0, $"/enroll/deliveries/{d.Id}", null, d.OnHold, false);
    }

    private static string PathOf(NewsRunRow r) => r.Kind switch
    {
        RunKind.Closing => $"/close/runs/{r.Id.Value}",
        RunKind.RollOver => $"/roll-over/runs/{r.Id.Value}",
        RunKind.PutPlan => $"/plan/put?run={r.Id.Value}",
        _ => "/close/take-homes",
    };
}
