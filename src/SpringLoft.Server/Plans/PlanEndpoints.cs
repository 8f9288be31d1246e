using SpringLoft.App.Plans;
using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;

namespace SpringLoft.Server.Plans;

internal static class PlanEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/plans", (PlanDesk desk) => desk.Plans()).WithName("plans").Needs(Act.SeeBoard);
        api.MapGet("/plans/{planId:long}/unfolding", (long planId, long year, long? term, PlanDesk desk) =>
            desk.UnfoldFor(new PlanId(planId), new YearId(year), term is { } t ? new TermId(t) : null)).WithName("unfoldForYear").Needs(Act.SeeBoard);
        api.MapGet("/classes/{classId:long}/unfolding", (long classId, long plan, PlanDesk desk) =>
            desk.UnfoldFor(new PlanId(plan), new ClassId(classId))).WithName("unfoldForClass").Needs(Act.Arrange);
    }
}
