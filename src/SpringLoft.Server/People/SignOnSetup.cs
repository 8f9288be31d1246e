using System.Security.Claims;
using System.Security.Cryptography;
using Microsoft.AspNetCore;
using Microsoft.Extensions.Options;
using Microsoft.IdentityModel.JsonWebTokens;
using Microsoft.IdentityModel.Tokens;
using OpenIddict.Abstractions;
using OpenIddict.Client;
using OpenIddict.Client.AspNetCore;
using SpringLoft.App;
using SpringLoft.App.People;
using SpringLoft.Core.People;
using SpringLoft.Server.Hosting;
using static OpenIddict.Abstractions.OpenIddictConstants;

namespace SpringLoft.Server.People;

/// <summary>Single sign-on by OpenID Connect: code flow with PKCE (RFC 7636, S256), the provider's own description read from its address.</summary>
internal static class SignOnSetup
{
    internal const string Back = "api/single-sign-on/back";
    internal const string BackOut = "api/single-sign-on/out-there";

    // A person may type a password, find a phone and answer it; a request forged later than that is of no use.
    private static readonly TimeSpan Underway = TimeSpan.FromMinutes(30);

    /// <summary>Sets up the client for the providers that there are.</summary>
    /// <param name="settings">Asked when the first request comes; a stand-in has an address only then.</param>
    internal static void Add(IServiceCollection services, CookieSecurePolicy secure, Func<IServiceProvider, IReadOnlyList<ProviderSettings>> settings)
    {
        services.AddOpenIddict().AddClient(o =>
        {
            o.AllowAuthorizationCodeFlow();
            // Nothing of it is kept in the database: what is underway is sealed with the key ring, and goes with the browser.
            o.DisableTokenStorage().SetStateTokenLifetime(Underway);
            // The library asks for keys of its own besides; made in no time, where its ephemeral ones (RSA) hold the first request up for seconds.
            o.AddEncryptionKey(new SymmetricSecurityKey(RandomNumberGenerator.GetBytes(32))).AddSigningKey(new ECDsaSecurityKey(ECDsa.Create(ECCurve.NamedCurves.nistP256)));
            o.UseDataProtection();
            o.SetRedirectionEndpointUris(Back).SetPostLogoutRedirectionEndpointUris(BackOut);
            o.UseSystemNetHttp().ConfigureHttpClientHandler(h => h.AllowAutoRedirect = false).ConfigureHttpClient(c => c.Timeout = TimeSpan.FromSeconds(20))
                // A person waits: tried twice, not for a minute.
                .SetHttpResiliencePipeline(Polly.ResiliencePipeline<HttpResponseMessage>.Empty);
            o.UseAspNetCore().EnableRedirectionEndpointPassthrough().EnablePostLogoutRedirectionEndpointPassthrough()
                // Whether a provider may be without TLS was said when its settings were read.
                .DisableTransportSecurityRequirement()
                .Configure(a => a.CookieBuilder = new CookieBuilder { Name = "spring-loft-way", HttpOnly = true, SameSite = SameSiteMode.Lax, SecurePolicy = secure, IsEssential = true, Path = "/api/single-sign-on" });
            // What the library refuses is told at the door, and not on a bare page of its own.
            o.AddEventHandler<OpenIddictClientEvents.ApplyRedirectionResponseContext>(b => b.UseInlineHandler(context =>
            {
                if (string.IsNullOrEmpty(context.Response.Error)) return default;
                var http = context.Transaction.GetHttpRequest()!.HttpContext;
                SignOnEndpoints.NotTaken(http, context.Response.Error, context.Response.ErrorDescription);
                context.HandleRequest();
                return default;
            }).SetOrder(int.MinValue));
            o.AddEventHandler<OpenIddictClientEvents.ApplyPostLogoutRedirectionResponseContext>(b => b.UseInlineHandler(context =>
            {
                // They are signed out; that the way back was lost is nothing to be told of.
                if (string.IsNullOrEmpty(context.Response.Error)) return default;
                context.Transaction.GetHttpRequest()!.HttpContext.Response.Redirect("/");
                context.HandleRequest();
                return default;
            }).SetOrder(int.MinValue));
            // Many providers know PKCE and do not say so; one that does not has to leave alone what it does not know (RFC 6749, 3.1).
            o.AddEventHandler<OpenIddictClientEvents.HandleConfigurationResponseContext>(b => b.UseInlineHandler(context =>
            {
                if (!context.Configuration.CodeChallengeMethodsSupported.Contains(CodeChallengeMethods.Sha256)) context.Configuration.CodeChallengeMethodsSupported.Add(CodeChallengeMethods.Sha256);
                return default;
            }).SetOrder(int.MaxValue));
        });
        services.AddOptions<OpenIddictClientOptions>().Configure<IServiceProvider>((o, provider) =>
        {
            var own = provider.GetRequiredService<SchoolAddress>();
            foreach (var p in settings(provider)) o.Registrations.Add(Registration(p, own));
        });
    }

