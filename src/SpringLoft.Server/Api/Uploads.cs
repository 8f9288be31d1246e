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

    internal static RouteHandlerBuilder SendsFile(this RouteHandlerBuilder endpoint) =>
        endpoint.Produces<Stream>(StatusCodes.Status200OK, "application/octet-stream");
}
