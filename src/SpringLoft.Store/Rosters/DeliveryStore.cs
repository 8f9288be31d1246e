using SpringLoft.Core.Rosters;

namespace SpringLoft.Store.Rosters;

/// <summary>Where a delivery came from.</summary>
public enum DeliveryKind { Bundle, Table, Feed }

/// <summary>How a delivery stands: its columns are to be confirmed, it waits for a yes, it is applied, or nothing comes of it any more.</summary>
public enum DeliveryState { ColumnsOpen, Waiting, Applied, TakenBack, SetAside }

/// <summary>What a person said about a hold.</summary>
public enum HoldDecision { Waiting, Yes, No }

/// <summary>One sending of the school's records.</summary>
public sealed record DeliveryRow
{
    public long Id { get; init; }
    public string Name { get; init; } = "";
    public DeliveryKind Kind { get; init; }
    public YearId YearId { get; init; }
    public DeliveryState State { get; init; }
    public Instant ReceivedAt { get; init; }
    public PersonId? ReceivedBy { get; init; }
    public string? ReceivedByName { get; init; }
    public string SourceSha256 { get; init; } = "";
    public string? Columns { get; init; }
    public bool Whole { get; init; }
    public string? ChangesSha256 { get; init; }
    public string Counts { get; init; } = "{}";
    public int Findings { get; init; }
    public int Version { get; init; }

    /// <summary>When it was last applied; null if never.</summary>
    public Instant? AppliedAt { get; init; }

    /// <summary>Changes that wait for a person, each once.</summary>
    public int OnHold { get; init; }
}

/// <summary>A hold of a delivery.</summary>
public sealed record HoldRow
{
    public string Key { get; init; } = "";
    public HoldKind Kind { get; init; }
    public string Text { get; init; } = "";
    public int Changes { get; init; }
    public string? PersonRef { get; init; }
    public string Candidates { get; init; } = "[]";
    public HoldDecision Decision { get; init; }
    public PersonId? SettledAs { get; init; }
}

/// <summary>Something of a delivery that was applied.</summary>
public sealed record AppliedRow
{
    public long Id { get; init; }
    public Instant AppliedAt { get; init; }
    public string? By { get; init; }
    public int Changes { get; init; }
    public string UndoSha256 { get; init; } = "";
    public Instant? TakenBackAt { get; init; }
}

/// <summary>Owns delivery, delivery_hold, delivery_on_hold, delivery_came and delivery_applied.</summary>
public static class DeliveryStore
{
    private const string Select =
        """
        SELECT d.id, d.name, d.kind, d.year_id, d.state, d.received_at, d.received_by, p.given || ' ' || p.family AS received_by_name, d.source_sha256, d.columns, d.whole, d.changes_sha256, d.counts, d.findings, d.version,
          (SELECT max(a.applied_at) FROM delivery_applied a WHERE a.delivery_id = d.id AND a.taken_back_at IS NULL) AS applied_at, d.on_hold
        FROM delivery d LEFT JOIN person p ON p.id = d.received_by
        """;

    /// <summary>All deliveries, newest first.</summary>
    public static IReadOnlyList<DeliveryRow> All(IDbConnection c, int most) => [.. c.Query<DeliveryRow>($"{Select} ORDER BY d.id DESC LIMIT @most", new { most })];

    /// <summary>One delivery; null if there is no such.</summary>
    public static DeliveryRow? Find(IDbConnection c, long id) => c.QuerySingleOrDefault<DeliveryRow>($"{Select} WHERE d.id = @id", new { id });

    /// <summary>Adds one.</summary>
    public static long Add(IDbConnection c, DeliveryRow d) => c.ExecuteScalar<long>(
        """
        INSERT INTO delivery(name, kind, year_id, state, received_at, received_by, source_sha256, columns, whole)
        VALUES(@Name, @kind, @YearId, @state, @ReceivedAt, @ReceivedBy, @SourceSha256, @Columns, @Whole) RETURNING id
        """, new { d.Name, kind = d.Kind.ToString(), d.YearId, state = d.State.ToString(), d.ReceivedAt, d.ReceivedBy, d.SourceSha256, d.Columns, d.Whole });

