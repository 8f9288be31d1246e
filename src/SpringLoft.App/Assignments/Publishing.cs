using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Assignments;

/// <summary>What became of many drafts.</summary>
/// <param name="Unseen">Titles of those that none of their students could find: they stay drafts.</param>
public sealed record ManyPublished(int Published, IReadOnlyList<string> Unseen);

/// <summary>Publishes drafts, one, many or by the clock, and takes back what nobody has handed in for.</summary>
public sealed class Publishing(Premises premises)
{
    /// <summary>Publishes a draft, and with it those that are kept in step with it in other classes.</summary>
    /// <param name="evenSo">Also where none of those whom it is given to can see it.</param>
    /// <exception cref="RefusedException"><c>publish-unseen</c>, <c>bank-no-students</c>, <c>assignment-published</c>, <c>changed-meanwhile</c>.</exception>
    public void Publish(Caller by, ClassId id, AssignmentId assignment, int version, bool evenSo = false) => premises.Db.Write(c =>
    {
        var at = Class(c, by, id);
        var a = AssignmentStore.Find(c, id, assignment) ?? throw Refusals.NotFound("assignment");
        if (a.PublishedAt is not null) throw new RefusedException("assignment-published", $"“{a.Title}” is published already.", "Nothing to do.");
        var (students, unseen) = Unseen(c, at, a);
        if (AssignmentStore.GivenTo(c, id)[assignment].Contains(AssignmentStore.Nobody)) throw Assigning.ToNobody(a.Title);
        if (!evenSo && unseen)
            throw new RefusedException("publish-unseen", $"None of the {students} students whom it is given to can see “{a.Title}”: it is filed only where they see nothing.", "File it in a folder that they see, or publish it all the same.");
        if (PutInStep(c, by, id, a with { Version = version }).Count == 0) throw Refusals.ChangedMeanwhile("assignment");
    });

    /// <summary>Publishes many drafts of a class in one act; those that none of their students could find stay drafts and are named.</summary>
    public ManyPublished PublishMany(Caller by, ClassId id, IReadOnlyList<AssignmentId> assignments) => premises.Db.Write(c =>
    {
        var at = Class(c, by, id);
        Refusals.CheckTicked(assignments?.Count ?? 0, 1000, "assignments");
        var ticked = assignments!.ToHashSet();
        var drafts = AssignmentStore.OfClass(c, id).Where(a => a.PublishedAt is null && ticked.Contains(a.Id)).ToList();
        var unseen = PublishIn(c, by, at, drafts).Unseen;
        return new ManyPublished(drafts.Count - unseen.Count, unseen);
    });

    /// <summary>The same of drafts that were read.</summary>
    /// <returns>With those that came out in step with them in other classes.</returns>
    internal (IReadOnlyList<AssignmentId> Ids, IReadOnlyList<string> Unseen) PublishIn(IDbConnection c, Caller by, ClassAndPlace at, IReadOnlyList<AssignmentRow> drafts)
    {
        var unseen = drafts.Where(a => IsUnseen(c, at, a)).ToList();
        return ([.. drafts.Except(unseen).SelectMany(a => PutInStep(c, by, at.Class.Id, a))], [.. unseen.Select(a => a.Title)]);
    }

    /// <summary>Sets when a draft is published by the clock, and with it those that are kept in step with it.</summary>
    /// <returns>Those that were set.</returns>
    internal IReadOnlyList<AssignmentId> SetInStep(IDbConnection c, Caller by, ClassId id, AssignmentRow a, Instant at)
    {
        (ClassId Class, AssignmentRow Row)[] all = [(id, a), .. InStep.Free(c, by, a).Where(x => x.Row.PublishedAt is null).Select(x => (x.At.Class.Id, x.Row))];
        foreach (var (of, one) in all)
        {
            AssignmentStore.PublishAt(c, one.Id, at);
            Premises.Add(c, by, premises.Clock.Now, new("set when assignment is published", "assignment", one.Id.Value, of, one.Title));
        }
        return [.. all.Select(x => x.Row.Id)];
    }

