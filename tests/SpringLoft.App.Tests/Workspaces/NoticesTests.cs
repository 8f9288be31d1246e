using SpringLoft.App.Assignments;
using SpringLoft.App.Rosters;
using SpringLoft.App.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

public class NoticesTests : SchoolTest
{
    private readonly Notices notices;
    private readonly ClassId second;

    public NoticesTests()
    {
        school.OpenClass();
        notices = new(school.Premises);
        second = school.Making.Make(school.Lead, school.New("Clay", "6C"));
        school.Roster.Enroll(school.Lead, second, [school.Outsider.Id, school.Umi.Id], ClassRole.Student);
    }

    private static NewNotice Of(string text, params ClassId[] classes) => new(text, classes, null, false, null, null);

    private string Day(Caller who) => string.Join(' ', new Today(school.Premises).See(who).Notices.Select(n => n.Text));

    private string InClass(Caller who, ClassId? id = null) => string.Join(' ', school.Workspace.See(who, id ?? school.Class).Notices.Select(n => n.Text));

    private NoticeLine Line(long id, Caller? who = null) => notices.Mine(who ?? school.Lead).Notices.Single(n => n.Id == id);

    [Fact]
    public void It_says_whom_it_reaches_each_student_once_and_who_finds_it_only_later()
    {
        notices.Preview(school.Lead, Of("x", school.Class, second)).ShouldSatisfyAllConditions(
            p => p.Students.ShouldBe(3), p => p.Later.ShouldBe(1), p => p.Classes.Select(k => k.Students).ShouldBe([2, 2]));
    }

    [Fact]
    public void To_several_classes_it_is_one_notice_that_each_student_finds_once_in_their_day()
    {
        school.Making.Open(school.Lead, second, school.Workspace.Head(school.Lead, second).Version);
        var id = notices.Post(school.Lead, Of("Bring an apron.", school.Class, second));

        (Day(school.Umi), Day(school.Outsider)).ShouldBe(("Bring an apron.", "Bring an apron."));
        InClass(school.Umi, second).ShouldBe("Bring an apron.");
        Line(id).ShouldSatisfyAllConditions(n => n.For.ShouldBe(3), n => n.Seen.ShouldBe(0), n => n.Places.Count.ShouldBe(2));

        new Today(school.Premises).Seen(school.Umi);
        notices.SeenIn(school.Outsider, second);

        Line(id).Seen.ShouldBe(2);
        notices.Readers(school.Lead, id).Select(r => (r.SortName, r.SeenAt is not null)).First().ShouldBe(("Ravndal, Rúna", false));
    }

    [Fact]
    public void For_a_group_only_its_members_find_it()
    {
        var crew = school.Premises.Db.Write(c =>
        {
            var made = Store.Rosters.GroupStore.Add(c, school.Class, "Crew");
            Store.Rosters.GroupStore.AddMember(c, made, school.Umi.Id);
            return made;
        });
        var id = notices.Post(school.Lead, new("Kiln at four.", [school.Class], crew, false, null, null));

        (InClass(school.Umi), InClass(school.Rúna), InClass(school.CoTeacher)).ShouldBe(("Kiln at four.", "", "Kiln at four."));
        (Day(school.Rúna), Line(id).For).ShouldBe(("", 1));
        notices.Preview(school.Lead, new("x", [school.Class], crew, false, null, null)).Students.ShouldBe(1);
        school.Premises.Db.Write(c => Store.Rosters.GroupStore.Bin(c, crew, school.Premises.Clock.Now));
        (InClass(school.Umi), Line(id).For).ShouldBe(("", 0), "a group in the bin has no members");
        Refused(() => notices.Post(school.Lead, new("x", [school.Class, second], crew, false, null, null))).ShouldBe("not-found");
    }

    [Fact]
    public void At_its_moment_it_is_posted_once_by_the_clock_also_when_the_program_was_away()
    {
        var soon = school.Premises.Clock.LocalNow.PlusHours(2);
        var id = notices.Post(school.Lead, Of("Tomorrow.", school.Class) with { PostAt = soon });
        (notices.Go(), InClass(school.Umi), Line(id).State, InClass(school.CoTeacher)).ShouldBe((0, "", NoticeState.Waits, "Tomorrow."));

        school.Clock.AdvanceHours(50);

        (notices.Go(), notices.Go()).ShouldBe((1, 0));
        (InClass(school.Umi), Line(id).State).ShouldBe(("Tomorrow.", NoticeState.Posted));
        Refused(() => notices.Post(school.Lead, Of("x", school.Class) with { PostAt = soon })).ShouldBe("publish-past");
    }

