namespace SpringLoft.Store.Rosters;

/// <summary>An offer to lead a class that waits for its answer.</summary>
public sealed record LeadOfferRow
{
    public ClassId ClassId { get; init; }
    public string ClassName { get; init; } = "";
    public PersonId ToId { get; init; }
    public string ToName { get; init; } = "";
    public PersonId ById { get; init; }
    public string ByName { get; init; } = "";
    public Instant OfferedAt { get; init; }
}

/// <summary>Owns lead_offer.</summary>
public static class LeadStore
{
    // Who offered must lead the class still, and who is asked must be there: an offer that nobody can answer is none.
    private const string Offers =
        """
        SELECT o.class_id, k.name AS class_name, o.to_id, t.given || ' ' || t.family AS to_name, o.by_id, b.given || ' ' || b.family AS by_name, o.offered_at
        FROM lead_offer o JOIN class k ON k.id = o.class_id JOIN person t ON t.id = o.to_id JOIN person b ON b.id = o.by_id
        WHERE k.state <> 'Archived' AND t.active = 1 AND t.role <> 'Student'
          AND EXISTS (SELECT 1 FROM member m WHERE m.class_id = o.class_id AND m.person_id = o.by_id AND m.role = 'Lead' AND m.left_at IS NULL)
        """;

    /// <summary>The offer of a class; null if none waits.</summary>
    public static LeadOfferRow? Find(IDbConnection c, ClassId id) => c.QuerySingleOrDefault<LeadOfferRow>($"{Offers} AND o.class_id = @id", new { id });

    /// <summary>What somebody is asked to lead, the oldest first.</summary>
    public static IReadOnlyList<LeadOfferRow> To(IDbConnection c, PersonId person) => [.. c.Query<LeadOfferRow>($"{Offers} AND o.to_id = @person ORDER BY o.offered_at, o.class_id", new { person })];

    /// <summary>Offers a class; an offer of before goes.</summary>
    public static void Offer(IDbConnection c, ClassId id, PersonId to, PersonId by, Instant at) =>
        c.Execute("INSERT INTO lead_offer(class_id, to_id, by_id, offered_at) VALUES(@id, @to, @by, @at) ON CONFLICT(class_id) DO UPDATE SET to_id = @to, by_id = @by, offered_at = @at", new { id, to, by, at });

    /// <summary>The offer is over.</summary>
    public static void Over(IDbConnection c, ClassId id) => c.Execute("DELETE FROM lead_offer WHERE class_id = @id", new { id });
}
