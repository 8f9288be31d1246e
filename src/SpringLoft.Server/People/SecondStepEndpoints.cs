using SpringLoft.App;
using SpringLoft.App.People;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;
using SpringLoft.Server.Workspaces;

namespace SpringLoft.Server.People;

internal sealed record CodeBodyOfStep(string? Code);

/// <param name="Answer">The browser's answer, as JSON.</param>
internal sealed record PasskeyAnswerBody(string? Answer);

internal sealed record NewPasskeyBody(string? Name, string? Answer);

internal static class SecondStepEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        var me = api.MapGroup("/me/second-step");
        me.MapGet("", (Caller who, SecondSteps steps) => steps.See(who)).WithName("secondStep").Needs(Act.PassDoor);
        me.MapPost("/code", (CodeBodyOfStep body, Caller who, SecondSteps steps, HttpContext context) =>
        {
            steps.Pass(who, Gate.PresentOf(context).Session, body.Code);
            return TypedResults.NoContent();
        }).WithName("passSecondStep").Needs(Act.PassDoor);
        me.MapPost("/passkey/asking", (Caller who, Passkeys passkeys, HttpContext context) => passkeys.Ask(who, Gate.PresentOf(context).Session)).WithName("askForPasskey").AnswerIsNotKept().Needs(Act.PassDoor);
        me.MapPost("/passkey", async (PasskeyAnswerBody body, Caller who, Passkeys passkeys, HttpContext context) =>
        {
            await passkeys.Pass(who, Gate.PresentOf(context).Session, body.Answer, context.RequestAborted);
            return TypedResults.NoContent();
        }).WithName("passByPasskey").Needs(Act.PassDoor);

        me.MapPost("/app", (Caller who, SecondSteps steps) => steps.BeginApp(who)).WithName("beginApp").AnswerIsNotKept().Needs(Act.SetUpSecondStep);
        me.MapPut("/app", (CodeBodyOfStep body, Caller who, SecondSteps steps, HttpContext context) =>
            steps.ConfirmApp(who, Gate.PresentOf(context).Session, body.Code)).WithName("confirmApp").AnswerIsNotKept().Needs(Act.SetUpSecondStep);
        me.MapDelete("/app", (Caller who, SecondSteps steps) =>
        {
            steps.RemoveApp(who);
            return TypedResults.NoContent();
        }).WithName("removeApp").Needs(Act.SetUpSecondStep);
        me.MapPost("/recovery-codes", (Caller who, SecondSteps steps) => steps.RenewCodes(who)).WithName("renewRecoveryCodes").AnswerIsNotKept().Needs(Act.SetUpSecondStep);
        me.MapPost("/passkeys/asking", (Caller who, Passkeys passkeys, HttpContext context) => passkeys.AskForNew(who, Gate.PresentOf(context).Session)).WithName("askForNewPasskey").AnswerIsNotKept().Needs(Act.SetUpSecondStep);
        me.MapPost("/passkeys", async (NewPasskeyBody body, Caller who, Passkeys passkeys, HttpContext context) =>
            new Made(await passkeys.Add(who, Gate.PresentOf(context).Session, body.Name, body.Answer, context.RequestAborted))).WithName("addPasskey").Needs(Act.SetUpSecondStep);
        me.MapDelete("/passkeys/{passkeyId:long}", (long passkeyId, Caller who, SecondSteps steps) =>
        {
            steps.RemovePasskey(who, passkeyId);
            return TypedResults.NoContent();
        }).WithName("removePasskey").Needs(Act.SetUpSecondStep);

        api.MapDelete("/people/{personId:long}/second-step", (long personId, Caller who, SecondSteps steps) =>
        {
            steps.EndOf(who, new PersonId(personId));
            return TypedResults.NoContent();
        }).WithName("endSecondStep").Needs(Act.EndSecondStep);
    }
}
