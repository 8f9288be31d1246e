using F23.StringSimilarity;

namespace SpringLoft.Core.People;

/// <summary>A person of the directory, as far as knowing them again goes.</summary>
public sealed record KnownPerson(PersonId Id, string? RecordId, string? StudentNumber, string? Email, string UserName, PersonName Name, string? Grade);

/// <summary>What somebody says about a person: whatever of it is there.</summary>
/// <param name="Name">In the order given and family where that is known.</param>
/// <param name="NameOrderKnown">False where a name was written without saying which part is which.</param>
public sealed record PersonClaim(string? RecordId, string? StudentNumber, string? Email, string? UserName, PersonName? Name, bool NameOrderKnown, string? Grade);

/// <summary>How sure it is that a claim is about somebody of the directory.</summary>
public enum Knowledge
{
    /// <summary>One person, without doubt.</summary>
    Known,

    /// <summary>Two of the things said name two different people: a person has to settle it.</summary>
    Conflict,

    /// <summary>One of several, or a name that is only close.</summary>
    Possible,

    /// <summary>Nobody.</summary>
    Unknown,
}

/// <summary>Whom a claim is about.</summary>
/// <param name="Person">For <see cref="Knowledge.Known"/> alone.</param>
/// <param name="Candidates">For a conflict and a possibility; the likeliest first.</param>
/// <param name="Why">In words, for a person.</param>
/// <param name="ByName">It was the name alone, or name and grade, that they were known by, and nothing that only they have.</param>
public sealed record Recognised(Knowledge Knowledge, PersonId? Person, IReadOnlyList<PersonId> Candidates, string Why, bool ByName = false);

/// <summary>
/// Is this somebody we know? By record id, then student number, then e-mail, then user name: the first that decides,
/// decides; two of them naming two people is a conflict. Then by full name and grade. Close names are shown, never joined.
/// Source: docs/rules.md, "People and rosters".
/// </summary>
public sealed class Knowing
{
    /// <summary>Names this close or closer, by Jaro–Winkler, might be the same person.</summary>
    public const double Close = 0.92;

    /// <summary>Most people shown for a close name.</summary>
    public const int MostCandidates = 5;

    // The library's own prefix bonus is not Winkler's (it counts more than four letters); above this threshold it adds none.
    private static readonly JaroWinkler Jaro = new(threshold: 2);
    private readonly ILookup<string, KnownPerson> byRecord, byNumber, byEmail, byUserName;
    // Names are worked out only once somebody has to be known by one: where all have a record id nobody has.
    private readonly Lazy<(KnownPerson Person, string Forward, string Backward)[]> keys;
    private readonly Lazy<ILookup<string, KnownPerson>> byName, byEitherOrder;

    /// <summary>Over the people of the directory who might be meant.</summary>
    public Knowing(IReadOnlyList<KnownPerson> people)
    {
        ILookup<string, KnownPerson> By(Func<KnownPerson, string?> of) =>
            people.Where(p => !string.IsNullOrWhiteSpace(of(p))).ToLookup(p => of(p)!.Trim(), StringComparer.OrdinalIgnoreCase);

        byRecord = By(p => p.RecordId);
        byNumber = By(p => p.StudentNumber);
        byEmail = By(p => p.Email);
        byUserName = By(p => p.UserName);
        keys = new(() => [.. people.Select(p => (p, Key(p.Name.Given, p.Name.Family), Key(p.Name.Family, p.Name.Given)))]);
        byName = new(() => keys.Value.ToLookup(k => k.Forward, k => k.Person, StringComparer.Ordinal));
        byEitherOrder = new(() => keys.Value.SelectMany(k => new[] { (Key: k.Forward, k.Person), (Key: k.Backward, k.Person) }).ToLookup(x => x.Key, x => x.Person, StringComparer.Ordinal));
    }

