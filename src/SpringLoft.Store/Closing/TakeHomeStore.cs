using SpringLoft.Core.Closing;

namespace SpringLoft.Store.Closing;

/// <summary>A student's take-home of a year.</summary>
public sealed record TakeHomeRow
{
    public PersonId PersonId { get; init; }
    public YearId YearId { get; init; }
    public string Name { get; init; } = "";
    public string Sha256 { get; init; } = "";
    public long Size { get; init; }
    public int Files { get; init; }
    public int Classes { get; init; }
    public Instant MadeAt { get; init; }
    public LocalDate KeepUntil { get; init; }
    public Instant? FetchedAt { get; init; }
}

/// <summary>A student in a run that makes take-homes.</summary>
public sealed record RunStudentRow
{
    public PersonId PersonId { get; init; }
    public YearId YearId { get; init; }
    public StepState State { get; init; }
    public string? Reason { get; init; }
}

/// <summary>Owns take_home and run_student.</summary>
public static class TakeHomeStore
{
    private const string Select = "SELECT t.person_id, t.year_id, t.name, t.sha256, b.size, t.files, t.classes, t.made_at, t.keep_until, t.fetched_at FROM take_home t JOIN blob b ON b.sha256 = t.sha256";

    /// <summary>Take-homes of a year by student.</summary>
    public static IReadOnlyDictionary<PersonId, TakeHomeRow> OfYear(IDbConnection c, YearId year) => c.Query<TakeHomeRow>($"{Select} WHERE t.year_id = @year", new { year }).ToDictionary(t => t.PersonId);

    /// <summary>One student's take-homes, newest year first.</summary>
    public static IReadOnlyList<TakeHomeRow> Of(IDbConnection c, PersonId person) => [.. c.Query<TakeHomeRow>($"{Select} WHERE t.person_id = @person ORDER BY t.year_id DESC", new { person })];

    /// <summary>Keeps a take-home; one of the same year gives way.</summary>
    public static void Put(IDbConnection c, TakeHomeRow t) => c.Execute(
        """
        INSERT INTO take_home(person_id, year_id, name, sha256, files, classes, made_at, keep_until) VALUES(@PersonId, @YearId, @Name, @Sha256, @Files, @Classes, @MadeAt, @KeepUntil)
        ON CONFLICT(person_id, year_id) DO UPDATE SET name = @Name, sha256 = @Sha256, files = @Files, classes = @Classes, made_at = @MadeAt, keep_until = @KeepUntil, fetched_at = NULL
        """, t);

    /// <summary>Notes that it was fetched.</summary>
    public static void Fetched(IDbConnection c, PersonId person, YearId year, Instant at) => c.Execute("UPDATE take_home SET fetched_at = @at WHERE person_id = @person AND year_id = @year", new { person, year, at });

    /// <summary>Lets go of one take-home.</summary>
    public static void LetGo(IDbConnection c, PersonId person, YearId year) => c.Execute("DELETE FROM take_home WHERE person_id = @person AND year_id = @year", new { person, year });

    /// <summary>Take-homes of people who are known to have left on a day or before.</summary>
    public static IReadOnlyList<(PersonId Person, YearId Year)> OfLeavers(IDbConnection c, LocalDate leftBy) => [.. c.Query<(long, long)>(
        "SELECT t.person_id, t.year_id FROM take_home t JOIN person p ON p.id = t.person_id WHERE p.active = 0 AND p.left_on <= @leftBy ORDER BY 1, 2", new { leftBy }).Select(x => (new PersonId(x.Item1), new YearId(x.Item2)))];

    /// <summary>Notes since when people are known to have left, and forgets it of those who are back.</summary>
    public static void NoteLeavers(IDbConnection c, LocalDate today)
    {
        c.Execute("UPDATE person SET left_on = @today WHERE active = 0 AND left_on IS NULL", new { today });
        c.Execute("UPDATE person SET left_on = NULL WHERE active = 1 AND left_on IS NOT NULL");
    }

    /// <summary>Students who are or were on a roster of a year, in classes that were opened, by name.</summary>
    public static IReadOnlyList<(PersonId Person, ClassId Class)> Places(IDbConnection c, YearId year) => [.. c.Query<(long, long)>(
        """
        SELECT m.person_id, m.class_id FROM member m JOIN class k ON k.id = m.class_id JOIN person p ON p.id = m.person_id
        WHERE k.year_id = @year AND k.kind = 'Class' AND k.binned_at IS NULL AND k.opened_at IS NOT NULL AND m.role = 'Student' AND p.erased_at IS NULL ORDER BY p.family_key, p.given_key, p.id, k.name_key
        """, new { year }).Select(x => (new PersonId(x.Item1), new ClassId(x.Item2)))];

    /// <summary>Classes of a year in which a teacher holds work of a student, once for each piece.</summary>
    public static ILookup<PersonId, ClassId> HeldOf(IDbConnection c, YearId year) => c.Query<(long, long)>(
        "SELECT w.student_id, w.class_id FROM work w JOIN class k ON k.id = w.class_id WHERE k.year_id = @year AND w.state = 'HandedIn' ORDER BY w.id", new { year }).ToLookup(x => new PersonId(x.Item1), x => new ClassId(x.Item2));

    /// <summary>Since when a take-home of a year no longer tells all of it: when something was last returned to each student, or their account was joined with another or taken apart again.</summary>
    public static IReadOnlyDictionary<PersonId, Instant> NewestChange(IDbConnection c, YearId year) => c.Query<Change>(
        """
        SELECT person_id, max(at) AS at FROM (
          SELECT w.student_id AS person_id, w.returned_at AS at FROM work w JOIN class k ON k.id = w.class_id WHERE k.year_id = @year AND w.returned_at IS NOT NULL
          UNION ALL SELECT kept, ifnull(undone_at, at) FROM person_join UNION ALL SELECT gone, undone_at FROM person_join WHERE undone_at IS NOT NULL)
        GROUP BY person_id
        """, new { year }).ToDictionary(r => r.PersonId, r => r.At);

    private sealed record Change
    {
        public PersonId PersonId { get; init; }
        public Instant At { get; init; }
    }

    /// <summary>Puts students into a run, all waiting.</summary>
    public static void AddStudents(IDbConnection c, RunId run, YearId year, IEnumerable<PersonId> people) => c.Execute(
        "INSERT INTO run_student(run_id, person_id, year_id, position) VALUES(@run, @person, @year, @position)", people.Select((person, position) => new { run, person, year, position }));

    /// <summary>Students of a run in their order.</summary>
    public static IReadOnlyList<RunStudentRow> Students(IDbConnection c, RunId run) =>
        [.. c.Query<RunStudentRow>("SELECT person_id, year_id, state, reason FROM run_student WHERE run_id = @run ORDER BY position", new { run })];

    /// <summary>Notes what became of a student in a run.</summary>
    public static void SetStudent(IDbConnection c, RunId run, PersonId person, StepState state, string? reason) =>
        c.Execute("UPDATE run_student SET state = @state, reason = @reason WHERE run_id = @run AND person_id = @person", new { run, person, state = state.ToString(), reason });
}
