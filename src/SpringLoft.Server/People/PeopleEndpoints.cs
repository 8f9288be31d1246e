using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using SpringLoft.App;
using SpringLoft.App.People;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;

namespace SpringLoft.Server.People;

internal sealed record SignInBody(string? UserName, string? Password);

internal sealed record PasswordBody(string? OldPassword, string? NewPassword);

/// <param name="Ended">How many places one was signed out of.</param>
internal sealed record EndedBody(int Ended);

/// <param name="Next">Where signing out goes on, at the provider of the sign-in; null if it is done.</param>
internal sealed record SignedOutBody(string? Next);

internal static class PeopleEndpoints
{
    /// <summary>Gives the browser what the sign-in is known by.</summary>
    internal static Task LetIn(HttpContext context, SignedIn signed) => context.SignInAsync(CookieAuthenticationDefaults.AuthenticationScheme,
        new ClaimsPrincipal(new ClaimsIdentity([new Claim(Gate.TokenClaim, signed.Token)], CookieAuthenticationDefaults.AuthenticationScheme)));

    internal static void Map(RouteGroupBuilder api)
    {
        api.MapPost("/sign-in", async (SignInBody body, SigningIn signingIn, HashTurns turns, KnownBrowser known, HttpContext context) =>
        {
            using var turn = await turns.Take(context.RequestAborted);
            var signed = signingIn.SignIn(body.UserName, body.Password, known.From(context));
            known.Remember(context, signed.Me.Id, signed.Mark);
            await LetIn(context, signed);
            return signed.Me;
        }).WithName("signIn").OpenToAnybody();

        api.MapPost("/sign-out", async (Sessions sessions, SignOnWays ways, HttpContext context) =>
        {
            var on = context.User.FindFirstValue(Gate.TokenClaim) is { } token ? sessions.SignOut(token) : null;
            await context.SignOutAsync();
            // What the browser has of it goes; that it is a known one stays.
            context.Response.Headers["Clear-Site-Data"] = "\"cache\", \"storage\"";
            return new SignedOutBody(on is null ? null : ways.Out(on));
        }).WithName("signOut").OpenToAnybody();

        api.MapGet("/me", (HttpContext context) => Gate.PresentOf(context).Me).WithName("me").Needs(Act.PassDoor);

        api.MapPost("/me/password", async (PasswordBody body, Caller who, SigningIn signingIn, HashTurns turns, HttpContext context) =>
        {
            using var turn = await turns.Take(context.RequestAborted);
            signingIn.ChangePassword(who, Gate.PresentOf(context).Session, body.OldPassword, body.NewPassword);
            return TypedResults.NoContent();
        }).WithName("changePassword").Needs(Act.OwnSignIn);

        api.MapGet("/me/sign-ins", (Caller who, Sessions sessions, HttpContext context) => sessions.Of(who, Gate.PresentOf(context).Session)).WithName("signIns").Needs(Act.OwnSignIn);

        api.MapDelete("/me/sign-ins/{id:long}", (long id, Caller who, Sessions sessions) =>
        {
            sessions.End(who, new SessionId(id));
            return TypedResults.NoContent();
        }).WithName("endSignIn").Needs(Act.OwnSignIn);

        api.MapPost("/me/sign-ins/end-others", (Caller who, Sessions sessions, HttpContext context) =>
            new EndedBody(sessions.EndOthers(who, Gate.PresentOf(context).Session))).WithName("endOtherSignIns").Needs(Act.OwnSignIn);
    }
}
