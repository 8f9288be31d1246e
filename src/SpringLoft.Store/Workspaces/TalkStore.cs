using SpringLoft.Core.Workspaces;

namespace SpringLoft.Store.Workspaces;

/// <summary>A place to talk.</summary>
public sealed record TalkRow
{
    public FolderId FolderId { get; init; }
    public TalkWriters Writers { get; init; }
    public GroupId? GroupId { get; init; }
    public string? Question { get; init; }
    public Instant? ClosedAt { get; init; }
    public int Version { get; init; }
    public TalkFact Fact => new(Writers, GroupId, ClosedAt is not null);
}

/// <summary>A message.</summary>
public sealed record TalkMessageRow
{
    public long Id { get; init; }
    public FolderId FolderId { get; init; }
    public PersonId AuthorId { get; init; }
    public string Author { get; init; } = "";
    public string Text { get; init; } = "";
    public long? Answers { get; init; }
    public Instant At { get; init; }
    public LocalDate Day { get; init; }
    public Instant? HiddenAt { get; init; }
    public string? HiddenBy { get; init; }
    public string? HiddenWhy { get; init; }
}

/// <summary>Owns talk, talk_message, talk_reader and talk_quiet.</summary>
public static class TalkStore
{
    private const string Place = "SELECT folder_id, writers, group_id, question, closed_at, version FROM talk";

    private const string Messages =
        """
        SELECT m.id, m.folder_id, m.author_id, trim(p.given || ' ' || p.family) AS author, m.text, m.answers, m.at, m.day, m.hidden_at, trim(h.given || ' ' || h.family) AS hidden_by, m.hidden_why
        FROM talk_message m JOIN person p ON p.id = m.author_id LEFT JOIN person h ON h.id = m.hidden_by
        """;

    /// <summary>The places of a class.</summary>
    public static IReadOnlyList<TalkRow> OfClass(IDbConnection c, ClassId id) => [.. c.Query<TalkRow>($"{Place} WHERE class_id = @id ORDER BY folder_id", new { id })];

    /// <summary>The place that a folder is; null if it is none.</summary>
    public static TalkRow? Find(IDbConnection c, FolderId folder) => c.QuerySingleOrDefault<TalkRow>($"{Place} WHERE folder_id = @folder", new { folder });

    /// <summary>Makes a folder a place to talk, or changes how it is one, at the version that was seen (0 for none yet); false if changed meanwhile.</summary>
    public static bool Put(IDbConnection c, ClassId id, TalkRow t) => c.Execute(
        """
        INSERT INTO talk(folder_id, class_id, writers, group_id, question, closed_at) SELECT @FolderId, @id, @writers, @GroupId, @Question, @ClosedAt WHERE @Version = 0
        ON CONFLICT DO NOTHING
        """, new { id, t.FolderId, writers = t.Writers.ToString(), t.GroupId, t.Question, t.ClosedAt, t.Version }) == 1
        || c.Execute("UPDATE talk SET writers = @writers, group_id = @GroupId, question = @Question, closed_at = @ClosedAt, version = version + 1 WHERE folder_id = @FolderId AND version = @Version",
            new { t.FolderId, writers = t.Writers.ToString(), t.GroupId, t.Question, t.ClosedAt, t.Version }) == 1;

    /// <summary>The newest messages of a place before one of them, the oldest of these first.</summary>
    /// <param name="before">The number of a message; null for the newest of all.</param>
    public static IReadOnlyList<TalkMessageRow> Newest(IDbConnection c, FolderId folder, long? before, int most) =>
        [.. c.Query<TalkMessageRow>($"{Messages} WHERE m.folder_id = @folder AND m.id < @before ORDER BY m.id DESC LIMIT @most", new { folder, before = before ?? long.MaxValue, most }).Reverse()];

    /// <summary>How many messages of a place there are before one of them.</summary>
    public static int CountBefore(IDbConnection c, FolderId folder, long before) => c.ExecuteScalar<int>("SELECT count(*) FROM talk_message WHERE folder_id = @folder AND id < @before", new { folder, before });

    /// <summary>All messages of a class, the oldest first.</summary>
    public static IReadOnlyList<TalkMessageRow> AllOf(IDbConnection c, ClassId id) => [.. c.Query<TalkMessageRow>($"{Messages} WHERE m.class_id = @id ORDER BY m.id", new { id })];

    /// <summary>What was written in a class since a moment, the oldest first; what is hidden is left out.</summary>
    public static IReadOnlyList<TalkMessageRow> Since(IDbConnection c, ClassId id, Instant since) => [.. c.Query<TalkMessageRow>($"{Messages} WHERE m.class_id = @id AND m.at > @since AND m.hidden_at IS NULL ORDER BY m.id", new { id, since })];

    /// <summary>One message of a place; null if there is no such.</summary>
    public static TalkMessageRow? Message(IDbConnection c, FolderId folder, long id) => c.QuerySingleOrDefault<TalkMessageRow>($"{Messages} WHERE m.folder_id = @folder AND m.id = @id", new { folder, id });

    /// <summary>Writes a message.</summary>
    public static long Add(IDbConnection c, ClassId id, FolderId folder, PersonId author, string text, long? answers, Instant at, LocalDate day) => c.ExecuteScalar<long>(
        "INSERT INTO talk_message(class_id, folder_id, author_id, text, answers, at, day) VALUES(@id, @folder, @author, @text, @answers, @at, @day) RETURNING id", new { id, folder, author, text, answers, at, day });

    /// <summary>Hides a message, or shows it again; what it says stays on record.</summary>
    public static void Hide(IDbConnection c, long message, Instant? at, PersonId? by, string? why) => c.Execute("UPDATE talk_message SET hidden_at = @at, hidden_by = @by, hidden_why = @why WHERE id = @message", new { message, at, by, why });

    /// <summary>Who wrote in a place on a day, and when first; what is hidden is no answer.</summary>
    public static IReadOnlyDictionary<PersonId, Instant> WroteOn(IDbConnection c, FolderId folder, LocalDate day) => c.Query<(long, Instant)>(
        "SELECT author_id, min(at) FROM talk_message WHERE folder_id = @folder AND day = @day AND hidden_at IS NULL GROUP BY author_id", new { folder, day }).ToDictionary(x => new PersonId(x.Item1), x => x.Item2);

    /// <summary>Students of a class who only read.</summary>
    public static IReadOnlySet<PersonId> Readers(IDbConnection c, ClassId id) => c.Query<long>("SELECT person_id FROM talk_reader WHERE class_id = @id", new { id }).Select(p => new PersonId(p)).ToHashSet();

    /// <summary>Lets a student only read, or write again.</summary>
    public static void SetReader(IDbConnection c, ClassId id, PersonId person, bool only) => c.Execute(only
        ? "INSERT INTO talk_reader(class_id, person_id) VALUES(@id, @person) ON CONFLICT DO NOTHING" : "DELETE FROM talk_reader WHERE class_id = @id AND person_id = @person", new { id, person });

    /// <summary>Do all students of a class only read?</summary>
    public static bool IsQuiet(IDbConnection c, ClassId id) => c.ExecuteScalar<bool>("SELECT EXISTS (SELECT 1 FROM talk_quiet WHERE class_id = @id)", new { id });

    /// <summary>Lets all students of a class only read, or write again.</summary>
    public static void SetQuiet(IDbConnection c, ClassId id, bool quiet, Instant at) => c.Execute(quiet
        ? "INSERT INTO talk_quiet(class_id, since) VALUES(@id, @at) ON CONFLICT DO NOTHING" : "DELETE FROM talk_quiet WHERE class_id = @id", new { id, at });
}
