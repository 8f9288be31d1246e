using CsCheck;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

public class AccessTests
{
    private static readonly PersonId Student = new(1);
    private static readonly PersonId Other = new(2);

    private static Viewer As(Standing standing, ClassState state = ClassState.Open, bool mayPost = true, AfterArchive after = AfterArchive.View) => new(Student, standing, mayPost, state, after);

    private static FolderFact Folder(long id, FolderRule rule, long? parent = null, PersonId? own = null) => new(new(id), parent is { } p ? new FolderId(p) : null, $"F{id}", rule, own);

    private static Right Of(Viewer viewer, long folder, params FolderFact[] all) => new Access(viewer, all).Of(new(folder)).Right;

    [Theory]
    [InlineData(FolderRule.StaffOnly, Right.None)]
    [InlineData(FolderRule.ClassViews, Right.View)]
    [InlineData(FolderRule.ClassAdds, Right.Add)]
    [InlineData(FolderRule.ClassEdits, Right.Edit)]
    [InlineData(FolderRule.AsAbove, Right.View)]
    public void A_student_has_what_the_rule_says(FolderRule rule, Right right) => Of(As(Standing.Student), 1, Folder(1, rule)).ShouldBe(right);

    [Fact]
    public void An_own_folder_is_its_students_alone()
    {
        Of(As(Standing.Student), 1, Folder(1, FolderRule.OneEach, own: Student)).ShouldBe(Right.Edit);
        Of(As(Standing.Student), 1, Folder(1, FolderRule.OneEach, own: Other)).ShouldBe(Right.None);
    }

    [Fact]
    public void A_folder_inside_one_that_cannot_be_seen_is_not_seen_whatever_its_rule() =>
        Of(As(Standing.Student), 2, Folder(1, FolderRule.StaffOnly), Folder(2, FolderRule.ClassEdits, 1)).ShouldBe(Right.None);

    [Fact]
    public void As_above_takes_the_rule_of_the_folder_above_and_not_more() =>
        Of(As(Standing.Student), 3, Folder(1, FolderRule.ClassAdds), Folder(2, FolderRule.AsAbove, 1), Folder(3, FolderRule.AsAbove, 2)).ShouldBe(Right.Add);

    [Fact]
    public void In_preparation_students_see_nothing_and_staff_everything()
    {
        Of(As(Standing.Student, ClassState.InPreparation), 1, Folder(1, FolderRule.ClassEdits)).ShouldBe(Right.None);
        Of(As(Standing.CoTeacher, ClassState.InPreparation), 1, Folder(1, FolderRule.StaffOnly)).ShouldBe(Right.Manage);
    }

    [Theory]
    [InlineData(Standing.Student, AfterArchive.View, Right.View)]
    [InlineData(Standing.Student, AfterArchive.Nothing, Right.None)]
    [InlineData(Standing.Lead, AfterArchive.Nothing, Right.View)]
    [InlineData(Standing.Coordinator, AfterArchive.View, Right.View)]
    public void Archived_nobody_changes_anything(Standing standing, AfterArchive after, Right right) =>
        Of(As(standing, ClassState.Archived, after: after), 1, Folder(1, FolderRule.ClassEdits)).ShouldBe(right);

    [Theory]
    [InlineData(Standing.Left)]
    [InlineData(Standing.SignedIn)]
    [InlineData(Standing.Nobody)]
    public void Who_is_not_on_the_roster_sees_no_folder(Standing standing) => Of(As(standing), 1, Folder(1, FolderRule.ClassEdits)).ShouldBe(Right.None);

    [Fact]
    public void Who_may_not_post_views_only() => Of(As(Standing.Student, mayPost: false), 1, Folder(1, FolderRule.ClassAdds)).ShouldBe(Right.View);

    [Fact]
    public void A_thing_is_seen_if_any_of_its_folders_is() =>
        new Access(As(Standing.Student), [Folder(1, FolderRule.StaffOnly), Folder(2, FolderRule.ClassViews)]).OfThing([new(1), new(2)]).ShouldBe(Right.View);

    [Fact]
    public void A_thing_in_no_folder_is_the_staffs()
    {
        new Access(As(Standing.Student), []).OfThing([]).ShouldBe(Right.None);
        new Access(As(Standing.Lead), []).OfThing([]).ShouldBe(Right.Manage);
    }

    [Fact]
    public void The_reason_names_the_folder_that_shuts() =>
        new Access(As(Standing.Student), [Folder(1, FolderRule.StaffOnly), Folder(2, FolderRule.ClassEdits, 1)]).Of(new(2)).Steps
            .ShouldBe(["“F1” is staff only", "“F2” stands inside “F1”, which they cannot see"]);

