using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Naming;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Closing;

/// <summary>Everything that stands in a class, read once: its package's tables and its page are made of it. Things in the bin are left out.</summary>
internal sealed class ClassRead
{
    private readonly ILookup<AssignmentId, PersonId> given;
    private readonly Dictionary<AssignmentId, AssignmentRow> byId;

    internal ClassRead(IDbConnection c, ClassRow k)
    {
        Class = k;
        School = SchoolStore.Get(c)!.Name;
        Year = YearStore.All(c).First(y => y.Id == k.YearId).Year.Label;
        Members = RosterStore.Members(c, k.Id);
        People = Members.ToDictionary(m => m.PersonId);
        Folders = FolderStore.OfClass(c, k.Id);
        Groups = GroupStore.OfClass(c, k.Id);
        InGroups = GroupStore.Members(c, k.Id);
        Used = ResourceStore.OfClass(c, k.Id);
        Items = ItemStore.OfClass(c, k.Id);
        Filings = ItemStore.Filings(c, k.Id).ToLookup(f => f.Item, f => f.Folder);
        Assignments = AssignmentStore.OfClass(c, k.Id);
        byId = Assignments.ToDictionary(a => a.Id);
        Placed = AssignmentStore.Filings(c, k.Id);
        given = AssignmentStore.GivenTo(c, k.Id);
        ToGroups = AssignmentStore.GivenGroups(c, k.Id);
        Attached = AttachedStore.OfClass(c, k.Id);
        Work = WorkStore.OfClass(c, k.Id);
        Comments = WorkStore.CommentsOfClass(c, k.Id);
        Talk = TalkStore.OfClass(c, k.Id);
        Messages = TalkStore.AllOf(c, k.Id);
        Asked = AskingStore.AllOf(c, k.Id);
        Notices = NoticeStore.OfClass(c, k.Id);
        WithNotices = NoticeFileStore.Of(c, Notices.Select(n => n.Id));
    }

    internal ClassRow Class { get; }
    internal string School { get; }
    internal string Year { get; }
    internal IReadOnlyList<MemberRow> Members { get; }
    internal IReadOnlyDictionary<PersonId, MemberRow> People { get; }
    internal IReadOnlyList<FolderRow> Folders { get; }
    internal IReadOnlyList<GroupRow> Groups { get; }
    internal ILookup<GroupId, PersonId> InGroups { get; }
    internal IReadOnlyList<ResourceRow> Used { get; }
    internal IReadOnlyList<ItemRow> Items { get; }
    internal ILookup<ItemId, FolderId> Filings { get; }
    internal IReadOnlyList<AssignmentRow> Assignments { get; }
    internal ILookup<AssignmentId, FolderId> Placed { get; }
    internal ILookup<AssignmentId, (GroupId Id, string Name)> ToGroups { get; }
    internal ILookup<AssignmentId, AttachedRow> Attached { get; }
    internal IReadOnlyList<WorkRow> Work { get; }
    internal ILookup<WorkId, CommentRow> Comments { get; }
    internal IReadOnlyList<TalkRow> Talk { get; }
    internal IReadOnlyList<TalkMessageRow> Messages { get; }
    internal IReadOnlyList<(AskingRow Asking, AcknowledgedRow? Said)> Asked { get; }
    internal IReadOnlyList<NoticeRow> Notices { get; }
    internal ILookup<long, NoticeFileRow> WithNotices { get; }

    /// <summary>To whom an assignment is given by name; nobody where it is for all.</summary>
    internal IEnumerable<PersonId> GivenTo(AssignmentId id) => given[id].Where(p => p != AssignmentStore.Nobody);

    internal string? Title(AssignmentId id) => byId.GetValueOrDefault(id)?.Title;

    internal MarkScheme? Scheme(AssignmentId id) => byId.GetValueOrDefault(id)?.Scheme;
}
