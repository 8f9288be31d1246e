using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Workspaces;

/// <summary>A class as it stands to the person who asks.</summary>
/// <param name="Groups">Groups of the class that the person is in.</param>
public sealed record ClassAndPlace(ClassRow Class, Standing Standing, MemberRow? Member, IReadOnlySet<GroupId> Groups)
{
    /// <summary>For the rules on access.</summary>
    public Viewer Viewer(PersonId id) => new(id, Standing, Member?.MayPost ?? true, Class.State, Class.AfterArchive, Groups);

    /// <summary>Throws for an archived class: nobody changes anything in it.</summary>
    public ClassAndPlace NotArchived() => Class.State != ClassState.Archived ? this
        : throw new RefusedException("class-archived", $"“{Class.Name}” is archived: nobody changes anything in it.", "The lead teacher or the coordinator can restore it from the loft.");
}

/// <summary>Finds a class and the asker's place in it.</summary>
public static class ClassGate
{
    /// <exception cref="RefusedException"><c>not-found</c>.</exception>
    public static ClassAndPlace Find(IDbConnection c, Caller who, ClassId id)
    {
        var k = ClassStore.Find(c, id) ?? throw Refusals.NotFound("class");
        var member = RosterStore.Member(c, id, who.Id);
        return new(k, Permissions.StandingOf(who.Role, member?.Role, member?.LeftAt is not null), member, GroupStore.Of(c, id, who.Id));
    }
}
