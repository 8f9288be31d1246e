using System.Collections.Concurrent;
using SpringLoft.App;
using SpringLoft.Core;
using SpringLoft.Store.Audit;

namespace SpringLoft.Server.Api;

/// <summary>
/// A second click is done once: a request that carries an Idempotency-Key seen before from the same person gets the
/// answer of the first. Source: the IETF draft "The Idempotency-Key HTTP Header Field".
/// </summary>
internal sealed class Once(RequestDelegate next)
{
    private readonly ConcurrentDictionary<string, SemaphoreSlim> underWay = new();

    public async Task InvokeAsync(HttpContext context, Premises premises)
    {
        var key = context.Request.Headers["Idempotency-Key"].ToString();
        if (key.Length == 0 || !HttpMethods.IsPost(context.Request.Method) || context.GetEndpoint()?.Metadata.GetMetadata<Needed>()?.Act is null)
        {
            await next(context);
            return;
        }
        if (key.Length > 100)
        {
            await Problems.Write(context, 400, new("bad-request", "The Idempotency-Key is longer than 100 characters.", "Send a shorter one."));
            return;
        }
        var who = Gate.CallerOf(context);
        var full = $"{context.Request.Path} {key}";
        var turn = underWay.GetOrAdd($"{who.Id.Value} {full}", _ => new SemaphoreSlim(1));
        await turn.WaitAsync(context.RequestAborted);
        try
        {
            if (premises.Db.Read(c => AuditStore.Answered(c, who.Id, full)) is { } known)
            {
                context.Response.StatusCode = known.Status;
                if (known.Body.Length == 0) return;
                context.Response.ContentType = "application/json; charset=utf-8";
                await context.Response.WriteAsync(known.Body);
                return;
            }
            await Answer(context, premises, who.Id, full);
        }
        finally
        {
            turn.Release();
            underWay.TryRemove($"{who.Id.Value} {full}", out _);
        }
    }

    // Only what was done is kept: a refused request may be mended and sent again.
    private async Task Answer(HttpContext context, Premises premises, PersonId who, string key)
    {
        var real = context.Response.Body;
        using var held = new MemoryStream();
        context.Response.Body = held;
        try
        {
            await next(context);
            if (context.Response.StatusCode < 300)
                premises.Db.Write(c => AuditStore.KeepAnswer(c, who, key, context.Response.StatusCode, System.Text.Encoding.UTF8.GetString(held.ToArray()), premises.Clock.Now));
        }
        finally { context.Response.Body = real; }
        held.Position = 0;
        await held.CopyToAsync(real, context.RequestAborted);
    }
}
