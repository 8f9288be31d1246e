namespace SpringLoft.Core.Workspaces;

/// <summary>Something a student should see and cannot.</summary>
public enum BlindKind
{
    /// <summary>A published assignment that stands only where those it is given to can't look.</summary>
    AssignmentUnseen,

    /// <summary>An open class in which students see no folder.</summary>
    NoFolderSeen,

    /// <summary>A student without an own folder in a class that has them.</summary>
    NoOwnFolder,

    /// <summary>A folder made for the class that is shut only by the one above it.</summary>
    ShutByAbove,

    /// <summary>A group's folder whose group has no members.</summary>
    GroupWithoutMembers,
}

/// <summary>One blind spot.</summary>
/// <param name="Text">What is wrong, as a sentence.</param>
/// <param name="Mend">What the one click does, as a button says it; null if a person has to choose.</param>
/// <param name="Folder">The folder it is about, or that would mend it.</param>
public sealed record BlindSpot(BlindKind Kind, string Text, string? Mend, FolderId? Folder, AssignmentId? Assignment, IReadOnlyList<PersonId> Students);

/// <summary>A student who should see things.</summary>
/// <param name="Groups">Groups of the class that the student is in; null for none.</param>
public sealed record Seeing(PersonId Id, string Name, bool MayPost, IReadOnlySet<GroupId>? Groups = null);

/// <summary>An assignment that should be seen.</summary>
/// <param name="GivenTo">Empty for the whole class.</param>
public sealed record ToBeSeen(AssignmentId Id, string Title, IReadOnlyList<FolderId> FiledIn, IReadOnlyList<PersonId> GivenTo);

/// <summary>Finds blind spots by itself. Source: docs/rules.md, "Who may do what".</summary>
public static class BlindSpots
{
    /// <summary>All of them, the gravest first.</summary>
    /// <param name="state">A class in preparation is judged as if it were open: it will be.</param>
    /// <param name="assignments">Published ones.</param>
    public static IReadOnlyList<BlindSpot> Find(ClassState state, IReadOnlyList<FolderFact> folders, IReadOnlyList<Seeing> students, IReadOnlyList<ToBeSeen> assignments)
    {
        if (state == ClassState.Archived) return [];
        var byId = folders.ToDictionary(f => f.Id);
        var sights = students.ToDictionary(s => s.Id, s => new Access(new Viewer(s.Id, Standing.Student, s.MayPost, ClassState.Open, AfterArchive.View, s.Groups), byId));
        var anybody = new Access(Viewer.AnyStudent, byId);
        var seen = folders.Where(f => anybody.Of(f.Id).Right > Right.None).ToList();
        var found = new List<BlindSpot>();
        if (seen.Count == 0 && folders.All(f => f.Rule is not (FolderRule.OneEach or FolderRule.OnePerGroup)))
            found.Add(new(BlindKind.NoFolderSeen, folders.Count == 0 ? "The class has no folder, so students see an empty class." : "Students see none of the folders: all are staff only.", null, folders.FirstOrDefault()?.Id, null, [.. students.Select(s => s.Id)]));
        foreach (var a in assignments)
        {
            var blind = students.Where(s => (a.GivenTo.Count == 0 || a.GivenTo.Contains(s.Id)) && sights[s.Id].OfThing(a.FiledIn) < Right.View).ToList();
            if (blind.Count == 0) continue;
            var where = a.FiledIn.Count == 0 ? "it stands in no folder" : $"it stands only in {string.Join(", ", a.FiledIn.Select(f => $"“{folders.FirstOrDefault(x => x.Id == f)?.Name ?? "a binned folder"}”"))}";
            var to = seen.FirstOrDefault(f => f.Parent is null);
            found.Add(new(BlindKind.AssignmentUnseen, $"“{a.Title}” can't be seen by {Who(blind, students)}: {where}.", to is null ? null : $"File it in “{to.Name}” too", to?.Id, a.Id, [.. blind.Select(s => s.Id)]));
        }
        if (folders.Any(f => f.Rule == FolderRule.OneEach))
            foreach (var s in students.Where(s => folders.All(f => f.Student != s.Id)))
                found.Add(new(BlindKind.NoOwnFolder, $"{s.Name} has no own folder.", "Unfold it again", null, null, [s.Id]));
        var grouped = students.SelectMany(s => s.Groups ?? Nobody).ToHashSet();
        var loose = students.Where(s => s.Groups is not { Count: > 0 }).ToList();
        foreach (var f in folders.Where(f => f.Rule == FolderRule.OnePerGroup && (f.Group is not { } g || !grouped.Contains(g))))
            found.Add(new(BlindKind.GroupWithoutMembers, $"“{f.Name}” is a group's folder, and nobody is in that group.",
                f.Group is null ? null : loose.Count == 0 || grouped.Count == 0 ? "Put the folder in the bin" : $"Put the {loose.Count} in it who are in no group", f.Id, null, [.. loose.Select(s => s.Id)]));
        foreach (var f in folders.Where(f => f.Rule is FolderRule.ClassViews or FolderRule.ClassAdds or FolderRule.ClassEdits && f.Parent is not null && anybody.Of(f.Id).Right == Right.None))
        {
            // Only the topmost of a shut branch is told; what is in it follows.
            var above = folders.First(x => x.Id == f.Parent);
            if (above.Rule is FolderRule.StaffOnly or FolderRule.AsAbove)
                found.Add(new(BlindKind.ShutByAbove, $"“{f.Name}” is made for the class, but it stands inside “{above.Name}”, which is shut to students.", "Make it as the folder above", f.Id, null, [.. students.Select(s => s.Id)]));
        }
        return found;
    }

    private static readonly IReadOnlySet<GroupId> Nobody = new HashSet<GroupId>();

    private static string Who(List<Seeing> blind, IReadOnlyList<Seeing> all) =>
        blind.Count == all.Count ? "anybody" : blind.Count <= 3 ? string.Join(", ", blind.Select(s => s.Name)) : $"{blind.Count} students";
}
