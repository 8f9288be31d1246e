using SpringLoft.Core;

namespace SpringLoft.Server.Api;

/// <summary>Refuses requests that change something when a page of another site makes them.</summary>
internal sealed class SameSite(RequestDelegate next)
{
    public Task InvokeAsync(HttpContext context)
    {
        var request = context.Request;
        if (HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method) || HttpMethods.IsOptions(request.Method)) return next(context);
        return IsOurs(request) ? next(context)
            : Problems.Write(context, 403, new("cross-site", "This request came from a page of another site.", "Use Spring Loft's own pages."));
    }

    // Every browser of today says where a request comes from, in one of these two; a program that is no browser carries no cookie of a victim.
    private static bool IsOurs(HttpRequest request)
    {
        if (request.Headers.TryGetValue("Sec-Fetch-Site", out var site)) return site == "same-origin";
        if (!request.Headers.TryGetValue("Origin", out var origin)) return true;
        return Uri.TryCreate(origin, UriKind.Absolute, out var from) && from.Authority == request.Host.Value;
    }
}
