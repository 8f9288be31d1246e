using System.Text.Json;
using SpringLoft.Core.Rosters;
using SpringLoft.Formats.OneRoster;
using SpringLoft.Formats.Rosters;
using SpringLoft.Store.Naming;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.App.Rosters;

/// <summary>A delivery as it was read.</summary>
internal sealed record ReadDelivery(RosterDelivery Delivery, IReadOnlyList<DeliveryFinding> Findings, int AllFindings, string? Version);

/// <summary>The list of changes as it was made out and shown, kept as a file.</summary>
/// <param name="Same">Places on rosters that are already as the delivery has them.</param>
/// <param name="At">When the list was made out; what was applied later is still on it.</param>
internal sealed record KeptChanges(IReadOnlyList<RosterChange> Changes, IReadOnlyList<DeliveryFinding> Findings, int AllFindings, int Same, string? Version, Instant At);

/// <summary>Reads what the school's records sent, and what there is to compare it with.</summary>
internal static class DeliveryReading
{
    private static readonly JsonSerializerOptions Json = new()
    {
        Converters = { new IdConverter() },
        DefaultIgnoreCondition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull,
        TypeInfoResolver = new System.Text.Json.Serialization.Metadata.DefaultJsonTypeInfoResolver { Modifiers = { Shorter } },
    };

    // A large school's list has hundreds of thousands of changes: what can be told from the rest is not written.
    private static void Shorter(System.Text.Json.Serialization.Metadata.JsonTypeInfo type)
    {
        if (type.Type != typeof(RosterChange)) return;
        foreach (var p in type.Properties.Where(p => p.Name == nameof(RosterChange.Key)).ToList()) type.Properties.Remove(p);
        foreach (var p in type.Properties.Where(p => p.Name == nameof(RosterChange.Holds))) p.ShouldSerialize = (_, holds) => ((IReadOnlyList<string>)holds!).Count > 0;
    }

    /// <summary>Reads the delivery's own file once more: what it says never changes.</summary>
    internal static ReadDelivery Read(Premises premises, DeliveryRow d)
    {
        using var file = premises.Files.Open(d.SourceSha256);
        if (d.Kind == DeliveryKind.Table)
        {
            var (delivery, findings, all) = PlainRoster.Read(file, d.Name, JsonSerializer.Deserialize<List<RosterColumn>>(d.Columns ?? "[]")!, d.Whole);
            return new(delivery, findings, all, null);
        }
        var bundle = OneRosterBundle.Read(file);
        return new(bundle.Delivery, bundle.Findings, bundle.AllFindings, bundle.Version);
    }

    /// <summary>What there is in the school, and in a year.</summary>
    internal static RosterToday Today(IDbConnection c, YearId id)
    {
        var year = YearStore.All(c).FirstOrDefault(y => y.Id == id) ?? throw Refusals.NotFound("school year");
        return new(DeliveredStore.People(c), DeliveredStore.Classes(c, id), DeliveredStore.Members(c, id), [.. ClassStore.AllNames(c).Select(n => n.Name)], year.Year.Label, SchoolStore.Get(c)!.ClassNamePattern, year.Year.First, year.Year.Last) { Contacts = Store.Letters.FamilyStore.Delivered(c) };
    }

    /// <summary>Who people of the delivery are, as somebody decided.</summary>
    private static IReadOnlyDictionary<string, PersonId?> Settled(IReadOnlyList<HoldRow> holds) =>
        holds.Where(h => h is { PersonRef: not null, Decision: HoldDecision.Yes }).ToDictionary(h => h.PersonRef!, h => h.SettledAs, StringComparer.Ordinal);

    /// <summary>What comparing a delivery comes to, with what was decided about it and before.</summary>
    internal static RosterChanges Compare(IDbConnection c, ReadDelivery read, RosterToday today, IReadOnlyList<HoldRow> holds) =>
        RosterComparison.Compare(read.Delivery, today, Settled(holds), DeliveryStore.SettledBefore(c), Standing(holds));

    private static IReadOnlySet<string> Standing(IReadOnlyList<HoldRow> holds) =>
        holds.Where(h => h.Kind is HoldKind.ClassLoses or HoldKind.SchoolLoses or HoldKind.StaffLoses).Select(h => h.Key).ToHashSet(StringComparer.Ordinal);

    internal static string Write(Premises premises, IDbConnection? c, object what)
    {
        var file = premises.Files.Make(s => JsonSerializer.Serialize(s, what, Json));
        if (c is not null) ItemStore.AddBlob(c, file, premises.Clock.Now);
        return file.Sha256;
    }

    internal static Store.Files.StoredFile Make(Premises premises, object what) => premises.Files.Make(s => JsonSerializer.Serialize(s, what, Json));

    internal static T Open<T>(Premises premises, string sha256)
    {
        using var file = premises.Files.Open(sha256);
        return JsonSerializer.Deserialize<T>(file, Json)!;
    }

    // Ids as bare numbers, moments as seconds and nanoseconds of the epoch: short, and nothing else reads these files.
    private sealed class IdConverter : System.Text.Json.Serialization.JsonConverterFactory
    {
        public override bool CanConvert(Type type) => type == typeof(PersonId) || type == typeof(ClassId) || type == typeof(ItemId) || type == typeof(ContactId) || type == typeof(Instant);

        public override System.Text.Json.Serialization.JsonConverter CreateConverter(Type type, JsonSerializerOptions options) =>
            type == typeof(Instant) ? new Moments() : type == typeof(PersonId) ? new Ids<PersonId>() : type == typeof(ItemId) ? new Ids<ItemId>() : type == typeof(ContactId) ? new Ids<ContactId>() : new Ids<ClassId>();

        private sealed class Ids<T> : System.Text.Json.Serialization.JsonConverter<T> where T : struct, IId<T>
        {
            public override T Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) => T.From(reader.GetInt64());

            public override void Write(Utf8JsonWriter writer, T value, JsonSerializerOptions options) => writer.WriteNumberValue(value.Value);
        }

        private sealed class Moments : System.Text.Json.Serialization.JsonConverter<Instant>
        {
            public override Instant Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) => Instant.FromUnixTimeTicks(reader.GetInt64());

            public override void Write(Utf8JsonWriter writer, Instant value, JsonSerializerOptions options) => writer.WriteNumberValue(value.ToUnixTimeTicks());
        }
    }
}