    /// <summary>Would nobody find it of those whom it is given to? Nor does anybody where it is given to a group without anybody.</summary>
    internal static bool IsUnseen(IDbConnection c, ClassAndPlace at, AssignmentRow a) => AssignmentStore.GivenTo(c, at.Class.Id)[a.Id].Contains(AssignmentStore.Nobody) || Unseen(c, at, a).None;

    /// <summary>Makes a published assignment a draft again, while nobody has handed in, and with it those that are kept in step with it; what students have begun stays theirs.</summary>
    /// <exception cref="RefusedException"><c>assignment-has-work</c>, <c>changed-meanwhile</c>.</exception>
    public void Withdraw(Caller by, ClassId id, AssignmentId assignment, int version) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
        var a = AssignmentStore.Find(c, id, assignment) ?? throw Refusals.NotFound("assignment");
        if (a.PublishedAt is null) return;
        var came = WorkStore.OfClass(c, id).Count(w => w.AssignmentId == assignment && w.State != WorkState.Working);
        if (came > 0) throw new RefusedException("assignment-has-work", $"{came} students have handed in work for “{a.Title}”.", "It stays published: they find their work there.");
        var now = premises.Clock.Now;
        var likes = InStep.Free(c, by, a).Where(x => x.Row.PublishedAt is not null).ToList();
        if (!AssignmentStore.Withdraw(c, assignment, version)) throw Refusals.ChangedMeanwhile("assignment");
        Note(id, a);
        foreach (var (of, like) in likes)
        {
            AssignmentStore.Withdraw(c, like.Id, like.Version);
            Note(of.Class.Id, like);
        }

        void Note(ClassId of, AssignmentRow one) => Premises.Add(c, by, now, new("took assignment back to a draft", "assignment", one.Id.Value, of, one.Title));
    });

    /// <summary>Publishes the drafts whose moment has come, each once, whenever the program gets to it.</summary>
    /// <returns>How many.</returns>
    public int Go() => premises.Db.Read(c => AssignmentStore.Ripe(c, premises.Clock.Now)) is { Count: > 0 }
        ? premises.Db.Write(c => AssignmentStore.Ripe(c, premises.Clock.Now).Count(r => Put(c, null, r.Class, r.Draft))) : 0;

    // With it those that are kept in step with it in other classes; none where it was changed meanwhile.
    private IReadOnlyList<AssignmentId> PutInStep(IDbConnection c, Caller by, ClassId id, AssignmentRow a)
    {
        var likes = InStep.Free(c, by, a).Where(x => x.Row.PublishedAt is null).ToList();
        return Put(c, by, id, a) ? [a.Id, .. likes.Where(x => Put(c, by, x.At.Class.Id, x.Row)).Select(x => x.Row.Id)] : [];
    }

    private bool Put(IDbConnection c, Caller? by, ClassId id, AssignmentRow a)
    {
        var now = premises.Clock.Now;
        if (!AssignmentStore.Publish(c, a.Id, a.Version, now)) return false;
        Premises.Add(c, by, now, new("published assignment", "assignment", a.Id.Value, id, a.Title));
        return true;
    }

    internal static ClassAndPlace Class(IDbConnection c, Caller by, ClassId id)
    {
        var at = ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
        return at.Class.Kind == WorkspaceKind.Class ? at
            : throw new RefusedException("bank-no-students", "A bank has no students: what stands in it is used in classes.", "Use it in classes, and publish it there.");
    }

    private static (int Students, bool None) Unseen(IDbConnection c, ClassAndPlace at, AssignmentRow a)
    {
        var given = AssignmentStore.GivenTo(c, at.Class.Id)[a.Id].ToHashSet();
        var roster = RosterStore.Members(c, at.Class.Id).Where(m => m.Role == ClassRole.Student && m.LeftAt is null && (given.Count == 0 || given.Contains(m.PersonId))).ToList();
        return (roster.Count, roster.Count > 0 && Assigning.BlindOnes(c, at, FolderStore.OfClass(c, at.Class.Id), [.. AssignmentStore.Filings(c, at.Class.Id)[a.Id]], roster).Count == roster.Count);
    }
}
