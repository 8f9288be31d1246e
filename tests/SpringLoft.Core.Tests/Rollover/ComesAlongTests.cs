using SpringLoft.Core.Plans;
using SpringLoft.Core.Rollover;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Rollover;

public class ComesAlongTests
{
    private static readonly OldFolder[] Folders =
    [
        new(new(1), null, FolderRule.ClassViews, null, false),
        new(new(2), new(1), FolderRule.AsAbove, null, false),
        new(new(3), null, FolderRule.OneEach, new PersonId(9), false),
        new(new(4), new(3), FolderRule.AsAbove, null, false),
        new(new(5), null, FolderRule.ClassViews, null, true),
    ];

    private static readonly OldItem[] Items =
    [
        new(new(1), [new(2)], false, false),
        new(new(2), [new(1)], true, false),
        new(new(3), [new(4)], false, false),
        new(new(4), [], false, false),
        new(new(5), [new(1)], false, true),
    ];

    private static ComesAlong Decide() => ComesAlong.Decide(Folders, Items, new(6, 1, 27, 1, 4, 120));

    private static (int Comes, int Stays) Line(string what) => Decide().Lines.Where(l => l.What == what).Select(l => (l.Comes, l.Stays)).Single();

    [Fact]
    public void The_set_up_comes_and_own_folders_with_all_in_them_stay() => Decide().Folders.Select(f => f.Value).ShouldBe([1, 2]);

    [Fact]
    public void Things_of_staff_come_and_those_of_students_do_not() => Decide().Items.Select(i => i.Value).ShouldBe([1, 4]);

    [Theory]
    [InlineData("Folders", 2, 2)]
    [InlineData("Files, links and pages of staff", 2, 1)]
    [InlineData("Assignments", 6, 0)]
    [InlineData("Students", 0, 27)]
    [InlineData("Co-teachers", 0, 1)]
    [InlineData("Notices", 0, 4)]
    [InlineData("Pieces of work", 0, 120)]
    [InlineData("Files of students", 0, 1)]
    [InlineData("Things in the bin", 0, 3)]
    public void Every_kind_is_counted_as_coming_or_staying(string what, int comes, int stays) => Line(what).ShouldBe((comes, stays));

    [Fact]
    public void A_folder_whose_name_the_plan_gave_takes_next_years_name_and_the_teachers_own_name_stays()
    {
        var was = new Dictionary<FolderKey, string> { [FolderKey.Parse("w:w1")] = "Week 01", [FolderKey.Parse("x")] = "Papers" };
        var will = new Dictionary<FolderKey, string> { [FolderKey.Parse("w:w1")] = "Week 1", [FolderKey.Parse("x")] = "Papers" };

        FolderCarry.NewName("Week 01", FolderKey.Parse("w:w1"), was, will).ShouldBe("Week 1");
        FolderCarry.NewName("Ropes week", FolderKey.Parse("w:w1"), was, will).ShouldBe("Ropes week");
        FolderCarry.NewName("Mine", null, was, will).ShouldBe("Mine");
        FolderCarry.NewName("Week 40", FolderKey.Parse("w:w40"), was, will).ShouldBe("Week 40");
    }

    [Fact]
    public void What_its_owner_may_not_copy_stays_and_is_told_by_itself()
    {
        var along = ComesAlong.Decide([], [new(new(1), [], false, false, MayCopy: false), new(new(2), [], false, false)], new(0, 0, 0, 0, 0, 0));

        along.Items.ShouldBe([new ItemId(2)]);
        along.Lines.Single(l => l.What == "Things without the right to copy").Stays.ShouldBe(1);
    }

    [Theory]
    [InlineData(ItemKind.File)]
    [InlineData(ItemKind.Link)]
    [InlineData(ItemKind.Page)]
    public void What_is_not_ticked_stays(ItemKind kind)
    {
        var choice = new CarryChoice(Files: kind != ItemKind.File, Links: kind != ItemKind.Link, Pages: kind != ItemKind.Page);
        OldItem[] items = [new(new(1), [], false, false, ItemKind.File), new(new(2), [], false, false, ItemKind.Link), new(new(3), [], false, false, ItemKind.Page)];

        ComesAlong.Decide([], items, new(0, 0, 0, 0, 0, 0), choice).Items.ShouldBe(items.Where(i => i.Kind != kind).Select(i => i.Id));
    }

    [Fact]
    public void Without_folders_what_stands_in_them_stays_too()
    {
        var along = ComesAlong.Decide([new(new(1), null, FolderRule.ClassViews, null, false)], [new(new(1), [new(1)], false, false), new(new(2), [], false, false)], new(3, 0, 0, 0, 0, 0, 2), new(Folders: false, Assignments: false, Groups: false));

        along.Folders.ShouldBeEmpty();
        along.Items.ShouldBe([new ItemId(2)]);
        along.Lines.Single(l => l.What == "Assignments").ShouldSatisfyAllConditions(l => l.Comes.ShouldBe(0), l => l.Stays.ShouldBe(3));
        along.Lines.Single(l => l.What == "Groups").Stays.ShouldBe(2);
    }

    [Fact]
    public void Parity_is_even_only_where_every_difference_has_a_reason()
    {
        Parity.Line("Folders", 112, 30, [(87, "own folders")], [(5, "of the plan")]).ShouldSatisfyAllConditions(p => p.Even.ShouldBeTrue(), p => p.Explained.ShouldBe(["87 fewer: own folders", "5 more: of the plan"]));
        Parity.Line("Assignments", 6, 5, [], []).Even.ShouldBeFalse();
        Parity.Line("Assignments", 6, 6, [(0, "nothing")], []).Explained.ShouldBeEmpty();
    }
}
