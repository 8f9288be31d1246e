using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Assignments;

/// <summary>A piece of work that is a student's to do.</summary>
/// <param name="Folder">Where it is found in its class.</param>
/// <param name="LateUntil">The last day on which it is taken late; null for no end, or where late work is not taken.</param>
/// <param name="Begun">There is something in it already.</param>
public sealed record TodayPiece(ClassId Class, string Course, string Mark, AssignmentId Assignment, string Title, FolderId Folder, When When, LocalDate? DueOn, LocalTime? DueTime, LocalDate? LateUntil, bool Begun, bool CameBack);

/// <summary>Something that came back.</summary>
/// <param name="Said">The last thing that staff wrote to it; null for nothing.</param>
/// <param name="IsNew">Since the student's visit before this one.</param>
public sealed record TodayReturn(ClassId Class, string Course, string Mark, AssignmentId Assignment, string Title, FolderId Folder, decimal? Score, decimal? Points, string? Level, string? Said, Instant ReturnedAt, bool IsNew);

/// <summary>A notice of the last days, or one that is pinned.</summary>
/// <param name="Class">Null for one to the whole school.</param>
public sealed record TodayNotice(long Id, ClassId? Class, string? Course, string? Mark, string Text, string Author, Instant PostedAt, bool Pinned, bool IsNew, IReadOnlyList<NoticeFile> Files);

/// <summary>Pieces of an assignment that wait for staff to mark or to return them.</summary>
/// <param name="Oldest">When the one that has waited longest was handed in.</param>
public sealed record TodayWaiting(ClassId Class, string ClassName, string Mark, AssignmentId Assignment, string Title, int Waiting, int Drafts, Instant? Oldest);

/// <summary>What students wrote in a place to talk and nobody of staff has answered.</summary>
/// <param name="Waiting">How many questions there are.</param>
/// <param name="By">Who asked the one that has waited longest, what they wrote, and when.</param>
public sealed record TodayQuestion(ClassId Class, string ClassName, string Mark, FolderId Folder, string Place, int Waiting, string By, string Text, Instant At);

/// <summary>What is due in a class of one's own this week, and how far it has come in.</summary>
public sealed record TodayDue(ClassId Class, string ClassName, string Mark, AssignmentId Assignment, string Title, LocalDate DueOn, LocalTime? DueTime, int In, int Given);

/// <summary>What a student is asked to acknowledge.</summary>
/// <param name="Item">The thing; null for a notice.</param>
/// <param name="Own">Is it wanted of the student themselves? Else from home alone.</param>
/// <param name="Reminded">Staff reminded of it.</param>
public sealed record TodayAsked(ClassId Class, string Course, string Mark, long Asking, ItemId? Item, string Title, LocalDate? Until, bool Own, bool Late, bool Reminded);

/// <summary>What is asked in a class of one's own, and from how many it is outstanding.</summary>
public sealed record TodayAsking(ClassId Class, string ClassName, string Mark, long Asking, string Title, LocalDate? Until, int Left, int Students, bool Late);

/// <summary>Who has gone quiet in a class of one's own.</summary>
public sealed record TodayQuiet(ClassId Class, string ClassName, string Mark, IReadOnlyList<string> Students);

/// <summary>Somebody's day.</summary>
/// <param name="Week">Number of the school week; null where there is no school this week.</param>
/// <param name="DaysLeft">School days from today to the end of the year, today with them; null outside a school year.</param>
public sealed record TodayView(LocalDate Day, int? Week, int? DaysLeft, IReadOnlyList<TodayPiece> Pieces, IReadOnlyList<TodayReturn> Back, IReadOnlyList<TodayNotice> Notices, IReadOnlyList<TodayWaiting> Waiting, IReadOnlyList<TodayDue> Due,
    IReadOnlyList<TodayAsked> Asked, IReadOnlyList<TodayAsking> Asking, IReadOnlyList<TodayQuiet> Quiet, IReadOnlyList<TodayQuestion> Questions);

/// <summary>What is to be done today, over all classes of a person: to hand in and what came back; for staff, what waits for them.</summary>
public sealed class Today(Premises premises)
{
    /// <summary>How long what came back, and a notice, stands in somebody's day.</summary>
    public static readonly Duration Recent = Duration.FromDays(14);