    // The rules of "Who may do what" written down a second time, folder by folder from the top, without regard to speed.
    private static Right Slowly(Viewer v, FolderFact folder, IReadOnlyList<FolderFact> all)
    {
        if (v.Standing >= Standing.CoTeacher) return v.State == ClassState.Archived ? Right.View : Right.Manage;
        if (v.Standing != Standing.Student || v.State == ClassState.InPreparation) return Right.None;
        if (v.State == ClassState.Archived && v.After == AfterArchive.Nothing) return Right.None;
        var path = new List<FolderFact>();
        for (var f = folder; f is not null; f = all.FirstOrDefault(x => x.Id == f.Parent)) path.Insert(0, f);
        var rule = Right.View;
        foreach (var f in path)
        {
            rule = f.Rule switch
            {
                FolderRule.StaffOnly => Right.None,
                FolderRule.ClassViews => Right.View,
                FolderRule.ClassAdds => Right.Add,
                FolderRule.ClassEdits => Right.Edit,
                FolderRule.OneEach => f.Student == v.Id ? Right.Edit : Right.None,
                FolderRule.OnePerGroup => f.Group is not { } g || v.Groups?.Contains(g) != true ? Right.None
                    : f.Members is not { } m ? Right.Edit : !m.Add ? Right.View : m.Rename && m.Remove ? Right.Edit : Right.Add,
                _ => rule,
            };
            if (rule == Right.None) return Right.None;
        }
        return rule > Right.View && (!v.MayPost || v.State == ClassState.Archived) ? Right.View : rule;
    }

    [Fact]
    public void Rights_equal_a_slow_reference_on_thousands_of_random_workspaces()
    {
        var folders = Gen.Select(Gen.Enum<FolderRule>(), Gen.Int[-1, 11], Gen.Int[1, 2], Gen.Int[0, 8]).List[1, 12].Select(list =>
            list.Select((x, i) => Folder(i + 1, x.Item1, x.Item2 >= 0 && x.Item2 < i ? x.Item2 + 1 : null, x.Item1 == FolderRule.OneEach ? new PersonId(x.Item3) : null) with
            {
                Group = x.Item1 == FolderRule.OnePerGroup ? new GroupId(x.Item3) : null,
                Members = x.Item4 == 8 ? null : GroupMay.Of(x.Item4),
            }).ToList());
        var viewer = Gen.Select(Gen.Enum<Standing>(), Gen.Bool, Gen.Enum<ClassState>(), Gen.Enum<AfterArchive>(), Gen.Bool,
            (s, post, state, after, grouped) => new Viewer(Student, s, post, state, after, grouped ? new HashSet<GroupId> { new(1) } : null));
        Gen.Select(folders, viewer).Sample((all, v) =>
        {
            var access = new Access(v, all);
            foreach (var f in all) access.Of(f.Id).Right.ShouldBe(Slowly(v, f, all));
        }, iter: 5000);
    }

    private static Access Grouped(GroupMay may, bool member) => new(
        As(Standing.Student) with { Groups = member ? new HashSet<GroupId> { new(7) } : null },
        [Folder(1, FolderRule.OnePerGroup) with { Group = new(7), Members = may }, Folder(2, FolderRule.AsAbove, 1)]);

    [Fact]
    public void A_groups_folder_and_what_is_in_it_is_its_members_alone()
    {
        Grouped(GroupMay.Everything, member: true).Of(new(2)).Right.ShouldBe(Right.Edit);
        Grouped(GroupMay.Everything, member: false).Of(new(2)).Right.ShouldBe(Right.None);
        Grouped(GroupMay.Everything, member: false).Of(new(1)).Steps.ShouldBe(["“F1” is a group's folder, and they are not in that group"]);
    }

    [Theory]
    [InlineData(true, false, false, Right.Add)]
    [InlineData(true, true, false, Right.Add)]
    [InlineData(false, true, true, Right.View)]
    [InlineData(false, false, false, Right.View)]
    public void Members_may_add_rename_and_remove_as_the_folder_says(bool add, bool rename, bool remove, Right right)
    {
        var access = Grouped(new(add, rename, remove), member: true);

        access.Of(new(2)).Right.ShouldBe(right);
        access.Of(new(2)).IsMoreThanViewing.ShouldBe(add || rename || remove);
        access.MayRename([new(2)], own: false).ShouldBe(rename);
        access.MayRemove([new(2)], own: false).ShouldBe(remove);
        access.MayRename([new(2)], own: true).ShouldBe(add || rename);
    }

    [Fact]
    public void What_others_put_in_is_changed_only_by_who_may_in_all_its_folders()
    {
        var access = new Access(As(Standing.Student), [Folder(1, FolderRule.ClassAdds), Folder(2, FolderRule.OneEach, own: Student), Folder(3, FolderRule.ClassEdits), Folder(4, FolderRule.StaffOnly)]);

        access.MayRemove([new(2), new(3)], own: false).ShouldBeTrue();
        access.MayRemove([new(1), new(2)], own: false).ShouldBeFalse();
        access.MayRename([new(3), new(4)], own: false).ShouldBeFalse();
        access.MayRename([new(1), new(4)], own: true).ShouldBeTrue();
    }

    [Theory]
    [InlineData(Standing.CoTeacher, ClassState.Open, true)]
    [InlineData(Standing.CoTeacher, ClassState.Archived, false)]
    [InlineData(Standing.Student, ClassState.Open, false)]
    public void A_thing_in_no_folder_is_changed_by_staff_of_a_class_that_is_not_archived(Standing standing, ClassState state, bool may) =>
        new Access(As(standing, state), []).MayRename([], own: true).ShouldBe(may);
}
