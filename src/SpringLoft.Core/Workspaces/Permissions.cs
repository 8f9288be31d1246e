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

    /// <summary>Read what is new and concerns one, and say what one wants to be told.</summary>
    SeeNews,

    /// <summary>Be connected with others who write a page at once; which pages is decided page by page.</summary>
    WriteTogether,

    /// <summary>Keep phrases of one's own for comments on work.</summary>
    KeepPhrases,

    /// <summary>See which classes one is asked to lead, and answer.</summary>
    AnswerLeadOffer,

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

    /// <summary>See and forget the accounts at providers by which somebody else signs in.</summary>
    ForgetAccounts,

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

    /// <summary>Keep the contacts of families, and lay down which letters go to them.</summary>
    KeepFamilies,

    /// <summary>Post notices to everybody of the school.</summary>
    TellSchool,

    /// <summary>Lay down the scales on which work can be marked.</summary>
    LayDownScales,

    /// <summary>See the scales of the school, to give work with them.</summary>
    SeeScales,

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

    /// <summary>Arrange folders and assignments; see the roster.</summary>
    Arrange,

    /// <summary>Post notices to a class, change and withdraw them, see who has seen them.</summary>
    PostNotices,

    /// <summary>Put a folder plan to a class, and take it back.</summary>
    PutPlan,

    /// <summary>Enroll and remove people.</summary>
    ManageRoster,

    /// <summary>Ask a colleague to lead the class from now on, and take that back.</summary>
    OfferLead,

    /// <summary>Say who leads the class, without asking anybody.</summary>
    SetLead,

    /// <summary>See and make slips of the class's students; of which of them is decided student by student.</summary>
    HaveSlips,

    /// <summary>See, mark and return the work of students.</summary>
    Mark,

    /// <summary>See who opened, wrote and handed in, by school day.</summary>
    SeeActivity,

    /// <summary>Read a place to talk, and write in it where it lets one.</summary>
    Talk,

    /// <summary>Make places to talk, hide messages, see who has answered, let students only read.</summary>
    KeepTalk,

    /// <summary>Say that one has read what asks for it.</summary>
    Acknowledge,

    /// <summary>Have things ask to be acknowledged, see who has, remind, print papers for homes.</summary>
    KeepAcknowledgements,

    /// <summary>Open a class to its students.</summary>
    OpenClass,

    /// <summary>Close, archive and restore a class; fetch its package.</summary>
    CloseClass,

    /// <summary>Make next year's class from this one.</summary>
    RollOver,
}

/// <summary>What an act is about: over whom or what the right to it is given.</summary>
public enum ActScope
{
    /// <summary>Oneself and one's own.</summary>
    Own,

    /// <summary>A class, or the workspace of a department: by one's place in it.</summary>
    Class,

    /// <summary>The whole school: by what one is there.</summary>
    School,
}

/// <summary>Who may do an act.</summary>
/// <param name="Roles">In the school, for what is about oneself or the school.</param>
/// <param name="Least">The least standing in a class that is enough, for what is about one.</param>
/// <param name="Most">The highest standing that still may: what is a student's own is not for their teacher to do.</param>
/// <param name="AsksAgain">True if the second step is asked once more before it, of whoever has one: it does the most harm in the wrong hands.</param>
/// <param name="Before">How far in one must be: behind the door, or before it.</param>
public sealed record Permission(Act Act, ActScope Scope, IReadOnlyList<SchoolRole> Roles, Standing Least = Standing.SignedIn, Standing Most = Standing.Coordinator, bool AsksAgain = false, Door Before = Door.Open);

/// <summary>The one place where it says who may ask for what.</summary>
public static class Permissions
{
    private static readonly SchoolRole[] Anybody = Enum.GetValues<SchoolRole>();
    private static readonly SchoolRole[] Staff = [.. Anybody.Where(SecondStepRules.MayHave)];
    private static readonly SchoolRole[] Teaching = [SchoolRole.Teacher, SchoolRole.Coordinator];
    private static readonly SchoolRole[] Coordinating = [SchoolRole.Coordinator];

