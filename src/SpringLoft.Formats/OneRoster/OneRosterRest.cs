using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using SpringLoft.Core;
using SpringLoft.Formats.Csv;

namespace SpringLoft.Formats.OneRoster;

/// <summary>Where the records are reached, and as whom.</summary>
/// <param name="Address">What stands before /token and /ims/oneroster/rostering/v1p2.</param>
public sealed record RecordsAddress(Uri Address, string ClientId, string ClientSecret);

/// <summary>
/// Fetches rosters over the REST interface of OneRoster 1.2 (1EdTech, "OneRoster Rostering REST Binding"; addresses and
/// property names are from memory of that document), signed in by OAuth 2 client credentials (RFC 6749, section 4.4),
/// and writes them as a CSV bundle, so that a feed is read like a file.
/// </summary>
public sealed class OneRosterRest(HttpClient http, RecordsAddress at)
{
    private const int PageSize = 5000;
    private const int MostPages = 400;
    private string? token;

    /// <summary>Fetches everything and writes it as a bundle.</summary>
    /// <exception cref="RefusedException"><c>feed-refused</c> if the records do not know us; <c>feed-answer</c> for an answer that is none of OneRoster; <c>feed-unreachable</c>.</exception>
    public async Task Fetch(Stream to, CancellationToken stop)
    {
        try
        {
            using var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true);
            Write(zip, "manifest.csv", ["propertyName", "value"], [["manifest.version", "1.0"], ["oneroster.version", "1.2"], ["file.orgs", "bulk"], ["file.academicSessions", "bulk"], ["file.courses", "bulk"], ["file.classes", "bulk"], ["file.users", "bulk"], ["file.enrollments", "bulk"]]);
            Write(zip, "orgs.csv", ["sourcedId", "status", "name", "type"], await All("orgs", o => [Text(o, "sourcedId"), Text(o, "status"), Text(o, "name"), Text(o, "type")], stop).ConfigureAwait(false));
            Write(zip, "academicSessions.csv", ["sourcedId", "status", "title", "type", "startDate", "endDate"],
                await All("academicSessions", o => [Text(o, "sourcedId"), Text(o, "status"), Text(o, "title"), Text(o, "type"), Text(o, "startDate"), Text(o, "endDate")], stop).ConfigureAwait(false));
            Write(zip, "courses.csv", ["sourcedId", "status", "title"], await All("courses", o => [Text(o, "sourcedId"), Text(o, "status"), Text(o, "title")], stop).ConfigureAwait(false));
            Write(zip, "classes.csv", ["sourcedId", "status", "title", "courseSourcedId", "classCode", "location", "termSourcedIds", "periods"],
                await All("classes", o => [Text(o, "sourcedId"), Text(o, "status"), Text(o, "title"), Ref(o, "course"), Text(o, "classCode"), Text(o, "location"), Refs(o, "terms"), Texts(o, "periods")], stop).ConfigureAwait(false));
            Write(zip, "users.csv", ["sourcedId", "status", "enabledUser", "username", "givenName", "familyName", "identifier", "email", "grades", "role", "primaryOrgSourcedId"],
                await All("users", o => [Text(o, "sourcedId"), Text(o, "status"), Text(o, "enabledUser"), Text(o, "username"), Text(o, "givenName"), Text(o, "familyName"), Text(o, "identifier"), Text(o, "email"), Texts(o, "grades"), Role(o), Ref(o, "primaryOrg")], stop).ConfigureAwait(false));
            Write(zip, "enrollments.csv", ["sourcedId", "status", "classSourcedId", "userSourcedId", "role", "primary"],
                await All("enrollments", o => [Text(o, "sourcedId"), Text(o, "status"), Ref(o, "class"), Ref(o, "user"), Text(o, "role"), Text(o, "primary")], stop).ConfigureAwait(false));
        }
        catch (HttpRequestException e) { throw new RefusedException("feed-unreachable", $"{at.Address.Host} can't be read: {WhyUnreachable.Of(e)}.", "Check the address, and whether the school's records are running; records in the school's own network are asked only where the operator has set SPRING_LOFT_INSIDE.", "address"); }
        catch (TaskCanceledException) when (!stop.IsCancellationRequested) { throw new RefusedException("feed-unreachable", $"{at.Address.Host} did not answer in time.", "Try again later.", "address"); }
        catch (JsonException) { throw new RefusedException("feed-answer", $"{at.Address.Host} answers with something that is no OneRoster.", "Check the address.", "address"); }
    }

    private async Task<List<string?[]>> All(string what, Func<JsonElement, string?[]> row, CancellationToken stop)
    {
        var rows = new List<string?[]>();
        for (var page = 0; page < MostPages; page++)
        {
            using var answer = await Get($"ims/oneroster/rostering/v1p2/{what}?limit={PageSize}&offset={page * PageSize}", stop).ConfigureAwait(false);
            var body = await answer.Content.ReadAsStreamAsync(stop).ConfigureAwait(false);
            await using (body.ConfigureAwait(false))
            {
                using var document = await JsonDocument.ParseAsync(body, cancellationToken: stop).ConfigureAwait(false);
                if (document.RootElement.ValueKind != JsonValueKind.Object || !document.RootElement.TryGetProperty(what, out var list) || list.ValueKind != JsonValueKind.Array)
                    throw new RefusedException("feed-answer", $"The answer for {what} has no list “{what}”.", "Check that the address is one of OneRoster 1.2.", "address");
                var before = rows.Count;
                foreach (var o in list.EnumerateArray()) rows.Add(row(o));
                if (rows.Count - before < PageSize) return rows;
            }
        }
        throw new RefusedException("too-many", $"There are more than {MostPages * PageSize} {what}.", "Ask for a feed of one school.", "address");
    }

    private async Task<HttpResponseMessage> Get(string path, CancellationToken stop)
    {
        for (var again = false; ; again = true)
        {
            token ??= await Token(stop).ConfigureAwait(false);
            using var request = new HttpRequestMessage(HttpMethod.Get, new Uri(Root, path));
            request.Headers.Authorization = new AuthenticationHeaderValue("Bearer", token);
            var answer = await http.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, stop).ConfigureAwait(false);
            if (answer.IsSuccessStatusCode) return answer;
            var status = answer.StatusCode;
            answer.Dispose();
            // A token that has run out is asked for once more; then we are not wanted.
            if (status == HttpStatusCode.Unauthorized && !again) { token = null; continue; }
            throw new RefusedException(status is HttpStatusCode.Unauthorized or HttpStatusCode.Forbidden ? "feed-refused" : "feed-answer", $"{path.Split('?')[0]} was answered with {(int)status}.", "Check the address, the client id and its secret with those who run the records.", "address");
        }
    }

    // RFC 6749, sections 4.4.2 and 2.3.1: client credentials in the Authorization header, form-encoded first.
    private async Task<string> Token(CancellationToken stop)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, new Uri(Root, "token")) { Content = new FormUrlEncodedContent([new("grant_type", "client_credentials"), new("scope", "https://purl.imsglobal.org/spec/or/v1p2/scope/roster-core.readonly")]) };
        request.Headers.Authorization = new AuthenticationHeaderValue("Basic", Convert.ToBase64String(Encoding.UTF8.GetBytes($"{Uri.EscapeDataString(at.ClientId)}:{Uri.EscapeDataString(at.ClientSecret)}")));
        using var answer = await http.SendAsync(request, stop).ConfigureAwait(false);
        var text = await answer.Content.ReadAsStringAsync(stop).ConfigureAwait(false);
        using var document = JsonDocument.Parse(text.Length == 0 ? "{}" : text);
        if (!answer.IsSuccessStatusCode)
            throw new RefusedException("feed-refused", $"The records do not let us in: {Known(Text(document.RootElement, "error")) ?? $"they answer {(int)answer.StatusCode}"}.", "Check the client id and its secret.", "clientId");
        // Section 5.1: the type says how the token is to be used, whatever its case.
        if (Text(document.RootElement, "access_token") is not { } made || !string.Equals(Text(document.RootElement, "token_type"), "bearer", StringComparison.OrdinalIgnoreCase))
            throw new RefusedException("feed-answer", "The records gave no bearer token.", "Check the address.", "address");
        return made;
    }

    // RFC 6749, section 5.2: the codes that an error can have. What else stands there is somebody's text.
    private static string? Known(string? error) => error is "invalid_request" or "invalid_client" or "invalid_grant" or "unauthorized_client" or "unsupported_grant_type" or "invalid_scope" ? error : null;

    private Uri Root => new(at.Address.AbsoluteUri.TrimEnd('/') + "/");

    private static void Write(ZipArchive zip, string name, string[] header, IEnumerable<string?[]> rows)
    {
        using var open = zip.CreateEntry(name, CompressionLevel.Fastest).Open();
        CsvTable.Write(open, header, rows);
    }

    private static string? Text(JsonElement o, string name) => o.ValueKind == JsonValueKind.Object && o.TryGetProperty(name, out var v) ? v.ValueKind switch { JsonValueKind.String => v.GetString(), JsonValueKind.Null => null, JsonValueKind.True => "true", JsonValueKind.False => "false", _ => v.GetRawText() } : null;

    private static string? Ref(JsonElement o, string name) => o.TryGetProperty(name, out var v) ? Text(v, "sourcedId") : null;

    private static string? Refs(JsonElement o, string name) => o.TryGetProperty(name, out var v) && v.ValueKind == JsonValueKind.Array ? string.Join(",", v.EnumerateArray().Select(x => Text(x, "sourcedId"))) : null;

    private static string? Texts(JsonElement o, string name) => o.TryGetProperty(name, out var v) && v.ValueKind == JsonValueKind.Array ? string.Join(",", v.EnumerateArray().Select(x => x.ToString())) : null;

    private static string? Role(JsonElement o)
    {
        if (!o.TryGetProperty("roles", out var roles) || roles.ValueKind != JsonValueKind.Array) return Text(o, "role");
        var all = roles.EnumerateArray().ToList();
        var primary = all.FirstOrDefault(r => Text(r, "roleType") == "primary");
        return primary.ValueKind == JsonValueKind.Object ? Text(primary, "role") : all.Count > 0 ? Text(all[0], "role") : null;
    }
}
