using SpringLoft.App.Plans;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Rosters;

/// <summary>A thing that is carried along, from where to where.</summary>
/// <param name="To">Null if it stays, since the student has no own folder in the new class.</param>
public sealed record CarriedView(string Name, string From, string? To);

/// <summary>What a move between two classes of a course does, or did.</summary>
/// <param name="Unfinished">Files of work not handed in: they are put into the student's own folder of the new class.</param>
/// <param name="Held">Pieces of work that the old class's teacher holds: they stay there until they are returned.</param>
/// <param name="Returned">Returned pieces: the student still sees them, and both teachers read them.</param>
/// <param name="Groups">Groups of the old class that the student is in no longer.</param>
/// <param name="Folders">Own folders that unfold in the new class.</param>
/// <param name="OpenThere">Assignments of the new class that are already open.</param>
/// <param name="ViewsOnly">True if they view only in the new class, as they did in the old one.</param>
public sealed record MoveView(string Student, string From, string To, IReadOnlyList<CarriedView> Carried, int Unfinished, int Held, int Returned, IReadOnlyList<string> Groups, int Folders, int OpenThere, bool ViewsOnly);

/// <summary>A class that somebody could move to.</summary>
public sealed record SetChoice(ClassId Id, string Name, int Students);

/// <summary>A piece of work of a class that the student left for this one.</summary>
public sealed record EarlierWork(string ClassName, string Assignment, WorkState State, decimal? Score, decimal? Points, IReadOnlyList<WorkFileView> Files, IReadOnlyList<CommentView> Comments, Instant? ReturnedAt);

/// <summary>Moves students between classes of one course, with what is theirs.</summary>
public sealed class MovingSets(Premises premises)
{
    /// <summary>Other classes of the same course and year that the asker may move somebody to.</summary>
    public IReadOnlyList<SetChoice> Choices(Caller who, ClassId id) => premises.Db.Read(c =>
    {
        var k = ClassGate.Demand(c, who, id, Act.ManageRoster).Class;
        return ClassStore.OfYear(c, k.YearId).Where(o => o.Id != id && o.CourseId == k.CourseId && o.State != ClassState.Archived && ClassGate.May(c, who, o.Id, Act.ManageRoster))
            .Select(o => new SetChoice(o.Id, o.Name, RosterStore.Members(c, o.Id).Count(m => m.Role == ClassRole.Student && m.LeftAt is null))).ToList();
    });

    /// <summary>Says what the move would do: it is done and undone in one breath, so that what is said is what happens.</summary>
    public MoveView Preview(Caller by, ClassId from, PersonId student, ClassId to, bool includeOpen)
    {
        try
        {
            premises.Db.Write(c => throw new Said(Do(c, by, from, student, to, includeOpen)));
        }
        catch (Said said) { return said.View; }
        throw new InvalidOperationException("The move was not previewed.");
    }

    /// <summary>Moves a student.</summary>
    /// <param name="includeOpen">True if they also get the assignments of the new class that are already open.</param>
    /// <exception cref="RefusedException"><c>move-course</c>, <c>move-role</c>, <c>class-archived</c>.</exception>
    public MoveView Move(Caller by, ClassId from, PersonId student, ClassId to, bool includeOpen) => premises.Db.Write(c => Do(c, by, from, student, to, includeOpen));

    /// <summary>Work in the classes that a student left for this one; its teacher reads on where the other stopped.</summary>
    public IReadOnlyList<EarlierWork> Earlier(ClassId id, PersonId student) => premises.Db.Read(c => RosterStore.MovedFrom(c, id, student).SelectMany(k =>
    {
        if (ClassStore.Find(c, k)?.Name is not { } name) return [];
        var assignments = AssignmentStore.OfClass(c, k).ToDictionary(a => a.Id);
        return HandedIn(c, k, student).Where(w => assignments.ContainsKey(w.AssignmentId)).Select(w => new EarlierWork(name, assignments[w.AssignmentId].Title, w.State, w.Score, assignments[w.AssignmentId].Points,
            [.. WorkStore.Files(c, w.Id).Select(WorkFileView.Of)], [.. WorkStore.CommentsOfWork(c, w.Id).Select(m => new CommentView(m.Author, m.Text, m.At))], w.ReturnedAt));
    }).ToList());

    /// <summary>Opens a file of work in a class that a student left for this one.</summary>
    public Download Open(ClassId id, PersonId student, long file) => premises.Db.Read(c =>
        RosterStore.MovedFrom(c, id, student).SelectMany(k => HandedIn(c, k, student)).SelectMany(w => WorkStore.Files(c, w.Id)).FirstOrDefault(f => f.Id == file) is { } row
            ? new Download(row.Name, premises.Files.Open(row.Sha256), row.Size) : throw Refusals.NotFound("file"));

    // What a student never handed in is a draft, and nobody else's to read.
    private static IEnumerable<WorkRow> HandedIn(IDbConnection c, ClassId id, PersonId student) => WorkStore.OfStudent(c, id, student).Where(w => w.State != WorkState.Working);

