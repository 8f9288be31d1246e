using SpringLoft.App.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;
using SpringLoft.Store.Assignments;

namespace SpringLoft.App.Tests.Assignments;

public class PublishingManyTests : SchoolTest
{
    private readonly ClassId other;

    public PublishingManyTests()
    {
        school.OpenClass();
        other = school.Making.Make(school.Lead, school.New("Tides"));
        school.Roster.Enroll(school.Lead, other, [school.Umi.Id], ClassRole.Student);
    }

    private PublishingMany Many => new(school.Premises, new Publishing(school.Premises));

    private AssignmentId Draft(ClassId k, string title, LocalDate? due, string folder = "Papers")
    {
        var papers = school.Workspace.See(school.Lead, k).Folders.First(f => f.Name == folder).Id;
        return school.Assigning.Make(school.Lead, k, new(title, "", 10, due, null, null, [papers], null, Publish: false, PublishAt: null)).Id;
    }

    private AssignmentRow Row(ClassId k, AssignmentId a) => school.Read(c => AssignmentStore.Find(c, k, a))!;

    private IReadOnlyList<SchoolWeek> Weeks => SchoolWeeks.Of(school.Years.First(y => y.Year.Label == "2026–27").Year);

    [Fact]
    public void Drafts_of_several_classes_stand_by_the_school_week_in_which_they_are_due()
    {
        var week = Weeks[9];
        Draft(other, "Gauge", week.Days[^1]);
        Draft(school.Class, "Pot", week.Days[0]);
        Draft(school.Class, "Whenever", null);

        Many.Drafts(school.Lead, [school.Class, other]).Select(d => (d.Title, d.Week, d.WeekBegins)).ShouldBe([("Pot", week.Number, week.Days[0]), ("Gauge", week.Number, week.Days[0]), ("Whenever", (int?)null, (LocalDate?)null)]);
        Many.Drafts(school.OtherTeacher, [school.Class, other]).ShouldBeEmpty();
    }

    [Fact]
    public void By_week_each_comes_out_on_the_first_school_day_of_its_week_and_what_is_due_in_none_at_once()
    {
        var week = Weeks[9];
        var (later, now) = (Draft(school.Class, "Pot", week.Days[^1]), Draft(other, "Whenever", null));

        var done = Many.Publish(school.Lead, [new(school.Class, later), new(other, now)], byWeek: true);

        (done.Published, done.Set, done.Unseen.Count).ShouldBe((1, 1, 0));
        Row(school.Class, later).ShouldSatisfyAllConditions(a => a.PublishedAt.ShouldBeNull(), a => a.PublishAt.ShouldBe(school.Premises.Clock.StartOf(week.Days[0])));
        Row(other, now).PublishedAt.ShouldNotBeNull();

        school.Premises.Clock.MoveTo(week.Days[0].PlusDays(-1));
        new Publishing(school.Premises).Go().ShouldBe(0);
        school.Premises.Clock.MoveTo(week.Days[0]);
        new Publishing(school.Premises).Go().ShouldBe(1);
        Row(school.Class, later).PublishedAt.ShouldNotBeNull();
    }

    [Fact]
    public void At_once_all_come_out_and_a_week_that_has_begun_is_no_reason_to_wait()
    {
        var (far, near) = (Draft(school.Class, "Pot", Weeks[20].Days[0]), Draft(school.Class, "Now", school.Premises.Clock.Today));
        Many.Publish(school.Lead, [new(school.Class, near)], byWeek: true).ShouldSatisfyAllConditions(d => d.Published.ShouldBe(1), d => d.Set.ShouldBe(0));
        Many.Publish(school.Lead, [new(school.Class, far)], byWeek: false).Published.ShouldBe(1);
        Row(school.Class, far).PublishedAt.ShouldNotBeNull();
    }

    [Fact]
    public void What_none_of_its_students_could_find_stays_a_draft_and_is_named_with_its_class()
    {
        var hidden = school.Read(c => Store.Workspaces.FolderStore.OfClass(c, other)).First(f => f.Rule == FolderRule.StaffOnly).Name;
        var a = Draft(other, "Secret", Weeks[9].Days[0], hidden);
        Many.Drafts(school.Lead, [other]).Single().Unseen.ShouldBeTrue();

        foreach (var byWeek in new[] { true, false })
        {
            var done = Many.Publish(school.Lead, [new(other, a)], byWeek);
            (done.Published, done.Set).ShouldBe((0, 0));
            done.Unseen.ShouldHaveSingleItem().ShouldStartWith("Secret (Tides");
        }
        Row(other, a).ShouldSatisfyAllConditions(r => r.PublishedAt.ShouldBeNull(), r => r.PublishAt.ShouldBeNull());
    }

    // What is kept in step comes out together with the first of them: each is told once, however many of them are ticked.
    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void What_is_in_step_in_several_classes_is_counted_as_often_as_it_stands_there(bool byWeek)
    {
        var papers = school.Workspace.See(school.Lead, school.Class).Folders.First(f => f.Name == "Papers").Id;
        school.Assigning.Make(school.Lead, school.Class, new("Log", "", 10, Weeks[9].Days[0], null, null, [papers], null, Publish: false, PublishAt: null, AlsoIn: [other]));
        var ticked = Many.Drafts(school.Lead, [school.Class, other]).Select(d => new DraftPick(d.Class, d.Assignment)).ToList();
        ticked.Count.ShouldBe(2);

        Many.Publish(school.Lead, ticked, byWeek).ShouldSatisfyAllConditions(d => d.Published.ShouldBe(byWeek ? 0 : 2), d => d.Set.ShouldBe(byWeek ? 2 : 0));

        Many.Drafts(school.Lead, [school.Class, other]).Count(d => d.PublishAt is not null).ShouldBe(byWeek ? 2 : 0);
        school.Read(c => Dapper.SqlMapper.ExecuteScalar<int>(c, "SELECT count(*) FROM audit WHERE act LIKE 'set when%' OR act = 'published assignment'")).ShouldBe(2);
    }

    [Fact]
    public void One_class_that_is_not_ones_own_and_nothing_is_done()
    {
        var (mine, theirs) = (Draft(school.Class, "Pot", null), Draft(other, "Gauge", null));
        Refused(() => Many.Publish(school.OtherTeacher, [new(other, theirs)], false)).ShouldBe("not-found");
        var third = school.Making.Make(school.OtherTeacher, school.New("Signals"));
        Refused(() => Many.Publish(school.Lead, [new(school.Class, mine), new(third, theirs)], false)).ShouldBe("not-found");
        Row(school.Class, mine).PublishedAt.ShouldBeNull();
    }
}
