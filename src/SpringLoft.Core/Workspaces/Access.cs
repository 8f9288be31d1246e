namespace SpringLoft.Core.Workspaces;

/// <summary>A folder as far as rights go.</summary>
/// <param name="Student">Whose own folder it is, for the rule one each.</param>
public sealed record FolderFact(FolderId Id, FolderId? Parent, string Name, FolderRule Rule, PersonId? Student);

/// <summary>The person who looks, and the class they look into.</summary>
/// <param name="MayPost">False for one who may not post: views only.</param>
public sealed record Viewer(PersonId Id, Standing Standing, bool MayPost, ClassState State, AfterArchive After);

/// <summary>A right and each step that led to it, in words.</summary>
public sealed record RightAndWhy(Right Right, IReadOnlyList<string> Steps);

/// <summary>Who may do what, decided from the rules and nothing else. Source: docs/rules.md, "Who may do what".</summary>
public sealed class Access
{
    private readonly Dictionary<FolderId, FolderFact> folders;
    private readonly Dictionary<FolderId, RightAndWhy> decided = [];
    private readonly Viewer viewer;

    /// <summary>For one person and all folders of one class; answers are kept, so asking for all of them is linear.</summary>
    public Access(Viewer viewer, IEnumerable<FolderFact> all)
    {
        this.viewer = viewer;
        folders = all.ToDictionary(f => f.Id);
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
        var right = ByRule(folder, steps);
        if (right > Right.View && !viewer.MayPost)
        {
            right = Right.View;
            steps.Add("may not post in this class: views only");
        }
        if (right > Right.View && viewer.State == ClassState.Archived)
        {
            right = Right.View;
            steps.Add("the class is archived: nobody changes anything");
        }
        return new(right, steps);
    }

    private Right ByRule(FolderFact folder, List<string> steps)
    {
        switch (folder.Rule)
        {
            case FolderRule.StaffOnly:
                steps.Add($"“{folder.Name}” is staff only");
                return Right.None;
            case FolderRule.ClassViews:
                steps.Add($"the class views “{folder.Name}”");
                return Right.View;
            case FolderRule.ClassAdds:
                steps.Add($"the class adds to “{folder.Name}”");
                return Right.Add;
            case FolderRule.ClassEdits:
                steps.Add($"the class edits “{folder.Name}”");
                return Right.Edit;
            case FolderRule.OneEach:
                var own = folder.Student == viewer.Id;
                steps.Add(own ? $"“{folder.Name}” is their own folder" : $"“{folder.Name}” is one each, and not theirs");
                return own ? Right.Edit : Right.None;
            case FolderRule.AsAbove when folder.Parent is { } p && folders.TryGetValue(p, out var parent):
                steps.Add($"“{folder.Name}” is as the folder above");
                return ByRule(parent, steps);
            case FolderRule.AsAbove:
                steps.Add($"“{folder.Name}” stands at the top and has no rule of its own: the class views");
                return Right.View;
            default:
                throw new ArgumentOutOfRangeException(nameof(folder));
        }
    }
}
