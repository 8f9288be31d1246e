namespace SpringLoft.Core.Assignments;

/// <summary>Who has an assignment because of a group.</summary>
public static class GivenGroups
{
    /// <summary>
    /// Of one that is published, when its groups are changed. Members of a group that comes new get it. Of a group that stays, those
    /// who had it keep it, also when they left the group since; who joined it since gets it by name alone: work set earlier comes only
    /// if the teacher says so. With a group that goes, those go who are in none that stays.
    /// </summary>
    /// <param name="before">The groups that it was given to.</param>
    /// <param name="now">Those that it is to be given to.</param>
    /// <param name="had">Who has it because of a group.</param>
    /// <param name="members">Who is in which group now.</param>
    public static IReadOnlySet<PersonId> Changed(IReadOnlyCollection<GroupId> before, IReadOnlyCollection<GroupId> now, IReadOnlyCollection<PersonId> had, ILookup<GroupId, PersonId> members)
    {
        var gone = before.Except(now).SelectMany(g => members[g]).ToHashSet();
        var stay = now.SelectMany(g => members[g]).ToHashSet();
        return had.Where(p => !gone.Contains(p) || stay.Contains(p)).Concat(now.Except(before).SelectMany(g => members[g])).ToHashSet();
    }

    /// <summary>Who joined one of its groups since it was published, and does not have it.</summary>
    public static IReadOnlyList<PersonId> JoinedSince(IEnumerable<GroupId> groups, IReadOnlyCollection<PersonId> given, ILookup<GroupId, PersonId> members) =>
        [.. groups.SelectMany(g => members[g]).Distinct().Where(p => !given.Contains(p))];
}
