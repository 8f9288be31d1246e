using SpringLoft.Core.Assignments;
using SpringLoft.Core.Naming;

namespace SpringLoft.Store.School;

/// <summary>A scale that the school has laid down.</summary>
public sealed record ScaleRow
{
    public long Id { get; init; }
    public string Name { get; init; } = "";
    public string SchemeJson { get; init; } = "";
    public int Version { get; init; }
    public MarkScheme Scheme => MarkScheme.Read(SchemeJson)!;
}

/// <summary>Owns school_scale. An assignment has a copy of its own, so that no mark changes with a scale.</summary>
public static class ScaleStore
{
    private const string Columns = "id, name, scheme_json, version";

    /// <summary>All of them, by name.</summary>
    public static IReadOnlyList<ScaleRow> All(IDbConnection c) => [.. c.Query<ScaleRow>($"SELECT {Columns} FROM school_scale ORDER BY name_key")];

    /// <summary>Adds one; false if one of that name is there.</summary>
    public static bool Add(IDbConnection c, string name, MarkScheme scheme) =>
        c.Execute("INSERT INTO school_scale(name, name_key, scheme_json) VALUES(@name, @key, @json) ON CONFLICT DO NOTHING", new { name, key = SafeName.Key(name), json = scheme.Write() }) == 1;

    /// <summary>Changes one, at the version that was seen; false if changed or removed meanwhile.</summary>
    public static bool Save(IDbConnection c, long id, string name, MarkScheme scheme, int version) =>
        c.Execute("UPDATE school_scale SET name = @name, name_key = @key, scheme_json = @json, version = version + 1 WHERE id = @id AND version = @version", new { id, name, key = SafeName.Key(name), json = scheme.Write(), version }) == 1;

    /// <summary>Removes one; false if it is not there.</summary>
    public static bool Remove(IDbConnection c, long id) => c.Execute("DELETE FROM school_scale WHERE id = @id", new { id }) == 1;
}
