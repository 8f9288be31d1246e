namespace SpringLoft.Store.Rosters;

/// <summary>Who teaches which class of a year, for lists.</summary>
public sealed class StaffStore
{
    private readonly ILookup<ClassId, Row> rows;

    private StaffStore(IEnumerable<Row> all) => rows = all.ToLookup(r => r.ClassId);

    /// <summary>Reads it for a whole year at once.</summary>
    public static StaffStore Of(IDbConnection c, YearId year) => new(c.Query<Row>(
        """
        SELECT m.class_id, m.person_id, p.given || ' ' || p.family AS name, m.role = 'Lead' AS lead
        FROM member m JOIN class k ON k.id = m.class_id JOIN person p ON p.id = m.person_id
        WHERE k.year_id = @year AND m.role <> 'Student' AND m.left_at IS NULL ORDER BY m.class_id, p.family_key
        """, new { year }));

    /// <summary>Names of the lead teachers; a dash if the class has none.</summary>
    public string Lead(ClassId id) => string.Join(", ", rows[id].Where(r => r.Lead).Select(r => r.Name)) is { Length: > 0 } names ? names : "–";

    /// <summary>Is the person staff of the class?</summary>
    public bool Mine(ClassId id, PersonId person) => rows[id].Any(r => r.PersonId == person);

    private sealed record Row
    {
        public ClassId ClassId { get; init; }
        public PersonId PersonId { get; init; }
        public string Name { get; init; } = "";
        public bool Lead { get; init; }
    }
}
