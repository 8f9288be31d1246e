namespace SpringLoft.Core.Workspaces;

/// <summary>A folder as far as rights go.</summary>
/// <param name="Student">Whose own folder it is, for the rule one each.</param>
/// <param name="Group">Whose folder it is, for the rule one per group.</param>
/// <param name="Members">What members of that group may do in it; null counts as everything.</param>
public sealed record FolderFact(FolderId Id, FolderId? Parent, string Name, FolderRule Rule, PersonId? Student, GroupId? Group = null, GroupMay? Members = null);

/// <summary>What rule a folder follows.</summary>
public static class FolderHolds
{
    /// <summary>Its own, or where it has none that of the folder above; at the top the class views.</summary>
    /// <param name="above">What the folder above follows; null at the top.</param>
    public static FolderRule Of(FolderRule own, FolderRule? above) => own != FolderRule.AsAbove ? own : above ?? FolderRule.ClassViews;
}

/// <summary>The person who looks, and the class they look into.</summary>
/// <param name="MayPost">False for one who may not post: views only.</param>
/// <param name="Groups">Groups of the class that the person is in; null for none.</param>
public sealed record Viewer(PersonId Id, Standing Standing, bool MayPost, ClassState State, AfterArchive After, IReadOnlySet<GroupId>? Groups = null)
{
    /// <summary>A student of an open class of whom nothing else is known: what they see, everybody in it sees.</summary>
    public static Viewer AnyStudent { get; } = new(default, Standing.Student, true, ClassState.Open, AfterArchive.View);
}

/// <summary>A right and each step that led to it, in words.</summary>
/// <param name="Members">In a group's folder, what its members may do with one another's things; null elsewhere.</param>
public sealed record RightAndWhy(Right Right, IReadOnlyList<string> Steps, GroupMay? Members = null)
{
    /// <summary>Does it let them do anything but look?</summary>
    public bool IsMoreThanViewing => MoreThanViewing(Right, Members);

    internal static bool MoreThanViewing(Right right, GroupMay? members) => right > Right.View || members is { Rename: true } or { Remove: true };
}

/// <summary>Who may do what, decided from the rules and nothing else. Source: docs/rules.md, "Who may do what".</summary>
public sealed class Access
{
    private readonly IReadOnlyDictionary<FolderId, FolderFact> folders;
    private readonly Dictionary<FolderId, RightAndWhy> decided = [];
    private readonly Viewer viewer;

    /// <summary>For one person and all folders of one class; answers are kept, so asking for all of them is linear.</summary>
    public Access(Viewer viewer, IEnumerable<FolderFact> all) : this(viewer, all.ToDictionary(f => f.Id)) { }

    /// <summary>The same over folders that are looked up already, to be shared between people.</summary>
    public Access(Viewer viewer, IReadOnlyDictionary<FolderId, FolderFact> folders)
    {
        this.viewer = viewer;
        this.folders = folders;
    }

    /// <summary>The person's right in a folder, with the reason.</summary>
    /// <exception cref="KeyNotFoundException">The folder is not one of this class.</exception>
    public RightAndWhy Of(FolderId id)
    {
        if (decided.TryGetValue(id, out var known)) return known;
        return decided[id] = Decide(folders[id]);
    }

    /// <summary>The best right over all folders that a thing is filed in; none if it is filed in none.</summary>
    public Right OfThing(IEnumerable<FolderId> filedIn) =>
        filedIn.Where(folders.ContainsKey).Select(f => Of(f).Right).DefaultIfEmpty(viewer.Standing >= Standing.CoTeacher ? StaffRight : Right.None).Max();

    /// <summary>May the person rename a thing, or change what it says?</summary>
    /// <param name="own">True if they put it in.</param>
    public bool MayRename(IEnumerable<FolderId> filedIn, bool own) => May(filedIn, own, m => m.Rename);

    /// <summary>May the person bin a thing, or take it out of its folders?</summary>
    /// <param name="own">True if they put it in.</param>
    public bool MayRemove(IEnumerable<FolderId> filedIn, bool own) => May(filedIn, own, m => m.Remove);