    /// <summary>The asker's day. Writes nothing.</summary>
    public TodayView See(Caller who) => premises.Db.Read(c =>
    {
        var clock = premises.Clock;
        var seen = Before(c, who);
        var year = YearStore.All(c).Select(y => y.Year).FirstOrDefault(y => y.Terms[0].First <= clock.Today && clock.Today <= y.Terms[^1].Last);
        var weeks = year is null ? [] : SchoolWeeks.Of(year);
        var first = year?.FirstWeekday ?? IsoDayOfWeek.Monday;
        var ends = clock.Today.DayOfWeek == first ? clock.Today.PlusDays(6) : clock.Today.Next(first).PlusDays(-1);
        var pieces = new List<TodayPiece>();
        var back = new List<TodayReturn>();
        var waiting = new List<TodayWaiting>();
        var due = new List<TodayDue>();
        var asked = new List<TodayAsked>();
        var asking = new List<TodayAsking>();
        var quiet = new List<TodayQuiet>();
        var questions = new List<TodayQuestion>();
        List<LocalDate> schoolDays = [.. weeks.SelectMany(w => w.Days)];
        var classes = Classes(c, who);
        foreach (var at in classes)
        {
            if (at.Standing >= Standing.CoTeacher)
            {
                waiting.AddRange(Waiting(c, at));
                due.AddRange(DueSoon(c, at, ends));
                questions.AddRange(Asked(c, at));
                if (Activities.Quiet(c, premises, at.Class.Id, schoolDays) is { Count: > 0 } gone) quiet.Add(new(at.Class.Id, at.Class.Name, at.Class.Mark, gone));
                asking.AddRange(Acknowledgements.Lines(c, at, clock.Today).Where(a => a.Reached && a.Done < a.Students)
                    .Select(a => new TodayAsking(at.Class.Id, at.Class.Name, at.Class.Mark, a.Id, a.Title, a.Until, a.Students - a.Done, a.Students, a.Late)));
            }
            else if (at.Standing == Standing.Student)
            {
                OfClass(c, at, who.Id, ends, seen, pieces, back);
                asked.AddRange(Acknowledgements.OfStudent(c, at, who.Id, clock.Today).Where(a => a.Own.Own || a.Own.Home)
                    .Select(a => new TodayAsked(at.Class.Id, at.Class.Course, at.Class.Mark, a.Asking.Id, a.Asking.ItemId, Acknowledgements.Called(a.Asking), a.Own.Until, a.Own.Own, a.Own.Late, a.Own.RemindedAt is not null)));
            }
        }
        return new TodayView(clock.Today, weeks.FirstOrDefault(w => w.Starts <= clock.Today && clock.Today < w.Starts.PlusDays(7))?.Number, year is null ? null : weeks.Sum(w => w.Days.Count(d => d >= clock.Today)),
            Ordered(pieces),
            [.. back.OrderByDescending(b => b.ReturnedAt)], [.. TodayNotices(c, [.. Told(c, who, classes)], seen).OrderByDescending(n => n.Pinned).ThenByDescending(n => n.PostedAt)], [.. waiting.OrderBy(w => w.Oldest ?? Instant.MaxValue)], [.. due.OrderBy(d => d.DueOn).ThenBy(d => d.ClassName, StringComparer.Ordinal)],
            // The same notice in several of their classes is asked once.
            [.. asked.DistinctBy(a => a.Asking).OrderByDescending(a => a.Own).ThenByDescending(a => a.Late).ThenBy(a => a.Until ?? LocalDate.MaxIsoValue)],
            [.. asking.OrderByDescending(a => a.Late).ThenBy(a => a.Until ?? LocalDate.MaxIsoValue).ThenBy(a => a.ClassName, StringComparer.Ordinal)], [.. quiet.OrderBy(q => q.ClassName, StringComparer.Ordinal)],
            [.. questions.OrderBy(q => q.At)]);
    });

    /// <summary>Notes the look: at the next visit what is there now is not new any more.</summary>
    public void Seen(Caller who) => premises.Db.Write(c =>
    {
        PersonStore.SeeToday(c, who.Id, premises.Clock.Now, Before(c, who));
        NoticeStore.See(c, who.Id, Told(c, who, Classes(c, who)).Select(n => n.Row.Id), premises.Clock.Now);
    });

