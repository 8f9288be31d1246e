using SpringLoft.Store.Rosters;
using System.IO.Compression;
using SpringLoft.App.Closing;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Closing;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.People;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Closing;

/// <summary>Take-homes, the shelf, tidying and kept copies.</summary>
public class YearEndTests : SchoolTest
{
    private readonly AssignmentId pot;

    public YearEndTests()
    {
        school.OpenClass();
        pot = school.Assign();
        school.HandIn(school.Umi, pot, "umi's pot").Wait();
        school.Put(school.Umi, "Hallgrímsson, Umi", "sketch & plan.txt", "a sketch").Wait();
        school.Put(school.Lead, "Papers", "glaze.txt", "cobalt").Wait();
    }

    private YearId Year => school.Years[0].Id;
    private OpenShelf Shelf => new(school.Premises, new(school.Premises));
    private Tidying Tidying => new(school.Premises, new(school.Premises));

    private TakeHomeRun MakeTakeHomes()
    {
        var run = school.TakeHomes.Begin(school.Coordinator, Year, null);
        school.TakeHomes.Go(run, CancellationToken.None);
        return school.TakeHomes.See(school.Coordinator, run);
    }

    private static Dictionary<string, string> Texts(Download download)
    {
        using var content = download.Content;
        using var zip = new ZipArchive(content);
        return zip.Entries.ToDictionary(e => e.FullName, e => new StreamReader(e.Open()).ReadToEnd());
    }

    private void Return(string? comment = null) => school.Returns.ReturnAll(school.Lead, school.Class, null, true, comment);

    [Fact]
    public async Task A_take_home_holds_ones_own_work_of_all_classes_and_a_page_that_leads_to_it()
    {
        var other = school.Making.Make(school.Lead, school.New("Tides", "7A"));
        school.Roster.Enroll(school.Lead, other, [school.Umi.Id], ClassRole.Student);
        school.Making.Open(school.Lead, other, school.Workspace.Head(school.Lead, other).Version);
        var shared = school.Workspace.See(school.Umi, other).Folders.First(f => f.Name == "Shared table").Id;
        await school.Items.AddFile(school.Umi, other, shared, "tide.txt", TinySchool.Bytes("high"), CancellationToken.None);
        Return("Fine <rim>.");

        var run = MakeTakeHomes();

        (run.Made, run.Empty, run.Failed).ShouldBe((1, 1, 0));
        var zip = Texts(school.TakeHomes.OpenMine(school.Umi, Year));
        zip.Keys.ShouldBe(["index.html", "Clay 6B · period 3 · 2026–27/Pinch pot/pot.txt", "Clay 6B · period 3 · 2026–27/own folder/Hallgrímsson, Umi/sketch & plan.txt", "Tides 7A · period 3 · 2026–27/added by you/tide.txt"], ignoreOrder: true);
        var page = zip["index.html"];
        page.ShouldContain("Fine &lt;rim&gt;.");
        page.ShouldNotContain("http", Case.Insensitive);
        foreach (var href in System.Text.RegularExpressions.Regex.Matches(page, "href=\"([^\"]+)\"").Select(m => Uri.UnescapeDataString(System.Net.WebUtility.HtmlDecode(m.Groups[1].Value)))) zip.Keys.ShouldContain(href);
        Refused(() => school.TakeHomes.OpenMine(school.Rúna, Year)).ShouldBe("not-found");
    }

    [Fact]
    public void A_take_home_older_than_what_was_returned_since_says_so_and_is_made_anew()
    {
        MakeTakeHomes();
        school.Clock.AdvanceHours(1);
        Return();

        school.TakeHomes.See(school.Coordinator, Year).Students.Single(s => s.Student == school.Umi.Id).Stale.ShouldBeTrue();
        school.Clock.AdvanceHours(1);
        MakeTakeHomes();
        school.TakeHomes.See(school.Coordinator, Year).Students.Single(s => s.Student == school.Umi.Id).Stale.ShouldBeFalse();
    }

