using System.Text.Json;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Rosters;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Rosters;

/// <summary>A delivery in the list of all.</summary>
/// <param name="Changes">How many changes of each kind it was found to make.</param>
/// <param name="OnHold">Changes that wait for a person.</param>
/// <param name="Findings">Rows that could not be taken as they are.</param>
public sealed record DeliverySummary(
    long Id, string Name, DeliveryKind Kind, YearId Year, DeliveryState State, Instant ReceivedAt, string? ReceivedBy, IReadOnlyDictionary<ChangeKind, int> Changes, int OnHold, int Findings, Instant? AppliedAt, int Version);

/// <summary>Somebody who might be meant.</summary>
public sealed record MeantPerson(PersonId Id, string SortName, string? Grade, string? StudentNumber, string? Email, string UserName, bool Active, IReadOnlyList<string> Classes);

/// <summary>A reason for which changes wait.</summary>
/// <param name="People">For a person who is unclear: who of the directory might be meant.</param>
public sealed record HoldView(string Key, HoldKind Kind, string Text, int Changes, HoldDecision Decision, PersonId? SettledAs, IReadOnlyList<MeantPerson> People);

/// <summary>What was applied of a delivery, and whether it stands.</summary>
public sealed record AppliedView(Instant At, string? By, int Changes, Instant? TakenBackAt);

/// <summary>A delivery: what it would change, what is held, what could not be read.</summary>
/// <param name="Version">Of OneRoster, as its manifest says.</param>
/// <param name="Ready">Changes that nothing holds up.</param>
/// <param name="Same">Places on rosters that are already as the delivery has them.</param>
/// <param name="Columns">For a plain table whose columns are to be confirmed, or were.</param>
/// <param name="TakesBack">True if the last of what was applied can be taken back.</param>
public sealed record DeliveryView(
    DeliverySummary Summary, string? Version, int Ready, int Same, IReadOnlyList<HoldView> Holds, IReadOnlyList<DeliveryFinding> Findings, IReadOnlyList<ColumnGuess> Columns, bool Whole,
    IReadOnlyList<AppliedView> Applied, bool TakesBack);

/// <summary>A change of a delivery.</summary>
/// <param name="Held">True while it waits for a person.</param>
public sealed record ChangeView(ChangeKind Kind, string Who, string ClassName, string Why, bool Held);

/// <summary>A page of the changes that were asked for, and how many there are.</summary>
public sealed record ChangePage(IReadOnlyList<ChangeView> Changes, int Total);

/// <summary>What a delivery does to one class.</summary>
public sealed record ClassChanges(string ClassName, bool IsNew, int Joins, int Leaves, int MovesIn, int Other, int Held);

/// <summary>The school's records sending rosters: received, compared, held, shown. Applying is <see cref="ApplyingDelivery"/>'s.</summary>
public sealed class Deliveries(Premises premises)
{
    /// <summary>Most bytes of a delivery.</summary>
    public const long MostBytes = 400L * 1024 * 1024;

    private const int MostShown = 200;
    private const int MostClasses = 500;
    private const int MostCandidates = 8;
    private const int MostRowsRemembered = 400_000;
    private readonly Lock remembering = new();
    private (string Sha256, KeptChanges Changes)? last;
    // A person decides about one delivery hold after hold, then applies it.
    private (long Id, string? Columns, bool Whole, ReadDelivery Read)? lastRead;

    /// <summary>All deliveries, newest first.</summary>
    public IReadOnlyList<DeliverySummary> All() => premises.Db.Read(c => DeliveryStore.All(c, 200).Select(Summary).ToList());

