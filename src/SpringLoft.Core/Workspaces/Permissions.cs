using SpringLoft.Core.People;

namespace SpringLoft.Core.Workspaces;

/// <summary>Everything that a person can ask the program to do, as far as permission goes.</summary>
public enum Act
{
    /// <summary>Show one's second step, or see that one is asked: with a right password and nothing more.</summary>
    PassDoor,

    /// <summary>One's own sign-in: nothing but being signed in.</summary>
    OwnSignIn,

    /// <summary>Set up, change or take away one's own second step.</summary>
    SetUpSecondStep,

    /// <summary>Fetch all that is known of oneself.</summary>
    HaveOwnData,

    /// <summary>See the classes that one has something to do with.</summary>
    SeeOwnClasses,

    /// <summary>See the board, plans and calendar.</summary>
    SeeBoard,

    /// <summary>Look people up in the directory.</summary>
    SearchDirectory,

    /// <summary>Make a class, or preview one.</summary>
    MakeClass,

    /// <summary>Read the audit trail.</summary>
    SeeAudit,

    /// <summary>Write the school's folder plans. Putting one to a class is for who leads that class.</summary>
    PlanFolders,

    /// <summary>Lay down the school's years and how classes are named.</summary>
    LayDownYear,

    /// <summary>Add somebody to the directory whom it lacks, after looking who they might be.</summary>
    AddPerson,

    /// <summary>Change people of the directory, join duplicates, see to leavers.</summary>
    KeepDirectory,

    /// <summary>Change what somebody is in the school.</summary>
    SetRoles,

    /// <summary>Join two accounts of one person, or take them apart again.</summary>
    JoinPeople,

    /// <summary>Make new slips for people of the directory, ticked as many as they are.</summary>
    MakeSlipsOfAnybody,

    /// <summary>Take somebody else's second step away, who has lost it.</summary>
    EndSecondStep,

    /// <summary>See the school's rules, and what others would do.</summary>
    SeeSchoolRules,

    /// <summary>Fetch all that is known of somebody, and see what erasing them would do.</summary>
    HavePersonData,

    /// <summary>Take the data of somebody who left out of the directory, for good.</summary>
    ErasePeople,

    /// <summary>Lay down the school's rules on sign-ins, files and keeping.</summary>
    SetSchoolRules,

    /// <summary>Say where the school's records are, and with which secret they are asked.</summary>
    SetFeed,

    /// <summary>Receive deliveries of rosters from the school's records, apply them, take them back.</summary>
    TakeDeliveries,

    /// <summary>Read packages in, hand out take-homes, bring back deleted classes.</summary>
    KeepLoft,

    /// <summary>Delete archived classes.</summary>
    DeleteClasses,

    /// <summary>Let go of somebody's take-home for good, by name and with a reason. One's own needs nobody else.</summary>
    LetGoOfTakeHome,

    /// <summary>See and make the slips of anybody of the directory.</summary>
    HaveSlipsOfAnybody,

    /// <summary>End a password that somebody else has chosen: whoever makes the new one can sign in as them.</summary>
    EndOwnPassword,

    /// <summary>Say yes to a class's staff having the slips of people whom they enrolled by hand.</summary>
    LetClassHaveSlips,

    /// <summary>See letters on their way, and have one tried again.</summary>
    KeepLetters,

    /// <summary>Move the date that the demo believes in.</summary>
    MoveDate,

    /// <summary>Look into the workspace of a class; what is seen there is decided folder by folder.</summary>
    SeeClass,

    /// <summary>Put a file into a folder; which folder is decided folder by folder.</summary>
    AddItem,

    /// <summary>Hand in, take back and keep one's own work.</summary>
    HandIn,

    /// <summary>Fetch one's own work from a class, also after leaving it.</summary>
    TakeHome,

    /// <summary>Arrange folders, assignments, notices; see the roster.</summary>
    Arrange,

    /// <summary>Enroll and remove people.</summary>
    ManageRoster,

    /// <summary>See and make slips of the class's students; of which of them is decided student by student.</summary>
    HaveSlips,

    /// <summary>See, mark and return the work of students.</summary>
    Mark,

    /// <summary>Open a class to its students.</summary>
    OpenClass,

