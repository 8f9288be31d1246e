using SpringLoft.App;
using SpringLoft.App.Closing;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;
using SpringLoft.Server.Workspaces;

namespace SpringLoft.Server.Closing;

internal sealed record TakeHomesBody(YearId Year, IReadOnlyList<PersonId>? Students);

/// <param name="Name">The student's name, typed; not asked of the student themselves.</param>
internal sealed record LetGoBody(string? Name, string? Reason);

internal static class TakeHomeEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/take-homes", (Caller who, TakeHomes homes, long? year) => homes.See(who, year is { } y ? new YearId(y) : null)).WithName("takeHomes").Needs(Act.SeeBoard);
        api.MapPost("/take-homes/runs", (TakeHomesBody body, Caller who, TakeHomes homes) => new Made(homes.Begin(who, body.Year, body.Students).Value)).WithName("makeTakeHomes").Needs(Act.SeeBoard);
        api.MapGet("/take-homes/runs/{runId:long}", (long runId, Caller who, TakeHomes homes) => homes.See(who, new RunId(runId))).WithName("takeHomeRun").Needs(Act.SeeBoard);
        api.MapGet("/take-homes/{yearId:long}/{personId:long}", (long yearId, long personId, Caller who, TakeHomes homes) =>
            Uploads.Send(homes.Open(who, new PersonId(personId), new YearId(yearId)))).WithName("handOutTakeHome").SendsFile().Needs(Act.KeepLoft);
        api.MapGet("/take-homes/{yearId:long}/{personId:long}/letting-go", (long yearId, long personId, Caller who, LastCopies copies) =>
            copies.Look(who, new PersonId(personId), new YearId(yearId))).WithName("lookAtLettingGo").Needs(Act.LetGoOfTakeHome);
        api.MapGet("/my-take-homes/{yearId:long}/letting-go", (long yearId, Caller who, LastCopies copies) => copies.Look(who, who.Id, new YearId(yearId))).WithName("lookAtMyLettingGo").Needs(Act.SeeOwnClasses);
        api.MapPost("/take-homes/{yearId:long}/{personId:long}/letting-go", (long yearId, long personId, LetGoBody body, Caller who, LastCopies copies) =>
        {
            copies.LetGo(who, new PersonId(personId), new YearId(yearId), body.Name, body.Reason);
            return TypedResults.NoContent();
        }).WithName("letGoOfTakeHome").Needs(Act.LetGoOfTakeHome);
        api.MapPost("/my-take-homes/{yearId:long}/letting-go", (long yearId, Caller who, LastCopies copies) =>
        {
            copies.LetGo(who, who.Id, new YearId(yearId), null, null);
            return TypedResults.NoContent();
        }).WithName("letGoOfMyTakeHome").Needs(Act.SeeOwnClasses);
        api.MapGet("/my-take-homes", (Caller who, TakeHomes homes) => homes.Mine(who)).WithName("myTakeHomes").Needs(Act.SeeOwnClasses);
        api.MapGet("/my-take-homes/{yearId:long}", (long yearId, Caller who, TakeHomes homes) => Uploads.Send(homes.OpenMine(who, new YearId(yearId)))).WithName("fetchTakeHome").SendsFile().Needs(Act.SeeOwnClasses);
        var k = api.MapGroup("/classes/{classId:long}/tidy");
        k.MapGet("", (long classId, Caller who, Tidying tidying) => tidying.See(who, new ClassId(classId))).WithName("tidy").Needs(Act.Arrange);
        k.MapPost("/{itemId:long}/keeping", (long classId, long itemId, Caller who, Tidying tidying) => new Made(tidying.Keep(who, new ClassId(classId), new ItemId(itemId)).Value)).WithName("keepLoose").Needs(Act.Arrange);
        k.MapDelete("/{itemId:long}/keeping", (long classId, long itemId, Caller who, Tidying tidying) =>
        {
            tidying.Unkeep(who, new ClassId(classId), new ItemId(itemId));
            return TypedResults.NoContent();
        }).WithName("unkeepLoose").Needs(Act.Arrange);
    }
}
