using CsCheck;
using MathNet.Numerics.Statistics;
using SpringLoft.Core.Assignments;

namespace SpringLoft.Core.Tests.Assignments;

public class ScoreNumbersTests
{
    /// <summary>Common practice: mean, median and sample standard deviation of 2, 4, 4, 4, 5, 5, 7, 9, worked by hand (squares sum to 32).</summary>
    [Fact]
    public void Scores_are_one_population_and_nothing_is_rounded()
    {
        var numbers = ScoreNumbers.Of([2, 4, 4, 4, 5, 5, 7, 9]);

        (numbers.Count, numbers.Mean, numbers.Median).ShouldBe((8, 5.0, 4.5));
        numbers.Deviation!.Value.ShouldBe(Math.Sqrt(32.0 / 7), 1e-12);
        ScoreNumbers.Of([3]).ShouldBe(new ScoreNumbers(1, 3, 3, null));
        ScoreNumbers.Of([]).ShouldBe(new ScoreNumbers(0, null, null, null));
    }

    /// <summary>Held against MathNet.Numerics 5.0.0, whose StandardDeviation is that of a sample (n − 1).</summary>
    [Fact]
    public void Mean_median_and_deviation_are_those_of_a_reference_library() => Gen.Int[0, 4000].Array[0, 300].Sample(quarters =>
    {
        double[] scores = [.. quarters.Select(q => q / 4.0)];
        var ours = ScoreNumbers.Of(scores);
        ours.Count.ShouldBe(scores.Length);
        if (scores.Length == 0) return;
        ours.Mean!.Value.ShouldBe(scores.Mean(), 1e-9);
        ours.Median!.Value.ShouldBe(scores.Median(), 1e-9);
        if (scores.Length > 1) ours.Deviation!.Value.ShouldBe(scores.StandardDeviation(), 1e-9);
    }, iter: 2000);
}
