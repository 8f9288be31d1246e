using SpringLoft.Core.Rosters;

namespace SpringLoft.Core.Tests.Rosters;

public class MovingTests
{
    private static OwnPlace Place(long id, string? key, string path) => new(new(id), key is null ? null : SpringLoft.Core.Plans.FolderKey.Parse(key), path);

    private static readonly OwnPlace[] Old = [Place(1, "own:s7", "Students/Hall, Umi"), Place(2, "week3:s7", "Week 03/Hall, Umi"), Place(3, null, "Students/Hall, Umi/Sketches")];

    private static OwnThing Thing(long id, long folder) => new(new(id), $"thing {id}", new(folder));

    [Fact]
    public void Where_both_follow_one_plan_a_thing_goes_to_the_same_place_in_it_whatever_it_is_called()
    {
        var there = new[] { Place(11, "own:s7", "Own folders/Umi"), Place(12, "week3:s7", "Third week/Umi") };

        Moving.Decide(Old, [Thing(100, 2), Thing(101, 1)], there, samePlan: true).Select(c => (c.Item.Value, c.To!.Value.Value, c.ToPath)).ShouldBe([(100, 12, "Third week/Umi"), (101, 11, "Own folders/Umi")]);
    }

    [Fact]
    public void Keys_of_another_plan_mean_nothing_but_names_do()
    {
        var there = new[] { Place(11, "week3:s7", "Students/Hall, Umi"), Place(12, "own:s7", "WEEK 03/hall, umi") };

        Moving.Decide(Old, [Thing(100, 2)], there, samePlan: false).Single().To.ShouldBe(new FolderId(12));
    }

    [Fact]
    public void What_has_no_match_goes_to_the_first_own_folder_and_is_not_stranded() =>
        Moving.Decide(Old, [Thing(100, 3)], [Place(11, null, "Mine"), Place(12, null, "Mine too")], samePlan: true).Single().ShouldSatisfyAllConditions(c => c.To.ShouldBe(new FolderId(11)), c => c.From.ShouldBe("Students/Hall, Umi/Sketches"));

    [Fact]
    public void Without_an_own_folder_there_it_stays_and_says_so() => Moving.Decide(Old, [Thing(100, 1)], [], samePlan: true).Single().To.ShouldBeNull();
}