    [Fact]
    public async Task A_take_home_made_before_two_accounts_were_joined_is_not_all_of_it_neither_on_the_desk_nor_for_deleting_a_class()
    {
        var twin = school.Add("umi2", SchoolRole.Student, "Umi", "Halgrímsson");
        school.Roster.Enroll(school.Lead, school.Class, [twin.Id], ClassRole.Student, includeOpen: true);
        await school.HandIn(twin, school.Assign("Only the twin"), "the twin's");
        Return();
        MakeTakeHomes();
        (int, int) ForDeleting() => school.Read(c => { var (putIn, missing) = Store.Closing.LastCopyStore.OfClass(c, school.Class); return (putIn.Count, putIn.Count - missing.Select(m => m.Student).Distinct().Count()); });
        ForDeleting().ShouldBe((2, 2));
        var directory = new App.People.SchoolDirectory(school.Premises);
        school.Clock.AdvanceHours(1);

        directory.Join(school.Coordinator, school.Umi.Id, twin.Id);

        school.TakeHomes.See(school.Coordinator, Year).Students.Single(s => s.Student == school.Umi.Id).Stale.ShouldBeTrue();
        ForDeleting().ShouldBe((1, 1), "the twin's own take-home stands with the account that was joined");
        school.Clock.AdvanceHours(1);
        MakeTakeHomes();
        ForDeleting().ShouldBe((1, 1));
        Texts(school.TakeHomes.OpenMine(school.Umi, Year)).Values.ShouldContain("the twin's");

        school.Clock.AdvanceHours(1);
        directory.UndoJoin(school.Coordinator, directory.Joins().Single().Id);
        school.TakeHomes.See(school.Coordinator, Year).Students.Where(s => s.MadeAt is not null).ShouldAllBe(s => s.Stale);
        ForDeleting().ShouldBe((2, 2), "each has a take-home that holds all of theirs");
    }

    [Fact]
    public void Only_the_coordinator_hands_out_and_leavers_are_kept_for_their_time()
    {
        MakeTakeHomes();
        // It holds what other teachers said to the student in private.
        Refused(() => school.TakeHomes.Open(school.Lead, school.Umi.Id, Year)).ShouldBe("not-allowed");
        Texts(school.TakeHomes.Open(school.Coordinator, school.Umi.Id, Year)).ShouldContainKey("index.html");
        school.TakeHomes.See(school.Coordinator, Year).Students.Single(s => s.Student == school.Umi.Id).FetchedAt.ShouldNotBeNull();

        school.Premises.Db.Write(c => PersonStore.SetGrades(c, [(school.Umi.Id, "6", false)]));
        school.Copies.LetGoOfLeavers();
        school.Clock.AdvanceDays(Core.School.SchoolRules.Default.LeaverDays);
        school.Copies.LetGoOfLeavers();
        Texts(school.TakeHomes.Open(school.Coordinator, school.Umi.Id, Year)).ShouldContainKey("index.html");
        school.Clock.AdvanceDays(1);
        school.Copies.LetGoOfLeavers();
        Refused(() => school.TakeHomes.Open(school.Coordinator, school.Umi.Id, Year)).ShouldBe("not-found");
    }

    [Fact]
    public async Task A_missing_file_fails_its_student_by_name_of_the_reason_and_others_go_on()
    {
        var sha = school.Read(c => ItemStore.OfClass(c, school.Class)).First(i => i.ByStudent).Sha256!;
        File.Delete(school.Premises.Files.PathOf(sha));
        await school.Put(school.Rúna, "Ravndal, Rúna", "r.txt", "r");

        var run = MakeTakeHomes();

        (run.Made, run.Failed).ShouldBe((1, 1));
        run.Reasons.ShouldHaveSingleItem().ShouldContain("missing from the file store");
    }

    private ShelfDraft Draft(params string[] folders) => new("Clay, to read", "For the summer.", school.Premises.Clock.Today.PlusMonths(2), [.. folders.Select(school.FolderNamed)], [], []);

    [Fact]
    public void A_shelf_opens_without_an_account_until_its_day_and_can_be_shut_at_once()
    {
        var set = Shelf.Set(school.Lead, school.Class, Draft("Papers"));
        var token = set.Address["/shelf/".Length..];

        token.Length.ShouldBe(40);
        Shelf.Visit(token).Things.ShouldHaveSingleItem().Name.ShouldBe("glaze.txt");
        Shelf.Visit(token);
        using (var file = Shelf.Open(token, 0).Content) new StreamReader(file).ReadToEnd().ShouldBe("cobalt");
        Shelf.See(school.Class).Shelves.ShouldHaveSingleItem().Visits.ShouldBe(2);
        school.Clock.AdvanceDays(80);
        Refused(() => Shelf.Visit(token)).ShouldBe("shelf-shut");
        school.Clock.AdvanceDays(-80);
        Shelf.Shut(school.Lead, school.Class, set.Id);
        Refused(() => Shelf.Visit(token)).ShouldBe("shelf-shut");
        Refused(() => Shelf.Open(token, 0)).ShouldBe("shelf-shut");
        Refused(() => Shelf.Visit(new string('0', 40))).ShouldBe("shelf-shut");
    }

