using SpringLoft.App.Rollover;
using SpringLoft.App.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Rollover;

public class CartridgesTests : SchoolTest
{
    private Cartridges Cartridges => new(school.Premises);

    private MemoryStream Written()
    {
        using var all = Cartridges.Write(school.Class, CancellationToken.None).Content;
        var kept = new MemoryStream();
        all.CopyTo(kept);
        return kept;
    }

    private Task<CartridgeTaken> Take(ClassId into, MemoryStream zip, bool apply = true, Caller? by = null)
    {
        zip.Position = 0;
        return Cartridges.Take(by ?? school.Lead, into, zip, apply, CancellationToken.None);
    }

    private async Task Fill()
    {
        school.OpenClass();
        await school.Put(school.Lead, "Papers", "plan.txt", "the plan");
        await school.Put(school.Umi, "Shared table", "umi's.txt", "x");
        school.Items.AddLink(school.Lead, school.Class, school.FolderNamed("Papers"), "The quay", "https://quay.example/");
        await school.Items.AddPage(school.Lead, school.Class, school.FolderNamed("Start here"), "Rules", "Wear **gloves**.", CancellationToken.None);
        var secret = new Arranging(school.Premises).Make(school.Lead, school.Class, new("Key", null, FolderRule.StaffOnly, null, 0));
        await school.Items.AddFile(school.Lead, school.Class, secret, "answers.txt", TinySchool.Bytes("42"), CancellationToken.None);
        var barred = await school.Put(school.Lead, "Papers", "bought.txt", "not ours");
        school.Items.SetMayCopy(school.Lead, school.Class, school.Read(c => ItemStore.OfClass(c, school.Class)).Single(i => i.Name == "bought.txt").Id, false);
        school.Assign(folders: ["Papers"]);
    }

    private ClassId Another(string section) => school.Making.Make(school.Lead, school.New("Glass", section));

    private IReadOnlyList<string> Stand(ClassId id) => school.Read(c =>
    {
        var folders = FolderStore.OfClass(c, id).ToDictionary(f => f.Id);
        string Way(FolderId f) => folders[f].ParentId is { } p ? $"{Way(p)}/{folders[f].Name}" : folders[f].Name;
        var filings = ItemStore.Filings(c, id).ToLookup(f => f.Item, f => f.Folder);
        return ItemStore.OfClass(c, id).Select(i => $"{i.Kind} {i.Name} in {string.Join(", ", filings[i.Id].Select(Way))}").Order(StringComparer.Ordinal).ToList();
    });

    [Fact]
    public async Task A_set_up_leaves_and_arrives_without_what_is_the_students_or_may_not_be_copied()
    {
        await Fill();
        var other = Another("6C");

        var told = await Take(other, Written(), apply: false);
        Stand(other).ShouldBeEmpty();
        var done = await Take(other, Written());

        (done.Folders, done.Things, done.Assignments, done.There).ShouldBe((told.Folders, told.Things, told.Assignments, told.There));
        (done.Things, done.Assignments, done.Left.Count).ShouldBe((4, 1, 0));
        Stand(other).ShouldBe(["File answers.txt in Key", "File plan.txt in Papers", "Link The quay in Papers", "Page Rules in Start here"]);
        school.Read(c => AssignmentStore.OfClass(c, other)).ShouldHaveSingleItem().ShouldSatisfyAllConditions(a => a.Title.ShouldBe("Pinch pot"), a => a.PublishedAt.ShouldBeNull(), a => a.DueOn.ShouldBeNull());
        // Once more: all of it stands there.
        (await Take(other, Written())).ShouldSatisfyAllConditions(t => t.Folders.ShouldBe(0), t => t.Things.ShouldBe(0), t => t.Assignments.ShouldBe(0));
    }

    [Fact]
    public async Task What_is_for_staff_comes_to_stand_where_only_staff_see_it_also_where_a_folder_of_that_name_is_open()
    {
        await Fill();
        var other = Another("6C");
        new Arranging(school.Premises).Make(school.Lead, other, new("Key", null, FolderRule.ClassViews, null, 0));

        var done = await Take(other, Written());
        await Take(other, Written());

        done.ForStaff.ShouldContain("Key");
        Stand(other).Single(s => s.Contains("answers.txt")).ShouldBe("File answers.txt in Key (for staff)");
        school.Read(c => FolderStore.OfClass(c, other)).Where(f => f.Name.StartsWith("Key")).Select(f => (f.Name, f.Rule)).ShouldBe([("Key", FolderRule.ClassViews), ("Key (for staff)", FolderRule.StaffOnly)], ignoreOrder: true);
    }

    [Fact]
    public async Task What_stands_in_a_folder_for_the_class_inside_one_of_staff_stays_with_staff()
    {
        await Fill();
        var inside = new Arranging(school.Premises).Make(school.Lead, school.Class, new("For later", school.FolderNamed("Key"), FolderRule.ClassViews, null, 0));
        await school.Items.AddFile(school.Lead, school.Class, inside, "surprise.txt", TinySchool.Bytes("!"), CancellationToken.None);
        var other = Another("6C");

        await Take(other, Written());

        var access = new Access(Viewer.AnyStudent, school.Read(c => FolderStore.OfClass(c, other)).Select(f => f.Fact));
        var surprise = school.Read(c => ItemStore.OfClass(c, other)).Single(i => i.Name == "surprise.txt").Id;
        school.Read(c => ItemStore.Filings(c, other)).Where(f => f.Item == surprise).ShouldAllBe(f => access.Of(f.Folder).Right == Right.None);
        school.Read(c => ItemStore.Filings(c, other)).Count(f => f.Item == surprise).ShouldBe(1);
    }

    [Fact]
    public async Task A_structure_too_opens_nothing_that_was_for_staff()
    {
        await Fill();
        var other = Another("6C");
        new Arranging(school.Premises).Make(school.Lead, other, new("Key", null, FolderRule.ClassViews, null, 0));
        var files = new StructureFiles(school.Premises);

        files.Take(school.Lead, other, new(1, "Clay", "", [new(["Key"], FolderRule.StaffOnly)], [new("Answers", "https://quay.example/", null, [["Key"]])], [], []), apply: true);

        Stand(other).ShouldBe(["Link Answers in Key (for staff)"]);
    }

    [Fact]
    public async Task What_is_no_cartridge_or_is_damaged_is_refused_and_nothing_is_made()
    {
        await Fill();
        var other = Another("6C");
        var damaged = Written();
        var at = damaged.ToArray().AsSpan().IndexOf("the plan"u8);
        damaged.GetBuffer()[at] ^= 1;

        (await Should.ThrowAsync<RefusedException>(() => Take(other, damaged))).Refusal.Code.ShouldBe("cartridge-broken");
        (await Should.ThrowAsync<RefusedException>(() => Take(other, new(TinySchool.Bytes("no zip").ToArray())))).Refusal.Code.ShouldBe("zip-broken");
        (await Should.ThrowAsync<RefusedException>(() => Take(other, Written(), by: school.OtherTeacher))).Refusal.Code.ShouldBe("not-found");
        Stand(other).ShouldBeEmpty();
    }
}
