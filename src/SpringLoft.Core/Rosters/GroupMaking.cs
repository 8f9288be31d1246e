namespace SpringLoft.Core.Rosters;

/// <summary>A student who is to be put into a group.</summary>
/// <param name="Number">What groups are balanced by; null for one who has none.</param>
public sealed record Groupable(PersonId Id, double? Number);

/// <summary>How groups are to be made.</summary>
/// <param name="Groups">How many groups; null if their size is given.</param>
/// <param name="Size">How many in each, about; null if their number is given.</param>
/// <param name="Seed">The same seed makes the same groups of the same students.</param>
/// <param name="Balance">True if the groups' means of the number are to be as near one another as can be.</param>
/// <param name="Together">Pairs who are in one group.</param>
/// <param name="Apart">Pairs who are not.</param>
public sealed record GroupWish(int? Groups, int? Size, int Seed, bool Balance, IReadOnlyList<(PersonId, PersonId)> Together, IReadOnlyList<(PersonId, PersonId)> Apart);

/// <summary>Groups that were made.</summary>
/// <param name="Spread">The difference between the highest and the lowest mean; null where nothing is balanced.</param>
public sealed record MadeGroups(IReadOnlyList<IReadOnlyList<PersonId>> Groups, IReadOnlyList<double?> Means, double? Spread);

/// <summary>
/// Makes groups of a class: at random with a seed, as equal in size as can be, keeping pairs together or apart, and
/// balanced by a number by swapping until no swap makes it better, from several beginnings.
/// </summary>
public static class GroupMaking
{
    private const int Beginnings = 24;
    private const int Patience = 400;

    /// <summary>Makes them.</summary>
    /// <exception cref="RefusedException"><c>groups-size</c>; <c>groups-impossible</c> where the pairs can't all be had, with the reason.</exception>
    public static MadeGroups Make(IReadOnlyList<Groupable> students, GroupWish wish)
    {
        var n = students.Count;
        var count = wish.Groups ?? (wish.Size is { } size and > 0 ? Math.Max(1, (int)Math.Round((double)n / size)) : 0);
        if (n == 0) throw new RefusedException("groups-size", "There is nobody to put into groups.", "Enroll students first.", "groups");
        if (count < 1 || count > n) throw new RefusedException("groups-size", $"{n} students can't be put into {count} groups.", $"Make 1 to {n}.", wish.Groups is null ? "size" : "groups");
        var units = Units(students, wish.Together);
        var largest = (n + count - 1) / count;
        if (units.FirstOrDefault(u => u.Count > largest) is { } tooLarge)
            throw new RefusedException("groups-impossible", $"{tooLarge.Count} students are to be together, and a group has {largest} at the most.", "Make fewer, larger groups, or keep fewer together.", "together");
        var apart = Apart(students, units, wish.Apart);
        var random = new Random(wish.Seed);
        (int[] Of, double Spread)? best = null;
        for (var i = 0; i < Beginnings && (best is null || wish.Balance); i++)
        {
            if (Place(units, apart, count, n, random) is not { } of) continue;
            if (wish.Balance) Improve(students, units, apart, of, count, random);
            var spread = wish.Balance ? Spread(students, units, of, count) : 0;
            if (best is null || spread < best.Value.Spread) best = (of, spread);
        }
        if (best is null)
            throw new RefusedException("groups-impossible", $"{count} groups can't be made so that all pairs are kept apart{(wish.Together.Count > 0 ? " and together" : "")} as asked.", "Make more groups, or keep fewer apart.", "apart");
        var groups = Enumerable.Range(0, count).Select(g => (IReadOnlyList<PersonId>)[.. units.Where((_, u) => best.Value.Of[u] == g).SelectMany(u => u).Select(i => students[i].Id)]).ToList();
        var byId = students.ToDictionary(s => s.Id);
        var means = groups.Select(g => Mean([.. g.Select(p => byId[p])])).ToList();
        return new(groups, means, wish.Balance ? best.Value.Spread : null);
    }

    // Students who are to be together move as one.
    private static List<List<int>> Units(IReadOnlyList<Groupable> students, IReadOnlyList<(PersonId A, PersonId B)> together)
    {
        var at = students.Select((s, i) => (s.Id, i)).ToDictionary(x => x.Id, x => x.i);
        var parent = Enumerable.Range(0, students.Count).ToArray();
        int Root(int i) => parent[i] == i ? i : parent[i] = Root(parent[i]);
        foreach (var (a, b) in together) if (at.TryGetValue(a, out var x) && at.TryGetValue(b, out var y)) parent[Root(x)] = Root(y);
        return [.. Enumerable.Range(0, students.Count).GroupBy(Root).Select(g => g.ToList())];
    }

