using SpringLoft.App;
using SpringLoft.App.People;
using SpringLoft.App.School;
using SpringLoft.Core;
using SpringLoft.Core.Audit;
using SpringLoft.Core.School;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;

namespace SpringLoft.Server.School;

internal sealed record RulesBody(SchoolRules Rules, int Version);

internal sealed record EraseBody(string? Name);

internal static class RulesEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/school/rules", (RulesDesk desk) => desk.See()).WithName("schoolRules").Needs(Act.SeeSchoolRules);
        api.MapPost("/school/rules/preview", (SchoolRules body, RulesDesk desk) => desk.Preview(body)).WithName("previewSchoolRules").Needs(Act.SeeSchoolRules);
        api.MapPut("/school/rules", (RulesBody body, Caller who, RulesDesk desk) =>
        {
            desk.Set(who, body.Rules, body.Version);
            return TypedResults.NoContent();
        }).WithName("setSchoolRules").Needs(Act.SetSchoolRules);

        api.MapGet("/school/scales", (SchoolScales scales) => scales.See()).WithName("scales").Needs(Act.SeeScales);
        api.MapPost("/school/scales", (ScaleDraft body, Caller who, SchoolScales scales) =>
        {
            scales.Add(who, body);
            return TypedResults.NoContent();
        }).WithName("addScale").Needs(Act.LayDownScales);
        api.MapPut("/school/scales/{scaleId:long}", (long scaleId, int version, ScaleDraft body, Caller who, SchoolScales scales) =>
        {
            scales.Change(who, scaleId, body, version);
            return TypedResults.NoContent();
        }).WithName("changeScale").Needs(Act.LayDownScales);
        api.MapDelete("/school/scales/{scaleId:long}", (long scaleId, Caller who, SchoolScales scales) =>
        {
            scales.Remove(who, scaleId);
            return TypedResults.NoContent();
        }).WithName("removeScale").Needs(Act.LayDownScales);

        api.MapGet("/me/data", (Caller who, PersonData data, CancellationToken stop) => Uploads.Send(data.Of(who.Id, stop))).WithName("ownData").SendsFile().Needs(Act.HaveOwnData);
        var person = api.MapGroup("/people/{personId:long}");
        person.MapGet("/data", (long personId, PersonData data, CancellationToken stop) => Uploads.Send(data.Of(new PersonId(personId), stop))).WithName("personData").Tells(Reading.Person, "all data").SendsFile().Needs(Act.HavePersonData);
        person.MapGet("/erasing", (long personId, Erasing erasing) => erasing.Preview(new PersonId(personId))).WithName("previewErasing").Needs(Act.HavePersonData);
        person.MapPost("/erasing", (long personId, EraseBody body, Caller who, Erasing erasing) =>
        {
            erasing.Erase(who, new PersonId(personId), body.Name);
            return TypedResults.NoContent();
        }).WithName("erasePerson").Needs(Act.ErasePeople);
    }
}
