namespace SpringLoft.App.Tests.Assignments;

public class PublishingTests : SchoolTest
{
    private int Version => school.Workspace.See(school.Lead, school.Class).Assignments.Single().Version;

    private AssignmentId Draft(string folder, PersonId[]? to = null) => school.Assigning.Make(school.Lead, school.Class, new("Pinch pot", "", 5, null, null, null, [school.FolderNamed(folder)], to, Publish: false, PublishAt: null)).Id;

    [Fact]
    public void What_nobody_can_see_is_published_only_on_a_yes()
    {
        school.OpenClass();
        var id = Draft("Staff room");

        var refusal = Should.Throw<RefusedException>(() => school.Publishing.Publish(school.Lead, school.Class, id, Version)).Refusal;

        refusal.Code.ShouldBe("publish-unseen");
        refusal.What.ShouldContain("None of the 2 students");
        school.Workspace.See(school.Lead, school.Class).Assignments.Single().Published.ShouldBeFalse();
        school.Publishing.Publish(school.Lead, school.Class, id, Version, evenSo: true);
        school.Workspace.See(school.Lead, school.Class).Assignments.Single().Published.ShouldBeTrue();
    }

    [Fact]
    public void What_one_of_them_can_see_is_published_without_a_question_and_so_is_what_waits_for_its_class_to_open()
    {
        school.Roster.Enroll(school.Lead, school.Class, [school.Umi.Id, school.Rúna.Id], ClassRole.Student);

        Should.NotThrow(() => school.Publishing.Publish(school.Lead, school.Class, Draft("Papers"), Version));
    }

    [Fact]
    public void In_a_class_without_students_there_is_nobody_to_ask_about() => Should.NotThrow(() => school.Publishing.Publish(school.Lead, school.Class, Draft("Staff room"), Version));

    private AssignmentId Named(string title, string folder = "Papers", LocalDateTime? at = null) =>
        school.Assigning.Make(school.Lead, school.Class, new(title, "", 5, null, null, null, [school.FolderNamed(folder)], null, Publish: false, at)).Id;

    private bool IsPublished(AssignmentId id) => school.Workspace.See(school.Lead, school.Class).Assignments.Single(a => a.Id == id).Published;

    [Fact]
    public void Many_drafts_are_published_in_one_act_and_what_nobody_would_find_stays_a_draft_and_is_named()
    {
        school.OpenClass();
        AssignmentId[] drafts = [Named("One"), Named("Two"), Named("Hidden", "Staff room"), Named("Left out")];

        var done = school.Publishing.PublishMany(school.Lead, school.Class, drafts[..3]);

        done.Published.ShouldBe(2);
        done.Unseen.ShouldBe(["Hidden"]);
        drafts.Select(IsPublished).ShouldBe([true, true, false, false]);
        // Once more it changes nothing.
        school.Publishing.PublishMany(school.Lead, school.Class, drafts[..2]).Published.ShouldBe(0);
    }

    [Fact]
    public void A_draft_is_published_by_the_clock_once_when_its_moment_has_come()
    {
        school.OpenClass();
        var soon = Named("Tomorrow", at: school.Premises.Clock.LocalNow.PlusMinutes(90));
        var later = Named("Later", at: school.Premises.Clock.LocalNow.PlusDays(20));
        school.Publishing.Go().ShouldBe(0);
        school.Clock.AdvanceMinutes(89);
        school.Publishing.Go().ShouldBe(0);

        // The program was away when the moment came: it is made good when it is back.
        school.Clock.AdvanceHours(5);
        school.Publishing.Go().ShouldBe(1);

        school.Publishing.Go().ShouldBe(0);
        IsPublished(soon).ShouldBeTrue();
        IsPublished(later).ShouldBeFalse();
        school.Workspace.See(school.Umi, school.Class).Assignments.ShouldHaveSingleItem().Title.ShouldBe("Tomorrow");
    }

    [Fact]
    public void A_moment_that_is_over_is_refused_and_one_that_was_set_goes_with_publishing_by_hand_or_with_changing_it_away()
    {
        school.OpenClass();
        Refused(() => Named("Past", at: school.Premises.Clock.LocalNow.PlusMinutes(-1))).ShouldBe("publish-past");
        var draft = Named("Mine", at: school.Premises.Clock.LocalNow.PlusMinutes(5));
        var seen = school.Workspace.See(school.Lead, school.Class).Assignments.Single();
        seen.PublishAt.ShouldBe(school.Premises.Clock.LocalNow.PlusMinutes(5));
        school.Assigning.Change(school.Lead, school.Class, draft, new("Mine", "", 5, null, null, null, [school.FolderNamed("Papers")], null, false, null), seen.Version);
        school.Clock.AdvanceMinutes(10);

        school.Publishing.Go().ShouldBe(0);
        IsPublished(draft).ShouldBeFalse();
    }

    [Fact]
    public void A_draft_in_the_bin_or_in_an_archived_class_waits()
    {
        school.OpenClass();
        var binned = Named("Binned", at: school.Premises.Clock.LocalNow.PlusMinutes(5));
        Named("Shut", at: school.Premises.Clock.LocalNow.PlusMinutes(5));
        school.Assigning.Bin(school.Lead, school.Class, binned);
        school.Close();
        school.Clock.AdvanceMinutes(10);

        school.Publishing.Go().ShouldBe(0);
    }

    [Fact]
    public async Task What_was_published_is_taken_back_while_nobody_has_handed_in_and_what_was_begun_stays()
    {
        school.OpenClass();
        var pot = school.Assign("Pinch pot");
        await school.Work.AddFile(school.Umi, school.Class, pot, "pot.txt", TinySchool.Bytes("x"), default);
        var version = school.Workspace.See(school.Lead, school.Class).Assignments.Single().Version;

        school.Publishing.Withdraw(school.Lead, school.Class, pot, version);

        school.Workspace.See(school.Umi, school.Class).Assignments.ShouldBeEmpty();
        Refused(() => school.Work.HandIn(school.Umi, school.Class, pot)).ShouldBe("not-found");
        school.Publishing.Publish(school.Lead, school.Class, pot, version + 1);
        school.Workspace.See(school.Umi, school.Class).Assignments.Single().Own!.Files.ShouldHaveSingleItem();
        school.Work.HandIn(school.Umi, school.Class, pot);
        Refused(() => school.Publishing.Withdraw(school.Lead, school.Class, pot, version + 2)).ShouldBe("assignment-has-work");
        IsPublished(pot).ShouldBeTrue();
    }
}
