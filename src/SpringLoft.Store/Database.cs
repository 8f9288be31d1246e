using System.Collections.Concurrent;
using System.Data;
using Microsoft.Data.Sqlite;
using SpringLoft.Store.Files;
using SpringLoft.Store.Rows;

namespace SpringLoft.Store;

/// <summary>
/// The database file. Readers run beside one another; there is one writer at a time, and what it writes goes in
/// whole or not at all.
/// </summary>
public sealed class Database : IDisposable
{
    private readonly string connectionString;
    // Each holds pages and statements in memory; a crowd that has gone home need not keep its own.
    private const int MostFree = 16;
    private readonly Lock writer = new();
    // A large act changes a hundred megabytes of pages, in no order; a writer that must let them go writes them many times over.
    private const int WriterCacheKilobytes = 64 * 1024;
    private readonly ConcurrentBag<KeptStatements> free = [];
    private KeptStatements? writing;
    private bool gone;

    /// <param name="path">The file; made if it is not there. Its folder must exist.</param>
    public Database(string path)
    {
        Path = path;
        connectionString = new SqliteConnectionStringBuilder
        {
            DataSource = path,
            ForeignKeys = true,
            DefaultTimeout = 30,
            Pooling = false,
        }.ToString();
        Rows.TypeHandlers.Register();
        Migrator.Run(connectionString);
    }

    /// <summary>Where the file is.</summary>
    public string Path { get; }

    /// <summary>Reads from one moment of the database: nothing written meanwhile is seen.</summary>
    public T Read<T>(Func<IDbConnection, T> read)
    {
        var c = Take();
        try
        {
            using (var moment = c.BeginTransaction(deferred: true))
            {
                return read(c);
            }
        }
        finally { GiveBack(c); }
    }

    /// <summary>Writes in one transaction; an exception rolls it back.</summary>
    /// <exception cref="DiskFullException">No room; nothing is written.</exception>
    public T Write<T>(Func<IDbConnection, T> write)
    {
        lock (writer)
        {
            var c = writing ??= Open($"PRAGMA cache_size=-{WriterCacheKilobytes}");
            var whole = false;
            try
            {
                using var transaction = c.BeginTransaction(deferred: false);
                var result = write(c);
                transaction.Commit();
                whole = true;
                return result;
            }
            catch (SqliteException e) when (IsDiskFull(e)) { throw new DiskFullException(e); }
            finally
            {
                // What went wrong can leave a connection half-way: the next act begins with another.
                if (!whole || gone)
                {
                    writing = null;
                    c.Dispose();
                }
            }
        }
    }

    /// <summary>Writes in one transaction; an exception rolls it back.</summary>
    public void Write(Action<IDbConnection> write) => Write(c => { write(c); return true; });

    /// <summary>Lets go of the file.</summary>
    public void Dispose()
    {
        gone = true;
        while (free.TryTake(out var c)) c.Dispose();
        lock (writer)
        {
            writing?.Dispose();
            writing = null;
        }
    }

    // SQLITE_FULL; and the index of the write-ahead log, which is made longer by itself (SQLITE_IOERR_SHMSIZE).
    private static bool IsDiskFull(SqliteException e) => e.SqliteErrorCode == 13 || e.SqliteExtendedErrorCode == 4874;

    private KeptStatements Take() => free.TryTake(out var c) ? c : Open();

    private void GiveBack(KeptStatements c)
    {
        if (gone || free.Count >= MostFree) c.Dispose();
        else free.Add(c);
    }

    private KeptStatements Open(string setting = "")
    {
        var c = new SqliteConnection(connectionString);
        c.Open();
        using var pragma = c.CreateCommand();
        // A commit is on the disk when it returns; a year of children's work is worth the wait.
        pragma.CommandText = $"PRAGMA synchronous=FULL; {setting}";
        pragma.ExecuteNonQuery();
        return new(c);
    }
}
