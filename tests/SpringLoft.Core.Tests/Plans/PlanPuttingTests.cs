using CsCheck;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Plans;

public class PlanPuttingTests
{
    private static UnfoldedFolder Wanted(string key, string name, FolderRule rule = FolderRule.ClassViews, int position = 0, string? parent = null) => new(key, parent, name, rule, null, position, false);

    private static StandingFolder There(long id, string? key, string name, GivenFolder? given = null, FolderRule rule = FolderRule.ClassViews, bool binned = false, bool holds = false, long? parent = null) =>
        new(new(id), parent is { } p ? new FolderId(p) : null, key, name, rule, 0, given ?? (key is null ? null : new(name, rule, 0)), binned, holds);

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

    // The state after the list was carried out, as the store carries it out.
    private static StandingFolder[] After(IReadOnlyList<UnfoldedFolder> wanted, IReadOnlyList<StandingFolder> standing)
    {
        var steps = PlanPutting.Decide(wanted, standing);
        var all = standing.ToDictionary(f => f.Id);
        var byKey = standing.Where(f => f.PlanKey is not null).ToDictionary(f => f.PlanKey!, f => f.Id);
        var next = 1000;
        foreach (var s in steps)
        {
            if (s.Kind == PutKind.Add)
            {
                var id = new FolderId(next++);
                byKey[s.Wanted!.Key] = id;
                all[id] = new(id, s.Wanted.ParentKey is { } p ? byKey[p] : null, s.Wanted.Key, s.Wanted.Name, s.Wanted.Rule, s.Wanted.Position, new(s.Wanted.Name, s.Wanted.Rule, s.Wanted.Position), false, false);
            }
            else if (s.Kind == PutKind.Remove) all.Remove(s.Folder!.Value);
            else if (s.Wanted is { } w && s.Folder is { } id)
            {
                var f = all[id];
                var g = f.Given ?? new(f.Name, f.Rule, f.Position);
                var changes = s.Kind == PutKind.Change;
                all[id] = f with
                {
                    Name = changes && f.Name == g.Name ? w.Name : f.Name,
                    Rule = changes && f.Rule == g.Rule ? w.Rule : f.Rule,
                    Position = changes && f.Position == g.Position ? w.Position : f.Position,
                    Given = new(w.Name, w.Rule, w.Position),
                };
            }
        }
        return [.. all.Values];
    }

    private static readonly Gen<List<UnfoldedFolder>> AnyWanted = Gen.Select(Gen.Int[0, 2], Gen.Enum<FolderRule>(), Gen.Int[0, 3]).List[0, 6].Select(list =>
        list.Select((x, i) => Wanted($"k{i}", $"N{x.Item1}-{i}", x.Item2, x.Item3)).ToList());

    private static readonly Gen<List<StandingFolder>> AnyStanding = Gen.Select(Gen.Int[0, 3], Gen.Enum<FolderRule>(), Gen.Bool, Gen.Bool, Gen.Int[0, 2]).List[0, 6].Select(list =>
        list.Select((x, i) => There(i + 1, x.Item5 == 2 ? null : $"k{i}", $"N{x.Item1}-{i}", x.Item5 == 2 ? null : new($"N0-{i}", FolderRule.ClassViews, 0), x.Item2, x.Item3, x.Item4)).ToList());

    [Fact]
    public void Put_a_second_time_nothing_is_added_changed_or_removed() => Gen.Select(AnyWanted, AnyStanding).Sample((wanted, standing) =>
        PlanPutting.Decide(wanted, After(wanted, standing)).ShouldAllBe(s => s.Kind == PutKind.KeepTeachers || s.Kind == PutKind.KeepFull), iter: 3000);

    [Fact]
    public void A_folder_with_anything_in_it_never_goes() => Gen.Select(AnyWanted, AnyStanding).Sample((wanted, standing) =>
        After(wanted, standing).Select(f => f.Id).ShouldBeSubsetOfReverse(standing.Where(f => f.Holds).Select(f => f.Id)), iter: 3000);

    [Fact]
    public void Nothing_that_the_teacher_named_is_renamed() => Gen.Select(AnyWanted, AnyStanding).Sample((wanted, standing) =>
    {
        var after = After(wanted, standing).ToDictionary(f => f.Id);
        foreach (var f in standing.Where(f => f.Given is null || f.Given.Name != f.Name))
            if (after.TryGetValue(f.Id, out var now)) now.Name.ShouldBe(f.Name);
    }, iter: 3000);
}

internal static class SetAssertions
{
    /// <summary>All of the others are among these.</summary>
    internal static void ShouldBeSubsetOfReverse<T>(this IEnumerable<T> these, IEnumerable<T> others) => others.Except(these).ShouldBeEmpty();
}
