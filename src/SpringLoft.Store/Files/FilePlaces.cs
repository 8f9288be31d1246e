namespace SpringLoft.Store.Files;

/// <summary>A thing that a kept file is the bytes of.</summary>
/// <param name="Where">The class, or what else it belongs to.</param>
public sealed record FilePlace(string Name, string Where, ClassId? Class);

/// <summary>Where the bytes of a kept file are used. Reads what others own.</summary>
public static class FilePlaces
{
    /// <summary>Things of classes, work of students, packages and take-homes with these bytes.</summary>
    public static IReadOnlyList<FilePlace> Of(IDbConnection c, string sha256) => [.. c.Query<(string, string, long?)>(
        """
        SELECT i.name, k.name, k.id FROM item i JOIN class k ON k.id = i.class_id WHERE i.sha256 = @sha256
        UNION SELECT f.name, k.name, k.id FROM work_file f JOIN work w ON w.id = f.work_id JOIN class k ON k.id = w.class_id WHERE f.sha256 = @sha256
        UNION SELECT f.name, k.name, k.id FROM work_turn_file f JOIN work_turn t ON t.id = f.turn_id JOIN class k ON k.id = t.class_id WHERE f.sha256 = @sha256
        UNION SELECT t.name, k.name, k.id FROM assignment_thing t JOIN assignment a ON a.id = t.assignment_id JOIN class k ON k.id = a.class_id WHERE t.sha256 = @sha256
        UNION SELECT f.name, ifnull(k.name, 'notices to the school'), k.id FROM notice_file f LEFT JOIN notice_class x ON x.notice_id = f.notice_id LEFT JOIN class k ON k.id = x.class_id WHERE f.sha256 = @sha256
        UNION SELECT p.name, k.name, k.id FROM package p JOIN class k ON k.id = p.class_id WHERE p.sha256 = @sha256
        UNION SELECT t.name, 'take-homes', NULL FROM take_home t WHERE t.sha256 = @sha256
        UNION SELECT r.title, 'sites and materials', NULL FROM resource r WHERE r.sha256 = @sha256
        ORDER BY 2, 1
        """, new { sha256 }).Select(x => new FilePlace(x.Item1, x.Item2, x.Item3 is { } k ? new ClassId(k) : null))];
}
