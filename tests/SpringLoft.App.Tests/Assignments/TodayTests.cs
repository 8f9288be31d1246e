using SpringLoft.App.Assignments;
using SpringLoft.App.Workspaces;
using SpringLoft.Core.Assignments;

namespace SpringLoft.App.Tests.Assignments;

public class TodayTests : SchoolTest
{
    private readonly Today today;

    public TodayTests()
    {
        school.OpenClass();
        today = new(school.Premises);
    }

    private LocalDate Day => school.Premises.Clock.Today;

    private AssignmentId Assign(string title, LocalDate? due, LocalTime? at = null, int? late = null, string folder = "Papers", PersonId[]? to = null) =>
        school.Assigning.Make(school.Lead, school.Class, new(title, "", 20, due, at, late, [school.FolderNamed(folder)], to, Publish: true, PublishAt: null)).Id;

    private string[] Titles(Caller who, When when) => [.. today.See(who).Pieces.Where(p => p.When == when).Select(p => p.Title)];

    [Fact]
    public void A_students_day_has_what_is_late_what_is_due_and_what_comes_this_week()
    {
        Assign("Late and taken", Day.PlusDays(-3), late: 7);
        Assign("Late and not taken", Day.PlusDays(-3), late: 0);
        Assign("Over at noon long ago", Day.PlusDays(-9), late: 7);
        Assign("Today", Day, new LocalTime(23, 59));
        Assign("Whenever", null);
        Assign("In three weeks", Day.PlusDays(21));

        Titles(school.Umi, When.Late).ShouldBe(["Late and taken"]);
        Titles(school.Umi, When.Today).ShouldBe(["Today"]);
        Titles(school.Umi, When.NoDate).ShouldBe(["Whenever"]);
        Titles(school.Umi, When.Later).ShouldBe(["In three weeks"]);
        today.See(school.Umi).Pieces.Single(p => p.When == When.Late).LateUntil.ShouldBe(Day.PlusDays(4));
    }

    [Fact]
    public void Whoever_may_not_see_a_piece_finds_it_in_no_day()
    {
        Assign("Rúna's alone", Day, to: [school.Rúna.Id]);
        Assign("Where nobody looks", Day, folder: "Staff room");
        school.Assigning.Make(school.Lead, school.Class, new("A draft", "", 20, Day, null, null, [school.FolderNamed("Papers")], null, Publish: false, PublishAt: null));

        today.See(school.Umi).Pieces.ShouldBeEmpty();
        today.See(school.Outsider).ShouldSatisfyAllConditions(t => t.Pieces.ShouldBeEmpty(), t => t.Waiting.ShouldBeEmpty(), t => t.Back.ShouldBeEmpty());
        today.See(school.Rúna).Pieces.ShouldHaveSingleItem().Title.ShouldBe("Rúna's alone");
        // What stands in somebody's day is what they find in the class, and the other way round.
        foreach (var who in new[] { school.Umi, school.Rúna })
            today.See(who).Pieces.Select(p => p.Assignment).ShouldBe(school.Workspace.See(who, school.Class).Assignments.Select(a => a.Id), ignoreOrder: true);
    }

    [Fact]
    public async Task What_is_handed_in_leaves_the_day_and_comes_back_into_it_as_new_once()
    {
        var pot = Assign("Pinch pot", Day);
        await school.HandIn(school.Umi, pot);
        today.See(school.Umi).ShouldSatisfyAllConditions(t => t.Pieces.ShouldBeEmpty(), t => t.Back.ShouldBeEmpty());
        today.See(school.Lead).Waiting.ShouldHaveSingleItem().ShouldSatisfyAllConditions(w => w.Waiting.ShouldBe(1), w => w.Drafts.ShouldBe(0), w => w.Title.ShouldBe("Pinch pot"));

        var cell = school.Returns.See(school.Coordinator, school.Class).Students.Single(s => s.Student == school.Umi.Id).Cells.Single();
        new MarkingDesk(school.Premises).Judge(school.Lead, school.Class, cell.Id, new(17, "A dry foot at last.", true, false, cell.Version));

        today.See(school.Umi).Back.ShouldHaveSingleItem().ShouldSatisfyAllConditions(b => b.Score.ShouldBe(17), b => b.Said.ShouldBe("A dry foot at last."), b => b.IsNew.ShouldBeTrue());
        today.Seen(school.Umi);
        today.See(school.Umi).Back.ShouldHaveSingleItem().IsNew.ShouldBeTrue();
        school.Clock.AdvanceMinutes(31);
        today.See(school.Umi).Back.ShouldHaveSingleItem().IsNew.ShouldBeFalse();
        today.Seen(school.Umi);
        school.Clock.AdvanceMinutes(5);
        today.See(school.Umi).Back.ShouldHaveSingleItem().IsNew.ShouldBeFalse();
        today.See(school.Lead).Waiting.ShouldBeEmpty();
        today.See(school.Lead).Due.ShouldHaveSingleItem().ShouldSatisfyAllConditions(d => d.In.ShouldBe(1), d => d.Given.ShouldBe(2), d => d.Title.ShouldBe("Pinch pot"));
        today.See(school.Umi).Due.ShouldBeEmpty();
    }

