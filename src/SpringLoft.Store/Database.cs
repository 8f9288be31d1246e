using System.Collections.Concurrent;
using System.Data;
using Microsoft.Data.Sqlite;
using SpringLoft.Store.Files;
using SpringLoft.Store.Rows;
using SpringLoft.Store.Sealing;

namespace SpringLoft.Store;

/// <summary>
/// The database file. Readers run beside one another; there is one writer at a time, and what it writes goes in
/// whole or not at all.
/// </summary>
public sealed class Database : IDisposable
{
    private readonly string connectionString;
    private readonly IDataSeal seal;
    // Each holds pages and statements in memory; a crowd that has gone home need not keep its own.
    private const int MostFree = 16;
    private readonly SemaphoreSlim turn = new(1, 1);
    private readonly AsyncLocal<Unit?> current = new();
    // A large act changes a hundred megabytes of pages, in no order; a writer that must let them go writes them many times over.
    private const int WriterCacheKilobytes = 64 * 1024;
    private readonly ConcurrentBag<KeptStatements> free = [];
    private KeptStatements? writing;
    private bool gone;

    /// <param name="path">The file; made if it is not there. Its folder must exist.</param>
    /// <param name="seal">For what lets somebody in; null to keep it in clear.</param>
    public Database(string path, IDataSeal? seal = null)
    {
        Path = path;
        this.seal = seal ?? new NoSeal();
        connectionString = new SqliteConnectionStringBuilder
        {
            DataSource = path,
            ForeignKeys = true,
            DefaultTimeout = 30,
            Pooling = false,
        }.ToString();
        Rows.TypeHandlers.Register();
        Migrator.Run(connectionString);
        // What was in clear is not only sealed: no page of the file has it any more.
        var clear = Write(c =>
        {
            Audit.AuditStore.Begin(c);
            return SealedColumns.SealOld(c, this.seal);
        });
        try
        {
            if (clear > 0) Clean();
        }
        catch (SqliteException e) when (IsDiskFull(e)) { /* A file that can't be written anew now is overwritten as it is used. */ }
    }

    /// <summary>Where the file is.</summary>
    public string Path { get; }

