using CsCheck;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Assignments;

public class MarkSchemeTests
{
    private static readonly MarkScheme Letters = new("Letters", [new("A", 4), new("B", 3), new("C", 2), new("D", 1), new("E", 0)], []);
    private static readonly MarkScheme Done = new("complete / not yet", [new("complete", 1), new("not yet", 0)], []);
    private static readonly MarkScheme Rim = new(null, [], [new("Rim", [new("wild", 0), new("even", 2), new("fine", 4, "No wobble.")]), new("Glaze", [new("runs", 1), new("sits", 3)])]);
    private static readonly WorkFact Held = new(WorkState.HandedIn, 1, null);

    private static WorkSetting By(MarkScheme scheme) => new(ClassState.Open, true, true, scheme.FullMarks, Scheme: scheme);

    private static string Refused(Action act) => Should.Throw<RefusedException>(act).Refusal.Code;

    [Fact]
    public void Full_marks_are_the_highest_level_or_the_sum_of_the_highest() => (Letters.FullMarks, Done.FullMarks, Rim.FullMarks).ShouldBe((4, 1, 7));

    [Fact]
    public void A_mark_on_a_scale_is_one_of_its_levels()
    {
        WorkFlow.Mark(Held, 3, By(Letters)).Score.ShouldBe(3);
        Letters.NameOf(3).ShouldBe("B");
        Refused(() => WorkFlow.Mark(Held, 2.5m, By(Letters))).ShouldBe("mark-off-scale");
        Refused(() => WorkFlow.Mark(Held, 5, By(Letters))).ShouldBe("mark-off-scale");
        WorkFlow.Mark(Held with { Score = 3 }, null, By(Letters)).Score.ShouldBeNull();
        (Letters.PointsOf(" b "), Letters.PointsOf("F"), Done.PointsOf("NOT YET")).ShouldBe((3, null, 0));
    }

    [Fact]
    public void By_criteria_each_takes_a_level_and_the_mark_is_their_sum()
    {
        WorkFlow.MarkBy(Held, [2, 0], By(Rim)).ShouldBe(Held with { Score = 5, Chosen = "2 0" });
        foreach (var wrong in new int[][] { [], [2], [2, 2], [-1, 0], [3, 0], [0, 0, 0] }) Refused(() => WorkFlow.MarkBy(Held, wrong, By(Rim))).ShouldBe("criteria-missing");
        Refused(() => WorkFlow.Mark(Held, 5, By(Rim))).ShouldBe("mark-by-criteria");
        Refused(() => WorkFlow.MarkBy(Held, [0], By(Letters))).ShouldBe("assignment-no-criteria");
        WorkFlow.Mark(Held with { Score = 5, Chosen = "2 0" }, null, By(Rim)).ShouldBe(Held);
    }

    [Fact]
    public void What_was_returned_counts_with_its_levels_until_another_is_returned()
    {
        var back = WorkFlow.Return(WorkFlow.MarkBy(Held, [2, 0], By(Rim)), false, By(Rim));
        (back.Counts, back.CountsChosen, WorkFlow.IsDraft(back)).ShouldBe((5, "2 0", false));
        // The same sum by other levels is another mark.
        var anew = WorkFlow.MarkBy(back, [1, 1], By(Rim));
        (anew.Score, anew.Counts, anew.CountsChosen, WorkFlow.IsDraft(anew)).ShouldBe((5, 5, "2 0", true));
        WorkFlow.Mark(anew, null, By(Rim)).ShouldBe(back);
        WorkFlow.Return(anew, false, By(Rim)).CountsChosen.ShouldBe("1 1");
        var again = WorkFlow.HandIn(back, By(Rim));
        (again.Score, again.Chosen, again.CountsChosen).ShouldBe((null, null, "2 0"));
    }

    public static TheoryData<MarkScheme> Wrong =>
    [
        new(null, [], []),
        Letters with { Criteria = Rim.Criteria },
        Letters with { Scale = new('x', MarkScheme.MostName + 1) },
        Rim with { Criteria = [Rim.Criteria[0] with { Name = new('x', MarkScheme.MostName + 1) }] },
        Letters with { Levels = [new("A", 4)] },
        Letters with { Levels = [new("A", 4), new("a", 3)] },
        Letters with { Levels = [new("A", 4), new("B", 4)] },
        Letters with { Levels = [new("A", 4), new(" ", 3)] },
        Letters with { Levels = [new("A", -1), new("B", 3)] },
        Letters with { Levels = [new("A", 1.005m), new("B", 3)] },
        Letters with { Levels = [new("A", 0), new("B", 0.00m)] },
        Letters with { Levels = [new("A", 10_001), new("B", 0)] },
        Letters with { Levels = [.. Enumerable.Range(0, MarkScheme.MostLevels + 1).Select(n => new MarkLevel($"{n}", n))] },
        Rim with { Criteria = [Rim.Criteria[0], Rim.Criteria[0]] },
        Rim with { Criteria = [Rim.Criteria[0] with { Name = "" }] },
        Rim with { Criteria = [Rim.Criteria[0] with { Levels = [] }] },
        Rim with { Criteria = [Rim.Criteria[0] with { Levels = [new("a", 0), new("b", 0)] }] },
    ];

