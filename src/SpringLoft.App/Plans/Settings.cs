using SpringLoft.Core.Plans;
using SpringLoft.Core.Years;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Plans;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Plans;

/// <summary>Loads what a plan is put to.</summary>
internal static class Settings
{
    /// <summary>School weeks of a term, or of the whole year.</summary>
    internal static IReadOnlyList<SchoolWeek> Weeks(YearRow year, TermId? term)
    {
        var weeks = SchoolWeeks.Of(year.Year);
        return term is { } t && year.Terms.FirstOrDefault(x => x.Id == t) is { } row ? [.. weeks.Where(w => w.Term.Name == row.Name)] : weeks;
    }

    /// <summary>The setting of a class: its weeks, the students on its roster now, and its groups.</summary>
    internal static PlanSetting Of(IDbConnection c, YearRow year, TermId? term, ClassId id)
    {
        var members = GroupStore.Members(c, id);
        return new(Weeks(year, term),
            [.. RosterStore.Members(c, id).Where(m => m.Role == Core.Workspaces.ClassRole.Student && m.LeftAt is null)
                .Select(m => new PlanStudent(m.PersonId, m.Name.Sort, m.StudentNumber))],
            [.. GroupStore.OfClass(c, id).Select(g => new PlanGroup(g.Id, g.Name, [.. members[g.Id]]))]);
    }

    /// <summary>Puts the class's plan to it (again): what is missing is added.</summary>
    /// <returns>How many folders were added.</returns>
    internal static int Unfold(IDbConnection c, ClassRow k)
    {
        if (k.PlanId is not { } id || PlanStore.Find(c, id, k.PlanVersion) is not { } plan) return 0;
        var year = YearStore.All(c).First(y => y.Id == k.YearId);
        return FolderStore.Unfold(c, k.Id, PlanUnfolding.Unfold(plan.Plan, Of(c, year, k.TermId, k.Id)));
    }
}
