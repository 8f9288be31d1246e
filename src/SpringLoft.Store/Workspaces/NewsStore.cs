using SpringLoft.Core.Workspaces;

namespace SpringLoft.Store.Workspaces;

/// <summary>How somebody has their news.</summary>
public sealed record NewsReaderRow
{
    public PersonId PersonId { get; init; }
    public Instant? SeenAt { get; init; }
    public bool Letter { get; init; }
    public LocalDate? LetterOn { get; init; }
    public Instant? LetterAt { get; init; }
}

/// <summary>Somebody's comment on a piece of work.</summary>
public sealed record NewsCommentRow
{
    public AssignmentId AssignmentId { get; init; }
    public string Title { get; init; } = "";
    public PersonId StudentId { get; init; }
    public PersonId AuthorId { get; init; }
    public string Author { get; init; } = "";
    public Instant At { get; init; }
}

/// <summary>A message, with whom it answers.</summary>
public sealed record NewsMessageRow
{
    public FolderId FolderId { get; init; }
    public string Folder { get; init; } = "";
    public PersonId AuthorId { get; init; }
    public string Author { get; init; } = "";
    public string Text { get; init; } = "";
    public Instant At { get; init; }

    /// <summary>Who wrote what it answers; null where it answers nothing.</summary>
    public PersonId? AnswersWhom { get; init; }
}

/// <summary>A run at its end.</summary>
public sealed record NewsRunRow
{
    public RunId Id { get; init; }
    public Runs.RunKind Kind { get; init; }
    public bool Failed { get; init; }
    public Instant EndedAt { get; init; }
    public int Classes { get; init; }
    public int Done { get; init; }
}

/// <summary>Owns news_reader and news_quiet; reads what happened since a moment.</summary>
public static class NewsStore
{
    private const string Reader = "SELECT person_id, seen_at, letter, letter_on, letter_at FROM news_reader";

    /// <summary>How somebody has them; as nobody said yet where there is nothing.</summary>
    public static NewsReaderRow Of(IDbConnection c, PersonId person) => c.QuerySingleOrDefault<NewsReaderRow>($"{Reader} WHERE person_id = @person", new { person }) ?? new() { PersonId = person };

    /// <summary>Kinds that somebody does not want to be told.</summary>
    public static IReadOnlySet<NewsKind> Quiet(IDbConnection c, PersonId person) => c.Query<string>("SELECT kind FROM news_quiet WHERE person_id = @person", new { person }).Select(Enum.Parse<NewsKind>).ToHashSet();

    /// <summary>Has seen all up to a moment; an earlier one takes nothing back.</summary>
    public static void See(IDbConnection c, PersonId person, Instant upTo) => c.Execute(
        "INSERT INTO news_reader(person_id, seen_at) VALUES(@person, @upTo) ON CONFLICT DO UPDATE SET seen_at = max(coalesce(seen_at, ''), @upTo)", new { person, upTo });

    /// <summary>Sets what is told, and whether by letter too.</summary>
    public static void Set(IDbConnection c, PersonId person, IEnumerable<NewsKind> quiet, bool letter)
    {
        c.Execute("INSERT INTO news_reader(person_id, letter) VALUES(@person, @letter) ON CONFLICT DO UPDATE SET letter = @letter", new { person, letter });
        c.Execute("DELETE FROM news_quiet WHERE person_id = @person", new { person });
        foreach (var kind in quiet.Distinct()) c.Execute("INSERT INTO news_quiet(person_id, kind) VALUES(@person, @kind)", new { person, kind = kind.ToString() });
    }

    /// <summary>Who wants a letter and has had none on this day.</summary>
    public static IReadOnlyList<PersonId> WantLetter(IDbConnection c, LocalDate day) => [.. c.Query<PersonId>(
        "SELECT r.person_id FROM news_reader r JOIN person p ON p.id = r.person_id WHERE r.letter = 1 AND (r.letter_on IS NULL OR r.letter_on < @day) AND p.active = 1 AND p.email IS NOT NULL ORDER BY r.person_id", new { day })];

    /// <summary>A letter of a day was written, or there was nothing to write.</summary>
    public static void Wrote(IDbConnection c, PersonId person, LocalDate day, Instant upTo) =>
        c.Execute("UPDATE news_reader SET letter_on = @day, letter_at = @upTo WHERE person_id = @person", new { person, day, upTo });

    /// <summary>Comments on the work of a class since a moment, the oldest first.</summary>
    public static IReadOnlyList<NewsCommentRow> Comments(IDbConnection c, ClassId id, Instant since) => [.. c.Query<NewsCommentRow>(
        """
        SELECT w.assignment_id, a.title, w.student_id, m.author_id, trim(p.given || ' ' || p.family) AS author, m.at FROM work w
        JOIN work_comment m ON m.work_id = w.id JOIN assignment a ON a.id = w.assignment_id JOIN person p ON p.id = m.author_id
        WHERE w.class_id = @id AND m.at > @since AND a.binned_at IS NULL ORDER BY m.id
        """, new { id, since })];

    /// <summary>What was written in the places of a class since a moment, but for what is hidden.</summary>
    public static IReadOnlyList<NewsMessageRow> Messages(IDbConnection c, ClassId id, Instant since) => [.. c.Query<NewsMessageRow>(
        """
        SELECT m.folder_id, f.name AS folder, m.author_id, trim(p.given || ' ' || p.family) AS author, m.text, m.at, o.author_id AS answers_whom
        FROM talk_message m JOIN folder f ON f.id = m.folder_id JOIN person p ON p.id = m.author_id LEFT JOIN talk_message o ON o.id = m.answers
        WHERE m.class_id = @id AND m.at > @since AND m.hidden_at IS NULL AND f.binned_at IS NULL ORDER BY m.id
        """, new { id, since })];

    /// <summary>Runs of somebody's that ended since a moment.</summary>
    public static IReadOnlyList<NewsRunRow> Runs(IDbConnection c, PersonId by, Instant since) => [.. c.Query<NewsRunRow>(
        """
        SELECT r.id, r.kind, r.state <> 'Done' AS failed, r.ended_at, (SELECT count(*) FROM run_class k WHERE k.run_id = r.id) AS classes, (SELECT count(*) FROM run_class k WHERE k.run_id = r.id AND k.state = 'Done') AS done
        FROM run r WHERE r.started_by = @by AND r.ended_at > @since ORDER BY r.id
        """, new { by, since })];
}
