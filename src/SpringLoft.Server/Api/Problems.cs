using System.ComponentModel;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.AspNetCore.Mvc;
using SpringLoft.App.Closing;
using SpringLoft.Core;
using SpringLoft.Store.Files;

namespace SpringLoft.Server.Api;

/// <summary>Errors as Problem Details (RFC 9457) with a stable code, the field and the mend.</summary>
internal sealed partial class Problems(RequestDelegate next, ILogger<Problems> log)
{
    public async Task InvokeAsync(HttpContext context)
    {
        try
        {
            await next(context);
            if (!context.Response.HasStarted && context.Request.Path.StartsWithSegments("/api") && Unexplained(context) is { } refusal)
                await Write(context, context.Response.StatusCode, refusal);
        }
        catch (RefusedException e) { await Write(context, StatusOf(e.Refusal.Code), e.Refusal); }
        catch (IOException e) when (e is DiskFullException || FileStore.IsDiskFull(e))
        {
            log.LogError(e, "The disk is full");
            await Write(context, 507, new("disk-full", "The server's disk is full. Nothing of this was kept.", "Tell the coordinator; try again when there is room."));
        }
        catch (FileNotFoundException e)
        {
            log.LogError(e, "A kept file is missing");
            await Write(context, 500, new("file-missing", "This file is listed but its bytes are missing from the file store.", "Tell the coordinator: it can be brought back from a backup."));
        }
        catch (DamagedFileException e)
        {
            log.LogError(e, "A kept file is damaged");
            context.RequestServices.GetRequiredService<FileHealth>().Found(e.Sha256);
            // Bytes that have gone out already are cut short, so that nobody takes them for the whole file.
            if (context.Response.HasStarted) context.Abort();
            else await Write(context, 500, new("file-damaged", "The bytes of this file have been damaged on the server's disk. They were not handed out.", "Tell the coordinator: it can be brought back from a backup, or put in again by whoever has it."));
        }
        catch (BadHttpRequestException e) when (e.StatusCode == 413)
        {
            await Write(context, 413, new("file-too-long", "The file is longer than this school allows.", "Make it smaller or link to it instead.", "file"));
        }
        catch (BadHttpRequestException e)
        {
            await Write(context, e.StatusCode, Unreadable(e));
        }
        catch (OperationCanceledException) when (context.RequestAborted.IsCancellationRequested)
        {
            // Nobody is there to be told.
        }
        catch (Exception e) when (!context.Response.HasStarted)
        {
            log.LogError(e, "{Method} {Path} failed", context.Request.Method, Hosting.LoggedPath.Of(context.Request.Path));
            await Write(context, 500, new("fault", "Something went wrong inside Spring Loft. Nothing was half-written.", "Try again; if it stays, tell the coordinator the time it happened."));
        }
    }

    // What routing refuses by itself, it refuses without a word.
    private static Refusal? Unexplained(HttpContext context) => context.Response.StatusCode switch
    {
        // Where a value that may be missing is there and can't be read, the generated handlers say no more than this.
        400 when context.Response.ContentType is null => NoValue(context) is { } named ? Unreadable(named.Value, named.Name) : Bad,
        404 when context.GetEndpoint() is null => new("not-found", "There is no such address.", "See the OpenAPI document."),
        405 => new("method-wrong", $"This address does not take {context.Request.Method}.", "See the OpenAPI document for what it takes."),
        415 => new("type-wrong", $"This address does not take “{context.Request.ContentType ?? "nothing"}”.", "Send JSON as application/json, or a file as application/octet-stream."),
        _ => null,
    };

    internal static async Task Write(HttpContext context, int status, Refusal refusal)
    {
        if (context.Response.HasStarted) return;
        context.Response.Clear();
        context.Response.StatusCode = status;
        await context.Response.WriteAsJsonAsync(Told(status, refusal), (System.Text.Json.JsonSerializerOptions?)null, "application/problem+json");
    }

