using Microsoft.Data.Sqlite;
using SpringLoft.Store.Audit;

namespace SpringLoft.Store;

/// <summary>What stands where a database should be.</summary>
public enum DatabaseState
{
    /// <summary>No file, an empty one, or one in which no school was ever set up.</summary>
    Empty,

    /// <summary>A school's.</summary>
    School,

    /// <summary>Brought to a version that this program does not know.</summary>
    Newer,

    /// <summary>No database, or one that can't be read.</summary>
    Damaged,
}

/// <summary>Looks at a database file before it is opened, and changes nothing.</summary>
public static class DatabaseFile
{
    /// <summary>What it is.</summary>
    public static DatabaseState Look(string path)
    {
        if (!File.Exists(path) || new FileInfo(path).Length == 0) return DatabaseState.Empty;
        try
        {
            using var c = Open(path);
            if (c.ExecuteScalar<long>("SELECT count(*) FROM sqlite_schema WHERE name = 'SchemaVersions'") > 0
                && c.Query<string>("SELECT ScriptName FROM SchemaVersions").Any(s => Migrator.NumberOf(s) > Migrator.Newest)) return DatabaseState.Newer;
            return c.ExecuteScalar<long>("SELECT count(*) FROM sqlite_schema WHERE name = 'school'") > 0 && c.ExecuteScalar<long>("SELECT count(*) FROM school") > 0 ? DatabaseState.School : DatabaseState.Empty;
        }
        catch (SqliteException) { return DatabaseState.Damaged; }
    }

    /// <summary>Reads all of it: what SQLite itself finds wrong, and rows that refer to nothing. Empty if it is whole.</summary>
    public static IReadOnlyList<string> Check(string path)
    {
        try
        {
            using var c = Open(path);
            var found = c.Query<string>("PRAGMA integrity_check").Where(x => x != "ok").ToList();
            found.AddRange(c.Query("PRAGMA foreign_key_check").Select(x => $"a row of {x.table} refers to one of {x.parent} that is not there"));
            return found;
        }
        catch (SqliteException e) { return [e.Message]; }
    }

    /// <summary>The files that a database names, by their SHA-256, with their length in bytes.</summary>
    public static IReadOnlyList<(string Sha256, long Size)> Files(string path)
    {
        using var c = Open(path);
        return [.. c.Query<(string, long)>("SELECT sha256, size FROM blob ORDER BY sha256")];
    }

    /// <summary>Follows the chain over the audit trail; null for a file from before there was one.</summary>
    public static AuditChecked? CheckAudit(string path)
    {
        Rows.TypeHandlers.Register();
        using var c = Open(path);
        return c.ExecuteScalar<long>("SELECT count(*) FROM sqlite_schema WHERE name = 'audit_chain'") > 0 && c.ExecuteScalar<long>("SELECT count(*) FROM audit_chain") > 0 ? AuditStore.Check(c) : null;
    }

    private static SqliteConnection Open(string path)
    {
        var c = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = path, Mode = SqliteOpenMode.ReadWrite, Pooling = false }.ToString());
        c.Open();
        return c;
    }
}
