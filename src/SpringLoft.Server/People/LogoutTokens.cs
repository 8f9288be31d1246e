using System.Collections.Concurrent;
using System.Text.Json;
using Microsoft.IdentityModel.JsonWebTokens;
using Microsoft.IdentityModel.Tokens;
using NodaTime;
using OpenIddict.Client;
using SpringLoft.Core;
using SpringLoft.Server.Hosting;

namespace SpringLoft.Server.People;

/// <summary>What a provider tells when somebody has signed out there (OpenID Connect Back-Channel Logout 1.0).</summary>
/// <param name="services">Where there are providers, the client that knows their keys is among them.</param>
internal sealed class LogoutTokens(IServiceProvider services)
{
    private const string Event = "http://schemas.openid.net/event/backchannel-logout";
    private static readonly Duration Skew = Duration.FromMinutes(5);
    private readonly ConcurrentDictionary<string, Instant> seen = new();

    /// <summary>Reads one by section 2.6: signature, issuer, audience, times, event, no nonce, told once.</summary>
    /// <returns>Subject, session, or both.</returns>
    /// <exception cref="RefusedException"><c>logout-token</c>.</exception>
    internal async Task<(string? Subject, string? Session)> Read(ProviderSettings provider, string? text, Instant now, CancellationToken stop)
    {
        if (string.IsNullOrEmpty(text) || text.Length > 16_384) throw Wrong("there is none");
        var registration = await services.GetRequiredService<OpenIddictClientService>().GetClientRegistrationByIdAsync(provider.Key!, stop);
        var keys = registration.ConfigurationManager ?? throw Wrong("the provider is not known");
        var configuration = await keys.GetConfigurationAsync(stop) ?? throw Wrong("the provider does not say its keys");
        var parameters = new TokenValidationParameters
        {
            // With and without the stroke at the end of a bare host, as the sign-in itself takes it.
            ValidIssuers = [provider.Issuer!, provider.Issuer!.TrimEnd('/'), new Uri(provider.Issuer!).AbsoluteUri],
            ValidAudience = provider.ClientId,
            IssuerSigningKeys = configuration.SigningKeys,
            // "none" and a secret that both know are not taken: only what the provider alone can sign.
            ValidAlgorithms = ["RS256", "RS384", "RS512", "PS256", "PS384", "PS512", "ES256", "ES384", "ES512"],
            ValidateLifetime = false,
        };
        var result = await new JsonWebTokenHandler { MapInboundClaims = false }.ValidateTokenAsync(text, parameters);
        // Its keys may be new ones: the next token is looked at with them.
        if (result.Exception is SecurityTokenSignatureKeyNotFoundException) keys.RequestRefresh();
        if (!result.IsValid || result.SecurityToken is not JsonWebToken token) throw Wrong("it is not signed by the provider for this program");
        if (!token.TryGetPayloadValue<long>("iat", out var iat) || Instant.FromUnixTimeSeconds(iat) > now + Skew || Instant.FromUnixTimeSeconds(iat) < now - Skew) throw Wrong("it is of another time");
        if (token.TryGetPayloadValue<long>("exp", out var exp) && Instant.FromUnixTimeSeconds(exp) + Skew < now) throw Wrong("it has expired");
        if (token.TryGetPayloadValue<object>("nonce", out _)) throw Wrong("it has a nonce");
        if (!token.TryGetPayloadValue<JsonElement>("events", out var events) || events.ValueKind != JsonValueKind.Object || !events.TryGetProperty(Event, out var told) || told.ValueKind != JsonValueKind.Object)
            throw Wrong("it does not say that somebody signed out");
        var (subject, session) = (token.Subject is { Length: > 0 } s ? s : null, token.TryGetPayloadValue<string>("sid", out var sid) && sid.Length > 0 ? sid : null);
        if (subject is null && session is null) throw Wrong("it does not say who");
        if (!token.TryGetPayloadValue<string>("jti", out var id) || string.IsNullOrEmpty(id)) throw Wrong("it has no number of its own");
        foreach (var old in seen.Where(x => x.Value < now).Select(x => x.Key).ToList()) seen.TryRemove(old, out _);
        if (!seen.TryAdd($"{provider.Key} {id}", now + Skew + Skew + Skew)) throw Wrong("it was told before");
        return (subject, session);
    }

    private static RefusedException Wrong(string why) => new("logout-token", $"The logout token is not taken: {why}.", "See OpenID Connect Back-Channel Logout 1.0, section 2.4 and 2.6.", "logout_token");
}
