using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Assignments;

/// <summary>What an assignment is made from.</summary>
/// <param name="Points">Full marks; null for work without a score.</param>
/// <param name="DueTime">Until when within the day; null for all of it.</param>
/// <param name="LateDays">Days after that day on which late work is taken; 0 for none, null for as long as the class is open.</param>
/// <param name="PublishAt">By the school's clock: when a draft is published by itself; null for by hand.</param>
/// <param name="Folders">Where it is filed; one at the least.</param>
/// <param name="Students">Whom it is given to by name; with no groups either, to the whole class. In a change null leaves it as it is.</param>
/// <param name="Groups">Groups whom it is given to, as they are when it is published. In a change null leaves them as they are.</param>
/// <param name="Scheme">How it is marked, where that is not in plain points; then its full marks are the points.</param>
/// <param name="Things">What is attached, in that order; null leaves it as it is.</param>
/// <param name="AlsoIn">Other classes that get the same in this act, each to its whole roster; only when it is made.</param>
public sealed record NewAssignment(string? Title, string? Instructions, decimal? Points, LocalDate? DueOn, LocalTime? DueTime, int? LateDays, IReadOnlyList<FolderId>? Folders, IReadOnlyList<PersonId>? Students, bool Publish, LocalDateTime? PublishAt, IReadOnlyList<ClassId>? AlsoIn = null, IReadOnlyList<ToAttach>? Things = null, MarkScheme? Scheme = null, IReadOnlyList<GroupId>? Groups = null)
{
    internal decimal? Full => Scheme is { } scheme ? scheme.FullMarks : Points;

    /// <summary>To some of the class only.</summary>
    internal bool ToSome => Students is { Count: > 0 } || Groups is { Count: > 0 };
}

/// <summary>A made assignment, and who of those it is given to can't see it.</summary>
/// <param name="BlindSpots">Students who can't see any folder it is filed in.</param>
/// <param name="InStep">Names of the other classes in which it was made, or changed, too.</param>
public sealed record MadeAssignment(AssignmentId Id, IReadOnlyList<string> BlindSpots, IReadOnlyList<string> InStep);

