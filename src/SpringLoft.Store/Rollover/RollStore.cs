using SpringLoft.Core.Closing;

namespace SpringLoft.Store.Rollover;

/// <summary>A class that a run is to make from others.</summary>
public sealed record RollRow
{
    public RunId RunId { get; init; }
    public int Position { get; init; }
    public YearId YearId { get; init; }

    /// <summary>JSON: the classes it is made from, the first giving course, plan and welcome note.</summary>
    public string FromIds { get; init; } = "[]";
    public string? Section { get; init; }
    public string? Period { get; init; }
    public PersonId? LeadId { get; init; }

    /// <summary>JSON of what comes along.</summary>
    public string Choice { get; init; } = "";
    public StepState State { get; init; }
    public string? Reason { get; init; }
    public ClassId? MadeId { get; init; }
    public string? MadeName { get; init; }

    /// <summary>JSON: how the class compares with what it was made from.</summary>
    public string? Parity { get; init; }
    public Instant? UndoneAt { get; init; }
}

/// <summary>Owns roll_line.</summary>
public static class RollStore
{
    private const string Select = "SELECT run_id, position, year_id, from_ids, section, period, lead_id, choice, state, reason, made_id, made_name, parity, undone_at FROM roll_line";

    /// <summary>Adds the lines of a run, all waiting.</summary>
    public static void Add(IDbConnection c, IEnumerable<RollRow> rows) => c.Execute(
        "INSERT INTO roll_line(run_id, position, year_id, from_ids, section, period, lead_id, choice) VALUES(@RunId, @Position, @YearId, @FromIds, @Section, @Period, @LeadId, @Choice)", rows);

    /// <summary>Lines of a run in their order.</summary>
    public static IReadOnlyList<RollRow> Of(IDbConnection c, RunId run) => [.. c.Query<RollRow>($"{Select} WHERE run_id = @run ORDER BY position", new { run })];

    /// <summary>Notes what became of a line.</summary>
    public static void Done(IDbConnection c, RollRow r) => c.Execute(
        "UPDATE roll_line SET state = @state, reason = @Reason, made_id = @MadeId, made_name = @MadeName, parity = @Parity WHERE run_id = @RunId AND position = @Position",
        new { r.RunId, r.Position, state = r.State.ToString(), r.Reason, r.MadeId, r.MadeName, r.Parity });

    /// <summary>Notes that a line was undone.</summary>
    public static void Undone(IDbConnection c, RunId run, int position, Instant at) =>
        c.Execute("UPDATE roll_line SET undone_at = @at, made_id = NULL WHERE run_id = @run AND position = @position", new { run, position, at });
}
