using System.Globalization;
using System.Reflection;
using System.Threading.Channels;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.HttpOverrides;
using NodaTime;
using NodaTime.Text;
using Serilog;
using Serilog.Formatting.Compact;
using SpringLoft.App;
using SpringLoft.App.Assignments;
using SpringLoft.App.Audit;
using SpringLoft.App.Closing;
using SpringLoft.App.Naming;
using SpringLoft.App.Letters;
using SpringLoft.App.People;
using SpringLoft.App.Plans;
using SpringLoft.App.Rollover;
using SpringLoft.App.Rosters;
using SpringLoft.App.Workspaces;
using SpringLoft.App.Years;
using SpringLoft.Core;
using SpringLoft.Demo;
using SpringLoft.Server.Api;
using SpringLoft.Server.Assignments;
using SpringLoft.Server.Closing;
using SpringLoft.Server.Hosting;
using SpringLoft.Server.Letters;
using SpringLoft.Server.Naming;
using SpringLoft.Server.People;
using SpringLoft.Server.Plans;
using SpringLoft.Server.Rollover;
using SpringLoft.Server.Rosters;
using SpringLoft.Server.Workspaces;
using SpringLoft.Server.Years;
using SpringLoft.StandIns;
using SpringLoft.Store;
using SpringLoft.Store.Files;
using SpringLoft.Store.Naming;

// The build runs this program once without starting it, to write the OpenAPI document.
var documentOnly = Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";

var demo = args.Contains("--demo");
var builder = WebApplication.CreateBuilder(new WebApplicationOptions
{
    Args = [.. args.Where(a => a != "--demo")],
    ContentRootPath = AppContext.BaseDirectory,
    WebRootPath = Environment.GetEnvironmentVariable("SPRING_LOFT_WEB") is { Length: > 0 } web ? Path.GetFullPath(web) : "wwwroot",
});
LocalDate? today = builder.Configuration["today"] is { } text
    ? LocalDatePattern.Iso.Parse(text) is { Success: true } parsed ? parsed.Value : throw new ArgumentException($"--today {text} is not a date like 2027-06-07.")
    : null;
