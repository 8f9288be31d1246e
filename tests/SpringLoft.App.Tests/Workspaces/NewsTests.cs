using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Letters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

/// <summary>What concerns somebody, in one list, and as a daily letter.</summary>
public class NewsTests : SchoolTest
{
    private readonly News news;
    private readonly NewsLetters letters;

    public NewsTests()
    {
        school.OpenClass();
        news = new(school.Premises);
        letters = new(school.Premises, news, new(() => new Uri("https://loft.example/")));
        school.Clock.AdvanceMinutes(1);
    }

    private IEnumerable<(NewsKind Kind, string Title, bool New)> Of(Caller who) => news.See(who).Lines.Select(l => (l.Kind, l.Title, l.New));

    private void Tell(string text, Caller? by = null) => new Notices(school.Premises).Post(by ?? school.Lead, new(text, [school.Class], null, false, null, null));

    private string? Letter(string to) => school.Read(c => LetterStore.Newest(c, 100)).FirstOrDefault(l => l.ToAddress == to)?.Text;

    [Fact]
    public async Task A_student_is_told_what_was_published_what_came_back_and_what_was_written_about_it()
    {
        var pot = school.Assign();
        await school.HandIn(school.Umi, pot);
        school.Clock.AdvanceMinutes(1);
        var work = school.Read(c => Store.Assignments.WorkStore.OfStudent(c, school.Class, school.Umi.Id)).Single();
        var marked = school.Returns.Mark(school.Lead, school.Class, work.Id, 18, work.Version);
        school.Returns.Comment(school.Lead, school.Class, work.Id, "Between us, as yet.");
        Of(school.Umi).Select(l => l.Kind).ShouldBe([NewsKind.Published], "what is not returned yet, is not told");
        school.Returns.Return(school.Lead, school.Class, work.Id, unmarkedToo: false, marked.Version);
        Of(school.Umi).Select(l => l.Kind).ShouldNotContain(NewsKind.Comment, "it came back with the work");
        school.Clock.AdvanceMinutes(1);
        school.Returns.Comment(school.Lead, school.Class, work.Id, "Fine.");
        Of(school.Umi).ShouldBe([(NewsKind.Returned, "Pinch pot", true), (NewsKind.Comment, "Pinch pot", true), (NewsKind.Published, "Pinch pot", true)], ignoreOrder: true);
        Of(school.Rúna).ShouldBe([(NewsKind.Published, "Pinch pot", true)], "what came back is its student's");
        news.See(school.Umi).Lines.First(l => l.Kind == NewsKind.Returned).Path.ShouldBe($"/classes/{school.Class.Value}?folder={school.FolderNamed("Papers").Value}");
        Of(school.Outsider).ShouldBeEmpty();
    }

    [Fact]
    public void What_was_looked_at_is_not_new_any_more()
    {
        Tell("First.");
        news.Count(school.Umi).New.ShouldBe(1);
        news.Seen(school.Umi, news.See(school.Umi).Lines[0].At);
        news.Count(school.Umi).New.ShouldBe(0);
        school.Clock.AdvanceMinutes(1);
        Tell("Second.");
        Of(school.Umi).ShouldBe([(NewsKind.Notice, "Second.", true), (NewsKind.Notice, "First.", false)]);
        news.Seen(school.Umi, school.Premises.Clock.Now - Duration.FromDays(1));
        news.Count(school.Umi).New.ShouldBe(1, "a look of before takes nothing back");
        news.Seen(school.Umi, school.Premises.Clock.Now + Duration.FromDays(100));
        school.Clock.AdvanceMinutes(1);
        Tell("Third.");
        news.Count(school.Umi).New.ShouldBe(1, "nobody looks at what is to come");
    }

    [Fact]
    public void Whoever_may_not_find_it_is_not_told_of_it()
    {
        var staff = school.Read(c => FolderStore.OfClass(c, school.Class)).First(f => f.Rule == FolderRule.StaffOnly).Id;
        var talking = new Talking(school.Premises);
        talking.Set(school.Lead, school.Class, staff, new(TalkWriters.Readers, null, null, false, 0));
        talking.Write(school.CoTeacher, school.Class, staff, "Between us.", null);
        school.Assigning.Make(school.Lead, school.Class, new("Hidden", "", 20, null, null, null, [staff], null, Publish: true, PublishAt: null));
        Of(school.Umi).ShouldBeEmpty();
        Tell("For all.");
        school.Roster.Remove(school.Lead, school.Class, school.Umi.Id);
        Of(school.Umi).ShouldBeEmpty("who has left is told no more");
    }

