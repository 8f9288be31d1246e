using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;
using SpringLoft.Store.Naming;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Years;

/// <summary>A calendar week of the strip.</summary>
/// <param name="Number">The school week's number; null for a week without a school day.</param>
/// <param name="Term">Which term it is in, 0 and up; null without a school day.</param>
/// <param name="Letter">Of a two-week timetable; null without one.</param>
public sealed record StripWeek(LocalDate Starts, int? Number, string? Letter, int? Term, int SchoolDays);

/// <summary>A term, to be chosen.</summary>
public sealed record TermView(TermId Id, string Name, LocalDate First, LocalDate Last);

/// <summary>A school year, drawn as a strip.</summary>
/// <param name="WeekNow">Number of the school week that today lies in; null if in none.</param>
public sealed record YearView(
    YearId Id, string Label, LocalDate First, LocalDate Last, IReadOnlyList<TermView> Terms, IReadOnlyList<StripWeek> Weeks, int? WeekNow, int DaysLeft);

/// <summary>What every screen needs to know of the school: its name, the date, its years.</summary>
/// <param name="BinDays">Days that what is binned waits.</param>
/// <param name="LeaverDays">Days for which a leaver's take-home is kept, from the day they left.</param>
/// <param name="Address">What links for others begin with.</param>
public sealed record SchoolView(string Name, LocalDate Today, bool IsDemo, YearId Current, IReadOnlyList<YearView> Years, long UploadLimitBytes, int BinDays, int LeaverDays, string Address);

/// <summary>Draws the school's years.</summary>
public sealed class YearLine(Premises premises, SchoolAddress address)
{
    /// <summary>All years; the current one is the one that today lies in, or else the next to begin, or else the last.</summary>
    public SchoolView See()
    {
        var today = premises.Clock.Today;
        var (school, years, rules) = premises.Db.Read(c => (SchoolStore.Get(c)!, YearStore.All(c), Store.School.RulesStore.Get(c).Rules));
        return new(school.Name, today, school.IsDemo, Current(years, today).Id, [.. years.Select(y => One(y, today))], school.UploadLimitBytes, Binning.Days, rules.LeaverDays, address.Text);
    }

    /// <summary>Moves the date that the demo believes in.</summary>
    public void MoveDate(Caller by, LocalDate to)
    {
        if (!premises.Db.Read(c => SchoolStore.Get(c)!.IsDemo))
            throw new RefusedException("not-a-demo", "The date can be moved in a demo only.", "Start Spring Loft with the demo school to try other seasons.");
        if (to < new LocalDate(2000, 1, 1) || to > new LocalDate(2099, 12, 31))
            throw new RefusedException("date-range", $"{to:uuuu-MM-dd} is outside 2000 to 2099.", "Choose a date near the demo's school years.", "today");
        premises.Write(by, (_, _) => new("moved the date", "demo", null, null, $"to {to:uuuu-MM-dd}"), (_, _) => true);
        premises.Clock.MoveTo(to);
    }

    internal static YearRow Current(IReadOnlyList<YearRow> years, LocalDate today) =>
        years.FirstOrDefault(y => today <= y.Year.Last) ?? years[^1];

    private static YearView One(YearRow row, LocalDate today)
    {
        var year = row.Year;
        var weeks = Strip(year);
        var now = weeks.FirstOrDefault(w => w.Starts == SchoolWeeks.StartOfWeek(today, year.FirstWeekday));
        return new(row.Id, year.Label, year.First, year.Last, [.. row.Terms.Select(t => new TermView(t.Id, t.Name, t.FirstDay, t.LastDay))], weeks, now?.Number, SchoolWeeks.DaysLeft(year, today));
    }

    /// <summary>Every calendar week of a year, school week or not.</summary>
    internal static IReadOnlyList<StripWeek> Strip(SchoolYear year)
    {
        var byStart = SchoolWeeks.Of(year).ToDictionary(w => w.Starts);
        var weeks = new List<StripWeek>();
        for (var d = SchoolWeeks.StartOfWeek(year.First, year.FirstWeekday); d <= year.Last; d = d.PlusWeeks(1))
            weeks.Add(byStart.TryGetValue(d, out var w) ? new(d, w.Number, w.Letter, year.Terms.ToList().IndexOf(w.Term), w.Days.Count) : new(d, null, null, null, 0));
        return weeks;
    }
}
