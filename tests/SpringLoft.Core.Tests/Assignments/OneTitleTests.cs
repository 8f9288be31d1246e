using SpringLoft.Core.Assignments;

namespace SpringLoft.Core.Tests.Assignments;

public class OneTitleTests
{
    private static readonly MarkScheme Letters = new("Letters", [new("A", 20), new("B", 15), new("C", 10)], []);
    private static readonly MarkScheme Others = new("Letters", [new("Good", 20), new("Fair", 15), new("Weak", 10)], []);

    [Fact]
    public void Sections_that_agree_are_one_population()
    {
        var title = OneTitle.Of([(20, Letters), (20, Letters)]);

        title.Points.ShouldBe(20);
        title.Levels.Select(l => l.Name).ShouldBe(["A", "B", "C"]);
        title.Population([20, 10, 15]).ShouldBe([10m, 15m, 20m]);
        title.Numbers([20, 10, 15]).ShouldSatisfyAllConditions(n => n.Count.ShouldBe(3), n => n.Mean.ShouldBe(15), n => n.Deviation.ShouldBe(5));
    }

    [Fact]
    public void Marks_out_of_different_totals_are_no_population()
    {
        var title = OneTitle.Of([(20, null), (40, null)]);

        (title.Points, title.Differ).ShouldBe((null, true));
        title.Numbers([18, 36]).ShouldBe(new ScoreNumbers(0, null, null, null));
    }

    [Fact]
    public void Levels_of_other_names_are_figures_and_still_one_population()
    {
        var title = OneTitle.Of([(20, Letters), (20, Others)]);

        title.Levels.ShouldBeEmpty();
        title.Numbers([20, 10]).Count.ShouldBe(2);
    }

    [Fact]
    public void What_has_no_points_has_no_figures_and_nothing_to_differ() => OneTitle.Of([(null, null), (null, null)]).ShouldSatisfyAllConditions(t => t.Differ.ShouldBeFalse(), t => t.Numbers([]).Count.ShouldBe(0));
}