    /// <summary>Takes in a bundle or a plain table, and compares it. Nothing of the school is changed.</summary>
    public async Task<long> Receive(Caller by, YearId year, string? name, Stream content, CancellationToken stop)
    {
        var called = Refusals.NotLonger(name?.Trim() is { Length: > 0 } n ? n : "rosters", "name", "The name of the file", 200);
        Store.Files.StoredFile file;
        try { file = await premises.Files.TakeIn(content, MostBytes, stop).ConfigureAwait(false); }
        catch (Store.Files.FileTooLongException) { throw new RefusedException("file-too-long", $"“{called}” is longer than {MostBytes / (1024 * 1024)} MB.", "Send users, classes and enrollments alone, or in parts.", "file"); }
        if (file.Size == 0) throw new RefusedException("file-empty", $"“{called}” has 0 bytes: there is nothing in it.", "Export it again, then send it.", "file");
        return Receive(by, year, called, file, IsZip(file.Sha256) ? DeliveryKind.Bundle : DeliveryKind.Table);
    }

    internal long Receive(Caller? by, YearId year, string name, Store.Files.StoredFile file, DeliveryKind kind, ReadDelivery? known = null)
    {
        var row = new DeliveryRow { Name = name, Kind = kind, YearId = year, State = DeliveryState.Waiting, ReceivedAt = premises.Clock.Now, ReceivedBy = by?.Id, SourceSha256 = file.Sha256 };
        if (kind == DeliveryKind.Table)
        {
            using var open = premises.Files.Open(file.Sha256);
            var guessed = PlainRoster.Columns(open, name).Select(g => g.Is).ToList();
            row = row with { Columns = JsonSerializer.Serialize(guessed), State = DeliveryState.ColumnsOpen };
        }
        // What the school has is read while the bundle is read.
        var today = kind == DeliveryKind.Table ? null : Task.Run(() => premises.Db.Read(c => DeliveryReading.Today(c, year)));
        var read = kind == DeliveryKind.Table ? null : known ?? DeliveryReading.Read(premises, row);
        var id = premises.Db.Write(c =>
        {
            if (Store.Years.YearStore.All(c).All(y => y.Id != year)) throw Refusals.NotFound("school year");
            ItemStore.AddBlob(c, file, premises.Clock.Now);
            var made = DeliveryStore.Add(c, row);
            // What is newest says how things are: what waited before it waits no longer.
            if (kind != DeliveryKind.Table) SetOthersAside(c, year, made);
            Premises.Add(c, by, premises.Clock.Now, new("received delivery", "delivery", made, null, name));
            return made;
        });
        if (read is not null) Compare(id, read, today!.GetAwaiter().GetResult());
        return id;
    }

    /// <summary>Confirms what the columns of a plain table are, and compares it.</summary>
    public void SetColumns(Caller by, long id, IReadOnlyList<RosterColumn> columns, bool whole)
    {
        var d = premises.Db.Read(c => Find(c, id));
        if (d.Kind != DeliveryKind.Table || d.State is not (DeliveryState.ColumnsOpen or DeliveryState.Waiting)) throw new RefusedException("delivery-settled", "The columns of this delivery are settled.", "Send the table again to read it otherwise.");
        Reading(d with { Columns = JsonSerializer.Serialize(columns), Whole = whole });
        premises.Db.Write(c =>
        {
            DeliveryStore.SetColumns(c, id, JsonSerializer.Serialize(columns), whole);
            DeliveryStore.SetState(c, id, DeliveryState.Waiting);
            Premises.Add(c, by, premises.Clock.Now, new("confirmed columns", "delivery", id, null, d.Name));
        });
        Compare(id);
    }

