using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Microsoft.IdentityModel.JsonWebTokens;
using Microsoft.IdentityModel.Tokens;

namespace SpringLoft.Server.Tests.People;

/// <summary>
/// A provider of OpenID Connect written by hand, on a port of its own, that can be told to say what the standard forbids. Whoever
/// comes is signed in as <see cref="Subject"/> without being asked.
/// </summary>
internal sealed class OwnProvider : IAsyncDisposable
{
    internal const string Client = "spring-loft", Secret = "a-secret-of-the-test";
    private readonly RSA rsa = RSA.Create(2048);
    private readonly RSA strange = RSA.Create(2048);
    private readonly ConcurrentDictionary<string, (string Nonce, string Challenge)> codes = new();
    private WebApplication app = null!;

    private OwnProvider() { }

    internal string Issuer { get; private set; } = "";
    internal string Subject { get; set; } = "sub-1";
    internal Dictionary<string, object> Claims { get; set; } = [];

    /// <summary>Changes the identity token before it is signed.</summary>
    internal Action<Dictionary<string, object>> Twist { get; set; } = _ => { };

    /// <summary>How it is signed.</summary>
    internal Func<SigningCredentials?>? Signs { get; set; }

    /// <summary>What comes back in place of a code; null for a code.</summary>
    internal string? Error { get; set; }

    /// <summary>True if the last code was asked for with PKCE and S256, and exchanged with what belongs to it.</summary>
    internal bool Proved { get; private set; }

    internal SigningCredentials Own => new(new RsaSecurityKey(rsa) { KeyId = "k1" }, SecurityAlgorithms.RsaSha256);

    internal SigningCredentials OfAStranger => new(new RsaSecurityKey(strange) { KeyId = "k1" }, SecurityAlgorithms.RsaSha256);

    internal static SigningCredentials ByTheSecret => new(new SymmetricSecurityKey(Encoding.UTF8.GetBytes(Secret.PadRight(64, '-'))) { KeyId = "k1" }, SecurityAlgorithms.HmacSha256);

    internal static async Task<OwnProvider> Start()
    {
        var provider = new OwnProvider();
        var building = WebApplication.CreateSlimBuilder();
        building.Logging.ClearProviders();
        provider.app = building.Build();
        provider.app.Urls.Add("http://127.0.0.1:0");
        provider.Map();
        await provider.app.StartAsync();
        provider.Issuer = provider.app.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First().TrimEnd('/') + "/";
        return provider;
    }

    /// <summary>As the operator writes it.</summary>
    internal object Settings(object? more = null) => Merge(new Dictionary<string, object?>
    {
        ["key"] = "own",
        ["name"] = "Own Provider",
        ["issuer"] = Issuer,
        ["clientId"] = Client,
        ["clientSecret"] = Secret,
        ["knownBy"] = new { studentNumber = "number", email = "email", userName = "preferred_username" },
    }, more);

    private static Dictionary<string, object?> Merge(Dictionary<string, object?> all, object? more)
    {
        foreach (var p in more?.GetType().GetProperties() ?? []) all[p.Name] = p.GetValue(more);
        return all;
    }

    /// <summary>A token that says that somebody signed out (OpenID Connect Back-Channel Logout 1.0, section 2.4).</summary>
    internal string LogoutToken(Action<Dictionary<string, object>>? twist = null, SigningCredentials? by = null)
    {
        var now = DateTimeOffset.UtcNow.ToUnixTimeSeconds();
        var claims = new Dictionary<string, object>
        {
            ["iss"] = Issuer,
            ["aud"] = Client,
            ["iat"] = now,
            ["exp"] = now + 120,
            ["jti"] = Guid.NewGuid().ToString(),
            ["sub"] = Subject,
            ["events"] = new Dictionary<string, object> { ["http://schemas.openid.net/event/backchannel-logout"] = new Dictionary<string, object>() },
        };
        twist?.Invoke(claims);
        return Sign(claims, by ?? Own, "logout+jwt");
    }

    internal static string Sign(Dictionary<string, object> claims, SigningCredentials? by, string type = "JWT")
    {
        var payload = System.Text.Json.JsonSerializer.Serialize(claims);
        return by is null ? $"{Base64UrlEncoder.Encode("""{"alg":"none","typ":"JWT"}""")}.{Base64UrlEncoder.Encode(payload)}."
            : new JsonWebTokenHandler { SetDefaultTimesOnTokenCreation = false }.CreateToken(payload, by, new Dictionary<string, object> { ["typ"] = type }.Where(h => h.Key != "typ" || type != "JWT").ToDictionary());
    }

    private void Map()
    {
        app.MapGet("/.well-known/openid-configuration", () => Results.Json(new
        {
            issuer = Issuer,
            authorization_endpoint = Issuer + "authorize",
            token_endpoint = Issuer + "token",
            jwks_uri = Issuer + "keys",
            end_session_endpoint = Issuer + "end",
            response_types_supported = new[] { "code" },
            response_modes_supported = new[] { "query", "form_post" },
            subject_types_supported = new[] { "public" },
            grant_types_supported = new[] { "authorization_code" },
            id_token_signing_alg_values_supported = new[] { "RS256" },
            scopes_supported = new[] { "openid", "profile", "email" },
            token_endpoint_auth_methods_supported = new[] { "client_secret_basic", "client_secret_post" },
        }));
        app.MapGet("/keys", () =>
        {
            var key = rsa.ExportParameters(false);
            return Results.Json(new { keys = new[] { new { kty = "RSA", use = "sig", alg = "RS256", kid = "k1", n = Base64UrlEncoder.Encode(key.Modulus), e = Base64UrlEncoder.Encode(key.Exponent) } } });
        });
        app.MapGet("/authorize", (HttpRequest request) =>
        {
            var back = request.Query["redirect_uri"].ToString();
            var state = Uri.EscapeDataString(request.Query["state"].ToString());
            if (Error is { } error) return Results.Redirect($"{back}?error={error}&state={state}");
            var code = Guid.NewGuid().ToString("N");
            codes[code] = (request.Query["nonce"].ToString(), request.Query["code_challenge_method"] == "S256" ? request.Query["code_challenge"].ToString() : "");
            return Results.Redirect($"{back}?code={code}&state={state}");
        });
        app.MapPost("/token", async (HttpRequest request) =>
        {
            var form = await request.ReadFormAsync();
            if (!codes.TryRemove(form["code"].ToString(), out var asked)) return Results.Json(new { error = "invalid_grant" }, statusCode: 400);
            // RFC 7636, section 4.6.
            Proved = asked.Challenge.Length > 0 && Base64UrlEncoder.Encode(SHA256.HashData(Encoding.ASCII.GetBytes(form["code_verifier"].ToString()))) == asked.Challenge;
            var now = DateTimeOffset.UtcNow.ToUnixTimeSeconds();
            var claims = new Dictionary<string, object>(Claims) { ["iss"] = Issuer, ["aud"] = Client, ["sub"] = Subject, ["iat"] = now, ["exp"] = now + 300, ["nonce"] = asked.Nonce };
            Twist(claims);
            return Results.Json(new { access_token = "a", token_type = "Bearer", expires_in = 300, id_token = Sign(claims, Signs is null ? Own : Signs()) });
        });
        app.MapGet("/end", (HttpRequest request) => Results.Redirect($"{request.Query["post_logout_redirect_uri"]}?state={Uri.EscapeDataString(request.Query["state"].ToString())}"));
    }

    public async ValueTask DisposeAsync()
    {
        await app.DisposeAsync();
        rsa.Dispose();
        strange.Dispose();
    }
}
