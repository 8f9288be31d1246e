using SpringLoft.Store.Assignments;

namespace SpringLoft.Store.Workspaces;

/// <summary>A file with a notice.</summary>
public sealed record NoticeFileRow
{
    /// <summary>0 for one that is not kept yet.</summary>
    public long Id { get; init; }
    public long NoticeId { get; init; }
    public string Name { get; init; } = "";
    public string Sha256 { get; init; } = "";
    public string Sha512 { get; init; } = "";
    public long Size { get; init; }
}

/// <summary>Owns notice_file and notice_upload.</summary>
public static class NoticeFileStore
{
    private const string Rows = "SELECT f.id, f.notice_id, f.name, f.sha256, b.sha512, b.size FROM notice_file f JOIN blob b ON b.sha256 = f.sha256";

    /// <summary>Files of several notices, each in the order that was given.</summary>
    public static ILookup<long, NoticeFileRow> Of(IDbConnection c, IEnumerable<long> notices) => c.Query<NoticeFileRow>(
        $"{Rows} WHERE f.notice_id IN (SELECT value FROM json_each(@ids)) ORDER BY f.notice_id, f.position, f.id", new { ids = $"[{string.Join(',', notices)}]" }).ToLookup(f => f.NoticeId);

    /// <summary>Puts these files with a notice and no others: those with a number stay as they are, the rest is added.</summary>
    public static void Set(IDbConnection c, long notice, IReadOnlyList<NoticeFileRow> files)
    {
        c.Execute("DELETE FROM notice_file WHERE notice_id = @notice AND id NOT IN (SELECT value FROM json_each(@kept))", new { notice, kept = $"[{string.Join(',', files.Where(f => f.Id != 0).Select(f => f.Id))}]" });
        for (var position = 0; position < files.Count; position++)
        {
            var f = files[position];
            if (f.Id != 0) c.Execute("UPDATE notice_file SET position = @position WHERE id = @Id AND notice_id = @notice", new { position, f.Id, notice });
            else c.Execute("INSERT INTO notice_file(notice_id, position, name, sha256) VALUES(@notice, @position, @Name, @Sha256)", new { notice, position, f.Name, f.Sha256 });
        }
    }

    /// <summary>Keeps a file for a notice that is being written; its blob is noted before.</summary>
    public static long AddUpload(IDbConnection c, PersonId by, string name, string sha256, Instant at) =>
        c.ExecuteScalar<long>("INSERT INTO notice_upload(by_id, name, sha256, at) VALUES(@by, @name, @sha256, @at) RETURNING id", new { by, name, sha256, at });

    /// <summary>A file that somebody sent for a notice; null if there is none.</summary>
    public static AttachedUpload? Upload(IDbConnection c, PersonId by, long upload) =>
        c.QuerySingleOrDefault<AttachedUpload>("SELECT id, name, sha256 FROM notice_upload WHERE id = @upload AND by_id = @by", new { by, upload });

    /// <summary>Lets go of files whose notice was never posted, or was some time ago.</summary>
    public static void LetGoOfUploads(IDbConnection c, Instant before) => c.Execute("DELETE FROM notice_upload WHERE at < @before", new { before });
}