    /// <summary>Compares anew and keeps the list of changes that comes of it.</summary>
    /// <param name="known">The delivery as it was just read; null to read its file.</param>
    /// <param name="school">The school as it was just read; null to read it.</param>
    internal void Compare(long id, ReadDelivery? known = null, RosterToday? school = null)
    {
        var d = premises.Db.Read(c => Find(c, id));
        var read = Reading(d, known);
        var (holds, compared) = premises.Db.Read(c =>
        {
            var held = DeliveryStore.Holds(c, id);
            return (held, DeliveryReading.Compare(c, read, school ?? DeliveryReading.Today(c, d.YearId), held));
        });
        IReadOnlyList<DeliveryFinding> findings = [.. read.Findings, .. compared.Findings.Take(1000)];
        var kept = new KeptChanges(compared.Changes, findings, read.AllFindings + compared.Findings.Count, compared.Same, read.Version, premises.Clock.Now);
        var file = DeliveryReading.Make(premises, kept);
        var perHold = compared.Changes.SelectMany(x => x.Holds).GroupBy(h => h).ToDictionary(g => g.Key, g => g.Count());
        var said = compared.Holds.ToDictionary(h => h.Key, h => h.Text);
        var decided = holds.Where(h => h.Decision != HoldDecision.Waiting && said.GetValueOrDefault(h.Key, h.Text) == h.Text).Select(h => h.Key).ToHashSet();
        var onHold = compared.Changes.Where(x => x.Holds.Any(h => !decided.Contains(h))).ToList();
        premises.Db.Write(c =>
        {
            ItemStore.AddBlob(c, file, premises.Clock.Now);
            DeliveryStore.SetChanges(c, id, file.Sha256, JsonSerializer.Serialize(compared.Changes.GroupBy(x => x.Kind).ToDictionary(g => g.Key.ToString(), g => g.Count())), kept.AllFindings, onHold.Count,
                compared.Holds.Select(h => new HoldRow { Key = h.Key, Kind = h.Kind, Text = h.Text, Changes = perHold.GetValueOrDefault(h.Key), PersonRef = h.PersonRef, Candidates = JsonSerializer.Serialize(h.Candidates.Take(MostCandidates).Select(p => p.Value)) }),
                onHold.Where(x => x.Class is not null).GroupBy(x => x.Class!.Value).Select(g => (g.Key, g.Count())));
        });
        Remember(file.Sha256, kept);
    }

    /// <summary>One delivery, all about it but its changes.</summary>
    public DeliveryView See(long id) => premises.Db.Read(c =>
    {
        var d = Find(c, id);
        var holds = DeliveryStore.Holds(c, id);
        var kept = d.ChangesSha256 is { } sha ? Kept(sha) : new([], [], 0, 0, null, default);
        var lifted = Lifted(holds);
        var applied = DeliveryStore.Applied(c, id);
        var candidates = holds.ToDictionary(h => h.Key, h => JsonSerializer.Deserialize<long[]>(h.Candidates)!.Select(p => new PersonId(p)).ToList());
        var people = PersonStore.Find(c, candidates.Values.SelectMany(p => p).Distinct()).ToDictionary(p => p.Id);
        var now = RosterStore.Now(c, people.Keys);
        MeantPerson Meant(PersonRow p) => new(p.Id, p.Name.Sort, p.Grade, p.StudentNumber, p.Email, p.UserName, p.Active, now[p.Id].Names);
        return new DeliveryView(Summary(d), kept.Version,
            Math.Max(0, kept.Changes.Count(x => x.Holds.All(lifted.Contains)) - applied.Where(a => a.TakenBackAt is null && a.AppliedAt >= kept.At).Sum(a => a.Changes)), kept.Same,
            [.. holds.Select(h => new HoldView(h.Key, h.Kind, h.Text, h.Changes, h.Decision, h.SettledAs, [.. candidates[h.Key].Where(people.ContainsKey).Select(p => Meant(people[p]))]))],
            kept.Findings, Columns(d), d.Whole, [.. applied.Select(a => new AppliedView(a.AppliedAt, a.By, a.Changes, a.TakenBackAt))],
            applied.FirstOrDefault(a => a.TakenBackAt is null) is { } newest && !DeliveryStore.AppliedLater(c, d.YearId, newest.Id));
    });

    /// <summary>Changes of a delivery, narrowed.</summary>
    /// <param name="search">Part of a name of a person or class; null for all.</param>
    public ChangePage Changes(long id, ChangeKind? kind, string? className, bool? held, string? search, int skip) => premises.Db.Read(c =>
    {
        var d = Find(c, id);
        if (d.ChangesSha256 is not { } sha) return new ChangePage([], 0);
        var lifted = Lifted(DeliveryStore.Holds(c, id));
        var all = Kept(sha).Changes.Where(x => (kind is null || x.Kind == kind) && (className is null || x.ClassName == className) && (held is null || x.Holds.All(lifted.Contains) != held)
            && (string.IsNullOrWhiteSpace(search) || x.Who.Contains(search, StringComparison.CurrentCultureIgnoreCase) || x.ClassName.Contains(search, StringComparison.CurrentCultureIgnoreCase))).ToList();
        return new ChangePage([.. all.Skip(Math.Max(0, skip)).Take(MostShown).Select(x => new ChangeView(x.Kind, x.Who, x.ClassName, x.Why, !x.Holds.All(lifted.Contains)))], all.Count);
    });

