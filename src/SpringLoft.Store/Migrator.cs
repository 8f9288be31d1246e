using DbUp;
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
            .WithTransactionPerScript().LogToNowhere().Build().PerformUpgrade();
        if (!outcome.Successful)
            throw new InvalidOperationException($"The database could not be brought up to date: {outcome.ErrorScript?.Name} failed. {outcome.Error.Message}", outcome.Error);
    }

    /// <summary>The number of the newest script.</summary>
    public static int Newest => typeof(Migrator).Assembly.GetManifestResourceNames().Where(n => n.EndsWith(".sql", StringComparison.Ordinal)).Max(NumberOf);

    private static int NumberOf(string resource)
    {
        var file = resource.Split('.')[^2];
        return int.Parse(file.AsSpan(0, 4), System.Globalization.CultureInfo.InvariantCulture);
    }
}
