using SpringLoft.App.Assignments;
using SpringLoft.App.Closing;
using SpringLoft.App.People;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

/// <summary>Things and notices that ask to be read and acknowledged, by the student and at home.</summary>
public class AcknowledgementsTests : SchoolTest
{
    private readonly Acknowledgements asks;
    private readonly AtHome home;
    private readonly LocalDate until = new(2026, 9, 11);

    public AcknowledgementsTests()
    {
        school.OpenClass();
        asks = new(school.Premises);
        home = new(school.Premises, new(new GuessLimits(fromNetwork: 5)));
    }

    private async Task<(ItemId Item, long Asking)> Syllabus(AskedOf of = AskedOf.Both)
    {
        var item = await school.Items.AddPage(school.Lead, school.Class, school.FolderNamed("Papers"), "Syllabus", "We make *pots*.", CancellationToken.None);
        asks.Ask(school.Lead, school.Class, item, new(of, until));
        return (item, asks.Of(school.Lead, school.Class).Single(a => a.Item == item).Id);
    }

    private AskingView Table(long asking) => asks.See(school.Lead, school.Class, asking);

    private string CodeOf(long asking, Caller student) => asks.Papers(school.Lead, school.Class, asking).Papers.Single(p => p.Person == student.Id).Code;

    [Fact]
    public async Task A_page_is_acknowledged_by_the_student_and_at_home()
    {
        var (_, asking) = await Syllabus();
        asks.Of(school.Lead, school.Class).Single().ShouldSatisfyAllConditions(l => l.Students.ShouldBe(2), l => l.OwnLeft.ShouldBe(2), l => l.HomeLeft.ShouldBe(2), l => l.Done.ShouldBe(0), l => l.Reached.ShouldBeTrue());
        asks.Say(school.Umi, school.Class, asking);
        var code = CodeOf(asking, school.Umi);
        CodeOf(asking, school.Umi).ShouldBe(code, "printed again it is the same: the first paper goes on opening it");
        CodeOf(asking, school.Rúna).ShouldNotBe(code);
        home.See(code, "here").Files.ShouldBeEmpty();
        (home.See(code, "here") with { Files = [] }).ShouldBe(new("Tiny", "Clay 6B · period 3 · 2026–27", "Umi", "Oisín Farquhar", "Syllabus", "We make *pots*.", null, [], until, null, null));
        home.Say(code, " Hallgrímur ", "here");
        home.See(code, "here").SaidBy.ShouldBe("Hallgrímur");
        var table = Table(asking);
        table.Line.Done.ShouldBe(1);
        table.Rows[0].SortName.ShouldBe("Ravndal, Rúna", "of whom something is outstanding comes first");
        table.Rows[1].ShouldSatisfyAllConditions(r => r.HomeName.ShouldBe("Hallgrímur"), r => r.NotedBy.ShouldBeNull(), r => r.OwnAt.ShouldNotBeNull(), r => r.OwnLeft.ShouldBeFalse(), r => r.HomeLeft.ShouldBeFalse());
        asks.Papers(school.Lead, school.Class, asking).Papers.Select(p => p.Person).ShouldBe([school.Rúna.Id], "who has answered needs no paper");
    }

    [Fact]
    public async Task Said_again_it_stays_as_it_was_said_first()
    {
        var (_, asking) = await Syllabus();
        asks.Say(school.Umi, school.Class, asking);
        var first = Table(asking).Rows.Single(r => r.Person == school.Umi.Id).OwnAt;
        var code = CodeOf(asking, school.Umi);
        home.Say(code, "Mother", "here");
        school.Clock.AdvanceHours(5);
        asks.Say(school.Umi, school.Class, asking);
        home.Say(code, "Somebody else", "here");
        var row = Table(asking).Rows.Single(r => r.Person == school.Umi.Id);
        (row.OwnAt, row.HomeName).ShouldBe((first, "Mother"));
    }

