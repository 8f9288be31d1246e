using System.Security.Cryptography;
using System.Text;
using SpringLoft.App;
using SpringLoft.Core;
using SpringLoft.Store.Audit;

namespace SpringLoft.Server.Api;

/// <summary>
/// A second click is done once: a request that changes something and carries an Idempotency-Key seen before from the same
/// person gets the answer of the first. What the act writes and the answer to it are one transaction, so that a process that
/// is killed between the two leaves both or neither. Source: the IETF draft "The Idempotency-Key HTTP Header Field".
/// </summary>
/// <remarks>What an act gives back that nobody may read again (<see cref="NotKept"/>) is not kept: such an act sent twice is done twice.</remarks>
internal sealed class Once(RequestDelegate next)
{
    private const int LongestKey = 100;

    private readonly OneAtATime underWay = new();

    public async Task InvokeAsync(HttpContext context, Premises premises)
    {
        var key = context.Request.Headers["Idempotency-Key"].ToString();
        var changes = !HttpMethods.IsGet(context.Request.Method) && !HttpMethods.IsHead(context.Request.Method) && !HttpMethods.IsOptions(context.Request.Method);
        if (key.Length == 0 || !changes || context.GetEndpoint() is not { } endpoint || endpoint.Metadata.GetMetadata<Needed>()?.Act is null || endpoint.Metadata.GetMetadata<NotKept>() is not null)
        {
            await next(context);
            return;
        }
        if (key.Length > LongestKey)
        {
            await Problems.Write(context, 400, new("bad-request", $"The Idempotency-Key is longer than {LongestKey} characters.", "Send a shorter one."));
            return;
        }
        var who = Gate.CallerOf(context).Id;
        using var turn = await underWay.Turn($"{who.Value} {key}", context.RequestAborted);
        using var asked = new Digested(context.Request);
        context.Request.Body = asked;
        if (premises.Db.Read(c => AuditStore.Answered(c, who, key)) is { } known) await Again(context, known, asked);
        else await First(context, premises, who, key, asked);
    }

    // With another query or another body it is another act under a key that was used: neither the old answer nor a new act is right.
    private static async Task Again(HttpContext context, KeptAnswer known, Digested asked)
    {
        await asked.CopyToAsync(Stream.Null, context.RequestAborted);
        if (known.Print != asked.Print())
        {
            await Problems.Write(context, 422, new("key-used", "This Idempotency-Key was used for another request.", "Send each act with a key of its own.", "Idempotency-Key"));
            return;
        }
        context.Response.StatusCode = (int)known.Status;
        if (known.Body.Length == 0) return;
        context.Response.ContentType = "application/json; charset=utf-8";
        await context.Response.WriteAsync(known.Body);
    }

    private async Task First(HttpContext context, Premises premises, PersonId who, string key, Digested asked)
    {
        var real = context.Response.Body;
        using var unit = premises.Db.Begin();
        using var held = new Held(context.Response, unit.Commit);
        context.Response.Body = held;
        try { await next(context); }
        catch (RefusedException)
        {
            // Only what was done is kept: a refused request may be mended and sent again.
            unit.Commit();
            throw;
        }
        finally { context.Response.Body = real; }
        if (held.PassedOn) return;
        if (context.Response.StatusCode < 300)
        {
            await asked.CopyToAsync(Stream.Null, context.RequestAborted);
            premises.Db.Write(c => AuditStore.KeepAnswer(c, who, key, asked.Print(), context.Response.StatusCode, Encoding.UTF8.GetString(held.Kept), premises.Clock.Now));
        }
        unit.Commit();
        // An answer that may have no body takes not even an empty one.
        if (held.Kept.Length > 0) await real.WriteAsync(held.Kept, context.RequestAborted);
    }

    /// <summary>The request as it is read, with the digest of method, address and all that came.</summary>
    private sealed class Digested : Stream
    {
        private readonly Stream inner;
        private readonly IncrementalHash digest = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);

        internal Digested(HttpRequest request)
        {
            inner = request.Body;
            digest.AppendData(Encoding.UTF8.GetBytes($"{request.Method} {request.Path}{request.QueryString}\n"));
        }

        /// <summary>Once it is read to its end.</summary>
        internal string Print() => Convert.ToHexStringLower(digest.GetCurrentHash());

        public override bool CanRead => true;

        public override bool CanSeek => false;

        public override bool CanWrite => false;

        public override long Length => throw new NotSupportedException();

        public override long Position { get => throw new NotSupportedException(); set => throw new NotSupportedException(); }

        public override int Read(byte[] buffer, int offset, int count)
        {
            var n = inner.Read(buffer, offset, count);
            digest.AppendData(buffer, offset, n);
            return n;
        }

        public override async ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default)
        {
            var n = await inner.ReadAsync(buffer, cancellationToken);
            digest.AppendData(buffer.Span[..n]);
            return n;
        }

        public override Task<int> ReadAsync(byte[] buffer, int offset, int count, CancellationToken cancellationToken) => ReadAsync(buffer.AsMemory(offset, count), cancellationToken).AsTask();

        public override void Flush() { }

        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

        public override void SetLength(long value) => throw new NotSupportedException();

        public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();

        protected override void Dispose(bool disposing)
        {
            if (disposing) digest.Dispose();
            base.Dispose(disposing);
        }
    }

    /// <summary>An answer held back until it is kept. One that is no JSON, a download, is not kept: it is passed on as it comes.</summary>
    private sealed class Held(HttpResponse response, Action commit) : Stream
    {
        private readonly Stream real = response.Body;
        private readonly MemoryStream kept = new();

        internal bool PassedOn { get; private set; }

        internal byte[] Kept => kept.ToArray();

        public override bool CanRead => false;

        public override bool CanSeek => false;

        public override bool CanWrite => true;

        public override long Length => throw new NotSupportedException();

        public override long Position { get => throw new NotSupportedException(); set => throw new NotSupportedException(); }

        private Stream To()
        {
            if (!PassedOn && response.ContentType?.Contains("json", StringComparison.OrdinalIgnoreCase) != true)
            {
                PassedOn = true;
                commit();
            }
            return PassedOn ? real : kept;
        }

        public override void Write(byte[] buffer, int offset, int count) => To().Write(buffer, offset, count);

        public override Task WriteAsync(byte[] buffer, int offset, int count, CancellationToken cancellationToken) => To().WriteAsync(buffer, offset, count, cancellationToken);

        public override ValueTask WriteAsync(ReadOnlyMemory<byte> buffer, CancellationToken cancellationToken = default) => To().WriteAsync(buffer, cancellationToken);

        public override void Flush() { if (PassedOn) real.Flush(); }

        public override Task FlushAsync(CancellationToken cancellationToken) => PassedOn ? real.FlushAsync(cancellationToken) : Task.CompletedTask;

        public override int Read(byte[] buffer, int offset, int count) => throw new NotSupportedException();

        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

        public override void SetLength(long value) => throw new NotSupportedException();

        protected override void Dispose(bool disposing)
        {
            if (disposing) kept.Dispose();
            base.Dispose(disposing);
        }
    }
}
