using System.Buffers;
using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using MailKit.Security;
using MimeKit;
using NodaTime;
using SmtpServer;
using SmtpServer.Authentication;
using SmtpServer.ComponentModel;
using SmtpServer.Mail;
using SmtpServer.Protocol;
using SmtpServer.Storage;
using SpringLoft.App.Letters;
using SpringLoft.Server.Hosting;
using SpringLoft.StandIns;

namespace SpringLoft.Server.Tests.Hosting;

/// <summary>What real mail servers do to a letter, and what becomes of it. Replies: RFC 5321, 4.2.1, 4yz for now and 5yz for good.</summary>
public sealed class SmtpPostTests : IDisposable
{
    private static readonly Instant At = Instant.FromUtc(2027, 6, 7, 8, 0);
    private readonly CancellationTokenSource stop = new();
    private readonly Scratch scratch = new();

    [Fact]
    public void A_letter_is_taken_and_has_one_name_however_often_it_is_sent()
    {
        using var outbox = new SmtpOutbox(scratch.Under("outbox"));
        for (var i = 0; i < 2; i++) Send(outbox.Port);

        var names = Directory.GetFiles(scratch.Under("outbox"), "*.eml").Select(f => MimeMessage.Load(f).MessageId).ToList();
        names.Count.ShouldBe(2);
        names.Distinct().ShouldHaveSingleItem();
    }

    [Fact]
    public void Where_nobody_listens_the_server_is_away()
    {
        int port;
        using (var probe = new System.Net.Sockets.TcpListener(IPAddress.Loopback, 0))
        {
            probe.Start();
            port = ((IPEndPoint)probe.LocalEndpoint).Port;
        }
        Why(port).Why.ShouldBe(NotTaken.ServerAway);
    }

    [Fact]
    public void A_certificate_that_nobody_vouches_for_is_said_in_words_and_the_letter_waits()
    {
        using var key = RSA.Create(2048);
        using var certificate = new CertificateRequest("CN=mail.school.invalid", key, HashAlgorithmName.SHA256, RSASignaturePadding.Pkcs1).CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddDays(1));
        var e = Why(Serve(SmtpResponse.Ok, certificate), secured: true);

