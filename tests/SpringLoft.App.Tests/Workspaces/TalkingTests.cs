using SpringLoft.App.Closing;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

/// <summary>A folder as a place to talk.</summary>
public class TalkingTests : SchoolTest
{
    private readonly Talking talking;
    private readonly FolderId papers;

    public TalkingTests()
    {
        school.OpenClass();
        talking = new(school.Premises);
        papers = school.FolderNamed("Papers");
        Make();
    }

    private void Make(TalkWriters writers = TalkWriters.Readers, string? question = null, bool closed = false, GroupId? group = null) =>
        talking.Set(school.Lead, school.Class, papers, new(writers, group, question, closed, Seen(school.Lead).Setting?.Version ?? 0));

    private TalkView Seen(Caller who, long? before = null) => talking.See(who, school.Class, papers, before);

    private long Say(Caller who, string text, long? answers = null) => talking.Write(who, school.Class, papers, text, answers);

    [Fact]
    public void Messages_and_answers_are_read_by_whoever_sees_the_folder()
    {
        var first = Say(school.Umi, "How hot is the kiln?");
        Say(school.Lead, "**Very**.", first);
        var seen = Seen(school.Rúna).Messages;
        seen.Select(m => (m.Name, m.Staff, m.Mine, m.Text, m.Answers)).ShouldBe([("Umi Hallgrímsson", false, false, "How hot is the kiln?", null), ("Oisín Farquhar", true, false, "**Very**.", first)]);
        Seen(school.Umi).Messages[0].Mine.ShouldBeTrue();
        Refused(() => talking.See(school.Outsider, school.Class, papers, null)).ShouldBe("not-found");
        Refused(() => talking.Write(school.Outsider, school.Class, papers, "hello", null)).ShouldBe("not-found");
    }

    [Fact]
    public void In_a_folder_that_students_do_not_see_they_read_and_write_nothing()
    {
        var staff = school.Read(c => FolderStore.OfClass(c, school.Class)).First(f => f.Rule == FolderRule.StaffOnly).Id;
        talking.Set(school.Lead, school.Class, staff, new(TalkWriters.Readers, null, null, false, 0));
        talking.Write(school.CoTeacher, school.Class, staff, "Between us.", null);
        Refused(() => talking.See(school.Umi, school.Class, staff, null)).ShouldBe("not-found");
        Refused(() => talking.Write(school.Umi, school.Class, staff, "hello", null)).ShouldBe("not-found");
    }

    [Fact]
    public async Task Who_is_set_to_read_only_in_the_middle_of_writing_is_told_and_hands_in_as_before()
    {
        Say(school.Umi, "first");
        talking.SetReader(school.Lead, school.Class, school.Umi.Id, true);
        Refused(() => Say(school.Umi, "second")).ShouldBe("talk-shut");
        Seen(school.Umi).CantWrite.ShouldBe(CantTalk.ReadsOnly);
        Seen(school.Lead).ReadOnly.Single().Name.ShouldBe("Umi Hallgrímsson");
        Seen(school.Rúna).ReadOnly.ShouldBeEmpty("that is for staff");
        var a = school.Assign();
        await school.HandIn(school.Umi, a);
        talking.SetReader(school.Lead, school.Class, school.Umi.Id, false);
        Say(school.Umi, "third");

        talking.SetQuiet(school.Lead, school.Class, true);
        (Seen(school.Rúna).CantWrite, Seen(school.Lead).CantWrite).ShouldBe((CantTalk.ClassReadsOnly, null));
        talking.SetQuiet(school.Lead, school.Class, false);
        Refused(() => talking.SetReader(school.Umi, school.Class, school.Rúna.Id, true)).ShouldBe("not-allowed");
        Refused(() => talking.SetReader(school.Lead, school.Class, school.CoTeacher.Id, true)).ShouldBe("not-found", "staff are not meant");
    }

    [Fact]
    public void A_hidden_message_is_kept_with_who_hid_it_and_why()
    {
        var bad = Say(school.Umi, "something unkind");
        talking.Hide(school.CoTeacher, school.Class, papers, bad, "Unkind.");
        Seen(school.Rúna).Messages.Single().ShouldSatisfyAllConditions(m => m.Text.ShouldBeNull(), m => m.Hidden.ShouldBeTrue(), m => m.HiddenWhy.ShouldBeNull());
        Seen(school.Umi).Messages.Single().Text.ShouldBeNull();
        Seen(school.Lead).Messages.Single().ShouldSatisfyAllConditions(m => m.Text.ShouldBe("something unkind"), m => m.HiddenWhy.ShouldBe("Unkind."), m => m.HiddenBy.ShouldNotBeNull());
        Refused(() => Say(school.Rúna, "what?", bad)).ShouldBe("talk-gone");
        Refused(() => talking.Hide(school.Umi, school.Class, papers, bad, null)).ShouldBe("not-allowed");
        talking.Show(school.Lead, school.Class, papers, bad);
        Seen(school.Rúna).Messages.Single().Text.ShouldBe("something unkind");
    }

