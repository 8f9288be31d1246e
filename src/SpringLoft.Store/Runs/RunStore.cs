using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Store.Runs;

/// <summary>What a run does.</summary>
public enum RunKind { Closing, PutPlan, RollOver, TakeHomes }

/// <summary>A run.</summary>
public sealed record RunRow
{
    public RunKind Kind { get; init; }
    public RunId Id { get; init; }
    public StepState State { get; init; }
    public AfterArchive AfterArchive { get; init; }
    public PersonId StartedBy { get; init; }
    public Instant StartedAt { get; init; }
    public Instant? EndedAt { get; init; }
    public RunWish Wish { get; init; }

    /// <summary>Why the run as a whole failed; null where it did not.</summary>
    public string? Reason { get; init; }

    /// <summary>JSON of <see cref="ClosingOptions"/>; empty for a run that has none.</summary>
    public string Options { get; init; } = "";

    /// <summary>How a closing run closes.</summary>
    public ClosingOptions Closing => Options.Length == 0 ? new(AfterArchive) : System.Text.Json.JsonSerializer.Deserialize<ClosingOptions>(Options)!;
}

/// <summary>A class in a run.</summary>
public sealed record RunClassRow
{
    public ClassId ClassId { get; init; }
    public string Name { get; init; } = "";
    public StepState State { get; init; }
    public string? Reason { get; init; }
}

/// <summary>A step of a class in a run; done and total count what the step is made of.</summary>
public sealed record RunStepRow
{
    public ClassId ClassId { get; init; }
    public ClosingStep Step { get; init; }
    public StepState State { get; init; }
    public int Done { get; init; }
    public int Total { get; init; }
    public string? Detail { get; init; }
}

/// <summary>A package that a run made.</summary>
public sealed record PackageRow
{
    public long Id { get; init; }
    public RunId RunId { get; init; }
    public ClassId ClassId { get; init; }
    public string Kind { get; init; } = "";
    public PersonId? StudentId { get; init; }
    public string Name { get; init; } = "";
    public string Sha256 { get; init; } = "";
    public long Size { get; init; }
    public int Files { get; init; }

    /// <summary>Of an archive package, how many of its files are the class's own; null where it was not noted.</summary>
    public int? ClassFiles { get; init; }

    /// <summary>The class's own files, as far as it is known which they are.</summary>
    public int OwnFiles => ClassFiles ?? Files;
    public Instant MadeAt { get; init; }
    public Instant? VerifiedAt { get; init; }

    /// <summary>When it was last read again; null if it was not since it was made and checked.</summary>
    public Instant? ReadAt { get; init; }

    /// <summary>What was wrong with it then; null if nothing was.</summary>
    public Core.Closing.PackageFault? Fault { get; init; }

    /// <summary>Where.</summary>
    public string? FaultDetail { get; init; }

    /// <summary>When it was last seen whole or not.</summary>
    public Instant LastRead => ReadAt ?? VerifiedAt ?? MadeAt;
}

/// <summary>Owns run, run_class, run_step and package.</summary>
public static class RunStore
{
    private const string PackageSelect =
        "SELECT g.id, g.run_id, g.class_id, g.kind, g.student_id, g.name, g.sha256, b.size, g.files, g.class_files, g.made_at, g.verified_at, g.read_at, g.fault, g.fault_detail FROM package g JOIN blob b ON b.sha256 = g.sha256";

    /// <summary>Adds a closing run over classes, all waiting.</summary>
    public static RunId Add(IDbConnection c, IReadOnlyList<ClassId> classes, ClosingOptions options, PersonId by, Instant at)
    {
        var id = c.ExecuteScalar<long>("INSERT INTO run(kind, state, after_archive, options, started_by, started_at) VALUES('Closing', 'Working', @after, @options, @by, @at) RETURNING id",
            new { after = options.After.ToString(), options = System.Text.Json.JsonSerializer.Serialize(options), by, at });
        c.Execute("INSERT INTO run_class(run_id, class_id, position, state) VALUES(@id, @k, @i, 'Waiting')", classes.Select((k, i) => new { id, k, i }));
        c.Execute("INSERT INTO run_step(run_id, class_id, step, state) VALUES(@id, @k, @step, 'Waiting')",
            classes.SelectMany(k => ClosingSteps.InOrder.Select(s => new { id, k, step = s.ToString() })));
        return new(id);
    }

