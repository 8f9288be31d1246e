namespace SpringLoft.Store.Assignments;

/// <summary>A phrase of somebody's.</summary>
public sealed record PhraseRow
{
    public long Id { get; init; }
    public string Text { get; init; } = "";
}

/// <summary>Owns phrase.</summary>
public static class PhraseStore
{
    /// <summary>Somebody's phrases, in the order of the alphabet.</summary>
    public static IReadOnlyList<PhraseRow> Of(IDbConnection c, PersonId person) => [.. c.Query<PhraseRow>("SELECT id, text FROM phrase WHERE person_id = @person ORDER BY text COLLATE NOCASE, id", new { person })];

    /// <summary>Keeps one; one that is kept already stays as it is.</summary>
    public static void Add(IDbConnection c, PersonId person, string text) => c.Execute("INSERT INTO phrase(person_id, text) VALUES(@person, @text) ON CONFLICT DO NOTHING", new { person, text });

    /// <summary>Lets go of one of theirs; false if it is not there.</summary>
    public static bool Remove(IDbConnection c, PersonId person, long id) => c.Execute("DELETE FROM phrase WHERE id = @id AND person_id = @person", new { id, person }) == 1;
}