    private static HashSet<(int, int)> Apart(IReadOnlyList<Groupable> students, List<List<int>> units, IReadOnlyList<(PersonId A, PersonId B)> pairs)
    {
        var unitOf = units.SelectMany((u, i) => u.Select(s => (students[s].Id, i))).ToDictionary(x => x.Id, x => x.i);
        var apart = new HashSet<(int, int)>();
        foreach (var (a, b) in pairs)
        {
            if (!unitOf.TryGetValue(a, out var x) || !unitOf.TryGetValue(b, out var y)) continue;
            if (x == y) throw new RefusedException("groups-impossible", "Two students are to be together and apart at once.", "Take one of the two wishes away.", "apart");
            apart.Add((x, y));
            apart.Add((y, x));
        }
        return apart;
    }

    // Hardest first: those with most to be apart from, then the largest; tried on until it fits or patience ends.
    private static int[]? Place(List<List<int>> units, HashSet<(int, int)> apart, int count, int n, Random random)
    {
        var degree = apart.GroupBy(a => a.Item1).ToDictionary(g => g.Key, g => g.Count());
        var order = Enumerable.Range(0, units.Count).OrderBy(_ => random.Next()).OrderByDescending(u => degree.GetValueOrDefault(u)).ThenByDescending(u => units[u].Count).ToList();
        var of = Enumerable.Repeat(-1, units.Count).ToArray();
        var room = Enumerable.Range(0, count).Select(g => (n / count) + (g < n % count ? 1 : 0)).ToArray();
        var tries = 0;
        return Go(0) ? of : null;

        bool Go(int at)
        {
            if (at == order.Count) return true;
            var u = order[at];
            foreach (var g in Enumerable.Range(0, count).OrderBy(_ => random.Next()).ThenByDescending(g => room[g]).ToList())
            {
                if (room[g] < units[u].Count || Enumerable.Range(0, units.Count).Any(v => of[v] == g && apart.Contains((u, v)))) continue;
                of[u] = g;
                room[g] -= units[u].Count;
                if (Go(at + 1)) return true;
                of[u] = -1;
                room[g] += units[u].Count;
                if (++tries > Patience * units.Count) return false;
            }
            return false;
        }
    }

    private static void Improve(IReadOnlyList<Groupable> students, List<List<int>> units, HashSet<(int, int)> apart, int[] of, int count, Random random)
    {
        var now = Spread(students, units, of, count);
        for (var better = true; better;)
        {
            better = false;
            foreach (var (a, b) in Pairs(units.Count).OrderBy(_ => random.Next()))
            {
                if (of[a] == of[b] || units[a].Count != units[b].Count || Clash(a, of[b], b) || Clash(b, of[a], a)) continue;
                (of[a], of[b]) = (of[b], of[a]);
                var then = Spread(students, units, of, count);
                if (then < now - 1e-12) { now = then; better = true; }
                else (of[a], of[b]) = (of[b], of[a]);
            }
        }

        bool Clash(int u, int group, int but) => Enumerable.Range(0, units.Count).Any(v => v != but && of[v] == group && apart.Contains((u, v)));
    }

    private static IEnumerable<(int, int)> Pairs(int n) => Enumerable.Range(0, n).SelectMany(a => Enumerable.Range(a + 1, n - a - 1).Select(b => (a, b)));

    private static double Spread(IReadOnlyList<Groupable> students, List<List<int>> units, int[] of, int count)
    {
        var sums = new double[count];
        var numbers = new int[count];
        for (var u = 0; u < units.Count; u++)
            foreach (var s in units[u])
                if (students[s].Number is { } x) { sums[of[u]] += x; numbers[of[u]]++; }
        double high = double.NegativeInfinity, low = double.PositiveInfinity;
        for (var g = 0; g < count; g++)
            if (numbers[g] > 0) { high = Math.Max(high, sums[g] / numbers[g]); low = Math.Min(low, sums[g] / numbers[g]); }
        return high >= low ? high - low : 0;
    }

    private static double? Mean(IReadOnlyList<Groupable> group) => group.Where(s => s.Number is not null).Select(s => s.Number!.Value).ToList() is { Count: > 0 } numbers ? numbers.Average() : null;
}
