using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Sealing;

namespace SpringLoft.Store.Workspaces;

/// <summary>Something of a class that asks to be acknowledged.</summary>
public sealed record AskingRow
{
    public long Id { get; init; }
    public ItemId? ItemId { get; init; }
    public long? NoticeId { get; init; }
    public AskedOf AskedOf { get; init; }
    public LocalDate? Until { get; init; }
    public PersonId AskedBy { get; init; }
    public string AskedByName { get; init; } = "";
    public Instant AskedAt { get; init; }
    public int Wording { get; init; }

    /// <summary>What it is: of a notice, its text.</summary>
    public string Title { get; init; } = "";

    /// <summary>Null for a notice.</summary>
    public ItemKind? Kind { get; init; }

    /// <summary>When what it says was changed last; null if never.</summary>
    public Instant? ChangedAt { get; init; }

    /// <summary>Of a notice, in the class by which it was asked for: the group that it is for.</summary>
    public GroupId? GroupId { get; init; }

    /// <summary>Of a notice: is it posted?</summary>
    public bool Posted { get; init; }
}

/// <summary>What one student, and their home, said to it.</summary>
public sealed record AcknowledgedRow
{
    public long AskingId { get; init; }
    public PersonId PersonId { get; init; }
    public Instant? OwnAt { get; init; }
    public int? OwnWording { get; init; }
    public Instant? HomeAt { get; init; }
    public string? HomeName { get; init; }
    public int? HomeWording { get; init; }
    public PersonId? HomeNotedBy { get; init; }
    public Instant? RemindedAt { get; init; }

    /// <summary>As the rules see it.</summary>
    public AcknowledgedFact Fact => new(OwnWording, HomeWording);
}

/// <summary>Owns asking and acknowledged.</summary>
public static class AskingStore
{
    private const string Columns = "a.id, a.item_id, a.notice_id, a.asked_of, a.until, a.asked_by, p.given || ' ' || p.family AS asked_by_name, a.asked_at, a.wording";
    private const string Said = "asking_id, person_id, own_at, own_wording, home_at, home_name, home_wording, home_noted_by, reminded_at";

    // What is in the bin, and what was withdrawn, asks nobody.
    private static readonly string Standing =
        $"""
        SELECT {Columns}, i.name AS title, i.kind, i.changed_at, NULL AS group_id, 1 AS posted, i.class_id FROM asking a JOIN person p ON p.id = a.asked_by JOIN item i ON i.id = a.item_id WHERE i.binned_at IS NULL AND a.ended_at IS NULL
        UNION ALL
        SELECT {Columns}, n.text, NULL, n.changed_at, x.group_id, n.posted_at IS NOT NULL, x.class_id FROM asking a JOIN person p ON p.id = a.asked_by JOIN notice n ON n.id = a.notice_id JOIN notice_class x ON x.notice_id = n.id WHERE n.withdrawn_at IS NULL AND a.ended_at IS NULL
        """;

    /// <summary>All that asks in a class, the newest first.</summary>
    public static IReadOnlyList<AskingRow> OfClass(IDbConnection c, ClassId id) => [.. c.Query<AskingRow>($"SELECT * FROM ({Standing}) WHERE class_id = @id ORDER BY asked_at DESC, id DESC", new { id })];

    /// <summary>One of a class; null if there is none there.</summary>
    public static AskingRow? Find(IDbConnection c, ClassId id, long asking) => c.QuerySingleOrDefault<AskingRow>($"SELECT * FROM ({Standing}) WHERE class_id = @id AND id = @asking", new { id, asking });

    /// <summary>What a thing asks; null where it asks nothing.</summary>
    public static long? OfItem(IDbConnection c, ItemId item) => c.ExecuteScalar<long?>("SELECT id FROM asking WHERE item_id = @item AND ended_at IS NULL", new { item });

    /// <summary>What a thing asks, of whom and until when; null where it asks nothing.</summary>
    public static (AskedOf Of, LocalDate? Until)? AsksOf(IDbConnection c, ItemId item) => c.QuerySingleOrDefault<AskingRow>("SELECT asked_of, until FROM asking WHERE item_id = @item AND ended_at IS NULL", new { item }) is { } a ? (a.AskedOf, a.Until) : null;

