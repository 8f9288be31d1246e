using NodaTime;
using SpringLoft.App;
using SpringLoft.App.Closing;
using SpringLoft.Core;
using SpringLoft.Core.Letters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Print;
using SpringLoft.Server.Api;
using SpringLoft.Server.Letters;
using SpringLoft.Store.Naming;

namespace SpringLoft.Server.Closing;

internal sealed record ShelfChange(string? Title, string? Text, LocalDate Until, string? Language = null);

internal static class ShelfEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        var k = api.MapGroup("/classes/{classId:long}/shelves");
        k.MapGet("", (long classId, OpenShelf shelf) => shelf.See(new ClassId(classId))).WithName("shelves").Needs(Act.Arrange);
        k.MapPost("/preview", (long classId, ShelfDraft body, OpenShelf shelf) => shelf.Preview(new ClassId(classId), body)).WithName("previewShelf").Needs(Act.Arrange);
        k.MapPost("", (long classId, ShelfDraft body, Caller who, OpenShelf shelf) => shelf.Set(who, new ClassId(classId), body)).WithName("setShelf").Needs(Act.CloseClass);
        k.MapPost("/showcase", (long classId, ShelfDraft body, Caller who, OpenShelf shelf, CancellationToken stop) => Uploads.Send(shelf.Showcase(who, new ClassId(classId), body, stop))).WithName("showcase").SendsFile().Needs(Act.Arrange);
        k.MapPut("/{shelfId:long}", (long classId, long shelfId, ShelfChange body, Caller who, OpenShelf shelf) =>
        {
            shelf.Change(who, new ClassId(classId), shelfId, body.Title, body.Text, body.Until, body.Language);
            return TypedResults.NoContent();
        }).WithName("changeShelf").Needs(Act.CloseClass);
        k.MapDelete("/{shelfId:long}", (long classId, long shelfId, Caller who, OpenShelf shelf) =>
        {
            shelf.Shut(who, new ClassId(classId), shelfId);
            return TypedResults.NoContent();
        }).WithName("shutShelf").Needs(Act.CloseClass);
    }

    // Past its day nobody has it from a cache, and no search engine leads to it.
    private static void KeptNowhere(HttpContext context)
    {
        context.Response.Headers.CacheControl = "no-store";
        context.Response.Headers["X-Robots-Tag"] = "noindex";
    }

    /// <summary>The pages that open without an account. Nothing of them is kept by a browser that is shared.</summary>
    internal static void MapPages(WebApplication app)
    {
        app.MapGet("/shelf/{token}", (string token, OpenShelf shelf, Premises premises, HttpContext context) =>
        {
            KeptNowhere(context);
            try
            {
                var page = shelf.Visit(token);
                var positions = page.Things.Select(t => (Thing: new ShelfPageThing(t.Place, t.Name, t.Url), t.Position)).ToList();
                var paths = positions.ToDictionary(p => p.Thing, p => $"{token}/{p.Position}");
                return Results.Bytes(ShelfPage.Write(HomeWords.Of(page.Shelf.Language), page.Shelf.Title, page.Shelf.Text, page.School, page.Shelf.UntilDay, [.. positions.Select(p => p.Thing)], t => paths[t]), "text/html; charset=utf-8");
            }
            catch (RefusedException)
            {
                context.Response.StatusCode = StatusCodes.Status404NotFound;
                return Results.Bytes(ShelfPage.Shut(HomePages.Words(context), premises.Db.Read(c => SchoolStore.Get(c)?.Name ?? "")), "text/html; charset=utf-8");
            }
        }).ExcludeFromDescription();
        app.MapGet("/shelf/{token}/{position:int}", (string token, int position, OpenShelf shelf, HttpContext context) =>
        {
            KeptNowhere(context);
            if (shelf.Page(token, position) is { } page)
                return Results.Bytes(ShelfPage.Thing(HomeWords.Of(page.Shelf.Language), page.Name, page.Text, page.School, (page.Shelf.Title, $"/shelf/{token}")), "text/html; charset=utf-8");
            return Uploads.Send(shelf.Open(token, position));
        }).ExcludeFromDescription();
    }
}
