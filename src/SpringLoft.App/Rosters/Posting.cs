using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Rosters;

/// <summary>What it would mean for a student to post in the class, or to view only.</summary>
/// <param name="Posts">What they may now.</param>
/// <param name="Folders">Names of the folders whose rules let them add or change things: theirs to use only while they post.</param>
/// <param name="Begun">Pieces of work that they have with them and could hand in only while they post.</param>
public sealed record PostingMeans(PersonId Id, string Name, bool Posts, IReadOnlyList<string> Folders, int Begun);

/// <summary>Who of a class's students may post in it; one who may not views only.</summary>
public sealed class Posting(Premises premises)
{
    /// <summary>Says what it would mean for each. Writes nothing.</summary>
    public IReadOnlyList<PostingMeans> Preview(ClassId id, IReadOnlyList<PersonId> people) => premises.Db.Read(c =>
    {
        var facts = FolderStore.OfClass(c, id).ToDictionary(f => f.Id, f => f.Fact);
        return Students(c, id, people).Select(m =>
        {
            var access = new Access(new Viewer(m.PersonId, Standing.Student, true, ClassState.Open, AfterArchive.View, GroupStore.Of(c, id, m.PersonId)), facts);
            var theirs = facts.Values.Where(f => access.Of(f.Id).IsMoreThanViewing);
            return new PostingMeans(m.PersonId, m.Name.Sort, m.MayPost, [.. theirs.Select(f => f.Name)], WorkStore.OfStudent(c, id, m.PersonId).Count(w => w.State is WorkState.Working));
        }).ToList();
    });

    /// <summary>Lets students post, or lets them view only; all of them or none.</summary>
    /// <returns>For how many it was otherwise before.</returns>
    public int Set(Caller by, ClassId id, IReadOnlyList<PersonId> people, bool posts) => premises.Db.Write(c =>
    {
        ClassGate.Demand(c, by, id, Act.ManageRoster).NotArchived();
        var changed = Students(c, id, people).Where(m => m.MayPost != posts).ToList();
        var now = premises.Clock.Now;
        foreach (var m in changed)
        {
            RosterStore.SetMayPost(c, id, m.PersonId, posts);
            Premises.Add(c, by, now, new(posts ? "let post" : "set to view only", "person", m.PersonId.Value, id, m.Name.Display));
        }
        return changed.Count;
    });

    private static List<MemberRow> Students(IDbConnection c, ClassId id, IReadOnlyList<PersonId> people)
    {
        if (people.Count == 0) throw new RefusedException("missing", "Nobody is ticked.", "Tick the students it is about.", "people");
        var roster = RosterStore.Members(c, id).Where(m => m.LeftAt is null).ToDictionary(m => m.PersonId);
        var found = people.Distinct().Select(p => roster.TryGetValue(p, out var m) ? m : throw Refusals.NotFound("person on the roster")).ToList();
        if (found.FirstOrDefault(m => m.Role != ClassRole.Student) is { } staff)
            throw new RefusedException("posting-staff", $"{staff.Name.Display} is staff of this class, and staff always post.", "Leave staff out.", "people");
        return found;
    }
}
