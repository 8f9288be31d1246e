using SpringLoft.App;
using SpringLoft.App.Rollover;
using SpringLoft.App.Workspaces;
using SpringLoft.Core;
using SpringLoft.Core.Audit;
using SpringLoft.Core.Rollover;
using SpringLoft.Core.Workspaces;
using SpringLoft.Server.Api;

namespace SpringLoft.Server.Workspaces;

internal sealed record Made(long Id);

internal sealed record NamedBody(string? Name);

internal sealed record GroupPagesBody(string? Title, string? Text);

internal sealed record VersionBody(int Version);

internal sealed record Named(string Name);

/// <param name="Was">What somebody began with.</param>
/// <param name="Mine">What they made of it.</param>
internal sealed record AboutBody(AboutClass? Was, AboutClass? Mine);

/// <param name="Was">The note that it was begun on.</param>
internal sealed record WelcomeBody(string? Was, string? Text, Decided? Decided);

internal sealed record LinkBody(string? Title, string? Url);

internal sealed record PageBody(string? Title, string? Text, int Version);

internal sealed record PageTogetherBody(string? Text, int Version, Decided? Decided);

internal sealed record RenameItemBody(string? Name, string? Url, int Version);

internal sealed record FilingBody(IReadOnlyList<FolderId>? Folders);

internal sealed record NoticeBody(string? Text);

internal sealed record TreeBody(IReadOnlyList<string>? Paths);

internal sealed record MendBody(BlindKind Kind, FolderId? Folder, AssignmentId? Assignment);

internal sealed record ClassesBody(IReadOnlyList<ClassId>? Classes);

internal sealed record OpeningBody(IReadOnlyList<OpeningPick>? Classes);

internal sealed record KeepBody(FolderId? Folder);

internal sealed record MayCopyBody(bool MayCopy);

