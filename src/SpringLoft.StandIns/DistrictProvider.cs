using System.Security.Claims;
using System.Security.Cryptography;
using System.Text.Encodings.Web;
using Microsoft.AspNetCore;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Options;
using Microsoft.IdentityModel.Tokens;
using OpenIddict.Abstractions;
using OpenIddict.Server;
using OpenIddict.Server.AspNetCore;
using static OpenIddict.Abstractions.OpenIddictConstants;
using static OpenIddict.Server.OpenIddictServerEvents;

namespace SpringLoft.StandIns;

/// <summary>
/// A stand-in for a district's provider of single sign-on (OpenID Connect): it asks for an account's name and no password, and
/// believes it. Every account's user name is its name; “visitor” is nobody's in the demo school.
/// </summary>
public static class DistrictProvider
{
    /// <summary>Where it stands, in the program that it comes with.</summary>
    public const string Path = "stand-ins/district/";

    /// <summary>The client that it knows.</summary>
    public const string ClientId = "spring-loft";

    /// <summary>That client's secret: a stand-in keeps no real one.</summary>
    public const string ClientSecret = "only-a-stand-in";

    private const string Session = "stand-in-district";

    /// <summary>Sets it up.</summary>
    /// <param name="root">Where the program is reached; asked when the first request comes.</param>
    public static void Add(IServiceCollection services, Func<IServiceProvider, Uri> root)
    {
        services.AddOpenIddict().AddServer(o =>
        {
            o.EnableDegradedMode().AllowAuthorizationCodeFlow().RequireProofKeyForCodeExchange();
            o.SetConfigurationEndpointUris(Path + ".well-known/openid-configuration").SetJsonWebKeySetEndpointUris(Path + "keys").SetAuthorizationEndpointUris(Path + "sign-in")
                .SetTokenEndpointUris(Path + "token").SetEndSessionEndpointUris(Path + "sign-out");
            o.AddEncryptionKey(new SymmetricSecurityKey(RandomNumberGenerator.GetBytes(32))).AddSigningKey(new ECDsaSecurityKey(ECDsa.Create(ECCurve.NamedCurves.nistP256))).RegisterScopes(Scopes.Profile);
            o.UseAspNetCore().EnableAuthorizationEndpointPassthrough().EnableEndSessionEndpointPassthrough().DisableTransportSecurityRequirement();
            o.AddEventHandler<ValidateAuthorizationRequestContext>(b => b.UseInlineHandler(context =>
            {
                if (context.ClientId != ClientId) context.Reject(Errors.InvalidClient, "Only the demo's own program is known here.");
                else if (!IsOurs(context.RedirectUri, root(Services(context)))) context.Reject(Errors.InvalidRequest, "That is not where the demo waits.");
                return default;
            }));
            o.AddEventHandler<ValidateTokenRequestContext>(b => b.UseInlineHandler(context =>
            {
                if (context.ClientId != ClientId || context.ClientSecret != ClientSecret) context.Reject(Errors.InvalidClient, "Only the demo's own program is known here.");
                return default;
            }));
            o.AddEventHandler<ValidateEndSessionRequestContext>(b => b.UseInlineHandler(context =>
            {
                if (context.PostLogoutRedirectUri is { } to && !IsOurs(to, root(Services(context)))) context.Reject(Errors.InvalidRequest, "That is not where the demo waits.");
                return default;
            }));
        });
        services.AddOptions<OpenIddictServerOptions>().Configure<IServiceProvider>((o, provider) => o.Issuer = new Uri(root(provider), Path));
    }

    /// <summary>Reads its own address anew: only now is it known.</summary>
    public static void Listening(IServiceProvider services) => services.GetRequiredService<IOptionsMonitorCache<OpenIddictServerOptions>>().Clear();

    /// <summary>Puts its two pages at their addresses.</summary>
    public static void Map(IEndpointRouteBuilder routes)
    {
        routes.MapMethods("/" + Path + "sign-in", [HttpMethods.Get, HttpMethods.Post], SignIn).DisableAntiforgery().ExcludeFromDescription();
        routes.MapMethods("/" + Path + "sign-out", [HttpMethods.Get, HttpMethods.Post], (HttpContext context) =>
        {
            context.Response.Cookies.Delete(Session);
            return Results.SignOut(new() { RedirectUri = "/" }, [OpenIddictServerAspNetCoreDefaults.AuthenticationScheme]);
        }).DisableAntiforgery().ExcludeFromDescription();
    }

    private static IResult SignIn(HttpContext context)
    {
        var request = context.GetOpenIddictServerRequest()!;
        var typed = HttpMethods.IsPost(context.Request.Method) ? (string?)request["account"] : null;
        var account = (typed ?? context.Request.Cookies[Session])?.Trim();
        // Asked anew where the program says so.
        if (string.IsNullOrEmpty(account) || (typed is null && request.HasPromptValue(PromptValues.Login))) return Results.Content(Page(request), "text/html; charset=utf-8");
        context.Response.Cookies.Append(Session, account, new() { HttpOnly = true, SameSite = SameSiteMode.Lax });
        var identity = new ClaimsIdentity("stand-in", Claims.Name, Claims.Role);
        identity.SetClaim(Claims.Subject, $"district-{account.ToLowerInvariant()}").SetClaim(Claims.PreferredUsername, account);
        identity.SetScopes(request.GetScopes());
        identity.SetDestinations(_ => [Destinations.IdentityToken]);
        return Results.SignIn(new ClaimsPrincipal(identity), authenticationScheme: OpenIddictServerAspNetCoreDefaults.AuthenticationScheme);
    }

    private static string Page(OpenIddictRequest request)
    {
        var kept = string.Concat(request.GetParameters().Where(p => p.Key != "account").Select(p => $"""<input type="hidden" name="{HtmlEncoder.Default.Encode(p.Key)}" value="{HtmlEncoder.Default.Encode((string?)p.Value ?? "")}">"""));
        return $$"""
            <!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Island District</title>
            <style>body{font:1.05rem/1.5 system-ui;max-width:26rem;margin:12vh auto;padding:0 1rem;color-scheme:light dark}input:not([type=hidden]),button{font:inherit;padding:.5rem;width:100%;box-sizing:border-box;margin:.3rem 0 1rem}</style>
            <h1>Island District</h1><p>A stand-in for a provider of single sign-on. It asks no password: type the user name of somebody of the demo school.</p>
            <form method="post" action="/{{Path}}sign-in">{{kept}}<label>Account<input name="account" autofocus required autocomplete="off"></label><button>Go on</button></form></html>
            """;
    }

    private static bool IsOurs(string? address, Uri root) => Uri.TryCreate(address, UriKind.Absolute, out var uri) && uri.Authority == root.Authority;

    private static IServiceProvider Services(BaseContext context) => context.Transaction.GetHttpRequest()!.HttpContext.RequestServices;
}