    [Fact]
    public void A_shelf_counts_by_day_and_its_day_can_be_put_off_but_one_that_was_shut_never_opens_again()
    {
        var set = Shelf.Set(school.Lead, school.Class, Draft("Papers") with { Until = school.Premises.Clock.Today, Language = "de" });
        var token = set.Address["/shelf/".Length..];
        var first = school.Premises.Clock.Today;
        Shelf.Visit(token);
        Shelf.Visit(token);
        school.Clock.AdvanceDays(1);
        Refused(() => Shelf.Visit(token)).ShouldBe("shelf-shut");
        Shelf.See(school.Class).Shelves.Single().Open.ShouldBeFalse();

        Shelf.Change(school.Lead, school.Class, set.Id, "Clay", "", first.PlusDays(9), "fr");
        Shelf.Visit(token).Shelf.ShouldSatisfyAllConditions(s => s.Language.ShouldBe("fr"), s => s.Title.ShouldBe("Clay"));

        Shelf.See(school.Class).Shelves.Single().ShouldSatisfyAllConditions(s => s.Visits.ShouldBe(3), s => s.Days.Select(d => (d.Day, d.Visits)).ShouldBe([(first.PlusDays(1), 1), (first, 2)]), s => s.Language.ShouldBe("fr"));
        Refused(() => Shelf.Change(school.Lead, school.Class, set.Id, "Clay", "", first.PlusDays(9), "xx")).ShouldBe("shelf-language");
        Shelf.Shut(school.Lead, school.Class, set.Id);
        Refused(() => Shelf.Change(school.Lead, school.Class, set.Id, "Clay", "", first.PlusDays(9), "fr")).ShouldBe("shelf-shut");
    }

    [Fact]
    public async Task Files_that_name_students_inside_stay_off_and_what_can_not_be_read_is_said()
    {
        await school.Put(school.Lead, "Papers", "teams.csv", "group;name\n1;Rúna\n");
        await school.Put(school.Lead, "Papers", "page.html", "<p>Thanks to U<b>mi</b>!</p>");
        await school.Put(school.Lead, "Papers", "kiln.jpg", "\u0000\u0001");
        await school.Items.AddPage(school.Lead, school.Class, school.FolderNamed("Papers"), "How to glaze", "Dip it **twice**.", CancellationToken.None);

        var things = Shelf.Preview(school.Class, Draft("Papers")).ToDictionary(t => t.Name);

        foreach (var name in (string[])["teams.csv", "page.html"]) things[name].ShouldSatisfyAllConditions(t => t.Out.ShouldBeTrue(), t => t.Inside.ShouldBeTrue(), t => t.Names.ShouldHaveSingleItem());
        things["kiln.jpg"].ShouldSatisfyAllConditions(t => t.Unread.ShouldBe(Unread.Kind), t => t.Out.ShouldBeFalse(), t => t.Item.ShouldNotBeNull());
        things["glaze.txt"].ShouldSatisfyAllConditions(t => t.Unread.ShouldBeNull(), t => t.Out.ShouldBeFalse());
        await school.Put(school.Lead, "Papers", "How to glaze.html", "<p>other</p>");
        var zip = Texts(Shelf.Showcase(school.Lead, school.Class, Draft("Papers"), CancellationToken.None));
        zip["Papers/How to glaze.html"].ShouldBe("<p>other</p>");
        zip["Papers/How to glaze (2).html"].ShouldContain("<strong>twice</strong>");
        var set = Shelf.Set(school.Lead, school.Class, Draft("Papers"));
        var token = set.Address["/shelf/".Length..];
        var there = Shelf.Visit(token).Things;
        there.Select(t => t.Name).ShouldBe(["glaze.txt", "How to glaze", "How to glaze.html", "kiln.jpg"], ignoreOrder: true);
        Shelf.Page(token, there.Single(t => t.Name == "How to glaze").Position)!.Text.ShouldBe("Dip it **twice**.");
        Shelf.Page(token, there.Single(t => t.Name == "kiln.jpg").Position).ShouldBeNull();
    }

