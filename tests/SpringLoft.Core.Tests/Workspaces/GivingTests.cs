using CsCheck;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

public class GivingTests
{
    private static Way Way(params string[] names) => new([.. names.Select(n => new WayFolder(n, FolderRule.AsAbove))]);

    private static ThingToGive File(int index, string name, string same, params Way[] ways) => new(index, name, same, true, ways);

    private static readonly ReceivingFolder[] There = [new(new(1), null, "Papers"), new(new(2), new FolderId(1), "Term 1")];

    [Fact]
    public void A_thing_stands_at_the_same_place_by_the_names_of_the_folders_whatever_their_case()
    {
        var plan = Giving.Decide([File(0, "map.pdf", "m", Way("papers", "TERM 1"))], [], There, []);

        plan.Folders.ShouldBeEmpty();
        plan.Things.Single().Places.Single().In.ShouldBe(new FolderId(2));
    }

    [Fact]
    public void What_is_missing_on_the_way_is_made_once_for_all_that_need_it()
    {
        var plan = Giving.Decide([File(0, "a", "a", Way("Papers", "Term 2", "Maps")), File(1, "b", "b", Way("Papers", "Term 2"))], [], There, []);

        plan.Folders.Select(f => (f.Way, f.In, f.Parent)).ShouldBe([("Papers / Term 2", new FolderId(1), (int?)null), ("Papers / Term 2 / Maps", null, 0)]);
        plan.Things.Select(t => t.Places.Single().Made).ShouldBe([1, 0]);
    }

    [Fact]
    public void The_same_thing_is_not_doubled_and_another_of_its_name_is_told_apart()
    {
        var plan = Giving.Decide([File(0, "map.pdf", "m", Way("Papers")), File(1, "rules.pdf", "new", Way("Papers"))], [], There,
            [new(new(1), "the old map.pdf", "m"), new(new(1), "RULES.pdf", "old")]);

        plan.Things.Select(t => (t.Name, t.There)).ShouldBe([("map.pdf", true), ("rules (2).pdf", false)]);
    }

    [Fact]
    public void In_several_folders_it_is_added_only_where_it_is_missing()
    {
        var plan = Giving.Decide([File(0, "map.pdf", "m", Way("Papers"), Way("Papers", "Term 1"))], [], There, [new(new(1), "map.pdf", "m")]);

        plan.Things.Single().Places.Select(p => p.In).ShouldBe([new FolderId(2)]);
    }

    [Fact]
    public void A_folder_with_nothing_in_it_stands_all_the_same() =>
        Giving.Decide([], [Way("Quiet corner")], There, []).Folders.Single().Way.ShouldBe("Quiet corner");

    [Fact]
    public void Given_again_nothing_is_done_and_no_two_names_in_a_folder_are_alike()
    {
        var name = Any.Of("a", "A", "b.txt", "B.txt", "c");
        var way = Gen.Select(Any.Of("X", "x", "Y"), Any.Of("P", "Q", ""), (a, b) => b.Length == 0 ? Way(a) : Way(a, b));
        Gen.Select(name, Any.Of("1", "2", "3"), way.List[1, 2]).List[0, 8].Sample(list =>
        {
            var things = list.Select((x, i) => File(i, x.Item1, x.Item2, [.. x.Item3])).ToList();
            var first = Giving.Decide(things, [], There, []);
            var ids = first.Folders.Select((_, i) => new FolderId(100 + i)).ToList();
            ReceivingFolder[] folders = [.. There, .. first.Folders.Select((f, i) => new ReceivingFolder(ids[i], f.Parent is { } p ? ids[p] : f.In, f.Name))];
            var stands = first.Things.Where(t => !t.There).SelectMany(t => t.Places.Select(p => new ReceivingThing(p.In ?? ids[p.Made!.Value], t.Name, things[t.Index].Same))).ToList();

            stands.GroupBy(s => (s.Folder, SafeName.Key(s.Name))).ShouldAllBe(g => g.Count() == 1);
            folders.GroupBy(f => (f.Parent, SafeName.Key(f.Name))).ShouldAllBe(g => g.Count() == 1);
            var again = Giving.Decide(things, [], folders, stands);
            again.Folders.ShouldBeEmpty();
            again.Things.ShouldAllBe(t => t.There);
        }, iter: 2000);
    }
}
