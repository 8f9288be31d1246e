using SpringLoft.App.Assignments;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;

namespace SpringLoft.App.Workspaces;

/// <summary>The class that a desk is about, as it stands to the asker.</summary>
/// <param name="May">What the asker may do in it, beyond looking.</param>
public sealed record ClassHead(
    ClassId Id, WorkspaceKind Kind, string Name, string Course, string Mark, string? Section, string? Period, string? Level, string? Room, TermId? Term, LocalDate? EndsOn, YearId Year, string YearLabel, ClassState State,
    AfterArchive AfterArchive, string TeacherShown, Standing Standing, IReadOnlyList<Act> May, int Version, int Students, bool RunGoing,
    ClassId? RolledFrom, string? PlanName)
{
    /// <summary>False for a student who only views.</summary>
    public bool Posts { get; init; } = true;
}

/// <summary>A folder that the asker sees.</summary>
/// <param name="Why">Each step that led to the right.</param>
/// <param name="Group">Whose folder it is, and what its <paramref name="Members"/> may do, for one per group.</param>
/// <param name="Talks">Is it a place to talk?</param>
/// <param name="Bent">True if its name or rule differs from what the plan gave it.</param>
public sealed record FolderView(FolderId Id, FolderId? Parent, string Name, FolderRule Rule, Right Right, string? OwnOf, bool Mine, IReadOnlyList<string> Why, int Version, bool Bent, GroupId? Group, GroupMay? Members, bool Talks);

/// <summary>An item that the asker sees.</summary>
/// <param name="Size">In bytes; null for a link.</param>
/// <param name="MayRename">May the asker rename it, or change what it says?</param>
/// <param name="MayCopy">False if it is marked as something that may not be copied into another class.</param>
/// <param name="ByStudent">Did a student put it in?</param>
/// <param name="MayRemove">May the asker bin it, or file it elsewhere?</param>
public sealed record ItemView(ItemId Id, ItemKind Kind, string Name, long? Size, string? Url, IReadOnlyList<FolderId> Folders, string AddedBy, Instant AddedAt, bool MayRename, bool MayRemove, int Version, bool MayCopy, bool ByStudent)
{
    /// <summary>For staff: what it asks of those who find it; null where it asks nothing.</summary>
    public Asks? Asks { get; init; }

    /// <summary>For a student: what it asks of them.</summary>
    public OwnAsking? Asked { get; init; }
}

/// <summary>One time that a piece of work was handed in, as it was then.</summary>
/// <param name="Score">The mark it was returned with; null before that, or without one.</param>
/// <param name="Files">As they were handed in; each by its place, 0 and up.</param>
/// <param name="Receipt">The code of its receipt: who handed in and who marks see the same.</param>
public sealed record TurnView(long Id, Instant HandedInAt, Instant? TakenBackAt, Instant? ReturnedAt, decimal? Score, IReadOnlyList<WorkFileView> Files, string Receipt);

/// <summary>A thing in a piece of work: a file, a link, or a page that was written in place.</summary>
/// <param name="Name">Of a file; the title of a link or page.</param>
/// <param name="Size">In bytes.</param>
/// <param name="Url">Where a link leads.</param>
public sealed record WorkFileView(long Id, ItemKind Kind, string Name, long Size, Instant AddedAt, string? Url)
{
    internal static WorkFileView Of(WorkFileRow f) => new(f.Id, Handed.KindOf(f.Name, f.Url), Handed.TitleOf(f.Name, f.Url), f.Size, f.AddedAt, f.Url);

    internal static WorkFileView Of(TurnFileRow f) => new(f.Position, Handed.KindOf(f.Name, f.Url), Handed.TitleOf(f.Name, f.Url), f.Size, f.AddedAt, f.Url);
}

/// <summary>A private comment.</summary>
public sealed record CommentView(string Author, string Text, Instant At);

