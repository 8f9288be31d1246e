using CsCheck;
using SpringLoft.Core.Closing;

namespace SpringLoft.Core.Tests.Closing;

public class PackageRoundTests
{
    private static readonly LocalDate Today = new(2027, 9, 1);

    [Theory]
    [InlineData(0, 0)]
    [InlineData(1, 1)]
    [InlineData(30, 1)]
    [InlineData(31, 2)]
    [InlineData(3000, 100)]
    public void As_many_a_day_as_close_the_round_in_a_month(int packages, int aDay) => PackageRound.ADay(packages).ShouldBe(aDay);

    [Fact]
    public void Those_that_were_read_longest_ago_come_first() =>
        PackageRound.Today([("a", Today.PlusDays(-3)), ("b", Today.PlusDays(-40)), ("c", Today.PlusDays(-9))], Today).ShouldBe(["b"]);

    [Fact]
    public void What_was_read_today_counts_for_today() => PackageRound.Today([("a", Today), ("b", Today.PlusDays(-40))], Today).ShouldBeEmpty();

    // Whatever the round begins with, however classes come to the loft meanwhile: on no evening is one unread for longer than a month and what came late.
    [Fact]
    public void After_a_month_of_days_each_has_been_read() => Gen.Select(Gen.Int[1, 200], Gen.Int[0, 60].Array[1, 200]).Sample((_, ages) =>
    {
        var read = ages.Select((age, i) => (i, Day: Today.PlusDays(-age))).ToDictionary(x => x.i, x => x.Day);
        for (var d = 0; d < PackageRound.Days; d++)
        {
            var day = Today.PlusDays(d);
            // In turns of one, as the clock does it.
            while (PackageRound.Today([.. read.Select(r => (r.Key, r.Value))], day) is [var next, ..]) read[next] = day;
        }
        read.Values.Min().ShouldBeGreaterThanOrEqualTo(Today);
    }, iter: 200);

    [Fact]
    public void A_package_is_whole_if_its_bag_is_and_all_of_the_class_is_in_it_wherever_it_stands()
    {
        PackageRound.FaultIn([], [("folders/Papers/a.txt", "aa")], ["zz", "aa"]).ShouldBeNull();
        PackageRound.FaultIn([], [], []).ShouldBeNull();
        PackageRound.FaultIn(["missing: data/a"], [], []).ShouldBe((PackageFault.Damaged, "missing: data/a"));
        PackageRound.FaultIn([], [("a", "aa"), ("b", "bb"), ("c", "cc"), ("d", "dd")], []).ShouldBe((PackageFault.Incomplete, "a; b; c; and 1 more"));
    }
}
