using CsCheck;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Plans;

public class OutlineMergeTests
{
    private static readonly Dictionary<int, MergeSide> Nothing = [];
    private static readonly OutlineLine[] Was = [Line("l1", "Papers"), Line("l2", "Units", 0, "Clay", "Glass"), Line("l3", "Notes", 1), Line("l4", "Own work")];

    private static OutlineLine Line(string? key, string name, int depth = 0, params string[] entries) => new(key, depth, name, entries.Length > 0 ? Stands.EachEntry : Stands.Once, FolderRule.ClassViews, entries);

    private static string[] Told(IReadOnlyList<OutlineLine>? lines) => [.. lines.ShouldNotBeNull().Select(l => $"{l.Key}:{l.NamePattern}{(l.Entries is { Count: > 0 } e ? $" ({string.Join(", ", e)})" : "")}")];

    [Fact]
    public void Lines_that_each_changed_alone_are_both_in()
    {
        OutlineLine[] mine = [Was[0] with { NamePattern = "Term papers" }, .. Was[1..]];
        OutlineLine[] theirs = [.. Was[..3], Was[3] with { Rule = FolderRule.OneEach }, Line(null, "Photos")];

        var (_, open, lines) = OutlineMerge.Merge(Was, mine, theirs, Nothing);

        open.ShouldBe(0);
        Told(lines).ShouldBe(["l1:Term papers", "l2:Units (Clay, Glass)", "l3:Notes", "l4:Own work", ":Photos"]);
        lines![3].Rule.ShouldBe(FolderRule.OneEach);
    }

    [Fact]
    public void A_list_that_both_changed_is_for_a_person_and_both_of_it_are_two_lines()
    {
        OutlineLine[] mine = [Was[0], Line("l2", "Units", 0, "Clay", "Glass", "Paper"), .. Was[2..]];
        OutlineLine[] theirs = [Was[0], Line("l2", "Units", 0, "Clay"), .. Was[2..]];

        var (chunks, open, lines) = OutlineMerge.Merge(Was, mine, theirs, Nothing);
        (open, lines).ShouldBe((1, null));
        var place = chunks.ToList().FindIndex(c => c.Kind == MergeKind.Conflict);

        Told(OutlineMerge.Merge(Was, mine, theirs, new Dictionary<int, MergeSide> { [place] = MergeSide.Theirs }).Lines)[1].ShouldBe("l2:Units (Clay)");
        var both = Told(OutlineMerge.Merge(Was, mine, theirs, new Dictionary<int, MergeSide> { [place] = MergeSide.Both }).Lines);
        both[1..3].ShouldBe(["l2:Units (Clay, Glass, Paper)", ":Units (Clay)"]);
    }

    [Fact]
    public void Whatever_two_make_of_a_plan_no_key_stands_twice_and_nothing_is_left_out()
    {
        var line = Gen.Select(Gen.Int[0, 6], Any.Of("A", "B", "C")).Select((k, n) => Line(k == 0 ? null : $"l{k}", n));
        var outline = line.List[0, 7].Select(l => (IReadOnlyList<OutlineLine>)[.. l.DistinctBy(x => x.Key ?? Guid.NewGuid().ToString())]);
        Gen.Select(outline, outline, outline, Any.Of(MergeSide.Mine, MergeSide.Theirs, MergeSide.Both)).Sample((was, mine, theirs, side) =>
        {
            var (chunks, _, _) = OutlineMerge.Merge(was, mine, theirs, Nothing);
            var (_, open, lines) = OutlineMerge.Merge(was, mine, theirs, Enumerable.Range(0, chunks.Count).ToDictionary(i => i, _ => side));
            open.ShouldBe(0);
            lines.ShouldNotBeNull().Select(l => l.Key).OfType<string>().ShouldBeUnique();
            chunks.SelectMany(c => c.Mine).Select(l => l.NamePattern).ShouldBe(mine.Select(l => l.NamePattern));
            chunks.SelectMany(c => c.Theirs).Select(l => l.NamePattern).ShouldBe(theirs.Select(l => l.NamePattern));
        }, iter: 3000);
    }
}