    /// <summary>Reads from one moment of the database: nothing written meanwhile is seen.</summary>
    public T Read<T>(Func<IDbConnection, T> read)
    {
        if (current.Value is { Over: false, Writing: { } own }) return read(own);
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

    /// <summary>Writes in one transaction; an exception rolls it back. Inside a <see cref="Begin">unit</see> it is a part of that.</summary>
    /// <exception cref="DiskFullException">No room; nothing is written.</exception>
    public T Write<T>(Func<IDbConnection, T> write)
    {
        if (current.Value is { Over: false } unit) return unit.Write(write);
        T result;
        using (unit = new Unit(this))
        {
            result = unit.Write(write);
            unit.Commit();
        }
        return result;
    }

    /// <summary>Writes if nobody else is writing at this moment, and says whether it did: for what may as well be written next time.</summary>
    public bool WriteIfFree(Action<IDbConnection> write)
    {
        if (current.Value is { Over: false })
        {
            Write(write);
            return true;
        }
        using var unit = new Unit(this);
        if (!unit.TakeIfFree()) return false;
        unit.Write(c => { write(c); return true; });
        unit.Commit();
        return true;
    }

    /// <summary>
    /// Begins a unit: whatever this flow of work writes from now on, in however many acts, is there whole or not at all, and it
    /// reads what it has written. The writer's turn is taken at the first write and kept to the end, so the end must be near.
    /// </summary>
    public Unit Begin() => current.Value = new Unit(this);

    /// <summary>Does something once what is being written is there for all to see: at once outside a unit.</summary>
    public void AfterCommit(Action then)
    {
        if (current.Value is { Over: false } unit) unit.Then(then);
        else then();
    }

    /// <summary>What is written together. Not committed, it is rolled back.</summary>
    public sealed class Unit : IDisposable
    {
        private readonly Database database;
        private readonly List<Action> then = [];
        private IDbTransaction? transaction;
        private bool hasTurn;

        internal Unit(Database database) => this.database = database;

        /// <summary>The connection that has unwritten changes; null before the first.</summary>
        internal IDbConnection? Writing { get; private set; }

        /// <summary>True once it has ended: what was begun in it and goes on is a part of it no more.</summary>
        internal bool Over { get; private set; }

        internal void Then(Action action) => then.Add(action);

        internal T Write<T>(Func<IDbConnection, T> write)
        {
            if (Writing is null) Take();
            try
            {
                Say("SAVEPOINT act");
                var result = write(Writing!);
                Say("RELEASE act");
                return result;
            }
            catch (Exception e)
            {
                // What went wrong takes back this act and no other; where SQLite has given up the whole, all of it.
                try { Say("ROLLBACK TO act; RELEASE act"); }
                catch (SqliteException) { Let(whole: false); }
                if (e is SqliteException s && IsDiskFull(s)) throw new DiskFullException(e);
                throw;
            }
        }

        /// <summary>Makes it so, then does what waited for that.</summary>
        /// <exception cref="DiskFullException">No room; nothing is written.</exception>
        public void Commit()
        {
            var whole = false;
            try
            {
                transaction?.Commit();
                whole = true;
            }
            catch (SqliteException e) when (IsDiskFull(e)) { throw new DiskFullException(e); }
            finally { Let(whole); }
            foreach (var action in then) action();
            then.Clear();
        }

        /// <inheritdoc/>
        public void Dispose()
        {
            Let(whole: false);
            Over = true;
            if (database.current.Value == this) database.current.Value = null;
        }

        private void Take()
        {
            database.turn.Wait();
            HaveTurn();
        }

        internal bool TakeIfFree()
        {
            if (!database.turn.Wait(0)) return false;
            HaveTurn();
            return true;
        }

        private void HaveTurn()
        {
            hasTurn = true;
            try
            {
                Writing = database.writing ??= database.Open($"PRAGMA cache_size=-{WriterCacheKilobytes}");
                transaction = ((KeptStatements)Writing).BeginTransaction(deferred: false);
            }
            catch
            {
                Let(whole: false);
                throw;
            }
        }

        private void Let(bool whole)
        {
            if (!hasTurn) return;
            try { transaction?.Dispose(); }
            catch (SqliteException) { whole = false; }
            // What went wrong can leave a connection half-way: the next act begins with another.
            if (!whole || database.gone)
            {
                database.writing?.Dispose();
                database.writing = null;
            }
            (Writing, transaction, hasTurn) = (null, null, false);
            database.turn.Release();
        }

        private void Say(string sql)
        {
            using var command = Writing!.CreateCommand();
            command.CommandText = sql;
            command.ExecuteNonQuery();
        }
    }

    /// <summary>Writes in one transaction; an exception rolls it back.</summary>
    public void Write(Action<IDbConnection> write) => Write(c => { write(c); return true; });

    /// <summary>Lets go of the file.</summary>
    public void Dispose()
    {
        gone = true;
        while (free.TryTake(out var c)) c.Dispose();
        turn.Wait();
        writing?.Dispose();
        writing = null;
        turn.Release();
    }

    // SQLITE_FULL; and the index of the write-ahead log, which is made longer by itself (SQLITE_IOERR_SHMSIZE).
    private static bool IsDiskFull(SqliteException e) => e.SqliteErrorCode == 13 || e.SqliteExtendedErrorCode == 4874;

    /// <summary>
    /// Lets go of what was overwritten and still stands in the write-ahead log, unless somebody reads an older moment: then it is
    /// for the next time.
    /// </summary>
    /// <returns>False if it is for the next time.</returns>
    public bool Forget()
    {
        using var c = Open("PRAGMA busy_timeout=0");
        using var command = c.CreateCommand();
        command.CommandText = "PRAGMA wal_checkpoint(TRUNCATE)";
        try { return Convert.ToInt64(command.ExecuteScalar(), System.Globalization.CultureInfo.InvariantCulture) == 0; }
        catch (SqliteException e) when (e.SqliteErrorCode is 5 or 6) { return false; }
    }

    private void Clean()
    {
        using (var c = Open())
        {
            using var command = c.CreateCommand();
            command.CommandText = "VACUUM";
            command.ExecuteNonQuery();
        }
        Forget();
    }

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
        // What is deleted is overwritten: a comment that is gone is not to be read in the file.
        pragma.CommandText = $"PRAGMA synchronous=FULL; PRAGMA secure_delete=ON; {setting}";
        pragma.ExecuteNonQuery();
        SealedColumns.Register(c, seal);
        return new(c);
    }
}
