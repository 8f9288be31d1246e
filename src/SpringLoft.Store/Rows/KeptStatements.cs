using System.Diagnostics.CodeAnalysis;
using Microsoft.Data.Sqlite;

namespace SpringLoft.Store.Rows;

/// <summary>
/// A connection that keeps what SQLite has made of a statement's text: the second time the same text is run it is not
/// read and planned again. Our acts run the same few hundred statements for one class after another.
/// </summary>
internal sealed class KeptStatements(SqliteConnection inner) : IDbConnection
{
    // Lists in a statement ("IN (…)") make new texts without end, so that they can't all be kept.
    private const int Most = 400;
    private readonly Dictionary<string, SqliteCommand> kept = new(StringComparer.Ordinal);
    private SqliteTransaction? moment;

    [AllowNull]
    public string ConnectionString { get => inner.ConnectionString; set => inner.ConnectionString = value; }

    public int ConnectionTimeout => inner.ConnectionTimeout;

    public string Database => inner.Database;

    public ConnectionState State => inner.State;

    public IDbTransaction BeginTransaction() => BeginTransaction(deferred: false);

    public IDbTransaction BeginTransaction(IsolationLevel il) => moment = inner.BeginTransaction(il);

    public IDbTransaction BeginTransaction(bool deferred) => moment = inner.BeginTransaction(deferred);

    public void ChangeDatabase(string databaseName) => inner.ChangeDatabase(databaseName);

    public void Open() => inner.Open();

    public void Close() => inner.Close();

    public IDbCommand CreateCommand() => new Command(this);

    public void Dispose()
    {
        foreach (var command in kept.Values) command.Dispose();
        kept.Clear();
        inner.Dispose();
    }

    // Whoever has taken a statement has it alone: a second use of the same text meanwhile makes one of its own.
    private SqliteCommand Take(string text)
    {
        if (!kept.Remove(text, out var command))
        {
            command = inner.CreateCommand();
            command.CommandText = text;
        }
        command.Transaction = moment;
        return command;
    }

    private void GiveBack(SqliteCommand command)
    {
        command.Parameters.Clear();
        if (kept.Count >= Most || !kept.TryAdd(command.CommandText, command)) command.Dispose();
    }

    private sealed class Command(KeptStatements connection) : IDbCommand
    {
        private SqliteCommand? taken;
        private bool rewritten;

        [AllowNull]
        public string CommandText
        {
            get => taken?.CommandText ?? "";
            set
            {
                if (taken is null) taken = connection.Take(value ?? "");
                else if (taken.CommandText != value)
                {
                    // Dapper writes a list out into the text once it knows how long it is.
                    rewritten = true;
                    taken.CommandText = value;
                }
            }
        }

        public int CommandTimeout { get => Inner.CommandTimeout; set => Inner.CommandTimeout = value; }

        public CommandType CommandType { get => CommandType.Text; set => Inner.CommandType = value; }

        public IDbConnection? Connection { get => connection; set => throw new NotSupportedException("A command stays with its connection."); }

        public IDataParameterCollection Parameters => Inner.Parameters;

        public IDbTransaction? Transaction { get => Inner.Transaction; set => Inner.Transaction = (SqliteTransaction?)value; }

        public UpdateRowSource UpdatedRowSource { get => Inner.UpdatedRowSource; set => Inner.UpdatedRowSource = value; }

        private SqliteCommand Inner => taken ?? throw new InvalidOperationException("The command has no text yet.");

        public void Cancel() => Inner.Cancel();

        public IDbDataParameter CreateParameter() => Inner.CreateParameter();

        public int ExecuteNonQuery() => Inner.ExecuteNonQuery();

        public IDataReader ExecuteReader() => new SteadyReader(Inner.ExecuteReader());

        public IDataReader ExecuteReader(CommandBehavior behavior) => new SteadyReader(Inner.ExecuteReader(behavior & ~CommandBehavior.CloseConnection));

        public object? ExecuteScalar() => Inner.ExecuteScalar();

        public void Prepare() => Inner.Prepare();

        public void Dispose()
        {
            if (taken is not { } command) return;
            taken = null;
            if (rewritten) command.Dispose();
            else connection.GiveBack(command);
        }
    }
}