/// <summary>Makes, changes and bins assignments.</summary>
public sealed class Assigning(Premises premises)
{
    /// <summary>Makes an assignment, as a draft or published.</summary>
    public MadeAssignment Make(Caller by, ClassId id, NewAssignment n)
    {
        var (title, instructions, folders) = Check(n);
        return premises.Db.Write(c =>
        {
            var at = ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
            n.Scheme?.Checked("scheme");
            var there = FolderStore.OfClass(c, id);
            if (folders.Any(f => there.All(t => t.Id != f))) throw Refusals.NotFound("folder");
            var roster = RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null).ToList();
            var given = n.Students ?? [];
            if (given.Any(g => roster.All(m => m.PersonId != g))) throw Refusals.NotFound("student on the roster");
            var groups = Groups(c, id, n.Groups ?? [], []);
            var some = Given(c, id, null, n);
            if (n.Publish && at.Class.Kind != WorkspaceKind.Class) throw new RefusedException("bank-no-students", "A bank has no students: what stands in it is used in classes.", "Keep it as a draft, then use it in classes.", "publish");
            TitleFree(c, id, title, null);
            var others = InStep.Others(c, by, id, n);
            if (others.Count > 0 && n.ToSome)
                throw new RefusedException("given-by-name", "To groups or by name it can be given in one class only.", "Give it to everybody, or to this class alone.", "alsoIn");
            foreach (var o in others) InStep.Check(o.View);
            var now = premises.Clock.Now;
            var things = Attaching.Rows(c, by, id, null, n.Things ?? []);
            var made = AssignmentStore.Add(c, id, Said(new() { MadeAt = now }, n, title, instructions), folders, []);
            if (n.ToSome) AssignmentStore.GiveTo(c, made, given, groups, []);
            AttachedStore.Set(c, made, things);
            Stand(made, at);
            var same = others.Select(o => (o.At, Id: AssignmentStore.Add(c, o.At.Class.Id, Said(new() { MadeAt = now }, n, title, instructions), o.Folders, []))).ToList();
            foreach (var o in same)
            {
                AttachedStore.Copy(c, made, o.Id);
                Stand(o.Id, o.At);
            }
            if (same.Count > 0) AssignmentStore.KeepInStep(c, [made, .. same.Select(o => o.Id)]);
            return new MadeAssignment(made, Blind(c, at, there, folders, [.. roster.Where(m => some?.Contains(m.PersonId) != false)]), [.. same.Select(o => o.At.Class.Name)]);

            void Stand(AssignmentId one, ClassAndPlace of)
            {
                if (n.Publish && !AssignmentStore.Publish(c, one, 1, now)) throw ToNobody(title);
                if (!n.Publish) AssignmentStore.PublishAt(c, one, Moment(n, of));
                Premises.Add(c, by, now, new(n.Publish ? "published assignment" : "drafted assignment", "assignment", one.Value, of.Class.Id, title));
            }
        });
    }

    /// <summary>Changes what an assignment says and where it is filed, at the version that was seen.</summary>
    /// <exception cref="RefusedException"><c>points-below-mark</c>: a mark above the new full marks was given already.</exception>
    public MadeAssignment Change(Caller by, ClassId id, AssignmentId assignment, NewAssignment n, int version)
    {
        var (title, instructions, folders) = Check(n);
        return premises.Db.Write(c =>
        {
            var at = ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
            n.Scheme?.Checked("scheme");
            var a = AssignmentStore.Find(c, id, assignment) ?? throw Refusals.NotFound("assignment");
            var there = FolderStore.OfClass(c, id);
            if (folders.Any(f => there.All(t => t.Id != f))) throw Refusals.NotFound("folder");
            TitleFree(c, id, title, assignment);
            var marked = WorkStore.OfClass(c, id).Where(w => w.AssignmentId == assignment && (w.Score ?? w.ReturnedScore) is not null).ToList();
            // Words may be mended at any time; what marks were counted by may not.
            if (marked.Count > 0 && (a.Scheme is not null || n.Scheme is not null) && !(a.Scheme is { } before && n.Scheme is { } after && before.CountsAs(after)))
                throw new RefusedException("scheme-in-use", $"{marked.Count} pieces are marked as it was: with other levels or points their marks would mean something else.", "Change the words alone, or give a new assignment.", "scheme");
            var best = marked.SelectMany(w => new[] { w.Score, w.ReturnedScore }).Max();
            if (n.Full is { } points && best > points)
                throw new RefusedException("points-below-mark", $"A mark of {best} was given already.", $"Keep full marks at {best} or more.", "points");
            var likes = InStep.Free(c, by, a);
            if (!AssignmentStore.Save(c, Said(a, n, title, instructions) with { Version = version })) throw Refusals.ChangedMeanwhile("assignment");
            AssignmentStore.FileIn(c, assignment, folders);
            if (n.Students is not null || n.Groups is not null) GiveTo(c, id, a, n, likes.Count > 0);
            if (n.Things is { } things) AttachedStore.Set(c, assignment, Attaching.Rows(c, by, id, assignment, things));
            if (a.PublishedAt is null) AssignmentStore.PublishAt(c, assignment, Moment(n, at));
            Premises.Add(c, by, premises.Clock.Now, new("changed assignment", "assignment", assignment.Value, id, title));
            foreach (var (of, like) in likes)
            {
                TitleFree(c, of.Class.Id, title, like.Id, of.Class.Name);
                if (!AssignmentStore.Save(c, Said(like, n, title, instructions))) throw Refusals.ChangedMeanwhile("assignment");
                if (n.Things is not null) AttachedStore.Copy(c, assignment, like.Id);
                if (like.PublishedAt is null) AssignmentStore.PublishAt(c, like.Id, Moment(n, of));
                Premises.Add(c, by, premises.Clock.Now, new("changed assignment", "assignment", like.Id.Value, of.Class.Id, title));
            }
            var given = AssignmentStore.GivenTo(c, id)[assignment].ToHashSet();
            var roster = RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null && (given.Count == 0 || given.Contains(m.PersonId))).ToList();
            return new MadeAssignment(assignment, Blind(c, at, there, folders, roster), [.. likes.Select(x => x.At.Class.Name)]);
        });
    }

    // To others than before: nobody loses an assignment for which there is work of theirs.
    private static void GiveTo(IDbConnection c, ClassId id, AssignmentRow a, NewAssignment n, bool elsewhere)
    {
        var rows = AssignmentStore.GivenRows(c, id)[a.Id].ToLookup(x => x.ByGroup, x => x.Person);
        var groupsBefore = AssignmentStore.GivenGroups(c, id)[a.Id].Select(g => g.Id).ToList();
        var to = n.Students ?? [.. rows[false]];
        var groups = Groups(c, id, n.Groups ?? groupsBefore, groupsBefore);
        if (rows[false].ToHashSet().SetEquals(to) && groupsBefore.ToHashSet().SetEquals(groups)) return;
        if (to.Count + groups.Count > 0 && elsewhere) throw new RefusedException("given-by-name", "It is kept in step with other classes, and to groups or by name it can be given in one class only.", "Leave it given to everybody.", "students");
        var roster = RosterStore.Members(c, id).Where(m => m.Role == ClassRole.Student).ToDictionary(m => m.PersonId);
        var before = rows.SelectMany(x => x).ToHashSet();
        if (to.Any(p => !before.Contains(p) && !(roster.TryGetValue(p, out var m) && m.LeftAt is null))) throw Refusals.NotFound("student on the roster");
        var because = Because(c, id, a, groups);
        if (a.PublishedAt is not null && groups.Count > 0 && to.Count + because.Count == 0) throw ToNobody(a.Title);
        var kept = WorkStore.OfClass(c, id).Where(w => w.AssignmentId == a.Id && to.Count + groups.Count > 0 && !to.Contains(w.StudentId) && !because.Contains(w.StudentId)).Select(w => roster.TryGetValue(w.StudentId, out var m) ? m.Name.Display : "somebody who left").ToList();
        if (kept.Count > 0) throw new RefusedException("assignment-has-work", $"{string.Join(", ", kept.Take(5))}{(kept.Count > 5 ? $" and {kept.Count - 5} more" : "")} would lose “{a.Title}”, and there is work of theirs for it.", "Keep them among those whom it is given to.", "students");
        // Who has a draft because of a group is seen from the group until it is published.
        AssignmentStore.GiveTo(c, a.Id, to, groups, a.PublishedAt is null ? [] : because.Except(to));
    }

    /// <summary>Who has it once it is given so; null for everybody.</summary>
    /// <param name="a">The one that is changed; null for a new one.</param>
    internal static IReadOnlySet<PersonId>? Given(IDbConnection c, ClassId id, AssignmentRow? a, NewAssignment n) =>
        n.ToSome ? (n.Students ?? []).Concat(Because(c, id, a, n.Groups ?? [])).ToHashSet() : null;

    // Who has it because of these groups; of a draft, whoever is in them now.
    private static IReadOnlySet<PersonId> Because(IDbConnection c, ClassId id, AssignmentRow? a, IReadOnlyCollection<GroupId> groups)
    {
        var members = GroupStore.Members(c, id);
        return a?.PublishedAt is null ? groups.SelectMany(g => members[g]).ToHashSet()
            : GivenGroups.Changed([.. AssignmentStore.GivenGroups(c, id)[a.Id].Select(g => g.Id)], groups, [.. AssignmentStore.GivenRows(c, id)[a.Id].Where(x => x.ByGroup).Select(x => x.Person)], members);
    }

    private static List<GroupId> Groups(IDbConnection c, ClassId id, IReadOnlyList<GroupId> asked, List<GroupId> before)
    {
        var there = GroupStore.OfClass(c, id).Select(g => g.Id).Concat(before).ToHashSet();
        return asked.All(there.Contains) ? [.. asked.Distinct()] : throw Refusals.NotFound("group of the class");
    }

    /// <summary>Nobody would find it, and an assignment without anybody would read as one for everybody.</summary>
    internal static RefusedException ToNobody(string title) => new("given-to-nobody", $"“{title}” is given to groups in which there is nobody.", "Put students into them, give it to others, or keep it as a draft.", "students");

    /// <summary>Bins an assignment; refused while the teacher holds any of its work.</summary>
    public void Bin(Caller by, ClassId id, AssignmentId assignment) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
        var a = AssignmentStore.Find(c, id, assignment) ?? throw Refusals.NotFound("assignment");
        var work = WorkStore.OfClass(c, id).Where(w => w.AssignmentId == assignment).ToList();
        var held = work.Count(w => WorkFlow.Holder(w.State) == HeldBy.Teacher);
        if (held > 0)
            throw new RefusedException("work-held", $"The teacher holds {held} pieces of work for “{a.Title}”: binned now they would be gone for the students too.", "Return them first.");
        if (work.Count > 0)
            throw new RefusedException("assignment-has-work", $"{work.Count} students have work in “{a.Title}”.", "Keep it: it goes into the archive with the class.");
        var now = premises.Clock.Now;
        AssignmentStore.Bin(c, assignment, now, by.Id);
        Premises.Add(c, by, now, new("binned", "assignment", assignment.Value, id, a.Title));
    });

    private static (string Title, string Instructions, IReadOnlyList<FolderId> Folders) Check(NewAssignment n)
    {
        var title = Refusals.Needed(n.Title, "title", "The title", 120);
        var instructions = Refusals.NotLonger(n.Instructions?.Trim() ?? "", "instructions", "The instructions", 20_000);
        if (n is { Scheme: null, Points: { } p } && (p <= 0 || p > 10_000)) throw new RefusedException("points-range", $"{p} points is not between 0 and 10,000.", "Type a number in that range, or leave it empty.", "points");
        if (n.DueTime is not null && n.DueOn is null) throw new RefusedException("due-time-without-day", "A time is set and no day.", "Set the day it is due, or take the time away.", "dueOn");
        if (n.LateDays is < 0 or > Due.MostLateDays) throw new RefusedException("late-days-range", $"{n.LateDays} days is not between 0 and {Due.MostLateDays}.", "Type a number in that range, or take late work without an end.", "lateDays");
        if (n.Folders is not { Count: > 0 } folders) throw new RefusedException("missing", "The assignment is filed in no folder, so no student would find it.", "Tick at least one folder.", "folders");
        return (title, instructions, folders);
    }

    // A moment within the hour that the clock skips or repeats is the later one: nobody finds it before they were told.
    private Instant? Moment(NewAssignment n, ClassAndPlace at)
    {
        if (n.PublishAt is not { } set) return null;
        if (at.Class.Kind != WorkspaceKind.Class) throw new RefusedException("bank-no-students", "A bank has no students: what stands in it is used in classes.", "Keep it as a draft, then use it in classes.", "publishAt");
        var moment = Due.Of(set, premises.Clock.Zone);
        if (moment <= premises.Clock.Now) throw new RefusedException("publish-past", "The moment that is set for publishing is over.", "Set a later one, or publish it now.", "publishAt");
        return moment;
    }

    // What it says, the same in every class that gets it.
    private static AssignmentRow Said(AssignmentRow row, NewAssignment n, string title, string instructions) =>
        row with { Title = title, Instructions = instructions, Points = n.Full, SchemeJson = n.Scheme?.Write(), DueOn = n.DueOn, DueTime = Minute(n), LateDays = n.LateDays };

    private static LocalTime? Minute(NewAssignment n) => n.DueTime is { } t ? new LocalTime(t.Hour, t.Minute) : null;

    private static void TitleFree(IDbConnection c, ClassId id, string title, AssignmentId? but, string? of = null)
    {
        if (AssignmentStore.OfClass(c, id).FirstOrDefault(a => a.Id != but && SafeName.Clash(a.Title, title)) is { } same)
            throw new RefusedException("name-taken", $"There is already an assignment “{same.Title}”{(of is null ? "" : $" in “{of}”")}.", "Give this one another title, so that students can tell them apart.", "title");
    }

    private static List<string> Blind(IDbConnection c, ClassAndPlace at, IReadOnlyList<FolderRow> there, IReadOnlyList<FolderId> folders, List<MemberRow> given)
    {
        var ones = BlindOnes(c, at, there, folders, given).ToHashSet();
        return [.. given.Where(m => ones.Contains(m.PersonId)).Select(m => m.Name.Display)];
    }

    /// <summary>Students who see none of these folders.</summary>
    internal static List<PersonId> BlindOnes(IDbConnection c, ClassAndPlace at, IReadOnlyList<FolderRow> there, IReadOnlyList<FolderId> folders, List<MemberRow> given)
    {
        var facts = there.ToDictionary(f => f.Id, f => f.Fact);
        var groups = GroupStore.Members(c, at.Class.Id);
        return [.. given.Where(m => new Access(new Viewer(m.PersonId, Standing.Student, m.MayPost, ClassState.Open, at.Class.AfterArchive, GroupsOf(groups, m.PersonId)), facts).OfThing(folders) < Right.View)
            .Select(m => m.PersonId)];
    }

    private static HashSet<GroupId> GroupsOf(ILookup<GroupId, PersonId> members, PersonId person) => [.. members.Where(g => g.Contains(person)).Select(g => g.Key)];
}
