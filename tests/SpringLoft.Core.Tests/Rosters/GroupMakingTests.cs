using CsCheck;
using SpringLoft.Core.Rosters;

namespace SpringLoft.Core.Tests.Rosters;

public class GroupMakingTests
{
    private static Groupable[] Students(params double?[] numbers) => [.. numbers.Select((x, i) => new Groupable(new(i + 1), x))];

    private static Groupable[] Students(int n) => [.. Enumerable.Range(1, n).Select(i => new Groupable(new(i), null))];

    private static GroupWish Wish(int? groups = null, int? size = null, int seed = 1, bool balance = false, (long, long)[]? together = null, (long, long)[]? apart = null) =>
        new(groups, size, seed, balance, [.. (together ?? []).Select(p => (new PersonId(p.Item1), new PersonId(p.Item2)))], [.. (apart ?? []).Select(p => (new PersonId(p.Item1), new PersonId(p.Item2)))]);

    [Fact]
    public void Everybody_is_in_one_group_and_groups_are_as_equal_as_can_be() => Gen.Select(Gen.Int[1, 40], Gen.Int[1, 12], Gen.Int[0, 1000]).Where(x => x.Item2 <= x.Item1).Sample(x =>
    {
        var made = GroupMaking.Make(Students(x.Item1), Wish(x.Item2, seed: x.Item3)).Groups;
        return made.SelectMany(g => g).Select(p => p.Value).Order().SequenceEqual(Enumerable.Range(1, x.Item1).Select(i => (long)i)) && made.Max(g => g.Count) - made.Min(g => g.Count) <= 1;
    });

    [Fact]
    public void The_same_seed_makes_the_same_groups_and_another_makes_others()
    {
        string Say(int seed) => string.Join("|", GroupMaking.Make(Students(20), Wish(4, seed: seed)).Groups.Select(g => string.Join(",", g.Select(p => p.Value))));

        Say(7).ShouldBe(Say(7));
        Enumerable.Range(0, 10).Select(Say).Distinct().Count().ShouldBeGreaterThan(5);
    }

    [Theory]
    [InlineData(20, 4, 5)]
    [InlineData(22, 4, 6)] // 5.5 goes to the even one
    [InlineData(3, 10, 1)]
    public void A_size_gives_about_so_many(int students, int size, int groups) => GroupMaking.Make(Students(students), Wish(size: size)).Groups.Count.ShouldBe(groups);

    // Balancing would put those two into one group: their numbers are the only ones that even the groups out.
    [Fact]
    public void Balancing_parts_no_pair_that_is_together_and_joins_none_that_is_apart() => Gen.Select(Gen.Int[0, 500], Gen.Double[0, 100].Array[12]).Sample((seed, numbers) =>
    {
        var made = GroupMaking.Make(Students([.. numbers.Select(x => (double?)x)]), Wish(4, seed: seed, balance: true, together: [(1, 2)], apart: [(3, 4), (4, 5), (5, 6), (6, 7), (7, 8), (8, 3), (3, 5)])).Groups;
        bool InOne(long a, long b) => made.Any(g => g.Contains(new(a)) && g.Contains(new(b)));
        return InOne(1, 2) && !InOne(3, 4) && !InOne(4, 5) && !InOne(5, 6) && !InOne(6, 7) && !InOne(7, 8) && !InOne(8, 3) && !InOne(3, 5);
    });

    [Fact]
    public void Pairs_are_kept_together_and_apart() => Gen.Int[0, 500].Sample(seed =>
    {
        var made = GroupMaking.Make(Students(12), Wish(4, seed: seed, together: [(1, 2), (2, 3)], apart: [(1, 4), (5, 6), (6, 7)])).Groups;
        long Of(long p) => made.ToList().FindIndex(g => g.Contains(new(p)));
        return Of(1) == Of(2) && Of(2) == Of(3) && Of(1) != Of(4) && Of(5) != Of(6) && Of(6) != Of(7);
    }, iter: 200);

    [Theory]
    [InlineData("more together than a group has", 4, new long[] { 1, 2, 2, 3, 3, 4 }, new long[0])]
    [InlineData("together and apart at once", 2, new long[] { 1, 2 }, new long[] { 1, 2 })]
    [InlineData("three apart in two groups", 2, new long[0], new long[] { 1, 2, 2, 3, 1, 3 })]
    public void What_cannot_be_done_is_said(string why, int groups, long[] together, long[] apart)
    {
        static (long, long)[] Pairs(long[] flat) => [.. flat.Chunk(2).Select(c => (c[0], c[1]))];

        Should.Throw<RefusedException>(() => GroupMaking.Make(Students(8), Wish(groups, together: Pairs(together), apart: Pairs(apart)))).Refusal.Code.ShouldBe("groups-impossible", why);
    }

    [Theory]
    [InlineData(0, 1)]
    [InlineData(3, 4)]
    [InlineData(3, 0)]
    public void So_many_groups_cannot_be(int students, int groups) => Should.Throw<RefusedException>(() => GroupMaking.Make(Students(students), Wish(groups))).Refusal.Code.ShouldBe("groups-size");

    /// <summary>Against every way there is to share out up to eight students: the best spread found by trying all.</summary>
    [Fact]
    public void Balanced_groups_are_nearly_as_even_as_the_best_of_all_ways() => Gen.Select(Gen.Int[4, 8], Gen.Int[2, 3], Gen.Double[0, 100].Array[8]).Sample(x =>
    {
        var students = Students([.. x.Item3.Take(x.Item1).Select(v => (double?)v)]);
        var made = GroupMaking.Make(students, Wish(x.Item2, seed: 3, balance: true));
        var best = Best(students, x.Item2);
        if (made.Spread!.Value < best - 1e-9) throw new InvalidOperationException("Better than the best: the spread is counted wrongly.");
        // Swaps from many beginnings find the best of so few nearly always; a tenth of the range is allowed.
        return made.Spread.Value <= best + 10;
    }, iter: 300);

    [Fact]
    public void Means_are_those_of_the_members_who_have_a_number()
    {
        var made = GroupMaking.Make(Students(10, 20, null, 30), Wish(1, balance: true));

        made.Means.ShouldBe([20.0]);
        made.Spread.ShouldBe(0);
    }

    private static double Best(Groupable[] students, int groups)
    {
        var n = students.Length;
        var best = double.PositiveInfinity;
        for (var code = 0; code < (int)Math.Pow(groups, n); code++)
        {
            var of = new int[n];
            for (int i = 0, c = code; i < n; i++, c /= groups) of[i] = c % groups;
            var sizes = Enumerable.Range(0, groups).Select(g => of.Count(o => o == g)).ToArray();
            if (sizes.Max() - sizes.Min() > 1) continue;
            var means = Enumerable.Range(0, groups).Select(g => Enumerable.Range(0, n).Where(i => of[i] == g).Average(i => students[i].Number!.Value)).ToArray();
            best = Math.Min(best, means.Max() - means.Min());
        }
        return best;
    }
}
