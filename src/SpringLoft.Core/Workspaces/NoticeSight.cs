namespace SpringLoft.Core.Workspaces;

/// <summary>A notice as far as who sees it goes.</summary>
/// <param name="Posted">Null until its moment has come.</param>
/// <param name="Group">In this class for one group alone; null for all of it.</param>
public sealed record NoticeFact(Instant? Posted, bool Withdrawn, LocalDate? PinnedUntil, GroupId? Group);

/// <summary>Who sees a notice, and how it stands.</summary>
public static class NoticeSight
{
    /// <summary>
    /// Staff of the class see all that is meant for it, also what is not posted yet; students what is posted, not withdrawn, and for
    /// all or for a group of theirs, in a class that shows students anything.
    /// </summary>
    /// <param name="open">Is there anything of the class for students to see?</param>
    public static bool Sees(NoticeFact notice, Standing standing, IReadOnlySet<GroupId> groups, bool open) =>
        !notice.Withdrawn && (standing >= Standing.CoTeacher
            || (standing == Standing.Student && open && notice.Posted is not null && (notice.Group is not { } group || groups.Contains(group))));

    /// <summary>Does it stand above the others? To the end of the day that was set.</summary>
    public static bool IsPinned(NoticeFact notice, LocalDate today) => notice is { Withdrawn: false, PinnedUntil: { } until } && today <= until;
}
