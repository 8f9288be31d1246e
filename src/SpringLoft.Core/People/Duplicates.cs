namespace SpringLoft.Core.People;

/// <summary>Two people of the directory who may be one.</summary>
/// <param name="Near">How close their names are, by Jaro–Winkler, 0 to 1.</param>
/// <param name="Why">In words.</param>
public sealed record PossibleDuplicate(PersonId A, PersonId B, double Near, string Why);

/// <summary>
/// Finds people who may be one: close names (Jaro–Winkler 0.92 and up, either order) that nothing tells apart. Shown to a
/// person, never joined by the program alone. Source: docs/rules.md, "People and rosters".
/// </summary>
public static class Duplicates
{
    /// <summary>Pairs that may be one, the closest first.</summary>
    /// <param name="apart">Pairs of which a person said that they are two, the lower id first.</param>
    /// <param name="most">Most pairs.</param>
    public static IReadOnlyList<PossibleDuplicate> Find(IReadOnlyList<KnownPerson> people, IReadOnlySet<(PersonId, PersonId)> apart, int most)
    {
        var keys = people.Select(p => (Person: p, Forward: PersonName.SearchKey($"{p.Name.Given} {p.Name.Family}"), Backward: PersonName.SearchKey($"{p.Name.Family} {p.Name.Given}"))).ToList();
        // Close names begin alike; only those that do, in either order, are held against one another.
        var blocks = keys.SelectMany(k => new[] { (Block: Block(k.Forward), k), (Block: Block(k.Backward), k) }).Where(x => x.Block.Length > 0).ToLookup(x => x.Block, x => x.k);
        var seen = new HashSet<(PersonId, PersonId)>();
        var found = new List<PossibleDuplicate>();
        foreach (var block in blocks)
        {
            var here = block.DistinctBy(k => k.Person.Id).ToList();
            for (var i = 0; i < here.Count; i++)
                for (var j = i + 1; j < here.Count; j++)
                {
                    var (a, b) = here[i].Person.Id.Value < here[j].Person.Id.Value ? (here[i], here[j]) : (here[j], here[i]);
                    if (ToldApart(a.Person, b.Person, a.Forward == b.Forward) || apart.Contains((a.Person.Id, b.Person.Id)) || !seen.Add((a.Person.Id, b.Person.Id))) continue;
                    var near = Math.Max(Knowing.Similarity(a.Forward, b.Forward), Knowing.Similarity(a.Forward, b.Backward));
                    if (near >= Knowing.Close) found.Add(new(a.Person.Id, b.Person.Id, near, near >= 1 ? "the same name" : "close names"));
                }
        }
        return [.. found.OrderByDescending(f => f.Near).ThenBy(f => f.A.Value).ThenBy(f => f.B.Value).Take(most)];
    }

    // The records know both, and call them by two names or give each a number or another grade; or both have a grade, and not the same or the next.
    private static bool ToldApart(KnownPerson a, KnownPerson b, bool sameName) =>
        (a.RecordId is not null && b.RecordId is not null && a.RecordId != b.RecordId && !(sameName && a.Grade == b.Grade && (a.StudentNumber is null || b.StudentNumber is null))) ||
        (int.TryParse(a.Grade, out var x) && int.TryParse(b.Grade, out var y) && Math.Abs(x - y) > 1);

    private static string Block(string key) => key.Length < 3 ? key : key[..3];
}
