using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;

using static SpringLoft.Core.Tests.Plans.Keys;

namespace SpringLoft.Core.Tests.Plans;

public class PlanPuttingTests
{
    private static UnfoldedFolder Wanted(string key, string name, FolderRule rule = FolderRule.ClassViews, int position = 0, string? parent = null) => new(Key(key)!, Key(parent), name, rule, null, position, false);

    private static StandingFolder There(long id, string? key, string name, GivenFolder? given = null, FolderRule rule = FolderRule.ClassViews, bool binned = false, bool holds = false, long? parent = null) =>
        new(new(id), parent is { } p ? new FolderId(p) : null, Key(key), name, rule, 0, given ?? (key is null ? null : new(name, rule, 0)), binned, holds);

    private static IEnumerable<PutKind> Kinds(IReadOnlyList<UnfoldedFolder> wanted, params StandingFolder[] standing) => PlanPutting.Decide(wanted, standing).Select(s => s.Kind);

    [Fact]
    public void What_is_missing_is_added_and_what_is_as_it_should_be_is_not_listed() => Kinds([Wanted("a", "A"), Wanted("b", "B", position: 1)], There(1, "a", "A")).ShouldBe([PutKind.Add]);

    [Fact]
    public void What_the_plan_changed_and_the_teacher_did_not_is_changed() =>
        PlanPutting.Decide([Wanted("a", "A new", FolderRule.ClassAdds)], [There(1, "a", "A")]).ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(s => s.Kind.ShouldBe(PutKind.Change), s => s.Why.ShouldBe("called “A new” now; class adds now, class views before"));

    [Fact]
    public void What_the_teacher_changed_stays_and_is_told()
    {
        var renamed = There(1, "a", "Mine", new("A", FolderRule.ClassViews, 0));

        Kinds([Wanted("a", "A")], renamed).ShouldBeEmpty();
        PlanPutting.Decide([Wanted("a", "A new")], [renamed]).ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(s => s.Kind.ShouldBe(PutKind.KeepTeachers), s => s.Why.ShouldContain("“A new”"));
    }

    [Fact]
    public void A_folder_that_the_teacher_renamed_still_takes_the_plans_new_rule() =>
        Kinds([Wanted("a", "A", FolderRule.StaffOnly)], There(1, "a", "Mine", new("A", FolderRule.ClassViews, 0))).ShouldBe([PutKind.Change]);

    [Fact]
    public void Both_having_made_the_same_change_is_no_quarrel() => Kinds([Wanted("a", "B")], There(1, "a", "B", new("A", FolderRule.ClassViews, 0))).ShouldBeEmpty();

    [Fact]
    public void What_a_teacher_binned_stays_binned() => Kinds([Wanted("a", "A")], There(1, "a", "A", binned: true)).ShouldBe([PutKind.KeepTeachers]);

    [Fact]
    public void An_empty_folder_that_is_no_longer_asked_for_goes_and_a_full_one_stays()
    {
        Kinds([], There(1, "a", "A")).ShouldBe([PutKind.Remove]);
        Kinds([], There(1, "a", "A", holds: true)).ShouldBe([PutKind.KeepFull]);
        Kinds([], There(1, "a", "Mine", new("A", FolderRule.ClassViews, 0))).ShouldBe([PutKind.KeepTeachers]);
        Kinds([], There(1, null, "The teacher's own")).ShouldBeEmpty();
    }

    [Fact]
    public void A_folder_does_not_go_while_one_that_stays_stands_in_it() =>
        Kinds([Wanted("b", "B")], There(1, "a", "A"), There(2, "b", "B", parent: 1)).ShouldBe([PutKind.KeepFull]);

    [Fact]
    public void Put_to_a_class_of_another_plan_what_stands_under_that_name_is_taken_and_nothing_goes()
    {
        var standing = new[] { There(1, "x", "units"), There(2, "y", "Lines", parent: 1, rule: FolderRule.StaffOnly), There(3, "a", "Empty") };

        PlanPutting.DecideAnew([Wanted("a", "Units"), Wanted("b", "Lines", parent: "a"), Wanted("c", "Planks", parent: "a")], standing).Select(s => (s.Kind, s.Folder?.Value))
            .ShouldBe([(PutKind.Adopt, 1), (PutKind.Adopt, 2), (PutKind.Add, null)]);
    }

    [Fact]
    public void An_own_folder_is_taken_only_for_the_same_student() =>
        PlanPutting.DecideAnew([Wanted("a", "Umi") with { Student = new PersonId(1) }], [There(1, "x", "Umi") with { Student = new PersonId(2) }]).Single().Kind.ShouldBe(PutKind.Add);

    [Fact]
    public void What_was_renamed_by_the_teacher_takes_the_new_rule_and_says_both()
    {
        var steps = PlanPutting.Decide([Wanted("a", "Term papers", FolderRule.StaffOnly)], [There(1, "a", "Our papers", new("Papers", FolderRule.ClassViews, 0))]);

        steps.Select(s => (s.Kind, s.Takes)).ShouldBe([(PutKind.KeepTeachers, PlanTakes.Nothing), (PutKind.Change, new PlanTakes(null, FolderRule.StaffOnly, null))]);
    }

    [Theory]
    [InlineData(FolderRule.ClassViews, FolderRule.ClassViews, FolderRule.StaffOnly, true)]
    [InlineData(FolderRule.ClassAdds, FolderRule.ClassViews, FolderRule.StaffOnly, false)]
    [InlineData(FolderRule.ClassAdds, FolderRule.ClassViews, FolderRule.ClassViews, false)]
    [InlineData(FolderRule.StaffOnly, FolderRule.ClassViews, FolderRule.StaffOnly, false)]
    public void A_rule_is_taken_only_where_the_plan_changed_it_and_the_teacher_did_not(FolderRule stands, FolderRule given, FolderRule wanted, bool taken) =>
        PlanPutting.Decide([Wanted("a", "A", wanted)], [There(1, "a", "A", new("A", given, 0), stands)]).Any(s => s.Takes.Rule == wanted).ShouldBe(taken);

    [Fact]
    public void The_teachers_place_in_the_order_stays_and_an_untouched_one_follows_the_plan()
    {
        var moved = There(1, "a", "A") with { Position = 4 };

        PlanPutting.Decide([Wanted("a", "A", position: 2)], [moved]).ShouldNotContain(s => s.Takes.Position != null);
        PlanPutting.Decide([Wanted("a", "A", position: 2)], [There(1, "a", "A")]).ShouldHaveSingleItem().Takes.Position.ShouldBe(2);
    }

    [Fact]
    public void Another_groups_folder_is_not_taken_for_this_ones() =>
        PlanPutting.DecideAnew([Wanted("a", "Crew") with { Group = new GroupId(1) }], [There(1, null, "Crew") with { Group = new GroupId(2) }]).Single().Kind.ShouldBe(PutKind.Add);

    [Fact]
    public void An_empty_folder_whose_rule_the_teacher_changed_stays_when_the_plan_drops_it() =>
        Kinds([], There(1, "a", "A", new("A", FolderRule.ClassViews, 0), FolderRule.StaffOnly)).ShouldBe([PutKind.KeepTeachers]);
}