    /// <summary>What a student has to do and what came back, over their classes.</summary>
    /// <param name="ends">The last day that counts as this week.</param>
    /// <param name="seen">Since when what came back is new.</param>
    /// <param name="only">Of one class; null for all of theirs.</param>
    internal (IReadOnlyList<ClassAndPlace> Classes, IReadOnlyList<TodayPiece> Pieces, IReadOnlyList<TodayReturn> Back) OfStudent(IDbConnection c, Caller student, LocalDate ends, Instant? seen, ClassId? only = null)
    {
        var (pieces, back) = (new List<TodayPiece>(), new List<TodayReturn>());
        var classes = Classes(c, student).Where(at => at.Standing == Standing.Student && (only is null || at.Class.Id == only)).ToList();
        foreach (var at in classes) OfClass(c, at, student.Id, ends, seen, pieces, back);
        return (classes, Ordered(pieces), [.. back.OrderByDescending(b => b.ReturnedAt)]);
    }

    private static List<TodayPiece> Ordered(IEnumerable<TodayPiece> pieces) => [.. pieces.OrderBy(p => p.When).ThenBy(p => p.DueOn).ThenBy(p => p.DueTime ?? LocalTime.MaxValue).ThenBy(p => p.Course, StringComparer.Ordinal)];

    private static List<ClassAndPlace> Classes(IDbConnection c, Caller who) =>
        [.. ClassStore.OfPerson(c, who.Id).Where(k => k is { Kind: WorkspaceKind.Class, State: ClassState.Open }).Select(k => ClassGate.Find(c, who, k.Id))];

    // What somebody else told them in the last days, or pinned; the same notice in several of their classes once.
    private IEnumerable<(NoticeRow Row, ClassAndPlace? At)> Told(IDbConnection c, Caller who, IReadOnlyList<ClassAndPlace> classes)
    {
        var since = premises.Clock.Now - Recent;
        return classes.SelectMany(at => Notices.OfClass(c, at, premises.Clock.Today).Select(n => (Row: n, At: (ClassAndPlace?)at)))
            .Where(n => n.Row.PostedAt is { } posted && (posted > since || NoticeSight.IsPinned(n.Row.Fact, premises.Clock.Today)))
            .Concat(NoticeStore.OfSchool(c, since, premises.Clock.Today).Select(n => (Row: n, At: (ClassAndPlace?)null)))
            .Where(n => n.Row.AuthorId != who.Id).DistinctBy(n => n.Row.Id);
    }

    private IEnumerable<TodayNotice> TodayNotices(IDbConnection c, IReadOnlyList<(NoticeRow Row, ClassAndPlace? At)> told, Instant? seen)
    {
        var files = NoticeFileStore.Of(c, told.Select(n => n.Row.Id));
        return told.Select(x => (N: x.Row, K: x.At?.Class)).Select(x => new TodayNotice(x.N.Id, x.K?.Id, x.K?.Course, x.K?.Mark, x.N.Text, x.N.Author, x.N.PostedAt!.Value, NoticeSight.IsPinned(x.N.Fact, premises.Clock.Today), seen is null || x.N.PostedAt > seen, NoticeFile.Of(files[x.N.Id])));
    }

    // When the visit before this one ended.
    private Instant? Before(IDbConnection c, Caller who)
    {
        var (seen, before) = PersonStore.TodaySeen(c, who.Id);
        return DayList.Before(seen, before, premises.Clock.Now);
    }

