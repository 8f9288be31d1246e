using SpringLoft.App.Closing;
using SpringLoft.App.Rollover;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Rollover;

namespace SpringLoft.App.Tests.Rollover;

/// <summary>From a class of this year: what was set up before is found by its words, looked at, and taken.</summary>
public class DrawingOnPastTests : SchoolTest
{
    private readonly PastWords words;
    private readonly ClassId into;

    public DrawingOnPastTests()
    {
        words = new(school.Premises, new(school.Premises));
        into = school.Making.Make(school.Lead, school.New("Clay", "7A"));
    }

    private DrawingOnPast Past => new(school.Premises, words);

    private IReadOnlyList<PastHit> Find(string find, Caller? who = null)
    {
        words.Refresh(CancellationToken.None);
        return Past.Search(who ?? school.Lead, into, find).Hits;
    }

    private Task<ItemId> Glaze(string name = "recipes.txt", string text = "Cobalt and tin, fired at cone six.") => school.Put(school.Lead, "Papers", name, text);

    [Fact]
    public async Task A_file_a_page_an_assignment_a_link_and_a_folder_are_found_by_their_titles_and_by_what_is_written_in_them()
    {
        await Glaze();
        var papers = school.FolderNamed("Papers");
        await school.Items.AddPage(school.Lead, school.Class, papers, "Firing", "How cobalt behaves.", CancellationToken.None);
        school.Items.AddLink(school.Lead, school.Class, papers, "Museum", "https://cobalt.example/");
        school.Assigning.Make(school.Lead, school.Class, new("Tile", "Use cobalt sparingly.", 5, null, null, null, [papers], null, Publish: false, PublishAt: null));
        new Arranging(school.Premises).Make(school.Lead, school.Class, new("Cobalt notes", papers, FolderRule.AsAbove, null, 0));

        Find("cobal").Select(h => (h.Kind, h.Name)).ShouldBe([(PastKind.File, "recipes.txt"), (PastKind.Page, "Firing"), (PastKind.Link, "Museum"), (PastKind.Assignment, "Tile"), (PastKind.Folder, "Cobalt notes")], ignoreOrder: true);
        Find("cobal")[0].Name.ShouldBe("Cobalt notes", "a word of the title is nearest");
        Find("fired cone").ShouldHaveSingleItem().ShouldSatisfyAllConditions(h => h.Name.ShouldBe("recipes.txt"), h => h.Folder.ShouldBe("Papers"), h => h.Where.ShouldBe(PastWhere.OtherClass));
        Find("cobalt zinc").ShouldBeEmpty();
        Find("c").ShouldBeEmpty();
    }

    [Fact]
    public async Task What_students_put_in_and_what_is_binned_is_not_found_and_what_changed_is_found_as_it_is_now()
    {
        school.OpenClass();
        await school.Put(school.Umi, "Shared table", "cobalt of umi.txt", "cobalt");
        var item = await Glaze();
        Find("cobalt").ShouldHaveSingleItem();

        school.Items.Rename(school.Lead, school.Class, item, "glazes.txt", null, school.Workspace.See(school.Lead, school.Class).Items.First(i => i.Id == item).Version);
        Past.Search(school.Lead, into, "cobalt").Hits.ShouldHaveSingleItem().Name.ShouldBe("glazes.txt", "also before it is read anew");
        school.Items.Bin(school.Lead, school.Class, item);
        Past.Search(school.Lead, into, "cobalt").Hits.ShouldBeEmpty();
        Find("cobalt").ShouldBeEmpty();
    }

    [Fact]
    public async Task Each_finds_what_they_are_staff_of_and_the_coordinator_the_loft()
    {
        await Glaze();
        school.OpenClass();
        var theirs = school.Making.Make(school.OtherTeacher, school.New("Tides", "9A"));

        Find("cobalt").Count.ShouldBe(1);
        Refused(() => Past.Search(school.OtherTeacher, into, "cobalt")).ShouldNotBeNull("it is not their class to draw into");
        Past.Search(school.OtherTeacher, theirs, "cobalt").ShouldSatisfyAllConditions(f => f.Hits.ShouldBeEmpty(), f => f.Classes.ShouldBe(0));
        Past.Search(school.Coordinator, into, "cobalt").Hits.ShouldBeEmpty("a class that is not archived is its teachers'");
        Refused(() => Past.Search(school.Umi, into, "cobalt")).ShouldNotBeNull();

        school.Close();

        Find("cobalt").ShouldHaveSingleItem().Where.ShouldBe(PastWhere.Loft);
        Past.Search(school.Coordinator, into, "cobalt").Hits.ShouldHaveSingleItem();
        Past.Search(school.OtherTeacher, theirs, "cobalt").Hits.ShouldBeEmpty();
        var hit = Find("cobalt")[0];
        Refused(() => Past.Look(school.OtherTeacher, theirs, hit.Kind, hit.Id, null)).ShouldBe("not-found");
    }