    /// <summary>Adds a run that does one thing to each of some classes, all waiting.</summary>
    public static RunId AddOver(IDbConnection c, RunKind kind, IReadOnlyList<ClassId> classes, PersonId by, Instant at)
    {
        var id = c.ExecuteScalar<long>("INSERT INTO run(kind, state, after_archive, started_by, started_at) VALUES(@kind, 'Working', 'View', @by, @at) RETURNING id", new { kind = kind.ToString(), by, at });
        c.Execute("INSERT INTO run_class(run_id, class_id, position, state) VALUES(@id, @k, @i, 'Waiting')", classes.Select((k, i) => new { id, k, i }));
        return new(id);
    }

    /// <summary>One run; null if there is no such.</summary>
    public static RunRow? Find(IDbConnection c, RunId id) =>
        c.QuerySingleOrDefault<RunRow>("SELECT id, kind, state, after_archive, started_by, started_at, ended_at, wish, options, reason FROM run WHERE id = @id", new { id });

    /// <summary>Runs that are not at their end: what a killed process left is among them.</summary>
    public static IReadOnlyList<RunId> Unfinished(IDbConnection c) => [.. c.Query<long>("SELECT id FROM run WHERE state = 'Working' AND wish <> 'Pause' ORDER BY id").Select(i => new RunId(i))];

    /// <summary>Classes of a run in their order.</summary>
    public static IReadOnlyList<RunClassRow> Classes(IDbConnection c, RunId id) => [.. c.Query<RunClassRow>(
        "SELECT r.class_id, k.name, r.state, r.reason FROM run_class r JOIN class k ON k.id = r.class_id WHERE r.run_id = @id ORDER BY r.position", new { id })];

    /// <summary>Steps of a run.</summary>
    public static IReadOnlyList<RunStepRow> Steps(IDbConnection c, RunId id) => [.. c.Query<RunStepRow>(
        "SELECT class_id, step, state, done, total, detail FROM run_step WHERE run_id = @id", new { id })];

    /// <summary>Steps of one class of a run.</summary>
    public static IReadOnlyList<RunStepRow> Steps(IDbConnection c, RunId id, ClassId k) => [.. c.Query<RunStepRow>(
        "SELECT class_id, step, state, done, total, detail FROM run_step WHERE run_id = @id AND class_id = @k", new { id, k })];

    /// <summary>Closing runs, newest first.</summary>
    public static IReadOnlyList<RunRow> ClosingRuns(IDbConnection c, int most) => [.. c.Query<RunRow>(
        "SELECT id, kind, state, after_archive, started_by, started_at, ended_at, wish, options, reason FROM run WHERE kind = 'Closing' ORDER BY id DESC LIMIT @most", new { most })];

    /// <summary>The newest closing runs that packed something and came to their end without a fault.</summary>
    public static IReadOnlyList<Core.Closing.EndedRun> LastEnded(IDbConnection c, int most) => [.. c.Query<(int Classes, long Bytes, Instant Began, Instant Ended)>(
        """
        SELECT count(*), sum(b.size), r.started_at, r.ended_at FROM run r JOIN package g ON g.run_id = r.id AND g.kind = 'Archive' JOIN blob b ON b.sha256 = g.sha256
        WHERE r.kind = 'Closing' AND r.ended_at IS NOT NULL AND r.state = 'Done' GROUP BY r.id ORDER BY r.id DESC LIMIT @most
        """, new { most }).Select(r => new Core.Closing.EndedRun(r.Classes, r.Bytes, r.Ended - r.Began))];