    /// <summary>What notices ask, by notice.</summary>
    public static IReadOnlyDictionary<long, (AskedOf Of, LocalDate? Until)> OfNotices(IDbConnection c, IEnumerable<long> notices) => c.Query<(long, string, LocalDate?)>(
        "SELECT notice_id, asked_of, until FROM asking WHERE ended_at IS NULL AND notice_id IN (SELECT value FROM json_each(@ids))", new { ids = $"[{string.Join(',', notices)}]" }).ToDictionary(x => x.Item1, x => (Enum.Parse<AskedOf>(x.Item2), x.Item3));

    /// <summary>Has a thing ask, or changes of whom and until when it does.</summary>
    public static long AskItem(IDbConnection c, ItemId item, AskedOf of, LocalDate? until, PersonId by, Instant at) => c.ExecuteScalar<long>(
        "INSERT INTO asking(item_id, asked_of, until, asked_by, asked_at) VALUES(@item, @of, @until, @by, @at) ON CONFLICT(item_id) DO UPDATE SET asked_of = @of, until = @until, ended_at = NULL RETURNING id", new { item, of = of.ToString(), until, by, at });

    /// <summary>The same of a notice.</summary>
    public static long AskNotice(IDbConnection c, long notice, AskedOf of, LocalDate? until, PersonId by, Instant at) => c.ExecuteScalar<long>(
        "INSERT INTO asking(notice_id, asked_of, until, asked_by, asked_at) VALUES(@notice, @of, @until, @by, @at) ON CONFLICT(notice_id) DO UPDATE SET asked_of = @of, until = @until, ended_at = NULL RETURNING id", new { notice, of = of.ToString(), until, by, at });

    /// <summary>Has it ask no more; what was said stays, and counts again once it asks again.</summary>
    public static void End(IDbConnection c, long asking, Instant at) => c.Execute("UPDATE asking SET ended_at = @at WHERE id = @asking AND ended_at IS NULL", new { asking, at });

    /// <summary>Has a notice ask no more.</summary>
    public static void EndOfNotice(IDbConnection c, long notice, Instant at) => c.Execute("UPDATE asking SET ended_at = @at WHERE notice_id = @notice AND ended_at IS NULL", new { notice, at });

    /// <summary>All that was ever asked and said in a class, also of what asks no more or is binned: for its package.</summary>
    public static IReadOnlyList<(AskingRow Asking, AcknowledgedRow? Said)> AllOf(IDbConnection c, ClassId id) => [.. c.Query<AskingRow, AcknowledgedRow?, (AskingRow, AcknowledgedRow?)>(
        $"""
        SELECT {Columns}, coalesce(i.name, n.text) AS title, i.kind, s.asking_id, s.person_id, s.own_at, s.own_wording, s.home_at, s.home_name, s.home_wording, s.home_noted_by
        FROM asking a JOIN person p ON p.id = a.asked_by LEFT JOIN item i ON i.id = a.item_id LEFT JOIN notice n ON n.id = a.notice_id
        LEFT JOIN acknowledged s ON s.asking_id = a.id AND s.person_id IN (SELECT person_id FROM member WHERE class_id = @id)
        WHERE i.class_id = @id OR a.notice_id IN (SELECT notice_id FROM notice_class WHERE class_id = @id) ORDER BY a.id, s.person_id
        """, (a, s) => (a, s), new { id }, splitOn: "asking_id")];

    /// <summary>Asks anew: what was said before does not count any more.</summary>
    /// <param name="times">How many wordings further.</param>
    public static void Anew(IDbConnection c, long asking, Instant at, int times = 1) => c.Execute("UPDATE asking SET wording = wording + @times, asked_at = @at WHERE id = @asking", new { asking, at, times });

    /// <summary>What was said to several, by whom.</summary>
    public static ILookup<long, AcknowledgedRow> SaidTo(IDbConnection c, IEnumerable<long> askings) =>
        c.Query<AcknowledgedRow>($"SELECT {Said} FROM acknowledged WHERE asking_id IN (SELECT value FROM json_each(@ids))", new { ids = $"[{string.Join(',', askings)}]" }).ToLookup(a => a.AskingId);

