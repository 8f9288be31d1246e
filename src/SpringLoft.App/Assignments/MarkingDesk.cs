using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Looks;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Assignments;

/// <summary>One place in the line of pieces: a student's work for an assignment, or that there is none yet.</summary>
/// <param name="Work">Null where nothing was begun.</param>
/// <param name="Score">As it is being given.</param>
/// <param name="Draft">True while that is a draft, also where the student holds the piece.</param>
/// <param name="Counts">The mark that was returned last.</param>
/// <param name="LateMinutes">By how many whole minutes it came late; null where it is in time.</param>
public sealed record MarkingPiece(
    WorkId? Work, AssignmentId Assignment, string Title, decimal? Points, PersonId Student, string Name, string SortName, bool Left, WorkState State, decimal? Score, bool Draft, decimal? Counts, Instant? HandedInAt, int? LateMinutes);

/// <summary>A stretch of the line: a section, or the class itself.</summary>
/// <param name="Letter">Of a section in a combined roster; null for a class alone.</param>
/// <param name="Shut">True if nothing in it is changed any more.</param>
public sealed record MarkingStretch(ClassId Class, string Name, string? Letter, int? Colour, bool Shut, IReadOnlyList<MarkingPiece> Pieces);

/// <summary>What stands on the marking desk.</summary>
/// <param name="Points">Full marks of all of it; null without a score, or where the pieces are of different assignments.</param>
/// <param name="Numbers">Of the marks that are returned, as one population; of nothing where the pieces are of different assignments.</param>
/// <param name="ToMark">Held without a mark, where there are points; held at all, where there are none.</param>
/// <param name="Drafts">With a draft mark.</param>
public sealed record MarkingView(string Title, decimal? Points, IReadOnlyList<MarkingStretch> Stretches, ScoreNumbers Numbers, int ToMark, int Drafts, int Returned);

/// <summary>A file of a piece, and how it can be looked at in the page.</summary>
/// <param name="Turn">The time it was handed in, of earlier ones; null for the piece as it is now.</param>
/// <param name="Id">Its number in the piece, or its place in the turn.</param>
/// <param name="Name">Of a file; the title of a link or page.</param>
/// <param name="Url">Where a link leads.</param>
public sealed record PieceFile(long? Turn, long Id, ItemKind Kind, string Name, long Size, string? Url, FileLook Look);

/// <summary>A piece of work in view.</summary>
public sealed record PieceView(WorkView Work, IReadOnlyList<PieceFile> Files);

/// <summary>What is said of a piece in one go.</summary>
/// <param name="Score">The mark; null for none.</param>
/// <param name="Comment">For the student alone; none if blank.</param>
/// <param name="Return">Give it back at once.</param>
/// <param name="UnmarkedToo">The yes that returning without a mark needs.</param>
/// <param name="Chosen">The level of each criterion, 0 and up, where the assignment is marked by criteria; then the mark is their sum.</param>
public sealed record Judgement(decimal? Score, string? Comment, bool Return, bool UnmarkedToo, int Version, IReadOnlyList<int>? Chosen = null);

/// <summary>Marks one piece after another: of an assignment over a class or a combined roster, or of one student.</summary>
public sealed class MarkingDesk(Premises premises)
{
    /// <summary>All pieces of an assignment, or of a student, in the order of the roster or of the days they are due.</summary>
    public MarkingView See(Caller who, ClassId id, AssignmentId? assignment, PersonId? student) => premises.Db.Read(c =>
    {
        var at = ClassGate.Demand(c, who, id, Act.Mark);
        if (assignment is { } only)
        {
            var a = AssignmentStore.Find(c, id, only) ?? throw Refusals.NotFound("assignment");
            return View(a.Title, a.Points, [Stretch(c, at.Class, [a], null, null, null)]);
        }
        if (student is not { } one) throw new RefusedException("marking-of-what", "Neither an assignment nor a student is named.", "Open the marking desk from the work of a class.");
        var name = RosterStore.Member(c, id, one)?.Name.Display ?? throw Refusals.NotFound("student on the roster");
        return View(name, null, [Stretch(c, at.Class, AssignmentStore.OfClass(c, id), one, null, null)]);
    });

