using SpringLoft.Core.Assignments;

namespace SpringLoft.Store.Assignments;

/// <summary>A piece of work.</summary>
public sealed record WorkRow
{
    public WorkId Id { get; init; }
    public AssignmentId AssignmentId { get; init; }
    public PersonId StudentId { get; init; }
    public WorkState State { get; init; }
    public decimal? Score { get; init; }
    public Instant? HandedInAt { get; init; }
    public Instant? ReturnedAt { get; init; }
    public int Version { get; init; }
}

/// <summary>A file in a piece of work.</summary>
public sealed record WorkFileRow
{
    public long Id { get; init; }
    public WorkId WorkId { get; init; }
    public string Name { get; init; } = "";
    public string Sha256 { get; init; } = "";
    public string Sha512 { get; init; } = "";
    public long Size { get; init; }
    public Instant AddedAt { get; init; }
}

/// <summary>A private comment on a piece of work.</summary>
public sealed record CommentRow
{
    public WorkId WorkId { get; init; }
    public PersonId AuthorId { get; init; }
    public string Author { get; init; } = "";
    public string Text { get; init; } = "";
    public Instant At { get; init; }
}

/// <summary>Owns work, work_file and work_comment.</summary>
public static class WorkStore
{
    private const string Columns = "id, assignment_id, student_id, state, score, handed_in_at, returned_at, version";

    /// <summary>How many pieces of work there are in a class.</summary>
    public static int CountOf(IDbConnection c, ClassId id) => c.ExecuteScalar<int>("SELECT count(*) FROM work WHERE class_id = @id", new { id });

    /// <summary>All work of a class.</summary>
    public static IReadOnlyList<WorkRow> OfClass(IDbConnection c, ClassId id) =>
        [.. c.Query<WorkRow>($"SELECT {Columns} FROM work WHERE class_id = @id ORDER BY id", new { id })];

    /// <summary>A student's work in a class.</summary>
    public static IReadOnlyList<WorkRow> OfStudent(IDbConnection c, ClassId id, PersonId student) =>
        [.. c.Query<WorkRow>($"SELECT {Columns} FROM work WHERE student_id = @student AND class_id = @id ORDER BY id", new { id, student })];

    /// <summary>One piece of work of a class; null if there is no such.</summary>
    public static WorkRow? Find(IDbConnection c, ClassId id, WorkId work) =>
        c.QuerySingleOrDefault<WorkRow>($"SELECT {Columns} FROM work WHERE class_id = @id AND id = @work", new { id, work });

    /// <summary>A student's work for an assignment; null if not begun.</summary>
    public static WorkRow? Of(IDbConnection c, AssignmentId assignment, PersonId student) => c.QuerySingleOrDefault<WorkRow>(
        $"SELECT {Columns} FROM work WHERE assignment_id = @assignment AND student_id = @student", new { assignment, student });

    /// <summary>Begins a student's work, or finds it begun.</summary>
    public static WorkRow Begin(IDbConnection c, ClassId id, AssignmentId assignment, PersonId student)
    {
        c.Execute("INSERT INTO work(assignment_id, class_id, student_id, state) VALUES(@assignment, @id, @student, 'Working') ON CONFLICT DO NOTHING", new { id, assignment, student });
        return Of(c, assignment, student)!;
    }

    /// <summary>Saves where the work is, at the version that was seen; false if changed meanwhile.</summary>
    public static bool Save(IDbConnection c, WorkRow w) => c.Execute(
        """
        UPDATE work SET state = @state, score = @Score, handed_in_at = @HandedInAt, returned_at = @ReturnedAt, version = version + 1
        WHERE id = @Id AND version = @Version
        """, new { w.Id, w.Version, state = w.State.ToString(), w.Score, w.HandedInAt, w.ReturnedAt }) == 1;

    /// <summary>Files of all work of a class.</summary>
    public static ILookup<WorkId, WorkFileRow> FilesOfClass(IDbConnection c, ClassId id) => c.Query<WorkFileRow>(
        """
        SELECT f.id, f.work_id, f.name, f.sha256, b.sha512, b.size, f.added_at
        FROM work_file f JOIN work w ON w.id = f.work_id JOIN blob b ON b.sha256 = f.sha256 WHERE w.class_id = @id ORDER BY f.id
        """, new { id }).ToLookup(f => f.WorkId);

    /// <summary>Files of one piece of work.</summary>
    public static IReadOnlyList<WorkFileRow> Files(IDbConnection c, WorkId work) => [.. c.Query<WorkFileRow>(
        "SELECT f.id, f.work_id, f.name, f.sha256, b.sha512, b.size, f.added_at FROM work_file f JOIN blob b ON b.sha256 = f.sha256 WHERE f.work_id = @work ORDER BY f.id", new { work })];

    /// <summary>Adds a file; its blob is noted before.</summary>
    public static long AddFile(IDbConnection c, WorkId work, string name, string sha256, PersonId by, Instant at) => c.ExecuteScalar<long>(
        "INSERT INTO work_file(work_id, name, sha256, added_by, added_at) VALUES(@work, @name, @sha256, @by, @at) RETURNING id", new { work, name, sha256, by, at });

    /// <summary>Takes a file out.</summary>
    public static void RemoveFile(IDbConnection c, WorkId work, long file) =>
        c.Execute("DELETE FROM work_file WHERE id = @file AND work_id = @work", new { work, file });

    /// <summary>Comments on all work of a class, oldest first.</summary>
    public static ILookup<WorkId, CommentRow> CommentsOfClass(IDbConnection c, ClassId id) => c.Query<CommentRow>(
        """
        SELECT m.work_id, m.author_id, p.given || ' ' || p.family AS author, m.text, m.at
        FROM work_comment m JOIN work w ON w.id = m.work_id JOIN person p ON p.id = m.author_id WHERE w.class_id = @id ORDER BY m.id
        """, new { id }).ToLookup(m => m.WorkId);

    /// <summary>Comments on one piece of work, oldest first.</summary>
    public static IReadOnlyList<CommentRow> CommentsOfWork(IDbConnection c, WorkId work) => [.. c.Query<CommentRow>(
        """
        SELECT m.work_id, m.author_id, p.given || ' ' || p.family AS author, m.text, m.at
        FROM work_comment m JOIN person p ON p.id = m.author_id WHERE m.work_id = @work ORDER BY m.id
        """, new { work })];

    /// <summary>Adds a private comment.</summary>
    public static void AddComment(IDbConnection c, WorkId work, PersonId author, string text, Instant at) =>
        c.Execute("INSERT INTO work_comment(work_id, author_id, text, at) VALUES(@work, @author, @text, @at)", new { work, author, text, at });
}