    [Fact]
    public async Task Asked_anew_what_was_said_stays_on_record_and_does_not_count()
    {
        var (item, asking) = await Syllabus();
        asks.Say(school.Umi, school.Class, asking);
        var code = CodeOf(asking, school.Umi);
        home.Say(code, "Mother", "here");
        school.Clock.AdvanceMinutes(1);
        await school.Items.ChangePage(school.Lead, school.Class, item, "Syllabus", "We make plates.", 1, CancellationToken.None);
        Table(asking).Rows.Single(r => r.Person == school.Umi.Id).BeforeChange.ShouldBeTrue();
        asks.Anew(school.Lead, school.Class, asking);
        var row = Table(asking).Rows.Single(r => r.Person == school.Umi.Id);
        (row.OwnLeft, row.HomeLeft, row.Earlier, row.OwnAt, row.HomeName).ShouldBe((true, true, true, null, null));
        home.See(code, "here").ShouldSatisfyAllConditions(v => v.SaidBy.ShouldBeNull(), v => v.Text.ShouldBe("We make plates."));
        home.Say(code, "Father", "here");
        Table(asking).Rows.Single(r => r.Person == school.Umi.Id).HomeName.ShouldBe("Father");
    }

    [Fact]
    public async Task It_is_asked_of_whoever_finds_it_and_of_nobody_else()
    {
        var weeks = school.Making.Make(school.Lead, school.New("Clay", "6D", "By week"));
        school.Roster.Enroll(school.Lead, weeks, [school.Umi.Id, school.Rúna.Id], ClassRole.Student);
        school.Making.Open(school.Lead, weeks, school.Workspace.Head(school.Lead, weeks).Version);
        var folder = school.Workspace.See(school.Lead, weeks).Folders.First(f => f.OwnOf == "Umi Hallgrímsson").Id;
        var item = await school.Items.AddPage(school.Lead, weeks, folder, "For you", "Read.", CancellationToken.None);
        asks.Ask(school.Lead, weeks, item, new(AskedOf.Both, until));
        var own = asks.Of(school.Lead, weeks).Single().Id;
        asks.See(school.Lead, weeks, own).Rows.Select(r => r.Person).ShouldBe([school.Umi.Id]);
        Refused(() => asks.Say(school.Rúna, weeks, own)).ShouldBe("not-found");
        school.Workspace.See(school.Rúna, weeks).Items.ShouldBeEmpty();
        school.Workspace.See(school.Umi, weeks).Items.Single().Asked!.Own.ShouldBeTrue();
        school.Workspace.See(school.Lead, weeks).Items.Single().Asks.ShouldBe(new Asks(AskedOf.Both, until));
        Refused(() => asks.See(school.Lead, school.Class, own)).ShouldBe("not-found", "it is another class's");
    }

    [Fact]
    public async Task Who_comes_later_is_asked_too_and_who_left_no_more()
    {
        var (_, asking) = await Syllabus();
        var code = CodeOf(asking, school.Umi);
        school.Roster.Enroll(school.Lead, school.Class, [school.Outsider.Id], ClassRole.Student);
        Table(asking).Line.Students.ShouldBe(3);
        school.Roster.Remove(school.Lead, school.Class, school.Umi.Id);
        Table(asking).Line.Students.ShouldBe(2);
        Refused(() => home.See(code, "here")).ShouldBe("home-code");
    }

    [Fact]
    public async Task A_code_opens_nothing_once_it_is_not_asked_any_more()
    {
        var (item, asking) = await Syllabus();
        var code = CodeOf(asking, school.Umi);
        home.Say(code, "Mother", "here");
        asks.Ask(school.Lead, school.Class, item, new(AskedOf.Student, null));
        Refused(() => home.See(code, "here")).ShouldBe("home-code");
        asks.Ask(school.Lead, school.Class, item, null);
        asks.Of(school.Lead, school.Class).ShouldBeEmpty();
        Refused(() => home.See(code, "here")).ShouldBe("home-code");
        asks.Ask(school.Lead, school.Class, item, new(AskedOf.Both, until));
        home.See(code, "here").SaidBy.ShouldBe("Mother", "what was said stays");
        school.Items.Bin(school.Lead, school.Class, item);
        Refused(() => home.See(code, "here")).ShouldBe("home-code");
    }