    /// <summary>All pieces of the assignments of one title over the sections of a combined roster.</summary>
    public MarkingView OfCombined(Caller who, long combined, string? title) => premises.Db.Read(c =>
    {
        Rosters.CombinedRosters.Find(c, who, combined);
        var key = SafeName.Key(title ?? "");
        var sections = Rosters.CombinedRosters.SectionsOf(c, who, combined, Act.Mark)
            .Select(s => (Section: s, Class: ClassStore.Find(c, s.Class)!, Of: AssignmentStore.OfClass(c, s.Class).Where(a => SafeName.Key(a.Title) == key).ToList()))
            .Where(s => s.Of.Count > 0).ToList();
        if (sections.Count == 0) throw Refusals.NotFound("assignment");
        var points = sections.SelectMany(s => s.Of.Select(a => a.Points)).Distinct().ToList();
        return View(sections[0].Of[0].Title, points.Count == 1 ? points[0] : null, [.. sections.Select(s => Stretch(c, s.Class, s.Of, null, s.Section.Letter, s.Section.Colour))]);
    });

    /// <summary>One piece in view, with how each of its files can be looked at.</summary>
    public PieceView Piece(Caller who, ClassId id, WorkId work) => premises.Db.Read(c =>
    {
        ClassGate.Demand(c, who, id, Act.Mark);
        var row = WorkStore.Find(c, id, work) ?? throw Refusals.NotFound("work");
        var view = Returns.View(c, id, row);
        // While it is being worked on, it is the student's and nobody looks in.
        var now = row.State == WorkState.Working ? [] : WorkStore.Files(c, work);
        var newest = WorkStore.Turns(c, work).Count > 0 ? WorkStore.Turns(c, work)[^1].Id : (long?)null;
        return new PieceView(view, [.. now.Select(f => InView(null, WorkFileView.Of(f), f.Name, f.Sha256)),
            .. WorkStore.FilesOfTurns(c, work).Where(f => f.TurnId != newest || row.State == WorkState.Working).Select(f => InView(f.TurnId, WorkFileView.Of(f), f.Name, f.Sha256))]);
    });

    /// <summary>Opens a file to be looked at in the page.</summary>
    /// <exception cref="RefusedException"><c>file-not-shown</c>: it can only be downloaded.</exception>
    public (Download File, string MediaType) Look(Caller who, ClassId id, WorkId work, long? turn, long file) => premises.Db.Read(c =>
    {
        ClassGate.Demand(c, who, id, Act.Mark);
        var row = WorkStore.Find(c, id, work) ?? throw Refusals.NotFound("work");
        var (name, sha) = turn is { } t
            ? WorkStore.FilesOfTurns(c, work).Where(f => f.TurnId == t && f.Position == file).Select(f => (f.Name, f.Sha256)).FirstOrDefault()
            : WorkStore.Files(c, work).Where(f => f.Id == file && row.State != WorkState.Working).Select(f => (f.Name, f.Sha256)).FirstOrDefault();
        if (name is null) throw Refusals.NotFound("file");
        var (look, type) = LookAt(name, sha);
        if (look == FileLook.Download) throw new RefusedException("file-not-shown", $"“{name}” can't be shown in the page.", "Download it and open it with a program of its own.");
        var content = premises.Files.Open(sha);
        return (new Download(name, content, content.Length), type);
    });

