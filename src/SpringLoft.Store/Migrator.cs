using DbUp;
using DbUp.Engine;
using DbUp.Engine.Transactions;
using Microsoft.Data.Sqlite;

namespace SpringLoft.Store;

/// <summary>Brings a database file to the newest version: numbered scripts, only forward, each in its own transaction.</summary>
public static class Migrator
{
    /// <summary>Runs what has not been run yet.</summary>
    /// <param name="connectionString">Of the file.</param>
    /// <param name="upTo">Only scripts whose number is this or lower; for tests that start from an earlier version.</param>
    /// <exception cref="InvalidOperationException">A script failed; the file is as it was before that script.</exception>
    public static void Run(string connectionString, int upTo = int.MaxValue)
    {
        using (var c = new SqliteConnection(connectionString))
        {
            c.Open();
            using var wal = c.CreateCommand();
            wal.CommandText = "PRAGMA journal_mode=WAL;";
            wal.ExecuteNonQuery();
        }
        var outcome = DeployChanges.To.SqliteDatabase(connectionString)
            .WithScriptsEmbeddedInAssembly(typeof(Migrator).Assembly, name => NumberOf(name) <= upTo)
            .WithScripts(new Computed(connectionString, upTo)).WithVariablesDisabled()
            .WithTransactionPerScript().LogToNowhere().Build().PerformUpgrade();
        if (!outcome.Successful)
            throw new InvalidOperationException($"The database could not be brought up to date: {outcome.ErrorScript?.Name} failed. {outcome.Error.Message}", outcome.Error);
    }

    /// <summary>The number of the newest script.</summary>
    public static int Newest => typeof(Migrator).Assembly.GetManifestResourceNames().Where(n => n.EndsWith(".sql", StringComparison.Ordinal)).Concat(Computed.Names).Max(NumberOf);

    // Scripts whose statements depend on what is in the file: worked out when it is their turn, run as the others are.
    private sealed class Computed(string connectionString, int upTo) : IScriptProvider
    {
        private static readonly Dictionary<string, Func<string, string>> Scripts = new()
        {
            ["SpringLoft.Store.Migrations.0024-typed-folder-keys.sql"] = Plans.TypedFolderKeys.Script,
        };

        internal static IEnumerable<string> Names => Scripts.Keys;

        public IEnumerable<SqlScript> GetScripts(IConnectionManager connectionManager) =>
            Scripts.Where(s => NumberOf(s.Key) <= upTo).Select(s => new LazySqlScript(s.Key, () => s.Value(connectionString)));
    }

    internal static int NumberOf(string resource)
    {
        var file = resource.Split('.')[^2];
        return int.Parse(file.AsSpan(0, 4), System.Globalization.CultureInfo.InvariantCulture);
    }
}
