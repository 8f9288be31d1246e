using SpringLoft.App.Workspaces;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

public class ActivitiesTests : SchoolTest
{
    private readonly Activities activities;

    public ActivitiesTests()
    {
        school.OpenClass();
        activities = new(school.Premises);
    }

    private ActivityView See(int? from = null, int? to = null) => activities.See(school.Lead, school.Class, from, to);

    private Did Today(Caller student)
    {
        var v = See();
        return (Did)v.Students.Single(s => s.Student == student.Id).Did[v.Days.ToList().FindIndex(d => d.Day == school.Premises.Clock.Today)];
    }

    // A school day in the middle of the year.
    private void InTerm()
    {
        while (See().Days.Count < 20 || See().Days[^1].Day != school.Premises.Clock.Today) school.Clock.AdvanceDays(1);
    }

    [Fact]
    public async Task What_a_student_does_on_a_day_stands_in_its_square_and_staff_leave_none()
    {
        InTerm();
        Today(school.Umi).ShouldBe(Did.None);
        activities.Opened(school.Umi, school.Class, Did.OpenedClass);
        activities.Opened(school.Lead, school.Class, Did.OpenedClass);
        Refused(() => activities.Opened(school.Outsider, school.Class, Did.OpenedClass)).ShouldBe("not-found");
        Today(school.Umi).ShouldBe(Did.OpenedClass);

        await school.HandIn(school.Umi, school.Assign("Pinch pot"));

        Today(school.Umi).ShouldBe(Did.OpenedClass | Did.Wrote | Did.HandedIn);
        Today(school.Rúna).ShouldBe(Did.None);
        school.Read(c => ActivityStore.LastDays(c, school.Class).Keys.ToList()).ShouldBe([school.Umi.Id]);
        See().Students.Single(s => s.Student == school.Umi.Id).ShouldSatisfyAllConditions(s => s.DaysHere.ShouldBe(1), s => s.LastHere.ShouldBe(school.Premises.Clock.Today), s => s.Quiet.ShouldBeFalse());
    }

    [Fact]
    public void Who_did_nothing_for_a_week_of_school_has_gone_quiet()
    {
        InTerm();
        activities.Opened(school.Umi, school.Class, Did.OpenedClass);
        school.Clock.AdvanceDays(14);

        new App.Assignments.Today(school.Premises).See(school.Lead).Quiet.Single().Students.Count.ShouldBe(See().Students.Count, "as the activity desk has it");
        new App.Assignments.Today(school.Premises).See(school.Umi).Quiet.ShouldBeEmpty("that is for staff");
        See().Students.ShouldAllBe(s => s.Quiet);
        activities.Opened(school.Rúna, school.Class, Did.OpenedClass);
        if (See().Days[^1].Day == school.Premises.Clock.Today) See().Students.Single(s => s.Student == school.Rúna.Id).Quiet.ShouldBeFalse();
        See().Students.Single(s => s.Student == school.Umi.Id).LastHere.ShouldBe(school.Premises.Clock.Today.PlusDays(-14));
    }

    [Fact]
    public async Task Work_stands_against_its_day()
    {
        InTerm();
        var today = school.Premises.Clock.Today;
        var pot = school.Assigning.Make(school.Lead, school.Class, new("Pinch pot", "x", 20, today, null, null, [school.FolderNamed("Papers")], null, true, null)).Id;
        await school.HandIn(school.Umi, pot);

        See().Assignments.ShouldHaveSingleItem().ShouldSatisfyAllConditions(a => (a.InTime, a.Late, a.NotYet).ShouldBe((1, 0, 1)), a => a.Came.Single().Day.ShouldBe(today));
        See().Students.Select(s => (s.In, s.Due)).ShouldBe([(1, 1), (0, 1)]);

        school.Clock.AdvanceDays(2);
        await school.HandIn(school.Rúna, pot);
        See().Assignments.Single().Late.ShouldBe(1);
    }

    [Fact]
    public void The_period_is_chosen_by_school_weeks_and_never_reaches_beyond_today()
    {
        InTerm();
        var all = See(1, 99);
        all.Days.ShouldAllBe(d => d.Day <= school.Premises.Clock.Today);
        (all.FromWeek, all.ToWeek).ShouldBe((1, all.Weeks));
        See(3, 3).Days.Select(d => d.Week).Distinct().ShouldBe([3]);
        See(7, 3).ShouldSatisfyAllConditions(v => (v.FromWeek, v.ToWeek).ShouldBe((3, 3)));
    }

    [Fact]
    public void Switched_off_nothing_is_noted_and_what_was_kept_goes()
    {
        InTerm();
        activities.Opened(school.Umi, school.Class, Did.OpenedClass);
        school.SetRules(r => r with { KeepsActivity = false });
        See().ShouldSatisfyAllConditions(v => v.Kept.ShouldBeFalse(), v => v.Students.ShouldBeEmpty());
        school.Workspace.See(school.Umi, school.Class).ActivityDays.ShouldBeNull();
        new Activities(school.Premises).Opened(school.Rúna, school.Class, Did.OpenedClass);
        school.Premises.Db.Write(c => ActivityStore.LetGoBefore(c, school.Premises.Clock.Today.PlusDays(1))).ShouldBe(1, "that of before, and no other");
    }

    [Fact]
    public void Students_see_none_of_it_and_know_that_it_is_kept()
    {
        foreach (var who in new[] { school.Umi, school.Outsider, school.OtherTeacher }) Refused(() => activities.See(who, school.Class, null, null)).ShouldBeOneOf("not-allowed", "not-found");
        school.Workspace.See(school.Umi, school.Class).ActivityDays.ShouldBe(400);
    }
}
