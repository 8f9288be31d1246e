using SpringLoft.App;
using SpringLoft.App.Workspaces;
using SpringLoft.Core;
using SpringLoft.Core.Audit;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;
using SpringLoft.Server.Years;

namespace SpringLoft.Server.Workspaces;

/// <param name="Answers">The message that it answers; null for none.</param>
internal sealed record MessageBody(string? Text, long? Answers);

internal sealed record HideBody(string? Why);

internal sealed record ReadsOnlyBody(bool Only);

internal static class TalkEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        var k = api.MapGroup("/classes/{classId:long}");
        var t = k.MapGroup("/folders/{folderId:long}/talk");
        t.MapGet("", (long classId, long folderId, long? before, Caller who, Talking talking) => talking.See(who, new(classId), new(folderId), before)).WithName("talk").Needs(Act.Talk);
        t.MapPut("", (long classId, long folderId, TalkSetting body, Caller who, Talking talking) =>
        {
            talking.Set(who, new(classId), new(folderId), body);
            return TypedResults.NoContent();
        }).WithName("setTalk").Needs(Act.KeepTalk);
        t.MapPost("/messages", (long classId, long folderId, MessageBody body, Caller who, Talking talking) => new Made(talking.Write(who, new(classId), new(folderId), body.Text, body.Answers))).WithName("writeMessage").Needs(Act.Talk);
        t.MapPost("/messages/{messageId:long}/hiding", (long classId, long folderId, long messageId, HideBody body, Caller who, Talking talking) =>
        {
            talking.Hide(who, new(classId), new(folderId), messageId, body.Why);
            return TypedResults.NoContent();
        }).WithName("hideMessage").Needs(Act.KeepTalk);
        t.MapDelete("/messages/{messageId:long}/hiding", (long classId, long folderId, long messageId, Caller who, Talking talking) =>
        {
            talking.Show(who, new(classId), new(folderId), messageId);
            return TypedResults.NoContent();
        }).WithName("showMessage").Needs(Act.KeepTalk);
        t.MapGet("/answered", (long classId, long folderId, string? day, Caller who, Talking talking) => talking.Answered(who, new(classId), new(folderId), YearEndpoints.Day(day))).WithName("talkAnswered").Tells(Reading.Work, "who has answered").Needs(Act.KeepTalk);
        k.MapPut("/talk/readers/{personId:long}", (long classId, long personId, ReadsOnlyBody body, Caller who, Talking talking) =>
        {
            talking.SetReader(who, new(classId), new(personId), body.Only);
            return TypedResults.NoContent();
        }).WithName("setTalkReader").Needs(Act.KeepTalk);
        k.MapPut("/talk/quiet", (long classId, ReadsOnlyBody body, Caller who, Talking talking) =>
        {
            talking.SetQuiet(who, new(classId), body.Only);
            return TypedResults.NoContent();
        }).WithName("setTalkQuiet").Needs(Act.KeepTalk);
    }
}
