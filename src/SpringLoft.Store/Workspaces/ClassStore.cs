using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Store.Workspaces;

/// <summary>A class.</summary>
public sealed record ClassRow
{
    public ClassId Id { get; init; }
    public YearId YearId { get; init; }
    public CourseId CourseId { get; init; }
    public string Course { get; init; } = "";
    public string Mark { get; init; } = "";
    public string? Department { get; init; }
    public string? Section { get; init; }
    public string? Period { get; init; }
    public string? Level { get; init; }
    public string? Room { get; init; }
    public TermId? TermId { get; init; }

    /// <summary>The last day, where it is not that of the term or year.</summary>
    public LocalDate? EndsOn { get; init; }

    /// <summary>What students read first; CommonMark, empty for none.</summary>
    public string Welcome { get; init; } = "";

    /// <summary>Who wrote it, and when; null where nobody noted it.</summary>
    public PersonId? WelcomeBy { get; init; }
    public Instant? WelcomeAt { get; init; }
    public WorkspaceKind Kind { get; init; }

    /// <summary>True if it has a calendar to which calendar programs subscribe.</summary>
    public bool HasCalendar { get; init; }
    public string Name { get; init; } = "";
    public ClassState State { get; init; }
    public string TeacherShown { get; init; } = "";
    public PlanId? PlanId { get; init; }
    public int? PlanVersion { get; init; }
    public AfterArchive AfterArchive { get; init; }
    public ClassId? RolledFrom { get; init; }

    /// <summary>How the school's records call it; null if it follows none.</summary>
    public string? RecordId { get; init; }
    public Instant MadeAt { get; init; }
    public Instant? OpenedAt { get; init; }
    public Instant? ArchivedAt { get; init; }
    public int Version { get; init; }
}

/// <summary>Owns class.</summary>
public static class ClassStore
{
    private const string Select =
        """
        SELECT k.id, k.year_id, k.course_id, o.name AS course, o.mark, o.department, k.section, k.period, k.level, k.room, k.term_id, k.ends_on, k.welcome, k.welcome_by, k.welcome_at, k.kind, k.calendar_token IS NOT NULL AS has_calendar, k.name, k.state,
          k.teacher_shown, k.plan_id, k.plan_version, k.after_archive, k.rolled_from, k.record_id, k.made_at, k.opened_at, k.archived_at, k.version
        FROM class k JOIN course o ON o.id = k.course_id
        """;

    /// <summary>One class; null if there is no such.</summary>
    public static ClassRow? Find(IDbConnection c, ClassId id) => c.QuerySingleOrDefault<ClassRow>($"{Select} WHERE k.id = @id AND k.binned_at IS NULL", new { id });

    /// <summary>All classes of a year by name; the workspaces of departments are none.</summary>
    public static IReadOnlyList<ClassRow> OfYear(IDbConnection c, YearId year) =>
        [.. c.Query<ClassRow>($"{Select} WHERE k.year_id = @year AND k.kind = 'Class' AND k.binned_at IS NULL ORDER BY k.name_key", new { year })];

    /// <summary>The workspaces of departments by name.</summary>
    public static IReadOnlyList<ClassRow> Departments(IDbConnection c) =>
        [.. c.Query<ClassRow>($"{Select} WHERE k.kind = 'Department' ORDER BY k.name_key")];

    /// <summary>Classes that a person is or was in, newest year last, by name.</summary>
    public static IReadOnlyList<ClassRow> OfPerson(IDbConnection c, PersonId person) => [.. c.Query<ClassRow>(
        $"{Select} JOIN member m ON m.class_id = k.id WHERE m.person_id = @person AND k.binned_at IS NULL ORDER BY k.year_id, k.name_key", new { person })];

    /// <summary>Archived classes, newest year first.</summary>
    public static IReadOnlyList<ClassRow> Archived(IDbConnection c) =>
        [.. c.Query<ClassRow>($"{Select} WHERE k.state = 'Archived' AND k.binned_at IS NULL ORDER BY k.year_id DESC, k.name_key")];

    /// <summary>Next year's class made from this one; null if none was.</summary>
    public static ClassRow? RolledTo(IDbConnection c, ClassId id) =>
        c.QueryFirstOrDefault<ClassRow>($"{Select} WHERE k.rolled_from = @id AND k.kind = 'Class' AND k.binned_at IS NULL ORDER BY k.id", new { id });

    /// <summary>The name of every class there is, in any year: a class never collides with another's archive.</summary>
    public static IReadOnlyList<string> Names(IDbConnection c, string nameKey) =>
        [.. c.Query<string>("SELECT name FROM class WHERE name_key = @nameKey", new { nameKey })];

    /// <summary>Every class with its name.</summary>
    public static IReadOnlyList<(ClassId Id, string Name)> AllNames(IDbConnection c) =>
        [.. c.Query<(long, string)>("SELECT id, name FROM class").Select(x => (new ClassId(x.Item1), x.Item2))];

