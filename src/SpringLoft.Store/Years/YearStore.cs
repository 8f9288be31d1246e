using SpringLoft.Core.Years;

namespace SpringLoft.Store.Years;

/// <summary>A school year with its key.</summary>
/// <param name="Version">Counts changes, so that the later of two people is told.</param>
public sealed record YearRow(YearId Id, SchoolYear Year, IReadOnlyList<TermRow> Terms, int Version);

/// <summary>A term with its key.</summary>
public sealed record TermRow
{
    public TermId Id { get; init; }
    public YearId YearId { get; init; }
    public string Name { get; init; } = "";
    public LocalDate FirstDay { get; init; }
    public LocalDate LastDay { get; init; }
}

/// <summary>Owns school_year, term, day_off, year_begun and year_begun_grade.</summary>
public static class YearStore
{
    /// <summary>All school years in order of time.</summary>
    public static IReadOnlyList<YearRow> All(IDbConnection c)
    {
        var terms = c.Query<TermRow>("SELECT id, year_id, name, first_day, last_day FROM term ORDER BY first_day").ToLookup(t => t.YearId);
        var off = c.Query<TermRow>("SELECT id, year_id, name, first_day, last_day FROM day_off ORDER BY first_day").ToLookup(t => t.YearId);
        return [.. c.Query<Bare>("SELECT id, label, school_weekdays, first_weekday, numbering, letters, version FROM school_year")
            .Select(y => new YearRow(y.Id, new SchoolYear(
                y.Label,
                [.. terms[y.Id].Select(t => new Term(t.Name, t.FirstDay, t.LastDay))],
                [.. off[y.Id].Select(t => new DayOff(t.Name, t.FirstDay, t.LastDay))],
                y.SchoolWeekdays.Split(',').Select(d => Enum.Parse<IsoDayOfWeek>(d)).ToHashSet(),
                (IsoDayOfWeek)y.FirstWeekday, Enum.Parse<WeekNumbering>(y.Numbering), Enum.Parse<WeekLetters>(y.Letters)), [.. terms[y.Id]], (int)y.Version))
            .OrderBy(y => y.Year.First)];
    }

    /// <summary>When a year was begun; null if it was not.</summary>
    public static Instant? BegunAt(IDbConnection c, YearId id) => c.QuerySingleOrDefault<Begun>("SELECT begun_at FROM school_year WHERE id = @id", new { id })?.BegunAt;

    /// <summary>What was done when a year began; null if it has not, or began before this was kept.</summary>
    public static BegunRow? WhatBegan(IDbConnection c, YearId id) =>
        c.QuerySingleOrDefault<BegunRow>(
            """SELECT p.given || ' ' || p.family AS "by", b.verified, b.signed_off FROM year_begun b JOIN person p ON p.id = b.by_id WHERE b.year_id = @id""", new { id }) is { } row
            ? row with { Grades = [.. c.Query<GradeBegun>("SELECT grade AS \"from\", became AS \"to\", students FROM year_begun_grade WHERE year_id = @id ORDER BY position", new { id })] } : null;

    /// <summary>Notes that a year has begun, and what was done then.</summary>
    public static void SetBegun(IDbConnection c, YearId id, Instant at, PersonId by, BegunRow what)
    {
        c.Execute("UPDATE school_year SET begun_at = @at WHERE id = @id", new { id, at });
        c.Execute("INSERT INTO year_begun(year_id, by_id, verified, signed_off) VALUES(@id, @by, @Verified, @SignedOff)", new { id, by, what.Verified, what.SignedOff });
        c.Execute("INSERT INTO year_begun_grade(year_id, position, grade, became, students) VALUES(@id, @position, @From, @To, @Students)",
            what.Grades.Select((g, position) => new { id, position, g.From, g.To, g.Students }));
    }

    /// <summary>Adds a checked calendar.</summary>
    public static YearId Add(IDbConnection c, SchoolYear year)
    {
        var id = c.ExecuteScalar<long>(
            "INSERT INTO school_year(label, school_weekdays, first_weekday, numbering, letters) VALUES(@label, @days, @first, @numbering, @letters) RETURNING id", Columns(year));
        c.Execute("INSERT INTO term(year_id, name, first_day, last_day) VALUES(@id, @Name, @First, @Last)",
            year.Terms.Select(t => new { id, t.Name, t.First, t.Last }));
        AddDaysOff(c, new(id), year);
        return new(id);
    }

    /// <summary>Changes a calendar at the version that was seen; false if somebody changed it meanwhile.</summary>
    /// <param name="kept">Which term of the file each term of the calendar is; null for a new one. Terms of the file that are not named go.</param>
    public static bool Change(IDbConnection c, YearId id, int version, SchoolYear year, IReadOnlyList<TermId?> kept)
    {
        var changed = c.Execute(
            """
            UPDATE school_year SET label = @label, school_weekdays = @days, first_weekday = @first, numbering = @numbering, letters = @letters, version = version + 1
            WHERE id = @id AND version = @version
            """, new DynamicParameters(Columns(year)).And("id", id.Value).And("version", version));
        if (changed != 1) return false;
        // Names first moved out of the way: two terms may swap theirs.
        c.Execute("UPDATE term SET name = '~' || id WHERE year_id = @id", new { id });
        c.Execute("DELETE FROM term WHERE year_id = @id AND id NOT IN @kept", new { id, kept = kept.OfType<TermId>().Select(t => t.Value).ToArray() });
        foreach (var (term, there) in year.Terms.Zip(kept))
        {
            if (there is { } t) c.Execute("UPDATE term SET name = @Name, first_day = @First, last_day = @Last WHERE id = @t AND year_id = @id", new { t, id, term.Name, term.First, term.Last });
            else c.Execute("INSERT INTO term(year_id, name, first_day, last_day) VALUES(@id, @Name, @First, @Last)", new { id, term.Name, term.First, term.Last });
        }
        c.Execute("DELETE FROM day_off WHERE year_id = @id", new { id });
        AddDaysOff(c, id, year);
        return true;
    }

    /// <summary>Classes that last for one of these terms only.</summary>
    public static IReadOnlyList<string> ClassesOfTerms(IDbConnection c, IEnumerable<TermId> terms) =>
        [.. c.Query<string>("SELECT name FROM class WHERE term_id IN @terms ORDER BY name_key", new { terms = terms.Select(t => t.Value).ToArray() })];

    private static object Columns(SchoolYear year) => new
    {
        label = year.Label,
        days = string.Join(',', year.SchoolWeekdays.Select(d => (int)d).Order()),
        first = (int)year.FirstWeekday,
        numbering = year.Numbering.ToString(),
        letters = year.Letters.ToString(),
    };

    private static DynamicParameters And(this DynamicParameters p, string name, object value)
    {
        p.Add(name, value);
        return p;
    }

    private static void AddDaysOff(IDbConnection c, YearId id, SchoolYear year) => c.Execute(
        "INSERT INTO day_off(year_id, name, first_day, last_day) VALUES(@id, @Name, @First, @Last)", year.DaysOff.Select(t => new { id, t.Name, t.First, t.Last }));

    private sealed record Bare
    {
        public YearId Id { get; init; }
        public string Label { get; init; } = "";
        public string SchoolWeekdays { get; init; } = "";
        public long FirstWeekday { get; init; }
        public string Numbering { get; init; } = "";
        public string Letters { get; init; } = "";
        public long Version { get; init; }
    }

    private sealed record Begun
    {
        public Instant? BegunAt { get; init; }
    }
}
