namespace SpringLoft.Store.Plans;

/// <summary>What putting a plan did to one class.</summary>
public sealed record PlanPutRow
{
    public RunId RunId { get; init; }
    public ClassId ClassId { get; init; }
    public PlanId PlanId { get; init; }
    public int Version { get; init; }
    public PlanId? PlanBefore { get; init; }
    public int? VersionBefore { get; init; }

    /// <summary>JSON, written and read by who put the plan.</summary>
    public string Steps { get; init; } = "";
    public Instant? TakenBackAt { get; init; }
}

/// <summary>Owns plan_put.</summary>
public static class PlanPutStore
{
    private const string Select = "SELECT run_id, class_id, plan_id, version, plan_before, version_before, steps, taken_back_at FROM plan_put";

    /// <summary>Notes what is to be put to each class of a run.</summary>
    public static void Add(IDbConnection c, RunId run, IEnumerable<ClassId> classes, PlanId plan, int version) => c.Execute(
        "INSERT INTO plan_put(run_id, class_id, plan_id, version, steps) VALUES(@run, @k, @plan, @version, '')", classes.Select(k => new { run, k, plan, version }));

    /// <summary>Notes what was done, and what the class followed before.</summary>
    public static void SetDone(IDbConnection c, PlanPutRow p) => c.Execute(
        "UPDATE plan_put SET plan_before = @PlanBefore, version_before = @VersionBefore, steps = @Steps WHERE run_id = @RunId AND class_id = @ClassId", p);

    /// <summary>Notes that it was taken back.</summary>
    public static void SetTakenBack(IDbConnection c, RunId run, ClassId id, Instant at) =>
        c.Execute("UPDATE plan_put SET taken_back_at = @at WHERE run_id = @run AND class_id = @id", new { run, id, at });

    /// <summary>All classes of a run.</summary>
    public static IReadOnlyList<PlanPutRow> Of(IDbConnection c, RunId run) => [.. c.Query<PlanPutRow>($"{Select} WHERE run_id = @run", new { run })];

    /// <summary>One class of a run.</summary>
    public static PlanPutRow Of(IDbConnection c, RunId run, ClassId id) => c.QuerySingle<PlanPutRow>($"{Select} WHERE run_id = @run AND class_id = @id", new { run, id });

    /// <summary>The newest run that put any plan; null if there was none.</summary>
    public static RunId? Newest(IDbConnection c, PlanId plan) =>
        c.ExecuteScalar<long?>("SELECT max(run_id) FROM plan_put WHERE plan_id = @plan", new { plan }) is { } id ? new RunId(id) : null;
}