    /// <summary>Marks, comments and, if asked, returns a piece, all of it or nothing.</summary>
    /// <exception cref="RefusedException">As <see cref="WorkFlow"/> says; <c>changed-meanwhile</c>.</exception>
    public WorkView Judge(Caller by, ClassId id, WorkId work, Judgement j)
    {
        var comment = Refusals.NotLonger(j.Comment?.Trim() ?? "", "comment", "The comment", 4000);
        return premises.Db.Write(c =>
        {
            var at = ClassGate.Demand(c, by, id, Act.Mark);
            var row = WorkStore.Find(c, id, work) ?? throw Refusals.NotFound("work");
            var a = AssignmentStore.Find(c, id, row.AssignmentId) ?? throw Refusals.NotFound("assignment");
            if (row.Version != j.Version) throw Refusals.ChangedMeanwhile("work");
            var now = premises.Clock.Now;
            var setting = new WorkSetting(at.Class.State, a.PublishedAt is not null, true, a.Points, Scheme: a.Scheme);
            var fact = j.Chosen is { } chosen ? WorkFlow.MarkBy(row.Fact(), chosen, setting) : WorkFlow.Mark(row.Fact(), j.Score, setting);
            if (j.Return) fact = WorkFlow.Return(fact, j.UnmarkedToo, setting);
            if (comment.Length > 0) WorkStore.AddComment(c, work, by.Id, comment, now);
            if (!WorkStore.Save(c, row.With(fact) with { ReturnedAt = j.Return ? now : row.ReturnedAt })) throw Refusals.ChangedMeanwhile("work");
            if (j.Return) WorkStore.TurnReturned(c, work, fact.Score, now);
            Premises.Add(c, by, now, new(j.Return ? "returned" : "marked", "work", work.Value, id, a.Title));
            return Returns.View(c, id, WorkStore.Find(c, id, work)!);
        });
    }

    private MarkingStretch Stretch(IDbConnection c, ClassRow k, IReadOnlyList<AssignmentRow> assignments, PersonId? only, string? letter, int? colour)
    {
        var given = AssignmentStore.GivenTo(c, k.Id);
        var work = WorkStore.OfClass(c, k.Id).ToDictionary(w => (w.AssignmentId, w.StudentId));
        var firstIn = WorkStore.FirstIn(c, k.Id);
        var students = RosterStore.Members(c, k.Id).Where(m => m.Role == ClassRole.Student && (only is null || m.PersonId == only)).ToList();
        return new(k.Id, k.Name, letter, colour, k.State == ClassState.Archived,
            [.. from a in assignments
                from m in students
                let w = work.GetValueOrDefault((a.Id, m.PersonId))
                where w is not null || (m.LeftAt is null && a.PublishedAt is not null && (!given[a.Id].Any() || given[a.Id].Contains(m.PersonId)))
                select new MarkingPiece(w?.Id, a.Id, a.Title, a.Points, m.PersonId, m.Name.Display, m.Name.Sort, m.LeftAt is not null, w?.State ?? WorkState.Working, w?.Score, w is not null && WorkFlow.IsDraft(Returns.Fact(w)), w?.ReturnedScore, w?.HandedInAt, w is null ? null : Lateness.Of(a.Due, w, firstIn, premises.Clock.Zone))]);
    }

    private static MarkingView View(string title, decimal? points, IReadOnlyList<MarkingStretch> stretches)
    {
        var all = stretches.SelectMany(s => s.Pieces).ToList();
        var held = all.Where(p => WorkFlow.Holder(p.State) == HeldBy.Teacher).ToList();
        return new(title, points, stretches, ScoreNumbers.Of([.. all.Where(p => points is not null && p.Counts is not null).Select(p => (double)p.Counts!.Value)]),
            held.Count(p => p.Score is null), all.Count(p => p.Draft), all.Count(p => p.State == WorkState.Returned));
    }

    private PieceFile InView(long? turn, WorkFileView f, string name, string sha256) => new(turn, f.Id, f.Kind, f.Name, f.Size, f.Url, LookAt(name, sha256).Look);

    private (FileLook Look, string MediaType) LookAt(string name, string sha256)
    {
        using var content = premises.Files.Open(sha256);
        var head = new byte[FileLooks.Head];
        return FileLooks.Of(name, head.AsSpan(0, content.ReadAtLeast(head, head.Length, throwOnEndOfStream: false)));
    }
}