    // What stands in several folders is one thing: who may change it in one of them only must not reach into the others.
    private bool May(IEnumerable<FolderId> filedIn, bool own, Func<GroupMay, bool> members)
    {
        var rights = filedIn.Where(folders.ContainsKey).Select(Of).ToList();
        return rights.Count == 0 ? viewer.Standing >= Standing.CoTeacher && StaffRight == Right.Manage
            : (own && rights.Any(r => r.Right >= Right.Add)) || rights.All(r => r.Members is { } m ? members(m) : r.Right >= Right.Edit);
    }

    private Right StaffRight => viewer.State == ClassState.Archived ? Right.View : Right.Manage;

    private RightAndWhy Decide(FolderFact folder)
    {
        if (viewer.Standing >= Standing.CoTeacher)
            return viewer.State == ClassState.Archived
                ? new(Right.View, ["staff of the class manage every folder", "the class is archived: nobody changes anything"])
                : new(Right.Manage, ["staff of the class manage every folder"]);
        if (viewer.Standing != Standing.Student) return new(Right.None, ["not on the roster of this class"]);
        if (viewer.State == ClassState.InPreparation) return new(Right.None, ["the class is in preparation: students see nothing"]);
        if (viewer is { State: ClassState.Archived, After: AfterArchive.Nothing })
            return new(Right.None, ["the class is archived and was closed to students"]);

        var steps = new List<string>();
        if (folder.Parent is { } parentId && folders.ContainsKey(parentId))
        {
            var above = Of(parentId);
            if (above.Right == Right.None)
                return new(Right.None, [.. above.Steps, $"“{folder.Name}” stands inside “{folders[parentId].Name}”, which they cannot see"]);
        }
        var (right, members) = ByRule(folder, steps);
        var more = RightAndWhy.MoreThanViewing(right, members);
        if (more && !viewer.MayPost)
        {
            (right, members, more) = (Right.View, null, false);
            steps.Add("may not post in this class: views only");
        }
        if (more && viewer.State == ClassState.Archived)
        {
            (right, members) = (Right.View, null);
            steps.Add("the class is archived: nobody changes anything");
        }
        return new(right, steps, members);
    }

    private (Right Right, GroupMay? Members) ByRule(FolderFact folder, List<string> steps)
    {
        switch (folder.Rule)
        {
            case FolderRule.StaffOnly:
                steps.Add($"“{folder.Name}” is staff only");
                return (Right.None, null);
            case FolderRule.ClassViews:
                steps.Add($"the class views “{folder.Name}”");
                return (Right.View, null);
            case FolderRule.ClassAdds:
                steps.Add($"the class adds to “{folder.Name}”");
                return (Right.Add, null);
            case FolderRule.ClassEdits:
                steps.Add($"the class edits “{folder.Name}”");
                return (Right.Edit, null);
            case FolderRule.OneEach:
                var own = folder.Student == viewer.Id;
                steps.Add(own ? $"“{folder.Name}” is their own folder" : $"“{folder.Name}” is one each, and not theirs");
                return (own ? Right.Edit : Right.None, null);
            case FolderRule.OnePerGroup:
                var member = folder.Group is { } g && viewer.Groups?.Contains(g) == true;
                steps.Add(member ? $"“{folder.Name}” is their group's folder" : $"“{folder.Name}” is a group's folder, and they are not in that group");
                if (!member) return (Right.None, null);
                var may = folder.Members ?? GroupMay.Everything;
                if (may != GroupMay.Everything) steps.Add($"its members may {Say(may)}");
                return (!may.Add ? Right.View : may is { Rename: true, Remove: true } ? Right.Edit : Right.Add, may);
            case FolderRule.AsAbove when folder.Parent is { } p && folders.TryGetValue(p, out var parent):
                steps.Add($"“{folder.Name}” is as the folder above");
                return ByRule(parent, steps);
            case FolderRule.AsAbove:
                steps.Add($"“{folder.Name}” stands at the top and has no rule of its own: the class views");
                return (Right.View, null);
            default:
                throw new ArgumentOutOfRangeException(nameof(folder));
        }
    }

    private static string Say(GroupMay may) => may switch
    {
        { Add: false, Rename: false, Remove: false } => "only look",
        _ => string.Join(" and ", new[] { may.Add ? "add" : null, may.Rename ? "rename" : null, may.Remove ? "remove" : null }.OfType<string>()),
    };
}