internal static class WorkspaceEndpoints
{
    internal static void Map(RouteGroupBuilder api)
    {
        api.MapGet("/courses", (MakingClass making) => making.Courses()).WithName("courses").Needs(Act.MakeClass);
        api.MapPost("/class-preview", (NewClass body, Caller who, MakingClass making) => making.Preview(who, body)).WithName("previewClass").Needs(Act.MakeClass);
        api.MapPost("/classes", (NewClass body, Caller who, MakingClass making) => new Made(making.Make(who, body).Value)).WithName("makeClass").Needs(Act.MakeClass);
        api.MapGet("/my-classes", (Caller who, Workspace workspace) => workspace.Mine(who)).WithName("myClasses").Needs(Act.SeeOwnClasses);

        api.MapPost("/opening/look", (ClassesBody body, Caller who, OpeningMany opening) => opening.Look(who, body.Classes)).WithName("lookAtOpening").Needs(Act.SeeBoard);
        api.MapPost("/opening", (OpeningBody body, Caller who, OpeningMany opening) => opening.Open(who, body.Classes)).WithName("openMany").Needs(Act.SeeBoard);

        var k = api.MapGroup("/classes/{classId:long}");
        k.MapGet("", (long classId, Caller who, Workspace workspace) => workspace.Head(who, new(classId))).WithName("classHead").Needs(Act.SeeClass);
        k.MapGet("/workspace", (long classId, Caller who, Workspace workspace) => workspace.See(who, new(classId))).WithName("workspace").Counts(Did.OpenedClass).Needs(Act.SeeClass);
        k.MapPost("/opening", (long classId, VersionBody body, Caller who, MakingClass making) =>
        {
            making.Open(who, new(classId), body.Version);
            return TypedResults.NoContent();
        }).WithName("openClass").Needs(Act.OpenClass);
        k.MapGet("/opening-check", (long classId, MakingClass making) => making.CheckOpening(new(classId))).WithName("checkOpening").Needs(Act.Arrange);
        k.MapPut("/about", (long classId, AboutBody body, Caller who, ClassDetails details) => new Named(details.Change(who, new(classId), body.Was, body.Mine))).WithName("changeAbout").Needs(Act.Arrange);
        k.MapPut("/welcome", (long classId, WelcomeBody body, Caller who, ClassDetails details) =>
        {
            details.SetWelcome(who, new(classId), body.Was, body.Text);
            return TypedResults.NoContent();
        }).WithName("setWelcome").Needs(Act.Arrange);
        k.MapPost("/welcome/together", (long classId, WelcomeBody body, ClassDetails details) => details.WelcomeTogether(new(classId), body.Was, body.Text, body.Decided)).WithName("welcomeTogether").Needs(Act.Arrange);
        k.MapGet("/past", (long classId, string? find, Caller who, DrawingOnPast past) => past.Search(who, new(classId), find)).WithName("searchPast").Needs(Act.Arrange);
        k.MapGet("/past/{kind}/{thingId:long}", (long classId, PastKind kind, long thingId, string? find, Caller who, DrawingOnPast past) => past.Look(who, new(classId), kind, thingId, find)).WithName("lookAtPast").Needs(Act.Arrange);
        k.MapPost("/giving-preview", (long classId, GiveDraft body, Caller who, GivingOut giving) => giving.Preview(who, new(classId), body)).WithName("previewGiving").Needs(Act.Arrange);
        k.MapPost("/giving", (long classId, GiveDraft body, Caller who, GivingOut giving) => giving.Give(who, new(classId), body)).WithName("give").Needs(Act.Arrange);
        k.MapGet("/activity", (long classId, int? from, int? to, Caller who, Activities activities) => activities.See(who, new(classId), from, to)).WithName("activity").Tells(Reading.Work, "the activity").Needs(Act.SeeActivity);
        k.MapPost("/notices", (long classId, NoticeBody body, Caller who, Notices notices) =>
        {
            notices.Post(who, new(body.Text, [new(classId)], null, false, null, null));
            return TypedResults.NoContent();
        }).WithName("postNotice").Needs(Act.PostNotices);
        k.MapPost("/notices/seen", (long classId, Caller who, Notices notices) =>
        {
            notices.SeenIn(who, new(classId));
            return TypedResults.NoContent();
        }).WithName("seeNotices").Needs(Act.SeeClass);
        api.MapGet("/kept-copies", (Caller who, KeptCopies kept) => kept.Mine(who)).WithName("keptCopies").Needs(Act.SeeBoard);
        k.MapPost("/kept-copies", (long classId, KeepBody body, Caller who, KeptCopies kept) => new Made(kept.Keep(who, new(classId), body.Folder).Value)).WithName("keepCopy").Needs(Act.Arrange);
        k.MapDelete("/kept-copy", (long classId, Caller who, KeptCopies kept) =>
        {
            kept.Drop(who, new(classId));
            return TypedResults.NoContent();
        }).WithName("dropKeptCopy").Needs(Act.CloseClass);
        ClassTableEndpoints.Map(api);
        SharedThingEndpoints.Map(api, k);
        DepartmentEndpoints.Map(api, k);
        MapFolders(k);
        MapItems(k);
    }