/// <summary>A student's own work for an assignment.</summary>
/// <param name="Score">Only once the work is returned.</param>
/// <param name="Chosen">The level of each criterion, 0 and up, of that mark.</param>
/// <param name="LateMinutes">By how many minutes it came late, whole ones; null where it is in time.</param>
public sealed record OwnWorkView(WorkState State, HeldBy HeldBy, decimal? Score, IReadOnlyList<int>? Chosen, IReadOnlyList<WorkFileView> Files, IReadOnlyList<CommentView> Comments, Instant? HandedInAt, Instant? ReturnedAt, int? LateMinutes, IReadOnlyList<TurnView> Turns);

/// <summary>Where an assignment is against the day it is due: still in time, late and taken, or not taken any more.</summary>
public enum DueState { InTime, Late, Closed }

/// <summary>An assignment that the asker sees.</summary>
/// <param name="Scheme">How it is marked, where that is not in plain points.</param>
/// <param name="LateDays">Days after the day it is due on which late work is taken; 0 for none, null without an end.</param>
/// <param name="PublishAt">When it is published by itself, by the school's clock; of a draft.</param>
/// <param name="GivenTo">Students it is given to by name; with no groups either, to all. Staff only.</param>
/// <param name="Groups">Groups it is given to; for a student, those of them that are theirs.</param>
/// <param name="JoinedSince">Who joined one of these groups since it was published, and does not have it. Staff only.</param>
/// <param name="Own">The asker's own work, for a student.</param>
/// <param name="Things">What is attached to it.</param>
public sealed record AssignmentView(
    AssignmentId Id, string Title, string Instructions, decimal? Points, MarkScheme? Scheme, LocalDate? DueOn, LocalTime? DueTime, int? LateDays, DueState DueState, bool Published, LocalDateTime? PublishAt, IReadOnlyList<FolderId> Folders,
    IReadOnlyList<PersonId> GivenTo, IReadOnlyList<GroupName> Groups, IReadOnlyList<PersonId> JoinedSince, int Version, OwnWorkView? Own, IReadOnlyList<AttachedView> Things);

/// <summary>A notice.</summary>
/// <param name="PostedAt">Null while it waits for its moment, which only staff see.</param>
/// <param name="Group">The group that it is for; null for all of the class.</param>
public sealed record NoticeView(long Id, string Text, string Author, Instant? PostedAt, LocalDateTime? PostAt, Instant? ChangedAt, bool Pinned, string? Group, IReadOnlyList<NoticeFile> Files)
{
    /// <summary>For a student: what it asks of them.</summary>
    public OwnAsking? Asked { get; init; }
}

/// <summary>A site or shared material that the class uses.</summary>
public sealed record UsedThing(ResourceId Id, string Title, string? Url, string? FileName, ForWhom ForWhom);

/// <summary>A group of the class, by name.</summary>
public sealed record GroupName(GroupId Id, string Name);

/// <summary>A workspace exactly as one person sees it.</summary>
/// <param name="Welcome">What is read first; CommonMark, empty for none.</param>
/// <param name="Groups">For staff.</param>
/// <param name="Calendar">Where calendar programs subscribe to the class; null if it has no calendar.</param>
public sealed record WorkspaceView(
    ClassHead Head, IReadOnlyList<FolderView> Folders, IReadOnlyList<ItemView> Items, IReadOnlyList<AssignmentView> Assignments,
    IReadOnlyList<NoticeView> Notices, bool TakeHomeReady, string Welcome, IReadOnlyList<UsedThing> Uses, IReadOnlyList<GroupName> Groups, string? Calendar)
{
    /// <summary>For how many days it is kept who did something on which day; null where the school keeps none.</summary>
    public int? ActivityDays { get; init; }

    /// <summary>The room that files take in the class; for staff.</summary>
    public ClassRoom? Room { get; init; }
}

/// <summary>Room in a class.</summary>
/// <param name="Used">Bytes.</param>
/// <param name="Most">Bytes by the school's rule; null for no limit.</param>
public sealed record ClassRoom(long Used, long? Most);

/// <summary>A class in a person's list.</summary>
public sealed record OwnClass(ClassId Id, string Name, string Course, string Mark, string YearLabel, ClassState State, string TeacherShown, Standing Standing, int ToDo, int Returned, bool TakeHomeReady);
