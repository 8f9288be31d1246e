using CsCheck;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

public class BlindSpotsTests
{
    private static readonly Seeing Umi = new(new(1), "Umi", true);
    private static readonly Seeing Rúna = new(new(2), "Rúna", true);

    private static FolderFact Folder(long id, FolderRule rule, long? parent = null, long? own = null) => new(new(id), parent is { } p ? new FolderId(p) : null, $"F{id}", rule, own is { } o ? new PersonId(o) : null);

    private static ToBeSeen Set(params long[] folders) => new(new(1), "Pot", [.. folders.Select(f => new FolderId(f))], []);

    private static IReadOnlyList<BlindSpot> Find(FolderFact[] folders, params ToBeSeen[] assignments) => BlindSpots.Find(ClassState.Open, folders, [Umi, Rúna], assignments);

    [Fact]
    public void A_class_in_good_order_has_none() =>
        Find([Folder(1, FolderRule.ClassViews), Folder(2, FolderRule.OneEach, own: 1), Folder(3, FolderRule.OneEach, own: 2), Folder(4, FolderRule.StaffOnly)], Set(1)).ShouldBeEmpty();

    [Fact]
    public void An_assignment_in_a_staff_folder_is_told_with_a_folder_that_would_mend_it()
    {
        var spot = Find([Folder(1, FolderRule.ClassViews), Folder(2, FolderRule.StaffOnly)], Set(2)).ShouldHaveSingleItem();

        (spot.Kind, spot.Folder, spot.Mend).ShouldBe((BlindKind.AssignmentUnseen, new FolderId(1), "File it in “F1” too"));
        spot.Text.ShouldBe("“Pot” can't be seen by anybody: it stands only in “F2”.");
    }

    [Fact]
    public void An_assignment_in_one_students_own_folder_is_unseen_by_the_others() =>
        Find([Folder(1, FolderRule.OneEach, own: 1), Folder(2, FolderRule.OneEach, own: 2)], Set(1)).Single().Students.ShouldBe([Rúna.Id]);

    [Fact]
    public void A_class_without_a_folder_that_students_see_is_told() => Find([Folder(1, FolderRule.StaffOnly)]).Single().Kind.ShouldBe(BlindKind.NoFolderSeen);

    [Fact]
    public void A_student_without_an_own_folder_is_named() =>
        Find([Folder(1, FolderRule.ClassViews), Folder(2, FolderRule.OneEach, own: 1)]).Single().ShouldSatisfyAllConditions(s => s.Kind.ShouldBe(BlindKind.NoOwnFolder), s => s.Text.ShouldContain("Rúna"));

    [Fact]
    public void A_folder_for_the_class_inside_a_shut_one_is_told_once() =>
        Find([Folder(1, FolderRule.ClassViews), Folder(2, FolderRule.StaffOnly), Folder(3, FolderRule.ClassAdds, 2), Folder(4, FolderRule.AsAbove, 3)]).Single().ShouldSatisfyAllConditions(
            s => s.Kind.ShouldBe(BlindKind.ShutByAbove), s => s.Folder.ShouldBe(new FolderId(3)));

    [Fact]
    public void An_archived_class_has_none() => BlindSpots.Find(ClassState.Archived, [], [Umi], []).ShouldBeEmpty();

    // Told exactly when the rules say that a student can't see it.
    [Fact]
    public void An_assignment_is_told_for_those_and_only_those_who_cannot_see_it() =>
        Gen.Select(Gen.Enum<FolderRule>(), Gen.Int[-1, 7]).List[1, 8].Select(Gen.Int[0, 7].List[0, 3]).Sample((rules, filed) =>
        {
            var folders = rules.Select((r, i) => Folder(i + 1, r.Item1, r.Item2 >= 0 && r.Item2 < i ? r.Item2 + 1 : null, r.Item1 == FolderRule.OneEach ? 1 + (i % 2) : null)).ToArray();
            var set = Set([.. filed.Where(f => f < folders.Length).Select(f => f + 1L).Distinct()]);
            var told = Find(folders, set).Where(s => s.Kind == BlindKind.AssignmentUnseen).SelectMany(s => s.Students).ToList();
            foreach (var s in new[] { Umi, Rúna })
                told.Contains(s.Id).ShouldBe(new Access(new Viewer(s.Id, Standing.Student, true, ClassState.Open, AfterArchive.View), folders).OfThing(set.FiledIn) == Right.None);
        }, iter: 2000);

    [Fact]
    public void A_groups_folder_without_members_is_found_and_the_ungrouped_are_offered_for_it()
    {
        FolderFact[] folders = [new(new(1), null, "Port crew", FolderRule.OnePerGroup, null, new GroupId(7)), new(new(2), null, "Rigging crew", FolderRule.OnePerGroup, null, new GroupId(8))];
        Seeing[] students = [new(new(1), "Umi", true, new HashSet<GroupId> { new(8) }), new(new(2), "Rúna", true)];

        var spot = BlindSpots.Find(ClassState.Open, folders, students, []).Single();

        (spot.Kind, spot.Folder, spot.Mend).ShouldBe((BlindKind.GroupWithoutMembers, new FolderId(1), "Put the 1 in it who are in no group"));
        spot.Students.ShouldBe([new PersonId(2)]);
    }
}