    /// <summary>What a student and their home said to it; null for nothing.</summary>
    public static AcknowledgedRow? SaidBy(IDbConnection c, long asking, PersonId person) => c.QuerySingleOrDefault<AcknowledgedRow>($"SELECT {Said} FROM acknowledged WHERE asking_id = @asking AND person_id = @person", new { asking, person });

    /// <summary>A student says so; the first moment of a wording stays.</summary>
    public static void SayOwn(IDbConnection c, long asking, PersonId person, int wording, Instant at) => c.Execute(
        """
        INSERT INTO acknowledged(asking_id, person_id, own_at, own_wording) VALUES(@asking, @person, @at, @wording)
        ON CONFLICT DO UPDATE SET own_at = @at, own_wording = @wording WHERE own_wording IS NULL OR own_wording < @wording
        """, new { asking, person, wording, at });

    /// <summary>Somebody at home says so; the first of a wording stays.</summary>
    /// <param name="noted">Staff who noted a signed paper.</param>
    /// <returns>False if it was said already.</returns>
    public static bool SayHome(IDbConnection c, long asking, PersonId person, int wording, string name, PersonId? noted, Instant at) => c.Execute(
        """
        INSERT INTO acknowledged(asking_id, person_id, home_at, home_name, home_wording, home_noted_by) VALUES(@asking, @person, @at, @name, @wording, @noted)
        ON CONFLICT DO UPDATE SET home_at = @at, home_name = @name, home_wording = @wording, home_noted_by = @noted WHERE home_wording IS NULL OR home_wording < @wording
        """, new { asking, person, wording, name, noted, at }) == 1;

    /// <summary>Takes back what staff noted by mistake; what came by a code stays.</summary>
    public static bool TakeBackNoted(IDbConnection c, long asking, PersonId person) => c.Execute(
        "UPDATE acknowledged SET home_at = NULL, home_name = NULL, home_wording = NULL, home_noted_by = NULL WHERE asking_id = @asking AND person_id = @person AND home_noted_by IS NOT NULL", new { asking, person }) == 1;

    /// <summary>A student was reminded.</summary>
    public static void Remind(IDbConnection c, long asking, PersonId person, Instant at) => c.Execute(
        "INSERT INTO acknowledged(asking_id, person_id, reminded_at) VALUES(@asking, @person, @at) ON CONFLICT DO UPDATE SET reminded_at = @at", new { asking, person, at });

    /// <summary>The code of a student's home, if it has one that can be opened.</summary>
    public static string? CodeOf(IDbConnection c, long asking, PersonId person) => c.ExecuteScalar<string?>("SELECT unseal(code) FROM acknowledged WHERE asking_id = @asking AND person_id = @person", new { asking, person });

    /// <summary>Gives a student's home a code; the one it had is dead.</summary>
    public static void SetCode(IDbConnection c, long asking, PersonId person, string code) => c.Execute(
        "INSERT INTO acknowledged(asking_id, person_id, code, code_digest) VALUES(@asking, @person, seal(@code), @digest) ON CONFLICT DO UPDATE SET code = seal(@code), code_digest = @digest",
        new { asking, person, code, digest = SealedColumns.Digest(code) });

    /// <summary>Which student's home a code is for, and what it is about; null for a code that is none.</summary>
    public static (long Asking, PersonId Person)? ByCode(IDbConnection c, string code) =>
        c.QuerySingleOrDefault<(long Asking, long Person)?>("SELECT asking_id, person_id FROM acknowledged WHERE code_digest = @digest", new { digest = SealedColumns.Digest(code) }) is { } x ? (x.Asking, new PersonId(x.Person)) : null;

    /// <summary>Classes in which a thing or a notice stands.</summary>
    public static IReadOnlyList<ClassId> ClassesOf(IDbConnection c, long asking) => [.. c.Query<ClassId>($"SELECT class_id FROM ({Standing}) WHERE id = @asking ORDER BY class_id", new { asking })];
}
