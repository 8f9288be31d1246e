using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using SpringLoft.App;
using SpringLoft.App.People;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;

namespace SpringLoft.Server.People;

internal sealed record SignInBody(string? UserName, string? Password);

internal sealed record PasswordBody(string? OldPassword, string? NewPassword);

internal static class PeopleEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapPost("/sign-in", async (SignInBody body, SigningIn signingIn, HttpContext context) =>
        {
            var (me, stamp) = signingIn.SignIn(body.UserName, body.Password);
            await Keep(context, me.Id.Value, stamp);
            return me;
        }).WithName("signIn").OpenToAnybody();

        api.MapPost("/sign-out", async (HttpContext context) =>
        {
            await context.SignOutAsync();
            return TypedResults.NoContent();
        }).WithName("signOut").OpenToAnybody();

        api.MapGet("/me", (Caller who, SigningIn signingIn, HttpContext context) =>
            signingIn.Who(who.Id, context.User.FindFirstValue(Gate.StampClaim)!)!).WithName("me").Needs(Act.OwnSignIn);

        api.MapPost("/me/password", async (PasswordBody body, Caller who, SigningIn signingIn, HttpContext context) =>
        {
            var stamp = signingIn.ChangePassword(who, body.OldPassword, body.NewPassword);
            await Keep(context, who.Id.Value, stamp);
            return TypedResults.NoContent();
        }).WithName("changePassword").Needs(Act.OwnSignIn);
    }

    private static Task Keep(HttpContext context, long id, string stamp) => context.SignInAsync(new ClaimsPrincipal(new ClaimsIdentity(
        [new Claim(ClaimTypes.NameIdentifier, id.ToString(System.Globalization.CultureInfo.InvariantCulture)), new Claim(Gate.StampClaim, stamp)], CookieAuthenticationDefaults.AuthenticationScheme)));
}