    [Fact]
    public async Task Whoever_guesses_is_stopped_and_the_right_code_waits_with_them()
    {
        var (_, asking) = await Syllabus();
        var code = CodeOf(asking, school.Umi);
        for (var i = 0; i < 5; i++) Refused(() => home.See($"CDFG-HJKM-NPQ{i switch { 0 => 'C', 1 => 'D', 2 => 'F', 3 => 'G', _ => 'H' }}", "there")).ShouldBe("home-code");
        Refused(() => home.See(code, "there")).ShouldBe("home-slow");
        home.See(code, "elsewhere").Student.ShouldBe("Umi");
    }

    [Fact]
    public async Task A_file_opens_by_its_code_alone()
    {
        var item = await school.Put(school.Lead, "Papers", "trip.pdf", "the trip");
        asks.Ask(school.Lead, school.Class, item, new(AskedOf.Home, null));
        var code = CodeOf(asks.Of(school.Lead, school.Class).Single().Id, school.Rúna);
        home.See(code, "here").Files.ShouldBe([new AtHomeFile(null, "trip.pdf")]);
        using var reader = new StreamReader(home.Open(code, "here").Content);
        (await reader.ReadToEndAsync()).ShouldBe("the trip");
        Refused(() => asks.Say(school.Umi, school.Class, asks.Of(school.Lead, school.Class).Single().Id)).ShouldBe("ask-home");
    }

    [Fact]
    public async Task Files_with_a_notice_open_by_the_code_that_asks_about_it_and_no_others()
    {
        var (notices, files) = (new Notices(school.Premises), new NoticeFiles(school.Premises));
        async Task<ToTell> Sent(string name, string text) => new(null, (await files.Upload(school.Lead, name, TinySchool.Bytes(text), CancellationToken.None)).Id);
        var other = notices.Post(school.Lead, new("Bring boots.", [school.Class], null, false, null, null, null, [await Sent("other.txt", "no")]));
        notices.Post(school.Lead, new("The trip.", [school.Class], null, false, null, null, new(AskedOf.Home, null), [await Sent("plan.txt", "to the quay")]));
        var code = CodeOf(asks.Of(school.Lead, school.Class).Single().Id, school.Umi);

        var file = home.See(code, "here").Files.Single();
        file.Name.ShouldBe("plan.txt");
        using var reader = new StreamReader(home.Open(code, "here", file.OfNotice).Content);
        (await reader.ReadToEndAsync()).ShouldBe("to the quay");
        var not = school.Read(c => Store.Workspaces.NoticeFileStore.Of(c, [other]))[other].Single().Id;
        Refused(() => home.Open(code, "here", not)).ShouldBe("not-found");
        Refused(() => home.Open(code, "here")).ShouldBe("not-found");
    }

    [Fact]
    public async Task A_signed_paper_is_noted_with_who_noted_it_and_taken_back()
    {
        var (_, asking) = await Syllabus();
        asks.NotePaper(school.CoTeacher, school.Class, asking, school.Umi.Id, "H. Hallgrímsson");
        Table(asking).Rows.Single(r => r.Person == school.Umi.Id).ShouldSatisfyAllConditions(r => r.HomeName.ShouldBe("H. Hallgrímsson"), r => r.NotedBy.ShouldBe("Léa Winterbourne"));
        asks.TakeBackNoted(school.Lead, school.Class, asking, school.Umi.Id);
        Table(asking).Rows.Single(r => r.Person == school.Umi.Id).HomeLeft.ShouldBeTrue();
        home.Say(CodeOf(asking, school.Umi), "Mother", "here");
        asks.TakeBackNoted(school.Lead, school.Class, asking, school.Umi.Id);
        Table(asking).Rows.Single(r => r.Person == school.Umi.Id).HomeName.ShouldBe("Mother", "what came from home is not for staff to take back");
        Refused(() => asks.NotePaper(school.Lead, school.Class, asking, school.Outsider.Id, "x")).ShouldBe("not-found");
    }