    [Fact]
    public void A_closed_place_is_read_and_written_in_by_nobody_until_it_is_opened_again()
    {
        Say(school.Umi, "before");
        Make(closed: true);
        foreach (var who in new[] { school.Umi, school.Lead }) Refused(() => Say(who, "after")).ShouldBe("talk-shut");
        Seen(school.Umi).Messages.Count.ShouldBe(1);
        Make();
        Say(school.Umi, "again");
        Refused(() => talking.Set(school.Lead, school.Class, papers, new(TalkWriters.Staff, null, null, false, 1))).ShouldBe("changed-meanwhile");
        Refused(() => talking.Set(school.Lead, school.Class, papers, new(TalkWriters.Group, null, null, false, 3))).ShouldBe("missing");
    }

    [Fact]
    public void A_question_is_answered_once_a_school_day()
    {
        Make(question: "Are you here?");
        Seen(school.Umi).ShouldSatisfyAllConditions(v => v.AsksToday.ShouldBeTrue(), v => v.Answered.ShouldBeFalse());
        var said = Say(school.Umi, "here");
        Seen(school.Umi).Answered.ShouldBeTrue();
        talking.Answered(school.Lead, school.Class, papers, null).Select(a => (a.Person == school.Umi.Id, a.At is not null)).ShouldBe([(false, false), (true, true)]);
        var day = school.Premises.Clock.Today;
        talking.Hide(school.Lead, school.Class, papers, said, null);
        talking.Answered(school.Lead, school.Class, papers, null).ShouldAllBe(a => a.At == null, "what is hidden is no answer");
        talking.Show(school.Lead, school.Class, papers, said);
        school.Clock.AdvanceDays(1);
        talking.Answered(school.Lead, school.Class, papers, null).ShouldAllBe(a => a.At == null);
        talking.Answered(school.Lead, school.Class, papers, day).Count(a => a.At is not null).ShouldBe(1);
        Refused(() => talking.Answered(school.Umi, school.Class, papers, null)).ShouldBe("not-allowed");
        while (Core.Years.SchoolWeeks.IsSchoolDay(school.Read(Store.Years.YearStore.All)[0].Year, school.Premises.Clock.Today)) school.Clock.AdvanceDays(1);
        Seen(school.Umi).AsksToday.ShouldBeFalse("there is no school");
    }

    [Fact]
    public void Of_very_many_the_newest_are_shown_and_the_earlier_ones_are_fetched()
    {
        school.Premises.Db.Write(c => { for (var n = 0; n < 1000; n++) TalkStore.Add(c, school.Class, papers, school.Umi.Id, $"{n}", null, school.Clock.GetCurrentInstant(), school.Premises.Clock.Today); });
        var seen = Seen(school.Rúna);
        (seen.Messages.Count, seen.Messages[^1].Text, seen.Earlier).ShouldBe((Talking.Shown, "999", 1000 - Talking.Shown));
        var before = Seen(school.Rúna, seen.Messages[0].Id);
        (before.Messages[^1].Text, before.Earlier).ShouldBe(($"{999 - Talking.Shown}", 1000 - (2 * Talking.Shown)));
    }

    [Fact]
    public async Task It_stays_with_the_class_into_the_package_and_next_year_begins_empty()
    {
        Make(question: "Are you here?");
        var first = Say(school.Umi, "here");
        Say(school.Lead, "good", first);
        talking.Hide(school.Lead, school.Class, papers, first, "a test");
        var next = school.Rolling.Make(school.Lead, school.Class, new(null, null, null));
        school.Read(c => (TalkStore.OfClass(c, next).Single().Question, TalkStore.AllOf(c, next).Count)).ShouldBe(("Are you here?", 0));

        school.Close();
        Seen(school.Umi).CantWrite.ShouldBe(CantTalk.Archived);
        using var package = school.Loft.OpenPackage(school.Class).Content;
        using var zip = new MemoryStream();
        await package.CopyToAsync(zip);
        zip.Position = 0;
        var back = (await new PackageIntake(school.Premises).Read(school.Coordinator, school.Years[0].Id, zip, true, CancellationToken.None)).Made!.Value;
        var read = school.Read(c => TalkStore.AllOf(c, back));
        read.Select(m => (m.Text, m.Answers is not null, m.HiddenAt is not null)).ShouldBe([("here", false, true), ("good", true, false)]);
        read[1].Answers.ShouldBe(read[0].Id);
    }