    /// <summary>How many classes of a run are in each state.</summary>
    public static IReadOnlyDictionary<StepState, int> States(IDbConnection c, RunId id) =>
        c.Query<(string State, int N)>("SELECT state, count(*) FROM run_class WHERE run_id = @id GROUP BY state", new { id }).ToDictionary(x => Enum.Parse<StepState>(x.State), x => x.N);

    /// <summary>Notes what a person asks of a run.</summary>
    public static void SetWish(IDbConnection c, RunId id, RunWish wish) => c.Execute("UPDATE run SET wish = @wish WHERE id = @id", new { id, wish = wish.ToString() });

    /// <summary>Passes over all classes that the run has not come to yet.</summary>
    /// <returns>How many.</returns>
    public static int SkipWaiting(IDbConnection c, RunId id, string reason) =>
        c.Execute("UPDATE run_class SET state = 'Skipped', reason = @reason WHERE run_id = @id AND state = 'Waiting'", new { id, reason });

    /// <summary>Notes what it takes to undo what closing did to a class besides archiving it.</summary>
    public static void SetUndo(IDbConnection c, RunId run, ClassId k, string undo) => c.Execute("UPDATE run_class SET undo = @undo WHERE run_id = @run AND class_id = @k", new { run, k, undo });

    /// <summary>What it takes to undo the newest closing of a class; null if it did no more than archive.</summary>
    public static string? Undo(IDbConnection c, ClassId k) =>
        c.ExecuteScalar<string?>("SELECT undo FROM run_class WHERE class_id = @k AND state = 'Done' AND run_id IN (SELECT id FROM run WHERE kind = 'Closing') ORDER BY run_id DESC LIMIT 1", new { k });

    /// <summary>The newest run that has to do with a class; null if none.</summary>
    public static RunId? Newest(IDbConnection c, ClassId id)
    {
        var run = c.ExecuteScalar<long?>("SELECT max(run_id) FROM run_class WHERE class_id = @id AND run_id IN (SELECT id FROM run WHERE kind = 'Closing')", new { id });
        return run is { } r ? new RunId(r) : null;
    }

    /// <summary>The newest run of a kind; null if none.</summary>
    /// <param name="by">Of those that this person began; null for all.</param>
    public static RunId? Newest(IDbConnection c, RunKind kind, PersonId? by) =>
        c.ExecuteScalar<long?>("SELECT max(id) FROM run WHERE kind = @kind AND (@by IS NULL OR started_by = @by)", new { kind = kind.ToString(), by }) is { } id ? new RunId(id) : null;

    /// <summary>Is an unfinished run at work on the class?</summary>
    public static bool IsGoing(IDbConnection c, ClassId id) =>
        c.ExecuteScalar<bool>("SELECT EXISTS(SELECT 1 FROM run_class r JOIN run ON run.id = r.run_id WHERE r.class_id = @id AND run.kind = 'Closing' AND r.state IN ('Waiting', 'Working'))", new { id });

    /// <summary>Sets where a step is.</summary>
    public static void SetStep(IDbConnection c, RunId run, ClassId k, ClosingStep step, StepState state, int done, int total, string? detail) => c.Execute(
        "UPDATE run_step SET state = @state, done = @done, total = @total, detail = @detail WHERE run_id = @run AND class_id = @k AND step = @step",
        new { run, k, step = step.ToString(), state = state.ToString(), done, total, detail });

    /// <summary>Sets where a class is, with the reason if it failed.</summary>
    public static void SetClass(IDbConnection c, RunId run, ClassId k, StepState state, string? reason) =>
        c.Execute("UPDATE run_class SET state = @state, reason = @reason WHERE run_id = @run AND class_id = @k", new { run, k, state = state.ToString(), reason });

    /// <summary>Ends a run.</summary>
    public static void End(IDbConnection c, RunId run, StepState state, Instant at) =>
        c.Execute("UPDATE run SET state = @state, ended_at = @at WHERE id = @run", new { run, state = state.ToString(), at });