    [Theory]
    [MemberData(nameof(Wrong))]
    public void A_scheme_by_which_nobody_could_mark_is_refused(MarkScheme scheme) => Refused(() => scheme.Checked("scheme")).ShouldBe("scheme-wrong");

    [Fact]
    public void Good_ones_pass()
    {
        foreach (var s in new[] { Letters, Done, Rim }) s.Checked("scheme").ShouldBeSameAs(s);
        // Levels of a criterion may count the same: what they say differs.
        (Rim with { Criteria = [new("Care", [new("some", 1), new("much", 1)])] }).Checked("scheme");
    }

    [Fact]
    public void Words_may_be_mended_and_what_is_counted_may_not()
    {
        Letters.CountsAs(Letters with { Scale = "Others", Levels = [.. Letters.Levels.Select(l => l with { Name = l.Name + "!" })] }).ShouldBeTrue();
        Letters.CountsAs(Letters with { Levels = [.. Letters.Levels.Skip(1)] }).ShouldBeFalse();
        Rim.CountsAs(Rim with { Criteria = [Rim.Criteria[1], Rim.Criteria[0]] }).ShouldBeFalse();
        Rim.CountsAs(Rim with { Criteria = [Rim.Criteria[0]] }).ShouldBeFalse();
    }

    [Fact]
    public void What_is_kept_is_read_as_it_was() =>
        (from scale in Gen.Bool
         from levels in Gen.Select(Gen.String[1, 12], Gen.Int[0, 100], Gen.String[0, 20]).Array[2, 6]
         select (scale, levels)).Sample(x =>
        {
            List<MarkLevel> levels = [.. x.levels.Select(l => new MarkLevel(l.Item1, l.Item2 / 4m, l.Item3.Length == 0 ? null : l.Item3))];
            var scheme = x.scale ? new MarkScheme("s", levels, []) : new MarkScheme(null, [], [new("c", levels)]);
            var read = MarkScheme.Read(scheme.Write())!;
            return read.Scale == scheme.Scale && read.Levels.SequenceEqual(scheme.Levels) && read.Criteria.Zip(scheme.Criteria).All(c => c.First.Name == c.Second.Name && c.First.Levels.SequenceEqual(c.Second.Levels));
        });

    [Fact]
    public void Chosen_levels_are_read_as_they_were()
    {
        MarkScheme.ReadChosen(MarkScheme.WriteChosen([0, 12, 3])).ShouldBe([0, 12, 3]);
        MarkScheme.ReadChosen(null).ShouldBeNull();
    }

    [Theory]
    [InlineData("B", 3, null)]
    [InlineData("b", 3, null)]
    [InlineData("3", 3, null)]
    [InlineData("3,0", 3, null)]
    [InlineData("2.5", null, ScoreFault.OffScale)]
    [InlineData("F", null, ScoreFault.NoNumber)]
    public void Scores_from_elsewhere_are_levels_by_name_or_by_points(string cell, int? to, ScoreFault? fault)
    {
        var m = ScoreMatching.Match(new(["Test"], [new(2, null, "1011", null, null, [cell])]), [new(new(1), "Clay", new(11), null, "1011", null)], [new(new(1), new(101), "Test", 4, true, [], Letters)], (_, _) => null);
        m.Steps.Select(s => (decimal?)s.To).FirstOrDefault().ShouldBe(to);
        m.Findings.Select(f => (ScoreFault?)f.Fault).FirstOrDefault().ShouldBe(fault);
    }

    [Fact]
    public void A_sum_does_not_say_which_levels_so_it_comes_in_for_no_criteria()
    {
        MatchedScores Match(string cell) => ScoreMatching.Match(new(["Test"], [new(2, null, "1011", null, null, [cell])]), [new(new(1), "Clay", new(11), null, "1011", null)], [new(new(1), new(101), "Test", 7, true, [], Rim)],
            (_, _) => new(WorkState.Returned, 1, 5, 5, "2 0", "2 0"));
        Match("5").Same.ShouldBe(1, "what went out comes in again and changes nothing");
        Match("6").Findings.Single().Fault.ShouldBe(ScoreFault.ByCriteria);
    }
}
