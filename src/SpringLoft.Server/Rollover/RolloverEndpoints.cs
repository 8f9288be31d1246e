using SpringLoft.App;
using SpringLoft.App.Rollover;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;
using SpringLoft.Server.Workspaces;

namespace SpringLoft.Server.Rollover;

internal static class RolloverEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        var k = api.MapGroup("/classes/{classId:long}");
        k.MapPost("/rollover-preview", (long classId, NewYear body, RollingOver rolling) => rolling.Preview(new(classId), body)).WithName("previewRollover").Needs(Act.RollOver);
        k.MapPost("/rollover", (long classId, NewYear body, Caller who, RollingOver rolling) =>
            new Made(rolling.Make(who, new(classId), body).Value)).WithName("rollOver").Needs(Act.RollOver);
    }
}