    private void OfClass(IDbConnection c, ClassAndPlace at, PersonId who, LocalDate ends, Instant? seen, List<TodayPiece> pieces, List<TodayReturn> back)
    {
        var (id, k, clock) = (at.Class.Id, at.Class, premises.Clock);
        var access = new Access(at.Viewer(who), FolderStore.OfClass(c, id).Select(f => f.Fact));
        var placed = AssignmentStore.Filings(c, id);
        var work = WorkStore.OfStudent(c, id, who).ToDictionary(w => w.AssignmentId);
        foreach (var a in InSight.Of(c, at, who, access, placed, AssignmentStore.GivenTo(c, id), work.ContainsKey))
        {
            var own = work.GetValueOrDefault(a.Id);
            var folder = placed[a.Id].First(f => access.Of(f).Right > Right.None);
            if (own is { State: WorkState.Returned, ReturnedAt: { } returned } && returned > clock.Now - Recent)
            {
                var said = WorkStore.CommentsOfWork(c, own.Id).LastOrDefault(m => m.AuthorId != who)?.Text;
                back.Add(new(id, k.Course, k.Mark, a.Id, a.Title, folder, own.ReturnedScore, a.Points, own.ReturnedScore is { } s ? a.Scheme?.NameOf(s) : null, said, returned, seen is null || returned > seen));
            }
            if (own is not (null or { State: WorkState.Working }) || at.Member?.MayPost == false) continue;
            if (DayList.Of(a.Due, clock.Now, clock.Zone, ends) is not { } when) continue;
            pieces.Add(new(id, k.Course, k.Mark, a.Id, a.Title, folder, when, a.DueOn, a.DueTime, a is { DueOn: { } day, LateDays: > 0 and { } late } ? day.PlusDays(late) : null, own is not null && WorkStore.Files(c, own.Id).Count > 0, own?.ReturnedAt is not null));
        }
    }

    private IEnumerable<TodayDue> DueSoon(IDbConnection c, ClassAndPlace at, LocalDate ends)
    {
        var here = RosterStore.Members(c, at.Class.Id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null).Select(m => m.PersonId).ToHashSet();
        var given = AssignmentStore.GivenTo(c, at.Class.Id);
        var came = WorkStore.OfClass(c, at.Class.Id).Where(w => w.State != WorkState.Working && here.Contains(w.StudentId)).ToLookup(w => w.AssignmentId);
        return AssignmentStore.OfClass(c, at.Class.Id).Where(a => a.PublishedAt is not null && a.DueOn >= premises.Clock.Today && a.DueOn <= ends).Select(a => new TodayDue(
            at.Class.Id, at.Class.Name, at.Class.Mark, a.Id, a.Title, a.DueOn!.Value, a.DueTime, came[a.Id].Count(), given[a.Id].Any() ? given[a.Id].Count(here.Contains) : here.Count));
    }

    private IEnumerable<TodayQuestion> Asked(IDbConnection c, ClassAndPlace at)
    {
        var id = at.Class.Id;
        var written = TalkStore.Since(c, id, premises.Clock.Now - Recent);
        if (written.Count == 0) return [];
        var places = TalkStore.OfClass(c, id).Where(p => p.ClosedAt is null).ToDictionary(p => p.FolderId);
        var names = FolderStore.OfClass(c, id).ToDictionary(f => f.Id, f => f.Name);
        var students = RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student).Select(m => m.PersonId).ToHashSet();
        return written.GroupBy(m => m.FolderId).Where(g => places.ContainsKey(g.Key) && names.ContainsKey(g.Key)).Select(g =>
        {
            var wait = Questions.Waiting([.. g.Select(m => new TalkSaid(m.Id, m.AuthorId, !students.Contains(m.AuthorId), m.Answers, m.Day))], places[g.Key].Question is not null);
            return wait.Count > 0 && g.First(m => m.Id == wait[0].Id) is var first ? new TodayQuestion(id, at.Class.Name, at.Class.Mark, g.Key, names[g.Key], wait.Count, first.Author, first.Text, first.At) : null;
        }).OfType<TodayQuestion>();
    }

    private static IEnumerable<TodayWaiting> Waiting(IDbConnection c, ClassAndPlace at)
    {
        var held = WorkStore.OfClass(c, at.Class.Id).Where(w => WorkFlow.Holder(w.State) == HeldBy.Teacher || WorkFlow.IsDraft(Returns.Fact(w))).ToLookup(w => w.AssignmentId);
        return AssignmentStore.OfClass(c, at.Class.Id).Where(a => held.Contains(a.Id)).Select(a => new TodayWaiting(at.Class.Id, at.Class.Name, at.Class.Mark, a.Id, a.Title,
            held[a.Id].Count(w => w.Score is null), held[a.Id].Count(w => w.Score is not null), held[a.Id].Min(w => w.HandedInAt)));
    }
}
