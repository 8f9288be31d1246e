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

/// <summary>Finds a class and the asker's place in it, and asks whether they may do there what they are about to.</summary>
public static class ClassGate
{
    /// <summary>The class, for whoever may do an act in it. A use case calls this in the transaction in which it acts, with the class that it touches.</summary>
    /// <exception cref="RefusedException"><c>not-found</c>; <c>not-allowed</c> for whoever has a place there that does not allow it.</exception>
    public static ClassAndPlace Demand(IDbConnection c, Caller who, ClassId id, Act act)
    {
        var at = Find(c, who, id);
        return Permissions.InClass(at.Standing, act) ? at : throw Shut(at.Standing);
    }

    /// <summary>The same of an act that is about the school.</summary>
    /// <exception cref="RefusedException"><c>not-allowed</c>.</exception>
    public static void Demand(Caller who, Act act)
    {
        if (!Permissions.InSchool(who.Role, act)) throw new RefusedException("not-allowed", "That is not among the things your role can do.", "Ask the coordinator.");
    }

    /// <summary>May somebody do it there? False for a class that is not there.</summary>
    public static bool May(IDbConnection c, Caller who, ClassId id, Act act) => ClassStore.Find(c, id) is not null && Permissions.InClass(Find(c, who, id).Standing, act);

    /// <summary>Why not: who has no place in a class is not told that it exists.</summary>
    private static RefusedException Shut(Standing standing) => standing <= Standing.SignedIn
        ? new("not-found", "There is no such class here.", "It may be somebody else's: ask its teacher.")
        : new("not-allowed", "Your place in this class does not allow that.", "Ask the lead teacher.");

    /// <exception cref="RefusedException"><c>not-found</c>.</exception>
    public static ClassAndPlace Find(IDbConnection c, Caller who, ClassId id)
    {
        var k = ClassStore.Find(c, id) ?? throw Refusals.NotFound("class");
        var member = RosterStore.Member(c, id, who.Id);
        return new(k, Permissions.StandingOf(who.Role, member?.Role, member?.LeftAt is not null), member, GroupStore.Of(c, id, who.Id));
    }
}
