using SpringLoft.App;
using SpringLoft.App.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;

namespace SpringLoft.Server.Rosters;

internal sealed record CodeBody(int Days, int? Most, bool Waits);

internal sealed record AnswerBody(bool Yes);

internal sealed record JoinBody(string? Code);

internal sealed record InviteBody(string? Addresses, ClassRole Role);

internal sealed record TokenBody(string? Token);

internal static class JoinEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        var k = api.MapGroup("/classes/{classId:long}");
        k.MapGet("/join-code", (long classId, Joining joining) => joining.See(new(classId))).WithName("joinCode").Needs(Act.ManageRoster);
        k.MapPut("/join-code", (long classId, CodeBody body, Caller who, Joining joining) =>
        {
            joining.Renew(who, new(classId), body.Days, body.Most, body.Waits);
            return TypedResults.NoContent();
        }).WithName("renewJoinCode").Needs(Act.ManageRoster);
        k.MapDelete("/join-code", (long classId, Caller who, Joining joining) =>
        {
            joining.Stop(who, new(classId));
            return TypedResults.NoContent();
        }).WithName("stopJoinCode").Needs(Act.ManageRoster);
        k.MapPost("/join-code/waiting/{personId:long}", (long classId, long personId, AnswerBody body, Caller who, Joining joining) =>
        {
            joining.Answer(who, new(classId), new(personId), body.Yes);
            return TypedResults.NoContent();
        }).WithName("answerWaiting").Needs(Act.ManageRoster);
        api.MapPost("/join", (JoinBody body, Caller who, Joining joining) => joining.Join(who, body.Code)).WithName("join").Needs(Act.SeeOwnClasses);
        k.MapGet("/invitations", (long classId, Invitations invitations) => invitations.Of(new(classId))).WithName("invitations").Needs(Act.ManageRoster);
        k.MapPost("/invitations", (long classId, InviteBody body, Caller who, Invitations invitations, SchoolAddress address) =>
            invitations.Send(who, new(classId), body.Addresses, body.Role, address.Text)).WithName("invite").Needs(Act.ManageRoster);
        k.MapDelete("/invitations/{invitationId:long}", (long classId, long invitationId, Caller who, Invitations invitations) =>
        {
            invitations.Withdraw(who, new(classId), invitationId);
            return TypedResults.NoContent();
        }).WithName("withdrawInvitation").Needs(Act.ManageRoster);
        api.MapGet("/invitation", (string? token, Invitations invitations) => invitations.Look(token)).WithName("invitation").Needs(Act.SeeOwnClasses);
        api.MapPost("/invitation", (TokenBody body, Caller who, Invitations invitations) => invitations.Accept(who, body.Token)).WithName("acceptInvitation").Needs(Act.SeeOwnClasses);
        k.MapPost("/outside", (long classId, JoinBody body, OutsideClasses outside, CancellationToken stop) => outside.Look(new(classId), body.Code, stop)).WithName("outsideClass").Needs(Act.ManageRoster);
    }
}
