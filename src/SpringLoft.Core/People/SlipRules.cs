using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.People;

/// <summary>What keeps the staff of a class from somebody's slip.</summary>
public enum SlipBar
{
    /// <summary>Nothing.</summary>
    None,

    /// <summary>They are staff in the school; a class has slips of its students only.</summary>
    IsStaff,

    /// <summary>They were put on the roster by hand, by a code or by an invitation, and have not been on it for long.</summary>
    TooNew,
}

/// <summary>
/// Who may have whose first password. With it one signs in as that person: a class has it only of students whom the school's
/// records put there, who have been there for some days, or of whom a coordinator has said yes.
/// </summary>
public static class SlipRules
{
    /// <summary>So long somebody stands on a roster before its staff have the slip: long enough for others to see who should not be there.</summary>
    public static readonly Duration OnRoster = Duration.FromDays(3);

    /// <summary>What keeps the staff of a class from the slip of somebody on its roster.</summary>
    /// <param name="role">In the school.</param>
    /// <param name="by">How they came onto the roster.</param>
    /// <param name="since">When they came, or came back.</param>
    /// <param name="coordinatorSaidYes">True also if a coordinator put them there.</param>
    /// <param name="madeByAsker">The asker made the password that they would see, and it was never used: with the account, or as a slip.</param>
    public static SlipBar ForStaffOfClass(SchoolRole role, EnrolledBy by, Instant since, bool coordinatorSaidYes, bool madeByAsker, Instant now) =>
        role != SchoolRole.Student ? SlipBar.IsStaff
        : coordinatorSaidYes || madeByAsker || by == EnrolledBy.Feed || now - since >= OnRoster ? SlipBar.None
        : SlipBar.TooNew;
}
