using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore;
using OpenIddict.Client.AspNetCore;
using SpringLoft.App;
using SpringLoft.App.People;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;
using SpringLoft.Server.Hosting;
using static OpenIddict.Client.AspNetCore.OpenIddictClientAspNetCoreConstants;

namespace SpringLoft.Server.People;

/// <summary>A provider, as the door shows it.</summary>
internal sealed record ProviderBody(string Key, string Name);

/// <summary>What goes from one request of a sign-on to the next.</summary>
internal sealed class SignOnWays(Premises premises, IReadOnlyList<ProviderSettings> settings)
{
    private readonly Handed<Refusal> refusals = new();
    private readonly Handed<ProviderSignOut> outs = new();

    internal ProviderSettings Settings(string key) => settings.FirstOrDefault(p => p.Key == key)
        ?? throw new RefusedException("not-found", "There is no such provider here.", "Go back to the door: it shows those that there are.");

    /// <summary>Where a refusal is told: at the door, in its own words.</summary>
    internal string Told(Refusal refusal) => $"/?told={refusals.Lay(refusal, premises.Clock.Real)}";

    /// <summary>The refusal that a ticket is for.</summary>
    internal Refusal Take(string ticket) => refusals.Take(ticket, premises.Clock.Real, out var refusal) ? refusal
        : new("sign-on-failed", "That sign-in did not come to an end.", "Try once more.");

    /// <summary>Where signing out goes on.</summary>
    internal string Out(ProviderSignOut on) => $"/api/single-sign-on/out/{outs.Lay(on, premises.Clock.Real)}";

    internal ProviderSignOut? TakeOut(string ticket) => outs.Take(ticket, premises.Clock.Real, out var on) ? on : null;
}

internal static class SignOnEndpoints
{
    private const string Scheme = OpenIddictClientAspNetCoreDefaults.AuthenticationScheme;
    private const string To = "to";

    internal static void Map(RouteGroupBuilder api)
    {
        var way = api.MapGroup("/single-sign-on");
        way.MapGet("", (SignOnProviders providers) => providers.All.Select(p => new ProviderBody(p.Key, p.Rules.Name)).ToList()).WithName("providers").OpenToAnybody();

        way.MapGet("/told/{ticket}", IResult (string ticket, SignOnWays ways) => TypedResults.Problem(Problems.Told(422, ways.Take(ticket)))).WithName("signOnTold").OpenToAnybody();

        // From here on a browser is sent about; nothing of it is for a program to call.
        way.MapGet("/{key}/begin", Begin).ExcludeFromDescription().OpenToAnybody();
        way.MapGet("/back", Back).ExcludeFromDescription().OpenToAnybody();
        way.MapGet("/out/{ticket}", Out).ExcludeFromDescription().OpenToAnybody();
        way.MapGet("/out-there", () => Results.LocalRedirect("/")).ExcludeFromDescription().OpenToAnybody();
        // And this is the providers' own: they are no browser, and sign what they say.
        way.MapPost("/{key}/ended", async (string key, HttpRequest request, SignOnWays ways, SigningOn signingOn, LogoutTokens tokens, Premises premises) =>
        {
            var provider = ways.Settings(key);
            var form = request.HasFormContentType ? await request.ReadFormAsync(request.HttpContext.RequestAborted) : null;
            var (subject, session) = await tokens.Read(provider, form?["logout_token"], premises.Clock.Real, request.HttpContext.RequestAborted);
            signingOn.SignedOutThere(key, subject, session);
            return TypedResults.Ok();
        }).DisableAntiforgery().ExcludeFromDescription().OpenToAnybody();

        var accounts = api.MapGroup("/people/{personId:long}/accounts");
        accounts.MapGet("", (long personId, SigningOn signingOn) => signingOn.AccountsOf(new PersonId(personId))).WithName("personAccounts").Needs(Act.ForgetAccounts);
        accounts.MapDelete("", (long personId, Caller who, SigningOn signingOn) =>
        {
            signingOn.Forget(who, new PersonId(personId));
            return TypedResults.NoContent();
        }).WithName("forgetAccounts").Needs(Act.ForgetAccounts);
    }

    // Only a place of our own: an address that leads elsewhere is none.
    private static string Place(string? to) => to is { Length: > 0 and < 500 } && to[0] == '/' && (to.Length == 1 || to[1] is not ('/' or '\\')) && !to.Any(char.IsControl) ? to : "/";

