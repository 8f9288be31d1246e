using System.Security.Cryptography;
using SpringLoft.Core.Audit;

namespace SpringLoft.Store.Audit;

/// <summary>One line of the audit trail.</summary>
public sealed record AuditRow
{
    public long Id { get; init; }
    public Instant At { get; init; }
    public PersonId? PersonId { get; init; }

    /// <summary>The name as it was; null for the program itself.</summary>
    public string? Who { get; init; }
    public string Act { get; init; } = "";
    public string Thing { get; init; } = "";
    public long? ThingId { get; init; }
    public ClassId? ClassId { get; init; }
    public string? ClassName { get; init; }
    public string Detail { get; init; } = "";

    /// <summary>The network address it was done from.</summary>
    public string? Address { get; init; }

    /// <summary>The sign-in in which it was done; it may have ended since.</summary>
    public long? SessionId { get; init; }
}

/// <summary>Which lines somebody looks for; null for no matter.</summary>
/// <param name="Text">In the name, the act or the words.</param>
/// <param name="Until">Only lines before this moment.</param>
public sealed record AuditSought(long? Before = null, ClassId? Class = null, PersonId? Person = null, string? Text = null, Instant? Until = null);

/// <summary>What was found when the chain was followed from its beginning to its end.</summary>
/// <param name="Lines">How many lines there are.</param>
/// <param name="LetGo">How many older ones were let go of by the school's rule.</param>
/// <param name="Erased">In how many a person's name was taken out.</param>
/// <param name="Wrong">The first line that is not as it was written, or that stands where another was; null if all are.</param>
/// <param name="CutOff">True if lines are missing at the end.</param>
/// <param name="LastHash">Of the newest line: written down elsewhere, it holds whoever could write the whole chain anew.</param>
public sealed record AuditChecked(long Lines, long LetGo, long Erased, long? Wrong, bool CutOff, string LastHash)
{
    /// <summary>True if every line is as it was written.</summary>
    public bool Whole => Wrong is null && !CutOff;
}

/// <summary>An answer that was given.</summary>
/// <param name="Print">Of what was asked: the digest of method, address and body.</param>
public sealed record KeptAnswer(string Print, long Status, string Body);

/// <summary>Owns audit, audit_chain and once. Lines are only ever added, each chained to the one before.</summary>
public static class AuditStore
{
    /// <summary>What a closing run writes when it has archived a class.</summary>
    public const string Archived = "archived class";

    private const string Chained = "id, at, person_id AS person, act, thing, thing_id, class_id AS class, address, session_id AS session";

