using SpringLoft.App.Closing;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Zips;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.Assignments;

/// <summary>A column of the returns desk.</summary>
/// <param name="Groups">Names of the groups that it is given to.</param>
/// <param name="InStep">Other classes that have it too and follow when it is changed or published.</param>
public sealed record ReturnsColumn(AssignmentId Id, string Title, decimal? Points, LocalDate? DueOn, LocalTime? DueTime, bool Published, LocalDateTime? PublishAt, int HandedIn, int Held, int Given, IReadOnlyList<string> Groups, IReadOnlyList<string> InStep, int Version);

/// <summary>A cell: one student's work for one assignment.</summary>
/// <param name="Draft">True while the score is a draft, not returned.</param>
/// <param name="LateMinutes">By how many whole minutes it came late; null where it is in time.</param>
/// <param name="Level">What the mark is called on its scale; null for plain points.</param>
/// <param name="Counts">The mark that was returned last and counts, also while the work is handed in again.</param>
public sealed record ReturnsCell(AssignmentId Assignment, WorkId Id, WorkState State, HeldBy HeldBy, decimal? Score, string? Level, bool Draft, decimal? Counts, int? LateMinutes, int Files, int Version);

/// <summary>A row of the returns desk.</summary>
public sealed record ReturnsRow(PersonId Student, string SortName, bool Left, IReadOnlyList<ReturnsCell> Cells);

/// <summary>Students against assignments.</summary>
public sealed record ReturnsView(IReadOnlyList<ReturnsColumn> Assignments, IReadOnlyList<ReturnsRow> Students, int Held, int DraftMarks, int Unmarked);

/// <summary>One piece of work, whole.</summary>
/// <param name="Scheme">How it is marked, where that is not in plain points.</param>
/// <param name="Chosen">The level of each criterion, 0 and up, of the mark that is being given.</param>
/// <param name="CountsChosen">Those of the mark that counts.</param>
public sealed record WorkView(
    WorkId Id, AssignmentId Assignment, string Title, PersonId Student, string StudentName, WorkState State, HeldBy HeldBy, decimal? Score, bool Draft, decimal? Counts,
    decimal? Points, MarkScheme? Scheme, IReadOnlyList<int>? Chosen, IReadOnlyList<int>? CountsChosen, IReadOnlyList<WorkFileView> Files, IReadOnlyList<TurnView> Turns, IReadOnlyList<CommentView> Comments, Instant? HandedInAt, Instant? ReturnedAt, int Version);

/// <summary>What returning all would do, or has done.</summary>
public sealed record ReturnAllView(int Pieces, int Students, int DraftMarks, int Unmarked);

