using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Assignments;

/// <summary>A draft of one of several classes.</summary>
/// <param name="Week">Number of the school week in which it is due; null where it is due in none.</param>
/// <param name="WeekBegins">First school day of that week.</param>
/// <param name="Unseen">True if none of those whom it is given to could find it: it stays a draft.</param>
public sealed record DraftLine(ClassId Class, string ClassName, string Mark, AssignmentId Assignment, string Title, LocalDate? DueOn, LocalTime? DueTime, int? Week, LocalDate? WeekBegins, LocalDateTime? PublishAt, bool Unseen);

/// <summary>A draft that is to be published.</summary>
public sealed record DraftPick(ClassId Class, AssignmentId Assignment);

/// <summary>What became of drafts of several classes.</summary>
/// <param name="Set">How many wait for their school week.</param>
/// <param name="Unseen">Those that none of their students could find, with their class: they stay drafts.</param>
public sealed record PublishedMany(int Published, int Set, IReadOnlyList<string> Unseen);

/// <summary>Publishes drafts of many classes in one act: at once, or each when its school week begins.</summary>
public sealed class PublishingMany(Premises premises, Publishing publishing)
{
    private const int MostClasses = 500;
    private const int MostDrafts = 5000;

    /// <summary>The drafts of some classes, by the day on which they are due; those without one last.</summary>
    public IReadOnlyList<DraftLine> Drafts(Caller who, IReadOnlyList<ClassId>? classes) => premises.Db.Read(c =>
    {
        Refusals.CheckTicked(classes?.Count ?? 0, MostClasses, "classes");
        var years = YearStore.All(c).ToDictionary(y => y.Id, y => y.Year);
        var lines = new List<DraftLine>();
        foreach (var id in classes!.Distinct().Where(id => ClassGate.May(c, who, id, Act.Arrange)))
        {
            var at = ClassGate.Find(c, who, id);
            if (at.Class is not { Kind: WorkspaceKind.Class, State: not ClassState.Archived }) continue;
            lines.AddRange(AssignmentStore.OfClass(c, id).Where(a => a.PublishedAt is null).Select(a =>
            {
                var week = Week(years[at.Class.YearId], a.DueOn);
                return new DraftLine(id, at.Class.Name, at.Class.Mark, a.Id, a.Title, a.DueOn, a.DueTime, week?.Number, week?.Days[0], a.PublishAt is { } p ? premises.Clock.LocalOf(p) : null, Publishing.IsUnseen(c, at, a));
            }));
        }
        return lines.OrderBy(l => l.DueOn is null).ThenBy(l => l.DueOn).ThenBy(l => l.ClassName, StringComparer.Ordinal).ToList();
    });

    /// <summary>Publishes drafts, all of them that can be.</summary>
    /// <param name="byWeek">True to publish each when the school week begins in which it is due; at once where that has begun, or where it is due in none.</param>
    public PublishedMany Publish(Caller by, IReadOnlyList<DraftPick>? picks, bool byWeek) => premises.Db.Write(c =>
    {
        Refusals.CheckTicked(picks?.Count ?? 0, MostDrafts, "drafts");
        var years = YearStore.All(c).ToDictionary(y => y.Id, y => y.Year);
        var unseen = new List<string>();
        // In each class, what comes out now; with it may come what is kept in step with it in others, ticked or not.
        var (now, set) = (new HashSet<AssignmentId>(), new HashSet<AssignmentId>());
        foreach (var of in picks!.GroupBy(p => p.Class, p => p.Assignment))
        {
            var at = Publishing.Class(c, by, of.Key);
            var ticked = of.ToHashSet();
            foreach (var a in AssignmentStore.OfClass(c, of.Key).Where(a => a.PublishedAt is null && ticked.Contains(a.Id) && !set.Contains(a.Id)))
            {
                if (Begins(years[at.Class.YearId], a) is not { } day || !byWeek || day <= premises.Clock.Today)
                {
                    var done = publishing.PublishIn(c, by, at, [a]);
                    now.UnionWith(done.Ids);
                    unseen.AddRange(done.Unseen.Select(t => $"{t} ({at.Class.Name})"));
                }
                else if (Publishing.IsUnseen(c, at, a)) unseen.Add($"{a.Title} ({at.Class.Name})");
                else set.UnionWith(publishing.SetInStep(c, by, of.Key, a, premises.Clock.StartOf(day)));
            }
        }
        return new PublishedMany(now.Count, set.Count, unseen);
    });

    private static LocalDate? Begins(SchoolYear year, AssignmentRow a) => Week(year, a.DueOn)?.Days[0];

    private static SchoolWeek? Week(SchoolYear year, LocalDate? due) => due is not { } day ? null : SchoolWeeks.Of(year).LastOrDefault(w => w.Starts <= day && day < w.Starts.PlusDays(7));
}
