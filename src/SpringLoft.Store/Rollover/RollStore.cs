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

    /// <summary>Takes away a class that was rolled over, if it is in preparation and nothing was added or changed since.</summary>
    /// <returns>Why not; null if it is gone.</returns>
    public static string? Remove(IDbConnection c, ClassId id, Instant madeAt)
    {
        var why = c.ExecuteScalar<string?>(
            """
            SELECT CASE
              WHEN EXISTS (SELECT 1 FROM class WHERE id = @id AND state <> 'InPreparation') THEN 'it was opened'
              WHEN EXISTS (SELECT 1 FROM member WHERE class_id = @id AND role = 'Student') THEN 'students are enrolled in it'
              WHEN EXISTS (SELECT 1 FROM member WHERE class_id = @id AND joined_at <> @madeAt) THEN 'somebody was added to it'
              WHEN EXISTS (SELECT 1 FROM item WHERE class_id = @id AND (added_at <> @madeAt OR version > 1)) THEN 'things were added or changed in it'
              WHEN EXISTS (SELECT 1 FROM assignment WHERE class_id = @id AND (made_at <> @madeAt OR version > 1)) THEN 'assignments were added or changed in it'
              WHEN EXISTS (SELECT 1 FROM notice WHERE class_id = @id) THEN 'a notice was posted in it'
              WHEN EXISTS (SELECT 1 FROM class WHERE rolled_from = @id) THEN 'another class was made from it'
              WHEN EXISTS (SELECT 1 FROM run_class WHERE class_id = @id) THEN 'a run has worked on it' END
            """, new { id, madeAt });
        if (why is not null) return why;
        c.Execute("PRAGMA defer_foreign_keys = ON");
        foreach (var sql in (string[])[
            "DELETE FROM filing WHERE item_id IN (SELECT id FROM item WHERE class_id = @id)", "DELETE FROM item WHERE class_id = @id",
            "DELETE FROM assignment_filing WHERE assignment_id IN (SELECT id FROM assignment WHERE class_id = @id)", "DELETE FROM assignment_given WHERE assignment_id IN (SELECT id FROM assignment WHERE class_id = @id)", "DELETE FROM assignment WHERE class_id = @id",
            "DELETE FROM folder WHERE class_id = @id", "DELETE FROM group_member WHERE group_id IN (SELECT id FROM class_group WHERE class_id = @id)", "DELETE FROM class_group WHERE class_id = @id",
            "DELETE FROM class_resource WHERE class_id = @id", "DELETE FROM class_blind WHERE class_id = @id", "DELETE FROM join_code WHERE class_id = @id", "DELETE FROM join_wait WHERE class_id = @id", "DELETE FROM invitation WHERE class_id = @id",
            "DELETE FROM combined_section WHERE class_id = @id", "DELETE FROM delivery_on_hold WHERE class_id = @id", "DELETE FROM member WHERE class_id = @id", "DELETE FROM class WHERE id = @id"])
            c.Execute(sql, new { id });
        return null;
    }
}
