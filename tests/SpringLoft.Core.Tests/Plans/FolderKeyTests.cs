using CsCheck;
using SpringLoft.Core.Plans;

namespace SpringLoft.Core.Tests.Plans;

/// <summary>No name that a person gave can be taken for a mark, or for the end of a part.</summary>
public class FolderKeyTests
{
    // Names as nasty as people and their computers make them.
    private static readonly Gen<string> AnyName = Gen.OneOf(Gen.String[Gen.Char["/:%25FA3wx-71é"], 0, 8], Any.Of("w1", "w3-2", "s17", "g7", "Clay", "Clay/l2", "x20260914", "%2F", "%"));

    private static readonly Gen<FolderMark?> AnyMark = Gen.OneOf(
        Gen.Const((FolderMark?)null), AnyName.Select(n => (FolderMark?)new FolderMark.Entry(n)), AnyName.Select(n => (FolderMark?)new FolderMark.Term(n)),
        Gen.Int[1, 60].Select(n => (FolderMark?)new FolderMark.Week(n)), Gen.Int[1, 60].Select(n => (FolderMark?)new FolderMark.Week(n, IsoDayOfWeek.Tuesday)),
        Gen.Int[0, 300].Select(n => (FolderMark?)new FolderMark.GoneWeek(new LocalDate(2026, 1, 1).PlusDays(n))), Gen.Long[1, 1000].Select(n => (FolderMark?)new FolderMark.Group(new(n))), Gen.Long[-3, 1000].Select(n => (FolderMark?)new FolderMark.Student(new(n))));

    private static readonly Gen<FolderKey> AnyKey = Gen.Select(AnyName, AnyMark).List[1, 4].Select(parts =>
        parts.Skip(1).Aggregate(FolderKey.Top(parts[0].Item1, parts[0].Item2), (k, p) => k.Below(p.Item1, p.Item2)));

    [Fact]
    public void What_is_written_is_read_back_part_by_part() => AnyKey.Sample(key => FolderKey.Parse(key.Text).Parts.ShouldBe(key.Parts), iter: 5000);

    [Fact]
    public void Two_keys_have_the_same_text_only_if_all_their_parts_are_the_same() => Gen.Select(AnyKey, AnyKey).Sample((a, b) =>
        (a.Text == b.Text).ShouldBe(a.Parts.SequenceEqual(b.Parts)), iter: 20_000);

    [Fact]
    public void What_is_inside_begins_with_the_text_and_a_slash() => Gen.Select(AnyKey, AnyName, AnyMark).Sample((key, line, mark) =>
    {
        var below = key.Below(line, mark);
        below.Text.ShouldStartWith($"{key.Text}/");
        below.Parent.ShouldBe(key);
    }, iter: 2000);

    [Theory]
    [InlineData("week:")]
    [InlineData("week:q3")]
    [InlineData("week:w")]
    [InlineData("week:w3-9")]
    [InlineData("week:w4294967299")]
    [InlineData("week:w99999999999999999999")]
    [InlineData("week:w03")]
    [InlineData("week:x20261301")]
    [InlineData("unit:eClay:w3")]
    [InlineData("unit:e%2f")]
    public void What_is_not_written_so_is_no_key(string text) => FolderKey.TryParse(text, out _).ShouldBeFalse();

    [Fact]
    public void Entries_called_like_weeks_and_like_folders_unfold_to_keys_of_their_own()
    {
        var plan = new FolderPlan("p", "", [new("u", "{entry}", Stands.EachEntry, Core.Workspaces.FolderRule.ClassViews, ["w1", "w2", "Clay", "Clay/l2"], [new("l2", "Inside", Stands.Once, Core.Workspaces.FolderRule.AsAbove, [], [])])]);

        var keys = PlanUnfolding.Unfold(plan, new([], [])).Select(f => f.Key).ToList();

        keys.Distinct().Count().ShouldBe(8);
        new WeekKeys(Calendars.Short, Calendars.Short with { Terms = [Calendars.Short.Terms[^1]] }).ShouldSatisfyAllConditions(m => keys.ForEach(k => m.Move(k).ShouldBe(k)));
    }
}
