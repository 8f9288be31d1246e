using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Assignments;

/// <summary>Why an assignment can't be given to another class in the same act.</summary>
public enum NotThere
{
    /// <summary>There is no folder like those in which it is filed.</summary>
    NoFolder,

    /// <summary>There is an assignment of that title already.</summary>
    TitleTaken,
}

/// <summary>Another class that gets the same assignment.</summary>
/// <param name="Folders">Ways of the folders in which it is filed there.</param>
/// <param name="Because">Why it can't; null where it can.</param>
public sealed record AlsoGiven(ClassId Class, string Name, ClassState State, int Students, IReadOnlyList<string> Folders, NotThere? Because);

/// <summary>The same assignment in several classes: made in one act, each at the matching place, and kept in step while nobody there has handed in.</summary>
internal static class InStep
{
    /// <summary>Most other classes in one act.</summary>
    internal const int Most = 100;

    /// <summary>What it comes to in each of the other classes, with the folders in which it is filed there.</summary>
    internal static List<(ClassAndPlace At, AlsoGiven View, IReadOnlyList<FolderId> Folders)> Others(IDbConnection c, Caller by, ClassId from, NewAssignment n)
    {
        var others = (n.AlsoIn ?? []).Where(k => k != from).Distinct().ToList();
        if (others.Count > Most) throw new RefusedException("too-many", $"{others.Count} classes at once are too many.", $"Take up to {Most} in one act.", "alsoIn");
        if (others.Count == 0) return [];
        var here = Placed(FolderStore.OfClass(c, from));
        return [.. others.Select(id =>
        {
            var at = ClassGate.Demand(c, by, id, Act.Arrange).NotArchived();
            if (at.Class.Kind != WorkspaceKind.Class) throw new RefusedException("bank-no-students", $"“{at.Class.Name}” has no students.", "Choose classes.", "alsoIn");
            var rows = FolderStore.OfClass(c, id);
            var there = Placed(rows);
            List<FolderId> folders = [.. (n.Folders ?? []).Select(f => MatchingPlace.Of(f, here, there)).OfType<FolderId>().Distinct()];
            var title = n.Title?.Trim() ?? "";
            NotThere? because = (n.Folders ?? []).Count > 0 && folders.Count == 0 ? NotThere.NoFolder
                : title.Length > 0 && AssignmentStore.OfClass(c, id).Any(a => SafeName.Clash(a.Title, title)) ? NotThere.TitleTaken : null;
            return (at, new AlsoGiven(id, at.Class.Name, at.Class.State, ScoreScope.Students(c, id).Count(), [.. folders.Select(f => Way(rows, f))], because), (IReadOnlyList<FolderId>)folders);
        })];
    }

    /// <summary>Throws where one of the others can't have it: it is given to all or to none.</summary>
    internal static void Check(AlsoGiven k)
    {
        if (k.Because == NotThere.NoFolder)
            throw new RefusedException("no-matching-folder", $"“{k.Name}” has no folder like those in which it is filed here.", "Make one of that name there, file it elsewhere, or leave that class out.", "alsoIn");
        if (k.Because == NotThere.TitleTaken)
            throw new RefusedException("name-taken", $"“{k.Name}” has an assignment of that title already.", "Give it another title, or leave that class out.", "alsoIn");
    }

    /// <summary>The names of the other classes in which an assignment stands and is kept in step, for whoever may arrange there.</summary>
    internal static IReadOnlyList<string> Names(IDbConnection c, Caller who, AssignmentRow a) => [.. Free(c, who, a).Select(x => x.At.Class.Name)];

    /// <summary>Its likes in other classes that follow a change: nobody there has handed in, and nobody here.</summary>
    internal static IReadOnlyList<(ClassAndPlace At, AssignmentRow Row)> Free(IDbConnection c, Caller who, AssignmentRow a)
    {
        if (a.Together is not { } together || Came(c, a.Id)) return [];
        return [.. AssignmentStore.Together(c, together).Where(x => x.Row.Id != a.Id && ClassGate.May(c, who, x.Class, Act.Arrange) && !Came(c, x.Row.Id))
            .Select(x => (ClassGate.Find(c, who, x.Class), x.Row)).Where(x => x.Item1.Class.State != ClassState.Archived)];
    }

    private static bool Came(IDbConnection c, AssignmentId id) => WorkStore.AnyCame(c, id);

    private static List<PlacedFolder> Placed(IReadOnlyList<FolderRow> rows) => [.. rows.OrderBy(f => f.Position).Select(f => new PlacedFolder(f.Id, f.ParentId, f.Name, f.PlanKey, f.StudentId is not null || f.GroupId is not null))];

    private static string Way(IReadOnlyList<FolderRow> rows, FolderId folder)
    {
        var by = rows.ToDictionary(f => f.Id);
        var names = new List<string>();
        for (FolderId? at = folder; at is { } f && by.TryGetValue(f, out var row); at = row.ParentId) names.Insert(0, row.Name);
        return string.Join(" / ", names);
    }
}
