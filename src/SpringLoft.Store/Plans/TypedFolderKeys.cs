using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Microsoft.Data.Sqlite;
using SpringLoft.Core.Plans;

namespace SpringLoft.Store.Plans;

/// <summary>
/// The migration that turns keys of folders as they were, text in which an entry called "w3" looked like a week, into
/// <see cref="FolderKey"/>. What each part is, is read off the versions of the class's plan.
/// </summary>
internal static partial class TypedFolderKeys
{
    /// <summary>The statements that change a database file; names stand in them as bytes, so that nothing in a name can be taken for SQL.</summary>
    internal static string Script(string connectionString)
    {
        using var c = new SqliteConnection(connectionString);
        c.Open();
        var lines = c.Query<(long Plan, string Outline)>("SELECT plan_id, outline FROM plan_version ORDER BY plan_id, version").GroupBy(v => v.Plan).ToDictionary(g => g.Key, g => g.SelectMany(v => Lines(v.Outline)).ToList());
        var terms = c.Query<(long Year, string Name)>("SELECT year_id, name FROM term").ToLookup(t => t.Year, t => t.Name);
        var classes = c.Query<(long Id, long Year, long? Plan)>("SELECT id, year_id, plan_id FROM class").ToDictionary(k => k.Id, k => (k.Year, k.Plan));
        var script = new StringBuilder("SELECT 1;\n");
        Old Reader(long k, params long?[] plans) => new([.. plans.Where(p => p is not null && lines.ContainsKey(p.Value)).SelectMany(p => lines[p!.Value])], [.. terms[classes[k].Year]]);
        foreach (var folders in c.Query<(long Id, long Class, string Key, string? Above)>("SELECT f.id, f.class_id, f.plan_key, p.plan_key FROM folder f LEFT JOIN folder p ON p.id = f.parent_id WHERE f.plan_key IS NOT NULL").GroupBy(f => f.Class))
        {
            var read = Reader(folders.Key, classes[folders.Key].Plan);
            var taken = new HashSet<string>(StringComparer.Ordinal);
            // Two that cannot be told apart: the first has the place, the other stands beside the plan.
            foreach (var f in folders)
                script.AppendLine(read.Key(f.Key, f.Above).Text is var key && taken.Add(key) ? $"UPDATE folder SET plan_key = {Sql('~' + key)} WHERE id = {f.Id};" : $"UPDATE folder SET plan_key = NULL, given_name = NULL, given_rule = NULL, given_position = NULL WHERE id = {f.Id};");
        }
        script.AppendLine("UPDATE folder SET plan_key = substr(plan_key, 2) WHERE plan_key IS NOT NULL;");
        foreach (var (run, k, plan, before, steps) in c.Query<(long, long, long, long?, string)>("SELECT run_id, class_id, plan_id, plan_before, steps FROM plan_put WHERE steps <> ''"))
            script.AppendLine($"UPDATE plan_put SET steps = {Sql(Rewritten(steps, "planKey", Reader(k, plan, before)))} WHERE run_id = {run} AND class_id = {k};");
        foreach (var (id, undo) in c.Query<(long, string)>("SELECT id, undo FROM person_join"))
        {
            var root = JsonNode.Parse(undo)!;
            foreach (var key in root["Keys"]?.AsArray() ?? [])
                if (key!["Key"]?.GetValue<string>() is { } old && c.ExecuteScalar<long?>("SELECT class_id FROM folder WHERE id = @id", new { id = key["FolderId"]!.GetValue<long>() }) is { } k)
                    key["Key"] = Reader(k, classes[k].Plan).Key(old).Text;
            script.AppendLine($"UPDATE person_join SET undo = {Sql(root.ToJsonString())} WHERE id = {id};");
        }
        return script.ToString();
    }

    private static string Sql(string text) => $"CAST(X'{Convert.ToHexString(Encoding.UTF8.GetBytes(text))}' AS TEXT)";

    private static string Rewritten(string json, string property, Old read)
    {
        var root = JsonNode.Parse(json)!;
        void Walk(JsonNode? node)
        {
            if (node is JsonArray all) foreach (var one in all) Walk(one);
            if (node is not JsonObject o) return;
            foreach (var (name, value) in o.ToList())
                if (name == property && value is JsonValue text) o[name] = read.Key(text.GetValue<string>()).Text;
                else Walk(value);
        }
        Walk(root);
        return root.ToJsonString();
    }