    /// <summary>Says what the columns of a plain table are.</summary>
    public static void SetColumns(IDbConnection c, long id, string columns, bool whole) => c.Execute("UPDATE delivery SET columns = @columns, whole = @whole WHERE id = @id", new { id, columns, whole });

    /// <summary>Sets how it stands.</summary>
    public static void SetState(IDbConnection c, long id, DeliveryState state) => c.Execute("UPDATE delivery SET state = @state, version = version + 1 WHERE id = @id", new { id, state = state.ToString() });

    /// <summary>Keeps the list of changes that was made out, with its holds; what was decided before about the same hold stays; a yes to seven students is none to twenty.</summary>
    /// <param name="allOnHold">Changes that wait for a person, each once; of those with a class, <paramref name="onHold"/> says how many of which.</param>
    public static void SetChanges(IDbConnection c, long id, string sha256, string counts, int findings, int allOnHold, IEnumerable<HoldRow> holds, IEnumerable<(ClassId Class, int Changes)> onHold)
    {
        c.Execute("UPDATE delivery SET changes_sha256 = @sha256, counts = @counts, findings = @findings, on_hold = @allOnHold, version = version + 1 WHERE id = @id", new { id, sha256, counts, findings, allOnHold });
        var list = holds.ToList();
        c.Execute("DELETE FROM delivery_hold WHERE delivery_id = @id AND decision = 'Waiting'", new { id });
        c.Execute(
            """
            INSERT INTO delivery_hold(delivery_id, key, kind, text, changes, person_ref, candidates) VALUES(@id, @Key, @kind, @Text, @Changes, @PersonRef, @Candidates)
            ON CONFLICT(delivery_id, key) DO UPDATE SET text = @Text, changes = @Changes, decision = CASE WHEN text = @Text THEN decision ELSE 'Waiting' END
            """, list.Select(h => new { id, h.Key, kind = h.Kind.ToString(), h.Text, h.Changes, h.PersonRef, h.Candidates }));
        c.Execute("DELETE FROM delivery_on_hold WHERE delivery_id = @id", new { id });
        c.Execute("INSERT INTO delivery_on_hold(delivery_id, class_id, changes) VALUES(@id, @k, @n)", onHold.Select(x => new { id, k = x.Class.Value, n = x.Changes }));
    }

    /// <summary>Holds of a delivery; those that wait first.</summary>
    public static IReadOnlyList<HoldRow> Holds(IDbConnection c, long id) => [.. c.Query<HoldRow>(
        "SELECT key, kind, text, changes, person_ref, candidates, decision, settled_as FROM delivery_hold WHERE delivery_id = @id ORDER BY decision <> 'Waiting', changes DESC, key", new { id })];

    /// <summary>Keeps what a person said about a hold.</summary>
    public static void Decide(IDbConnection c, long id, string key, HoldDecision decision, PersonId? settledAs, PersonId by, Instant at) => c.Execute(
        "UPDATE delivery_hold SET decision = @decision, settled_as = @settledAs, decided_by = @by, decided_at = @at WHERE delivery_id = @id AND key = @key",
        new { id, key, decision = decision.ToString(), settledAs, by, at });

    /// <summary>Keeps who came into the directory for somebody who was said to be new: applied again they are not new any more.</summary>
    public static void Came(IDbConnection c, long id, HoldRow hold, PersonId person)
    {
        c.Execute("UPDATE delivery_hold SET settled_as = @person WHERE delivery_id = @id AND key = @Key", new { id, hold.Key, person });
        c.Execute("INSERT OR REPLACE INTO delivery_came(delivery_id, person_ref, person_id) VALUES(@id, @PersonRef, @person)", new { id, hold.PersonRef, person });
    }

    /// <summary>Who came for a person of a delivery who was said to be new; null if nobody yet.</summary>
    public static PersonId? WhoCame(IDbConnection c, long id, string personRef) =>
        c.QuerySingleOrDefault<long?>("SELECT person_id FROM delivery_came WHERE delivery_id = @id AND person_ref = @personRef", new { id, personRef }) is { } p ? new(p) : null;