    [Fact]
    public async Task A_reminder_reaches_whom_it_is_outstanding_of_once_a_day()
    {
        var (_, asking) = await Syllabus(AskedOf.Student);
        asks.Say(school.Umi, school.Class, asking);
        asks.Remind(school.Lead, school.Class, asking).ShouldBe(new Reminded(1, 0));
        asks.Remind(school.CoTeacher, school.Class, asking).ShouldBe(new Reminded(0, 1));
        new Today(school.Premises).See(school.Rúna).Asked.Single().ShouldSatisfyAllConditions(a => a.Reminded.ShouldBeTrue(), a => a.Own.ShouldBeTrue(), a => a.Title.ShouldBe("Syllabus"));
        new Today(school.Premises).See(school.Umi).Asked.ShouldBeEmpty();
        new Today(school.Premises).See(school.Lead).Asking.Single().ShouldSatisfyAllConditions(a => a.Left.ShouldBe(1), a => a.Students.ShouldBe(2), a => a.Late.ShouldBeFalse());
        school.Clock.AdvanceDays(5);
        asks.Remind(school.Lead, school.Class, asking).Students.ShouldBe(1);
        new Today(school.Premises).See(school.Lead).Asking.Single().Late.ShouldBeTrue();
    }

    [Fact]
    public void A_notice_to_several_classes_is_acknowledged_once()
    {
        var other = school.Making.Make(school.Lead, school.New("Clay", "6C"));
        school.Roster.Enroll(school.Lead, other, [school.Umi.Id], ClassRole.Student);
        school.Making.Open(school.Lead, other, school.Workspace.Head(school.Lead, other).Version);
        var notices = new Notices(school.Premises);
        notices.Post(school.Lead, new("Bring an apron.", [school.Class, other], null, false, null, null, new(AskedOf.Student, until)));
        var asking = asks.Of(school.Lead, other).Single();
        (asking.Kind, asking.Title, asking.Students).ShouldBe((null, "Bring an apron.", 1));
        new Today(school.Premises).See(school.Umi).Asked.Count.ShouldBe(1);
        asks.Say(school.Umi, school.Class, asking.Id);
        asks.Of(school.Lead, other).Single().Done.ShouldBe(1);
        asks.Of(school.Lead, school.Class).Single().Done.ShouldBe(1);
        var line = notices.Mine(school.Lead).Notices.Single();
        line.Asks.ShouldBe(new Asks(AskedOf.Student, until));
        notices.Withdraw(school.Lead, line.Id, line.Version);
        asks.Of(school.Lead, school.Class).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_thing_is_called_by_its_name_as_it_is_and_a_notice_by_its_words()
    {
        var item = await school.Put(school.Lead, "Papers", "1. Rules *for all*.txt", "rules");
        asks.Ask(school.Lead, school.Class, item, new(AskedOf.Student, null));
        new Notices(school.Premises).Post(school.Lead, new("## Bring an **apron**\n\n- and a towel", [school.Class], null, false, null, null, new(AskedOf.Student, null)));
        var named = school.Workspace.See(school.Lead, school.Class).Items.Single().Name;
        named.ShouldStartWith("1. Rules");
        asks.Of(school.Lead, school.Class).Select(a => a.Title).ShouldBe([named, "Bring an apron and a towel"], ignoreOrder: true);
        new Today(school.Premises).See(school.Umi).Asked.Select(a => a.Title).ShouldBe([named, "Bring an apron and a towel"], ignoreOrder: true);
        new News(school.Premises).See(school.Umi).Lines.Where(l => l.Kind == NewsKind.Asked).Select(l => l.Title).ShouldContain(named);
    }

    [Fact]
    public void One_that_is_not_posted_yet_asks_nobody()
    {
        new Notices(school.Premises).Post(school.Lead, new("Later.", [school.Class], null, false, new(2026, 9, 9, 8, 0), null, new(AskedOf.Both, null)));
        asks.Of(school.Lead, school.Class).Single().ShouldSatisfyAllConditions(a => a.Reached.ShouldBeFalse(), a => a.Students.ShouldBe(0));
        new Today(school.Premises).See(school.Umi).Asked.ShouldBeEmpty();
        Refused(() => asks.Say(school.Umi, school.Class, asks.Of(school.Lead, school.Class).Single().Id)).ShouldBe("not-found");
    }

    [Fact]
    public async Task What_cannot_be_asked_is_said()
    {
        var (item, asking) = await Syllabus(AskedOf.Student);
        Refused(() => asks.Ask(school.Lead, school.Class, item, new(AskedOf.Both, new(2026, 9, 1)))).ShouldBe("ask-past");
        Refused(() => asks.Papers(school.Lead, school.Class, asking)).ShouldBe("ask-none");
        Refused(() => asks.NotePaper(school.Lead, school.Class, asking, school.Umi.Id, "x")).ShouldBe("ask-own");
        Refused(() => new Notices(school.Premises).Post(school.Coordinator, new("All.", null, null, true, null, null, new(AskedOf.Both, null)))).ShouldBe("ask-school");
        new Notices(school.Premises).Mine(school.Coordinator).Notices.ShouldBeEmpty("nothing of it is kept");
        Refused(() => asks.Ask(school.Umi, school.Class, item, null)).ShouldBe("not-allowed");
        Refused(() => asks.See(school.Outsider, school.Class, asking)).ShouldBe("not-found");
        school.Clock.AdvanceDays(30);
        asks.Ask(school.Lead, school.Class, item, new(AskedOf.Both, until));
    }

    [Fact]
    public async Task It_goes_into_the_package_and_comes_back_in()
    {
        var (_, asking) = await Syllabus();
        asks.Say(school.Umi, school.Class, asking);
        home.Say(CodeOf(asking, school.Umi), "Mother", "here");
        asks.Anew(school.Lead, school.Class, asking);
        asks.NotePaper(school.Lead, school.Class, asking, school.Rúna.Id, "Father");
        school.Close();
        Refused(() => asks.Say(school.Umi, school.Class, asking)).ShouldBe("class-archived");
        using var zip = new MemoryStream();
        await using (var content = school.Loft.OpenPackage(school.Class).Content) await content.CopyToAsync(zip);
        zip.Position = 0;
        var made = (await new PackageIntake(school.Premises).Read(school.Coordinator, school.Years[0].Id, zip, apply: true, CancellationToken.None)).Made!.Value;
        var a = asks.Of(school.Coordinator, made).Single();
        (a.Title, a.Of, a.Until, a.Wording).ShouldBe(("Syllabus", AskedOf.Both, until, 2));
        var rows = asks.See(school.Coordinator, made, a.Id).Rows;
        rows.Single(r => r.Person == school.Umi.Id).Earlier.ShouldBeTrue();
        rows.Single(r => r.Person == school.Rúna.Id).HomeName.ShouldBe("Father");
    }

    [Fact]
    public async Task Given_to_another_class_it_asks_there_and_nobody_has_said_so_yet()
    {
        var (item, asking) = await Syllabus();
        asks.Say(school.Umi, school.Class, asking);
        var other = school.Making.Make(school.Lead, school.New("Clay", "6C"));
        school.Roster.Enroll(school.Lead, other, [school.Umi.Id], ClassRole.Student);
        new GivingOut(school.Premises).Give(school.Lead, school.Class, new([item], null, null, false, [other]));
        var there = asks.Of(school.Lead, other).Single();
        (there.Of, there.Until, there.Students, there.Done).ShouldBe((AskedOf.Both, until, 1, 0));
    }

    [Fact]
    public async Task Next_years_class_asks_anew_without_a_day()
    {
        var (_, asking) = await Syllabus();
        asks.Say(school.Umi, school.Class, asking);
        var next = school.Rolling.Make(school.Lead, school.Class, new(null, null, null));
        var there = asks.Of(school.Lead, next).Single();
        (there.Title, there.Of, there.Until, there.Students).ShouldBe(("Syllabus", AskedOf.Both, null, 0));
    }

    [Fact]
    public async Task Two_accounts_that_are_joined_have_what_both_said()
    {
        var (_, asking) = await Syllabus(AskedOf.Student);
        asks.Say(school.Umi, school.Class, asking);
        school.Premises.Db.Write(c => Store.People.PersonJoinStore.Join(c, school.Outsider.Id, school.Umi.Id, school.Coordinator.Id, school.Premises.Clock.Now));
        Table(asking).Rows.Single(r => r.Person == school.Outsider.Id).OwnLeft.ShouldBeFalse();
        school.Premises.Db.Write(c => Store.People.PersonJoinStore.Undo(c, Store.People.PersonJoinStore.All(c, 1)[0], school.Premises.Clock.Now));
        Table(asking).Rows.Single(r => r.Person == school.Umi.Id).OwnLeft.ShouldBeFalse();
    }
}
