using SpringLoft.App;
using SpringLoft.App.People;
using SpringLoft.App.Rosters;
using SpringLoft.Core;
using SpringLoft.Core.Audit;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Print;
using SpringLoft.Server.Api;
using SpringLoft.Server.People;

namespace SpringLoft.Server.Rosters;

internal sealed record EnrollBody(IReadOnlyList<PersonId>? People, ClassRole Role, bool IncludeOpen);

internal sealed record PeopleBody(IReadOnlyList<PersonId>? People);

internal sealed record Removed(int People);

internal sealed record PostingBody(IReadOnlyList<PersonId>? People, bool Posts);

internal sealed record PersonBody(PersonId Person);

internal sealed record PostingSet(int Changed);

internal sealed record MoveBody(ClassId To, bool IncludeOpen);

internal sealed record IncludeBody(bool Include);

internal sealed record PasteBody(string? Text, bool Students);

internal sealed record GroupBody(string? Name, IReadOnlyList<PersonId>? Members, int Version);

internal sealed record FoldersStay(IReadOnlyList<string> Folders);

internal static class RosterEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/directory", (RosterDesk desk, string? starts, bool students, long? classId) =>
            desk.Search(classId is { } k ? new ClassId(k) : null, starts, students)).WithName("searchDirectory").Needs(Act.SearchDirectory);
        var roster = api.MapGroup("/classes/{classId:long}/roster");
        roster.MapGet("", (long classId, RosterDesk desk) => desk.See(new(classId))).WithName("roster").Tells(Reading.Roster, "the roster").Needs(Act.Arrange);
        roster.MapPost("", (long classId, EnrollBody body, Caller who, RosterDesk desk) =>
            desk.Enroll(who, new(classId), body.People ?? [], body.Role, body.IncludeOpen)).WithName("enroll").Needs(Act.ManageRoster);
        roster.MapPost("/reading", (long classId, PasteBody body, RosterDesk desk) => desk.ReadPaste(new(classId), body.Text, body.Students)).WithName("readRosterPaste").Needs(Act.ManageRoster);
        roster.MapPost("/all-of", (long classId, TakeFrom body, Caller who, RosterDesk desk) => desk.All(who, new(classId), body)).WithName("allOf").Needs(Act.ManageRoster);
        roster.MapDelete("/{personId:long}", (long classId, long personId, Caller who, RosterDesk desk) =>
        {
            desk.Remove(who, new(classId), new(personId));
            return TypedResults.NoContent();
        }).WithName("removeFromRoster").Needs(Act.ManageRoster);
        roster.MapPost("/removal-preview", (long classId, PeopleBody body, RosterDesk desk) => desk.PreviewRemoval(new(classId), body.People ?? [])).WithName("previewRemoval").Needs(Act.ManageRoster);
        roster.MapPost("/removal", (long classId, PeopleBody body, Caller who, RosterDesk desk) => new Removed(desk.RemoveMany(who, new(classId), body.People ?? []))).WithName("removeMany").Needs(Act.ManageRoster);
        roster.MapPut("/{personId:long}/open-assignments", (long classId, long personId, IncludeBody body, Caller who, RosterDesk desk) =>
        {
            desk.IncludeOpen(who, new(classId), new(personId), body.Include);
            return TypedResults.NoContent();
        }).WithName("includeOpenAssignments").Needs(Act.ManageRoster);
        roster.MapPost("/posting-preview", (long classId, PeopleBody body, Posting posting) => posting.Preview(new(classId), body.People ?? [])).WithName("previewPosting").Needs(Act.ManageRoster);
        roster.MapPut("/posting", (long classId, PostingBody body, Caller who, Posting posting) => new PostingSet(posting.Set(who, new(classId), body.People ?? [], body.Posts))).WithName("setPosting").Needs(Act.ManageRoster);
        MapMoves(roster);
        MapLead(api);
        api.MapGet("/classes/{classId:long}/slips", (long classId, Caller who, Slips slips) => slips.Of(who, new ClassId(classId))).WithName("slips").Needs(Act.HaveSlips);
        api.MapGet("/classes/{classId:long}/slips/shown", (long classId, long[] people, Caller who, Slips slips) => slips.Show(who, new ClassId(classId), DirectoryEndpoints.Ids(people))).WithName("showSlips").Needs(Act.HaveSlips);
        api.MapGet("/classes/{classId:long}/slips/pdf", (long classId, long[] people, Paper? paper, bool? letters, Caller who, Slips slips, SchoolAddress address) =>
            Uploads.Send(slips.Pdf(slips.Show(who, new ClassId(classId), DirectoryEndpoints.Ids(people)), address.Text, paper ?? Paper.A4, letters ?? false))).WithName("slipsAsPdf").SendsFile().Needs(Act.HaveSlips);
        api.MapPost("/classes/{classId:long}/slips/yes", (long classId, PeopleBody body, Caller who, Slips slips) =>
        {
            slips.SayYes(who, new ClassId(classId), body.People ?? []);
            return TypedResults.NoContent();
        }).WithName("letClassHaveSlips").Needs(Act.LetClassHaveSlips);
        api.MapPost("/classes/{classId:long}/slips", (long classId, PeopleBody body, Caller who, Slips slips) =>
        {
            slips.Renew(who, new ClassId(classId), body.People ?? []);
            return TypedResults.NoContent();
        }).WithName("renewSlips").Needs(Act.HaveSlips);
        MapGroups(api.MapGroup("/classes/{classId:long}"));
    }

    private static void MapLead(RouteGroupBuilder api)
    {
        var lead = api.MapGroup("/classes/{classId:long}/lead");
        lead.MapGet("", (long classId, Caller who, LeadDesk desk) => desk.See(who, new(classId))).WithName("lead").Needs(Act.Arrange);
        lead.MapPost("/preview", (long classId, PersonBody body, Caller who, LeadDesk desk) => desk.Preview(who, new(classId), body.Person)).WithName("previewLead").Needs(Act.OfferLead);
        lead.MapPut("", (long classId, PersonBody body, Caller who, LeadDesk desk) =>
        {
            desk.Set(who, new(classId), body.Person);
            return TypedResults.NoContent();
        }).WithName("setLead").Needs(Act.SetLead);
        lead.MapPut("/offer", (long classId, PersonBody body, Caller who, LeadDesk desk) =>
        {
            desk.Offer(who, new(classId), body.Person);
            return TypedResults.NoContent();
        }).WithName("offerLead").Needs(Act.OfferLead);
        lead.MapDelete("/offer", (long classId, Caller who, LeadDesk desk) =>
        {
            desk.Withdraw(who, new(classId));
            return TypedResults.NoContent();
        }).WithName("withdrawLeadOffer").Needs(Act.OfferLead);
        api.MapGet("/lead-offers", (Caller who, LeadDesk desk) => desk.Mine(who)).WithName("leadOffers").Needs(Act.AnswerLeadOffer);
        api.MapPost("/lead-offers/{classId:long}", (long classId, AnswerBody body, Caller who, LeadDesk desk) =>
        {
            desk.Answer(who, new(classId), body.Yes);
            return TypedResults.NoContent();
        }).WithName("answerLeadOffer").Needs(Act.AnswerLeadOffer);
    }

    private static void MapMoves(RouteGroupBuilder roster)
    {
        roster.MapGet("/sets", (long classId, Caller who, MovingSets moving) => moving.Choices(who, new(classId))).WithName("otherSets").Needs(Act.ManageRoster);
        roster.MapPost("/{personId:long}/move-preview", (long classId, long personId, MoveBody body, Caller who, MovingSets moving) =>
            moving.Preview(who, new(classId), new(personId), body.To, body.IncludeOpen)).WithName("previewMove").Needs(Act.ManageRoster);
        roster.MapPost("/{personId:long}/move", (long classId, long personId, MoveBody body, Caller who, MovingSets moving) =>
            moving.Move(who, new(classId), new(personId), body.To, body.IncludeOpen)).WithName("moveStudent").Needs(Act.ManageRoster);
        roster.MapGet("/{personId:long}/earlier", (long classId, long personId, MovingSets moving) => moving.Earlier(new(classId), new(personId))).WithName("earlierWork").Tells(Reading.Work, "work from another class").Needs(Act.Mark);
        roster.MapGet("/{personId:long}/earlier/{fileId:long}", (long classId, long personId, long fileId, MovingSets moving) => Uploads.Send(moving.Open(new(classId), new(personId), fileId))).WithName("earlierFile").Tells(Reading.Work, "a file of work from another class").SendsFile().Needs(Act.Mark);
    }

    private static void MapGroups(RouteGroupBuilder k)
    {
        k.MapGet("/groups", (long classId, GroupDesk desk) => desk.See(new(classId))).WithName("groups").Tells(Reading.Roster, "the groups").Needs(Act.Arrange);
        k.MapPost("/groups", (long classId, GroupBody body, Caller who, GroupDesk desk) => desk.Make(who, new(classId), body.Name, body.Members ?? [])).WithName("makeGroup").Needs(Act.Arrange);
        k.MapPost("/groups-of-grades", (long classId, Caller who, GroupDesk desk) => desk.MakeOfGrades(who, new(classId))).WithName("makeGroupsOfGrades").Needs(Act.Arrange);
        k.MapPost("/groups/preview", (long classId, GroupsAsk body, MakingGroups making) => making.Preview(new(classId), body)).WithName("previewGroups").Needs(Act.Arrange);
        k.MapPost("/groups/many", (long classId, GroupsAsk body, Caller who, MakingGroups making) => making.Make(who, new(classId), body)).WithName("makeManyGroups").Needs(Act.Arrange);
        k.MapPut("/groups/{groupId:long}", (long classId, long groupId, GroupBody body, Caller who, GroupDesk desk) =>
            desk.Change(who, new(classId), new(groupId), body.Name, body.Members ?? [], body.Version)).WithName("changeGroup").Needs(Act.Arrange);
        k.MapDelete("/groups/{groupId:long}", (long classId, long groupId, Caller who, GroupDesk desk) => new FoldersStay(desk.Bin(who, new(classId), new(groupId)))).WithName("binGroup").Needs(Act.Arrange);
    }
}