    private static void MapFolders(RouteGroupBuilder k)
    {
        k.MapGet("/seen-by-any-student", (long classId, Workspace workspace) => workspace.SeeAs(new(classId), null)).WithName("seenByAnyStudent").Needs(Act.Arrange);
        k.MapGet("/seen-by/{personId:long}", (long classId, long personId, Workspace workspace) => workspace.SeeAs(new(classId), new PersonId(personId))).WithName("seenBy").Needs(Act.Arrange);
        k.MapGet("/blind-spots", (long classId, Arranging arranging) => arranging.BlindSpots(new(classId))).WithName("blindSpots").Needs(Act.Arrange);
        k.MapPost("/blind-spots/mending", (long classId, MendBody body, Caller who, Arranging arranging) =>
        {
            arranging.Mend(who, new(classId), body.Kind, body.Folder, body.Assignment);
            return TypedResults.NoContent();
        }).WithName("mendBlindSpot").Needs(Act.Arrange);
        k.MapPost("/folders/{folderId:long}/folders", (long classId, long folderId, NamedBody body, Caller who, Arranging arranging) => new Made(arranging.MakeInside(who, new(classId), new(folderId), body.Name).Value)).WithName("makeFolderInside").Needs(Act.AddItem);
        k.MapPost("/folders/{folderId:long}/pages-for-groups", async (long classId, long folderId, GroupPagesBody body, Caller who, PagesForGroups pages, CancellationToken stop) =>
            await pages.Make(who, new(classId), new(folderId), body.Title, body.Text, stop)).WithName("addPagesForGroups").Needs(Act.Arrange);
        k.MapPost("/folders", (long classId, FolderDraft body, Caller who, Arranging arranging) => new Made(arranging.Make(who, new(classId), body).Value)).WithName("makeFolder").Needs(Act.Arrange);
        k.MapPut("/folders/{folderId:long}", (long classId, long folderId, FolderDraft body, Caller who, Arranging arranging) =>
        {
            arranging.Change(who, new(classId), new(folderId), body);
            return TypedResults.NoContent();
        }).WithName("changeFolder").Needs(Act.Arrange);
        k.MapDelete("/folders/{folderId:long}", (long classId, long folderId, Caller who, Arranging arranging) =>
        {
            arranging.Bin(who, new(classId), new(folderId));
            return TypedResults.NoContent();
        }).WithName("binFolder").Needs(Act.Arrange);
        k.MapGet("/folders/{folderId:long}/binning", (long classId, long folderId, Arranging arranging) => arranging.PreviewBin(new(classId), new(folderId))).WithName("previewBinFolder").Needs(Act.Arrange);
        k.MapPost("/folders/{folderId:long}/zips", (long classId, long folderId, Caller who, TreeIntake trees, HttpRequest request, CancellationToken stop) =>
            trees.TakeZip(who, new(classId), new(folderId), request.Body, stop)).WithName("takeZip").TakesFile().Needs(Act.Arrange);
        k.MapGet("/folders/{folderId:long}/zip", (long classId, long folderId, Caller who, TreeOutlet outlet, CancellationToken stop) =>
            Uploads.Send(outlet.Zip(who, new(classId), new(folderId), stop))).WithName("folderZip").Counts(Did.OpenedThing).Tells(Reading.Work, "a folder as a zip").SendsFile().Needs(Act.SeeClass);
        k.MapGet("/zip", (long classId, Caller who, TreeOutlet outlet, CancellationToken stop) =>
            Uploads.Send(outlet.Zip(who, new(classId), null, stop))).WithName("workspaceZip").Counts(Did.OpenedThing).Tells(Reading.Work, "the workspace as a zip").SendsFile().Needs(Act.SeeClass);
        k.MapPost("/folders/{folderId:long}/tree", (long classId, long folderId, TreeBody body, Caller who, TreeIntake trees) =>
            trees.Make(who, new(classId), new(folderId), body.Paths ?? [])).WithName("dropTree").Needs(Act.Arrange);
        k.MapGet("/folders/{folderId:long}/sight", (long classId, long folderId, Arranging arranging) => arranging.WhoSees(new(classId), new(folderId))).WithName("whoSeesFolder").Needs(Act.Arrange);
    }