    /// <summary>Whom the claim is about.</summary>
    /// <param name="closeNames">False where names that are only close are not looked for: over a whole school that takes long.</param>
    public Recognised Find(PersonClaim claim, bool closeNames = true)
    {
        (string What, string? Said, ILookup<string, KnownPerson> By)[] ways =
            [("record id", claim.RecordId, byRecord), ("student number", claim.StudentNumber, byNumber), ("e-mail", claim.Email, byEmail), ("user name", claim.UserName, byUserName)];
        KnownPerson? first = null;
        List<string> named = [];
        List<PersonId>? others = null;
        foreach (var (what, said, by) in ways)
        {
            if (string.IsNullOrWhiteSpace(said) || !by.Contains(said.Trim())) continue;
            named.Add(what);
            foreach (var p in by[said.Trim()])
            {
                first ??= p;
                if (p.Id != first.Id) (others ??= []).Add(p.Id);
            }
        }
        if (others is not null) return new(Knowledge.Conflict, null, [first!.Id, .. others.Distinct()], $"{string.Join(", ", named.SkipLast(1))}{(named.Count > 1 ? " and " : "")}{named[^1]} name{(named.Count > 1 ? "" : "s")} different people");
        if (first is not null) return new(Knowledge.Known, first.Id, [], $"by {named[0]}");
        return claim.Name is { } name ? ByName(name, claim, closeNames) : new(Knowledge.Unknown, null, [], ways.FirstOrDefault(w => !string.IsNullOrWhiteSpace(w.Said)) is { Said: not null } way ? $"the directory has nobody with the {way.What} {way.Said.Trim()}" : "nothing is said to know them by");
    }

    private Recognised ByName(PersonName name, PersonClaim claim, bool closeNames)
    {
        var key = Key(name.Given, name.Family);
        // Two people of one name, each with a number of their own, are two people.
        var named = (claim.NameOrderKnown ? byName : byEitherOrder).Value[key].DistinctBy(p => p.Id).Where(p => !Contradicts(claim.StudentNumber, p.StudentNumber)).ToList();
        var same = named.Where(p => !Contradicts(claim.RecordId, p.RecordId)).ToList();
        var ofGrade = string.IsNullOrWhiteSpace(claim.Grade) ? same : [.. same.Where(p => string.Equals(p.Grade, claim.Grade.Trim(), StringComparison.OrdinalIgnoreCase))];
        if (ofGrade.Count == 1) return new(Knowledge.Known, ofGrade[0].Id, [], string.IsNullOrWhiteSpace(claim.Grade) ? "by name" : "by name and grade", ByName: true);
        if (ofGrade.Count > 1) return new(Knowledge.Possible, null, [.. ofGrade.Take(MostCandidates).Select(p => p.Id)], $"{ofGrade.Count} people have this name");
        if (same.Count > 0) return new(Knowledge.Possible, null, [.. same.Take(MostCandidates).Select(p => p.Id)], $"the name is there, but in grade {string.Join(", ", same.Select(p => p.Grade ?? "–").Distinct())}");
        // Records that know one child twice say no more than records that know two children of one name.
        var twice = named.Where(p => string.Equals(p.Grade, claim.Grade?.Trim(), StringComparison.OrdinalIgnoreCase)).Take(MostCandidates).Select(p => p.Id).ToList();
        if (twice.Count > 0) return new(Knowledge.Possible, null, twice, $"the name is there {(claim.Grade is null ? "" : "in that grade ")}under another record, and no number tells them apart");
        if (!closeNames) return new(Knowledge.Unknown, null, [], "nobody of that name is in the directory");
        var close = keys.Value.Select(k => (k.Person, Near: Math.Max(Similarity(key, k.Forward), Similarity(key, k.Backward)))).Where(x => x.Near >= Close).OrderByDescending(x => x.Near).Take(MostCandidates).ToList();
        return close.Count > 0 ? new(Knowledge.Possible, null, [.. close.Select(x => x.Person.Id)], "a close name") : new(Knowledge.Unknown, null, [], "nobody of that name is in the directory");
    }

    /// <summary>How close two names are, from 0 to 1, by Jaro–Winkler: a tenth of what is missing for each of up to four letters that begin alike.</summary>
    public static double Similarity(string a, string b)
    {
        var jaro = Jaro.Similarity(a, b);
        var alike = a.Zip(b).Take(4).TakeWhile(x => x.First == x.Second).Count();
        return jaro + (0.1 * alike * (1 - jaro));
    }

    private static bool Contradicts(string? said, string? has) =>
        !string.IsNullOrWhiteSpace(said) && !string.IsNullOrWhiteSpace(has) && !string.Equals(said.Trim(), has.Trim(), StringComparison.OrdinalIgnoreCase);

    private static string Key(string first, string second) => PersonName.SearchKey($"{first} {second}");
}
