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

    /// <summary>Keeps an outline as the next version, if the plan is still at the one that was seen; false if changed meanwhile.</summary>
    public static bool Save(IDbConnection c, PlanId id, int seen, FolderPlan plan, PersonId by, Instant at)
    {
        if (c.Execute("UPDATE plan SET name = @Name, about = @About, version = version + 1 WHERE id = @id AND version = @seen", new { plan.Name, plan.About, id, seen }) != 1) return false;
        c.Execute("INSERT INTO plan_version(plan_id, version, outline, made_by, made_at) VALUES(@id, @version, @outline, @by, @at)", new { id, version = seen + 1, outline = JsonSerializer.Serialize(plan.Lines, Json), by, at });
        return true;
    }

    /// <summary>Who wrote the newest version, and when; null where nobody noted it.</summary>
    public static (PersonId By, Instant At)? NewestBy(IDbConnection c, PlanId id) =>
        c.QuerySingleOrDefault<(PersonId By, Instant At)?>("SELECT v.made_by, v.made_at FROM plan p JOIN plan_version v ON v.plan_id = p.id AND v.version = p.version WHERE p.id = @id AND v.made_by IS NOT NULL", new { id });

    /// <summary>Every key that any version of a plan ever used, so that none is used for another line.</summary>
    public static IReadOnlySet<string> KeysEver(IDbConnection c, PlanId id)
    {
        var keys = new HashSet<string>();
        void Add(IEnumerable<PlanLine> lines)
        {
            foreach (var l in lines)
            {
                keys.Add(l.Key);
                Add(l.Within);
            }
        }
        foreach (var outline in c.Query<string>("SELECT outline FROM plan_version WHERE plan_id = @id", new { id })) Add(JsonSerializer.Deserialize<List<PlanLine>>(outline, Json)!);
        return keys;
    }

    /// <summary>How many classes that are not archived follow each plan, and how many of them an older version of it.</summary>
    public static IReadOnlyDictionary<PlanId, (int Classes, int Behind)> Uses(IDbConnection c) => c.Query<(long Plan, long Classes, long Behind)>(
        """
        SELECT k.plan_id, count(*), sum(k.plan_version < p.version) FROM class k JOIN plan p ON p.id = k.plan_id
        WHERE k.state <> 'Archived' GROUP BY k.plan_id
        """).ToDictionary(x => new PlanId(x.Plan), x => ((int)x.Classes, (int)x.Behind));

    /// <summary>Is a name taken by another plan?</summary>
    public static bool NameTaken(IDbConnection c, string name, PlanId? but) =>
        c.ExecuteScalar<bool>("SELECT EXISTS(SELECT 1 FROM plan WHERE name = @name COLLATE NOCASE AND id IS NOT @but)", new { name, but });

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
