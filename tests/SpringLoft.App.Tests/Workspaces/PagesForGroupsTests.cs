using SpringLoft.App.Rosters;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

/// <summary>Pages for each group in one act, and folders that students make where they may.</summary>
public class PagesForGroupsTests : SchoolTest
{
    private readonly FolderId top;

    public PagesForGroupsTests()
    {
        school.OpenClass();
        top = Folder("Groups", FolderRule.ClassViews);
    }

    private FolderId Folder(string name, FolderRule rule, FolderId? parent = null) => new Arranging(school.Premises).Make(school.Lead, school.Class, new(name, parent, rule, null, 0));

    private GroupId Group(string name, params PersonId[] members) => school.Premises.Db.Write(c =>
    {
        var id = GroupStore.Add(c, school.Class, name);
        foreach (var m in members) GroupStore.AddMember(c, id, m);
        return id;
    });

    private Task<PagesMade> Make() => new PagesForGroups(school.Premises).Make(school.Lead, school.Class, top, "Findings", "# What we found\n", CancellationToken.None);

    private string[] Seen(Caller who) => [.. school.Workspace.See(who, school.Class).Items.Where(i => i.Kind == ItemKind.Page).Select(i => i.Name).Order(StringComparer.Ordinal)];

    [Fact]
    public async Task Each_group_with_members_has_its_own_page_in_its_own_folder_which_they_write_together_and_nobody_else_finds()
    {
        (await Refused(Make)).ShouldBe("rule-group");
        Group("Tide", school.Umi.Id);
        Group("Wind", school.Rúna.Id);
        Group("Empty");
        (await Make()).ShouldBe(new PagesMade(2, 2));
        Seen(school.Umi).ShouldBe(["Findings"]);
        Seen(school.Rúna).ShouldBe(["Findings"]);
        var mine = school.Workspace.See(school.Umi, school.Class).Items.Single(i => i.Kind == ItemKind.Page);
        school.Items.ReadPage(school.Umi, school.Class, mine.Id).Shared.ShouldBeTrue();
        Refused(() => school.Items.ReadPage(school.Rúna, school.Class, mine.Id)).ShouldBe("not-found");
        (await Make()).ShouldBe(new PagesMade(2, 0), "a folder that is there is used");
        Seen(school.Umi).ShouldBe(["Findings", "Findings (2)"]);
        (await Refused(() => new PagesForGroups(school.Premises).Make(school.Umi, school.Class, top, "x", "", CancellationToken.None))).ShouldBe("not-allowed");
    }

    [Fact]
    public void Students_make_folders_where_they_may_change_things_and_what_they_may_there_they_may_inside()
    {
        var arranging = new Arranging(school.Premises);
        var log = Folder("Logbook", FolderRule.ClassEdits);
        var made = arranging.MakeInside(school.Umi, school.Class, log, "June");
        school.Workspace.See(school.Rúna, school.Class).Folders.Single(f => f.Id == made).ShouldSatisfyAllConditions(f => f.Name.ShouldBe("June"), f => f.Right.ShouldBe(Right.Edit));
        arranging.MakeInside(school.Rúna, school.Class, made, "First week");
        Refused(() => arranging.MakeInside(school.Umi, school.Class, top, "Mine")).ShouldBe("folder-no-add");
        Refused(() => arranging.MakeInside(school.Umi, school.Class, Folder("Table", FolderRule.ClassAdds), "Mine")).ShouldBe("folder-no-add");
        Refused(() => arranging.MakeInside(school.Umi, school.Class, Folder("Staff", FolderRule.StaffOnly), "Mine")).ShouldBe("not-found");
        Refused(() => arranging.MakeInside(school.Umi, school.Class, log, "June")).ShouldNotBeNull();
        Refused(() => arranging.MakeInside(school.Outsider, school.Class, log, "Mine")).ShouldBe("not-found");
        school.Premises.Db.Write(c => RosterStore.SetMayPost(c, school.Class, school.Umi.Id, false));
        Refused(() => arranging.MakeInside(school.Umi, school.Class, log, "July")).ShouldBe("folder-no-add");
    }
}
