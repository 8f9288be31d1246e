using System.Text.Json;
using System.Text.Json.Serialization;
using SpringLoft.Core.Plans;

namespace SpringLoft.Store.Plans;

/// <summary>A folder plan with its key and version.</summary>
public sealed record PlanRow(PlanId Id, int Version, FolderPlan Plan);

/// <summary>Owns plan and plan_version. An outline is kept as JSON: it is read and written whole.</summary>
public static class PlanStore
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web) { Converters = { new JsonStringEnumConverter() } };

    /// <summary>The newest version of every plan.</summary>
    public static IReadOnlyList<PlanRow> All(IDbConnection c) => [.. c.Query<Bare>(
        "SELECT p.id, p.name, p.about, v.version, v.outline FROM plan p JOIN plan_version v ON v.plan_id = p.id AND v.version = p.version ORDER BY p.id")
        .Select(Whole)];

    /// <summary>One version of a plan; null if there is no such.</summary>
    public static PlanRow? Find(IDbConnection c, PlanId id, int? version = null)
    {
        var bare = c.QuerySingleOrDefault<Bare>(
            """
            SELECT p.id, p.name, p.about, v.version, v.outline
            FROM plan p JOIN plan_version v ON v.plan_id = p.id AND v.version = ifnull(@version, p.version) WHERE p.id = @id
            """, new { id, version });
        return bare is null ? null : Whole(bare);
    }

    /// <summary>Adds a plan as version 1.</summary>
    public static PlanId Add(IDbConnection c, FolderPlan plan, Instant at)
    {
        var id = c.ExecuteScalar<long>("INSERT INTO plan(name, about, version, made_at) VALUES(@Name, @About, 1, @at) RETURNING id", new { plan.Name, plan.About, at });
        c.Execute("INSERT INTO plan_version(plan_id, version, outline) VALUES(@id, 1, @outline)", new { id, outline = JsonSerializer.Serialize(plan.Lines, Json) });
        return new(id);
    }

    private static PlanRow Whole(Bare b) =>
        new(b.Id, (int)b.Version, new FolderPlan(b.Name, b.About, JsonSerializer.Deserialize<List<PlanLine>>(b.Outline, Json)!));

    private sealed record Bare
    {
        public PlanId Id { get; init; }
        public string Name { get; init; } = "";
        public string About { get; init; } = "";
        public long Version { get; init; }
        public string Outline { get; init; } = "";
    }
}
