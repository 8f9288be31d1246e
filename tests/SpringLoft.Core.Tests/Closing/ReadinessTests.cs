using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Closing;

public class ReadinessTests
{
    private static readonly ClosingFacts Tidy = new(ClassState.Open, 27, 0, 0, 0, 0, 0, true, false);

    private static FindingLevel Overall(ClosingFacts f) => Readiness.Overall(Readiness.Assess(f));

    [Fact]
    public void A_tidy_class_is_ready() => Overall(Tidy).ShouldBe(FindingLevel.Ready);

    [Theory]
    [InlineData(1, 0, "held-marked")]
    [InlineData(0, 1, "held-unmarked")]
    public void Work_that_is_not_returned_blocks(int marked, int unmarked, string code)
    {
        var findings = Readiness.Assess(Tidy with { HeldMarked = marked, HeldUnmarked = unmarked });

        findings[0].ShouldSatisfyAllConditions(f => f.Code.ShouldBe(code), f => f.Level.ShouldBe(FindingLevel.Blocks), f => f.Mend.ShouldNotBe(Mend.None));
        findings.ShouldNotContain(f => f.Code == "all-returned");
    }

    [Fact]
    public void What_is_untidy_wants_attention_and_does_not_block()
    {
        Overall(Tidy with { Unfiled = 1 }).ShouldBe(FindingLevel.Attention);
        Overall(Tidy with { DraftAssignments = 1 }).ShouldBe(FindingLevel.Attention);
        Overall(Tidy with { UnsentWork = 1 }).ShouldBe(FindingLevel.Attention);
        Overall(Tidy with { NextYearMade = false }).ShouldBe(FindingLevel.Attention);
        Should.NotThrow(() => Readiness.CheckMayClose(Tidy with { Unfiled = 1, DraftAssignments = 1 }));
    }

    [Theory]
    [InlineData(ClassState.Archived, "archived")]
    [InlineData(ClassState.InPreparation, "not-open")]
    public void Only_an_open_class_is_closed(ClassState state, string code) => Readiness.Assess(Tidy with { State = state })[0].Code.ShouldBe(code);

    [Fact]
    public void A_second_run_is_refused_and_says_what_blocks()
    {
        var refusal = Should.Throw<RefusedException>(() => Readiness.CheckMayClose(Tidy with { RunGoing = true, HeldMarked = 2 })).Refusal;

        refusal.Code.ShouldBe("closing-blocked");
        refusal.What.ShouldContain("2 pieces of work");
        refusal.What.ShouldContain("closing run");
    }

    [Fact]
    public void The_gravest_findings_stand_first()
    {
        var levels = Readiness.Assess(Tidy with { HeldMarked = 1, Unfiled = 3 }).Select(f => f.Level).ToList();

        levels.OrderDescending().ShouldBe(levels);
    }

    [Fact]
    public void The_next_step_is_the_first_that_is_not_done()
    {
        ClosingSteps.Next(new Dictionary<ClosingStep, StepState>()).ShouldBe(ClosingStep.TakeHomes);
        ClosingSteps.Next(new Dictionary<ClosingStep, StepState> { [ClosingStep.TakeHomes] = StepState.Done, [ClosingStep.ArchivePackage] = StepState.Working })
            .ShouldBe(ClosingStep.ArchivePackage);
        ClosingSteps.Next(ClosingSteps.InOrder.ToDictionary(s => s, _ => StepState.Done)).ShouldBeNull();
    }

    [Fact]
    public void Every_kind_of_difference_of_a_package_is_named()
    {
        var expected = new Dictionary<string, string> { ["a"] = "1", ["b"] = "2", ["c"] = "3" };
        var found = new Dictionary<string, string> { ["a"] = "1", ["b"] = "x", ["d"] = "4" };

        PackageComparison.Differences(expected, found).ShouldBe(["different from the workspace: b", "missing from the package: c", "in the package but not in the workspace: d"]);
        PackageComparison.Differences(expected, expected).ShouldBeEmpty();
    }
}
