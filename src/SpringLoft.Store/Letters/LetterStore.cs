using SpringLoft.Core.Letters;

namespace SpringLoft.Store.Letters;

/// <summary>A letter.</summary>
public sealed record LetterRow
{
    public long Id { get; init; }
    public string ToAddress { get; init; } = "";
    public string ToName { get; init; } = "";
    public string Subject { get; init; } = "";

    /// <summary>Null once it is sent.</summary>
    public string? Text { get; init; }
    public Instant WrittenAt { get; init; }
    public int Tries { get; init; }
    public Instant? DueAt { get; init; }
    public Instant? SentAt { get; init; }
    public Instant? GivenUpAt { get; init; }

    /// <summary>Why the last try failed.</summary>
    public string? Trouble { get; init; }

    /// <summary>How it stands.</summary>
    public LetterState State => SentAt is not null ? LetterState.Sent : GivenUpAt is not null ? LetterState.GivenUp : LetterState.Waiting;
}

/// <summary>Owns letter.</summary>
public static class LetterStore
{
    private const string Columns = "id, to_address, to_name, subject, unseal(text) AS text, written_at, tries, due_at, sent_at, given_up_at, trouble";
    private const string Waiting = "sent_at IS NULL AND given_up_at IS NULL";

    /// <summary>Writes a letter, in the transaction of the act that causes it.</summary>
    /// <param name="contact">Somebody at home; null for who is in the directory, or is invited.</param>
    public static long Add(IDbConnection c, string toAddress, string toName, string subject, string text, Instant at, ContactId? contact = null) => c.ExecuteScalar<long>(
        "INSERT INTO letter(to_address, to_name, subject, text, written_at, contact_id) VALUES(@toAddress, @toName, @subject, seal(@text), @at, @contact) RETURNING id", new { toAddress, toName, subject, text, at, contact });

    /// <summary>Takes those back that wait for somebody at home; their text goes with them.</summary>
    public static void TakeBackOf(IDbConnection c, ContactId contact, Instant at) =>
        c.Execute($"UPDATE letter SET given_up_at = @at, text = NULL, due_at = NULL, trouble = NULL WHERE contact_id = @contact AND {Waiting}", new { contact, at });

    /// <summary>Letters whose turn it is, those that were never tried first.</summary>
    public static IReadOnlyList<LetterRow> Due(IDbConnection c, Instant now, int most) =>
        [.. c.Query<LetterRow>($"SELECT {Columns} FROM letter WHERE {Waiting} AND (due_at IS NULL OR due_at <= @now) ORDER BY due_at, id LIMIT @most", new { now, most })];

    /// <summary>The newest letters; those that are not sent come first.</summary>
    public static IReadOnlyList<LetterRow> Newest(IDbConnection c, int most) =>
        [.. c.Query<LetterRow>($"SELECT {Columns} FROM letter ORDER BY sent_at IS NOT NULL, given_up_at IS NULL, id DESC LIMIT @most", new { most })];

    /// <summary>The letter; null if there is none.</summary>
    public static LetterRow? Find(IDbConnection c, long id) => c.QuerySingleOrDefault<LetterRow>($"SELECT {Columns} FROM letter WHERE id = @id", new { id });

    /// <summary>The letters of a class's invitations, by their ids.</summary>
    public static IReadOnlyDictionary<long, LetterRow> OfInvitations(IDbConnection c, ClassId id) =>
        c.Query<LetterRow>($"SELECT {Columns} FROM letter WHERE id IN (SELECT letter_id FROM invitation WHERE class_id = @id)", new { id }).ToDictionary(l => l.Id);

    /// <summary>The mail server took it.</summary>
    public static void Sent(IDbConnection c, long id, Instant at) =>
        c.Execute("UPDATE letter SET sent_at = @at, tries = tries + 1, text = NULL, due_at = NULL, trouble = NULL WHERE id = @id", new { id, at });

    /// <summary>It was not taken.</summary>
    /// <param name="next">When it is tried again; null if it is given up.</param>
    public static void NotSent(IDbConnection c, long id, string trouble, Instant? next, Instant at) => c.Execute(
        "UPDATE letter SET tries = tries + 1, trouble = @trouble, due_at = @next, given_up_at = CASE WHEN @next IS NULL THEN @at END WHERE id = @id AND sent_at IS NULL", new { id, trouble, next, at });

    /// <summary>Has a letter that is not sent tried at once, as if it were written now.</summary>
    /// <returns>False if it is sent or is not there.</returns>
    public static bool Again(IDbConnection c, long id, Instant at) =>
        c.Execute("UPDATE letter SET due_at = NULL, given_up_at = NULL, tries = 0, written_at = @at WHERE id = @id AND sent_at IS NULL", new { id, at }) == 1;

    /// <summary>Takes a letter back that is not sent; its text goes with it.</summary>
    public static void TakeBack(IDbConnection c, long id, Instant at) =>
        c.Execute("UPDATE letter SET given_up_at = @at, text = NULL, due_at = NULL, trouble = NULL WHERE id = @id AND sent_at IS NULL", new { id, at });

    /// <summary>Removes letters that were sent, or given up, before a moment.</summary>
    public static int RemoveBefore(IDbConnection c, Instant moment)
    {
        c.Execute("UPDATE invitation SET letter_id = NULL WHERE letter_id IN (SELECT id FROM letter WHERE coalesce(sent_at, given_up_at) < @moment)", new { moment });
        return c.Execute("DELETE FROM letter WHERE coalesce(sent_at, given_up_at) < @moment", new { moment });
    }
}
