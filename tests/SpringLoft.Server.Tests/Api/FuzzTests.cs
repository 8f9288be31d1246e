using System.Collections.Concurrent;
using System.Globalization;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using SpringLoft.App.People;
using SpringLoft.Store.People;

namespace SpringLoft.Server.Tests.Api;

/// <summary>
/// Every operation of the OpenAPI document as everybody, with bodies that are right, bent and missing: nothing ends in a
/// fault of the server, and every refusal is Problem Details (RFC 9457) with a code. The same requests each time: the seed is fixed.
/// </summary>
public sealed class FuzzTests : IDisposable
{
    private const int Requests = 10_000;
    private const int AtOnce = 6;

    private static readonly string?[] Roles = [null, "out", "umi", "other", "co", "lead", "coord"];

    private static readonly string Hash = SigningIn.Hash(TinySchool.Password);

    private readonly TinySchool school = new();
    private readonly RealServer server;
    private readonly JsonNode contract = JsonNode.Parse(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "../../../../../client/src/api/openapi.json")))!;

    public FuzzTests()
    {
        school.OpenClass();
        school.Put(school.Lead, "Papers", "plan.txt", "the plan").Wait();
        school.HandIn(school.Umi, school.Assign()).Wait();
        server = RealServer.Start(school.Folder);
    }

    [Fact]
    public async Task No_request_ends_in_a_fault_and_every_refusal_explains_itself()
    {
        var operations = contract["paths"]!.AsObject().SelectMany(p => p.Value!.AsObject().Select(o => (Path: p.Key, Method: o.Key.ToUpperInvariant(), Operation: o.Value!))).ToList();
        var faults = new ConcurrentBag<string>();
        var answers = new ConcurrentDictionary<int, int>();

        await Task.WhenAll(Enumerable.Range(0, AtOnce).Select(async lane =>
        {
            var chance = new Random(1000 + lane);
            var clients = new Dictionary<string, HttpClient>();
            for (var i = 0; i < Requests / AtOnce; i++)
            {
                var (path, method, operation) = operations[chance.Next(operations.Count)];
                var role = Roles[chance.Next(Roles.Length)];
                if (!clients.TryGetValue(role ?? "", out var http)) clients[role ?? ""] = http = await SignedIn(role);
                using var request = Request(path, method, operation, chance, out var told);
                using var answer = await http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
                var status = (int)answer.StatusCode;
                answers.AddOrUpdate(status, 1, (_, n) => n + 1);
                if (status == 401 && role is not null) clients.Remove(role);
                if (status < 400) continue;
                var code = await answer.Code();
                if (status >= 500 || code.Length == 0) faults.Add($"{status} “{code}” as {role ?? "nobody"}: {told} → {Short(await answer.Content.ReadAsStringAsync())}");
            }
        }));

        if (!faults.IsEmpty) Assert.Fail($"{faults.Count} requests:\n{string.Join('\n', faults.Select(f => f.Length > 700 ? f[..700] : f).OrderDescending().Take(60))}\nThe program noted:\n{string.Join('\n', Exceptions())}");
        answers.Keys.Count.ShouldBeGreaterThan(4, "much is refused for many reasons, and much is done");
        answers.Where(a => a.Key < 300).Sum(a => a.Value).ShouldBeGreaterThan(Requests / 20);
        school.Read(c => Dapper.SqlMapper.ExecuteScalar<string>(c, "PRAGMA integrity_check")).ShouldBe("ok");
        school.Read(c => Dapper.SqlMapper.Query(c, "PRAGMA foreign_key_check").Count()).ShouldBe(0);
    }

    // The beginning of each exception in the log, each kind once.
    private IEnumerable<string> Exceptions() => Directory.GetFiles(Path.Combine(school.Folder, "logs")).SelectMany(f =>
        {
            using var log = new StreamReader(new FileStream(f, FileMode.Open, FileAccess.Read, FileShare.ReadWrite));
            return log.ReadToEnd().Split('\n');
        })
        .Where(l => l.Contains("\"@x\":", StringComparison.Ordinal)).Select(l => (string)JsonNode.Parse(l)!["@x"]!)
        .Select(x => string.Join("\n    ", x.Split('\n').Where((l, i) => i == 0 || l.Contains("SpringLoft", StringComparison.Ordinal)).Take(4).Select(l => "> " + l.Trim()))).Distinct().Take(40);

    private static string Short(string text) => text.Length > 200 ? text[..200] : text;

    // Whoever was shut out by a request before is let in again.
    private async Task<HttpClient> SignedIn(string? role)
    {
        if (role is null) return server.Nobody();
        // Not as a new password, so that the others who are signed in as that person stay so.
        school.Premises.Db.Write(c =>
        {
            var p = PersonStore.ByUserName(c, role)!;
            Dapper.SqlMapper.Execute(c, "UPDATE person SET active = 1 WHERE id = @id", new { id = p.Id.Value });
            PersonStore.Rehash(c, p.Id, Hash);
            Dapper.SqlMapper.Execute(c, "UPDATE sign_in SET must_change = 0 WHERE person_id = @id", new { id = p.Id.Value });
            SignInTryStore.Forget(c, role);
        });
        var http = server.Nobody();
        using var answer = await http.PostAsync("/api/sign-in", new StringContent(JsonSerializer.Serialize(new { userName = role, password = TinySchool.Password }), Encoding.UTF8, "application/json"));
        return http;
    }

    private HttpRequestMessage Request(string path, string method, JsonNode operation, Random chance, out string told)
    {
        var query = new List<string>();
        foreach (var p in operation["parameters"]?.AsArray() ?? [])
        {
            var name = (string)p!["name"]!;
            if ((string)p["in"]! == "path") path = path.Replace($"{{{name}}}", InPath(p["schema"]!, chance), StringComparison.Ordinal);
            else if ((string)p["in"]! == "query" && chance.Next(4) > 0) query.Add($"{name}={InPath(p["schema"]!, chance)}");
        }
        if (query.Count > 0) path += "?" + string.Join('&', query);
        var request = new HttpRequestMessage(new HttpMethod(method), path);
        told = $"{method} {path}";
        if (operation["requestBody"]?["content"] is not JsonObject content) return request;
        var (type, shape) = content.First();
        if (type == "application/octet-stream")
        {
            var bytes = new byte[chance.Next(300)];
            chance.NextBytes(bytes);
            if (chance.Next(2) == 0 && bytes.Length > 4) (bytes[0], bytes[1], bytes[2], bytes[3]) = ((byte)'P', (byte)'K', 3, 4);
            request.Content = new ByteArrayContent(bytes);
            request.Content.Headers.ContentType = new(type);
            return request;
        }
        if (chance.Next(25) == 0) return request;
        var body = Value(shape!["schema"]!, chance, 0);
        for (var n = chance.Next(4); n > 1; n--) body = Bent(body, chance);
        var text = body?.ToJsonString() ?? "null";
        if (chance.Next(30) == 0) text = text[..chance.Next(text.Length)];
        told += " " + Short(text);
        request.Content = new StringContent(text, Encoding.UTF8);
        request.Content.Headers.ContentType = MediaTypeHeaderValue.Parse(chance.Next(60) switch { 0 => "application/json; charset=foo", 1 => "text/plain", 2 => "application/json; charset=utf-16", _ => "application/json" });
        if (chance.Next(3) == 0) request.Headers.Add("Idempotency-Key", $"{chance.Next(50)}");
        return request;
    }

    private static string InPath(JsonNode schema, Random chance) => (Type(schema), chance.Next(12)) switch
    {
        // A zero byte the web server itself refuses, before any code of ours runs.
        (_, 0) => chance.Next(2) == 0 ? "%00" : "%01",
        (_, 1) => "..%2F..%2Fetc",
        ("integer", 2) => "0",
        ("integer", 3) => "-1",
        ("integer", 4) => "9223372036854775807",
        ("integer", 5) => "99999999999999999999",
        ("integer", _) => chance.Next(1, 6).ToString(CultureInfo.InvariantCulture),
        ("boolean", _) => chance.Next(2) == 0 ? "true" : "false",
        (_, 2) => Uri.EscapeDataString(new string('x', 3000)),
        (_, 3) => "%F0%9F%98%80",
        _ => "2026-09-0" + chance.Next(1, 9),
    };

    private static string Type(JsonNode schema) => schema["type"] switch
    {
        JsonArray many => many.Select(t => (string)t!).First(t => t != "null"),
        JsonNode one => (string)one!,
        _ => "string",
    };

    private JsonNode? Value(JsonNode schema, Random chance, int depth)
    {
        if ((string?)schema["$ref"] is { } to) return Value(contract["components"]!["schemas"]![to.Split('/')[^1]]!, chance, depth);
        if (schema["oneOf"] is JsonArray some) return Value(some.Last()!, chance, depth);
        if (schema["enum"] is JsonArray of) return of[chance.Next(of.Count)]!.DeepClone();
        if (depth > 6) return null;
        switch (Type(schema))
        {
            case "object":
                var o = new JsonObject();
                foreach (var (name, inner) in schema["properties"]?.AsObject() ?? []) o[name] = Value(inner!, chance, depth + 1);
                return o;
            case "array":
                return new JsonArray([.. Enumerable.Range(0, chance.Next(4)).Select(_ => Value(schema["items"]!, chance, depth + 1))]);
            case "integer": return chance.Next(-1, 8);
            case "number": return Math.Round((chance.NextDouble() * 50) - 5, 2);
            case "boolean": return chance.Next(2) == 0;
            default:
                return (string?)schema["format"] == "date" ? $"2026-{chance.Next(1, 13):00}-{chance.Next(1, 28):00}"
                    : chance.Next(8) switch { 0 => "", 1 => new string('n', 5000), 2 => "../../x", 3 => "a\u0000b", 4 => "\ud83d\ude00", 5 => "1001", _ => $"Name {chance.Next(30)}" };
        }
    }

    // One place of a body made something that nobody meant.
    private static JsonNode? Bent(JsonNode? body, Random chance)
    {
        var places = new List<Action<JsonNode?>>();
        void Walk(JsonNode? node)
        {
            if (node is JsonObject o)
                foreach (var (name, value) in o.ToList())
                {
                    places.Add(v => o[name] = v);
                    places.Add(_ => o.Remove(name));
                    Walk(value);
                }
            if (node is JsonArray a)
                for (var i = 0; i < a.Count; i++)
                {
                    var at = i;
                    places.Add(v => a[at] = v);
                    places.Add(v => a.Add(v));
                    Walk(a[i]);
                }
        }
        Walk(body);
        if (places.Count == 0) return null;
        places[chance.Next(places.Count)](chance.Next(9) switch
        {
            0 or 1 or 2 => null,
            3 => new JsonArray((JsonNode?)null),
            4 => new JsonObject(),
            5 => "not this",
            6 => -1,
            7 => JsonNode.Parse("1e308"),
            _ => true,
        });
        return body;
    }

    public void Dispose()
    {
        server.Dispose();
        school.Dispose();
    }
}