    private static async Task Begin(string key, string? to, HttpContext context, SignOnWays ways, ILogger<SigningOn> log)
    {
        var provider = ways.Settings(key);
        var properties = new AuthenticationProperties(new Dictionary<string, string?> { [Properties.RegistrationId] = key, [To] = Place(to) }) { RedirectUri = Place(to) };
        try
        {
            // Asked first: the library answers with a bare page where it can't read how the provider is reached.
            _ = await Description(context, key);
            await context.ChallengeAsync(Scheme, properties);
        }
        catch (Exception e) when (e is not OperationCanceledException || !context.RequestAborted.IsCancellationRequested)
        {
            log.LogWarning(e, "Single sign-on with {Provider} could not begin", key);
            context.Response.Redirect(ways.Told(Unreachable(provider)));
        }
    }

    private static async Task Back(HttpContext context, SignOnWays ways, SigningOn signingOn, KnownBrowser known, Premises premises, ILogger<SigningOn> log)
    {
        try
        {
            var result = await context.AuthenticateAsync(Scheme);
            if (!result.Succeeded || result.Principal is null || result.Properties?.GetTokenValue(Tokens.BackchannelIdentityToken) is not { Length: > 0 } token)
            {
                NotTaken(context, null, result.Failure?.Message);
                return;
            }
            var key = result.Properties.GetString(Properties.RegistrationId)!;
            var signed = signingOn.SignIn(key, SignOnSetup.Sent(ways.Settings(key), result.Principal, token, premises.Clock.Real), known.From(context));
            await PeopleEndpoints.LetIn(context, signed);
            context.Response.Redirect(Place(result.Properties.GetString(To)));
        }
        catch (RefusedException e)
        {
            context.Response.Redirect(ways.Told(e.Refusal));
        }
        catch (Exception e) when (e is not OperationCanceledException || !context.RequestAborted.IsCancellationRequested)
        {
            log.LogWarning(e, "A single sign-on came back and could not be read");
            context.Response.Redirect(ways.Told(new("sign-on-failed", "That sign-in did not come to an end.", "Try once more; if it stays, tell the coordinator the time it happened.")));
        }
    }

    /// <summary>Tells at the door that a sign-in came to nothing.</summary>
    /// <param name="error">As the provider or the library calls it.</param>
    /// <param name="why">For the log alone.</param>
    internal static void NotTaken(HttpContext context, string? error, string? why)
    {
        context.RequestServices.GetRequiredService<ILogger<SigningOn>>().LogWarning("A single sign-on was not taken: {Error} {Why}", error, why);
        context.Response.Redirect(context.RequestServices.GetRequiredService<SignOnWays>().Told(error == OpenIddict.Abstractions.OpenIddictConstants.Errors.AccessDenied
            ? new("sign-on-declined", "The sign-in was broken off, or is not allowed to you there.", "Try once more, or sign in another way.")
            : new("sign-on-failed", "That sign-in did not come to an end.", "Try once more, on one and the same browser; if it stays, tell the coordinator the time it happened.")));
    }

    private static async Task Out(string ticket, HttpContext context, SignOnWays ways, ILogger<SigningOn> log)
    {
        if (ways.TakeOut(ticket) is not { } on)
        {
            context.Response.Redirect("/");
            return;
        }
        var properties = new AuthenticationProperties(new Dictionary<string, string?> { [Properties.RegistrationId] = on.Key, [Properties.IdentityTokenHint] = on.IdToken }) { RedirectUri = "/" };
        // Signed out here they are; a provider that has no such door, or does not answer, is no reason to show an error.
        try
        {
            if ((await Description(context, on.Key)).EndSessionEndpoint is null) context.Response.Redirect("/");
            else await context.SignOutAsync(Scheme, properties);
        }
        catch (Exception e) when (e is not OperationCanceledException || !context.RequestAborted.IsCancellationRequested)
        {
            log.LogWarning(e, "Signing out at {Provider} could not go on", on.Key);
            context.Response.Redirect("/");
        }
    }

    private static async Task<OpenIddict.Abstractions.OpenIddictConfiguration> Description(HttpContext context, string key)
    {
        var registration = await context.RequestServices.GetRequiredService<OpenIddict.Client.OpenIddictClientService>().GetClientRegistrationByIdAsync(key, context.RequestAborted);
        return await registration.ConfigurationManager!.GetConfigurationAsync(context.RequestAborted) ?? throw new InvalidOperationException($"{key} does not say how it is reached.");
    }

    private static Refusal Unreachable(ProviderSettings p) =>
        new("provider-unreachable", $"{p.Name} can't be reached at the moment.", "Try again in some minutes, or sign in with your password if you have one.");
}