    [Fact]
    public async Task Kept_copies_are_their_owner_s_alone()
    {
        await Glaze();
        new KeptCopies(school.Premises).Keep(school.Lead, school.Class, null);

        // The same thing twice is found once, and said to stand in both.
        Find("cobalt").ShouldHaveSingleItem().ShouldSatisfyAllConditions(h => h.Where.ShouldBe(PastWhere.KeptCopy), h => h.Also.ShouldBe(1));
        Find("papers").Where(h => h.Kind == PastKind.Folder).Select(h => h.Where).ShouldBe([PastWhere.OtherClass, PastWhere.KeptCopy], ignoreOrder: true);
        Find("cobalt", school.Coordinator).ShouldBeEmpty();
    }

    [Fact]
    public async Task It_is_looked_at_before_it_is_taken_at_the_place_where_the_words_are()
    {
        await Glaze(text: $"{string.Concat(Enumerable.Repeat("A line of something else.\n", 400))}Here is cobalt.\n{new string('x', 5000)}");
        var hit = Find("cobalt").ShouldHaveSingleItem();

        var look = Past.Look(school.Lead, into, hit.Kind, hit.Id, "cobalt");

        look.Text!.ShouldSatisfyAllConditions(t => t.ShouldStartWith("… "), t => t.ShouldContain("Here is cobalt."), t => t.Length.ShouldBeLessThan(2100), t => t.ShouldEndWith(" …"));
        Past.Look(school.Lead, into, hit.Kind, hit.Id, null).Text!.ShouldStartWith("A line");
        var tile = school.Assigning.Make(school.Lead, school.Class, new("Tile", "Use cobalt.", 5, null, null, null, [school.FolderNamed("Papers")], null, Publish: false, PublishAt: null)).Id;
        Past.Look(school.Lead, into, PastKind.Assignment, tile.Value, "cobalt").ShouldSatisfyAllConditions(l => l.Text.ShouldBe("Use cobalt."), l => l.Facts.ShouldBe(["5 points"]));
        Past.Look(school.Lead, into, PastKind.Folder, school.FolderNamed("Papers").Value, "cobalt").ShouldSatisfyAllConditions(l => l.Text.ShouldBeNull(), l => l.Facts.ShouldBe(["recipes.txt"]));
        Refused(() => Past.Look(school.Lead, into, PastKind.File, 99_999, null)).ShouldBe("not-found");
    }

    [Fact]
    public async Task What_is_marked_as_nothing_to_copy_is_found_and_not_taken_also_in_a_folder()
    {
        var item = await Glaze();
        await Glaze("free.txt", "free of rights");
        school.Items.SetMayCopy(school.Lead, school.Class, item, false);
        var giving = new GivingOut(school.Premises);

        Find("cobalt").ShouldHaveSingleItem().MayCopy.ShouldBeFalse();
        Refused(() => giving.Give(school.Lead, school.Class, new([item], null, null, false, [into]))).ShouldBe("may-not-copy");
        giving.Give(school.Lead, school.Class, new(null, [school.FolderNamed("Papers")], null, false, [into])).Single().ShouldSatisfyAllConditions(g => g.Barred.ShouldBe(1), g => g.Adds.ShouldBe(1));
        school.Workspace.See(school.Lead, into).Items.Select(i => i.Name).ShouldBe(["free.txt"]);
    }

    [Fact]
    public async Task A_sign_of_two_characters_at_the_end_of_what_is_shown_can_be_sent()
    {
        await Glaze(text: $"cobalt {new string('x', 1992)}🏺🏺🏺");
        var hit = Find("cobalt").ShouldHaveSingleItem();

        foreach (var c in Past.Look(school.Lead, into, hit.Kind, hit.Id, "cobalt").Text!) char.IsSurrogate(c).ShouldBeFalse();
    }

    [Fact]
    public void While_not_all_is_read_it_is_said()
    {
        words.Exists.ShouldBeFalse("nobody has looked for anything");
        Past.Search(school.Lead, into, "cobalt").Progress.Ready.ShouldBeFalse();
        words.Refresh(CancellationToken.None);
        Past.Search(school.Lead, into, "cobalt").Progress.Ready.ShouldBeTrue();
        words.Refresh(CancellationToken.None).ShouldBe(0, "nothing is read twice");
    }
}
