namespace SpringLoft.Store.Closing;

/// <summary>Bytes that a student put in, and whose they are.</summary>
public sealed record StudentBytes(PersonId Student, string Sha256);

/// <summary>What a student wrote on a page that others write on too, as they left it.</summary>
public sealed record StudentWords
{
    public PersonId Student { get; init; }
    public ItemId Item { get; init; }
    public string Name { get; init; } = "";
    public Instant At { get; init; }
    public string Sha256 { get; init; } = "";
    public string Sha512 { get; init; } = "";
    public long Size { get; init; }
}

/// <summary>
/// Where bytes are that students put in: compared by content, never by a moment. Owns take_home_holds; reads what others own.
/// </summary>
public static class LastCopyStore
{
    // What students put into a thing: what it is now, for whoever added it; what a student wrote over somebody else's; and what a
    // student last wrote, where somebody else wrote over it. What somebody binned themselves is theirs to let go.
    private const string NotBinnedBy = "(i.binned_at IS NULL OR i.binned_by IS NOT";
    private const string Added = $"SELECT i.class_id, i.id AS item, i.added_by AS student, i.sha256 FROM item i WHERE i.by_student = 1 AND i.sha256 IS NOT NULL AND {NotBinnedBy} i.added_by)";
    private const string Wrote =
        $"""
        SELECT i.class_id, i.id AS item, ifnull(w.joined_into, w.id) AS student, i.sha256, i.name, i.changed_at AS at
        FROM item i JOIN person w ON w.id = i.changed_by AND w.role = 'Student' WHERE i.changed_by <> i.added_by AND i.sha256 IS NOT NULL AND {NotBinnedBy} i.changed_by)
        UNION SELECT i.class_id, i.id, ifnull(w.joined_into, w.id), v.sha256, v.name, v.at
        FROM item_version v JOIN item i ON i.id = v.item_id JOIN person w ON w.id = v.by_id AND w.role = 'Student'
        WHERE v.by_id <> ifnull(i.changed_by, i.added_by) AND {NotBinnedBy} v.by_id)
          AND v.version = (SELECT max(x.version) FROM item_version x WHERE x.item_id = v.item_id AND x.by_id = v.by_id)
        """;

    // What students put into classes, as it is now and in every version that was handed in.
    private const string PutIn =
        $"""
        SELECT class_id, student, sha256 FROM ({Added})
        UNION SELECT class_id, student, sha256 FROM ({Wrote})
        UNION SELECT w.class_id, w.student_id, f.sha256 FROM work w JOIN work_file f ON f.work_id = w.id
        UNION SELECT w.class_id, w.student_id, f.sha256 FROM work w JOIN work_turn t ON t.work_id = w.id JOIN work_turn_file f ON f.turn_id = t.id
        """;

    // A class in the bin is on its way out: what stands in it counts as a copy for nobody but itself.
    private const string NotGoing = "p.class_id NOT IN (SELECT id FROM class WHERE binned_at IS NOT NULL)";

    // In a take-home of that person, or of an account that was joined into theirs.
    private const string InTakeHome =
        """
        EXISTS (SELECT 1 FROM take_home_holds h JOIN take_home t ON t.sha256 = h.take_home_sha256
          WHERE h.sha256 = p.sha256 AND (t.person_id = p.student OR t.person_id IN (SELECT id FROM person WHERE joined_into = p.student)))
        """;

    /// <summary>Who put something into a class, and which of it is in no take-home of theirs.</summary>
    public static (IReadOnlySet<PersonId> PutIn, IReadOnlyList<StudentBytes> Missing) OfClass(IDbConnection c, ClassId id)
    {
        var rows = c.Query<(long Student, string Sha256, bool Safe)>($"SELECT p.student, p.sha256, {InTakeHome} FROM ({PutIn}) p WHERE p.class_id = @id", new { id }).ToList();
        return (rows.Select(r => new PersonId(r.Student)).ToHashSet(), [.. rows.Where(r => !r.Safe).Select(r => new StudentBytes(new(r.Student), r.Sha256))]);
    }