    private MoveView Do(IDbConnection c, Caller by, ClassId from, PersonId student, ClassId to, bool includeOpen)
    {
        var here = ClassGate.Demand(c, by, from, Act.ManageRoster).NotArchived().Class;
        var there = ClassGate.May(c, by, to, Act.ManageRoster) ? ClassGate.Find(c, by, to) : null;
        if (there is null) throw new RefusedException("move-course", "That is no class that you may move students to.", "Choose another class of the course of which you are staff.", "to");
        there.NotArchived();
        if (from == to || here.CourseId != there.Class.CourseId || here.YearId != there.Class.YearId)
            throw new RefusedException("move-course", $"“{there.Class.Name}” is no other class of {here.Course} in this year.", "For another course, enroll the student there and take them off here.", "to");
        var member = RosterStore.Member(c, from, student) is { LeftAt: null } m ? m : throw Refusals.NotFound("person on the roster");
        if (member.Role != ClassRole.Student) throw new RefusedException("move-role", $"{member.Name.Display} is no student of this class.", "Enroll staff in the other class as co-teacher.");
        var now = premises.Clock.Now;
        var groups = GroupStore.Of(c, from, student);
        var names = GroupStore.OfClass(c, from).Where(g => groups.Contains(g.Id)).Select(g => g.Name).ToList();
        var open = AssignmentStore.OfClass(c, to).Count(a => a.PublishedAt is not null);
        if (RosterStore.Member(c, to, student) is not { LeftAt: null })
        {
            RosterStore.Put(c, to, student, ClassRole.Student, now, member.EnrolledBy, there.Class.State == ClassState.Open && !includeOpen ? now : null);
            ViewOnlyAsBefore(c, member, to);
        }
        RosterStore.Move(c, from, student, to, now);
        var folders = Settings.Unfold(c, there.Class);
        var (_, carried, unfinished) = Carry(c, from, to, student, now);
        var work = WorkStore.OfStudent(c, from, student);
        Premises.Add(c, by, now, new("moved student away", "person", student.Value, from, $"{member.Name.Display} to “{there.Class.Name}”"));
        Premises.Add(c, by, now, new("moved student here", "person", student.Value, to, $"{member.Name.Display} from “{here.Name}”, {carried.Count(x => x.To is not null) + unfinished} things carried along"));
        return new(member.Name.Display, here.Name, there.Class.Name, carried, unfinished, work.Count(w => w.State == WorkState.HandedIn), work.Count(w => w.State == WorkState.Returned), names, folders, open, RosterStore.Member(c, to, student)!.MayPost is false);
    }

    /// <summary>Who views only in the class that they leave does so in the other one too.</summary>
    internal static void ViewOnlyAsBefore(IDbConnection c, MemberRow before, ClassId to)
    {
        if (!before.MayPost) RosterStore.SetMayPost(c, to, before.PersonId, false);
    }

    /// <summary>Copies what is in a student's own folders to the matching places of another class; files share their bytes, and the old class keeps its own for its teacher.</summary>
    internal static (IReadOnlyList<ItemId> Made, IReadOnlyList<CarriedView> Carried, int Unfinished) Carry(IDbConnection c, ClassId from, ClassId to, PersonId student, Instant now)
    {
        var (old, places) = (Own(c, from, student), Own(c, to, student));
        var ids = old.Select(o => o.Id).ToHashSet();
        var filings = ItemStore.Filings(c, from).Where(f => ids.Contains(f.Folder)).ToLookup(f => f.Item, f => f.Folder);
        var items = ItemStore.OfClass(c, from).Where(i => filings.Contains(i.Id)).ToDictionary(i => i.Id);
        var (a, b) = (ClassStore.Find(c, from)!, ClassStore.Find(c, to)!);
        var decided = Moving.Decide(old, [.. items.Values.Select(i => new OwnThing(i.Id, i.Name, filings[i.Id].First()))], places, a.PlanId is not null && a.PlanId == b.PlanId);
        var made = new List<ItemId>();
        foreach (var d in decided.Where(d => d.To is not null))
        {
            var copy = ItemStore.Add(c, to, items[d.Item] with { Name = Free(c, d.To!.Value, d.Name, items[d.Item].Kind), BankId = null, BankVersion = null });
            ItemStore.File(c, copy, d.To.Value);
            made.Add(copy);
        }
        // What was begun and never handed in would otherwise be seen by nobody any more.
        var unfinished = 0;
        if (places.Count > 0)
            foreach (var f in WorkStore.OfStudent(c, from, student).Where(w => w.State == WorkState.Working).SelectMany(w => WorkStore.Files(c, w.Id)))
            {
                var kind = Handed.KindOf(f.Name, f.Url);
                var copy = ItemStore.Add(c, to, new ItemRow { Kind = kind, Name = Free(c, places[0].Id, Handed.TitleOf(f.Name, f.Url), kind), Sha256 = kind == ItemKind.Link ? null : f.Sha256, Url = f.Url, AddedBy = student, ByStudent = true, AddedAt = now });
                ItemStore.File(c, copy, places[0].Id);
                made.Add(copy);
                unfinished++;
            }
        return (made, [.. decided.Select(d => new CarriedView(d.Name, d.From, d.ToPath))], unfinished);
    }

    private static string Free(IDbConnection c, FolderId folder, string name, ItemKind kind) =>
        SafeName.Distinct(name, ItemStore.NamesIn(c, folder).Select(SafeName.Key).ToHashSet(), isFile: kind == ItemKind.File);

    // The student's own folders with all that stands in them, in the order of the tree.
    private static IReadOnlyList<OwnPlace> Own(IDbConnection c, ClassId id, PersonId student)
    {
        var all = FolderStore.OfClass(c, id);
        var children = all.ToLookup(f => f.ParentId ?? default);
        var found = new List<OwnPlace>();
        void Walk(FolderRow f, string above, bool own)
        {
            var path = above.Length == 0 ? f.Name : $"{above}/{f.Name}";
            own |= f.StudentId == student;
            if (own) found.Add(new(f.Id, f.PlanKey, path));
            foreach (var child in children[f.Id]) Walk(child, path, own);
        }
        foreach (var top in children[default]) Walk(top, "", false);
        return found;
    }

    private sealed class Said(MoveView view) : Exception
    {
        internal MoveView View => view;
    }
}
