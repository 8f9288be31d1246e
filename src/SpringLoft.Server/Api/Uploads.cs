using Microsoft.AspNetCore.Mvc;
using SpringLoft.App.Workspaces;

namespace SpringLoft.Server.Api;

/// <summary>Files coming in as the bare body of a request, and going out never to be run in the page.</summary>
internal static class Uploads
{
    /// <summary>Most bytes of one upload, whatever the school has set; 2 GB.</summary>
    internal const long Most = 2L * 1024 * 1024 * 1024;

    internal static RouteHandlerBuilder TakesFile(this RouteHandlerBuilder endpoint) =>
        endpoint.WithMetadata(new RequestSizeLimitAttribute(Most)).Accepts<Stream>("application/octet-stream");

    internal static IResult Send(Download download) =>
        Results.Stream(download.Content, "application/octet-stream", download.Name, enableRangeProcessing: true);

    /// <summary>To be looked at in the page, as what it was found to be.</summary>
    internal static IResult Show((Download File, string MediaType) look) => Results.Stream(look.File.Content, look.MediaType, enableRangeProcessing: true);

    internal static RouteHandlerBuilder SendsFile(this RouteHandlerBuilder endpoint) =>
        endpoint.Produces<Stream>(StatusCodes.Status200OK, "application/octet-stream");
}