    [Fact]
    public async Task A_shelf_holds_what_was_there_when_it_was_set()
    {
        var set = Shelf.Set(school.Lead, school.Class, Draft("Papers"));
        await school.Put(school.Lead, "Papers", "later.txt", "later");
        foreach (var i in school.Read(c => ItemStore.OfClass(c, school.Class)).Where(i => i.Name == "glaze.txt")) school.Items.Bin(school.Lead, school.Class, i.Id);

        Shelf.Visit(set.Address["/shelf/".Length..]).Things.Select(t => t.Name).ShouldBe(["glaze.txt"]);
    }

    [Fact]
    public async Task Names_of_students_stay_off_the_shelf_unless_each_is_ticked_and_own_folders_never_go_on_it()
    {
        await school.HandIn(school.Rúna, pot, "ash over porcelain");
        Return();
        var works = Shelf.See(school.Class).Examples;
        var draft = Draft("Papers") with { Examples = [.. works.Select(w => w.Id)] };

        Shelf.See(school.Class).Folders.ShouldNotContain(f => f.Name.Contains("Umi", StringComparison.Ordinal));
        var things = Shelf.Preview(school.Class, draft);
        var example = things.Single(t => t.ByStudent && !t.Out);
        example.Shown.ShouldBe("Example 1.txt");
        things.Single(t => t.Out).ShouldSatisfyAllConditions(t => t.Inside.ShouldBeTrue("“umi's pot” is written in it"), t => t.Names.ShouldBe(["Umi Hallgrímsson"]));
        Shelf.Preview(school.Class, draft with { Named = [example.Key] }).Single(t => t.Key == example.Key).Shown.ShouldBe("pot.txt");
        var zip = Texts(Shelf.Showcase(school.Lead, school.Class, draft, CancellationToken.None));
        zip.Keys.ShouldBe(["index.html", "Papers/glaze.txt", "Pinch pot/Example 1.txt"], ignoreOrder: true);
        string.Join('\n', zip.Keys.Append(zip["index.html"])).ShouldNotContain("Umi");
        Refused(() => Shelf.Set(school.Lead, school.Class, Draft())).ShouldBe("shelf-empty");
        Refused(() => Shelf.Set(school.Lead, school.Class, Draft("Papers") with { Until = new(2020, 1, 1) })).ShouldBe("date-range");
        Refused(() => Shelf.Set(school.Lead, school.Class, Draft("Papers") with { Title = " " })).ShouldBe("missing");
    }

    [Fact]
    public void A_shelf_of_an_archived_class_can_be_put_off_and_shut_and_no_other_is_opened_from_it()
    {
        var set = Shelf.Set(school.Lead, school.Class, Draft("Papers"));
        Return();
        school.Close();

        Refused(() => Shelf.Set(school.Lead, school.Class, Draft("Papers"))).ShouldBe("class-archived");
        Shelf.Change(school.Lead, school.Class, set.Id, set.Title, set.Text, school.Premises.Clock.Today.PlusMonths(3), null);
        Shelf.Shut(school.Lead, school.Class, set.Id);

        Refused(() => Shelf.Visit(set.Address["/shelf/".Length..])).ShouldBe("shelf-shut");
    }

    [Fact]
    public async Task Loose_things_are_gone_through_and_what_is_kept_goes_to_ones_own_papers()
    {
        var item = await school.Put(school.Lead, "Papers", "papers of the kiln.txt", "notes");
        school.Items.FileIn(school.Lead, school.Class, item, []);
        var loose = Tidying.See(school.Lead, school.Class).Things.ShouldHaveSingleItem();
        loose.ShouldSatisfyAllConditions(t => t.Preview.ShouldBe("notes"), t => t.Suggested!.Path.ShouldBe("Papers"));

        var papers = Tidying.Keep(school.Lead, school.Class, item);

        Tidying.See(school.Lead, school.Class).Things.ShouldBeEmpty();
        school.Read(c => ItemStore.OfClass(c, papers)).ShouldHaveSingleItem().Name.ShouldBe("papers of the kiln.txt");
        school.Workspace.Head(school.Lead, papers).Name.ShouldBe("Papers of Oisín Farquhar, 2026–27");
        new KeptCopies(school.Premises).Mine(school.CoTeacher).ShouldBeEmpty();
        Tidying.Unkeep(school.Lead, school.Class, item);
        Tidying.See(school.Lead, school.Class).Things.ShouldHaveSingleItem().Id.ShouldBe(item);
        school.Read(c => ItemStore.OfClass(c, papers)).ShouldBeEmpty();
    }

