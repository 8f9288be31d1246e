using SpringLoft.Core.People;
using SpringLoft.Core.School;

namespace SpringLoft.Store.School;

/// <summary>What was let go of on a day.</summary>
public sealed record LetGoRow(LocalDate Day, LetGoKind Kind, long Many);

/// <summary>Owns let_go, and of school what it lays down for everybody.</summary>
public static class RulesStore
{
    private const long Mega = 1024 * 1024;

    /// <summary>The rules that hold, and their version.</summary>
    public static (SchoolRules Rules, int Version) Get(IDbConnection c) => c.QuerySingleOrDefault<Row>(
        "SELECT second_step, upload_limit_bytes, person_megabytes, class_megabytes, school_gigabytes, audit_years, letter_days, leaver_days, people_years, idle_hours, most_days, keeps_activity, version FROM school") is { } r
        ? (new(Enum.Parse<SecondStepFor>(r.SecondStep), (int)Math.Max(1, r.UploadLimitBytes / Mega), r.PersonMegabytes, r.ClassMegabytes, r.SchoolGigabytes, r.AuditYears, r.LetterDays, r.LeaverDays, r.PeopleYears, r.IdleHours, r.MostDays, r.KeepsActivity), r.Version)
        : (SchoolRules.Default, 0);

    /// <summary>Lays them down, at the version that was seen; false if changed meanwhile.</summary>
    public static bool Set(IDbConnection c, SchoolRules r, int version) => c.Execute(
        """
        UPDATE school SET second_step = @step, upload_limit_bytes = @bytes, person_megabytes = @PersonMegabytes, class_megabytes = @ClassMegabytes, school_gigabytes = @SchoolGigabytes,
          audit_years = @AuditYears, letter_days = @LetterDays, leaver_days = @LeaverDays, people_years = @PeopleYears, idle_hours = @IdleHours, most_days = @MostDays, keeps_activity = @KeepsActivity, version = version + 1 WHERE version = @version
        """, new { step = r.SecondStep.ToString(), bytes = r.FileMegabytes * Mega, r.PersonMegabytes, r.ClassMegabytes, r.SchoolGigabytes, r.AuditYears, r.LetterDays, r.LeaverDays, r.PeopleYears, r.IdleHours, r.MostDays, r.KeepsActivity, version }) == 1;

    /// <summary>Notes that something was let go of, in the transaction in which it is; none is not noted.</summary>
    public static void NoteLetGo(IDbConnection c, LocalDate day, LetGoKind kind, long many)
    {
        if (many > 0) c.Execute("INSERT INTO let_go(day, kind, many) VALUES(@day, @kind, @many) ON CONFLICT(day, kind) DO UPDATE SET many = many + @many", new { day, kind = kind.ToString(), many });
    }

    /// <summary>What was let go of, newest first.</summary>
    public static IReadOnlyList<LetGoRow> LetGo(IDbConnection c, int most) => [.. c.Query<Noted>("SELECT day, kind, many FROM let_go ORDER BY day DESC, id DESC LIMIT @most", new { most }).Select(n => new LetGoRow(n.Day, Enum.Parse<LetGoKind>(n.Kind), n.Many))];

    private sealed record Noted
    {
        public LocalDate Day { get; init; }
        public string Kind { get; init; } = "";
        public long Many { get; init; }
    }

    private sealed record Row
    {
        public string SecondStep { get; init; } = "";
        public long UploadLimitBytes { get; init; }
        public int? PersonMegabytes { get; init; }
        public int? ClassMegabytes { get; init; }
        public int? SchoolGigabytes { get; init; }
        public int? AuditYears { get; init; }
        public int LetterDays { get; init; }
        public int LeaverDays { get; init; }
        public int? PeopleYears { get; init; }
        public int IdleHours { get; init; }
        public int MostDays { get; init; }
        public bool KeepsActivity { get; init; }
        public int Version { get; init; }
    }
}
