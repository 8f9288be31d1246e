using SpringLoft.Core;
using SpringLoft.Core.Plans;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.Store.Tests.Workspaces;

public class FolderStoreTests : StoreTest
{
    private FolderId Add(string name, FolderId? parent = null, string? key = null) => Db.Write(c => FolderStore.Add(c, Class, parent, name, 0, FolderRule.ClassViews, null, key is null ? null : FolderKey.Parse(key)));

    private IReadOnlyList<FolderRow> All => Db.Read(c => FolderStore.OfClass(c, Class));

    [Fact]
    public void Siblings_of_one_name_are_refused_by_the_file_itself_whatever_the_case()
    {
        var a = Add("Papers");

        Should.Throw<Microsoft.Data.Sqlite.SqliteException>(() => Add("PAPERS"));
        Add("Papers", a);
        All.Count.ShouldBe(2);
    }

    [Fact]
    public void A_binned_folder_gives_its_name_free()
    {
        Add("Papers");
        Db.Write(c => FolderStore.Save(c, All[0] with { BinnedAt = At }));

        Add("Papers");

        Db.Read(c => FolderStore.WithBin(c, Class)).Count.ShouldBe(2);
    }

    [Fact]
    public void A_folder_is_saved_only_at_the_version_that_was_seen()
    {
        Add("Papers");
        var seen = All[0];

        Db.Write(c => FolderStore.Save(c, seen with { Name = "First" })).ShouldBeTrue();
        Db.Write(c => FolderStore.Save(c, seen with { Name = "Second" })).ShouldBeFalse();
        All[0].Name.ShouldBe("First");
    }

    [Fact]
    public void A_folder_that_a_plan_made_knows_what_it_was_given()
    {
        Add("Papers", key: "papers");
        Add("Mine");

        All.First(f => f.Name == "Papers").Given.ShouldBe(new GivenFolder("Papers", FolderRule.ClassViews, 0));
        All.First(f => f.Name == "Mine").Given.ShouldBeNull();
    }

    [Fact]
    public void Unfolding_beside_a_folder_of_the_same_name_tells_them_apart_and_doubles_nothing()
    {
        Add("Papers");
        UnfoldedFolder[] wanted = [new(FolderKey.Top("papers"), null, "Papers", FolderRule.ClassAdds, null, 0, false), new(FolderKey.Top("papers").Below("in"), FolderKey.Top("papers"), "Inner", FolderRule.AsAbove, null, 0, false)];

        Db.Write(c => FolderStore.Unfold(c, Class, wanted)).ShouldBe(2);
        Db.Write(c => FolderStore.Unfold(c, Class, wanted)).ShouldBe(0);
        All.Select(f => f.Name).ShouldBe(["Papers", "Papers (2)", "Inner"], ignoreOrder: true);
    }

    [Fact]
    public void Keys_may_be_taken_from_one_another()
    {
        var a = Add("A", key: "w1");
        var b = Add("B", key: "w2");

        Db.Write(c => FolderStore.Rekey(c, [(a, FolderKey.Top("w2")), (b, FolderKey.Top("w1"))]));

        All.OrderBy(f => f.Name).Select(f => f.PlanKey!.Text).ShouldBe(["w2", "w1"]);
    }

    [Fact]
    public void Classes_swap_names_and_no_two_have_the_same()
    {
        var other = Db.Write(c => NewClass(c, "Glass"));

        Db.Write(c => ClassStore.Rename(c, [(Class, "Glass"), (other, "Clay")]));

        Db.Read(c => (ClassStore.Find(c, Class)!.Name, ClassStore.Find(c, other)!.Name)).ShouldBe(("Glass", "Clay"));
        Should.Throw<Microsoft.Data.Sqlite.SqliteException>(() => Db.Write(c => ClassStore.Rename(c, [(Class, "clay")])));
    }
}