    [Fact]
    public async Task Each_folder_says_how_many_students_would_see_a_thing_there_as_the_rule_of_sight_has_it()
    {
        var item = await school.Put(school.Umi, "Shared table", "umi.txt", "mine");
        school.Items.FileIn(school.Lead, school.Class, item, []);
        var desk = Tidying.See(school.Lead, school.Class);
        var arranging = new Arranging(school.Premises);

        foreach (var f in desk.Folders)
        {
            var seeing = arranging.WhoSees(school.Class, f.Id).Where(p => p.Role == ClassRole.Student && p.Right >= Right.View).Select(p => p.Person).ToList();
            (f.Students, f.Only, f.All).ShouldBe((seeing.Count, seeing.Count == 1 ? seeing[0] : null, seeing.Count == 2), f.Path);
        }
        desk.Folders.Select(f => f.Students).Distinct().ShouldBe([0, 1, 2], ignoreOrder: true, customMessage: "staff alone, one each, the class");
        var umi = desk.Things.ShouldHaveSingleItem();
        umi.Student.ShouldBe(school.Umi.Id);
        desk.Folders.Single(f => f.Id == umi.Suggested!.Folder).ShouldSatisfyAllConditions(f => f.Only.ShouldBe(school.Umi.Id), f => f.Path.ShouldEndWith("Hallgrímsson, Umi"));
    }

    [Fact]
    public async Task What_is_kept_stands_by_the_class_that_it_is_from()
    {
        var item = await school.Put(school.Lead, "Papers", "kiln.txt", "notes");
        school.Items.FileIn(school.Lead, school.Class, item, []);
        var second = await school.Put(school.Lead, "Papers", "saw.txt", "notes");
        school.Items.FileIn(school.Lead, school.Class, second, []);

        var papers = Tidying.Keep(school.Lead, school.Class, item);
        Tidying.Keep(school.Lead, school.Class, second).ShouldBe(papers);

        var w = school.Workspace.See(school.Lead, papers);
        w.Folders.Select(f => f.Name).ShouldBe(["Papers", "Clay 6B · period 3 · 2026–27"]);
    }

    [Fact]
    public async Task What_a_student_put_in_is_not_kept_by_a_teacher()
    {
        var item = await school.Put(school.Umi, "Shared table", "umi.txt", "mine");
        school.Items.FileIn(school.Lead, school.Class, item, []);

        Refused(() => Tidying.Keep(school.Lead, school.Class, item)).ShouldBe("work-of-student");
    }

    [Fact]
    public void A_kept_copy_is_drawn_on_whatever_becomes_of_the_class_and_nobody_else_has_it()
    {
        var kept = new KeptCopies(school.Premises);
        var whole = kept.Keep(school.Lead, school.Class, null);
        var folder = kept.Keep(school.Lead, school.Class, school.FolderNamed("Papers"));
        Return();
        school.Close();
        MakeTakeHomes();
        school.Bin.Bin(school.Coordinator, school.Class, school.Workspace.Head(school.Coordinator, school.Class).Name);
        var to = school.Making.Make(school.Lead, school.New("Clay", "7A"));

        kept.Mine(school.Lead).Select(k => k.Id).ShouldBe([folder, whole], ignoreOrder: true);
        school.Read(c => FolderStore.OfClass(c, folder)).ShouldHaveSingleItem().Name.ShouldBe("Papers");
        school.Read(c => ItemStore.OfClass(c, whole)).ShouldAllBe(i => !i.ByStudent);
        var item = school.Read(c => ItemStore.OfClass(c, folder)).ShouldHaveSingleItem();
        new GivingOut(school.Premises).Give(school.Lead, folder, new([item.Id], null, null, false, [to]));
        school.Read(c => ItemStore.OfClass(c, to)).ShouldHaveSingleItem().Name.ShouldBe("glaze.txt");
        Refused(() => kept.Drop(school.Lead, to)).ShouldBe("not-found");
        kept.Drop(school.Lead, whole);
        kept.Mine(school.Lead).ShouldHaveSingleItem().Id.ShouldBe(folder);
    }

    [Fact]
    public void A_kept_copy_is_not_taken_for_next_years_class()
    {
        new KeptCopies(school.Premises).Keep(school.Lead, school.Class, null);

        school.Runs.See(school.Coordinator, null).Classes.Single(k => k.Id == school.Class).NextYearMade.ShouldBeFalse();
        school.Workspace.Mine(school.Lead).Select(k => k.Id).ShouldBe([school.Class]);
    }
}
