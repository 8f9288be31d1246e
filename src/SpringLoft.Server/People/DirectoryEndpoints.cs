using SpringLoft.App;
using SpringLoft.App.People;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;
using SpringLoft.Formats.Print;
using SpringLoft.Server.Rosters;
using SpringLoft.Server.Workspaces;

namespace SpringLoft.Server.People;

internal sealed record AddPersonBody(PersonDraft Person, bool EvenSo);

/// <param name="OffRosters">For those who have left: true to take them off their rosters too.</param>
internal sealed record ActiveBody(IReadOnlyList<PersonId>? People, bool Active, bool OffRosters);

internal sealed record RoleBody(IReadOnlyList<PersonId>? People, SchoolRole Role);

internal sealed record PairBody(PersonId Kept, PersonId Gone);

internal sealed record FirstPasswordBody(string? Rule, int Version);

internal sealed record Changed(int People);

internal static class DirectoryEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        var people = api.MapGroup("/people");
        people.MapGet("", ([AsParameters] DirectoryAsk ask, SchoolDirectory directory) => directory.See(ask)).WithName("directory").Needs(Act.SearchDirectory);
        people.MapPost("/look", (PersonDraft body, SchoolDirectory directory) => directory.Look(body)).WithName("lookForPerson").Needs(Act.AddPerson);
        people.MapPost("", (AddPersonBody body, Caller who, SchoolDirectory directory) => new Made(directory.Add(who, body.Person, body.EvenSo).Value)).WithName("addPerson").Needs(Act.AddPerson);
        people.MapPut("/{personId:long}", (long personId, PersonDraft body, Caller who, SchoolDirectory directory) =>
        {
            directory.Change(who, new(personId), body);
            return TypedResults.NoContent();
        }).WithName("changePerson").Needs(Act.KeepDirectory);
        people.MapGet("/leaving", (long[] people, Leavers leavers) => leavers.Preview(Ids(people))).WithName("previewLeaving").Needs(Act.KeepDirectory);
        people.MapPut("/active", (ActiveBody body, Caller who, Leavers leavers) => body.Active ? leavers.BringBack(who, body.People ?? []) : leavers.Mark(who, body.People ?? [], body.OffRosters)).WithName("setActive").Needs(Act.KeepDirectory);
        people.MapPut("/role", (RoleBody body, Caller who, SchoolDirectory directory) => new Changed(directory.SetRole(who, body.People ?? [], body.Role))).WithName("setRole").Needs(Act.SetRoles);
        people.MapGet("/duplicates", (SchoolDirectory directory) => directory.Duplicates()).WithName("duplicates").Needs(Act.KeepDirectory);
        people.MapPost("/apart", (PairBody body, Caller who, SchoolDirectory directory) =>
        {
            directory.SetApart(who, body.Kept, body.Gone);
            return TypedResults.NoContent();
        }).WithName("setApart").Needs(Act.KeepDirectory);
        people.MapGet("/joins", (SchoolDirectory directory) => directory.Joins()).WithName("joins").Needs(Act.KeepDirectory);
        people.MapPost("/joins", (PairBody body, Caller who, SchoolDirectory directory) =>
        {
            directory.Join(who, body.Kept, body.Gone);
            return TypedResults.NoContent();
        }).WithName("joinPeople").Needs(Act.JoinPeople);
        people.MapPost("/joins/{joinId:long}/undo", (long joinId, Caller who, SchoolDirectory directory) =>
        {
            directory.UndoJoin(who, joinId);
            return TypedResults.NoContent();
        }).WithName("undoJoin").Needs(Act.JoinPeople);
        people.MapGet("/slips", (long[] people, Caller who, Slips slips) => slips.Of(who, Ids(people))).WithName("slipsOfPeople").Needs(Act.HaveSlipsOfAnybody);
        people.MapGet("/slips/shown", (long[] people, Caller who, Slips slips) => slips.Show(who, null, Ids(people))).WithName("showSlipsOfPeople").Needs(Act.HaveSlipsOfAnybody);
        people.MapGet("/slips/pdf", (long[] people, Paper? paper, bool? letters, Caller who, Slips slips, SchoolAddress address) =>
            Uploads.Send(slips.Pdf(slips.Show(who, null, Ids(people)), address.Text, paper ?? Paper.A4, letters ?? false))).WithName("slipsOfPeopleAsPdf").SendsFile().Needs(Act.HaveSlipsOfAnybody);
        people.MapPost("/slips", (PeopleBody body, Caller who, Slips slips) =>
        {
            slips.Renew(who, null, body.People ?? []);
            return TypedResults.NoContent();
        }).WithName("renewSlipsOfPeople").Needs(Act.MakeSlipsOfAnybody);
        api.MapGet("/naming/first-passwords", (string? rule, SchoolDirectory directory) => directory.SeeFirstPasswords(rule)).WithName("firstPasswords").Needs(Act.LayDownYear);
        api.MapPut("/naming/first-passwords", (FirstPasswordBody body, Caller who, SchoolDirectory directory) =>
        {
            directory.SetFirstPasswords(who, body.Rule, body.Version);
            return TypedResults.NoContent();
        }).WithName("setFirstPasswords").Needs(Act.LayDownYear);
    }

    internal static List<PersonId> Ids(long[] people) => [.. people.Select(p => new PersonId(p))];
}
