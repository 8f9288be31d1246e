using SpringLoft.Core.Workspaces;

namespace SpringLoft.Core.Tests.Workspaces;

public class FolderArrangingTests
{
    private static readonly ArrangedFolder[] All = [new(new(1), null, "A", 0), new(new(2), null, "B", 1), new(new(3), null, "C", 2), new(new(4), new(1), "In A", 0)];

    private static IReadOnlyDictionary<FolderId, int> Decide(long moving, long? parent, string name, int? place = null) =>
        FolderArranging.Decide(new(moving), new(parent is { } p ? new FolderId(p) : null, name, place), All);

    private static string Refused(Action act) => Should.Throw<RefusedException>(act).Refusal.Code;

    [Fact]
    public void A_renamed_folder_stays_where_it_is() => Decide(2, null, "Better").ShouldBe(new Dictionary<FolderId, int> { [new(2)] = 1 });

    [Fact]
    public void A_folder_put_first_moves_the_others_one_on() =>
        Decide(3, null, "C", 0).OrderBy(x => x.Value).Select(x => x.Key.Value).ShouldBe([3, 1, 2]);

    [Fact]
    public void A_folder_moved_into_another_stands_last_there() => Decide(3, 1, "C").ShouldBe(new Dictionary<FolderId, int> { [new(3)] = 1 });

    [Fact]
    public void A_folder_does_not_stand_in_itself_nor_beside_its_namesake()
    {
        Refused(() => Decide(1, 1, "A")).ShouldBe("folder-in-itself");
        Refused(() => Decide(1, 4, "A")).ShouldBe("folder-in-itself");
        Refused(() => Decide(2, null, "c")).ShouldBe("name-taken");
        Refused(() => Decide(2, 99, "B")).ShouldBe("not-found");
    }

    [Fact]
    public void A_tree_that_would_be_too_deep_is_refused()
    {
        var deep = Enumerable.Range(1, FolderArranging.MaxDepth).Select(i => new ArrangedFolder(new(i), i == 1 ? null : new FolderId(i - 1), $"{i}", 0)).ToList();

        Refused(() => FolderArranging.Decide(null, new(new(FolderArranging.MaxDepth), "x", null), deep)).ShouldBe("folder-too-deep");
    }
}
