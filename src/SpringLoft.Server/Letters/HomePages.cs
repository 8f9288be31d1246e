using SpringLoft.Core.Letters;

namespace SpringLoft.Server.Letters;

/// <summary>What pages that open at home, without an account, have in common.</summary>
internal static class HomePages
{
    /// <summary>A field of the form that was sent. What a browser sends of such a page is a form; anything else is as if nothing had been typed.</summary>
    internal static async Task<string> Typed(HttpContext context, string field)
    {
        if (!context.Request.HasFormContentType) return "";
        try { return (await context.Request.ReadFormAsync())[field].ToString(); }
        catch (Exception e) when (e is InvalidDataException or IOException) { return ""; }
    }

    /// <summary>Past its day nobody has it from a cache, and no search engine leads to it.</summary>
    internal static void KeptNowhere(HttpContext context)
    {
        context.Response.Headers.CacheControl = "no-store";
        context.Response.Headers["X-Robots-Tag"] = "noindex";
    }

    internal static IResult Send(HttpContext context, int status, byte[] page)
    {
        KeptNowhere(context);
        context.Response.StatusCode = status;
        return Results.Bytes(page, "text/html; charset=utf-8");
    }

    /// <summary>The language that the address or the browser asks for.</summary>
    internal static HomeWords Words(HttpContext context) => HomeWords.Of(context.Request.Query["in"].FirstOrDefault() ?? context.Request.Headers.AcceptLanguage.ToString());

    /// <summary>The network that is asked from: wrong codes are counted by it.</summary>
    internal static string From(HttpContext context) => Core.People.Network.Of(context.Connection.RemoteIpAddress?.ToString() ?? "");
}