    /// <summary>Renames classes; they may take names from one another.</summary>
    public static void Rename(IDbConnection c, IReadOnlyList<(ClassId Id, string Name)> names)
    {
        c.Execute("UPDATE class SET name_key = '~' || id WHERE id = @id", names.Select(n => new { id = n.Id.Value }));
        c.Execute("UPDATE class SET name = @name, name_key = @key, version = version + 1 WHERE id = @id", names.Select(n => new { id = n.Id.Value, name = n.Name, key = SafeName.Key(n.Name) }));
    }

    /// <summary>Adds a class in preparation; id, course texts and version of the row are ignored.</summary>
    public static ClassId Add(IDbConnection c, ClassRow k) => new(c.ExecuteScalar<long>(
        """
        INSERT INTO class(year_id, course_id, section, period, level, room, term_id, ends_on, welcome, kind, name, name_key, state, teacher_shown, plan_id, plan_version, rolled_from, record_id, made_at)
        VALUES(@YearId, @CourseId, @Section, @Period, @Level, @Room, @TermId, @EndsOn, @Welcome, @kind, @Name, @key, 'InPreparation', @TeacherShown, @PlanId, @PlanVersion, @RolledFrom, @RecordId, @MadeAt) RETURNING id
        """, new { k.YearId, k.CourseId, k.Section, k.Period, k.Level, k.Room, k.TermId, k.EndsOn, k.Welcome, kind = k.Kind.ToString(), k.Name, key = SafeName.Key(k.Name), k.TeacherShown, k.PlanId, k.PlanVersion, k.RolledFrom, k.RecordId, k.MadeAt }));

    /// <summary>Sets the state if the class is still at the version that was seen; false if somebody changed it meanwhile.</summary>
    public static bool SetState(IDbConnection c, ClassRow seen, ClassState state, Instant at, AfterArchive after) => c.Execute(
        """
        UPDATE class SET state = @state, version = version + 1, after_archive = @after,
          opened_at = CASE WHEN @state = 'Open' AND opened_at IS NULL THEN @at ELSE opened_at END,
          archived_at = CASE WHEN @state = 'Archived' THEN @at ELSE NULL END
        WHERE id = @Id AND version = @Version
        """, new { seen.Id, seen.Version, state = state.ToString(), at, after = after.ToString() }) == 1;

    /// <summary>Changes section, period, level, room, term, last day and teacher's name as the row says, at the version that was seen; false if changed meanwhile.</summary>
    public static bool SetDetails(IDbConnection c, ClassRow k) => c.Execute(
        """
        UPDATE class SET section = @Section, period = @Period, level = @Level, room = @Room, term_id = @TermId, ends_on = @EndsOn, teacher_shown = @TeacherShown, version = version + 1
        WHERE id = @Id AND version = @Version
        """, new { k.Id, k.Version, k.Section, k.Period, k.Level, k.Room, k.TermId, k.EndsOn, k.TeacherShown }) == 1;

    /// <summary>Changes the welcome note at the version that was seen; false if changed meanwhile.</summary>
    public static bool SetWelcome(IDbConnection c, ClassId id, int version, string welcome, PersonId by, Instant at) => c.Execute(
        "UPDATE class SET welcome = @welcome, welcome_by = @by, welcome_at = @at, version = version + 1 WHERE id = @id AND version = @version", new { id, version, welcome, by, at }) == 1;

    /// <summary>Gives a class a calendar, with the secret that its addresses are made from, or none.</summary>
    public static void SetCalendar(IDbConnection c, ClassId id, string? secret) => c.Execute("UPDATE class SET calendar_token = seal(@secret) WHERE id = @id", new { id, secret });

    /// <summary>The secret that the addresses of a class's calendar are made from; null if it has no calendar.</summary>
    public static string? CalendarSecret(IDbConnection c, ClassId id) => c.ExecuteScalar<string?>("SELECT unseal(calendar_token) FROM class WHERE id = @id", new { id });

    /// <summary>The same as it is kept, sealed: to be put back as it was; null if the class has none.</summary>
    public static string? SealedCalendar(IDbConnection c, ClassId id) => c.ExecuteScalar<string?>("SELECT calendar_token FROM class WHERE id = @id", new { id });

    /// <summary>Puts back what <see cref="SealedCalendar"/> gave.</summary>
    public static void PutBackCalendar(IDbConnection c, ClassId id, string kept) => c.Execute("UPDATE class SET calendar_token = @kept WHERE id = @id", new { id, kept });

    /// <summary>Says which plan, in which version, a class follows from now on.</summary>
    public static void SetPlan(IDbConnection c, ClassId id, PlanId? plan, int? version) =>
        c.Execute("UPDATE class SET plan_id = @plan, plan_version = @version WHERE id = @id", new { id, plan, version });
}
