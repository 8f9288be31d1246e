namespace SpringLoft.Core.Workspaces;

/// <summary>Who writes in a place to talk; whoever sees its folder reads.</summary>
public enum TalkWriters
{
    /// <summary>Everybody who sees it.</summary>
    Readers,

    /// <summary>Staff alone.</summary>
    Staff,

    /// <summary>One group, and staff.</summary>
    Group,
}

/// <summary>Why somebody does not write.</summary>
public enum CantTalk
{
    /// <summary>The class is archived.</summary>
    Archived,

    /// <summary>The place is closed: nobody writes in it.</summary>
    Closed,

    /// <summary>Only staff write there.</summary>
    StaffOnly,

    /// <summary>Only a group writes there, and they are not in it.</summary>
    OtherGroup,

    /// <summary>They are set to read only, in talk or in all of the class.</summary>
    ReadsOnly,

    /// <summary>For now all students of the class only read.</summary>
    ClassReadsOnly,
}

/// <summary>A place to talk as far as writing goes.</summary>
public sealed record TalkFact(TalkWriters Writers, GroupId? Group, bool Closed);

/// <summary>Somebody who reads in it.</summary>
/// <param name="ReadsOnly">Set so, in talk or in all of the class.</param>
/// <param name="ClassReadsOnly">All students of the class are.</param>
public sealed record Talker(bool Staff, bool ReadsOnly, bool ClassReadsOnly, IReadOnlySet<GroupId> Groups);

/// <summary>Who writes in a place to talk, and who has answered its question. Source: docs/rules.md, "Talk".</summary>
public static class Talk
{
    /// <summary>Most characters of a message.</summary>
    public const int MostText = 2000;

    /// <summary>Why somebody who reads does not write; null where they do.</summary>
    public static CantTalk? WhyNot(TalkFact place, Talker who, ClassState state)
    {
        if (state == ClassState.Archived) return CantTalk.Archived;
        if (place.Closed) return CantTalk.Closed;
        if (who.Staff) return null;
        if (who.ReadsOnly) return CantTalk.ReadsOnly;
        if (who.ClassReadsOnly) return CantTalk.ClassReadsOnly;
        return place.Writers switch
        {
            TalkWriters.Staff => CantTalk.StaffOnly,
            TalkWriters.Group when place.Group is not { } g || !who.Groups.Contains(g) => CantTalk.OtherGroup,
            _ => null,
        };
    }
}
