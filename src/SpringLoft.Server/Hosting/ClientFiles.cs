using Microsoft.AspNetCore.StaticFiles;
using Microsoft.Extensions.FileProviders;
using Microsoft.Net.Http.Headers;

namespace SpringLoft.Server.Hosting;

/// <summary>
/// The built front end. A file whose name holds the digest of what is in it is the same for ever; the page that names them is
/// asked for anew each time. What was made small when it was built is sent so to whoever takes it.
/// </summary>
internal static class ClientFiles
{
    private const string Assets = "/assets";
    private static readonly FileExtensionContentTypeProvider Types = new();

    // The smaller first.
    private static readonly (string Coding, string End)[] Small = [("br", ".br"), ("gzip", ".gz")];

    /// <summary>Serves them.</summary>
    internal static void Use(WebApplication app)
    {
        var files = app.Environment.WebRootFileProvider;
        app.UseDefaultFiles();
        app.Use((context, next) =>
        {
            var request = context.Request;
            if (request.Path.StartsWithSegments(Assets) && (HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method))) Smaller(context, files);
            return next(context);
        });
        app.UseStaticFiles(Page());
    }

    /// <summary>How a page or an asset goes out.</summary>
    internal static StaticFileOptions Page() => new()
    {
        ContentTypeProvider = Types,
        ServeUnknownFileTypes = true,
        OnPrepareResponse = sent =>
        {
            var headers = sent.Context.Response.Headers;
            var path = sent.Context.Request.Path;
            headers.CacheControl = path.StartsWithSegments(Assets) ? "public, max-age=31536000, immutable" : "no-cache";
            if (Small.FirstOrDefault(s => path.Value!.EndsWith(s.End, StringComparison.Ordinal)) is not { Coding: { } coding } small) return;
            headers.ContentEncoding = coding;
            if (Types.TryGetContentType(path.Value![..^small.End.Length], out var type)) headers.ContentType = type;
        },
    };

    private static void Smaller(HttpContext context, IFileProvider files)
    {
        context.Response.Headers.Append(HeaderNames.Vary, HeaderNames.AcceptEncoding);
        var taken = context.Request.GetTypedHeaders().AcceptEncoding;
        foreach (var (coding, end) in Small)
        {
            if (!taken.Any(t => t.Value == coding && t.Quality is not 0)) continue;
            if (!files.GetFileInfo(context.Request.Path.Value + end).Exists) continue;
            context.Request.Path += end;
            return;
        }
    }
}
