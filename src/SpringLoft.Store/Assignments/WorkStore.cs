using SpringLoft.Core.Assignments;

namespace SpringLoft.Store.Assignments;

/// <summary>A piece of work.</summary>
public sealed record WorkRow
{
    public WorkId Id { get; init; }
    public AssignmentId AssignmentId { get; init; }
    public PersonId StudentId { get; init; }
    public WorkState State { get; init; }

    /// <summary>The mark as it is being given: a draft until the work is returned.</summary>
    public decimal? Score { get; init; }

    /// <summary>The mark that was returned last: it counts until another one is.</summary>
    public decimal? ReturnedScore { get; init; }

    /// <summary>The levels of the criteria that the mark is made of, as it is being given.</summary>
    public string? Chosen { get; init; }

    /// <summary>Those of the mark that was returned last.</summary>
    public string? ReturnedChosen { get; init; }
    public Instant? HandedInAt { get; init; }
    public Instant? ReturnedAt { get; init; }
    public int Version { get; init; }

    /// <summary>As the way of work sees it.</summary>
    /// <param name="files">How many things are in it, where that matters.</param>
    public WorkFact Fact(int files = 1) => new(State, files, Score, ReturnedScore, Chosen, ReturnedChosen);

    /// <summary>As the way of work left it.</summary>
    public WorkRow With(WorkFact to) => this with { State = to.State, Score = to.Score, ReturnedScore = to.Counts, Chosen = to.Chosen, ReturnedChosen = to.CountsChosen };
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

    /// <summary>Where it leads, of a link.</summary>
    public string? Url { get; init; }
}

/// <summary>One handing-in: what was in it, and what became of it.</summary>
public sealed record TurnRow
{
    public long Id { get; init; }
    public WorkId WorkId { get; init; }
    public Instant HandedInAt { get; init; }
    public Instant? TakenBackAt { get; init; }
    public Instant? ReturnedAt { get; init; }
    public decimal? Score { get; init; }
}

/// <summary>A file as it was handed in.</summary>
public sealed record TurnFileRow
{
    public long TurnId { get; init; }
    public WorkId WorkId { get; init; }
    public int Position { get; init; }
    public Instant HandedInAt { get; init; }
    public string Name { get; init; } = "";
    public string Sha256 { get; init; } = "";
    public string Sha512 { get; init; } = "";
    public long Size { get; init; }
    public Instant AddedAt { get; init; }

    /// <summary>Where it leads, of a link.</summary>
    public string? Url { get; init; }
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

/// <summary>Owns work, its turns, work_file and work_comment.</summary>
public static class WorkStore
{
    private const string Columns = "id, assignment_id, student_id, state, score, returned_score, chosen, returned_chosen, handed_in_at, returned_at, version";

    /// <summary>How many pieces of work there are in a class.</summary>
    public static int CountOf(IDbConnection c, ClassId id) => c.ExecuteScalar<int>("SELECT count(*) FROM work WHERE class_id = @id", new { id });

    /// <summary>All work of a class.</summary>
    public static IReadOnlyList<WorkRow> OfClass(IDbConnection c, ClassId id) =>
        [.. c.Query<WorkRow>($"SELECT {Columns} FROM work WHERE class_id = @id ORDER BY id", new { id })];

    /// <summary>A student's work in a class.</summary>
    public static IReadOnlyList<WorkRow> OfStudent(IDbConnection c, ClassId id, PersonId student) =>
        [.. c.Query<WorkRow>($"SELECT {Columns} FROM work WHERE student_id = @student AND class_id = @id ORDER BY id", new { id, student })];

