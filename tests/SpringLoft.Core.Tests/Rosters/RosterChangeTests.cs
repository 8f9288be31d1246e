using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Rosters;

public class RosterChangeTests
{
    private static RosterChange Joins(long k, long p) => new(ChangeKind.Joins, $"Family{p}, Given", $"Clay {k}", "on this roster in the school's records") { Person = new(p), Class = new(k), Role = ClassRole.Student };

    private static readonly RosterChange[] Shown = [Joins(1, 1), Joins(1, 2), Joins(2, 1), Joins(2, 2)];

    [Fact]
    public void What_was_shown_may_be_done_in_part_and_in_another_order()
    {
        RosterChange.AllStandOn(Shown, Shown).ShouldBeTrue();
        RosterChange.AllStandOn([Shown[1], Shown[3]], Shown).ShouldBeTrue();
        RosterChange.AllStandOn([.. Shown.Reverse()], Shown).ShouldBeTrue();
        RosterChange.AllStandOn([], Shown).ShouldBeTrue();
        RosterChange.AllStandOn([], []).ShouldBeTrue();
    }

    [Fact]
    public void Nothing_may_be_done_that_was_not_shown_just_so()
    {
        RosterChange.AllStandOn([.. Shown, Joins(3, 1)], Shown).ShouldBeFalse();
        RosterChange.AllStandOn([Joins(3, 1), .. Shown], Shown).ShouldBeFalse();
        RosterChange.AllStandOn([Shown[0] with { Role = ClassRole.CoTeacher }], Shown).ShouldBeFalse();
        RosterChange.AllStandOn([Shown[0] with { Kind = ChangeKind.Leaves }], Shown).ShouldBeFalse();
        RosterChange.AllStandOn([Shown[0] with { Kind = ChangeKind.Moves, FromClass = new(2) }], Shown).ShouldBeFalse();
        RosterChange.AllStandOn([Shown[0] with { Why = "for another reason" }], Shown).ShouldBeFalse();
        RosterChange.AllStandOn(Shown, []).ShouldBeFalse();
    }

    [Fact]
    public void How_somebody_is_called_now_and_what_is_held_makes_no_other_change() =>
        RosterChange.AllStandOn([Shown[0] with { Who = "Newname, Given", Holds = ["class:1"] }], Shown).ShouldBeTrue();

    [Fact]
    public void It_says_what_looking_each_one_up_says()
    {
        var random = new Random(7);
        for (var round = 0; round < 2000; round++)
        {
            RosterChange[] Some() => [.. Enumerable.Range(0, random.Next(8)).Select(_ => Joins(random.Next(3), random.Next(3)))];
            var (changes, shown) = (Some(), Some());

            RosterChange.AllStandOn(changes, shown).ShouldBe(changes.All(x => shown.Any(s => s.Key == x.Key)), $"round {round}");
        }
    }
}
