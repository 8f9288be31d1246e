using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Store.Workspaces;

/// <summary>A site or shared material of the school's list.</summary>
public sealed record ResourceRow
{
    public ResourceId Id { get; init; }
    public string Title { get; init; } = "";
    public string? Url { get; init; }
    public string? FileName { get; init; }
    public string? Sha256 { get; init; }
    public long? Size { get; init; }
    public ForWhom ForWhom { get; init; }

    /// <summary>Grades it is for, one a line.</summary>
    public string Grades { get; init; } = "";

    /// <summary>Courses it is for, one a line.</summary>
    public string Courses { get; init; } = "";
    public string? VendorId { get; init; }
    public string? VendorResourceId { get; init; }

    /// <summary>What the school's records call it.</summary>
    public string SourceId { get; init; } = "";
    public int Version { get; init; }

    /// <summary>The lines of a list as it is kept.</summary>
    public static IReadOnlyList<string> Lines(string text) => text.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
}

/// <summary>Owns resource and class_resource.</summary>
public static class ResourceStore
{
    private const string Select =
        """
        SELECT r.id, r.title, r.url, r.file_name, r.sha256, b.size, r.for_whom, r.grades, r.courses, r.vendor_id, r.vendor_resource_id, r.source_id, r.version
        FROM resource r LEFT JOIN blob b ON b.sha256 = r.sha256
        """;

    /// <summary>The whole list by title, the bin left out.</summary>
    public static IReadOnlyList<ResourceRow> All(IDbConnection c) => [.. c.Query<ResourceRow>($"{Select} WHERE r.binned_at IS NULL ORDER BY r.title_key")];

    /// <summary>What a class uses, by title.</summary>
    public static IReadOnlyList<ResourceRow> OfClass(IDbConnection c, ClassId id) => [.. c.Query<ResourceRow>(
        $"{Select} JOIN class_resource x ON x.resource_id = r.id WHERE x.class_id = @id AND r.binned_at IS NULL ORDER BY r.title_key", new { id })];

    /// <summary>One of the list; null if there is no such.</summary>
    public static ResourceRow? Find(IDbConnection c, ResourceId id) => c.QuerySingleOrDefault<ResourceRow>($"{Select} WHERE r.id = @id AND r.binned_at IS NULL", new { id });

    /// <summary>In how many classes that are not archived each is used.</summary>
    public static IReadOnlyDictionary<ResourceId, int> Uses(IDbConnection c) => c.Query<(long Id, long Classes)>(
        "SELECT x.resource_id, count(*) FROM class_resource x JOIN class k ON k.id = x.class_id WHERE k.state <> 'Archived' GROUP BY x.resource_id").ToDictionary(x => new ResourceId(x.Id), x => (int)x.Classes);

    /// <summary>Which classes of a year use which, as the records call the thing.</summary>
    public static IReadOnlyList<(ClassId Class, string SourceId)> UsesOfYear(IDbConnection c, YearId year) => [.. c.Query<(long, string)>(
        """
        SELECT x.class_id, r.source_id FROM class_resource x JOIN class k ON k.id = x.class_id JOIN resource r ON r.id = x.resource_id
        WHERE k.year_id = @year AND r.binned_at IS NULL ORDER BY x.class_id, r.source_id
        """, new { year }).Select(x => (new ClassId(x.Item1), x.Item2))];

    /// <summary>Adds one; id and version of the row are ignored.</summary>
    public static ResourceId Add(IDbConnection c, ResourceRow r) => new(c.ExecuteScalar<long>(
        """
        INSERT INTO resource(title, title_key, url, file_name, sha256, for_whom, grades, courses, vendor_id, vendor_resource_id, source_id)
        VALUES(@Title, @key, @Url, @FileName, @Sha256, @whom, @Grades, @Courses, @VendorId, @VendorResourceId, @SourceId) RETURNING id
        """, new { r.Title, key = SafeName.Key(r.Title), r.Url, r.FileName, r.Sha256, whom = r.ForWhom.ToString(), r.Grades, r.Courses, r.VendorId, r.VendorResourceId, r.SourceId }));

    /// <summary>Changes one as the row says, at the version that was seen; false if changed meanwhile.</summary>
    public static bool Save(IDbConnection c, ResourceRow r) => c.Execute(
        """
        UPDATE resource SET title = @Title, title_key = @key, url = @Url, file_name = @FileName, sha256 = @Sha256, for_whom = @whom, grades = @Grades, courses = @Courses,
          vendor_id = @VendorId, vendor_resource_id = @VendorResourceId, version = version + 1
        WHERE id = @Id AND version = @Version
        """, new { r.Id, r.Version, r.Title, key = SafeName.Key(r.Title), r.Url, r.FileName, r.Sha256, whom = r.ForWhom.ToString(), r.Grades, r.Courses, r.VendorId, r.VendorResourceId }) == 1;

    /// <summary>The title of one, in the bin or not; null if there is none.</summary>
    public static string? TitleOf(IDbConnection c, ResourceId id) => c.ExecuteScalar<string?>("SELECT title FROM resource WHERE id = @id", new { id });

    /// <summary>Puts one in the bin, or back with null.</summary>
    public static void SetBinned(IDbConnection c, ResourceId id, Instant? at) => c.Execute("UPDATE resource SET binned_at = @at WHERE id = @id", new { id, at });

    /// <summary>Lets a class use these and no other.</summary>
    public static void SetUsed(IDbConnection c, ClassId id, IEnumerable<ResourceId> resources)
    {
        c.Execute("DELETE FROM class_resource WHERE class_id = @id", new { id });
        c.Execute("INSERT INTO class_resource(class_id, resource_id) VALUES(@id, @resource)", resources.Distinct().Select(r => new { id = id.Value, resource = r.Value }));
    }
}
