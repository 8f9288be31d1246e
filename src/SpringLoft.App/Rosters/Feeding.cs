using SpringLoft.Core.Rosters;
using SpringLoft.Formats.OneRoster;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Rosters;

/// <summary>How the feed is set up; its secret is never given back.</summary>
/// <param name="Secret">Null to leave it as it is.</param>
/// <param name="Hour">Of the school's clock, 0 to 23.</param>
/// <param name="Applies">True if what nothing holds is applied without anybody's yes.</param>
public sealed record FeedDraft(string? Address, string? ClientId, string? Secret, YearId Year, LocalDate FirstDay, LocalDate LastDay, int Hour, bool IsOn, bool Applies);

/// <summary>The feed, when it runs next and what it last did.</summary>
/// <param name="NextOn">The day on which it runs next; null while it is quiet.</param>
/// <param name="Quiet">Why it does not run; null if it does.</param>
public sealed record FeedView(string Address, string ClientId, YearId Year, LocalDate FirstDay, LocalDate LastDay, int Hour, bool IsOn, bool Applies, LocalDate? NextOn, string? Quiet, Instant? LastAt, bool? LastOk, string? LastResult);

/// <summary>A school year for the feed, with the days that are offered.</summary>
/// <param name="Shut">Why the feed can't bring it yet, and what to do; null if nothing is in its way.</param>
public sealed record FeedYearView(YearId Id, string Label, LocalDate First, LocalDate Last, string? Shut);

/// <summary>What the feed's form offers.</summary>
/// <param name="Year">The year that it proposes; null while there is none.</param>
public sealed record FeedOffer(YearId? Year, IReadOnlyList<FeedYearView> Years);

/// <summary>The roster feed: the school's records, asked once a day inside its window.</summary>
public sealed class Feeding(Premises premises, Deliveries deliveries, ApplyingDelivery applying, HttpClient http, OutsideRules outside)
{
    /// <summary>The feed; null if none is set up.</summary>
    public FeedView? See() => premises.Db.Read(FeedStore.Get) is { } f ? View(f) : null;

    /// <summary>The years that it may be set to, with their days; the one that has begun is proposed.</summary>
    public FeedOffer Offer() => premises.Db.Read(c =>
    {
        var years = YearStore.All(c);
        return new FeedOffer(FeedYear.Offered([.. years.Select(y => new FeedYear(y.Id, y.Year.First, y.Year.Last, YearStore.BegunAt(c, y.Id) is not null))], premises.Clock.Today),
            // Of what is over nothing is looked up: no feed runs in it any more.
            [.. years.Select(y => new FeedYearView(y.Id, y.Year.Label, y.Year.First, y.Year.Last, y.Year.Last < premises.Clock.Today ? null : Closing.NewYearGate.NotBegun(c, y.Id, years)?.Refusal is { } r ? $"{r.What} {r.Mend}" : null))]);
    });

    /// <summary>Sets it up.</summary>
    public void Set(Caller by, FeedDraft d)
    {
        var address = outside.Read(d.Address, "address");
        var client = Refusals.Needed(d.ClientId, "clientId", "The client id", 200);
        premises.Db.Write(c =>
        {
            var years = YearStore.All(c);
            var year = years.FirstOrDefault(y => y.Id == d.Year) ?? throw Refusals.NotFound("school year");
            if (d.IsOn && Closing.NewYearGate.NotBegun(c, d.Year, years) is { } shut) throw shut;
            new FeedWindow(d.FirstDay, d.LastDay, d.Hour, d.IsOn).Check(year.Year.First, year.Year.Last);
            var secret = string.IsNullOrEmpty(d.Secret) ? Kept(FeedStore.Get(c), address) : Refusals.NotLonger(d.Secret, "secret", "The secret", 1000);
            FeedStore.Set(c, new FeedRow { Address = address.AbsoluteUri, ClientId = client, ClientSecret = secret, YearId = d.Year, FirstDay = d.FirstDay, LastDay = d.LastDay, Hour = d.Hour, IsOn = d.IsOn, Applies = d.Applies });
            Premises.Add(c, by, premises.Clock.Now, new("set roster feed", "school", null, null, $"{address.Host}, {d.FirstDay:uuuu-MM-dd} to {d.LastDay:uuuu-MM-dd}, {(d.IsOn ? "on" : "off")}"));
        });
    }