    /// <summary>Adds a line, in the transaction of what it tells of.</summary>
    /// <returns>Its number.</returns>
    public static long Add(IDbConnection c, AuditRow line)
    {
        var (last, before) = c.QuerySingle<(long, string)>("SELECT last_id, last_hash FROM audit_chain");
        var salt = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(12));
        var at = Rows.Bulk.Text(line.At)!;
        var words = AuditChain.Words(salt, line.Who ?? "", line.Detail);
        var id = last + 1;
        var hash = AuditChain.Hash(before, new(id, at, line.PersonId?.Value, line.Act, line.Thing, line.ThingId, line.ClassId?.Value, line.Address, line.SessionId, words));
        c.Execute(
            """
            INSERT INTO audit(id, at, person_id, who, act, thing, thing_id, class_id, detail, address, session_id, salt, words, hash)
            VALUES(@id, @at, @PersonId, @Who, @Act, @Thing, @ThingId, @ClassId, @Detail, @Address, @SessionId, @salt, @words, @hash)
            """, new { id, at, line.PersonId, line.Who, line.Act, line.Thing, line.ThingId, line.ClassId, line.Detail, line.Address, line.SessionId, salt, words, hash });
        c.Execute("UPDATE audit_chain SET last_id = @id, last_hash = @hash", new { id, hash });
        return id;
    }

    /// <summary>The same for an act of a run, which knows only the number of whoever started it.</summary>
    public static long Add(IDbConnection c, Instant at, PersonId? who, string act, string thing, long? thingId, ClassId? classId, string detail) => Add(c, new AuditRow
    {
        At = at,
        PersonId = who,
        Who = who is null ? null : c.ExecuteScalar<string?>("SELECT trim(given || ' ' || family) FROM person WHERE id = @who", new { who }),
        Act = act,
        Thing = thing,
        ThingId = thingId,
        ClassId = classId,
        Detail = detail,
    });

    /// <summary>The newest line that may change what is in a class; 0 if none. Every change of the school adds a line; that another class was archived changes nothing in this one.</summary>
    public static long Newest(IDbConnection c) => c.ExecuteScalar<long>("SELECT ifnull((SELECT id FROM audit WHERE act <> @Archived ORDER BY id DESC LIMIT 1), 0)", new { Archived });

    /// <summary>Lines that are looked for, newest first.</summary>
    public static IReadOnlyList<AuditRow> Find(IDbConnection c, AuditSought sought, int most) => [.. c.Query<AuditRow>(
        """
        SELECT a.id, a.at, a.person_id, a.who, a.act, a.thing, a.thing_id, a.class_id, k.name AS class_name, a.detail, a.address, a.session_id
        FROM audit a LEFT JOIN class k ON k.id = a.class_id
        WHERE (@Before IS NULL OR a.id < @Before) AND (@Class IS NULL OR a.class_id = @Class) AND (@Person IS NULL OR a.person_id = @Person) AND (@Until IS NULL OR a.at < @Until)
          AND (@Text IS NULL OR a.who LIKE @like ESCAPE '\' OR a.act LIKE @like ESCAPE '\' OR a.detail LIKE @like ESCAPE '\')
        ORDER BY a.id DESC LIMIT @most
        """, new { sought.Before, sought.Class, sought.Person, sought.Text, sought.Until, like = sought.Text is { } t ? $"%{t.Replace("\\", "\\\\", StringComparison.Ordinal).Replace("%", "\\%", StringComparison.Ordinal).Replace("_", "\\_", StringComparison.Ordinal)}%" : null, most })];

    /// <summary>Follows the chain from its beginning to its end.</summary>
    public static AuditChecked Check(IDbConnection c)
    {
        var chain = c.QuerySingle<(string FirstBefore, long LetGo, long LastId, string LastHash)>("SELECT first_before, let_go, last_id, last_hash FROM audit_chain");
        var (lines, erased, before, newest) = (0L, 0L, chain.FirstBefore, chain.LetGo);
        long? wrong = null;
        foreach (var l in c.Query<Link>($"SELECT {Chained}, who, detail, salt, words, hash FROM audit ORDER BY id", buffered: false))
        {
            lines++;
            if (l.Salt is null) erased++;
            // After the first that is wrong every other one is: the first is what is told.
            if (wrong is null && ((l.Salt is { } salt && AuditChain.Words(salt, l.Who ?? "", l.Detail) != l.Words) || AuditChain.Hash(before, l.Line) != l.Hash || l.Id != newest + 1)) wrong = l.Id;
            (before, newest) = (l.Hash ?? "", l.Id);
        }
        return new(lines, chain.LetGo, erased, wrong, newest != chain.LastId || (wrong is null && lines > 0 && before != chain.LastHash), chain.LastHash);
    }

    /// <summary>Lets go of lines from before a moment; the chain begins after them.</summary>
    /// <returns>How many there were.</returns>
    public static long LetGoBefore(IDbConnection c, Instant moment)
    {
        // In the order in which they were written, whatever clock they were written by.
        var first = c.ExecuteScalar<long?>("SELECT min(id) FROM audit WHERE at >= @moment", new { moment }) ?? c.ExecuteScalar<long>("SELECT last_id + 1 FROM audit_chain");
        if (c.QuerySingleOrDefault<(long Id, string Hash)?>("SELECT id, hash FROM audit WHERE id < @first ORDER BY id DESC LIMIT 1", new { first }) is not { } last) return 0;
        c.Execute("UPDATE audit_chain SET first_before = @Hash, let_go = @Id", new { last.Hash, last.Id });
        return c.Execute("DELETE FROM audit WHERE id <= @Id", new { last.Id });
    }

    /// <summary>Takes a person's name out of their lines, and out of the words of lines about them; what they are called instead stands there.</summary>
    /// <param name="pseudonym">Says nothing of who it was.</param>
    /// <returns>In how many lines.</returns>
    public static int Erase(IDbConnection c, PersonId person, string pseudonym) => c.Execute(
        """
        UPDATE audit SET who = CASE WHEN person_id = @person THEN @pseudonym ELSE who END, detail = CASE WHEN thing = 'person' AND thing_id = @person THEN @pseudonym ELSE detail END, salt = NULL
        WHERE person_id = @person OR (thing = 'person' AND thing_id = @person)
        """, new { person, pseudonym });

    /// <summary>Takes a name out of the words of all lines.</summary>
    public static int EraseWords(IDbConnection c, string name, string pseudonym) =>
        c.Execute("UPDATE audit SET detail = replace(detail, @name, @pseudonym), salt = NULL WHERE instr(detail, @name) > 0", new { name, pseudonym });

    /// <summary>How many lines are from before a moment.</summary>
    public static long CountBefore(IDbConnection c, Instant moment) => c.ExecuteScalar<long>("SELECT count(*) FROM audit WHERE at < @moment", new { moment });

    /// <summary>Chains lines that were written before there was a chain. Once there is one, nothing is.</summary>
    internal static void Begin(IDbConnection c)
    {
        if (c.ExecuteScalar<long>("SELECT count(*) FROM audit_chain") > 0) return;
        var (before, last) = (AuditChain.Beginning, 0L);
        // A trail that was begun long ago may have a gap; from now on the numbers have none.
        foreach (var l in c.Query<Link>($"SELECT {Chained}, who, detail FROM audit ORDER BY id").ToList())
        {
            var salt = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(12));
            var words = AuditChain.Words(salt, l.Who ?? "", l.Detail);
            var hash = AuditChain.Hash(before, l.Line with { Words = words });
            c.Execute("UPDATE audit SET salt = @salt, words = @words, hash = @hash WHERE id = @Id", new { salt, words, hash, l.Id });
            (before, last) = (hash, l.Id);
        }
        c.Execute("INSERT INTO audit_chain(id, first_before, last_id, last_hash) VALUES(1, @Beginning, @last, @before)", new { AuditChain.Beginning, last, before });
    }

    private sealed record Link
    {
        public long Id { get; init; }
        public string At { get; init; } = "";
        public long? Person { get; init; }
        public string? Who { get; init; }
        public string Act { get; init; } = "";
        public string Thing { get; init; } = "";
        public long? ThingId { get; init; }
        public long? Class { get; init; }
        public string Detail { get; init; } = "";
        public string? Address { get; init; }
        public long? Session { get; init; }
        public string? Salt { get; init; }
        public string? Words { get; init; }
        public string? Hash { get; init; }

        public ChainedLine Line => new(Id, At, Person, Act, Thing, ThingId, Class, Address, Session, Words ?? "");
    }

    /// <summary>The answer given before to the same request of the same person; null if there was none.</summary>
    public static KeptAnswer? Answered(IDbConnection c, PersonId who, string key) =>
        c.QuerySingleOrDefault<KeptAnswer>("SELECT print, status, body FROM once WHERE person_id = @who AND key = @key", new { who, key });

    /// <summary>Keeps an answer for a day; older ones go.</summary>
    /// <param name="print">Of what was asked.</param>
    public static void KeepAnswer(IDbConnection c, PersonId who, string key, string print, int status, string body, Instant at)
    {
        c.Execute("DELETE FROM once WHERE at < @old", new { old = at - Duration.FromDays(1) });
        c.Execute("INSERT INTO once(person_id, key, at, print, status, body) VALUES(@who, @key, @at, @print, @status, @body)", new { who, key, at, print, status, body });
    }
}
