using SpringLoft.App;
using SpringLoft.App.Assignments;
using SpringLoft.Core;
using SpringLoft.Core.Audit;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Print;
using SpringLoft.Server.Api;
using SpringLoft.Server.Workspaces;

namespace SpringLoft.Server.Assignments;

/// <param name="EvenSo">Also where none of those whom it is given to can see it.</param>
internal sealed record DraftsOfBody(IReadOnlyList<ClassId>? Classes);

internal sealed record PublishDraftsBody(IReadOnlyList<DraftPick>? Drafts, bool ByWeek);

internal sealed record PublishBody(int Version, bool EvenSo = false);

internal sealed record PublishManyBody(IReadOnlyList<AssignmentId> Assignments);

internal sealed record MarkBody(decimal? Score, int Version);

internal sealed record CommentBody(string? Text);

internal sealed record OwnLinkBody(string? Title, string? Url);

internal sealed record OwnPageBody(string? Title, string? Text);

/// <param name="Seen">Which text was changed, as reading the page gave it.</param>
internal sealed record ChangeOwnPageBody(string? Title, string? Text, string? Seen);

internal sealed record ReturnBody(bool UnmarkedToo, int Version);

internal sealed record ReturnManyBody(ReturnScope Scope, string? Comment);

internal sealed record ReturnAllBody(AssignmentId? Assignment, bool UnmarkedToo, string? Comment);

internal sealed record PhraseBody(string? Text);

