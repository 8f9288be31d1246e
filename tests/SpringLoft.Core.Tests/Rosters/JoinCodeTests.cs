using SpringLoft.Core.Rosters;

namespace SpringLoft.Core.Tests.Rosters;

public class JoinCodeTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 9, 7, 8, 0);

    [Fact]
    public void A_code_is_two_groups_of_four_that_nobody_takes_for_one_another()
    {
        var random = new Random(1);
        var made = Enumerable.Range(0, 2000).Select(_ => JoinCode.Make(random.Next)).ToList();

        made.ShouldAllBe(c => c.Length == 9 && c[4] == '-' && JoinCode.Read(c) == c);
        made.SelectMany(c => c).ShouldNotContain(x => "AEIOU0O1IL2Z5S8B".Contains(x, StringComparison.Ordinal));
        made.Distinct().Count().ShouldBe(2000);
    }

    [Theory]
    [InlineData("fhkm-3479", "FHKM-3479")]
    [InlineData(" FHKM 3479 ", "FHKM-3479")]
    [InlineData("fhkm3479", "FHKM-3479")]
    [InlineData("FHKM-347", null)]
    [InlineData("FHKM-34791", null)]
    [InlineData("FHKM-347O", null)]
    [InlineData("", null)]
    public void What_a_child_types_is_read_or_is_none(string typed, string? read) => JoinCode.Read(typed).ShouldBe(read);

    [Theory]
    [InlineData(1, null, 0, null)]
    [InlineData(0, null, 0, "code-expired")]
    [InlineData(-1, null, 0, "code-expired")]
    [InlineData(1, 3, 2, null)]
    [InlineData(1, 3, 3, "code-used-up")]
    public void It_lets_in_until_it_runs_out_and_no_more_than_may(int days, int? most, int used, string? code) => (JoinCode.Shut(new(Now + Duration.FromDays(days), most, used), Now)?.Code).ShouldBe(code);
}