    /// <summary>Students of whom something that stands in a class of a year is in no take-home of theirs.</summary>
    public static IReadOnlySet<PersonId> Incomplete(IDbConnection c, YearId year) => c.Query<long>(
        $"SELECT DISTINCT p.student FROM ({PutIn}) p JOIN class k ON k.id = p.class_id WHERE k.year_id = @year AND k.kind = 'Class' AND NOT {InTakeHome}", new { year }).Select(p => new PersonId(p)).ToHashSet();

    /// <summary>What students put into a thing and did not bin themselves, and whether it is in a take-home of theirs.</summary>
    public static IReadOnlyList<(PersonId Student, bool TakenHome)> OfItem(IDbConnection c, ItemId item) => [.. c.Query<(long Student, bool Safe)>(
        $"SELECT p.student, {InTakeHome} FROM (SELECT item, student, sha256 FROM ({Added}) UNION SELECT item, student, sha256 FROM ({Wrote})) p WHERE p.item = @item ORDER BY 1", new { item }).Select(x => (new PersonId(x.Student), x.Safe))];

    /// <summary>What students wrote on pages of a class that are not theirs, and what of theirs somebody else wrote over, in its order.</summary>
    public static IReadOnlyList<StudentWords> WordsOf(IDbConnection c, ClassId id) => [.. c.Query<StudentWords>(
        $"SELECT w.student, w.item, w.name, w.at, w.sha256, b.sha512, b.size FROM ({Wrote}) w JOIN blob b ON b.sha256 = w.sha256 WHERE w.class_id = @id ORDER BY w.item, w.at, w.student", new { id })];

    /// <summary>Take-homes of which it is not known yet what they hold.</summary>
    public static IReadOnlyList<string> Unread(IDbConnection c) => [.. c.Query<string>(
        "SELECT DISTINCT t.sha256 FROM take_home t WHERE NOT EXISTS (SELECT 1 FROM take_home_holds h WHERE h.take_home_sha256 = t.sha256)")];

    /// <summary>Notes what a take-home holds; what no take-home is any more is forgotten.</summary>
    public static void SetHolds(IDbConnection c, string takeHome, IEnumerable<string> sha256)
    {
        c.Execute("DELETE FROM take_home_holds WHERE take_home_sha256 NOT IN (SELECT sha256 FROM take_home)");
        c.Execute("INSERT INTO take_home_holds(take_home_sha256, sha256) VALUES(@takeHome, @sha) ON CONFLICT DO NOTHING", sha256.Distinct().Select(sha => new { takeHome, sha }));
    }

    /// <summary>What a take-home holds.</summary>
    public static IReadOnlySet<string> Holds(IDbConnection c, string takeHome) => c.Query<string>("SELECT sha256 FROM take_home_holds WHERE take_home_sha256 = @takeHome", new { takeHome }).ToHashSet();

    /// <summary>What a take-home of a person holds, and no class, no bin, no page's history.</summary>
    public static IReadOnlySet<string> AloneIn(IDbConnection c, PersonId person, string takeHome) => c.Query<string>(
        $"""
        SELECT h.sha256 FROM take_home_holds h WHERE h.take_home_sha256 = @takeHome
          AND NOT EXISTS (SELECT 1 FROM ({PutIn}) p WHERE p.sha256 = h.sha256 AND p.student = @person AND {NotGoing})
          AND NOT EXISTS (SELECT 1 FROM item_version v JOIN item p ON p.id = v.item_id WHERE v.sha256 = h.sha256 AND {NotGoing})
        """, new { person, takeHome }).ToHashSet();

    /// <summary>Of what a person's take-home of a year holds, how much stands nowhere else: in no class, in no bin, in no other take-home of theirs.</summary>
    public static int OnlyIn(IDbConnection c, PersonId person, YearId year) => c.ExecuteScalar<int>(
        $"""
        SELECT count(*) FROM take_home t JOIN take_home_holds h ON h.take_home_sha256 = t.sha256
        WHERE t.person_id = @person AND t.year_id = @year
          AND NOT EXISTS (SELECT 1 FROM ({PutIn}) p WHERE p.sha256 = h.sha256 AND p.student = @person AND {NotGoing})
          AND NOT EXISTS (SELECT 1 FROM take_home o JOIN take_home_holds g ON g.take_home_sha256 = o.sha256 WHERE g.sha256 = h.sha256 AND o.person_id = @person AND o.year_id <> @year)
        """, new { person, year });
}