    /// <summary>What a delivery does class by class, those with something on hold first.</summary>
    public IReadOnlyList<ClassChanges> Classes(long id) => premises.Db.Read(c =>
    {
        var d = Find(c, id);
        if (d.ChangesSha256 is not { } sha) return new List<ClassChanges>();
        var lifted = Lifted(DeliveryStore.Holds(c, id));
        return [.. Kept(sha).Changes.Where(x => x.ClassName.Length > 0).GroupBy(x => x.ClassName).Select(g => new ClassChanges(g.Key, g.Any(x => x.Kind == ChangeKind.NewClass), g.Count(x => x.Kind == ChangeKind.Joins), g.Count(x => x.Kind == ChangeKind.Leaves),
            g.Count(x => x.Kind == ChangeKind.Moves), g.Count(x => x.Kind is ChangeKind.ChangesRole or ChangeKind.ChangedClass or ChangeKind.ClassGone), g.Count(x => !x.Holds.All(lifted.Contains))))
            .OrderByDescending(k => k.Held).ThenBy(k => k.ClassName, StringComparer.Ordinal).Take(MostClasses)];
    });

    /// <summary>Says yes or no to a hold; for somebody who is unclear, also who they are.</summary>
    /// <param name="person">Who of the directory they are; null for somebody new. For other holds without meaning.</param>
    public void Decide(Caller by, long id, string? key, HoldDecision decision, PersonId? person)
    {
        var d = premises.Db.Write(c =>
        {
            var row = Find(c, id);
            if (row.State is DeliveryState.SetAside or DeliveryState.TakenBack) throw new RefusedException("delivery-settled", "Nothing comes of this delivery any more.", "Look at the newest one.");
            var hold = DeliveryStore.Holds(c, id).FirstOrDefault(h => h.Key == key) ?? throw Refusals.NotFound("hold");
            if (decision == HoldDecision.Yes && person is { } p) Settles(c, row, hold, p);
            // Somebody new who came already is not new a second time.
            var settled = decision != HoldDecision.Yes ? null : person ?? (hold.PersonRef is { } r ? DeliveryStore.WhoCame(c, id, r) : null);
            DeliveryStore.Decide(c, id, hold.Key, decision, settled, by.Id, premises.Clock.Now);
            Premises.Add(c, by, premises.Clock.Now, new(decision switch { HoldDecision.Yes => "said yes to a hold", HoldDecision.No => "said no to a hold", _ => "put back on hold" }, "delivery", id, null, hold.Text));
            return row;
        });
        // Who somebody is decides what the delivery would change.
        if (d.State != DeliveryState.ColumnsOpen) Compare(id);
    }

    private void Settles(IDbConnection c, DeliveryRow d, HoldRow hold, PersonId who)
    {
        if (hold.Kind != HoldKind.PersonUnclear || PersonStore.Find(c, who) is not { } p) throw Refusals.NotFound("person");
        if (p.RecordId is { } own && Reading(d).Delivery.People.FirstOrDefault(x => x.Ref != hold.PersonRef && !x.Gone && string.Equals(x.RecordId, own, StringComparison.OrdinalIgnoreCase)) is { } there)
            throw new RefusedException("person-own-record", $"{p.Name.Sort} stands in line {there.Line} of this delivery under their own record.", "Say that it is somebody new, or have it corrected in the school's records.", "person");
    }

