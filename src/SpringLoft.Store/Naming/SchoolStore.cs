namespace SpringLoft.Store.Naming;

/// <summary>The school and what it has set for everybody: its name, its zone, how classes are named.</summary>
public sealed record SchoolRow
{
    public string Name { get; init; } = "";
    public string Zone { get; init; } = "";
    public string ClassNamePattern { get; init; } = "";
    public long UploadLimitBytes { get; init; }
    public bool IsDemo { get; init; }

    /// <summary>True if teachers do not change the names of classes.</summary>
    public bool NamesByPattern { get; init; }

    /// <summary>How new user names are made.</summary>
    public string UserNamePattern { get; init; } = "";

    /// <summary>How first passwords are made.</summary>
    public string FirstPasswordRule { get; init; } = "";

    public int Version { get; init; }
}

/// <summary>A course and its mark.</summary>
public sealed record CourseRow
{
    public CourseId Id { get; init; }
    public string Name { get; init; } = "";
    public string Mark { get; init; } = "";
    public string? Department { get; init; }
}

/// <summary>Owns school and course.</summary>
public static class SchoolStore
{
    /// <summary>The school; null in a new database.</summary>
    public static SchoolRow? Get(IDbConnection c) =>
        c.QuerySingleOrDefault<SchoolRow>("SELECT name, zone, class_name_pattern, upload_limit_bytes, is_demo, names_by_pattern, user_name_pattern, first_password_rule, version FROM school");

    /// <summary>Sets the school up.</summary>
    public static void Set(IDbConnection c, SchoolRow s) => c.Execute(
        """
        INSERT INTO school(id, name, zone, class_name_pattern, upload_limit_bytes, is_demo)
        VALUES(1, @Name, @Zone, @ClassNamePattern, @UploadLimitBytes, @IsDemo)
        """, s);

    /// <summary>Sets how new user names are made, at the version that was seen; false if changed meanwhile.</summary>
    public static bool SetUserNames(IDbConnection c, string pattern, int version) =>
        c.Execute("UPDATE school SET user_name_pattern = @pattern, version = version + 1 WHERE version = @version", new { pattern, version }) == 1;

    /// <summary>Sets how first passwords are made, at the version that was seen; false if changed meanwhile.</summary>
    public static bool SetFirstPasswords(IDbConnection c, string rule, int version) =>
        c.Execute("UPDATE school SET first_password_rule = @rule, version = version + 1 WHERE version = @version", new { rule, version }) == 1;

    /// <summary>Sets how classes are named, at the version that was seen; false if changed meanwhile.</summary>
    public static bool SetNaming(IDbConnection c, string pattern, bool byPattern, int version) => c.Execute(
        "UPDATE school SET class_name_pattern = @pattern, names_by_pattern = @byPattern, version = version + 1 WHERE version = @version", new { pattern, byPattern, version }) == 1;

    /// <summary>All courses by name; what stands for a department's workspace is none.</summary>
    public static IReadOnlyList<CourseRow> Courses(IDbConnection c) => [.. c.Query<CourseRow>(
        "SELECT id, name, mark, department FROM course o WHERE NOT EXISTS (SELECT 1 FROM class k WHERE k.course_id = o.id AND k.kind = 'Department') ORDER BY name")];

    /// <summary>Changes the mark of a course.</summary>
    /// <returns>How many classes that are not archived wear it.</returns>
    public static int SetMark(IDbConnection c, CourseId id, string mark)
    {
        c.Execute("UPDATE course SET mark = @mark WHERE id = @id", new { id, mark });
        return c.ExecuteScalar<int>("SELECT count(*) FROM class WHERE course_id = @id AND state <> 'Archived'", new { id });
    }

    /// <summary>Finds a course by name, whatever the case, or adds it.</summary>
    public static CourseRow CourseNamed(IDbConnection c, string name, string mark, string? department)
    {
        const string find = "SELECT id, name, mark, department FROM course WHERE name = @name COLLATE NOCASE";
        if (c.QuerySingleOrDefault<CourseRow>(find, new { name }) is { } there) return there;
        c.Execute("INSERT INTO course(name, mark, department) VALUES(@name, @mark, @department)", new { name, mark, department });
        return c.QuerySingle<CourseRow>(find, new { name });
    }
}
