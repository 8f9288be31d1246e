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
        var was = new Dictionary<string, string> { ["w:w1"] = "Week 01", ["x"] = "Papers" };
        var will = new Dictionary<string, string> { ["w:w1"] = "Week 1", ["x"] = "Papers" };

        FolderCarry.NewName("Week 01", "w:w1", was, will).ShouldBe("Week 1");
        FolderCarry.NewName("Ropes week", "w:w1", was, will).ShouldBe("Ropes week");
        FolderCarry.NewName("Mine", null, was, will).ShouldBe("Mine");
        FolderCarry.NewName("Week 40", "w:w40", was, will).ShouldBe("Week 40");
    }
}
