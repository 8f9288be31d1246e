namespace SpringLoft.Store.Files;

/// <summary>Which files of the store nothing refers to. Owns file_unused, and takes away what is in blob.</summary>
public static class UnusedFiles
{
    /// <summary>Notes what nothing refers to now, and forgets what is referred to again.</summary>
    /// <param name="onDisk">Every file of the store, by its SHA-256.</param>
    public static void Note(IDbConnection c, IEnumerable<string> onDisk, Instant now)
    {
        var used = c.Query<string>(string.Join(" UNION ", References(c).Select(r => $"SELECT {r.Column} FROM {r.Table} WHERE {r.Column} IS NOT NULL"))).ToHashSet();
        var unused = onDisk.Concat(c.Query<string>("SELECT sha256 FROM blob")).Where(sha => !used.Contains(sha)).ToHashSet();
        var noted = c.Query<string>("SELECT sha256 FROM file_unused").ToHashSet();
        c.Execute("DELETE FROM file_unused WHERE sha256 = @sha", noted.Except(unused).Select(sha => new { sha }));
        c.Execute("INSERT INTO file_unused(sha256, since) VALUES(@sha, @now)", unused.Except(noted).Select(sha => new { sha, now }));
    }

    /// <summary>What nothing has referred to since a moment or longer.</summary>
    public static IReadOnlyList<string> Since(IDbConnection c, Instant moment) => [.. c.Query<string>("SELECT sha256 FROM file_unused WHERE since <= @moment ORDER BY sha256", new { moment })];

    /// <summary>True if something refers to the file after all.</summary>
    public static bool IsUsed(IDbConnection c, string sha) =>
        c.ExecuteScalar<bool>($"SELECT {string.Join(" OR ", References(c).Select(r => $"EXISTS (SELECT 1 FROM {r.Table} WHERE {r.Column} = @sha)"))}", new { sha });

    /// <summary>Has this database ever taken the file in?</summary>
    public static bool Knows(IDbConnection c, string sha) => c.ExecuteScalar<bool>("SELECT EXISTS (SELECT 1 FROM blob WHERE sha256 = @sha)", new { sha });

    /// <summary>Forgets a file that is off the disk.</summary>
    public static void Remove(IDbConnection c, string sha)
    {
        c.Execute("DELETE FROM blob WHERE sha256 = @sha", new { sha });
        c.Execute("DELETE FROM file_unused WHERE sha256 = @sha", new { sha });
    }

    // Asked of the database itself, so that a table that is new some day can't be forgotten here.
    private static IEnumerable<(string Table, string Column)> References(IDbConnection c) => c.Query<(string, string)>(
        """SELECT m.name, f."from" FROM sqlite_master m JOIN pragma_foreign_key_list(m.name) f WHERE m.type = 'table' AND f."table" = 'blob' ORDER BY 1, 2""");
}
