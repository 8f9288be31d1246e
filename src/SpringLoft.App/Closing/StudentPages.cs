using SpringLoft.App.Assignments;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Closing;
using SpringLoft.Formats.Print;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Naming;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Closing;

/// <summary>A class read once, to tell each of its students what is theirs: for take-homes of the class and of the whole year alike.</summary>
internal sealed class StudentPages
{
    /// <summary>The page at the top of a take-home.</summary>
    internal const string Page = "index.html";

    private readonly SchoolClock clock;
    private readonly StudentContents contents;
    private readonly Dictionary<WorkId, WorkRow> work;
    private readonly Dictionary<AssignmentId, AssignmentRow> assignments;
    private readonly ILookup<WorkId, CommentRow> comments;
    private readonly ILookup<PersonId, (LocalDate, string, string)> wrote;

    internal StudentPages(IDbConnection c, ClassId id, SchoolClock clock)
    {
        this.clock = clock;
        Class = ClassStore.Find(c, id)!;
        School = SchoolStore.Get(c)!.Name;
        Year = YearStore.All(c).First(y => y.Id == Class.YearId).Year.Label;
        contents = StudentContents.Load(c, id);
        work = WorkStore.OfClass(c, id).ToDictionary(w => w.Id);
        assignments = AssignmentStore.OfClass(c, id).ToDictionary(a => a.Id);
        comments = WorkStore.CommentsOfClass(c, id);
        var places = FolderStore.OfClass(c, id).ToDictionary(f => f.Id, f => f.Name);
        wrote = TalkStore.AllOf(c, id).ToLookup(m => m.AuthorId, m => (m.Day, places.GetValueOrDefault(m.FolderId, ""), m.Text));
    }

    internal ClassRow Class { get; }
    internal string School { get; }
    internal string Year { get; }

    /// <summary>A student's files as they are laid out, and what the page says of them.</summary>
    internal (IReadOnlyList<LaidFile> Files, PageClass Page) Of(PersonId student)
    {
        var own = contents.Of(student);
        var laid = PackageLayout.TakeHome(Class.Name, own.Folders, own.Items, own.Work);
        // Work is laid out first, a piece after the other; what was handed in earlier last.
        var earlier = own.Work.Sum(w => w.Earlier.Count);
        var (next, nextEarlier) = (0, laid.Count - earlier);
        var told = own.Work.Select(w =>
        {
            var (now, before) = (Links(laid, next, w.Files.Count), Links(laid, nextEarlier, w.Earlier.Count));
            (next, nextEarlier) = (next + w.Files.Count, nextEarlier + w.Earlier.Count);
            return Told(work[w.Id!.Value], now, before);
        }).ToList();
        return (laid, new(Class.Name, Class.TeacherShown, told, Links(laid, next, laid.Count - earlier - next)) { Wrote = [.. wrote[student]] });
    }

    private static List<PageLink> Links(IReadOnlyList<LaidFile> laid, int from, int count) => [.. laid.Skip(from).Take(count).Select(f => new PageLink(f.File.Name, f.Path))];

    // What is not returned is not told: a draft mark is none.
    private PageWork Told(WorkRow w, IReadOnlyList<PageLink> files, IReadOnlyList<PageLink> earlier)
    {
        var a = assignments[w.AssignmentId];
        var back = w.State == WorkState.Returned;
        return new(a.Title, InWords(w.State), back ? MarkWords.Returned(w, a) : null, back ? [.. comments[w.Id].Select(m => new PageSaid(m.Author, m.Text, clock.LocalOf(m.At)))] : [], files)
        {
            Instructions = a.Instructions,
            Due = MarkWords.Due(a),
            HandedIn = w.HandedInAt is { } i ? clock.LocalOf(i) : null,
            Returned = w.ReturnedAt is { } r ? clock.LocalOf(r) : null,
            Earlier = earlier,
        };
    }

    internal static string InWords(WorkState state) => state switch { WorkState.Returned => "returned", WorkState.HandedIn => "handed in, not returned yet", _ => "begun, never handed in" };
}
