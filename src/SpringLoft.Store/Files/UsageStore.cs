namespace SpringLoft.Store.Files;

/// <summary>Something with the bytes that stand in it.</summary>
public sealed record UsageRow(long Id, string Name, long Bytes);

/// <summary>
/// How much room is used. In a class and by a person each file counts for each place in which it stands, as people see them;
/// for the school each file counts once, as it is on the disk.
/// </summary>
public static class UsageStore
{
    private const string OfClasses =
        """
        SELECT i.class_id AS class_id, i.added_by AS person_id, i.sha256 FROM item i WHERE i.sha256 IS NOT NULL
        UNION ALL SELECT i.class_id, v.by_id, v.sha256 FROM item_version v JOIN item i ON i.id = v.item_id WHERE v.sha256 IS NOT NULL
        UNION ALL SELECT w.class_id, f.added_by, f.sha256 FROM work_file f JOIN work w ON w.id = f.work_id
        UNION ALL SELECT a.class_id, NULL, t.sha256 FROM assignment_thing t JOIN assignment a ON a.id = t.assignment_id WHERE t.sha256 IS NOT NULL AND t.item_id IS NULL
        UNION ALL SELECT x.class_id, NULL, f.sha256 FROM notice_file f JOIN notice_class x ON x.notice_id = f.notice_id
        """;

    /// <summary>Bytes in a class.</summary>
    public static long OfClass(IDbConnection c, ClassId id) => c.ExecuteScalar<long>(
        """
        SELECT ifnull((SELECT sum(b.size) FROM item i JOIN blob b ON b.sha256 = i.sha256 WHERE i.class_id = @id), 0)
          + ifnull((SELECT sum(b.size) FROM item_version v JOIN item i ON i.id = v.item_id JOIN blob b ON b.sha256 = v.sha256 WHERE i.class_id = @id), 0)
          + ifnull((SELECT sum(b.size) FROM work_file f JOIN work w ON w.id = f.work_id JOIN blob b ON b.sha256 = f.sha256 WHERE w.class_id = @id), 0)
          + ifnull((SELECT sum(b.size) FROM assignment_thing t JOIN assignment a ON a.id = t.assignment_id JOIN blob b ON b.sha256 = t.sha256 WHERE a.class_id = @id AND t.item_id IS NULL), 0)
          + ifnull((SELECT sum(b.size) FROM notice_file f JOIN notice_class x ON x.notice_id = f.notice_id JOIN blob b ON b.sha256 = f.sha256 WHERE x.class_id = @id), 0)
        """, new { id });

    /// <summary>Bytes that a person has put in, in all classes that are there.</summary>
    public static long OfPerson(IDbConnection c, PersonId id) => c.ExecuteScalar<long>(
        """
        SELECT ifnull((SELECT sum(b.size) FROM item i JOIN blob b ON b.sha256 = i.sha256 WHERE i.added_by = @id), 0)
          + ifnull((SELECT sum(b.size) FROM item_version v JOIN blob b ON b.sha256 = v.sha256 WHERE v.by_id = @id), 0)
          + ifnull((SELECT sum(b.size) FROM work_file f JOIN blob b ON b.sha256 = f.sha256 WHERE f.added_by = @id), 0)
        """, new { id });

    /// <summary>Bytes of all files that are kept.</summary>
    public static long OfSchool(IDbConnection c) => c.ExecuteScalar<long>("SELECT ifnull(sum(size), 0) FROM blob");

    /// <summary>The classes with the most in them.</summary>
    public static IReadOnlyList<UsageRow> LargestClasses(IDbConnection c, int most) => Rows(c,
        $"SELECT k.id, k.name, sum(b.size) AS bytes FROM ({OfClasses}) u JOIN blob b ON b.sha256 = u.sha256 JOIN class k ON k.id = u.class_id GROUP BY k.id ORDER BY bytes DESC, k.id LIMIT @most", most);

    /// <summary>Classes with more in them than so many bytes, the largest first.</summary>
    public static IReadOnlyList<UsageRow> ClassesOver(IDbConnection c, long bytes) => [.. LargestClasses(c, int.MaxValue).TakeWhile(k => k.Bytes > bytes)];

    /// <summary>The people who have put in the most.</summary>
    public static IReadOnlyList<UsageRow> LargestPeople(IDbConnection c, int most) => Rows(c,
        $"SELECT p.id, trim(p.given || ' ' || p.family) AS name, sum(b.size) AS bytes FROM ({OfClasses}) u JOIN blob b ON b.sha256 = u.sha256 JOIN person p ON p.id = u.person_id GROUP BY p.id ORDER BY bytes DESC, p.id LIMIT @most", most);

    private static IReadOnlyList<UsageRow> Rows(IDbConnection c, string sql, int most) => [.. c.Query<(long, string, long)>(sql, new { most }).Select(r => new UsageRow(r.Item1, r.Item2, r.Item3))];
}
