using NodaTime;
using SpringLoft.App;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;

namespace SpringLoft.Server.Workspaces;

internal sealed record NewsSeen(Instant UpTo);

internal static class NewsEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        var n = api.MapGroup("/news");
        n.MapGet("", (Caller who, News news) => news.See(who)).WithName("news").Needs(Act.SeeNews);
        n.MapGet("/count", (Caller who, News news) => news.Count(who)).WithName("newsCount").Needs(Act.SeeNews);
        n.MapPost("/seen", (NewsSeen body, Caller who, News news) =>
        {
            news.Seen(who, body.UpTo);
            return TypedResults.NoContent();
        }).WithName("seeNews").Needs(Act.SeeNews);
        n.MapPut("/wish", (NewsWish body, Caller who, News news) =>
        {
            news.Set(who, body);
            return TypedResults.NoContent();
        }).WithName("setNews").Needs(Act.SeeNews);
    }
}
