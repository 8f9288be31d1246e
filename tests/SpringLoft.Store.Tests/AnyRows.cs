using System.Data;
using Dapper;

namespace SpringLoft.Store.Tests;

/// <summary>Rows made of nothing but the schema, so that no table is forgotten: one with every column filled, one with as little as may be.</summary>
internal static class AnyRows
{
    internal static List<string> Tables(IDbConnection c) => [.. c.Query<string>("SELECT name FROM sqlite_schema WHERE type = 'table' AND name NOT LIKE 'sqlite%' AND name NOT LIKE 'Schema%'")];

    /// <summary>Two rows for each table, or one where only one may be.</summary>
    internal static void Fill(IDbConnection c)
    {
        c.Execute("PRAGMA foreign_keys = OFF");
        foreach (var table in Tables(c))
            for (var n = 1; n <= 2; n++)
            {
                var refers = c.Query($"PRAGMA foreign_key_list({table})").Select(k => (string)k.@from).ToHashSet();
                var columns = c.Query($"PRAGMA table_info({table})").Where(x => n == 1 || (long)x.notnull == 1 || (long)x.pk > 0).ToList();
                var (names, values) = (columns.Select(x => (string)x.name).ToList(), columns.Select(x => (object?)Value(table, (string)x.name, (string)x.type, (long)x.pk > 0, refers.Contains((string)x.name), n)).ToList());
                var given = new DynamicParameters();
                for (var i = 0; i < values.Count; i++) given.Add($"v{i}", values[i]);
                c.Execute($"INSERT OR IGNORE INTO {table}({string.Join(", ", names.Select(x => $"\"{x}\""))}) VALUES({string.Join(", ", values.Select((_, i) => $"@v{i}"))})", given);
            }
        c.Execute("PRAGMA foreign_keys = ON");
    }

    /// <summary>What stands in each column, in the order of the rows' keys.</summary>
    internal static Dictionary<string, List<string>> Read(IDbConnection c) => Tables(c).SelectMany(t => c.Query($"PRAGMA table_info({t})").Select(x => (Table: t, Column: (string)x.name))).ToDictionary(
        x => $"{x.Table}.{x.Column}", x => c.Query<string>($"SELECT quote(\"{x.Column}\") FROM {x.Table} ORDER BY 1").ToList());

    private static object Value(string table, string column, string type, bool key, bool refers, int n) => (column, type) switch
    {
        ("sha256", _) or (_, "TEXT") when refers => n == 1 ? "ab1" : "ab2",
        ("sha256", _) => $"ab{n}",
        ("outline", _) => "[]",
        ("steps", _) => "",
        ("undo", _) => "{}",
        (_, "INTEGER") when table is "school" or "roster_feed" && key => 1,
        (_, "INTEGER") => n,
        (_, "REAL") => n + 0.5,
        (var name, _) when name.EndsWith("_at", StringComparison.Ordinal) || name is "at" or "since" => $"2025-06-2{n}T08:00:00.000Z",
        (var name, _) => $"{name} {n}",
    };
}