/// <summary>The returns desk: see, mark, comment, return.</summary>
public sealed class Returns(Premises premises)
{
    /// <summary>The whole desk of a class.</summary>
    public ReturnsView See(Caller who, ClassId id) => premises.Db.Read(c =>
    {
        ClassGate.Demand(c, who, id, Act.Mark);
        var work = WorkStore.OfClass(c, id);
        var files = WorkStore.FilesOfClass(c, id);
        var given = AssignmentStore.GivenTo(c, id);
        var toGroups = AssignmentStore.GivenGroups(c, id);
        var assignments = AssignmentStore.OfClass(c, id);
        var due = assignments.ToDictionary(a => a.Id, a => a.Due);
        var schemes = assignments.Where(a => a.Scheme is not null).ToDictionary(a => a.Id, a => a.Scheme!);
        var firstIn = WorkStore.FirstIn(c, id);
        var members = RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student).ToList();
        var byStudent = work.ToLookup(w => w.StudentId);
        var byAssignment = work.ToLookup(w => w.AssignmentId);
        var here = members.Count(m => m.LeftAt is null);
        var columns = assignments.Select(a => new ReturnsColumn(a.Id, a.Title, a.Points, a.DueOn, a.DueTime, a.PublishedAt is not null, a.PublishAt is { } p ? premises.Clock.LocalOf(p) : null,
            byAssignment[a.Id].Count(w => w.State != WorkState.Working), byAssignment[a.Id].Count(w => WorkFlow.Holder(w.State) == HeldBy.Teacher),
            given[a.Id].Any() ? given[a.Id].Count(p => p != AssignmentStore.Nobody) : here, [.. toGroups[a.Id].Select(g => g.Name)], a.Together is null ? [] : InStep.Names(c, who, a), a.Version)).ToList();
        var rows = members.Where(m => m.LeftAt is null || byStudent[m.PersonId].Any()).Select(m => new ReturnsRow(m.PersonId, m.Name.Sort, m.LeftAt is not null,
            [.. byStudent[m.PersonId].Select(w => new ReturnsCell(w.AssignmentId, w.Id, w.State, WorkFlow.Holder(w.State), w.Score, w.Score is { } score ? schemes.GetValueOrDefault(w.AssignmentId)?.NameOf(score) : null, WorkFlow.IsDraft(Fact(w)), w.ReturnedScore, due.TryGetValue(w.AssignmentId, out var d) ? Lateness.Of(d, w, firstIn, premises.Clock.Zone) : null, files[w.Id].Count(), w.Version))])).ToList();
        var held = work.Where(w => WorkFlow.Holder(w.State) == HeldBy.Teacher).ToList();
        return new ReturnsView(columns, rows, held.Count, work.Count(w => WorkFlow.IsDraft(Fact(w))), held.Count(w => w.Score is null));
    });

    /// <summary>One piece of work.</summary>
    public WorkView See(ClassId id, WorkId work) => premises.Db.Read(c => View(c, id, Find(c, id, work)));

    /// <summary>Gives a draft mark, or takes it away with null.</summary>
    public WorkView Mark(Caller by, ClassId id, WorkId work, decimal? score, int version) => Step(by, id, work, version, "marked", (row, at, _, _) =>
        row.With(WorkFlow.Mark(Fact(row), score, at)));

    /// <summary>Comments privately: the student reads it once the work is returned.</summary>
    public WorkView Comment(Caller by, ClassId id, WorkId work, string? text)
    {
        var body = Refusals.Needed(text, "text", "The comment", 4000);
        return premises.Db.Write(c =>
        {
            ClassGate.Demand(c, by, id, Act.Mark).NotArchived();
            var row = Find(c, id, work);
            var now = premises.Clock.Now;
            WorkStore.AddComment(c, work, by.Id, body, now);
            Premises.Add(c, by, now, new("commented", "work", work.Value, id, "privately"));
            return View(c, id, row);
        });
    }

    /// <summary>Returns one piece of work.</summary>
    public WorkView Return(Caller by, ClassId id, WorkId work, bool unmarkedToo, int version) => Step(by, id, work, version, "returned", (row, at, _, now) =>
        Back(row, WorkFlow.Return(Fact(row), unmarkedToo, at), now));

    /// <summary>Says what returning all would do. Writes nothing.</summary>
    public ReturnAllView PreviewReturnAll(ClassId id, AssignmentId? assignment, bool unmarkedToo) => premises.Db.Read(c =>
    {
        var p = Preview(c, id, assignment is { } a ? [a] : null, null, unmarkedToo).Preview;
        return new ReturnAllView(p.ToReturn.Count, p.Students, p.DraftMarks, p.Unmarked);
    });

    /// <summary>Returns everything that is held, of one assignment or of the class.</summary>
    /// <param name="unmarkedToo">The yes that work without a mark needs.</param>
    /// <param name="comment">A private comment to each; none if blank.</param>
    public ReturnAllView ReturnAll(Caller by, ClassId id, AssignmentId? assignment, bool unmarkedToo, string? comment)
    {
        var text = Refusals.NotLonger(comment?.Trim() ?? "", "comment", "The comment", 4000);
        return premises.Db.Write(c =>
        {
            ClassGate.Demand(c, by, id, Act.Mark).NotArchived();
            var (preview, rows) = Preview(c, id, assignment is { } a ? [a] : null, null, unmarkedToo);
            Give(c, by, id, preview, rows, text, premises.Clock.Now);
            return new ReturnAllView(preview.ToReturn.Count, preview.Students, preview.DraftMarks, preview.Unmarked);
        });
    }

    /// <summary>Opens a file of a student's work.</summary>
    public Download Open(ClassId id, WorkId work, long file) => premises.Db.Read(c =>
    {
        Find(c, id, work);
        var row = WorkStore.Files(c, work).FirstOrDefault(f => f.Id == file) ?? throw Refusals.NotFound("file");
        return new Download(row.Name, premises.Files.Open(row.Sha256), row.Size);
    });

    /// <summary>Opens a file as it was handed in once.</summary>
    public Download OpenTurn(ClassId id, WorkId work, long turn, int position) => premises.Db.Read(c => WorkTurns.Open(premises, c, Find(c, id, work).Id, turn, position));

    /// <summary>The receipt that the student has of one handing-in.</summary>
    public Download Receipt(ClassId id, WorkId work, long turn) => premises.Db.Read(c =>
    {
        var row = Find(c, id, work);
        return WorkTurns.ReceiptOf(premises, c, ClassStore.Find(c, id)!, AssignmentStore.Find(c, id, row.AssignmentId) ?? throw Refusals.NotFound("assignment"), row, turn);
    });

    /// <summary>All work for an assignment as a zip, a folder a student.</summary>
    public Download OpenAll(ClassId id, AssignmentId assignment, CancellationToken stop)
    {
        var (title, laid) = premises.Db.Read(c =>
        {
            var a = AssignmentStore.Find(c, id, assignment) ?? throw Refusals.NotFound("assignment");
            var contents = ClassContents.Load(c, id);
            return (a.Title, PackageLayout.Archive([], [], contents.Work.Where(w => w.Assignment == a.Title)));
        });
        var scratch = premises.Files.Scratch();
        ZipWriter.Write(scratch, laid.Select(f => new ZipFile(f.Path["work/".Length..], f.File.Modified, () => premises.Files.Open(f.File.Sha256))), null, stop);
        scratch.Position = 0;
        return new Download($"{Core.Naming.SafeName.Make(title)?.Name ?? "work"}.zip", scratch, scratch.Length);
    }

    private WorkView Step(Caller by, ClassId id, WorkId work, int version, string act, Func<WorkRow, WorkSetting, IDbConnection, Instant, WorkRow> decide) => premises.Db.Write(c =>
    {
        var at = ClassGate.Demand(c, by, id, Act.Mark);
        var row = Find(c, id, work);
        var a = AssignmentStore.Find(c, id, row.AssignmentId) ?? throw Refusals.NotFound("assignment");
        var now = premises.Clock.Now;
        if (row.Version != version) throw Refusals.ChangedMeanwhile("work");
        var next = decide(row, new(at.Class.State, a.PublishedAt is not null, true, a.Points, Scheme: a.Scheme), c, now);
        if (!WorkStore.Save(c, next)) throw Refusals.ChangedMeanwhile("work");
        if (next.ReturnedAt != row.ReturnedAt) WorkStore.TurnReturned(c, work, next.Score, now);
        Premises.Add(c, by, now, new(act, "work", work.Value, id, a.Title));
        return View(c, id, Find(c, id, work));
    });

    /// <summary>Gives back what was decided, with a comment to each if there is one.</summary>
    internal static void Give(IDbConnection c, Caller by, ClassId id, ReturnPreview preview, Dictionary<WorkId, WorkRow> rows, string comment, Instant now)
    {
        foreach (var work in preview.ToReturn)
        {
            if (comment.Length > 0) WorkStore.AddComment(c, work, by.Id, comment, now);
            // What is not to be returned is not in the preview: here nothing is asked again.
            if (!WorkStore.Save(c, Back(rows[work], WorkFlow.Returned(Fact(rows[work])), now))) throw Refusals.ChangedMeanwhile("work");
            WorkStore.TurnReturned(c, work, rows[work].Score, now);
        }
        if (preview.ToReturn.Count > 0)
            Premises.Add(c, by, now, new("returned all", "class", id.Value, id, $"{preview.ToReturn.Count} pieces to {preview.Students} students"));
    }

    /// <summary>What of a class would be returned.</summary>
    internal static (ReturnPreview Preview, Dictionary<WorkId, WorkRow> Rows) Preview(IDbConnection c, ClassId id, IReadOnlyCollection<AssignmentId>? only, PersonId? student, bool unmarkedToo)
    {
        var points = AssignmentStore.OfClass(c, id).ToDictionary(a => a.Id, a => a.Points is not null);
        var rows = WorkStore.OfClass(c, id).Where(w => (only is null || only.Contains(w.AssignmentId)) && (student is null || w.StudentId == student)).ToDictionary(w => w.Id);
        return (ReturnPreview.Of(rows.Values.Select(w => new ReturnCandidate(w.Id, w.StudentId, Fact(w), points.GetValueOrDefault(w.AssignmentId))), unmarkedToo), rows);
    }

    internal static WorkFact Fact(WorkRow row) => row.Fact();

    private static WorkRow Back(WorkRow row, WorkFact to, Instant now) => row.With(to) with { ReturnedAt = now };

    private static WorkRow Find(IDbConnection c, ClassId id, WorkId work) => WorkStore.Find(c, id, work) ?? throw Refusals.NotFound("work");

    /// <summary>A piece as staff see it.</summary>
    internal static WorkView View(IDbConnection c, ClassId id, WorkRow w)
    {
        var a = AssignmentStore.Find(c, id, w.AssignmentId) ?? throw Refusals.NotFound("assignment");
        var student = RosterStore.Member(c, id, w.StudentId);
        return new(w.Id, w.AssignmentId, a.Title, w.StudentId, student?.Name.Display ?? "", w.State, WorkFlow.Holder(w.State), w.Score, WorkFlow.IsDraft(Fact(w)), w.ReturnedScore, a.Points, a.Scheme, MarkScheme.ReadChosen(w.Chosen), MarkScheme.ReadChosen(w.ReturnedChosen),
            [.. WorkStore.Files(c, w.Id).Select(WorkFileView.Of)], WorkTurns.Of(c, w.Id),
            [.. WorkStore.CommentsOfWork(c, w.Id).Select(m => new CommentView(m.Author, m.Text, m.At))], w.HandedInAt, w.ReturnedAt, w.Version);
    }
}
