using System.Text.Json;
using System.Text.Json.Serialization;
using SpringLoft.App.People;
using SpringLoft.Core.People;

namespace SpringLoft.Server.Hosting;

/// <summary>Which claims of a provider say by what somebody is known here; null for one that says nothing.</summary>
internal sealed record KnownByClaims(string? RecordId, string? StudentNumber, string? Email, string? UserName)
{
    /// <summary>OpenID Connect Core 1.0, section 5.1.</summary>
    internal static readonly KnownByClaims Standard = new(null, null, "email", "preferred_username");
}

/// <summary>Which groups come in as what.</summary>
/// <param name="Claim">The claim in which groups are told.</param>
internal sealed record GroupClaims(string? Claim, IReadOnlyList<string>? Staff, IReadOnlyList<string>? Students);

/// <summary>A provider of single sign-on, as the operator writes it.</summary>
/// <param name="Key">In addresses: small letters, digits and dashes.</param>
/// <param name="EmailsAreChecked">True if an e-mail is believed without the provider's saying that it was checked.</param>
/// <param name="PasswordsOff">For whom passwords are switched off once they have signed in here.</param>
/// <param name="SecondStep">Methods of RFC 8176 that count as a second step.</param>
internal sealed record ProviderSettings(
    string? Key, string? Name, string? Issuer, string? ClientId, string? ClientSecret, IReadOnlyList<string>? Scopes, KnownByClaims? KnownBy, bool EmailsAreChecked,
    GroupClaims? Groups, PasswordsOffFor PasswordsOff, IReadOnlyList<string>? SecondStep)
{
    /// <summary>The provider as the rest of the program knows it.</summary>
    internal Provider Provider() => new(Key!, Issuer!, new(Name!, PasswordsOff, EmailsAreChecked, Set(Groups?.Staff), Set(Groups?.Students), Set(SecondStep)));

    private static HashSet<string> Set(IReadOnlyList<string>? of) => [.. of ?? []];
}

/// <summary>Reads the operator's file of providers. What is wrong in it is told at the start, with its place.</summary>
internal static partial class ProviderFile
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        ReadCommentHandling = JsonCommentHandling.Skip,
        AllowTrailingCommas = true,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
    };

    /// <summary>Reads it; empty where none is named.</summary>
    /// <param name="openToo">True where a provider may be reached without TLS.</param>
    /// <exception cref="ArgumentException">It can't be used; with what is wrong, where, and what belongs there.</exception>
    internal static IReadOnlyList<ProviderSettings> Read(string? path, bool openToo)
    {
        if (string.IsNullOrEmpty(path)) return [];
        string Said(string what) => $"SPRING_LOFT_PROVIDERS, {path}: {what}";
        string text;
        try { text = File.ReadAllText(path); }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException) { throw new ArgumentException(Said($"it can't be read: {e.Message}")); }
        List<ProviderSettings?>? all;
        try { all = JsonSerializer.Deserialize<List<ProviderSettings?>>(text, Options); }
        catch (JsonException e) { throw new ArgumentException(Said($"line {(e.LineNumber ?? 0) + 1}, at {e.Path}: that is no list of providers as docs/running.md shows it.")); }
        if (all is null) throw new ArgumentException(Said("there is no list in it."));
        for (var i = 0; i < all.Count; i++)
        {
            var p = all[i];
            string Wrong(string field, string mend) => Said($"entry {i + 1}, “{field}”: {mend}");
            if (p is null) throw new ArgumentException(Said($"entry {i + 1} is empty."));
            if (p.Key is null || !KeyForm().IsMatch(p.Key)) throw new ArgumentException(Wrong("key", "up to 30 small letters, digits and dashes belong there; it stands in addresses."));
            if (all.Take(i).Any(o => o!.Key == p.Key)) throw new ArgumentException(Wrong("key", $"“{p.Key}” stands there twice."));
            if (string.IsNullOrWhiteSpace(p.Name) || p.Name.Length > 60) throw new ArgumentException(Wrong("name", "the name that people read belongs there, of at most 60 letters."));
            if (!Uri.TryCreate(p.Issuer, UriKind.Absolute, out var issuer) || issuer.Scheme is not ("https" or "http") || issuer.Query.Length > 0 || issuer.Fragment.Length > 0)
                throw new ArgumentException(Wrong("issuer", "the provider's address belongs there, as it stands in its own description."));
            if (issuer.Scheme != "https" && !openToo) throw new ArgumentException(Wrong("issuer", "it is reached without TLS: everybody on the way could sign in as anybody. Use its https address."));
            if (all.Take(i).Any(o => o!.Issuer == p.Issuer)) throw new ArgumentException(Wrong("issuer", $"“{p.Issuer}” stands there twice."));
            if (string.IsNullOrWhiteSpace(p.ClientId)) throw new ArgumentException(Wrong("clientId", "what the provider calls this program belongs there."));
            if (p.Groups is { } g && (string.IsNullOrWhiteSpace(g.Claim) || ((g.Staff?.Count ?? 0) == 0 && (g.Students?.Count ?? 0) == 0)))
                throw new ArgumentException(Wrong("groups", "the claim belongs there, and groups of staff, of students, or both."));
        }
        return [.. all!];
    }

    [System.Text.RegularExpressions.GeneratedRegex("^[a-z0-9-]{1,30}$")]
    private static partial System.Text.RegularExpressions.Regex KeyForm();
}