internal static class AssignmentEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapPost("/returns/preview", (ReturnScope body, Caller who, ReturningMany returning) => returning.Preview(who, body)).WithName("previewReturnMany").Needs(Act.SeeBoard);
        api.MapPost("/returns", (ReturnManyBody body, Caller who, ReturningMany returning) => returning.Do(who, body.Scope, body.Comment)).WithName("returnMany").Needs(Act.SeeBoard);
        api.MapGet("/phrases", (Caller who, Phrases phrases) => phrases.See(who)).WithName("phrases").Needs(Act.KeepPhrases);
        api.MapPost("/phrases", (PhraseBody body, Caller who, Phrases phrases) =>
        {
            phrases.Keep(who, body.Text);
            return TypedResults.NoContent();
        }).WithName("keepPhrase").Needs(Act.KeepPhrases);
        api.MapDelete("/phrases/{phraseId:long}", (long phraseId, Caller who, Phrases phrases) =>
        {
            phrases.Remove(who, phraseId);
            return TypedResults.NoContent();
        }).WithName("removePhrase").Needs(Act.KeepPhrases);
        api.MapGet("/today", (Caller who, Today today) => today.See(who)).WithName("today").Needs(Act.SeeOwnClasses);
        api.MapPost("/today/seen", (Caller who, Today today) =>
        {
            today.Seen(who);
            return TypedResults.NoContent();
        }).WithName("seenToday").Needs(Act.SeeOwnClasses);
        api.MapGet("/combined/{combinedId:long}/marking", (long combinedId, string? title, Caller who, MarkingDesk desk) => desk.OfCombined(who, combinedId, title)).WithName("combinedMarking").Needs(Act.SeeBoard);
        MapScores(api);
        api.MapPost("/drafts", (DraftsOfBody body, Caller who, PublishingMany publishing) => publishing.Drafts(who, body.Classes)).WithName("draftsOfMany").Needs(Act.SeeBoard);
        api.MapPost("/drafts/publishing", (PublishDraftsBody body, Caller who, PublishingMany publishing) => publishing.Publish(who, body.Drafts, body.ByWeek)).WithName("publishOfMany").Needs(Act.SeeBoard);
        var k = api.MapGroup("/classes/{classId:long}");
        k.MapPost("/assignments", (long classId, NewAssignment body, Caller who, Assigning assigning) =>
            assigning.Make(who, new(classId), body)).WithName("makeAssignment").Needs(Act.Arrange);
        k.MapPost("/assignments/preview", (long classId, long? assignment, NewAssignment body, Caller who, Previewing previewing) =>
            previewing.Preview(who, new(classId), body, assignment is { } a ? new AssignmentId(a) : null)).WithName("previewAssignment").Needs(Act.Arrange);
        k.MapPost("/assignments/files", (long classId, string? name, Caller who, Attaching attaching, HttpRequest request, CancellationToken stop) =>
            attaching.Upload(who, new(classId), name, request.Body, stop)).WithName("uploadForAssignment").TakesFile().Needs(Act.Arrange);
        k.MapGet("/assignments/{assignmentId:long}/things/{thingId:long}", (long classId, long assignmentId, long thingId, Caller who, Attaching attaching) =>
            Uploads.Send(attaching.Open(who, new(classId), new(assignmentId), thingId))).WithName("attachedThing").Counts(Did.OpenedThing).SendsFile().Needs(Act.SeeClass);
        k.MapPut("/assignments/{assignmentId:long}", (long classId, long assignmentId, int version, NewAssignment body, Caller who, Assigning assigning) =>
            assigning.Change(who, new(classId), new(assignmentId), body, version)).WithName("changeAssignment").Needs(Act.Arrange);
        k.MapPost("/assignments/{assignmentId:long}/publishing", (long classId, long assignmentId, PublishBody body, Caller who, Publishing publishing) =>
        {
            publishing.Publish(who, new(classId), new(assignmentId), body.Version, body.EvenSo);
            return TypedResults.NoContent();
        }).WithName("publishAssignment").Needs(Act.Arrange);
        k.MapDelete("/assignments/{assignmentId:long}/publishing", (long classId, long assignmentId, int version, Caller who, Publishing publishing) =>
        {
            publishing.Withdraw(who, new(classId), new(assignmentId), version);
            return TypedResults.NoContent();
        }).WithName("withdrawAssignment").Needs(Act.Arrange);
        k.MapPost("/assignments/publishing", (long classId, PublishManyBody body, Caller who, Publishing publishing) =>
            publishing.PublishMany(who, new(classId), body.Assignments)).WithName("publishMany").Needs(Act.Arrange);
        k.MapDelete("/assignments/{assignmentId:long}", (long classId, long assignmentId, Caller who, Assigning assigning) =>
        {
            assigning.Bin(who, new(classId), new(assignmentId));
            return TypedResults.NoContent();
        }).WithName("binAssignment").Needs(Act.Arrange);
        MapOwnWork(k);
        MapReturns(k);
    }

    private static void MapScores(RouteGroupBuilder api)
    {
        var combined = api.MapGroup("/combined/{combinedId:long}/scores");
        combined.MapGet("", (long combinedId, Caller who, ScoreTables tables) => tables.OfCombined(who, combinedId)).WithName("combinedScores").Needs(Act.SeeBoard);
        combined.MapGet("/file", (long combinedId, ScoreFormat format, Caller who, ScoresOut scores) => Uploads.Send(scores.OfCombined(who, combinedId, format))).WithName("exportCombinedScores").SendsFile().Needs(Act.SeeBoard);
        combined.MapPost("/files", (long combinedId, string? name, string? seen, Caller who, ScoresIn scores, HttpRequest request, CancellationToken stop) =>
            scores.OfCombined(who, combinedId, name, seen, request.Body, stop)).WithName("readCombinedScores").TakesFile().Needs(Act.SeeBoard);
        var k = api.MapGroup("/classes/{classId:long}/scores");
        k.MapGet("", (long classId, Caller who, ScoreTables tables) => tables.OfClass(who, new(classId))).WithName("scores").Tells(Reading.Work, "the scores").Needs(Act.Mark);
        k.MapGet("/file", (long classId, ScoreFormat format, Caller who, ScoresOut scores) => Uploads.Send(scores.OfClass(who, new(classId), format))).WithName("exportScores").Tells(Reading.Export, "the scores, as a table").SendsFile().Needs(Act.Mark);
        k.MapPost("/files", (long classId, string? name, string? seen, Caller who, ScoresIn scores, HttpRequest request, CancellationToken stop) =>
            scores.OfClass(who, new(classId), name, seen, request.Body, stop)).WithName("readScores").TakesFile().Needs(Act.Mark);
        api.MapDelete("/score-imports/{importId:long}", (long importId, Caller who, ScoresIn scores) => scores.TakeBack(who, importId)).WithName("takeScoresBack").Needs(Act.SeeBoard);
    }

    private static void MapOwnWork(RouteGroupBuilder k)
    {
        var own = k.MapGroup("/assignments/{assignmentId:long}/own-work");
        own.MapPost("/files", (long classId, long assignmentId, string? name, Caller who, StudentWork work, HttpRequest request, CancellationToken stop) =>
            work.AddFile(who, new(classId), new(assignmentId), name, request.Body, stop)).WithName("addOwnFile").TakesFile().Needs(Act.HandIn);
        own.MapGet("/files/{fileId:long}", (long classId, long assignmentId, long fileId, Caller who, StudentWork work) =>
            Uploads.Send(work.Open(who, new(classId), new(assignmentId), fileId))).WithName("ownFileContent").Counts(Did.OpenedThing).SendsFile().Needs(Act.HandIn);
        own.MapGet("/turns/{turnId:long}/{position:int}", (long classId, long assignmentId, long turnId, int position, Caller who, StudentWork work) =>
            Uploads.Send(work.OpenTurn(who, new(classId), new(assignmentId), turnId, position))).WithName("ownTurnFile").SendsFile().Needs(Act.SeeClass);
        own.MapPost("/links", (long classId, long assignmentId, OwnLinkBody body, Caller who, StudentWork work, CancellationToken stop) =>
            work.AddLink(who, new(classId), new(assignmentId), body.Title, body.Url, stop)).WithName("addOwnLink").Needs(Act.HandIn);
        own.MapPost("/pages", (long classId, long assignmentId, OwnPageBody body, Caller who, StudentWork work, CancellationToken stop) =>
            work.AddPage(who, new(classId), new(assignmentId), body.Title, body.Text, stop)).WithName("addOwnPage").Needs(Act.HandIn);
        own.MapGet("/pages/{fileId:long}", (long classId, long assignmentId, long fileId, Caller who, StudentWork work) =>
            work.ReadPage(who, new(classId), new(assignmentId), fileId)).WithName("ownPage").Needs(Act.HandIn);
        own.MapPut("/pages/{fileId:long}", (long classId, long assignmentId, long fileId, ChangeOwnPageBody body, Caller who, StudentWork work, CancellationToken stop) =>
            work.ChangePage(who, new(classId), new(assignmentId), fileId, body.Title, body.Text, body.Seen, stop)).WithName("changeOwnPage").Needs(Act.HandIn);
        own.MapGet("/turns/{turnId:long}/receipt", (long classId, long assignmentId, long turnId, Caller who, StudentWork work) =>
            Uploads.Send(work.Receipt(who, new(classId), new(assignmentId), turnId))).WithName("ownReceipt").SendsFile().Needs(Act.SeeClass);
        own.MapDelete("/files/{fileId:long}", (long classId, long assignmentId, long fileId, Caller who, StudentWork work) =>
        {
            work.RemoveFile(who, new(classId), new(assignmentId), fileId);
            return TypedResults.NoContent();
        }).WithName("removeOwnFile").Needs(Act.HandIn);
        own.MapPost("/hand-in", (long classId, long assignmentId, Caller who, StudentWork work) =>
        {
            work.HandIn(who, new(classId), new(assignmentId));
            return TypedResults.NoContent();
        }).WithName("handIn").Needs(Act.HandIn);
        own.MapPost("/take-back", (long classId, long assignmentId, Caller who, StudentWork work) =>
        {
            work.TakeBack(who, new(classId), new(assignmentId));
            return TypedResults.NoContent();
        }).WithName("takeBack").Needs(Act.HandIn);
    }

    private static void MapReturns(RouteGroupBuilder k)
    {
        k.MapGet("/returns", (long classId, Caller who, Returns returns) => returns.See(who, new(classId))).WithName("returns").Tells(Reading.Work, "the returns desk").Needs(Act.Mark);
        k.MapGet("/returns/preview", (long classId, long? assignment, bool unmarkedToo, Returns returns) =>
            returns.PreviewReturnAll(new(classId), assignment is { } a ? new AssignmentId(a) : null, unmarkedToo)).WithName("previewReturnAll").Needs(Act.Mark);
        k.MapPost("/returns", (long classId, ReturnAllBody body, Caller who, Returns returns) =>
            returns.ReturnAll(who, new(classId), body.Assignment, body.UnmarkedToo, body.Comment)).WithName("returnAll").Needs(Act.Mark);
        k.MapGet("/assignments/{assignmentId:long}/work.zip", (long classId, long assignmentId, Returns returns, CancellationToken stop) =>
            Uploads.Send(returns.OpenAll(new(classId), new(assignmentId), stop))).WithName("allWork").Tells(Reading.Work, "all work of an assignment").SendsFile().Needs(Act.Mark);

        k.MapGet("/home-lists", (long classId, int weeks, Caller who, PaperLists lists) => lists.See(who, new(classId), weeks)).WithName("homeLists").Tells(Reading.Work, "what homes are told on paper").Needs(Act.Mark);
        k.MapGet("/home-lists/pdf", (long classId, long? student, int weeks, bool marks, bool nothingToo, Paper? paper, Caller who, PaperLists lists) =>
            Uploads.Send(lists.ForHomes(who, new(classId), student is { } s ? new PersonId(s) : null, weeks, marks, nothingToo, paper ?? Paper.A4))).WithName("homeListsAsPdf").Tells(Reading.Export, "lists for homes").SendsFile().Needs(Act.Mark);
        k.MapGet("/wall-list", (long classId, string? language, Paper? paper, Caller who, PaperLists lists) =>
            Uploads.Send(lists.ForWall(who, new(classId), language, paper ?? Paper.A4))).WithName("wallList").SendsFile().Needs(Act.Arrange);

        k.MapGet("/marking", (long classId, long? assignment, long? student, Caller who, MarkingDesk desk) =>
            desk.See(who, new(classId), assignment is { } a ? new AssignmentId(a) : null, student is { } s ? new PersonId(s) : null)).WithName("marking").Tells(Reading.Work, "the marking desk").Needs(Act.Mark);

        var work = k.MapGroup("/work/{workId:long}");
        work.MapGet("", (long classId, long workId, Returns returns) => returns.See(new(classId), new WorkId(workId))).WithName("work").Tells(Reading.Work, "a piece of work").Needs(Act.Mark);
        work.MapGet("/turns/{turnId:long}/{position:int}", (long classId, long workId, long turnId, int position, Returns returns) =>
            Uploads.Send(returns.OpenTurn(new(classId), new(workId), turnId, position))).WithName("turnFile").Tells(Reading.Work, "a file as it was handed in").SendsFile().Needs(Act.Mark);
        work.MapGet("/turns/{turnId:long}/receipt", (long classId, long workId, long turnId, Returns returns) =>
            Uploads.Send(returns.Receipt(new(classId), new(workId), turnId))).WithName("receipt").Tells(Reading.Work, "a receipt").SendsFile().Needs(Act.Mark);
        work.MapGet("/files/{fileId:long}", (long classId, long workId, long fileId, Returns returns) =>
            Uploads.Send(returns.Open(new(classId), new(workId), fileId))).WithName("workFileContent").Tells(Reading.Work, "a file of work").SendsFile().Needs(Act.Mark);
        work.MapGet("/piece", (long classId, long workId, Caller who, MarkingDesk desk) => desk.Piece(who, new(classId), new(workId))).WithName("piece").Tells(Reading.Work, "a piece of work").Needs(Act.Mark);
        work.MapGet("/files/{fileId:long}/look", (long classId, long workId, long fileId, Caller who, MarkingDesk desk) =>
            Uploads.Show(desk.Look(who, new(classId), new(workId), null, fileId))).WithName("lookAtFile").Tells(Reading.Work, "a file of work").SendsFile().Needs(Act.Mark);
        work.MapGet("/turns/{turnId:long}/{position:int}/look", (long classId, long workId, long turnId, int position, Caller who, MarkingDesk desk) =>
            Uploads.Show(desk.Look(who, new(classId), new(workId), turnId, position))).WithName("lookAtTurnFile").Tells(Reading.Work, "a file as it was handed in").SendsFile().Needs(Act.Mark);
        work.MapPost("/judgement", (long classId, long workId, Judgement body, Caller who, MarkingDesk desk) =>
            desk.Judge(who, new(classId), new(workId), body)).WithName("judge").Needs(Act.Mark);
        work.MapPut("/mark", (long classId, long workId, MarkBody body, Caller who, Returns returns) =>
            returns.Mark(who, new(classId), new(workId), body.Score, body.Version)).WithName("mark").Needs(Act.Mark);
        work.MapPost("/comments", (long classId, long workId, CommentBody body, Caller who, Returns returns) =>
            returns.Comment(who, new(classId), new(workId), body.Text)).WithName("comment").Needs(Act.Mark);
        work.MapPost("/return", (long classId, long workId, ReturnBody body, Caller who, Returns returns) =>
            returns.Return(who, new(classId), new(workId), body.UnmarkedToo, body.Version)).WithName("returnWork").Needs(Act.Mark);
    }
}
