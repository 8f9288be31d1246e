using SpringLoft.Core.Workspaces;

namespace SpringLoft.Store.Workspaces;

/// <summary>A notice.</summary>
public sealed record NoticeRow
{
    public long Id { get; init; }
    public PersonId AuthorId { get; init; }
    public string Author { get; init; } = "";
    public string Text { get; init; } = "";
    public bool ForSchool { get; init; }
    public Instant MadeAt { get; init; }
    public Instant? PostAt { get; init; }
    public Instant? PostedAt { get; init; }
    public LocalDate? PinnedUntil { get; init; }
    public Instant? ChangedAt { get; init; }
    public Instant? WithdrawnAt { get; init; }
    public int Version { get; init; }

    /// <summary>In the class by which it was asked for, the group that it is for; null for all.</summary>
    public GroupId? GroupId { get; init; }

    /// <summary>As the rules see it.</summary>
    public NoticeFact Fact => new(PostedAt, WithdrawnAt is not null, PinnedUntil, GroupId);
}

/// <summary>A class in which a notice stands.</summary>
public sealed record NoticePlaceRow
{
    public long NoticeId { get; init; }
    public ClassId ClassId { get; init; }
    public string ClassName { get; init; } = "";
    public GroupId? GroupId { get; init; }
    public string? GroupName { get; init; }
}

/// <summary>Somebody whom a notice is for.</summary>
public sealed record NoticeReaderRow
{
    public PersonId PersonId { get; init; }
    public string Given { get; init; } = "";
    public string Family { get; init; } = "";
    public string ClassName { get; init; } = "";
    public Instant? SeenAt { get; init; }
}

/// <summary>Owns notice, notice_class and notice_seen.</summary>
public static class NoticeStore
{
    private const string Columns =
        "n.id, n.author_id, p.given || ' ' || p.family AS author, n.text, n.for_school, n.made_at, n.post_at, n.posted_at, n.pinned_until, n.changed_at, n.withdrawn_at, n.version";

    // Whom a notice is for: students on the roster now, of the group where it is for one; each once, by the first class by name.
    private const string Readers =
        """
        SELECT m.person_id, min(k.name) AS class_name FROM notice_class x JOIN class k ON k.id = x.class_id JOIN member m ON m.class_id = x.class_id
        WHERE x.notice_id = @notice AND m.role = 'Student' AND m.left_at IS NULL
          AND (x.group_id IS NULL OR EXISTS (SELECT 1 FROM group_member g JOIN class_group o ON o.id = g.group_id WHERE g.group_id = x.group_id AND g.person_id = m.person_id AND o.binned_at IS NULL))
        GROUP BY m.person_id
        """;

    /// <summary>Adds a notice that stands in some classes; posted at once, or when its moment comes.</summary>
    public static long Add(IDbConnection c, NoticeRow n, IEnumerable<(ClassId Class, GroupId? Group)> places)
    {
        var id = c.ExecuteScalar<long>(
            "INSERT INTO notice(author_id, text, for_school, made_at, post_at, posted_at, pinned_until) VALUES(@AuthorId, @Text, @ForSchool, @MadeAt, @PostAt, @PostedAt, @PinnedUntil) RETURNING id",
            new { n.AuthorId, n.Text, n.ForSchool, n.MadeAt, n.PostAt, n.PostedAt, n.PinnedUntil });
        foreach (var (k, group) in places) c.Execute("INSERT INTO notice_class(notice_id, class_id, group_id) VALUES(@id, @k, @group)", new { id, k, group });
        return id;
    }

    /// <summary>One; null if there is no such.</summary>
    public static NoticeRow? Find(IDbConnection c, long id) => c.QuerySingleOrDefault<NoticeRow>($"SELECT {Columns} FROM notice n JOIN person p ON p.id = n.author_id WHERE n.id = @id", new { id });

    /// <summary>Notices of a class, withdrawn ones too, newest first; what is not posted yet before all others.</summary>
    public static IReadOnlyList<NoticeRow> OfClass(IDbConnection c, ClassId id) => [.. c.Query<NoticeRow>(
        $"SELECT {Columns}, x.group_id FROM notice_class x JOIN notice n ON n.id = x.notice_id JOIN person p ON p.id = n.author_id WHERE x.class_id = @id ORDER BY n.posted_at IS NOT NULL, n.posted_at DESC, n.id DESC", new { id })];

    /// <summary>How many notices a class has.</summary>
    public static int CountOf(IDbConnection c, ClassId id) => c.ExecuteScalar<int>("SELECT count(*) FROM notice_class WHERE class_id = @id", new { id });

    /// <summary>What was told to the whole school since a moment, or is pinned still, newest first.</summary>
    public static IReadOnlyList<NoticeRow> OfSchool(IDbConnection c, Instant since, LocalDate today) => [.. c.Query<NoticeRow>(
        $"SELECT {Columns} FROM notice n JOIN person p ON p.id = n.author_id WHERE n.for_school = 1 AND n.withdrawn_at IS NULL AND n.posted_at IS NOT NULL AND (n.posted_at > @since OR n.pinned_until >= @today) ORDER BY n.posted_at DESC, n.id DESC", new { since, today })];

