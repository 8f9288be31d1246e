using SpringLoft.App;
using SpringLoft.Core.Workspaces;
using SpringLoft.Demo;
using SpringLoft.Server.Api;
using SpringLoft.StandIns;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Years;

namespace SpringLoft.Server.Hosting;

/// <summary>Starts the stand-ins of a demo: the school's records, another program in which classes live, a provider of single sign-on.</summary>
internal static class StandInStart
{
    internal const string Outside = "stand-ins/other-program/";

    /// <summary>The letters that the stand-in for the mail server keeps, for a coordinator to read.</summary>
    internal static void MapOutbox(RouteGroupBuilder api) => api.MapGet("/outbox", (SmtpOutbox outbox) => outbox.Letters(200)).WithName("outbox").Needs(Act.KeepLetters);

    /// <summary>Puts the others at their addresses.</summary>
    internal static void Map(WebApplication app, Premises premises, string data)
    {
        var bundle = Path.Combine(data, "stand-ins", "records.zip");
        DemoRecords.WriteOnce(premises, bundle);
        new RecordsService(bundle).Map(app.MapGroup("/stand-ins/records"));
        new OtherProgram(OtherProgram.Sample).Map(app.MapGroup("/stand-ins/other-program"));
        DistrictProvider.Map(app);
    }

    /// <summary>Sets up the district's provider of single sign-on.</summary>
    internal static void AddDistrict(IServiceCollection services) => DistrictProvider.Add(services, p => p.GetRequiredService<OwnAddress>().Get());

    /// <summary>It, as an operator would write it.</summary>
    internal static ProviderSettings District(OwnAddress own) => new(Key: "island", "Island District", new Uri(own.Get(), DistrictProvider.Path).AbsoluteUri, DistrictProvider.ClientId, DistrictProvider.ClientSecret,
        ["profile"], new KnownByClaims(null, null, null, "preferred_username"), false, null, Core.People.PasswordsOffFor.Nobody, null);

    /// <summary>Points the feed to the records, and tells the provider where it is.</summary>
    /// <param name="root">Where this program is reached itself.</param>
    internal static void Listening(IServiceProvider services, Premises premises, Uri root)
    {
        DistrictProvider.Listening(services);
        premises.Db.Write(c =>
        {
            var years = YearStore.All(c);
            var year = years.FirstOrDefault(y => premises.Clock.Today <= y.Year.Last) ?? years[^1];
            var there = FeedStore.Get(c);
            // It moves with the port; off, so that the demo changes only when somebody wants it.
            FeedStore.Set(c, (there ?? new FeedRow { YearId = year.Id, FirstDay = year.Year.First, LastDay = year.Year.Last, Hour = 5 }) with
            {
                Address = new Uri(root, "stand-ins/records").AbsoluteUri,
                ClientId = RecordsService.ClientId,
                ClientSecret = RecordsService.ClientSecret,
            });
        });
    }
}
