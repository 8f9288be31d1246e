using System.Data;
using System.Reflection;
using Dapper;
using Microsoft.Data.Sqlite;
using NodaTime;
using SpringLoft.Store;
using SpringLoft.Tests.Shared;

namespace SpringLoft.Demo.Tests;

/// <summary>
/// Every method of the stores is run on rows whose first has nullable columns empty and whose later ones have them filled,
/// and the other way round: what a column is must not be read off the first row.
/// </summary>
public sealed class EveryQueryTests(DemoSchoolTests.Made demo) : IClassFixture<DemoSchoolTests.Made>
{
    private static readonly MethodInfo[] Methods = [.. typeof(Database).Assembly.GetExportedTypes().Where(t => t is { IsAbstract: true, IsSealed: true })
        .SelectMany(t => t.GetMethods(BindingFlags.Public | BindingFlags.Static)).Where(m => m.GetParameters() is [{ ParameterType: var first }, ..] && first == typeof(IDbConnection))];

    public static TheoryData<int> Seeds => [.. Enumerable.Range(1, 12)];

    [Theory]
    [MemberData(nameof(Seeds))]
    public void A_query_reads_rows_whatever_the_first_one_lacks(int seed)
    {
        var chance = new Random(seed);
        using var scratch = new Scratch();
        demo.CopyTo(scratch.Under("any.db"));
        using (var raw = new SqliteConnection($"Data Source={scratch.Under("any.db")};Pooling=False;Foreign Keys=False"))
        {
            raw.Open();
            HalfEmpty(raw, chance);
        }
        using var db = new Database(scratch.Under("any.db"));
        var faults = new List<string>();
        var ran = 0;

        foreach (var method in Methods)
            for (var times = 0; times < 3; times++)
                try
                {
                    db.Write(c =>
                    {
                        if (Arguments(c, method, chance) is not { } arguments) return;
                        ran++;
                        if (method.Invoke(null, arguments) is System.Collections.IEnumerable rows and not string) foreach (var row in rows) { }
                        throw new Undone();
                    });
                }
                catch (TargetInvocationException e) when (IsRefused(e.InnerException!)) { /* a rule of the tables, or there is no such row */ }
                catch (TargetInvocationException e) { faults.Add($"{method.DeclaringType!.Name}.{method.Name}: {e.InnerException!.GetType().Name}: {e.InnerException.Message}"); }
                catch (Undone) { /* nothing that was written stays */ }

        faults.Distinct().ShouldBeEmpty();
        ran.ShouldBeGreaterThan(Methods.Length * 2);
    }

    private static bool IsRefused(Exception e) => e is SqliteException { SqliteErrorCode: 19 }
        || (e is InvalidOperationException && e.Message.StartsWith("Sequence contains", StringComparison.Ordinal));

    // Of each nullable column one half of the rows is emptied, by chance the first or the last, and the other half filled.
    private static void HalfEmpty(SqliteConnection c, Random chance)
    {
        using var all = c.BeginTransaction();
        foreach (var table in c.Query<string>("SELECT name FROM sqlite_schema WHERE type = 'table' AND name NOT LIKE 'sqlite%' AND name NOT LIKE 'Schema%'").ToList())
        {
            var columns = c.Query($"PRAGMA table_info({table})").Select(x => ((string)x.name, (long)x.notnull, (long)x.pk)).ToList();
            var keys = string.Join(", ", columns.Where(x => x.Item3 > 0).Select(x => x.Item1));
            var first = keys.Split(", ")[0];
            var refersTo = c.Query($"PRAGMA foreign_key_list({table})").ToDictionary(x => (string)x.@from, x => (string)x.table);
            var half = c.ExecuteScalar<long>($"SELECT count(*) / 2 FROM {table}");
            foreach (var (column, notNull, pk) in columns.Where(x => x.Item2 == 0 && x.Item3 == 0))
            {
                var (emptied, filled) = chance.Next(2) == 0 ? ("", " DESC") : (" DESC", "");
                string Half(string order, long rows) => $"({keys}) IN (SELECT {keys} FROM {table} ORDER BY {string.Join(", ", keys.Split(", ").Select(k => k + order))} LIMIT {rows})";
                // From anywhere among what it may refer to, or what others have: not the same for all.
                var other = refersTo.TryGetValue(column, out var there) && there is not "blob" ? $"SELECT o.id FROM {there} o WHERE {table}.{first} IS NOT NULL ORDER BY (o.id * 7919 + {table}.{first} * {chance.Next(1, 10_000)}) % 1009 LIMIT 1"
                    : $"SELECT o.{column} FROM {table} o WHERE o.{column} IS NOT NULL LIMIT 1";
                c.Execute($"UPDATE OR IGNORE {table} SET {column} = ({other}) WHERE {Half(filled, half + 1)}");
                c.Execute($"UPDATE OR IGNORE {table} SET {column} = NULL WHERE {Half(emptied, half)}");
            }
        }
        all.Commit();
    }

    // Null where a parameter is of a kind that only a writer of whole rows takes.
    private static object?[]? Arguments(IDbConnection c, MethodInfo method, Random chance)
    {
        var given = new List<object?> { c };
        foreach (var p in method.GetParameters().Skip(1))
        {
            if (Value(c, p.ParameterType, chance) is not { } value)
            {
                if (Nullable.GetUnderlyingType(p.ParameterType) is null && !p.HasDefaultValue) return null;
                given.Add(null);
            }
            else given.Add(value);
        }
        return [.. given];
    }

    private static object? Value(IDbConnection c, Type type, Random chance)
    {
        if (Nullable.GetUnderlyingType(type) is { } inner) return chance.Next(2) == 0 ? null : Value(c, inner, chance);
        if (type == typeof(string)) return chance.Next(2) == 0 ? "a" : "2026";
        if (type == typeof(int)) return chance.Next(1, 100);
        if (type == typeof(long)) return (long)chance.Next(1, 30);
        if (type == typeof(bool)) return chance.Next(2) == 0;
        if (type == typeof(Instant)) return Instant.FromUtc(2027, 6, chance.Next(1, 28), 8, 0);
        if (type == typeof(LocalDate)) return new LocalDate(2027, 6, chance.Next(1, 28));
        if (type.IsEnum) return Enum.GetValues(type).GetValue(chance.Next(Enum.GetValues(type).Length));
        if (type.IsValueType && type.Name.EndsWith("Id", StringComparison.Ordinal) && type.Namespace == "SpringLoft.Core") return Id(c, type, chance);
        if (type.IsGenericType && type.GetGenericArguments() is [var one] && type.IsAssignableFrom(one.MakeArrayType()) && Value(c, one, chance) is { } first)
        {
            var many = Array.CreateInstance(one, 2);
            many.SetValue(first, 0);
            many.SetValue(Value(c, one, chance) ?? first, 1);
            return many;
        }
        return null;
    }

    private static object Id(IDbConnection c, Type type, Random chance)
    {
        var table = type.Name[..^2].ToLowerInvariant() switch { "year" => "school_year", "group" => "class_group", var name => name };
        var ids = c.Query<long>($"SELECT id FROM {table} ORDER BY id").ToList();
        return Activator.CreateInstance(type, ids.Count == 0 ? 1 : ids[chance.Next(ids.Count)])!;
    }

    private sealed class Undone : Exception;
}
