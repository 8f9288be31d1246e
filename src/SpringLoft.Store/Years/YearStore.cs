using SpringLoft.Core.Years;

namespace SpringLoft.Store.Years;

/// <summary>A school year with its key.</summary>
public sealed record YearRow(YearId Id, SchoolYear Year, IReadOnlyList<TermRow> Terms);

/// <summary>A term with its key.</summary>
public sealed record TermRow
{
    public TermId Id { get; init; }
    public YearId YearId { get; init; }
    public string Name { get; init; } = "";
    public LocalDate FirstDay { get; init; }
    public LocalDate LastDay { get; init; }
}

/// <summary>Owns school_year, term and day_off.</summary>
public static class YearStore
{
    /// <summary>All school years in order of time.</summary>
    public static IReadOnlyList<YearRow> All(IDbConnection c)
    {
        var terms = c.Query<TermRow>("SELECT id, year_id, name, first_day, last_day FROM term ORDER BY first_day").ToLookup(t => t.YearId);
        var off = c.Query<TermRow>("SELECT id, year_id, name, first_day, last_day FROM day_off ORDER BY first_day").ToLookup(t => t.YearId);
        return [.. c.Query<Bare>("SELECT id, label, school_weekdays, first_weekday, numbering FROM school_year")
            .Select(y => new YearRow(y.Id, new SchoolYear(
                y.Label,
                [.. terms[y.Id].Select(t => new Term(t.Name, t.FirstDay, t.LastDay))],
                [.. off[y.Id].Select(t => new DayOff(t.Name, t.FirstDay, t.LastDay))],
                y.SchoolWeekdays.Split(',').Select(d => Enum.Parse<IsoDayOfWeek>(d)).ToHashSet(),
                (IsoDayOfWeek)y.FirstWeekday, Enum.Parse<WeekNumbering>(y.Numbering)), [.. terms[y.Id]]))
            .OrderBy(y => y.Year.First)];
    }

    /// <summary>Adds a checked calendar.</summary>
    public static YearId Add(IDbConnection c, SchoolYear year)
    {
        var id = c.ExecuteScalar<long>(
            "INSERT INTO school_year(label, school_weekdays, first_weekday, numbering) VALUES(@label, @days, @first, @numbering) RETURNING id",
            new { label = year.Label, days = string.Join(',', year.SchoolWeekdays.Select(d => (int)d).Order()), first = (int)year.FirstWeekday, numbering = year.Numbering.ToString() });
        c.Execute("INSERT INTO term(year_id, name, first_day, last_day) VALUES(@id, @Name, @First, @Last)",
            year.Terms.Select(t => new { id, t.Name, t.First, t.Last }));
        c.Execute("INSERT INTO day_off(year_id, name, first_day, last_day) VALUES(@id, @Name, @First, @Last)",
            year.DaysOff.Select(t => new { id, t.Name, t.First, t.Last }));
        return new(id);
    }

    private sealed record Bare
    {
        public YearId Id { get; init; }
        public string Label { get; init; } = "";
        public string SchoolWeekdays { get; init; } = "";
        public long FirstWeekday { get; init; }
        public string Numbering { get; init; } = "";
    }
}