        (e.Why, e.Message).ShouldBe((NotTaken.ServerAway, "The mail server's certificate is not trusted, has run out, or is for another name."));
    }

    [Fact]
    public async Task The_program_hands_its_letters_over_by_TLS_and_signs_in_where_the_certificate_is_vouched_for()
    {
        using var school = new TinySchool(KeyRingSeal.Of);
        using var key = RSA.Create(2048);
        var asked = new CertificateRequest("CN=localhost", key, HashAlgorithmName.SHA256, RSASignaturePadding.Pkcs1);
        var names = new SubjectAlternativeNameBuilder();
        names.AddDnsName("localhost");
        asked.CertificateExtensions.Add(names.Build());
        asked.CertificateExtensions.Add(new X509BasicConstraintsExtension(true, false, 0, true));
        using var certificate = asked.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddDays(1));
        // Whom the machine trusts is read from this file (OpenSSL): the school's own authority stands for any.
        var trusted = Path.Combine(school.Folder, "trusted.pem");
        await File.WriteAllTextAsync(trusted, certificate.ExportCertificatePem());
        var came = new Keeping();
        var port = Serve(came, certificate, new Asking());
        school.Premises.Db.Write(c => SpringLoft.Store.Letters.LetterStore.Add(c, "parent@school.invalid", "Åse", "Hello", "It was closed.", school.Clock.GetCurrentInstant()));

        using var server = RealServer.Start(school.Folder, settings: new Dictionary<string, string>
        {
            ["SPRING_LOFT_SMTP"] = $"localhost:{port}",
            ["SPRING_LOFT_SMTP_USER"] = "loft",
            ["SPRING_LOFT_SMTP_PASSWORD"] = "its-own-word",
            ["SSL_CERT_FILE"] = trusted,
        });
        await server.Until("a letter", () => came.Letters.Count > 0);

        var (letter, user, secure) = came.Letters.First();
        (letter.Subject, user, secure).ShouldBe(("Hello", "loft", true));
    }

    [Fact]
    public void A_server_without_TLS_is_handed_no_letter_where_TLS_is_required()
    {
        var e = Why(Serve(SmtpResponse.Ok), secured: true);

        (e.Why, e.Message).ShouldBe((NotTaken.ServerAway, "The mail server does not offer TLS (STARTTLS), or no sign-in; letters are not sent in the open."));
    }

    [Fact]
    public void Settings_say_how_the_mail_server_is_reached()
    {
        MailServer? Read(params (string, string)[] set) => MailServer.Read(name => set.FirstOrDefault(s => s.Item1 == name).Item2);

        Read().ShouldBeNull();
        // RFC 8314, sections 3.3 and 7.3: 465 for TLS from the first byte, 587 with STARTTLS.
        Read(("SPRING_LOFT_SMTP", "mail.school.example"))!.ShouldSatisfyAllConditions(m => m.Port.ShouldBe(587), m => m.Secured.ShouldBe(SecureSocketOptions.StartTls), m => m.User.ShouldBeNull());
        Read(("SPRING_LOFT_SMTP", "mail.school.example:465"))!.Secured.ShouldBe(SecureSocketOptions.SslOnConnect);
        Read(("SPRING_LOFT_SMTP", "relay:25"), ("SPRING_LOFT_SMTP_TLS", "none"))!.Secured.ShouldBe(SecureSocketOptions.None);
        Read(("SPRING_LOFT_SMTP", "mail:587"), ("SPRING_LOFT_SMTP_USER", "loft"), ("SPRING_LOFT_SMTP_PASSWORD", "p"))!.User.ShouldBe("loft");
        foreach (var wrong in (string[])["mail:x", ":25", "mail:0", "a:b:c"]) Should.Throw<ArgumentException>(() => Read(("SPRING_LOFT_SMTP", wrong)));
        Should.Throw<ArgumentException>(() => Read(("SPRING_LOFT_SMTP", "mail"), ("SPRING_LOFT_SMTP_TLS", "maybe")));
        Should.Throw<ArgumentException>(() => Read(("SPRING_LOFT_SMTP", "mail"), ("SPRING_LOFT_SMTP_TLS", "none"), ("SPRING_LOFT_SMTP_USER", "loft"))).Message.ShouldContain("readable on the way");
    }

    [Theory]
    [InlineData(550, NotTaken.Never)]
    [InlineData(552, NotTaken.Never)]
    [InlineData(450, NotTaken.Later)]
    [InlineData(452, NotTaken.Later)]
    public void Not_now_is_told_from_never(int code, NotTaken why)
    {
        var e = Why(Serve(new SmtpResponse((SmtpReplyCode)code, "no such")));

        e.Why.ShouldBe(why);
        e.Message.ShouldStartWith($"The mail server answered {code}");
    }

    [Fact]
    public void What_is_no_address_will_never_go() => Why(1, "not an address").Why.ShouldBe(NotTaken.Never);

    public void Dispose()
    {
        stop.Cancel();
        stop.Dispose();
        scratch.Dispose();
    }

    private static void Send(int port, string to = "a@school.invalid", bool secured = false) =>
        new SmtpPost(MailServer.StandIn(port) with { Secured = secured ? SecureSocketOptions.StartTls : SecureSocketOptions.None }).Send(7, to, "Åse", "Hello", "It was closed.", At);

    private static NotTakenException Why(int port, string to = "a@school.invalid", bool secured = false) => Should.Throw<NotTakenException>(() => Send(port, to, secured));

    private int Serve(SmtpResponse answer, X509Certificate2? certificate = null) => Serve(new Answering(answer), certificate);

    private int Serve(MessageStore store, X509Certificate2? certificate, IUserAuthenticatorFactory? asking = null)
    {
        var services = new ServiceProvider();
        services.Add(store);
        if (asking is not null) services.Add(asking);
        for (var left = 20; ; left--)
        {
            using var probe = new System.Net.Sockets.TcpListener(IPAddress.Loopback, 0);
            probe.Start();
            var port = ((IPEndPoint)probe.LocalEndpoint).Port;
            probe.Stop();
            var options = new SmtpServerOptionsBuilder().ServerName("localhost").Endpoint(e =>
            {
                e.Endpoint(new IPEndPoint(IPAddress.Loopback, port));
                if (certificate is not null) e.Certificate(certificate);
                if (asking is not null) e.AuthenticationRequired();
            }).Build();
            var listening = new SmtpServer.SmtpServer(options, services).StartAsync(stop.Token);
            if (!listening.IsFaulted) return port;
            if (left == 0) throw new InvalidOperationException("no port is free");
        }
    }

    private sealed class Keeping : MessageStore
    {
        internal System.Collections.Concurrent.ConcurrentQueue<(MimeMessage Letter, string? User, bool Secure)> Letters { get; } = new();

        public override Task<SmtpResponse> SaveAsync(ISessionContext context, IMessageTransaction transaction, ReadOnlySequence<byte> buffer, CancellationToken cancellationToken)
        {
            using var bytes = new MemoryStream(buffer.ToArray());
            Letters.Enqueue((MimeMessage.Load(bytes, cancellationToken), context.Authentication.User, context.Pipe.IsSecure));
            return Task.FromResult(SmtpResponse.Ok);
        }
    }

    private sealed class Asking : UserAuthenticator, IUserAuthenticatorFactory
    {
        public IUserAuthenticator CreateInstance(ISessionContext context) => this;

        public override Task<bool> AuthenticateAsync(ISessionContext context, string user, string password, CancellationToken cancellationToken) => Task.FromResult((user, password) == ("loft", "its-own-word"));
    }

    private sealed class Answering(SmtpResponse answer) : MessageStore
    {
        public override Task<SmtpResponse> SaveAsync(ISessionContext context, IMessageTransaction transaction, ReadOnlySequence<byte> buffer, CancellationToken cancellationToken) => Task.FromResult(answer);
    }
}
