using SpringLoft.App;
using SpringLoft.App.Rosters;
using SpringLoft.Core;
using SpringLoft.Core.Audit;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Rosters;
using SpringLoft.Server.Api;
using SpringLoft.Server.Workspaces;
using SpringLoft.Store.Rosters;

namespace SpringLoft.Server.Rosters;

internal sealed record ColumnsBody(IReadOnlyList<RosterColumn>? Columns, bool Whole);

internal sealed record DecisionBody(string? Key, HoldDecision Decision, PersonId? Person);

internal sealed record ApplyBody(PlanId? Plan, int Version);

internal sealed record FeedAnswer(FeedView? Feed, FeedOffer Offer);

internal sealed record FeedRan(long? Delivery);

internal static class DeliveryEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        var d = api.MapGroup("/deliveries");
        d.MapGet("", (Deliveries deliveries) => deliveries.All()).WithName("deliveries").Needs(Act.TakeDeliveries);
        d.MapPost("/files", async (long year, string? name, Caller who, Deliveries deliveries, HttpRequest request, CancellationToken stop) =>
            new Made(await deliveries.Receive(who, new(year), name, request.Body, stop))).WithName("receiveDelivery").TakesFile().Needs(Act.TakeDeliveries);
        d.MapGet("/{deliveryId:long}", (long deliveryId, Deliveries deliveries) => deliveries.See(deliveryId)).WithName("delivery").Needs(Act.TakeDeliveries);
        d.MapGet("/{deliveryId:long}/changes", (long deliveryId, ChangeKind? kind, string? className, bool? held, string? search, int? skip, Deliveries deliveries) =>
            deliveries.Changes(deliveryId, kind, className, held, search, skip ?? 0)).WithName("deliveryChanges").Needs(Act.TakeDeliveries);
        d.MapGet("/{deliveryId:long}/classes", (long deliveryId, Deliveries deliveries) => deliveries.Classes(deliveryId)).WithName("deliveryClasses").Needs(Act.TakeDeliveries);
        d.MapGet("/{deliveryId:long}/source", (long deliveryId, Deliveries deliveries) => Uploads.Send(deliveries.Source(deliveryId))).WithName("deliverySource").Tells(Reading.Export, "a delivery as it came").SendsFile().Needs(Act.TakeDeliveries);
        d.MapPut("/{deliveryId:long}/columns", (long deliveryId, ColumnsBody body, Caller who, Deliveries deliveries) =>
        {
            deliveries.SetColumns(who, deliveryId, body.Columns ?? [], body.Whole);
            return TypedResults.NoContent();
        }).WithName("confirmColumns").Needs(Act.TakeDeliveries);
        d.MapPut("/{deliveryId:long}/holds", (long deliveryId, DecisionBody body, Caller who, Deliveries deliveries) =>
        {
            deliveries.Decide(who, deliveryId, body.Key, body.Decision, body.Person);
            return TypedResults.NoContent();
        }).WithName("decideHold").Needs(Act.TakeDeliveries);
        d.MapPost("/{deliveryId:long}/apply", (long deliveryId, ApplyBody body, Caller who, ApplyingDelivery applying) =>
            applying.Apply(who, deliveryId, body.Plan, body.Version)).WithName("applyDelivery").Needs(Act.TakeDeliveries);
        d.MapPost("/{deliveryId:long}/take-back", (long deliveryId, Caller who, ApplyingDelivery applying) => applying.TakeBack(who, deliveryId)).WithName("takeDeliveryBack").Needs(Act.TakeDeliveries);
        d.MapPost("/{deliveryId:long}/set-aside", (long deliveryId, Caller who, Deliveries deliveries) =>
        {
            deliveries.SetAside(who, deliveryId);
            return TypedResults.NoContent();
        }).WithName("setDeliveryAside").Needs(Act.TakeDeliveries);
        api.MapGet("/feed", (Feeding feeding) => new FeedAnswer(feeding.See(), feeding.Offer())).WithName("feed").Needs(Act.TakeDeliveries);
        api.MapPut("/feed", (FeedDraft body, Caller who, Feeding feeding) =>
        {
            feeding.Set(who, body);
            return TypedResults.NoContent();
        }).WithName("setFeed").Needs(Act.SetFeed);
        api.MapPost("/feed/run", async (Caller who, Feeding feeding, CancellationToken stop) => new FeedRan(await feeding.Run(who, stop))).WithName("runFeed").Needs(Act.TakeDeliveries);
        api.MapGet("/oneroster/rosters", (long year, RostersOut rosters) => Uploads.Send(rosters.Bundle(new(year)))).WithName("exportRosters").Tells(Reading.Export, "all rosters, for other programs").SendsFile().Needs(Act.TakeDeliveries);
        api.MapGet("/rosters/table", (long year, RostersOut rosters) => Uploads.Send(rosters.Table(new YearId(year)))).WithName("exportRostersTable").Tells(Reading.Export, "all rosters, as a table").SendsFile().Needs(Act.TakeDeliveries);
        api.MapGet("/classes/{classId:long}/roster/table", (long classId, RostersOut rosters) => Uploads.Send(rosters.Table(new ClassId(classId)))).WithName("exportRoster").Tells(Reading.Export, "the roster, as a table").SendsFile().Needs(Act.Arrange);
    }
}