    /// <summary>Reads the settings anew: only now is it known where the program listens, with port 0.</summary>
    internal static void Listening(IServiceProvider services) => services.GetRequiredService<IOptionsMonitorCache<OpenIddictClientOptions>>().Clear();

    private static OpenIddictClientRegistration Registration(ProviderSettings p, SchoolAddress own)
    {
        var registration = new OpenIddictClientRegistration
        {
            RegistrationId = p.Key,
            ProviderName = p.Key,
            Issuer = new Uri(p.Issuer!),
            ClientId = p.ClientId,
            ClientSecret = p.ClientSecret,
            RedirectUri = own.To(Back),
            PostLogoutRedirectUri = own.To(BackOut),
            CodeChallengeMethods = { CodeChallengeMethods.Sha256 },
            GrantTypes = { GrantTypes.AuthorizationCode },
            ResponseTypes = { ResponseTypes.Code },
            ResponseModes = { ResponseModes.Query },
        };
        foreach (var scope in p.Scopes ?? [Scopes.Profile, Scopes.Email]) registration.Scopes.Add(scope);
        return registration;
    }

    /// <summary>What a provider says of who comes back from it.</summary>
    /// <exception cref="Core.RefusedException"><c>sign-on-late</c> for an identity token that has expired.</exception>
    internal static SentByProvider Sent(ProviderSettings settings, ClaimsPrincipal said, string idToken, NodaTime.Instant now)
    {
        var token = new JsonWebToken(idToken);
        // The library takes one that has expired; OpenID Connect Core 1.0, section 3.1.3.7, point 9, does not. Clocks differ by some minutes.
        if (NodaTime.Instant.FromDateTimeUtc(token.ValidTo) + NodaTime.Duration.FromMinutes(5) < now)
            throw new Core.RefusedException("sign-on-late", $"What {settings.Name} says of you is no longer good.", "Try once more; if it stays, the clock of one of the two is wrong.");
        var by = settings.KnownBy ?? KnownByClaims.Standard;
        // Said twice and not alike, it says nothing.
        string? One(string? claim) => claim is not null && said.GetClaims(claim).Select(v => v.Trim()).Where(v => v.Length > 0).Distinct().ToList() is [var only] ? only : null;
        var claim = new PersonClaim(One(by.RecordId), One(by.StudentNumber), One(by.Email), One(by.UserName), null, false, null);
        var groups = settings.Groups is { Claim: { } of } ? said.GetClaims(of).ToHashSet() : [];
        // Methods are believed where they are signed; the answer of the user-info endpoint is not.
        var methods = token.Claims.Where(c => c.Type == Claims.AuthenticationMethodReference).Select(c => c.Value).ToHashSet();
        return new(token.Subject, new(claim, string.Equals(One(Claims.EmailVerified), "true", StringComparison.OrdinalIgnoreCase), groups, methods),
            token.TryGetPayloadValue<string>("sid", out var sid) ? sid : null, idToken);
    }
}