    [Fact]
    public void Staff_are_told_of_questions_and_whoever_wrote_of_answers()
    {
        var talking = new Talking(school.Premises);
        var papers = school.FolderNamed("Papers");
        talking.Set(school.Lead, school.Class, papers, new(TalkWriters.Readers, null, null, false, 0));
        var asked = talking.Write(school.Umi, school.Class, papers, "How hot?", null);
        school.Clock.AdvanceMinutes(1);
        talking.Write(school.Lead, school.Class, papers, "Very.", asked);
        Of(school.Lead).ShouldBe([(NewsKind.Question, "Papers", true)]);
        Of(school.Umi).ShouldBe([(NewsKind.Answer, "Papers", true)]);
        Of(school.Rúna).ShouldBeEmpty("others' questions and answers are not hers");
        talking.Write(school.Rúna, school.Class, papers, "Here.", null);
        news.See(school.CoTeacher).Lines.Single(l => l.Kind == NewsKind.Question).ShouldSatisfyAllConditions(l => l.By.ShouldBe("Rúna Ravndal"), l => l.Others.ShouldBe(1));
        school.Premises.Db.Write(c => TalkStore.Hide(c, TalkStore.AllOf(c, school.Class)[^1].Id, school.Premises.Clock.Now, school.Lead.Id, "twice"));
        talking.Hide(school.Lead, school.Class, papers, asked, "rude");
        Of(school.CoTeacher).ShouldBeEmpty("what is hidden is told to nobody");
    }

    [Fact]
    public async Task What_is_to_be_acknowledged_is_told_and_told_again_by_a_reminder()
    {
        var asks = new Acknowledgements(school.Premises);
        var item = await school.Put(school.Lead, "Papers", "rules.txt", "rules");
        asks.Ask(school.Lead, school.Class, item, new(AskedOf.Student, null));
        Of(school.Umi).ShouldBe([(NewsKind.Asked, "rules.txt", true)]);
        news.Seen(school.Umi, school.Premises.Clock.Now);
        school.Clock.AdvanceDays(1);
        asks.Remind(school.Lead, school.Class, asks.Of(school.Lead, school.Class)[0].Id);
        news.Count(school.Umi).New.ShouldBe(1);
        asks.Say(school.Umi, school.Class, asks.Of(school.Lead, school.Class)[0].Id);
        Of(school.Umi).ShouldBeEmpty();
    }

    [Fact]
    public void The_coordinator_is_told_when_a_run_of_theirs_ended()
    {
        var run = school.Closing.Close(school.Coordinator, school.Class, AfterArchive.View);
        school.Go(run);
        var line = news.See(school.Coordinator).Lines.Single(l => l.Kind == NewsKind.RunEnded);
        (line.Run!.Classes, line.Run.Done, line.Run.Failed, line.Path).ShouldBe((1, 1, false, $"/close/runs/{run.Value}"));
        news.See(school.Lead).Lines.ShouldBeEmpty("it is not theirs");
    }

    [Fact]
    public void What_somebody_does_not_want_to_be_told_is_neither_listed_nor_counted()
    {
        Tell("A notice.");
        school.Assign();
        news.Set(school.Umi, new([NewsKind.Notice], false));
        Of(school.Umi).Select(l => l.Kind).ShouldBe([NewsKind.Published]);
        news.Count(school.Umi).New.ShouldBe(1);
        news.See(school.Umi).Quiet.ShouldBe([NewsKind.Notice]);
        news.Set(school.Umi, new([], false));
        news.Count(school.Umi).New.ShouldBe(2);
    }

    [Fact]
    public void A_letter_comes_once_a_day_and_only_with_something_new()
    {
        Refused(() => news.Set(school.Umi, new([], true))).ShouldBe("news-no-address");
        news.Set(school.CoTeacher, new([], true));
        letters.Go().ShouldBe(0, "nothing is new");
        school.Clock.AdvanceMinutes(1);
        Tell("Aprons **home**.");
        letters.Go().ShouldBe(0, "the letter of this day was looked at already");
        school.Clock.AdvanceDays(1);
        letters.Go().ShouldBe(1);
        letters.Go().ShouldBe(0);
        school.Letters.ShouldBe(["co@tiny.invalid: News from Tiny"]);
        Letter("co@tiny.invalid")!.ShouldContain("Clay, Oisín Farquhar: Aprons home.");
        Letter("co@tiny.invalid")!.ShouldContain("https://loft.example/classes/");
        school.Clock.AdvanceMinutes(1);
        Tell("Later that day.");
        letters.Go().ShouldBe(0, "one a day");
        school.Clock.AdvanceDays(1);
        letters.Go().ShouldBe(1);
        Letter("co@tiny.invalid")!.ShouldContain("Later that day.");
        Letter("co@tiny.invalid")!.ShouldNotContain("Aprons", Case.Insensitive, "what was in a letter is not in the next");
        school.Clock.AdvanceDays(1);
        letters.Go().ShouldBe(0);
    }

    [Fact]
    public void What_was_seen_on_the_screen_is_in_no_letter()
    {
        news.Set(school.CoTeacher, new([], true));
        Tell("Seen.");
        news.Seen(school.CoTeacher, school.Premises.Clock.Now);
        school.Clock.AdvanceDays(1);
        letters.Go().ShouldBe(0);
    }

    [Fact]
    public void A_notice_to_several_of_their_classes_is_told_once()
    {
        var other = school.Making.Make(school.Lead, school.New("Clay", "6C"));
        school.Roster.Enroll(school.Lead, other, [school.Umi.Id], ClassRole.Student);
        school.Making.Open(school.Lead, other, school.Workspace.Head(school.Lead, other).Version);
        new Notices(school.Premises).Post(school.Lead, new("To both.", [school.Class, other], null, false, null, null));
        Of(school.Umi).Count().ShouldBe(1);
    }
}