    /// <summary>Who records were said to be, in whatever delivery, where it is still so.</summary>
    public static IReadOnlyDictionary<string, PersonId> SettledBefore(IDbConnection c) => c.Query<(string, long)>(
        "SELECT DISTINCT h.person_ref, h.settled_as FROM delivery_hold h JOIN person p ON p.id = h.settled_as AND p.record_id = h.person_ref WHERE h.decision = 'Yes' AND p.joined_into IS NULL")
        .ToDictionary(x => x.Item1, x => new PersonId(x.Item2), StringComparer.Ordinal);

    /// <summary>Who people of a delivery were said to be no longer counts.</summary>
    public static void ForgetSettled(IDbConnection c, long id)
    {
        c.Execute("UPDATE delivery_hold SET settled_as = NULL WHERE delivery_id = @id", new { id });
        c.Execute("DELETE FROM delivery_came WHERE delivery_id = @id", new { id });
    }

    /// <summary>Whatever was said to be somebody who is there no more is to be asked again.</summary>
    public static void Forget(IDbConnection c, PersonId person)
    {
        c.Execute("UPDATE delivery_hold SET settled_as = NULL, decision = 'Waiting' WHERE settled_as = @person", new { person });
        c.Execute("DELETE FROM delivery_came WHERE person_id = @person", new { person });
    }

    /// <summary>Deliveries of a year that wait, or of which something is still held, other than the one given.</summary>
    public static IReadOnlyList<long> Open(IDbConnection c, YearId year, long but) => [.. c.Query<long>(
        """
        SELECT d.id FROM delivery d WHERE d.year_id = @year AND d.id <> @but AND (d.state IN ('ColumnsOpen', 'Waiting')
          OR (d.state = 'Applied' AND EXISTS (SELECT 1 FROM delivery_hold h WHERE h.delivery_id = d.id AND h.decision = 'Waiting')))
        """, new { year, but })];

    /// <summary>Nothing of it is held any more: a newer delivery says how things are.</summary>
    public static void LetHoldsGo(IDbConnection c, long id)
    {
        c.Execute("UPDATE delivery_hold SET decision = 'No' WHERE delivery_id = @id AND decision = 'Waiting'", new { id });
        c.Execute("DELETE FROM delivery_on_hold WHERE delivery_id = @id", new { id });
        c.Execute("UPDATE delivery SET on_hold = 0 WHERE id = @id", new { id });
    }

    /// <summary>Keeps that something was applied.</summary>
    public static void AddApplied(IDbConnection c, long id, Instant at, PersonId? by, int changes, string undo) => c.Execute(
        "INSERT INTO delivery_applied(delivery_id, applied_at, applied_by, changes, undo_sha256) VALUES(@id, @at, @by, @changes, @undo)", new { id, at, by, changes, undo });

    /// <summary>What was applied of a delivery, newest first.</summary>
    public static IReadOnlyList<AppliedRow> Applied(IDbConnection c, long id) => [.. c.Query<AppliedRow>(
        "SELECT a.id, a.applied_at, p.given || ' ' || p.family AS by, a.changes, a.undo_sha256, a.taken_back_at FROM delivery_applied a LEFT JOIN person p ON p.id = a.applied_by WHERE a.delivery_id = @id ORDER BY a.id DESC", new { id })];

    /// <summary>Keeps that it was taken back.</summary>
    public static void SetTakenBack(IDbConnection c, long applied, Instant at) => c.Execute("UPDATE delivery_applied SET taken_back_at = @at WHERE id = @applied", new { applied, at });

    /// <summary>Has a later delivery been applied to the same year, and stands?</summary>
    public static bool AppliedLater(IDbConnection c, YearId year, long applied) => c.ExecuteScalar<bool>(
        "SELECT EXISTS (SELECT 1 FROM delivery_applied a JOIN delivery d ON d.id = a.delivery_id WHERE d.year_id = @year AND a.id > @applied AND a.taken_back_at IS NULL)", new { year, applied });
}