    // A secret goes to the host it was given for: whoever may change the address does not get it sent elsewhere.
    private static string Kept(FeedRow? there, Uri address)
    {
        if (there is not { ClientSecret: { Length: > 0 } secret }) throw new RefusedException("missing", "The secret is missing.", "Type it in; it is never shown again.", "secret");
        var before = new Uri(there.Address);
        if ((before.Scheme, before.Host, before.Port) != (address.Scheme, address.Host, address.Port))
            throw new RefusedException("secret-elsewhere", $"The secret was given for {before.Authority} and is not sent to {address.Authority}.", "Type in the secret for the new address.", "secret");
        return secret;
    }

    /// <summary>Is it time?</summary>
    public bool IsDue() => premises.Db.Read(FeedStore.Get) is { } f && f.Window.Next(premises.Clock.LocalNow, f.LastAt is { } l ? premises.Clock.LocalOf(l) : null) is { } next && next <= premises.Clock.LocalNow;

    /// <summary>Asks the records now and compares what they send; what nothing holds is applied if the feed is set so.</summary>
    /// <returns>The delivery; null if the records could not be read, or still send a year that is over: the feed's last result says so.</returns>
    /// <exception cref="RefusedException"><c>feed-none</c>; <c>feed-quiet</c> outside the window.</exception>
    public async Task<long?> Run(Caller? by, CancellationToken stop)
    {
        var f = premises.Db.Read(FeedStore.Get) ?? throw new RefusedException("feed-none", "No roster feed is set up.", "Set it up first.");
        if (premises.Clock.Today < f.FirstDay || premises.Clock.Today > f.LastDay)
            throw new RefusedException("feed-quiet", $"The feed is quiet outside {f.FirstDay:uuuu-MM-dd} to {f.LastDay:uuuu-MM-dd}: between years it would deliver empty classes.", "Give it the new year's dates.");
        try
        {
            var file = premises.Files.Scratch();
            await using (file.ConfigureAwait(false))
            {
                await new OneRosterRest(http, new(new(f.Address), f.ClientId, f.ClientSecret)).Fetch(file, stop).ConfigureAwait(false);
                file.Position = 0;
                var kept = await premises.Files.TakeIn(file, Deliveries.MostBytes, stop).ConfigureAwait(false);
                var name = $"Feed, {premises.Clock.Today:uuuu-MM-dd}";
                var read = DeliveryReading.Read(premises, new DeliveryRow { Name = name, Kind = DeliveryKind.Feed, YearId = f.YearId, SourceSha256 = kept.Sha256 });
                var year = premises.Db.Read(c => YearStore.All(c).First(y => y.Id == f.YearId)).Year;
                if (FeedYear.IsPast(read.Delivery, year.First))
                {
                    // Nobody has to say no to it each morning: what is over is kept out, and the feed says so.
                    Done(true, $"the records still send a year that ended on {read.Delivery.Last:uuuu-MM-dd}: kept out of {year.Label}, nothing to decide");
                    return null;
                }
                var id = deliveries.Receive(by, f.YearId, name, kept, DeliveryKind.Feed, read);
                Done(true, Settle(id, f.Applies));
                return id;
            }
        }
        catch (RefusedException e)
        {
            Done(false, $"{e.Refusal.What} {e.Refusal.Mend}");
            return null;
        }
    }

    private string Settle(long id, bool applies)
    {
        var seen = deliveries.See(id);
        var changes = seen.Summary.Changes.Values.Sum();
        if (changes == 0) return "nothing had changed";
        if (!applies || seen.Ready == 0) return $"{changes} changes wait{(seen.Summary.OnHold > 0 ? $", {seen.Summary.OnHold} on hold" : "")}";
        var done = applying.Apply(null, id, null, seen.Summary.Version);
        return $"{done.Changes} changes applied{(done.OnHold > 0 ? $", {done.OnHold} on hold" : "")}";
    }

    private void Done(bool ok, string result) => premises.Db.Write(c =>
    {
        FeedStore.SetLast(c, premises.Clock.Now, ok, result);
        Premises.Add(c, null, premises.Clock.Now, new("ran roster feed", "school", null, null, result));
    });

    private FeedView View(FeedRow f)
    {
        var now = premises.Clock.LocalNow;
        var next = f.Window.Next(now, f.LastAt is { } l ? premises.Clock.LocalOf(l) : null);
        var quiet = !f.IsOn ? "it is switched off" : next is null ? $"its last day, {f.LastDay:uuuu-MM-dd}, is over" : now.Date < f.FirstDay ? $"it begins on {f.FirstDay:uuuu-MM-dd}" : null;
        return new(f.Address, f.ClientId, f.YearId, f.FirstDay, f.LastDay, f.Hour, f.IsOn, f.Applies, next?.Date, quiet, f.LastAt, f.LastOk, f.LastResult);
    }
}
