using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Rollover;

/// <summary>A folder of last year's class.</summary>
/// <param name="Group">Whose folder it is, for one per group.</param>
public sealed record OldFolder(FolderId Id, FolderId? Parent, FolderRule Rule, PersonId? Student, bool Binned, GroupId? Group = null);

/// <summary>An item of last year's class.</summary>
/// <param name="AddedByStudent">True if a student put it in: then it is work of students and stays.</param>
/// <param name="MayCopy">False if its owner says that there is no right to copy it.</param>
public sealed record OldItem(ItemId Id, IReadOnlyList<FolderId> FiledIn, bool AddedByStudent, bool Binned, ItemKind Kind = ItemKind.File, bool MayCopy = true);

/// <summary>What there is in last year's class, besides folders and items.</summary>
public sealed record OldCounts(int Assignments, int BinnedAssignments, int Students, int CoTeachers, int Notices, int Work, int Groups = 0);

/// <summary>One line of the list of what comes along and what stays.</summary>
public sealed record AlongLine(string What, int Comes, int Stays, string Why);

/// <summary>Why a thing stays: a student put it in, there is no right to copy it, the folders that it stands in stay, or it is not ticked.</summary>
public enum StaysWhy { OfStudent, NoRight, FolderStays, NotTicked }

/// <summary>A thing that does not come along, the bin left out.</summary>
public sealed record StayingItem(ItemId Item, StaysWhy Why);

/// <summary>What comes along into next year's class and what does not.</summary>
public sealed record ComesAlong(IReadOnlyList<FolderId> Folders, IReadOnlyList<ItemId> Items, IReadOnlyList<StayingItem> Staying, IReadOnlyList<AlongLine> Lines)
{
    /// <summary>
    /// The set-up comes: folders, staff's items, assignments as drafts without a date. Students, co-teachers, notices and
    /// work of students stay, and so does what is in the bin.
    /// </summary>
    /// <param name="choice">What a person lets come; null for all.</param>
    public static ComesAlong Decide(IReadOnlyList<OldFolder> folders, IReadOnlyList<OldItem> items, OldCounts counts, CarryChoice? choice = null)
    {
        var c = choice ?? new();
        var byId = folders.ToDictionary(f => f.Id);
        // A folder inside one that stays can't come either: it would have nowhere to stand.
        bool Comes(OldFolder f) => c.Folders && !f.Binned && f.Student is null && f.Group is null
            && (f.Parent is not { } p || !byId.TryGetValue(p, out var parent) || Comes(parent));
        var coming = folders.Where(Comes).Select(f => f.Id).ToHashSet();
        var own = folders.Count(f => !f.Binned && !coming.Contains(f.Id));
        bool Chosen(OldItem i) => i.Kind switch { ItemKind.Link => c.Links, ItemKind.Page => c.Pages, _ => c.Files };
        StaysWhy? Stays(OldItem i) =>
            i.AddedByStudent ? StaysWhy.OfStudent
            : !i.MayCopy ? StaysWhy.NoRight
            : !Chosen(i) ? StaysWhy.NotTicked
            : i.FiledIn.Count > 0 && !i.FiledIn.Any(coming.Contains) ? StaysWhy.FolderStays
            : null;
        var decided = items.Where(i => !i.Binned).Select(i => (i.Id, Why: Stays(i))).ToList();
        List<ItemId> things = [.. decided.Where(i => i.Why is null).Select(i => i.Id)];
        List<StayingItem> staying = [.. decided.Where(i => i.Why is not null).Select(i => new StayingItem(i.Id, i.Why!.Value))];
        int Of(StaysWhy why) => staying.Count(i => i.Why == why);
        var (inStaying, unticked) = (Of(StaysWhy.FolderStays), Of(StaysWhy.NotTicked));
        var binned = folders.Count(f => f.Binned) + items.Count(i => i.Binned) + counts.BinnedAssignments;

        List<AlongLine> lines =
        [
            new("Folders", coming.Count, own, c.Folders ? "Folders of students and of groups stay; new ones unfold for new students and groups." : "Not ticked."),
            new("Files, links and pages of staff", things.Count, inStaying + unticked, inStaying + unticked == 0 ? "The same bytes, not copied." : unticked == 0 ? "What stands only in a student's own folder, or in folders that stay, stays." : "What is not ticked stays."),
            new("Things without the right to copy", 0, Of(StaysWhy.NoRight), "Left behind: their owner marked them so."),
            new("Assignments", c.Assignments ? counts.Assignments : 0, c.Assignments ? 0 : counts.Assignments, !c.Assignments ? "Not ticked." : c.Dates == CarriedDates.None ? "As drafts without a date." : "As drafts, dates moved by school week."),
            new("Groups", c.Groups ? counts.Groups : 0, c.Groups ? 0 : counts.Groups, "By name, without their members."),
            new("Students", 0, counts.Students, "Next year has other students."),
            new("Co-teachers", 0, counts.CoTeachers, "Added anew by the lead teacher."),
            new("Notices", 0, counts.Notices, "They were for this year."),
            new("Pieces of work", 0, counts.Work, "Work belongs to the students who made it."),
            new("Files of students", 0, Of(StaysWhy.OfStudent), "Work belongs to the students who made it."),
            new("Things in the bin", 0, binned, "What was binned stays binned."),
        ];
        return new([.. folders.Where(f => coming.Contains(f.Id)).Select(f => f.Id)], things, staying, lines);
    }
}