    /// <summary>A refusal as Problem Details.</summary>
    internal static ProblemDetails Told(int status, Refusal refusal)
    {
        var problem = new ProblemDetails { Status = status, Title = refusal.What, Detail = refusal.Mend, Type = $"urn:spring-loft:{refusal.Code}" };
        problem.Extensions["code"] = refusal.Code;
        if (refusal.Field is { } field) problem.Extensions["field"] = field;
        return problem;
    }

    /// <summary>The HTTP status that a code is answered with.</summary>
    internal static int StatusOf(string code) => code switch
    {
        "sign-in-wrong" => 401,
        "not-found" => 404,
        "calendar-retired" => 410,
        "changed-meanwhile" or "about-changed" or "name-taken" or "rolled-already" or "run-ended" or "year-begun" or "run-going" or "delivery-later" or "delivery-settled" or "join-later" or "number-taken" or "person-known" or "person-maybe-known" or "person-own-record" => 409,
        "file-too-long" => 413,
        "sign-in-shut" or "code-slow" or "home-slow" => 429,
        "code-wrong" or "outside-unknown" or "shelf-shut" or "home-code" => 404,
        "sign-in-busy" => 503,
        "feed-unreachable" or "feed-refused" or "feed-answer" or "outside-unreachable" => 502,
        "not-allowed" or "names-by-pattern" or "folder-no-add" or "item-not-yours" or "may-not-post" => 403,
        _ => 422,
    };

    private const string Mend = "See the OpenAPI document for what belongs there.";

    private static readonly Refusal Bad = new("bad-request", "The request can't be read.", Mend);

    private static Refusal Unreadable(string value, string name) => new("bad-request", $"The request can't be read: “{value}” is no value for “{name}”.", Mend, name);

    // The first value of the address that is none for what its handler takes by that name.
    private static (string Name, string Value)? NoValue(HttpContext context)
    {
        foreach (var taken in context.GetEndpoint()?.Metadata.GetOrderedMetadata<IParameterBindingMetadata>() ?? [])
        {
            if (Nullable.GetUnderlyingType(taken.ParameterInfo.ParameterType) is not { } type) continue;
            var value = context.Request.Query[taken.Name].ToString();
            if (value.Length > 0 && !TypeDescriptor.GetConverter(type).IsValid(value)) return (taken.Name, value);
        }
        return null;
    }

    // What can't be read, by its place in the request; how the program calls its types is nobody's business.
    private static Refusal Unreadable(Exception e)
    {
        while (e.InnerException is { } inner) e = inner;
        if (e is System.Text.Json.JsonException && Lacking().Match(e.Message) is { Success: true } l)
            return new("missing", $"“{l.Groups["name"].Value}” is missing: without it the request does not say what is meant.", "Send it with a value; where there is none, with null.", l.Groups["name"].Value);
        if (e is System.Text.Json.JsonException { Path: { Length: > 2 } path })
            return new("bad-request", $"The request can't be read: at “{path[2..]}” stands something else than belongs there.", Mend, path[2..]);
        if (e is System.Text.Json.JsonException) return new("bad-request", "The request can't be read: it is no JSON, or not the kind of JSON that belongs there.", Mend);
        if (Parameter().Match(e.Message) is { Success: true } p)
            return p.Groups["from"].Success ? Unreadable(p.Groups["from"].Value, p.Groups["name"].Value)
                : new("bad-request", $"The request can't be read: “{p.Groups["name"].Value}” is missing.", Mend, p.Groups["name"].Value);
        return Bad;
    }

    // As the framework says it: … was missing required properties including: 'a', 'b'.
    [System.Text.RegularExpressions.GeneratedRegex("""required properties including: '(?<name>\w+)'""")]
    private static partial System.Text.RegularExpressions.Regex Lacking();

    // As the framework says it: Failed to bind parameter "long classId" from "x".
    [System.Text.RegularExpressions.GeneratedRegex("""parameter "(?:[^"]* )?(?<name>\w+)"(?: from "(?<from>[^"]*)")?""")]
    private static partial System.Text.RegularExpressions.Regex Parameter();
}
