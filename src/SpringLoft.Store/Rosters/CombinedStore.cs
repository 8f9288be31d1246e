namespace SpringLoft.Store.Rosters;

/// <summary>Several classes worked on as one list.</summary>
public sealed record CombinedRow
{
    public long Id { get; init; }
    public PersonId OwnerId { get; init; }
    public YearId YearId { get; init; }
    public string Name { get; init; } = "";
    public int Version { get; init; }
}

/// <summary>A section of a combined roster.</summary>
/// <param name="Colour">Which of the section colours, 0 and up.</param>
public sealed record CombinedSectionRow(ClassId Class, int Colour);

/// <summary>Owns combined_roster and combined_section.</summary>
public static class CombinedStore
{
    private const string Columns = "id, owner_id, year_id, name, version";

    /// <summary>Those of one person, by name.</summary>
    public static IReadOnlyList<CombinedRow> Of(IDbConnection c, PersonId owner) => [.. c.Query<CombinedRow>($"SELECT {Columns} FROM combined_roster WHERE owner_id = @owner ORDER BY name COLLATE NOCASE, id", new { owner })];

    /// <summary>One; null if there is no such.</summary>
    public static CombinedRow? Find(IDbConnection c, long id) => c.QuerySingleOrDefault<CombinedRow>($"SELECT {Columns} FROM combined_roster WHERE id = @id", new { id });

    /// <summary>Its sections in their order.</summary>
    public static IReadOnlyList<CombinedSectionRow> Sections(IDbConnection c, long id) =>
        [.. c.Query<(long, long)>("SELECT class_id, colour FROM combined_section WHERE combined_id = @id ORDER BY position", new { id }).Select(s => new CombinedSectionRow(new(s.Item1), (int)s.Item2))];

    /// <summary>Makes one.</summary>
    public static long Add(IDbConnection c, PersonId owner, YearId year, string name) =>
        c.ExecuteScalar<long>("INSERT INTO combined_roster(owner_id, year_id, name) VALUES(@owner, @year, @name) RETURNING id", new { owner, year, name });

    /// <summary>Renames it at the version that was seen; false if changed meanwhile.</summary>
    public static bool Rename(IDbConnection c, long id, string name, int version) => c.Execute("UPDATE combined_roster SET name = @name, version = version + 1 WHERE id = @id AND version = @version", new { id, name, version }) == 1;

    /// <summary>Says which sections it has, and in which order.</summary>
    public static void SetSections(IDbConnection c, long id, IReadOnlyList<CombinedSectionRow> sections)
    {
        c.Execute("DELETE FROM combined_section WHERE combined_id = @id", new { id });
        c.Execute("INSERT INTO combined_section(combined_id, class_id, position, colour) VALUES(@id, @k, @position, @colour)", sections.Select((s, i) => new { id, k = s.Class.Value, position = i, colour = s.Colour }));
    }

    /// <summary>Takes it away; the classes stay as they are.</summary>
    public static void Remove(IDbConnection c, long id)
    {
        c.Execute("DELETE FROM combined_section WHERE combined_id = @id", new { id });
        c.Execute("DELETE FROM combined_roster WHERE id = @id", new { id });
    }
}