    private static IEnumerable<OldLine> Lines(string outline)
    {
        IEnumerable<OldLine> Of(JsonElement level) => level.EnumerateArray().SelectMany(l => Of(l.GetProperty("within")).Prepend(
            new(l.GetProperty("key").GetString()!, Enum.Parse<Stands>(l.GetProperty("stands").GetString()!), [.. l.GetProperty("entries").EnumerateArray().Select(e => e.GetString()!)])));
        return Of(JsonDocument.Parse(outline).RootElement);
    }

    private sealed record OldLine(string Key, Stands Stands, IReadOnlyList<string> Entries);

    // A key of before: lines with slashes between, a mark after a colon that only its line can tell.
    private sealed partial class Old(IReadOnlyList<OldLine> lines, IReadOnlyList<string> terms)
    {
        /// <param name="above">The key of the folder that it stands in: where one begins with the other, only the rest is to be read.</param>
        internal FolderKey Key(string text, string? above = null)
        {
            if (above is not null && text.StartsWith(above + '/', StringComparison.Ordinal) && Parts(text[(above.Length + 1)..]) is { } inside)
                return inside.Aggregate(Key(above), (k, p) => k.Below(p.Line, p.Mark));
            var parts = Parts(text) ?? [.. text.Split('/').Select(p => p.Split(':', 2)).Select(p => new FolderKeyPart(p[0], p.Length > 1 ? Shaped(p[1]) ?? new FolderMark.Entry(p[1]) : null))];
            var key = FolderKey.Top(parts[0].Line, parts[0].Mark);
            foreach (var p in parts.Skip(1)) key = key.Below(p.Line, p.Mark);
            return key;
        }

        // The longest names first: an entry "Clay/l2" is not the entry "Clay" with a line l2 in it, where both can be.
        private List<FolderKeyPart>? Parts(string text)
        {
            foreach (var line in lines.Where(l => text.StartsWith(l.Key, StringComparison.Ordinal)).OrderByDescending(l => l.Key.Length))
                foreach (var (mark, length) in Marks(line, text[line.Key.Length..]))
                {
                    var rest = text[(line.Key.Length + length)..];
                    if (rest.Length == 0) return [new(line.Key, mark)];
                    if (rest[0] == '/' && Parts(rest[1..]) is { } below) return [new(line.Key, mark), .. below];
                }
            return null;
        }

        private IEnumerable<(FolderMark? Mark, int Length)> Marks(OldLine line, string rest)
        {
            if (line.Stands == Stands.Once) return [(null, 0)];
            if (!rest.StartsWith(':')) return [];
            var here = rest[1..];
            return line.Stands switch
            {
                Stands.EachEntry => Named(line.Entries, e => new FolderMark.Entry(e)),
                Stands.EachTerm => Named(terms, t => new FolderMark.Term(t)),
                _ => here.Split('/')[0] is var mark && Shaped(mark) is { } shaped ? [(shaped, 1 + mark.Length)] : [],
            };
            IEnumerable<(FolderMark?, int)> Named(IReadOnlyList<string> names, Func<string, FolderMark> one) =>
                names.Where(n => here.StartsWith(n, StringComparison.Ordinal)).Distinct().OrderByDescending(n => n.Length).Select(n => ((FolderMark?)one(n), 1 + n.Length));
        }

        private static FolderMark? Shaped(string mark)
        {
            if (Shape().Match(mark) is not { Success: true } m) return null;
            IsoDayOfWeek? day = m.Groups["day"].Success ? (IsoDayOfWeek)int.Parse(m.Groups["day"].ValueSpan, CultureInfo.InvariantCulture) : null;
            if (m.Groups["week"].Success) return new FolderMark.Week(int.Parse(m.Groups["week"].ValueSpan, CultureInfo.InvariantCulture), day);
            if (m.Groups["group"].Success) return new FolderMark.Group(new(long.Parse(m.Groups["group"].ValueSpan, CultureInfo.InvariantCulture)));
            if (m.Groups["student"].Success) return new FolderMark.Student(new(long.Parse(m.Groups["student"].ValueSpan, CultureInfo.InvariantCulture)));
            return NodaTime.Text.LocalDatePattern.CreateWithInvariantCulture("uuuuMMdd").Parse(m.Groups["gone"].Value) is { Success: true } began ? new FolderMark.GoneWeek(began.Value, day) : null;
        }

        [GeneratedRegex(@"^(?:(?:w(?<week>[0-9]{1,6})|gone(?<gone>[0-9]{8}))(?:-(?<day>[1-7]))?|g(?<group>[0-9]{1,18})|(?<student>[0-9]{1,18}))$")]
        private static partial Regex Shape();
    }
}
