using System.IO.Compression;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Routing;
using SpringLoft.Formats.Csv;

namespace SpringLoft.StandIns;

/// <summary>
/// A stand-in for the school's records: the rosters of a bundle on the disk, over the REST interface of OneRoster 1.2, with
/// OAuth 2 client credentials (RFC 6749, section 4.4). It reads the bundle anew at each request, so that it can be changed.
/// </summary>
/// <param name="bundle">Path of a zip of CSV files; without it every list is empty.</param>
public sealed class RecordsService(string bundle)
{
    /// <summary>The client that it knows.</summary>
    public const string ClientId = "spring-loft";

    /// <summary>That client's secret: a stand-in keeps no real one.</summary>
    public const string ClientSecret = "only-a-stand-in";

    private const int Lives = 3600;
    private readonly string token = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(16));

    /// <summary>Puts it at an address.</summary>
    public void Map(IEndpointRouteBuilder routes)
    {
        routes.MapPost("/token", Token).DisableAntiforgery().ExcludeFromDescription();
        foreach (var what in (string[])["orgs", "academicSessions", "courses", "classes", "users", "enrollments"])
            routes.MapGet($"/ims/oneroster/rostering/v1p2/{what}", (HttpRequest request, HttpResponse response, int? limit, int? offset) => Page(what, request, response, limit ?? 100, offset ?? 0)).ExcludeFromDescription();
    }

    private async Task<IResult> Token(HttpRequest request)
    {
        var form = request.HasFormContentType ? await request.ReadFormAsync().ConfigureAwait(false) : null;
        // Section 5.2: what is wrong is told as "error".
        if (form?["grant_type"].ToString() != "client_credentials") return Results.Json(new { error = form is null ? "invalid_request" : "unsupported_grant_type" }, statusCode: 400);
        var header = request.Headers.Authorization.ToString();
        string[] said = [];
        if (header.StartsWith("Basic ", StringComparison.OrdinalIgnoreCase))
            try { said = Encoding.UTF8.GetString(Convert.FromBase64String(header[6..])).Split(':', 2); }
            catch (FormatException) { /* answered below */ }
        if (said.Length != 2 || Uri.UnescapeDataString(said[0]) != ClientId || Uri.UnescapeDataString(said[1]) != ClientSecret)
        {
            request.HttpContext.Response.Headers.WWWAuthenticate = "Basic";
            return Results.Json(new { error = "invalid_client" }, statusCode: 401);
        }
        request.HttpContext.Response.Headers.CacheControl = "no-store";
        return Results.Json(new { access_token = token, token_type = "Bearer", expires_in = Lives });
    }

    private IResult Page(string what, HttpRequest request, HttpResponse response, int limit, int offset)
    {
        if (request.Headers.Authorization.ToString() != $"Bearer {token}") return Results.Json(new { imsx_codeMajor = "failure", imsx_severity = "error" }, statusCode: 401);
        var rows = Rows(what);
        response.Headers["X-Total-Count"] = rows.Count.ToString(System.Globalization.CultureInfo.InvariantCulture);
        var roles = what == "users" ? Rows("roles").ToLookup(r => r["userSourcedId"] ?? "", r => r["role"]) : null;
        return Results.Json(new JsonObject { [what] = new JsonArray([.. rows.Skip(offset).Take(limit).Select(r => (JsonNode)Say(what, r, roles))]) });
    }

    private IReadOnlyList<CsvRow> Rows(string name)
    {
        if (!File.Exists(bundle)) return [];
        using var zip = ZipFile.OpenRead(bundle);
        if (zip.GetEntry($"{name}.csv") is not { } entry) return [];
        using var open = entry.Open();
        return CsvRows.Read(open, $"{name}.csv", []);
    }

    private static JsonObject Say(string what, CsvRow r, ILookup<string, string?>? roles)
    {
        JsonObject Ref(string? id, string type) => new() { ["sourcedId"] = id, ["type"] = type };
        JsonArray List(string? text) => [.. (text ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries).Select(x => (JsonNode)x)];
        var o = new JsonObject { ["sourcedId"] = r["sourcedId"], ["status"] = r["status"] ?? "active" };
        foreach (var name in what switch
        {
            "orgs" => (string[])["name", "type"],
            "academicSessions" => ["title", "type", "startDate", "endDate", "schoolYear"],
            "courses" => ["title", "courseCode"],
            "classes" => ["title", "classCode", "location"],
            "users" => ["username", "enabledUser", "givenName", "familyName", "identifier", "email"],
            _ => ["role", "primary"],
        }) o[name] = r[name];
        switch (what)
        {
            case "classes":
                o["course"] = Ref(r["courseSourcedId"], "course");
                o["terms"] = new JsonArray([.. (r["termSourcedIds"] ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries).Select(t => (JsonNode)Ref(t, "academicSession"))]);
                o["periods"] = List(r["periods"]);
                break;
            case "users":
                o["grades"] = List(r["grades"]);
                o["primaryOrg"] = Ref(r["primaryOrgSourcedId"], "org");
                o["roles"] = new JsonArray([.. roles![r["sourcedId"] ?? ""].Select(role => (JsonNode)new JsonObject { ["roleType"] = "primary", ["role"] = role })]);
                break;
            case "enrollments":
                o["class"] = Ref(r["classSourcedId"], "class");
                o["user"] = Ref(r["userSourcedId"], "user");
                break;
        }
        return o;
    }
}