    /// <summary>Every act, with who may do it.</summary>
    public static IReadOnlyList<Permission> All { get; } =
    [
        new(Act.PassDoor, ActScope.Own, Anybody, Before: Door.StepNeeded),
        new(Act.OwnSignIn, ActScope.Own, Anybody, Before: Door.StepToSetUp),
        new(Act.SetUpSecondStep, ActScope.Own, Staff, AsksAgain: true, Before: Door.StepToSetUp),
        new(Act.HaveOwnData, ActScope.Own, Anybody),
        new(Act.SeeOwnClasses, ActScope.Own, Anybody),
        new(Act.SeeNews, ActScope.Own, Anybody),
        new(Act.WriteTogether, ActScope.Own, Anybody),
        new(Act.KeepPhrases, ActScope.Own, Staff),
        new(Act.AnswerLeadOffer, ActScope.Own, Staff),

        new(Act.SeeBoard, ActScope.School, Teaching),
        new(Act.SearchDirectory, ActScope.School, Teaching),
        new(Act.MakeClass, ActScope.School, Teaching),
        new(Act.AddPerson, ActScope.School, Teaching),
        new(Act.SeeAudit, ActScope.School, Coordinating),
        new(Act.PlanFolders, ActScope.School, Coordinating),
        new(Act.LayDownYear, ActScope.School, Coordinating),
        new(Act.KeepDirectory, ActScope.School, Coordinating),
        new(Act.SetRoles, ActScope.School, Coordinating, AsksAgain: true),
        new(Act.JoinPeople, ActScope.School, Coordinating, AsksAgain: true),
        new(Act.MakeSlipsOfAnybody, ActScope.School, Coordinating, AsksAgain: true),
        new(Act.EndSecondStep, ActScope.School, Coordinating, AsksAgain: true),
        new(Act.ForgetAccounts, ActScope.School, Coordinating, AsksAgain: true),
        new(Act.SeeSchoolRules, ActScope.School, Coordinating),
        new(Act.HavePersonData, ActScope.School, Coordinating),
        new(Act.ErasePeople, ActScope.School, Coordinating, AsksAgain: true),
        new(Act.SetSchoolRules, ActScope.School, Coordinating, AsksAgain: true),
        new(Act.SetFeed, ActScope.School, Coordinating, AsksAgain: true),
        new(Act.TakeDeliveries, ActScope.School, Coordinating),
        new(Act.KeepLoft, ActScope.School, Coordinating),
        new(Act.DeleteClasses, ActScope.School, Coordinating, AsksAgain: true),
        new(Act.LetGoOfTakeHome, ActScope.School, Coordinating),
        new(Act.HaveSlipsOfAnybody, ActScope.School, Coordinating),
        new(Act.EndOwnPassword, ActScope.School, Coordinating),
        new(Act.LetClassHaveSlips, ActScope.School, Coordinating),
        new(Act.KeepLetters, ActScope.School, Coordinating),
        new(Act.KeepFamilies, ActScope.School, Coordinating),
        new(Act.TellSchool, ActScope.School, Coordinating),
        new(Act.LayDownScales, ActScope.School, Coordinating),
        new(Act.SeeScales, ActScope.School, Staff),
        new(Act.MoveDate, ActScope.School, Coordinating),

        new(Act.SeeClass, ActScope.Class, [], Standing.Student),
        new(Act.AddItem, ActScope.Class, [], Standing.Student),
        new(Act.HandIn, ActScope.Class, [], Standing.Student, Standing.Student),
        new(Act.TakeHome, ActScope.Class, [], Standing.Left),
        new(Act.Arrange, ActScope.Class, [], Standing.CoTeacher),
        new(Act.PostNotices, ActScope.Class, [], Standing.CoTeacher),
        new(Act.PutPlan, ActScope.Class, [], Standing.Lead),
        new(Act.ManageRoster, ActScope.Class, [], Standing.CoTeacher),
        new(Act.OfferLead, ActScope.Class, [], Standing.Lead),
        new(Act.SetLead, ActScope.Class, [], Standing.Coordinator),
        new(Act.HaveSlips, ActScope.Class, [], Standing.CoTeacher),
        new(Act.Mark, ActScope.Class, [], Standing.CoTeacher),
        new(Act.SeeActivity, ActScope.Class, [], Standing.CoTeacher),
        new(Act.Talk, ActScope.Class, [], Standing.Student),
        new(Act.KeepTalk, ActScope.Class, [], Standing.CoTeacher),
        new(Act.Acknowledge, ActScope.Class, [], Standing.Student, Standing.Student),
        new(Act.KeepAcknowledgements, ActScope.Class, [], Standing.CoTeacher),
        new(Act.OpenClass, ActScope.Class, [], Standing.Lead),
        new(Act.CloseClass, ActScope.Class, [], Standing.Lead),
        new(Act.RollOver, ActScope.Class, [], Standing.Lead),
    ];

    private static readonly Dictionary<Act, Permission> Table = All.ToDictionary(p => p.Act);

    /// <summary>Is the act decided by the person's place in a class, rather than in the school?</summary>
    public static bool IsAboutClass(Act act) => Table[act].Scope == ActScope.Class;

    /// <summary>Is the second step asked once more before it, of whoever has one?</summary>
    public static bool AsksAgain(Act act) => Table[act].AsksAgain;

    /// <summary>Is it open to somebody who is so far in?</summary>
    public static bool IsOpenTo(Act act, Door door) => door switch
    {
        Door.StepNeeded => Table[act].Before == Door.StepNeeded,
        Door.StepToSetUp => Table[act].Before != Door.Open,
        _ => true,
    };

    /// <summary>May a person of this role in the school do an act that is about no class?</summary>
    public static bool InSchool(SchoolRole role, Act act) => Table[act] is { Scope: not ActScope.Class } p && p.Roles.Contains(role);

    /// <summary>May a person who stands so to a class do this in it? The state of the class is for the use case to judge.</summary>
    public static bool InClass(Standing standing, Act act) => Table[act] is { Scope: ActScope.Class } p && standing >= p.Least && standing <= p.Most;

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
