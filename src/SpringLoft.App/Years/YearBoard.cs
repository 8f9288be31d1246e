using SpringLoft.App.Workspaces;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Plans;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Years;

/// <summary>A row of the year board.</summary>
/// <param name="Held">Pieces of work held by the teacher; of those, <paramref name="HeldMarked"/> have a draft mark.</param>
public sealed record BoardRow(
    ClassId Id, string Name, string Course, string Mark, string? Section, string? Period, string? Department, string Lead,
    ClassState State, FindingLevel Level, BoardCells Cells, int Students, int Held, int HeldMarked, int Unfiled, int BlindSpots);

/// <summary>The year board: all classes that the asker has to do with against the seasons of the year.</summary>
public sealed record BoardView(YearId Year, string YearLabel, int DaysLeft, int Ready, int Attention, int Blocked, int HeldPieces, IReadOnlyList<BoardRow> Rows);

/// <summary>Computes the year board.</summary>
public sealed class YearBoard(Premises premises, BlindCounts blind)
{
    private const int MostCountedNow = 40;

    /// <summary>The board of a year, the current one if none is named. A coordinator sees all classes, others their own.</summary>
    /// <param name="combined">Only the sections of this combined roster of the asker's; null for all.</param>
    /// <exception cref="RefusedException"><c>not-found</c>: no such year, no such roster.</exception>
    public BoardView See(Caller who, YearId? asked, long? combined = null)
    {
        blind.Refresh(MostCountedNow);
        return premises.Db.Read(c => See(c, who, asked, combined));
    }

    private BoardView See(IDbConnection c, Caller who, YearId? asked, long? combined)
    {
        var years = YearStore.All(c);
        var today = premises.Clock.Today;
        var year = asked is { } id ? years.FirstOrDefault(y => y.Id == id) ?? throw Refusals.NotFound("school year") : YearLine.Current(years, today);
        var classes = ClassStore.OfYear(c, year.Id);
        var staff = StaffStore.Of(c, year.Id);
        if (who.Role != SchoolRole.Coordinator) classes = [.. classes.Where(k => staff.Mine(k.Id, who.Id))];
        if (combined is { } roster)
        {
            if (CombinedStore.Find(c, roster)?.OwnerId != who.Id) throw Refusals.NotFound("combined roster");
            var sections = CombinedStore.Sections(c, roster).Select(s => s.Class).ToHashSet();
            classes = [.. classes.Where(k => sections.Contains(k.Id))];
        }
        var counts = ClosingStore.Counts(c, year.Id, premises.Clock.Today, premises.Clock.Now);
        var wanted = new FolderCounts(c, year);
        var spots = BlindStore.OfYear(c, year.Id);
        var rows = classes.Select(k => Row(k, counts[k.Id], staff.Lead(k.Id), wanted, spots.GetValueOrDefault(k.Id))).ToList();
        return new BoardView(year.Id, year.Year.Label, SchoolWeeks.DaysLeft(year.Year, today),
            rows.Count(r => r.State == ClassState.Open && r.Level == FindingLevel.Ready),
            rows.Count(r => r.State == ClassState.Open && r.Level == FindingLevel.Attention),
            rows.Count(r => r.State == ClassState.Open && r.Level == FindingLevel.Blocks), rows.Sum(r => r.Held), rows);
    }

    private BoardRow Row(ClassRow k, ClassCounts n, string lead, FolderCounts wanted, int blindSpots)
    {
        var closing = n.Facts(k.State);
        var facts = new BoardFacts(k.State,
            k.OpenedAt is { } o ? premises.Clock.DateOf(o) : null, k.ArchivedAt is { } a ? premises.Clock.DateOf(a) : null,
            wanted.For(k, n), k.PlanId is null ? n.Folders : n.PlanFolders, n.Students,
            wanted.HasOwn(k) ? n.Students - n.OwnFolders : 0,
            n.Assignments, n.HeldMarked + n.HeldUnmarked + n.Returned, n.Returned, closing, n.NextYear, k.State == ClassState.Archived ? 0 : blindSpots, n.OnHold);
        // That next year's class is not made is told in its own column; it does not make a class want attention.
        var level = Readiness.Overall(Readiness.Assess(closing).Where(f => f.Code != "next-year"));
        return new(k.Id, k.Name, k.Course, k.Mark, k.Section, k.Period, k.Department, lead, k.State, level, BoardCells.Of(facts),
            n.Students, n.HeldMarked + n.HeldUnmarked, n.HeldMarked, n.Unfiled, facts.BlindSpots);
    }

    // A plan's count of folders is a straight line in students, groups and memberships, so four points a plan and term are enough.
    private sealed class FolderCounts(IDbConnection c, YearRow year)
    {
        private static readonly PlanStudent Student = new(new(-1), "x", null);
        private readonly Dictionary<(PlanId, int, TermId?), (long Fixed, long Each, long Group, long Member)> lines = [];

        internal int For(ClassRow k, ClassCounts n)
        {
            var (fix, each, group, member) = Line(k);
            return (int)(fix + (each * n.Students) + (group * n.Groups) + (member * n.GroupMembers));
        }

        internal bool HasOwn(ClassRow k) => Line(k).Each > 0;

        private (long Fixed, long Each, long Group, long Member) Line(ClassRow k)
        {
            if (k.PlanId is not { } plan || k.PlanVersion is not { } version) return default;
            if (lines.TryGetValue((plan, version, k.TermId), out var known)) return known;
            if (PlanStore.Find(c, plan, version) is not { } row) return default;
            var weeks = Plans.Settings.Weeks(year, k.TermId);
            var none = PlanUnfolding.Count(row.Plan, new(weeks, []));
            var one = PlanUnfolding.Count(row.Plan, new(weeks, [Student])) - none;
            var group = PlanUnfolding.Count(row.Plan, new(weeks, [], [new(new(-1), "x", [])])) - none;
            var member = PlanUnfolding.Count(row.Plan, new(weeks, [Student], [new(new(-1), "x", [Student.Id])])) - none - one - group;
            return lines[(plan, version, k.TermId)] = (none, one, group, member);
        }
    }
}