    /// <summary>Puts a delivery away: nothing comes of what was not applied.</summary>
    public void SetAside(Caller by, long id) => premises.Db.Write(c =>
    {
        var d = Find(c, id);
        if (d.State is DeliveryState.Waiting or DeliveryState.ColumnsOpen) DeliveryStore.SetState(c, id, DeliveryState.SetAside);
        DeliveryStore.LetHoldsGo(c, id);
        Premises.Add(c, by, premises.Clock.Now, new("set delivery aside", "delivery", id, null, d.Name));
    });

    /// <summary>The file as it came.</summary>
    public Download Source(long id) => premises.Db.Read(c =>
    {
        var d = Find(c, id);
        var file = premises.Files.Open(d.SourceSha256);
        return new Download(d.Kind == DeliveryKind.Table ? d.Name : d.Name.EndsWith(".zip", StringComparison.OrdinalIgnoreCase) ? d.Name : $"{d.Name}.zip", file, file.Length);
    });

    internal KeptChanges Kept(string sha256)
    {
        lock (remembering)
            if (last is { } l && l.Sha256 == sha256) return l.Changes;
        var kept = DeliveryReading.Open<KeptChanges>(premises, sha256);
        Remember(sha256, kept);
        return kept;
    }

    /// <summary>What a delivery says: its file never changes, so that the one that was read last need not be read again.</summary>
    /// <param name="known">As it was just read; null to read its file.</param>
    internal ReadDelivery Reading(DeliveryRow d, ReadDelivery? known = null)
    {
        lock (remembering)
            if (known is null && lastRead is { } l && (l.Id, l.Columns, l.Whole) == (d.Id, d.Columns, d.Whole)) return l.Read;
        var read = known ?? DeliveryReading.Read(premises, d);
        var isSmall = read.Delivery.People.Count + read.Delivery.Enrollments.Count <= MostRowsRemembered;
        lock (remembering) lastRead = isSmall ? (d.Id, d.Columns, d.Whole, read) : null;
        return read;
    }

    internal static DeliveryRow Find(IDbConnection c, long id) => DeliveryStore.Find(c, id) ?? throw Refusals.NotFound("delivery");

    /// <summary>Keys of the holds that somebody said yes to.</summary>
    internal static HashSet<string> Lifted(IReadOnlyList<HoldRow> holds) => [.. holds.Where(h => h.Decision == HoldDecision.Yes).Select(h => h.Key)];

    private void SetOthersAside(IDbConnection c, YearId year, long but)
    {
        foreach (var other in DeliveryStore.Open(c, year, but))
        {
            if (DeliveryStore.Find(c, other)!.State is DeliveryState.Waiting or DeliveryState.ColumnsOpen) DeliveryStore.SetState(c, other, DeliveryState.SetAside);
            DeliveryStore.LetHoldsGo(c, other);
        }
    }

    private void Remember(string sha256, KeptChanges changes)
    {
        lock (remembering) last = (sha256, changes);
    }

    private IReadOnlyList<ColumnGuess> Columns(DeliveryRow d)
    {
        if (d.Kind != DeliveryKind.Table) return [];
        using var file = premises.Files.Open(d.SourceSha256);
        var said = JsonSerializer.Deserialize<List<RosterColumn>>(d.Columns ?? "[]")!;
        return [.. PlainRoster.Columns(file, d.Name).Select((g, i) => i < said.Count ? g with { Is = said[i] } : g)];
    }

    private bool IsZip(string sha256)
    {
        using var file = premises.Files.Open(sha256);
        Span<byte> head = stackalloc byte[2];
        return file.ReadAtLeast(head, 2, throwOnEndOfStream: false) == 2 && head is [(byte)'P', (byte)'K'];
    }

    private static DeliverySummary Summary(DeliveryRow d) => new(d.Id, d.Name, d.Kind, d.YearId, d.State, d.ReceivedAt, d.ReceivedByName,
        JsonSerializer.Deserialize<Dictionary<string, int>>(d.Counts)!.ToDictionary(x => Enum.Parse<ChangeKind>(x.Key), x => x.Value), d.OnHold, d.Findings, d.AppliedAt, d.Version);
}