    [Fact]
    public async Task A_draft_mark_and_what_is_said_with_it_are_in_nobodys_day()
    {
        var pot = Assign("Pinch pot", Day);
        await school.HandIn(school.Umi, pot);
        var cell = school.Returns.See(school.Coordinator, school.Class).Students.Single(s => s.Student == school.Umi.Id).Cells.Single();
        new MarkingDesk(school.Premises).Judge(school.Lead, school.Class, cell.Id, new(17, "Not yet for your eyes.", false, false, cell.Version));

        today.See(school.Umi).ShouldSatisfyAllConditions(t => t.Back.ShouldBeEmpty(), t => t.Pieces.ShouldBeEmpty());
        today.See(school.Lead).Waiting.Single().ShouldSatisfyAllConditions(w => w.Waiting.ShouldBe(0), w => w.Drafts.ShouldBe(1));
    }

    [Fact]
    public async Task Late_is_told_to_both_and_what_was_in_time_once_is_not_late_for_being_handed_in_again()
    {
        var pot = Assign("Pinch pot", Day.PlusDays(-2), new LocalTime(12, 0), late: 30);
        var now = school.Premises.Clock;
        await school.HandIn(school.Umi, pot);
        var late = (int)(now.Now - (Day.PlusDays(-2) + new LocalTime(12, 0)).InZoneLeniently(now.Zone).ToInstant()).TotalMinutes;

        school.Workspace.See(school.Umi, school.Class).Assignments.Single().ShouldSatisfyAllConditions(a => a.DueState.ShouldBe(DueState.Late), a => a.Own!.LateMinutes!.Value.ShouldBeInRange(late - 1, late));
        school.Returns.See(school.Coordinator, school.Class).Students.Single(s => s.Student == school.Umi.Id).Cells.Single().LateMinutes!.Value.ShouldBeInRange(late - 1, late);

        var bowl = Assign("Bowl", Day.PlusDays(1), late: 30);
        await school.HandIn(school.Umi, bowl);
        var work = school.Returns.See(school.Coordinator, school.Class).Students.Single(s => s.Student == school.Umi.Id).Cells.Single(x => x.Assignment == bowl);
        school.Returns.Return(school.Lead, school.Class, work.Id, true, work.Version);
        school.Premises.Clock.MoveTo(Day.PlusDays(5));
        await school.HandIn(school.Umi, bowl, "better");

        school.Returns.See(school.Coordinator, school.Class).Students.Single(s => s.Student == school.Umi.Id).Cells.Single(x => x.Assignment == bowl).LateMinutes.ShouldBeNull();
    }

    [Fact]
    public async Task What_is_not_taken_any_more_is_refused_and_what_was_put_in_stays()
    {
        var pot = Assign("Pinch pot", Day.PlusDays(-2), late: 0);
        await school.Work.AddFile(school.Umi, school.Class, pot, "pot.txt", TinySchool.Bytes("x"), default);
        Refused(() => school.Work.HandIn(school.Umi, school.Class, pot)).ShouldBe("work-too-late");
        school.Workspace.See(school.Umi, school.Class).Assignments.Single().ShouldSatisfyAllConditions(a => a.DueState.ShouldBe(DueState.Closed), a => a.Own!.Files.Count.ShouldBe(1));
    }

    [Fact]
    public void What_is_given_says_first_who_finds_it_where_it_falls_and_what_else_is_due()
    {
        Assign("The other one", new(2026, 10, 15));
        var previewing = new Previewing(school.Premises);
        NewAssignment Of(LocalDate? due, string folder = "Papers", LocalTime? at = null, int? late = null) => new("New", "", 20, due, at, late, [school.FolderNamed(folder)], null, true, null);

        previewing.Preview(school.Lead, school.Class, Of(new(2026, 10, 13), late: 3)).ShouldSatisfyAllConditions(
            p => p.Given.ShouldBe(2), p => p.Find.ShouldBe(2), p => p.InTheWay.ShouldBeEmpty(), p => p.Week.ShouldNotBeNull(), p => p.OffDay.ShouldBeFalse(), p => p.Closes.ShouldBe(new LocalDate(2026, 10, 16)),
            p => p.AlsoDue.ShouldHaveSingleItem().ShouldSatisfyAllConditions(a => a.Title.ShouldBe("The other one"), a => a.Students.ShouldBe(2)));
        previewing.Preview(school.Lead, school.Class, Of(new(2026, 10, 17), "Staff room")).ShouldSatisfyAllConditions(
            p => p.OffDay.ShouldBeTrue(), p => p.Find.ShouldBe(0), p => p.InTheWay.Select(w => w.Because).ShouldAllBe(b => b == Hindrance.Unseen));
        previewing.Preview(school.Lead, school.Class, Of(null)).ShouldSatisfyAllConditions(p => p.Week.ShouldBeNull(), p => p.AlsoDue.ShouldBeEmpty(), p => p.Past.ShouldBeFalse());
        Refused(() => Assign("x", null, new LocalTime(8, 0))).ShouldBe("due-time-without-day");
        Refused(() => Assign("x", Day, late: -1)).ShouldBe("late-days-range");
        Refused(() => Assign("x", Day, late: 366)).ShouldBe("late-days-range");
    }
}