    /// <summary>Has any piece of an assignment ever come in, or a mark been given?</summary>
    public static bool AnyCame(IDbConnection c, AssignmentId assignment) => c.ExecuteScalar<bool>("SELECT EXISTS (SELECT 1 FROM work WHERE assignment_id = @assignment AND (state <> 'Working' OR score IS NOT NULL OR returned_score IS NOT NULL))", new { assignment });

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
        UPDATE work SET state = @state, score = @Score, returned_score = @ReturnedScore, chosen = @Chosen, returned_chosen = @ReturnedChosen, handed_in_at = @HandedInAt, returned_at = @ReturnedAt, version = version + 1
        WHERE id = @Id AND version = @Version
        """, new { w.Id, w.Version, state = w.State.ToString(), w.Score, w.ReturnedScore, w.Chosen, w.ReturnedChosen, w.HandedInAt, w.ReturnedAt }) == 1;

    /// <summary>Takes away a piece in which nothing is: no file, no mark, no word, and never handed in. Others stay.</summary>
    public static void RemoveEmpty(IDbConnection c, WorkId work) => c.Execute(
        """
        DELETE FROM work WHERE id = @work AND state = 'Working' AND score IS NULL AND returned_score IS NULL AND NOT EXISTS (SELECT 1 FROM work_file WHERE work_id = @work)
          AND NOT EXISTS (SELECT 1 FROM work_comment WHERE work_id = @work) AND NOT EXISTS (SELECT 1 FROM work_turn WHERE work_id = @work)
        """, new { work });

    /// <summary>Notes what is handed in as it is now, so that it can be looked at whatever becomes of the files.</summary>
    public static void AddTurn(IDbConnection c, ClassId id, WorkId work, Instant at)
    {
        var turn = c.ExecuteScalar<long>("INSERT INTO work_turn(class_id, work_id, handed_in_at) VALUES(@id, @work, @at) RETURNING id", new { id, work, at });
        c.Execute("INSERT INTO work_turn_file(turn_id, position, name, sha256, added_at, url) SELECT @turn, row_number() OVER (ORDER BY id) - 1, name, sha256, added_at, url FROM work_file WHERE work_id = @work", new { turn, work });
    }

    /// <summary>Notes on the newest turn that it was taken back.</summary>
    public static void TurnTakenBack(IDbConnection c, WorkId work, Instant at) => c.Execute($"UPDATE work_turn SET taken_back_at = @at WHERE id = {NewestTurn}", new { work, at });

    /// <summary>Notes on the newest turn that it was returned, and with which mark; on none if nothing was handed in, or it was taken back.</summary>
    public static void TurnReturned(IDbConnection c, WorkId work, decimal? score, Instant at) => c.Execute($"UPDATE work_turn SET returned_at = @at, score = @score WHERE id = {NewestTurn} AND taken_back_at IS NULL", new { work, score, at });

    private const string NewestTurn = "(SELECT id FROM work_turn WHERE work_id = @work ORDER BY handed_in_at DESC, id DESC LIMIT 1)";

    /// <summary>Each time a piece of work was handed in, oldest first.</summary>
    public static IReadOnlyList<TurnRow> Turns(IDbConnection c, WorkId work) =>
        [.. c.Query<TurnRow>("SELECT id, work_id, handed_in_at, taken_back_at, returned_at, score FROM work_turn WHERE work_id = @work ORDER BY handed_in_at, id", new { work })];

    private const string TurnFiles =
        """
        SELECT f.turn_id, t.work_id, f.position, t.handed_in_at, f.name, f.sha256, b.sha512, b.size, f.added_at, f.url
        FROM work_turn t JOIN work_turn_file f ON f.turn_id = t.id JOIN blob b ON b.sha256 = f.sha256
        """;

    /// <summary>When pieces of work of a class first came in to stay: a turn that was taken back is none.</summary>
    public static IReadOnlyDictionary<WorkId, Instant> FirstIn(IDbConnection c, ClassId id) => c.Query<(long, Instant)>(
        "SELECT work_id, min(handed_in_at) FROM work_turn WHERE class_id = @id AND taken_back_at IS NULL GROUP BY work_id", new { id }).ToDictionary(x => new WorkId(x.Item1), x => x.Item2);

    /// <summary>Files as they were handed in, of one piece of work.</summary>
    public static IReadOnlyList<TurnFileRow> FilesOfTurns(IDbConnection c, WorkId work) => [.. c.Query<TurnFileRow>($"{TurnFiles} WHERE t.work_id = @work ORDER BY t.handed_in_at, t.id, f.position", new { work })];

    /// <summary>The same of all work of a class.</summary>
    public static ILookup<WorkId, TurnFileRow> FilesOfTurns(IDbConnection c, ClassId id) => c.Query<TurnFileRow>($"{TurnFiles} WHERE t.class_id = @id ORDER BY t.handed_in_at, t.id, f.position", new { id }).ToLookup(f => f.WorkId);

    /// <summary>Files of all work of a class.</summary>
    public static ILookup<WorkId, WorkFileRow> FilesOfClass(IDbConnection c, ClassId id) => c.Query<WorkFileRow>(
        """
        SELECT f.id, f.work_id, f.name, f.sha256, b.sha512, b.size, f.added_at, f.url
        FROM work_file f JOIN work w ON w.id = f.work_id JOIN blob b ON b.sha256 = f.sha256 WHERE w.class_id = @id ORDER BY f.id
        """, new { id }).ToLookup(f => f.WorkId);

    /// <summary>Files of one piece of work.</summary>
    public static IReadOnlyList<WorkFileRow> Files(IDbConnection c, WorkId work) => [.. c.Query<WorkFileRow>(
        "SELECT f.id, f.work_id, f.name, f.sha256, b.sha512, b.size, f.added_at, f.url FROM work_file f JOIN blob b ON b.sha256 = f.sha256 WHERE f.work_id = @work ORDER BY f.id", new { work })];

    /// <summary>Adds a file; its blob is noted before.</summary>
    /// <param name="url">Where it leads, of a link.</param>
    public static long AddFile(IDbConnection c, WorkId work, string name, string sha256, PersonId by, Instant at, string? url = null) => c.ExecuteScalar<long>(
        "INSERT INTO work_file(work_id, name, sha256, added_by, added_at, url) VALUES(@work, @name, @sha256, @by, @at, @url) RETURNING id", new { work, name, sha256, by, at, url });

    /// <summary>Puts other bytes in the place of a file's, where they are those that were seen; false if they are not.</summary>
    public static bool Replace(IDbConnection c, WorkId work, long file, string name, string seen, string sha256, Instant at) => c.Execute(
        "UPDATE work_file SET name = @name, sha256 = @sha256, added_at = @at WHERE id = @file AND work_id = @work AND sha256 = @seen", new { work, file, name, seen, sha256, at }) == 1;

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
