using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using SpringLoft.App;
using SpringLoft.App.Audit;
using SpringLoft.App.People;
using SpringLoft.App.Workspaces;
using SpringLoft.Core;
using SpringLoft.Core.Audit;
using SpringLoft.Core.People;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Server.Api;

/// <summary>The permission an endpoint asks for; null for one that is open to anybody.</summary>
internal sealed record Needed(Act? Act);

/// <summary>What of others an endpoint hands out, to be noted in the audit trail.</summary>
/// <param name="Of">What exactly, as the audit trail says it.</param>
internal sealed record Tells(Reading What, string Of);

/// <summary>What a student who asks for it does, to be noted for the staff of the class.</summary>
internal sealed record Counts(Did Did);

/// <summary>The answer is nothing to be kept, not even to be given again for the same key: it has a secret in it.</summary>
internal sealed record NotKept;

/// <summary>Marks endpoints with the permission they need, and with what is noted of their being read.</summary>
internal static class NeedsExtensions
{
    internal static RouteHandlerBuilder Needs(this RouteHandlerBuilder endpoint, Act act) => endpoint.WithMetadata(new Needed(act));

    internal static RouteHandlerBuilder Tells(this RouteHandlerBuilder endpoint, Reading what, string of) => endpoint.WithMetadata(new Tells(what, of));

    internal static RouteHandlerBuilder Counts(this RouteHandlerBuilder endpoint, Did did) => endpoint.WithMetadata(new Counts(did));

    internal static RouteHandlerBuilder AnswerIsNotKept(this RouteHandlerBuilder endpoint) => endpoint.WithMetadata(new NotKept());

    internal static RouteHandlerBuilder OpenToAnybody(this RouteHandlerBuilder endpoint) => endpoint.WithMetadata(new Needed(null));
}

/// <summary>
/// The one place where requests are let through or not: by sign-in, by role in the school, and by the place in the class
/// that the address names. An endpoint that does not say what it needs is shut.
/// </summary>
internal sealed class Gate(RequestDelegate next, ILogger<Gate> log)
{
    internal const string TokenClaim = "token";

    /// <summary>The header of what a screen asks again by the clock: nobody may be before it.</summary>
    internal const string ByItself = "By-Itself";

    private static readonly object CallerKey = new();
    private static readonly object PresentKey = new();

    /// <summary>The sign-in in which somebody asks.</summary>
    internal static Present PresentOf(HttpContext context) =>
        (Present?)context.Items[PresentKey] ?? throw new InvalidOperationException("Nobody is signed in; the gate should have been shut.");

    internal static Caller CallerOf(HttpContext context) =>
        (Caller?)context.Items[CallerKey] ?? throw new InvalidOperationException("Nobody is signed in; the gate should have been shut.");

    public async Task InvokeAsync(HttpContext context, Sessions sessions, Premises premises, Readings readings, Activities activities)
    {
        // Where the method or the type is wrong, routing puts in an endpoint of its own that only says so.
        if (context.GetEndpoint() is not RouteEndpoint endpoint || !context.Request.Path.StartsWithSegments("/api"))
        {
            await next(context);
            return;
        }
        // What is read here is somebody's: no proxy and no shared computer keeps it, unless an address says otherwise of itself.
        context.Response.Headers.CacheControl = "no-store";
        var needed = endpoint.Metadata.GetMetadata<Needed>() ?? throw new InvalidOperationException($"{endpoint.DisplayName} does not say which permission it needs.");
        if (needed.Act is { } act && Shut(context, sessions, premises, act) is { } problem)
        {
            if (problem.Status == StatusCodes.Status401Unauthorized) await context.SignOutAsync();
            await Problems.Write(context, problem.Status, problem.Refusal);
            return;
        }
        if (endpoint.Metadata.GetMetadata<Tells>() is { } tells)
            readings.Note(CallerOf(context), tells.What, Number(context, "classId") is { } k ? new ClassId(k) : null, Number(context, "personId") is { } p ? new PersonId(p) : null, tells.Of);
        await next(context);
        // What was refused, or is not there, was not opened.
        if (endpoint.Metadata.GetMetadata<Counts>() is { } counts && context.Response.StatusCode < 400 && Number(context, "classId") is { } of)
            Note(activities, CallerOf(context), new(of), counts.Did);
    }

    // The answer has gone out: whether it can be noted or not, whoever asked has what they asked for.
    private void Note(Activities activities, Caller who, ClassId id, Did did)
    {
        if (who.Role != SchoolRole.Student) return;
        try { activities.Opened(who, id, did); }
        catch (Exception e) when (e is RefusedException or System.Data.Common.DbException or IOException) { log.LogWarning(e, "What was opened was not noted"); }
    }

    private static long? Number(HttpContext context, string part) => long.TryParse(context.GetRouteValue(part) as string, out var number) ? number : null;

    private static (int Status, Refusal Refusal)? Shut(HttpContext context, Sessions sessions, Premises premises, Act act)
    {
        if (context.User.FindFirstValue(TokenClaim) is not { } token || sessions.Who(token, context.Request.Headers.ContainsKey(ByItself)) is not { } present)
            return (401, new("signed-out", "You are not signed in, or your sign-in has ended.", "Sign in."));
        var me = present.Me;
        context.Items[PresentKey] = present;
        if (!Permissions.IsOpenTo(act, me.Door))
            return me.Door == Door.StepNeeded
                ? (403, new("step-needed", "Your password was right; your second step is still to be shown.", "Type the code of your app, or use a passkey."))
                : (403, new("step-to-set-up", "Your school asks a second step of you, and you have none yet.", "Set one up first."));
        if (me.MustChangePassword && act is not (Act.OwnSignIn or Act.PassDoor))
            return (403, new("password-change-needed", "The first password is for signing in once.", "Choose a password of your own first."));
        var caller = new Caller(me.Id, me.Role, me.Name) { From = new(context.Connection.RemoteIpAddress?.ToString() ?? "", present.Session) };
        context.Items[CallerKey] = caller;
        if (Permissions.AsksAgain(act) && SecondStepRules.IsAskedAgain(present.HasStep, present.StepAt, premises.Clock.Real) && Permissions.InSchool(me.Role, act))
            return (403, new("step-again", "Before this, your second step is asked once more.", "Type the code of your app, or use a passkey."));
        if (!Permissions.IsAboutClass(act))
            return Permissions.InSchool(me.Role, act) ? null : (403, new("not-allowed", "That is not among the things your role can do.", "Ask the coordinator."));
        if (!long.TryParse(context.GetRouteValue("classId") as string, out var classId))
            return (404, new("not-found", "There is no such class here.", "Check the address."));
        try { premises.Db.Read(c => ClassGate.Demand(c, caller, new(classId), act)); }
        catch (RefusedException e) { return (Problems.StatusOf(e.Refusal.Code), e.Refusal); }
        return null;
    }
}