    /// <summary>Close, archive and restore a class; fetch its package.</summary>
    CloseClass,

    /// <summary>Make next year's class from this one.</summary>
    RollOver,
}

/// <summary>The one place where it says who may ask for what.</summary>
public static class Permissions
{
    /// <summary>Is the act decided by the person's place in a class, rather than in the school?</summary>
    public static bool IsAboutClass(Act act) => act >= Act.SeeClass;

    /// <summary>Is the second step asked once more before it, of whoever has one? These do the most harm in the wrong hands.</summary>
    public static bool AsksAgain(Act act) => act is Act.SetUpSecondStep or Act.SetRoles or Act.JoinPeople or Act.MakeSlipsOfAnybody or Act.EndSecondStep or Act.SetSchoolRules or Act.ErasePeople or Act.SetFeed or Act.DeleteClasses;

    /// <summary>How far in must somebody be to do it?</summary>
    public static bool IsOpenTo(Act act, Door door) => door switch
    {
        Door.StepNeeded => act is Act.PassDoor,
        Door.StepToSetUp => act is Act.PassDoor or Act.OwnSignIn or Act.SetUpSecondStep,
        _ => true,
    };

    /// <summary>May a person of this role in the school do an act that is about no class?</summary>
    public static bool InSchool(SchoolRole role, Act act) => act switch
    {
        Act.PassDoor or Act.OwnSignIn or Act.HaveOwnData or Act.SeeOwnClasses => true,
        Act.SetUpSecondStep => SecondStepRules.MayHave(role),
        Act.SeeBoard or Act.SearchDirectory or Act.MakeClass or Act.AddPerson => role is SchoolRole.Teacher or SchoolRole.Coordinator,
        Act.SeeAudit or Act.MoveDate or Act.LayDownYear or Act.PlanFolders or Act.KeepDirectory or Act.SetRoles or Act.JoinPeople or Act.MakeSlipsOfAnybody or Act.EndSecondStep
            or Act.SeeSchoolRules or Act.SetSchoolRules or Act.HavePersonData or Act.ErasePeople or Act.SetFeed or Act.TakeDeliveries or Act.KeepLoft or Act.DeleteClasses or Act.HaveSlipsOfAnybody or Act.EndOwnPassword or Act.LetClassHaveSlips
            or Act.LetGoOfTakeHome or Act.KeepLetters => role is SchoolRole.Coordinator,
        _ => false,
    };

    /// <summary>May a person who stands so to a class do this in it? The state of the class is for the use case to judge.</summary>
    public static bool InClass(Standing standing, Act act) => act switch
    {
        Act.TakeHome => standing >= Standing.Left,
        Act.SeeClass => standing >= Standing.Student,
        Act.AddItem => standing >= Standing.Student,
        Act.HandIn => standing is Standing.Student,
        Act.Arrange or Act.Mark or Act.ManageRoster or Act.HaveSlips => standing >= Standing.CoTeacher,
        Act.OpenClass or Act.CloseClass or Act.RollOver => standing >= Standing.Lead,
        _ => false,
    };

    /// <summary>
    /// A person's place relative to a class. Whoever has crossed in the school since, from student to staff or back, has no rights
    /// from the place of before: of a student who is staff now what was theirs is left, of staff who is a student now nothing.
    /// </summary>
    /// <param name="role">In the school.</param>
    /// <param name="inClass">In the class; null if never on its roster.</param>
    /// <param name="left">True if taken off the roster since.</param>
    public static Standing StandingOf(SchoolRole role, ClassRole? inClass, bool left) => (role, inClass, left) switch
    {
        (SchoolRole.Coordinator, _, _) => Standing.Coordinator,
        (_, ClassRole.Student, true) => Standing.Left,
        (not SchoolRole.Student, ClassRole.Student, _) => Standing.Left,
        (_, _, true) or (_, null, _) or (SchoolRole.Student, _, _) when inClass != ClassRole.Student => Standing.SignedIn,
        (_, ClassRole.Lead, _) => Standing.Lead,
        (_, ClassRole.CoTeacher, _) => Standing.CoTeacher,
        _ => Standing.Student,
    };
}