    [Fact]
    public void A_folder_in_which_people_wrote_is_not_emptied_out_of_the_bin()
    {
        Say(school.Umi, "first");
        school.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "UPDATE folder SET binned_at = '2026-01-01T00:00:00Z' WHERE id = @papers", new { papers = papers.Value }));
        school.Premises.Db.Write(c => BinStore.RemoveFolder(c, papers));
        school.Read(c => TalkStore.AllOf(c, school.Class)).Count.ShouldBe(1);
    }

    [Fact]
    public void What_somebody_wrote_goes_home_with_them_and_nobody_elses_words()
    {
        Say(school.Umi, "my own words");
        Say(school.Rúna, "other words");
        var run = school.TakeHomes.Begin(school.Coordinator, school.Years[0].Id, null);
        school.TakeHomes.Go(run, CancellationToken.None);
        using var content = school.TakeHomes.OpenMine(school.Umi, school.Years[0].Id).Content;
        using var zip = new System.IO.Compression.ZipArchive(content);
        using var page = new StreamReader(zip.GetEntry("index.html")!.Open());
        var text = page.ReadToEnd();
        text.ShouldContain("my own words");
        text.ShouldNotContain("other words");
    }

    [Fact]
    public void A_teachers_day_says_which_questions_wait_until_somebody_of_staff_answers()
    {
        IReadOnlyList<App.Assignments.TodayQuestion> Waiting(Caller who) => new App.Assignments.Today(school.Premises).See(who).Questions;
        var asked = talking.Write(school.Umi, school.Class, papers, "Which glue?", null);
        school.Clock.AdvanceMinutes(5);
        talking.Write(school.Rúna, school.Class, papers, "And which brush?", null);

        Waiting(school.Lead).ShouldHaveSingleItem().ShouldSatisfyAllConditions(q => q.Waiting.ShouldBe(2), q => q.Text.ShouldBe("Which glue?"), q => q.By.ShouldBe("Umi Hallgrímsson"), q => q.Place.ShouldBe("Papers"));
        Waiting(school.CoTeacher).Count.ShouldBe(1);
        Waiting(school.Umi).ShouldBeEmpty();
        Waiting(school.OtherTeacher).ShouldBeEmpty();

        talking.Write(school.CoTeacher, school.Class, papers, "The brown one.", asked);
        Waiting(school.Lead).Single().Text.ShouldBe("And which brush?");
        talking.Hide(school.Lead, school.Class, papers, asked + 1, null);
        Waiting(school.Lead).ShouldBeEmpty();

        talking.Write(school.Rúna, school.Class, papers, "Anybody?", null);
        Waiting(school.Lead).Count.ShouldBe(1);
        talking.Set(school.Lead, school.Class, papers, talking.See(school.Lead, school.Class, papers, null).Setting! with { Closed = true });
        Waiting(school.Lead).ShouldBeEmpty("a place that is closed asks nobody");
    }

    [Fact]
    public void Of_ten_thousand_messages_a_hundred_are_shown_and_the_rest_is_reached_step_by_step()
    {
        school.Premises.Db.Write(c =>
        {
            for (var n = 1; n <= 10_000; n++)
                Store.Workspaces.TalkStore.Add(c, school.Class, papers, n % 2 == 0 ? school.Umi.Id : school.Rúna.Id, $"{n}", null, school.Premises.Clock.Now, school.Premises.Clock.Today);
        });

        var newest = Seen(school.Umi);
        (newest.Messages.Count, newest.Earlier, newest.Messages[^1].Text).ShouldBe((Talking.Shown, 9_900, "10000"));
        var before = Seen(school.Umi, newest.Messages[0].Id);
        (before.Messages.Count, before.Earlier, before.Messages[^1].Text).ShouldBe((Talking.Shown, 9_800, "9900"));
        new App.Assignments.Today(school.Premises).See(school.Lead).Questions.Single().Waiting.ShouldBe(10_000);
    }
}
