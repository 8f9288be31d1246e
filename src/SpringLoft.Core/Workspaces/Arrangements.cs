using SpringLoft.Core.Plans;

namespace SpringLoft.Core.Workspaces;

/// <summary>How several sections of one course share workspaces.</summary>
public enum ArrangementKind
{
    /// <summary>A workspace for each section, each going its own way.</summary>
    OnePerClass,

    /// <summary>One workspace for all, in which each section is a group with its own folders.</summary>
    Shared,

    /// <summary>A workspace for each section, all following one plan that is put to them together.</summary>
    InStep,
}

/// <summary>What a person sees of one folder at the top.</summary>
public sealed record TopSight(string Folder, Right Right, string Why);

/// <summary>What one kind of person will see.</summary>
/// <param name="Who">As a person says it: "a student of 6B".</param>
/// <param name="Sees">Folders they see, of all <paramref name="Of"/>.</param>
/// <param name="NotOthers">True if they see nothing of what is another section's alone.</param>
public sealed record KindSight(string Who, int Sees, int Of, bool NotOthers, IReadOnlyList<TopSight> Tops);

/// <summary>An arrangement with what comes of it.</summary>
/// <param name="Says">What it is good for, and what it costs, in a sentence.</param>
/// <param name="Warning">What is against it for this plan; null if nothing.</param>
public sealed record ArrangementSight(ArrangementKind Kind, int Workspaces, long Folders, string Says, string? Warning, IReadOnlyList<KindSight> Kinds);

/// <summary>Shows for each arrangement what each kind of person will see, computed by the same rules as the real thing.</summary>
public static class Arrangements
{
    /// <summary>All three, for the sections named.</summary>
    /// <param name="setting">School weeks; its students and groups are replaced by a sample of each section.</param>
    public static IReadOnlyList<ArrangementSight> Show(FolderPlan plan, PlanSetting setting, IReadOnlyList<string> sections)
    {
        var students = sections.Select((s, i) => new PlanStudent(new(-1 - i), $"a student of {s}", null)).ToList();
        var groups = sections.Select((s, i) => new PlanGroup(new(i + 1), s, [students[i].Id])).ToList();
        var shared = PlanUnfolding.Unfold(plan, setting with { Students = students, Groups = groups });
        var one = sections.Select((_, i) => PlanUnfolding.Unfold(plan, setting with { Students = [students[i]], Groups = [] })).ToList();
        var hasGroups = Lines(plan.Lines).Any(l => l.Stands == Stands.EachGroup);
        var separate = sections.Select((s, i) => Sight($"a student of {s}", students[i], null, one[i], [])).Append(Staff(one.Count == 0 ? [] : one[0])).ToList();
        return
        [
            new(ArrangementKind.OnePerClass, sections.Count, one.Sum(f => (long)f.Count), "Each section has its own workspace and roster. What is put into one is not in the others, unless it is given to several in one act.", null, separate),
            new(ArrangementKind.Shared, 1, shared.Count, "One workspace for all sections: what is for all stands there once, and each section has folders that only it opens.",
                hasGroups ? null : "This plan has no folder for each group: every student would see the same folders. Choose a plan with a line that stands for each group.",
                [.. sections.Select((s, i) => Sight($"a student of {s}", students[i], groups[i].Id, shared, [.. groups.Where((_, n) => n != i).Select(g => g.Id)])), Staff(shared)]),
            new(ArrangementKind.InStep, sections.Count, one.Sum(f => (long)f.Count), "Each section has its own workspace; a change of the plan is put to all of them in one act, and what a teacher changed stays.", null, separate),
        ];
    }

    private static KindSight Sight(string who, PlanStudent student, GroupId? group, IReadOnlyList<UnfoldedFolder> folders, IReadOnlyList<GroupId> others)
    {
        var viewer = new Viewer(student.Id, Standing.Student, true, ClassState.Open, AfterArchive.View, group is { } g ? new HashSet<GroupId> { g } : null);
        return See(who, viewer, folders, others, student.Id);
    }

    private static KindSight Staff(IReadOnlyList<UnfoldedFolder> folders) =>
        See("lead and co-teachers", new Viewer(default, Standing.CoTeacher, true, ClassState.Open, AfterArchive.View), folders, [], null);

    private static KindSight See(string who, Viewer viewer, IReadOnlyList<UnfoldedFolder> folders, IReadOnlyList<GroupId> others, PersonId? self)
    {
        var ids = folders.Select((f, i) => (f.Key, Id: new FolderId(i + 1))).ToDictionary(x => x.Key, x => x.Id);
        var facts = folders.Select(f => new FolderFact(ids[f.Key], f.ParentKey is { } p ? ids[p] : null, f.Name, f.Rule, f.Student, f.Group)).ToDictionary(f => f.Id);
        var access = new Access(viewer, facts);
        var seen = facts.Values.Where(f => access.Of(f.Id).Right > Right.None).ToList();
        var strangers = seen.Any(f => (f.Group is { } g && others.Contains(g)) || (self is not null && f.Student is { } s && s != self));
        return new(who, seen.Count, facts.Count, !strangers,
            [.. facts.Values.Where(f => f.Parent is null).Select(f => new TopSight(f.Name, access.Of(f.Id).Right, access.Of(f.Id).Steps[^1]))]);
    }

    private static IEnumerable<PlanLine> Lines(IEnumerable<PlanLine> lines) => lines.SelectMany(l => Lines(l.Within).Prepend(l));
}