    [Fact]
    public void Changed_it_says_so_withdrawn_nobody_finds_it_and_it_stays_on_record()
    {
        var id = notices.Post(school.Lead, Of("At three.", school.Class));
        notices.Change(school.CoTeacher, id, Of("At four."), Line(id).Version);

        InClass(school.Umi).ShouldBe("At four.");
        school.Workspace.See(school.Umi, school.Class).Notices.Single().ChangedAt.ShouldNotBeNull();
        Refused(() => notices.Change(school.Lead, id, Of("At five."), 1)).ShouldBe("changed-meanwhile");

        notices.Withdraw(school.Lead, id, Line(id).Version);

        (InClass(school.Umi), Day(school.Umi), InClass(school.Lead), Line(id).State).ShouldBe(("", "", "", NoticeState.Withdrawn));
        Refused(() => notices.Change(school.Lead, id, Of("x"), Line(id).Version)).ShouldBe("changed-meanwhile");
    }

    [Fact]
    public void Pinned_it_stands_first_to_the_end_of_its_day_and_longer_than_others()
    {
        notices.Post(school.Lead, Of("Pinned.", school.Class) with { PinnedUntil = school.Premises.Clock.Today.PlusDays(30) });
        school.Clock.AdvanceMinutes(1);
        notices.Post(school.Lead, Of("Newer.", school.Class));
        InClass(school.Umi).ShouldBe("Pinned. Newer.");

        school.Clock.AdvanceDays(20);
        Day(school.Umi).ShouldBe("Pinned.");
        school.Clock.AdvanceDays(12);
        (Day(school.Umi), InClass(school.Umi)).ShouldBe(("", "Newer. Pinned."));
        Refused(() => notices.Post(school.Lead, Of("x", school.Class) with { PinnedUntil = school.Premises.Clock.Today.PlusDays(-1) })).ShouldBe("notice-pin-past");
    }

    [Fact]
    public void To_the_whole_school_only_coordinators_tell_and_everybody_finds_it()
    {
        Refused(() => notices.Post(school.Lead, new("Fire drill.", [], null, true, null, null))).ShouldBe("not-allowed");
        notices.Preview(school.Coordinator, new("x", [], null, true, null, null)).Students.ShouldBeGreaterThan(4);
        var id = notices.Post(school.Coordinator, new("Fire drill.", [], null, true, null, null));

        foreach (var who in new[] { school.Umi, school.Outsider, school.OtherTeacher }) Day(who).ShouldBe("Fire drill.", who.Name);
        Day(school.Coordinator).ShouldBeEmpty();
        Line(id, school.OtherTeacher).May.ShouldBeFalse();
        Refused(() => notices.Withdraw(school.Lead, id, 1)).ShouldBe("not-found");
    }

    [Fact]
    public void Who_is_staff_in_one_of_its_classes_only_neither_changes_it_nor_learns_of_the_others()
    {
        var id = notices.Post(school.Lead, Of("Both.", school.Class, second));

        Line(id, school.CoTeacher).ShouldSatisfyAllConditions(n => n.May.ShouldBeFalse(), n => n.Places.Single().Class.ShouldBe(school.Class), n => n.Elsewhere.ShouldBe(1));
        Refused(() => notices.Withdraw(school.CoTeacher, id, 1)).ShouldBe("not-found");
        Refused(() => notices.Readers(school.CoTeacher, id)).ShouldBe("not-found");
        Refused(() => notices.Readers(school.Umi, id)).ShouldBe("not-found");
        Refused(() => notices.Post(school.CoTeacher, Of("x", school.Class, second))).ShouldBe("not-found");
        notices.Mine(school.Umi).ShouldSatisfyAllConditions(v => v.Notices.ShouldBeEmpty(), v => v.Classes.ShouldBeEmpty(), v => v.MayTellSchool.ShouldBeFalse());
    }

    [Fact]
    public void What_an_archived_class_was_told_stays_as_it_was()
    {
        var id = notices.Post(school.Lead, Of("Both.", school.Class, second));
        school.Close();

        Refused(() => notices.Change(school.Lead, id, Of("Other."), 1)).ShouldBe("class-archived");
        Refused(() => notices.Withdraw(school.Lead, id, 1)).ShouldBe("class-archived");
        InClass(school.Umi).ShouldBe("Both.");
        notices.Readers(school.Lead, id).Count.ShouldBe(3);
    }
}