    private static void MapItems(RouteGroupBuilder k)
    {
        k.MapPost("/folders/{folderId:long}/files", (long classId, long folderId, string? name, Caller who, Items items, HttpRequest request, CancellationToken stop) =>
            items.AddFile(who, new(classId), new(folderId), name, request.Body, stop)).WithName("addFile").TakesFile().Needs(Act.AddItem);
        k.MapPost("/folders/{folderId:long}/links", (long classId, long folderId, LinkBody body, Caller who, Items items) =>
            new Made(items.AddLink(who, new(classId), new(folderId), body.Title, body.Url).Value)).WithName("addLink").Needs(Act.AddItem);
        k.MapPost("/folders/{folderId:long}/pages", async (long classId, long folderId, PageBody body, Caller who, Items items, CancellationToken stop) =>
            new Made((await items.AddPage(who, new(classId), new(folderId), body.Title, body.Text, stop)).Value)).WithName("addPage").Needs(Act.AddItem);
        k.MapPut("/items/{itemId:long}/may-copy", (long classId, long itemId, MayCopyBody body, Caller who, Items items) =>
        {
            items.SetMayCopy(who, new(classId), new(itemId), body.MayCopy);
            return TypedResults.NoContent();
        }).WithName("setMayCopy").Needs(Act.Arrange);
        k.MapGet("/items/{itemId:long}/page", (long classId, long itemId, Caller who, Items items) => items.ReadPage(who, new(classId), new(itemId))).WithName("readPage").Counts(Did.OpenedThing).Tells(Reading.Work, "a page").Needs(Act.SeeClass);
        k.MapPut("/items/{itemId:long}/page", async (long classId, long itemId, PageBody body, Caller who, Items items, CancellationToken stop) =>
        {
            await items.ChangePage(who, new(classId), new(itemId), body.Title, body.Text, body.Version, stop);
            return TypedResults.NoContent();
        }).WithName("changePage").Needs(Act.AddItem);
        k.MapPost("/items/{itemId:long}/page/together", (long classId, long itemId, PageTogetherBody body, Caller who, Items items) =>
            items.Together(who, new(classId), new(itemId), body.Version, body.Text, body.Decided)).WithName("pageTogether").Needs(Act.AddItem);
        k.MapGet("/items/{itemId:long}/versions", (long classId, long itemId, Caller who, Items items) => items.Versions(who, new(classId), new(itemId))).WithName("thingVersions").Needs(Act.SeeClass);
        k.MapGet("/items/{itemId:long}/versions/{version:int}", (long classId, long itemId, int version, Caller who, Items items) =>
            Uploads.Send(items.OpenVersion(who, new(classId), new(itemId), version))).WithName("thingVersion").Tells(Reading.Work, "an earlier version").SendsFile().Needs(Act.SeeClass);
        k.MapGet("/items/{itemId:long}/versions/{version:int}/differences", (long classId, long itemId, int version, Caller who, Items items) => items.Differences(who, new(classId), new(itemId), version)).WithName("versionDifferences").Needs(Act.SeeClass);
        k.MapPost("/items/{itemId:long}/versions/{version:int}/bring-back", (long classId, long itemId, int version, VersionBody body, Caller who, Items items) =>
        {
            items.BringBackVersion(who, new(classId), new(itemId), version, body.Version);
            return TypedResults.NoContent();
        }).WithName("bringBackVersion").Needs(Act.AddItem);
        k.MapPut("/items/{itemId:long}/name", (long classId, long itemId, RenameItemBody body, Caller who, Items items) =>
        {
            items.Rename(who, new(classId), new(itemId), body.Name, body.Url, body.Version);
            return TypedResults.NoContent();
        }).WithName("renameItem").Needs(Act.AddItem);
        k.MapGet("/items/{itemId:long}/content", (long classId, long itemId, Caller who, Items items) =>
            Uploads.Send(items.Open(who, new(classId), new(itemId)))).WithName("itemContent").Counts(Did.OpenedThing).Tells(Reading.Work, "a file").SendsFile().Needs(Act.SeeClass);
        k.MapPut("/items/{itemId:long}/folders", (long classId, long itemId, FilingBody body, Caller who, Items items) =>
        {
            items.FileIn(who, new(classId), new(itemId), body.Folders ?? []);
            return TypedResults.NoContent();
        }).WithName("fileItem").Needs(Act.AddItem);
        k.MapDelete("/items/{itemId:long}", (long classId, long itemId, Caller who, Items items) =>
        {
            items.Bin(who, new(classId), new(itemId));
            return TypedResults.NoContent();
        }).WithName("binItem").Needs(Act.AddItem);
        k.MapGet("/bin", (long classId, Caller who, ClassBin bin) => bin.See(who, new(classId))).WithName("classBin").Needs(Act.AddItem);
        k.MapPost("/bin/{kind}/{thingId:long}/bring-back", (long classId, string kind, long thingId, Caller who, ClassBin bin) =>
        {
            bin.BringBack(who, new(classId), kind, thingId);
            return TypedResults.NoContent();
        }).WithName("bringBack").Needs(Act.AddItem);
    }
}
