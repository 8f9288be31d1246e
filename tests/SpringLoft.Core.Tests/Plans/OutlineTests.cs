using CsCheck;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Plans;

public class OutlineTests
{
    private static OutlineLine Line(int depth, string? name, string? key = null, Stands stands = Stands.Once, params string[] entries) => new(key, depth, name, stands, FolderRule.ClassViews, entries);

    private static string Refused(params OutlineLine[] lines) => Should.Throw<RefusedException>(() => Outline.Make("p", "", lines, 1)).Refusal.Code;

    [Fact]
    public void The_shipped_plans_come_back_from_their_outlines_as_they_were()
    {
        foreach (var plan in ShippedPlans.All)
            Outline.Of(Outline.Make(plan.Name, plan.About, Outline.Of(plan), 1).Plan).ShouldBe(Outline.Of(plan), new Same());
    }

    private sealed class Same : IEqualityComparer<OutlineLine>
    {
        public bool Equals(OutlineLine? x, OutlineLine? y) => x! with { Entries = null } == y! with { Entries = null } && x.Entries!.SequenceEqual(y.Entries!);

        public int GetHashCode(OutlineLine obj) => obj.Depth;
    }

    [Fact]
    public void New_lines_get_keys_that_were_never_used_and_old_ones_keep_theirs()
    {
        var (plan, next) = Outline.Make("p", "", [Line(0, "A", "start"), Line(1, "B"), Line(0, "C")], 7);

        Outline.Of(plan).Select(l => l.Key).ShouldBe(["start", "l7", "l8"]);
        next.ShouldBe(9);
    }

    [Fact]
    public void What_is_wrong_with_a_line_is_refused_by_its_number()
    {
        Refused().ShouldBe("plan-empty");
        Refused(Line(0, "A"), Line(2, "B")).ShouldBe("plan-line-depth");
        Refused(Line(1, "A")).ShouldBe("plan-line-depth");
        Refused(Line(0, " ")).ShouldBe("plan-line-no-name");
        Refused(Line(0, "{grade}")).ShouldBe("pattern-unknown-placeholder");
        Refused(Line(0, "A", stands: Stands.EachEntry)).ShouldBe("plan-line-no-entries");
        Refused(Line(0, "{entry}", null, Stands.EachEntry, "Lines", "lines")).ShouldBe("plan-entry-twice");
        Refused(Line(0, "A", "k"), Line(0, "B", "k")).ShouldBe("plan-key-twice");
        Should.Throw<RefusedException>(() => Outline.Make("p", "", [Line(0, "A"), Line(0, "")], 1)).Refusal.What.ShouldStartWith("Line 2");
    }

    [Fact]
    public void A_plan_nested_40_deep_is_refused() => Refused([.. Enumerable.Range(0, 40).Select(d => Line(d, $"{d}"))]).ShouldBe("plan-too-deep");

    [Fact]
    public void A_pasted_list_keeps_its_shape_whatever_it_is_indented_with() =>
        Outline.Read("Units\n    01 Lines\n        Papers\n    02 Planks\n- Staff room\n\t* Notes\r\n\r\n").Select(l => (l.Depth, l.NamePattern))
            .ShouldBe([(0, "Units"), (1, "01 Lines"), (2, "Papers"), (1, "02 Planks"), (0, "Staff room"), (1, "Notes")]);

    [Fact]
    public void A_list_that_begins_indented_or_goes_back_half_a_step_is_read_all_the_same() =>
        Outline.Read("      A\n          B\n        C\n  D").Select(l => (l.Depth, l.NamePattern)).ShouldBe([(0, "A"), (1, "B"), (1, "C"), (0, "D")]);

    [Fact]
    public void Paths_of_a_dropped_tree_become_its_outline() =>
        Outline.OfPaths(["Term/Week 2/Papers", "Term/Week 1", "Staff"]).Select(l => (l.Depth, l.NamePattern))
            .ShouldBe([(0, "Staff"), (0, "Term"), (1, "Week 1"), (1, "Week 2"), (2, "Papers")]);

    [Fact]
    public void Whatever_is_pasted_makes_a_plan_or_is_refused_with_a_word() => Gen.String[Gen.Char["ab \t\n-*{}/<"], 0, 80].Sample(text =>
    {
        try { Outline.Make("p", "", [.. Outline.Read(text).Select(l => l with { NamePattern = l.NamePattern!.Replace("{", "", StringComparison.Ordinal) })], 1); }
        catch (RefusedException e) { e.Refusal.Code.ShouldBeOneOf("plan-empty", "plan-line-no-name", "plan-too-deep"); }
    });
}
