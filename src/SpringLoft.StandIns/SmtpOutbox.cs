using System.Buffers;
using System.Globalization;
using System.Net;
using System.Net.Sockets;
using MimeKit;
using SmtpServer;
using SmtpServer.ComponentModel;
using SmtpServer.Protocol;
using SmtpServer.Storage;

namespace SpringLoft.StandIns;

/// <summary>A letter of the outbox.</summary>
public sealed record Letter(string File, string To, string Subject, DateTimeOffset At, string Text);

/// <summary>
/// A stand-in for the school's mail server: takes letters over SMTP (RFC 5321) on this machine alone, and keeps each as an
/// <c>.eml</c> file (RFC 5322) that any mail program opens.
/// </summary>
public sealed class SmtpOutbox : IDisposable
{
    private readonly CancellationTokenSource stop = new();
    private readonly string folder;

    /// <param name="folder">Made if it is not there.</param>
    public SmtpOutbox(string folder)
    {
        this.folder = folder;
        Directory.CreateDirectory(folder);
        var services = new ServiceProvider();
        services.Add(new Keeping(folder));
        for (var left = 20; ; left--)
        {
            Port = FreePort();
            var server = new SmtpServer.SmtpServer(new SmtpServerOptionsBuilder().ServerName("localhost").Endpoint(e => e.Endpoint(new IPEndPoint(IPAddress.Loopback, Port)).AllowUnsecureAuthentication(false)).MaxMessageSize(5 * 1024 * 1024).Build(), services);
            // It listens, or has failed to, before it first waits. Another program may have taken the port in between.
            var listening = server.StartAsync(stop.Token);
            if (!listening.IsFaulted) break;
            if (left == 0) listening.GetAwaiter().GetResult();
        }
    }

    // A port that the system has free just now; the server itself can't be asked which it took.
    private static int FreePort()
    {
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        return ((IPEndPoint)probe.LocalEndpoint).Port;
    }

    /// <summary>Where it listens, on 127.0.0.1.</summary>
    public int Port { get; }

    /// <summary>What has been sent, newest first.</summary>
    public IReadOnlyList<Letter> Letters(int most) => [.. Directory.EnumerateFiles(folder, "*.eml").OrderDescending(StringComparer.Ordinal).Take(most).Select(file =>
    {
        using var letter = MimeMessage.Load(file);
        return new Letter(Path.GetFileName(file), letter.To.ToString(), letter.Subject ?? "", letter.Date, letter.TextBody ?? "");
    })];

    /// <summary>Lets go of letters that were sent before a moment.</summary>
    /// <returns>How many.</returns>
    public int LetGoBefore(DateTimeOffset moment)
    {
        var old = Directory.EnumerateFiles(folder, "*.eml").Where(f => string.CompareOrdinal(Path.GetFileName(f), Stamp(moment)) < 0).ToList();
        old.ForEach(File.Delete);
        return old.Count;
    }

    private static string Stamp(DateTimeOffset at) => at.UtcDateTime.ToString("yyyyMMdd'T'HHmmssfff'Z'", CultureInfo.InvariantCulture);

    /// <inheritdoc/>
    public void Dispose()
    {
        stop.Cancel();
        stop.Dispose();
    }

    private sealed class Keeping(string folder) : MessageStore
    {
        private int count;

        public override async Task<SmtpResponse> SaveAsync(ISessionContext context, IMessageTransaction transaction, ReadOnlySequence<byte> buffer, CancellationToken cancellationToken)
        {
            var path = Path.Combine(folder, $"{Stamp(DateTimeOffset.UtcNow)}-{Interlocked.Increment(ref count):0000}.eml");
            // Written aside and renamed: whoever reads the outbox never sees half a letter.
            await File.WriteAllBytesAsync(path + ".part", buffer.ToArray(), cancellationToken).ConfigureAwait(false);
            File.Move(path + ".part", path);
            return SmtpResponse.Ok;
        }
    }
}
