using System.Buffers;
using System.Globalization;
using System.IO.Pipelines;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Connections;
using Microsoft.AspNetCore.Mvc;
using SpringLoft.Core;

namespace SpringLoft.Server.Api;

/// <summary>
/// What the web server refuses before any code of ours runs (an address with a zero byte in it, a header it can't read), it
/// refuses without a word. Here its bare answer is given the words that every other refusal has (RFC 9457).
/// </summary>
internal static class BareRefusals
{
    /// <summary>Puts the words in on a connection whose bytes are not encrypted.</summary>
    internal static ConnectionDelegate Explained(ConnectionDelegate next) => connection =>
    {
        connection.Transport = new Pair(connection.Transport.Input, new Out(connection.Transport.Output));
        return next(connection);
    };

    /// <summary>The same answer with its words, if this is a bare one that closes the connection; otherwise null.</summary>
    internal static byte[]? Explain(ReadOnlySpan<byte> head)
    {
        if (!head.StartsWith("HTTP/1.1 4"u8) || head.IndexOf("\r\n"u8) is not (> 0 and var end) || !head[end..].StartsWith("\r\nContent-Length: 0\r\nConnection: close\r\n"u8)) return null;
        var status = int.Parse(head[9..12], CultureInfo.InvariantCulture);
        var body = JsonSerializer.SerializeToUtf8Bytes(Problems.Told(status, Of(status)), JsonSerializerOptions.Web);
        var said = Encoding.ASCII.GetBytes($"\r\nContent-Length: {body.Length}\r\nContent-Type: application/problem+json\r\nX-Content-Type-Options: nosniff");
        return [.. head[..end], .. said, .. head[(end + "\r\nContent-Length: 0"u8.Length)..], .. body];
    }

    private static Refusal Of(int status) => status switch
    {
        408 => new("request-slow", "The request did not come to its end in time.", "Try again."),
        414 or 431 => new("request-head-long", "The request's address or its headers are too long.", "Send what is long in the body."),
        _ => new("bad-request", "The request can't be read: its address or a header holds what may not stand there.", "See the OpenAPI document for what belongs there."),
    };

    private sealed record Pair(PipeReader Input, PipeWriter Output) : IDuplexPipe;

    private sealed class Out(PipeWriter inner) : PipeWriter
    {
        private Memory<byte> given;

        public override bool CanGetUnflushedBytes => inner.CanGetUnflushedBytes;

        public override long UnflushedBytes => inner.UnflushedBytes;

        public override Memory<byte> GetMemory(int sizeHint = 0) => given = inner.GetMemory(sizeHint);

        public override Span<byte> GetSpan(int sizeHint = 0) => GetMemory(sizeHint).Span;

        public override void Advance(int bytes)
        {
            // What was got once may be gone forward in several times.
            var words = Explain(given.Span[..bytes]);
            given = given[bytes..];
            if (words is null) inner.Advance(bytes);
            else inner.Write(words);
        }

        public override void CancelPendingFlush() => inner.CancelPendingFlush();

        public override void Complete(Exception? exception = null) => inner.Complete(exception);

        public override ValueTask CompleteAsync(Exception? exception = null) => inner.CompleteAsync(exception);

        public override ValueTask<FlushResult> FlushAsync(CancellationToken cancellationToken = default) => inner.FlushAsync(cancellationToken);

        public override ValueTask<FlushResult> WriteAsync(ReadOnlyMemory<byte> source, CancellationToken cancellationToken = default) => inner.WriteAsync(source, cancellationToken);
    }
}
