using SpringLoft.App;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;

namespace SpringLoft.Server.Workspaces;

internal static class NoticeEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        // Of which classes, and in which, is asked class by class.
        var n = api.MapGroup("/notices");
        n.MapGet("", (Caller who, Notices notices) => notices.Mine(who)).WithName("notices").Needs(Act.SeeOwnClasses);
        n.MapPost("", (NewNotice body, Caller who, Notices notices) => new Made(notices.Post(who, body))).WithName("postNotices").Needs(Act.SeeOwnClasses);
        n.MapPost("/reach", (NewNotice body, Caller who, Notices notices) => notices.Preview(who, body)).WithName("previewNotice").Needs(Act.SeeOwnClasses);
        n.MapPut("/{noticeId:long}", (long noticeId, int version, NewNotice body, Caller who, Notices notices) =>
        {
            notices.Change(who, noticeId, body, version);
            return TypedResults.NoContent();
        }).WithName("changeNotice").Needs(Act.SeeOwnClasses);
        n.MapDelete("/{noticeId:long}", (long noticeId, int version, Caller who, Notices notices) =>
        {
            notices.Withdraw(who, noticeId, version);
            return TypedResults.NoContent();
        }).WithName("withdrawNotice").Needs(Act.SeeOwnClasses);
        n.MapPost("/files", (string? name, Caller who, NoticeFiles files, HttpRequest request, CancellationToken stop) => files.Upload(who, name, request.Body, stop)).WithName("uploadForNotice").TakesFile().Needs(Act.SeeOwnClasses);
        n.MapGet("/{noticeId:long}/files/{fileId:long}", (long noticeId, long fileId, Caller who, NoticeFiles files) => Uploads.Send(files.Open(who, noticeId, fileId))).WithName("noticeFile").SendsFile().Needs(Act.SeeOwnClasses);
        n.MapGet("/{noticeId:long}/readers", (long noticeId, Caller who, Notices notices) => notices.Readers(who, noticeId)).WithName("noticeReaders").Needs(Act.SeeOwnClasses);
    }
}
