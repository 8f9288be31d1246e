using SpringLoft.App;
using SpringLoft.App.Workspaces;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;

namespace SpringLoft.Server.Workspaces;

internal sealed record UsedBody(IReadOnlyList<ResourceId>? Things);

internal static class SharedThingEndpoints
{
    internal static void Map(RouteGroupBuilder api, RouteGroupBuilder k)
    {
        api.MapGet("/shared-things", (SharedThings things) => things.All()).WithName("sharedThings").Needs(Act.SeeBoard);
        api.MapPost("/shared-things", (SharedThingDraft body, Caller who, SharedThings things) => new Made(things.Add(who, body).Value)).WithName("addSharedThing").Needs(Act.LayDownYear);
        api.MapPost("/shared-things/files", async (string? name, Caller who, SharedThings things, HttpRequest request, CancellationToken stop) =>
            new Made((await things.AddFile(who, name, request.Body, stop)).Value)).WithName("addSharedFile").TakesFile().Needs(Act.LayDownYear);
        api.MapPut("/shared-things/{thingId:long}", (long thingId, SharedThingDraft body, Caller who, SharedThings things) =>
        {
            things.Change(who, new(thingId), body);
            return TypedResults.NoContent();
        }).WithName("changeSharedThing").Needs(Act.LayDownYear);
        api.MapDelete("/shared-things/{thingId:long}", (long thingId, Caller who, SharedThings things) =>
        {
            things.SetBinned(who, new(thingId), true);
            return TypedResults.NoContent();
        }).WithName("binSharedThing").Needs(Act.LayDownYear);
        api.MapPost("/shared-things/{thingId:long}/bring-back", (long thingId, Caller who, SharedThings things) =>
        {
            things.SetBinned(who, new(thingId), false);
            return TypedResults.NoContent();
        }).WithName("bringBackSharedThing").Needs(Act.LayDownYear);
        api.MapGet("/shared-things/{thingId:long}/content", (long thingId, Caller who, SharedThings things) => Uploads.Send(things.Open(who, new(thingId)))).WithName("sharedThingContent").SendsFile().Needs(Act.SeeOwnClasses);
        api.MapPost("/oneroster/resources/files", (bool apply, Caller who, SharedThings things, HttpRequest request, CancellationToken stop) =>
            things.Read(who, request.Body, apply, stop)).WithName("readResources").TakesFile().Needs(Act.LayDownYear);
        api.MapGet("/oneroster/resources", (long year, SharedThings things) => Uploads.Send(things.Export(new(year)))).WithName("exportResources").SendsFile().Needs(Act.LayDownYear);
        k.MapGet("/shared-things", (long classId, SharedThings things) => things.For(new(classId))).WithName("offeredThings").Needs(Act.Arrange);
        k.MapPut("/shared-things", (long classId, UsedBody body, Caller who, SharedThings things) =>
        {
            things.Use(who, new(classId), body.Things ?? []);
            return TypedResults.NoContent();
        }).WithName("useThings").Needs(Act.Arrange);
    }
}