if (today is not null && !demo) throw new ArgumentException("--today needs --demo: a real school has the real date.");
var address = Environment.GetEnvironmentVariable("SPRING_LOFT_ADDRESS") is { Length: > 0 } said ? SchoolAddress.Read(said) : null;
var proxies = (Environment.GetEnvironmentVariable("SPRING_LOFT_PROXY") ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
    .Select(p => System.Net.IPAddress.TryParse(p, out var ip) ? ip : throw new ArgumentException($"SPRING_LOFT_PROXY “{p}” is not a network address like 10.0.0.5.")).ToList();
var insideToo = demo || Environment.GetEnvironmentVariable("SPRING_LOFT_INSIDE") is "1" or "yes" or "true";
var named = documentOnly ? [] : ProviderFile.Read(Environment.GetEnvironmentVariable("SPRING_LOFT_PROVIDERS"), insideToo);
var data = Path.GetFullPath(Environment.GetEnvironmentVariable("SPRING_LOFT_DATA") ?? "data");
if (args is ["verify", var of, ..] && !Directory.Exists(of)) return VerifyPackage.Run(of, args.Length > 2 ? args[2] : null, Console.Out);
if (args is ["verify", ..]) return Verify.Run(args.Length > 1 ? Path.GetFullPath(args[1]) : data, Console.Out);
if (args is ["back-in", ..]) return BackIn.Run(data, args.Length > 1 ? args[1] : null, Console.Out);
DataFolder? folder = null;
try { folder = documentOnly ? null : DataFolder.Take(data); }
catch (DataFolderException e)
{
    Console.Error.WriteLine(e.Message);
    return 3;
}
using var alone = folder;

builder.Host.UseSerilog((context, log) =>
{
    log.ReadFrom.Configuration(context.Configuration).MinimumLevel.Override("Microsoft.AspNetCore", Serilog.Events.LogEventLevel.Warning)
        // What is on its way between a provider and here is nobody's to read.
        .MinimumLevel.Override("OpenIddict", Serilog.Events.LogEventLevel.Warning);
    if (documentOnly) return;
    log.WriteTo.File(new CompactJsonFormatter(), Path.Combine(data, "logs", "spring-loft-.jsonl"), rollingInterval: RollingInterval.Day, retainedFileCountLimit: 30);
    log.WriteTo.Console(restrictedToMinimumLevel: Serilog.Events.LogEventLevel.Warning, formatProvider: CultureInfo.InvariantCulture);
});
builder.WebHost.ConfigureKestrel(o =>
{
    o.AddServerHeader = false;
    o.ConfigureEndpointDefaults(e => e.Use(BareRefusals.Explained));
    o.Limits.MaxRequestBodySize = 1024 * 1024;
    // A slow line at home must not lose a child's upload.
    o.Limits.MinRequestBodyDataRate = new(bytesPerSecond: 50, gracePeriod: TimeSpan.FromSeconds(30));
});
if (builder.Configuration["urls"] is null) builder.WebHost.UseUrls("http://127.0.0.1:5080");
builder.Services.Configure<HostOptions>(o => o.ShutdownTimeout = TimeSpan.FromSeconds(20));

if (!documentOnly)
    KeyRingSeal.Use(builder.Services.AddDataProtection(), data);
var secure = address?.Scheme == "https" ? CookieSecurePolicy.Always : CookieSecurePolicy.SameAsRequest;
builder.Services.AddAuthentication(CookieAuthenticationDefaults.AuthenticationScheme).AddCookie(o =>
{
    o.Cookie.Name = "spring-loft";
    o.Cookie.HttpOnly = true;
    o.Cookie.SameSite = SameSiteMode.Strict;
    o.Cookie.SecurePolicy = secure;
    // How long a sign-in goes on is for its row to say; the cookie only has to last as long.
    o.ExpireTimeSpan = TimeSpan.FromDays(SpringLoft.Core.People.SessionRules.LongestDays);
    o.SlidingExpiration = false;
    // The gate answers; a page to be sent to is the client's affair.
    o.Events.OnRedirectToLogin = c => { c.Response.StatusCode = 401; return Task.CompletedTask; };
    o.Events.OnRedirectToAccessDenied = c => { c.Response.StatusCode = 403; return Task.CompletedTask; };
});
// So that what can't be read is explained like every other error, not answered with a bare 400.
builder.Services.Configure<RouteHandlerOptions>(o => o.ThrowOnBadRequest = true);
builder.Services.AddHttpContextAccessor();
builder.Services.AddResponseCompression(o => o.EnableForHttps = false);
Contract.Add(builder.Services);

builder.Services.AddSingleton(_ => new Database(DataFolder.DatabaseIn(data), KeyRingSeal.Of(data)));
builder.Services.AddSingleton(_ => new FileStore(DataFolder.FilesIn(data)));
builder.Services.AddSingleton(p =>
{
    var school = p.GetRequiredService<Database>().Read(SchoolStore.Get);
    var clock = new SchoolClock(Environment.GetEnvironmentVariable("SPRING_LOFT_CLOCK") is { Length: > 0 } held ? new HeldClock(held) : SystemClock.Instance, DateTimeZoneProviders.Tzdb[school?.Zone ?? "Etc/UTC"]);
    if (today is { } date) clock.MoveTo(date);
    return new Premises(p.GetRequiredService<Database>(), p.GetRequiredService<FileStore>(), clock);
});
builder.Services.AddScoped(p => Gate.CallerOf(p.GetRequiredService<IHttpContextAccessor>().HttpContext!));
builder.Services.AddSingleton(Channel.CreateUnbounded<RunId>());
builder.Services.AddSingleton(p => p.GetRequiredService<Channel<RunId>>().Writer);
builder.Services.AddSingleton<RunNews>();
builder.Services.AddSingleton(_ => new GuessLimits());
builder.Services.AddSingleton(_ => new HomeGuesses(new GuessLimits()));
builder.Services.AddSingleton(_ => new HashTurns());
IReadOnlyList<ProviderSettings> Providers(IServiceProvider p) => demo ? [.. named, StandInStart.District(p.GetRequiredService<OwnAddress>())] : named;
if (!documentOnly && (demo || named.Count > 0)) SignOnSetup.Add(builder.Services, secure, Providers);
if (demo) StandInStart.AddDistrict(builder.Services);
builder.Services.AddSingleton(p =>
{
    var all = new Lazy<IReadOnlyList<Provider>>(() => [.. Providers(p).Select(s => s.Provider())]);
    return new SignOnProviders(() => all.Value);
});
builder.Services.AddSingleton(p => new SignOnWays(p.GetRequiredService<Premises>(), Providers(p)));
builder.Services.AddSingleton<LogoutTokens>();
builder.Services.AddSingleton(p => new KnownBrowser(p.GetRequiredService<IDataProtectionProvider>(), secure));
builder.Services.AddSingleton<IRunMilestones>(p => Environment.GetEnvironmentVariable("SPRING_LOFT_HALT_AT") is { Length: > 0 } point
    ? new HaltAt(point, p.GetRequiredService<ILogger<HaltAt>>()) : new NoMilestones());
// Without a mail server of the school's, letters go to a stand-in that keeps them; the way there is the same.
builder.Services.AddSingleton(_ => new SmtpOutbox(Path.Combine(data, "outbox")));
var mail = MailServer.Read(Environment.GetEnvironmentVariable);
builder.Services.AddSingleton<IPost>(p =>
{
    if (mail is not null) return new SmtpPost(mail);
    var outbox = p.GetRequiredService<SmtpOutbox>();
    return new SmtpPost(MailServer.StandIn(outbox.Port), moment => outbox.LetGoBefore(moment));
});
// The stand-ins of a demo are on this machine.
builder.Services.AddSingleton(new OutsideRules(insideToo));
builder.Services.AddSingleton(p => Fetching.Client(p.GetRequiredService<OutsideRules>()));
builder.Services.AddSingleton<OwnAddress>();
builder.Services.AddSingleton(p => new SchoolAddress(() => address ?? p.GetRequiredService<OwnAddress>().Get()));
// Who is in front of it is believed only where the operator has named it.
builder.Services.Configure<ForwardedHeadersOptions>(o =>
{
    o.ForwardedHeaders = proxies.Count == 0 ? ForwardedHeaders.None : ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto;
    o.KnownIPNetworks.Clear();
    o.KnownProxies.Clear();
    foreach (var p in proxies) o.KnownProxies.Add(p);
});
builder.Services.AddSingleton<Func<Uri?>>(p => () => Environment.GetEnvironmentVariable("SPRING_LOFT_OUTSIDE") is { Length: > 0 } outside ? new Uri(outside) : demo ? new Uri(p.GetRequiredService<OwnAddress>().Get(), StandInStart.Outside) : null);
builder.Services.AddSingleton<WritingTogether>();
builder.Services.AddSingleton<ClosingRunner>();
// A page pasted whole, as base64.
builder.Services.AddSignalR(o => o.MaximumReceiveMessageSize = WritingTogether.MostUpdate * 2);
if (!documentOnly)
{
    builder.Services.AddHostedService<RunWorker>();
    builder.Services.AddHostedService<BlindWorker>();
    builder.Services.AddHostedService<PastWorker>();
    builder.Services.AddHostedService<ClockWorker>();
    builder.Services.AddHostedService<LetterWorker>();
    builder.Services.AddHostedService<TogetherWorker>();
}
foreach (var useCase in (Type[])[typeof(SigningIn), typeof(SigningOn), typeof(Sessions), typeof(SecondSteps), typeof(Passkeys), typeof(PersonData), typeof(Erasing), typeof(SpringLoft.App.School.RulesDesk), typeof(SpringLoft.App.School.Keeping), typeof(Slips), typeof(YearLine), typeof(YearDesk), typeof(ClassCalendars), typeof(YearBoard), typeof(PlanDesk), typeof(PuttingPlans), typeof(SpringLoft.App.Runs.RunFaults), typeof(MakingClass), typeof(NameDesk), typeof(Workspace), typeof(Items), typeof(ClassBin), typeof(Arranging), typeof(TreeIntake), typeof(TreeOutlet), typeof(ClassDetails), typeof(MakingMany), typeof(GivingOut), typeof(SharedThings), typeof(Departments), typeof(BlindCounts), typeof(GroupDesk),
    typeof(WordsInFiles), typeof(SpringLoft.App.Rollover.PastWords), typeof(SpringLoft.App.Rollover.DrawingOnPast), typeof(Notices), typeof(NoticeFiles), typeof(Talking), typeof(PagesForGroups), typeof(Acknowledgements), typeof(News), typeof(NewsLetters), typeof(SpringLoft.App.Letters.Families), typeof(SpringLoft.App.Letters.WeeklyLetters), typeof(SpringLoft.App.Letters.StoppingLetters), typeof(AtHome), typeof(Activities), typeof(RosterDesk), typeof(Deliveries), typeof(ApplyingDelivery), typeof(RostersOut), typeof(MovingSets), typeof(Posting), typeof(LeadDesk), typeof(OpeningMany), typeof(PublishingMany), typeof(LeftClass), typeof(SchoolDirectory), typeof(Leavers), typeof(Joining), typeof(Invitations), typeof(SendingLetters), typeof(LetterDesk), typeof(MakingGroups), typeof(CombinedRosters), typeof(Feeding), typeof(OutsideClasses), typeof(SpringLoft.App.School.SchoolScales), typeof(Assigning), typeof(Attaching), typeof(Previewing), typeof(Publishing), typeof(Today), typeof(StudentWork), typeof(Returns), typeof(MarkingDesk), typeof(Phrases), typeof(ScoresOut), typeof(ScoresIn), typeof(ScoreTables), typeof(ReturningMany), typeof(ClosingDesk), typeof(ClosingRuns), typeof(KeptCopies), typeof(LastCopies), typeof(TakeHomes), typeof(OpenShelf), typeof(Tidying), typeof(Loft), typeof(PackageReading), typeof(LoftBin), typeof(FileSweep), typeof(FileHealth), typeof(PackageIntake), typeof(RollingOver), typeof(RollingMany), typeof(StructureFiles), typeof(Cartridges), typeof(PaperLists), typeof(NewYearGate), typeof(AuditTrail), typeof(Readings)])
    builder.Services.AddSingleton(useCase);

var app = builder.Build();
if (!documentOnly)
{
    var premises = app.Services.GetRequiredService<Premises>();
    if (demo)
    {
        var signIns = DemoSchool.MakeOnce(premises, app.Services.GetRequiredService<ClosingRunner>(), Console.WriteLine);
        Console.WriteLine(signIns);
    }
    else if (premises.Db.Read(SchoolStore.Get) is null)
    {
        Console.WriteLine(FirstStart.Make(premises, Environment.GetEnvironmentVariable));
    }
}

app.UseForwardedHeaders();
app.UseSerilogRequestLogging(o => o.GetMessageTemplateProperties = LoggedPath.Properties);
if (address?.Scheme == "https")
    app.Use((context, next) =>
    {
        context.Response.Headers.StrictTransportSecurity = "max-age=31536000";
        return next(context);
    });
app.UseSecurityHeaders(new HeaderPolicyCollection()
    .AddFrameOptionsDeny().AddContentTypeOptionsNoSniff().AddReferrerPolicyNoReferrer().RemoveServerHeader().AddCrossOriginOpenerPolicy(p => p.SameOrigin())
    .AddCrossOriginResourcePolicy(p => p.SameOrigin()).AddCustomHeader("X-Permitted-Cross-Domain-Policies", "none")
    // Nothing of the device is asked for but a camera for photos of work, and passkeys.
    .AddCustomHeader("Permissions-Policy", "camera=(self), clipboard-write=(self), publickey-credentials-create=(self), publickey-credentials-get=(self), geolocation=(), microphone=(), payment=(), usb=(), display-capture=(), browsing-topics=()")
    .AddContentSecurityPolicy(csp =>
    {
        csp.AddDefaultSrc().Self();
        csp.AddScriptSrc().Self();
        // The component library writes its rules into the page; scripts it does not.
        csp.AddStyleSrc().Self().UnsafeInline();
        csp.AddImgSrc().Self().Data();
        csp.AddFontSrc().Self();
        csp.AddObjectSrc().None();
        csp.AddBaseUri().Self();
        csp.AddFormAction().Self();
        csp.AddFrameAncestors().None();
    }));
app.UseResponseCompression();
app.UseMiddleware<Problems>();
app.Use(next => new Hosts(next, address).InvokeAsync);
ClientFiles.Use(app);
app.UseRouting();
app.UseAuthentication();
app.UseMiddleware<SameSite>();
app.Use(WholeBodies.Encodings);
app.UseMiddleware<Gate>();
app.UseMiddleware<Once>();

var api = app.MapGroup("/api").ProducesProblem(StatusCodes.Status422UnprocessableEntity).TakesWholeBodies();
PeopleEndpoints.Map(api);
SecondStepEndpoints.Map(api);
SignOnEndpoints.Map(api);
SpringLoft.Server.School.RulesEndpoints.Map(api);
YearEndpoints.Map(api);
NamingEndpoints.Map(api);
PlanEndpoints.Map(api);
WorkspaceEndpoints.Map(api);
NoticeEndpoints.Map(api);
TalkEndpoints.Map(api);
AcknowledgementEndpoints.Map(api);
NewsEndpoints.Map(api);
RosterEndpoints.Map(api);
DeliveryEndpoints.Map(api);
DirectoryEndpoints.Map(api);
JoinEndpoints.Map(api);
CombinedEndpoints.Map(api);
StandInStart.MapOutbox(api);
LetterEndpoints.Map(api);
FamilyEndpoints.Map(api);
AssignmentEndpoints.Map(api);
ClosingEndpoints.Map(api);
TakeHomeEndpoints.Map(api);
ShelfEndpoints.Map(api);
ShelfEndpoints.MapPages(app);
AcknowledgementEndpoints.MapPages(app);
FamilyEndpoints.MapPages(app);
RolloverEndpoints.Map(api);
app.MapHub<TogetherHub>(TogetherHub.Path).WithMetadata(new Needed(SpringLoft.Core.Workspaces.Act.WriteTogether));
if (demo && !documentOnly) StandInStart.Map(app, app.Services.GetRequiredService<Premises>(), data);
app.MapGet("/health", (Premises premises) => new Health("ok", premises.Db.Read(c => SchoolStore.Get(c) is null ? "no school yet" : "read"))).ExcludeFromDescription();
// Every other address is the front end's, but not those of the API: there a wrong method or type is to be told.
app.MapFallbackToFile("{*path:nonfile:regex(^(?!api(/|$)))}", "index.html", ClientFiles.Page());

app.Lifetime.ApplicationStarted.Register(() =>
{
    var own = app.Services.GetRequiredService<OwnAddress>().Get();
    if (demo) StandInStart.Listening(app.Services, app.Services.GetRequiredService<Premises>(), own);
    if (demo || named.Count > 0) SignOnSetup.Listening(app.Services);
    Console.WriteLine($"Spring Loft answers on {own}");
});
app.Run();
return 0;

/// <summary>Is it well, and is its database read?</summary>
internal sealed record Health(string Status, string Database);

/// <summary>Named so that tests can start the real program.</summary>
public partial class Program;