    /// <summary>Notices that stand in any of these classes, and those to the school if asked for, newest first.</summary>
    public static IReadOnlyList<NoticeRow> OfClasses(IDbConnection c, IEnumerable<ClassId> classes, bool school, int most) => [.. c.Query<NoticeRow>(
        $"""
        SELECT {Columns} FROM notice n JOIN person p ON p.id = n.author_id
        WHERE (@school = 1 AND n.for_school = 1) OR n.id IN (SELECT notice_id FROM notice_class WHERE class_id IN (SELECT value FROM json_each(@ids)))
        ORDER BY n.made_at DESC, n.id DESC LIMIT @most
        """, new { school, most, ids = $"[{string.Join(',', classes.Select(k => k.Value))}]" })];

    /// <summary>Where notices stand, by name.</summary>
    public static ILookup<long, NoticePlaceRow> Places(IDbConnection c, IEnumerable<long> notices) => c.Query<NoticePlaceRow>(
        """
        SELECT x.notice_id, x.class_id, k.name AS class_name, x.group_id, g.name AS group_name
        FROM notice_class x JOIN class k ON k.id = x.class_id LEFT JOIN class_group g ON g.id = x.group_id
        WHERE x.notice_id IN (SELECT value FROM json_each(@ids)) ORDER BY k.name_key
        """, new { ids = $"[{string.Join(',', notices)}]" }).ToLookup(x => x.NoticeId);

    /// <summary>Whom it is for, and since when they have seen it; nobody by name for one to the school.</summary>
    public static IReadOnlyList<NoticeReaderRow> ReadersOf(IDbConnection c, long notice) => [.. c.Query<NoticeReaderRow>(
        $"""
        SELECT r.person_id, p.given, p.family, r.class_name, s.at AS seen_at FROM ({Readers}) r JOIN person p ON p.id = r.person_id
        LEFT JOIN notice_seen s ON s.notice_id = @notice AND s.person_id = r.person_id ORDER BY s.at IS NOT NULL, p.family_key, p.given_key
        """, new { notice })];

    /// <summary>For how many it is, and how many of them have seen it.</summary>
    public static (int For, int Seen) Reach(IDbConnection c, long notice) => c.QuerySingle<(int, int)>(
        $"SELECT count(*), count(s.person_id) FROM ({Readers}) r LEFT JOIN notice_seen s ON s.notice_id = @notice AND s.person_id = r.person_id", new { notice });

    /// <summary>How many people have seen it, whoever they are.</summary>
    public static int SeenBy(IDbConnection c, long notice) => c.ExecuteScalar<int>("SELECT count(*) FROM notice_seen WHERE notice_id = @notice", new { notice });

    /// <summary>Notes that somebody had notices in view; the first time counts.</summary>
    public static void See(IDbConnection c, PersonId person, IEnumerable<long> notices, Instant at)
    {
        foreach (var notice in notices) c.Execute("INSERT INTO notice_seen(notice_id, person_id, at) VALUES(@notice, @person, @at) ON CONFLICT DO NOTHING", new { notice, person, at });
    }

    /// <summary>Changes what it says and until when it is pinned, at the version that was seen; false if changed meanwhile.</summary>
    public static bool Save(IDbConnection c, NoticeRow n) => c.Execute(
        "UPDATE notice SET text = @Text, pinned_until = @PinnedUntil, post_at = @PostAt, changed_at = @ChangedAt, version = version + 1 WHERE id = @Id AND version = @Version AND withdrawn_at IS NULL",
        new { n.Id, n.Version, n.Text, n.PinnedUntil, n.PostAt, n.ChangedAt }) == 1;

    /// <summary>Withdraws at the version that was seen; false if changed meanwhile.</summary>
    public static bool Withdraw(IDbConnection c, long id, int version, PersonId by, Instant at) => c.Execute(
        "UPDATE notice SET withdrawn_at = @at, withdrawn_by = @by, post_at = NULL, version = version + 1 WHERE id = @id AND version = @version AND withdrawn_at IS NULL", new { id, version, by, at }) == 1;

    /// <summary>Notices whose moment has come, the oldest first; of those none of whose classes is changed any more, none.</summary>
    public static IReadOnlyList<NoticeRow> Ripe(IDbConnection c, Instant now) => [.. c.Query<NoticeRow>(
        $"""
        SELECT {Columns} FROM notice n JOIN person p ON p.id = n.author_id WHERE n.post_at <= @now AND n.posted_at IS NULL AND n.withdrawn_at IS NULL
          AND (n.for_school = 1 OR EXISTS (SELECT 1 FROM notice_class x JOIN class k ON k.id = x.class_id WHERE x.notice_id = n.id AND k.state <> 'Archived')) ORDER BY n.post_at, n.id
        """, new { now })];

    /// <summary>Posts it; false if it is posted already.</summary>
    public static bool Post(IDbConnection c, long id, Instant at) => c.Execute(
        "UPDATE notice SET posted_at = @at, post_at = NULL, version = version + 1 WHERE id = @id AND posted_at IS NULL AND withdrawn_at IS NULL", new { id, at }) == 1;
}
