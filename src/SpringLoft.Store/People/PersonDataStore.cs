namespace SpringLoft.Store.People;

/// <summary>Rows of one table in which somebody stands, as text.</summary>
/// <param name="Table">As the database calls it.</param>
/// <param name="As">The column in which they stand.</param>
public sealed record RowsOfPerson(string Table, string As, IReadOnlyList<string> Columns, IReadOnlyList<IReadOnlyList<string?>> Rows);

/// <summary>A file that somebody put in.</summary>
public sealed record FileOfPerson(string Class, string Name, string Sha256, Instant At);

/// <summary>Everything that the database has of one person: read from its own schema, so that no table is forgotten.</summary>
public static class PersonDataStore
{
    /// <summary>What lets somebody in, or proves that lines are whole: no data of the person, and nobody's to have.</summary>
    public static IReadOnlySet<(string Table, string Column)> Kept { get; } = new HashSet<(string, string)>
    {
        ("sign_in", "password_hash"), ("sign_in", "first_phrase"), ("second_step", "secret"), ("recovery_code", "digest"), ("passkey", "credential"), ("passkey", "public_key"), ("session", "token_sha"), ("session", "id_token"), ("session", "provider_session"),
        ("shelf", "token"), ("shelf", "token_sha256"), ("invitation", "token_sha256"), ("class", "calendar_token"), ("audit", "salt"), ("audit", "words"), ("audit", "hash"), ("person_join", "undo"),
        ("school_key", "public_key"), ("school_key", "secret"),
    };

    /// <summary>Rows of every table that refers to people.</summary>
    public static IReadOnlyList<RowsOfPerson> Rows(IDbConnection c, PersonId id)
    {
        var found = new List<RowsOfPerson> { Read(c, "person", "id", id) };
        var places = c.Query<(string, string)>("SELECT m.name, f.\"from\" FROM sqlite_master m, pragma_foreign_key_list(m.name) f WHERE m.type = 'table' AND f.\"table\" = 'person' ORDER BY m.name, f.\"from\"");
        foreach (var (table, column) in places.ToList())
            if (Read(c, table, column, id) is { Rows.Count: > 0 } rows) found.Add(rows);
        return found;
    }

    /// <summary>Lines of the audit trail about somebody that others caused.</summary>
    public static RowsOfPerson About(IDbConnection c, PersonId id) => Table(c, "audit", "thing_id", "SELECT * FROM audit WHERE thing = 'person' AND thing_id = @id AND person_id IS NOT @id ORDER BY id", id);

    /// <summary>Their work with its assignment, marks, and what was said about it.</summary>
    public static (RowsOfPerson Works, RowsOfPerson Comments) Work(IDbConnection c, PersonId id) => (
        Table(c, "work", "student_id",
            "SELECT k.name AS class, a.title AS assignment, w.state, w.score, a.points, w.returned_score, w.handed_in_at, w.returned_at FROM work w JOIN assignment a ON a.id = w.assignment_id JOIN class k ON k.id = w.class_id WHERE w.student_id = @id ORDER BY k.id, a.id", id),
        Table(c, "work_comment", "student_id",
            "SELECT k.name AS class, a.title AS assignment, trim(p.given || ' ' || p.family) AS said_by, m.text, m.at FROM work_comment m JOIN work w ON w.id = m.work_id JOIN assignment a ON a.id = w.assignment_id JOIN class k ON k.id = w.class_id JOIN person p ON p.id = m.author_id WHERE w.student_id = @id ORDER BY m.id", id));

    /// <summary>The classes they are or were in.</summary>
    public static RowsOfPerson Classes(IDbConnection c, PersonId id) => Table(c, "member", "person_id",
        "SELECT k.name AS class, y.label AS year, m.role, m.joined_at, m.left_at FROM member m JOIN class k ON k.id = m.class_id JOIN school_year y ON y.id = k.year_id WHERE m.person_id = @id ORDER BY y.id, k.name_key", id);

    /// <summary>Files that they put in, and their take-homes.</summary>
    public static IReadOnlyList<FileOfPerson> Files(IDbConnection c, PersonId id) => [.. c.Query<FileRow>(
        """
        SELECT k.name AS class, i.name, i.sha256, i.added_at AS at FROM item i JOIN class k ON k.id = i.class_id WHERE i.added_by = @id AND i.sha256 IS NOT NULL
        UNION ALL SELECT k.name, f.name, f.sha256, f.added_at FROM work_file f JOIN work w ON w.id = f.work_id JOIN class k ON k.id = w.class_id WHERE f.added_by = @id
        UNION ALL SELECT 'Take-homes', t.name, t.sha256, t.made_at FROM take_home t WHERE t.person_id = @id
        ORDER BY 1, 2
        """, new { id }).Select(f => new FileOfPerson(f.Class, f.Name, f.Sha256, f.At))];

    private static RowsOfPerson Read(IDbConnection c, string table, string column, PersonId id) => Table(c, table, column, $"SELECT * FROM {table} WHERE {column} = @id", id);

    private static RowsOfPerson Table(IDbConnection c, string table, string column, string sql, PersonId id)
    {
        var rows = c.Query(sql, new { id }).Cast<IDictionary<string, object?>>().ToList();
        var columns = rows.Count == 0 ? [] : rows[0].Keys.Where(k => !Kept.Contains((table, k))).ToList();
        return new(table, column, columns, [.. rows.Select(r => (IReadOnlyList<string?>)[.. columns.Select(k => Convert.ToString(r[k], System.Globalization.CultureInfo.InvariantCulture))])]);
    }

    private sealed record FileRow
    {
        public string Class { get; init; } = "";
        public string Name { get; init; } = "";
        public string Sha256 { get; init; } = "";
        public Instant At { get; init; }
    }
}
