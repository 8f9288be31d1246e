using CsCheck;
using SpringLoft.Core.Naming;
using SpringLoft.Core.Rollover;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Rollover;

public class JoiningTests
{
    private readonly Joining joined = new();

    public JoiningTests() => joined.Next("6B");

    [Fact]
    public void What_is_the_same_in_two_classes_stands_once()
    {
        var papers = joined.Folder(null, "Papers", FolderRule.ClassViews);
        joined.Thing("plan.txt", "a").ShouldBeTrue();
        joined.Assignment("Coil pot", "roll it").ShouldBe(new(0, "Coil pot", true));

        joined.Next("6C");

        joined.Folder(null, "papers", FolderRule.ClassViews).ShouldBe(papers with { Anew = false });
        joined.Thing("Plan.txt", "a").ShouldBeFalse();
        joined.Assignment("Coil pot", "roll it").ShouldBe(new(0, "Coil pot", false));
    }

    [Fact]
    public void A_folder_that_others_see_is_not_the_same_though_its_name_is()
    {
        var answers = joined.Folder(null, "Answers", FolderRule.ClassViews);
        joined.Next("6C");

        var kept = joined.Folder(null, "Answers", FolderRule.StaffOnly);

        kept.ShouldSatisfyAllConditions(k => k.Anew.ShouldBeTrue(), k => k.At.ShouldNotBe(answers.At), k => k.Name.ShouldBe("Answers (6C)"));
        joined.Next("6D");
        joined.Folder(null, "Answers", FolderRule.StaffOnly).ShouldBe(kept with { Anew = false });
    }

    [Fact]
    public void A_folder_as_the_one_above_is_the_same_where_that_comes_to_the_same()
    {
        var inside = joined.Folder(joined.Folder(null, "Unit 1", FolderRule.ClassViews).At, "Papers", FolderRule.AsAbove);
        joined.Next("6C");
        var unit = joined.Folder(null, "Unit 1", FolderRule.ClassViews).At;

        joined.Folder(unit, "Papers", FolderRule.ClassViews).At.ShouldBe(inside.At);
        joined.Next("6D");
        joined.Folder(joined.Folder(null, "Unit 1", FolderRule.StaffOnly).At, "Papers", FolderRule.AsAbove).At.ShouldNotBe(inside.At);
    }

    [Fact]
    public void Assignments_of_one_title_that_ask_different_things_are_two()
    {
        joined.Assignment("Essay", "on clay").Title.ShouldBe("Essay");
        joined.Next("6C");
        joined.Assignment("Essay", "on glass").ShouldBe(new(1, "Essay (6C)", true));
        joined.Next("6D");
        joined.Assignment("Essay", "on glass").ShouldBe(new(1, "Essay (6C)", false));
        joined.Assignment("Essay (6C)", "on wool").Title.ShouldBe("Essay (6C) (2)");
    }

    [Fact]
    public void What_stands_twice_in_one_class_stands_twice_in_the_new_one()
    {
        joined.Thing("plan.txt", "a").ShouldBeTrue();
        joined.Thing("plan.txt", "a").ShouldBeTrue();
        joined.Assignment("Essay", "x").Anew.ShouldBeTrue();
        joined.Assignment("Essay", "x").ShouldBe(new(1, "Essay (2)", true));
        var first = joined.Folder(null, "Week 1", FolderRule.ClassViews);
        var second = joined.Folder(null, "Week 1", FolderRule.ClassViews);
        second.ShouldSatisfyAllConditions(s => s.At.ShouldNotBe(first.At), s => s.Name.ShouldBe("Week 1 (2)"));
    }

    // Whatever comes from where: names are one folder's each, and who sees what came stays as it was.
    [Fact]
    public void Names_stay_apart_and_nothing_is_seen_by_others() =>
        Gen.Select(Gen.Int[0, 5], Gen.Int[-1, 3], Gen.Int[0, 3]).Array[0, 12].Array[1, 4].Sample(classes =>
        {
            var joining = new Joining();
            var all = new Dictionary<int, (int? Above, string Name, FolderRule Holds)>();
            foreach (var (k, n) in classes.Select((k, n) => (k, n)))
            {
                joining.Next($"{n}");
                var mine = new List<(int At, FolderRule Holds)>();
                foreach (var (name, above, rule) in k)
                {
                    var parent = above >= 0 && above < mine.Count ? mine[above] : ((int At, FolderRule Holds)?)null;
                    FolderRule[] rules = [FolderRule.StaffOnly, FolderRule.ClassViews, FolderRule.ClassAdds, FolderRule.AsAbove];
                    var holds = rules[rule] != FolderRule.AsAbove ? rules[rule] : parent?.Holds ?? FolderRule.ClassViews;
                    var place = joining.Folder(parent?.At, $"f{name}", rules[rule]);
                    mine.Select(m => m.At).ShouldNotContain(place.At);
                    mine.Add((place.At, holds));
                    if (place.Anew) all.Add(place.At, (parent?.At, place.Name, holds));
                    all[place.At].ShouldBe((parent?.At, place.Name, holds));
                }
            }
            all.Values.GroupBy(f => (f.Above, SafeName.Key(f.Name))).ShouldAllBe(g => g.Count() == 1);
        });
}