    /// <summary>Ends a run as failed: whatever it had not come to its end with is failed for that reason.</summary>
    public static void Fail(IDbConnection c, RunId run, string reason, Instant at)
    {
        c.Execute("UPDATE run SET state = 'Failed', reason = @reason, ended_at = @at WHERE id = @run", new { run, reason, at });
        foreach (var table in Parts) c.Execute($"UPDATE {table} SET state = 'Failed', reason = @reason WHERE run_id = @run AND state IN ('Waiting', 'Working')", new { run, reason });
    }

    /// <summary>Sets what failed of a run back to waiting, and the run to work.</summary>
    /// <returns>How many classes, lines or students wait again.</returns>
    public static int TakeUp(IDbConnection c, RunId run)
    {
        c.Execute("UPDATE run SET state = 'Working', reason = NULL, ended_at = NULL WHERE id = @run", new { run });
        return Parts.Sum(table => c.Execute($"UPDATE {table} SET state = 'Waiting', reason = NULL WHERE run_id = @run AND state = 'Failed'", new { run }));
    }

    // What runs are made of: classes, classes that are to be made, students.
    private static readonly string[] Parts = ["run_class", "roll_line", "run_student"];

    /// <summary>Notes a package; the same one made again takes the place of the first.</summary>
    public static void PutPackage(IDbConnection c, PackageRow g) => c.Execute(
        """
        INSERT INTO package(run_id, class_id, kind, student_id, name, sha256, files, class_files, made_at)
        VALUES(@RunId, @ClassId, @Kind, @StudentId, @Name, @Sha256, @Files, @ClassFiles, @MadeAt)
        ON CONFLICT(run_id, class_id, kind, ifnull(student_id, 0)) DO UPDATE SET name = @Name, sha256 = @Sha256, files = @Files, class_files = @ClassFiles, made_at = @MadeAt, verified_at = NULL, read_at = NULL, fault = NULL, fault_detail = NULL
        """, g);

    /// <summary>Notes that a package was read back and found whole.</summary>
    public static void SetVerified(IDbConnection c, long package, Instant at) =>
        c.Execute("UPDATE package SET verified_at = @at WHERE id = @package", new { package, at });

    /// <summary>Notes what reading a package again found.</summary>
    public static void SetRead(IDbConnection c, long package, Instant at, (Core.Closing.PackageFault Fault, string Detail)? found) =>
        c.Execute("UPDATE package SET read_at = @at, fault = @fault, fault_detail = @detail WHERE id = @package", new { package, at, fault = found?.Fault.ToString(), detail = found?.Detail });

    /// <summary>Packages that a run made for a class.</summary>
    public static IReadOnlyList<PackageRow> PackagesOf(IDbConnection c, RunId run, ClassId k) =>
        [.. c.Query<PackageRow>($"{PackageSelect} WHERE g.run_id = @run AND g.class_id = @k ORDER BY g.kind, g.student_id", new { run, k })];

    /// <summary>Packages that a run made for any class.</summary>
    public static IReadOnlyList<PackageRow> PackagesOf(IDbConnection c, RunId run) => [.. c.Query<PackageRow>($"{PackageSelect} WHERE g.run_id = @run ORDER BY g.class_id, g.kind", new { run })];

    /// <summary>The newest verified archive package of each archived class, by class.</summary>
    public static IReadOnlyDictionary<ClassId, PackageRow> Archives(IDbConnection c) =>
        c.Query<PackageRow>($"{PackageSelect} WHERE g.kind = 'Archive' AND g.verified_at IS NOT NULL ORDER BY g.id").GroupBy(g => g.ClassId).ToDictionary(g => g.Key, g => g.Last());

    /// <summary>The newest take-home of a student from a class; null if none was made.</summary>
    public static PackageRow? TakeHome(IDbConnection c, ClassId k, PersonId student) => c.QueryFirstOrDefault<PackageRow>(
        $"{PackageSelect} WHERE g.class_id = @k AND g.kind = 'TakeHome' AND g.student_id = @student ORDER BY g.id DESC", new { k, student });
}
