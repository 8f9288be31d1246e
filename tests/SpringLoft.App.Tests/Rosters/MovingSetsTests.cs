using SpringLoft.App.Rosters;
using SpringLoft.Core.Assignments;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Rosters;

/// <summary>Moves between sets, late joiners, leaving: what becomes of the work.</summary>
public class MovingSetsTests : SchoolTest
{
    private readonly ClassId other;
    private readonly MovingSets moving;

    public MovingSetsTests()
    {
        school.OpenClass();
        other = school.Making.Make(school.OtherTeacher, school.New("Clay", "6C"));
        school.Making.Open(school.OtherTeacher, other, school.Workspace.Head(school.OtherTeacher, other).Version);
        moving = new(school.Premises);
    }

    private async Task Own(Caller student, string name) => await school.Items.AddFile(student, school.Class, school.Workspace.See(student, school.Class).Folders.First(f => f.Mine).Id, name, TinySchool.Bytes("mine"), CancellationToken.None);

    [Fact]
    public async Task Own_things_are_in_the_matching_folder_and_held_work_stays_with_its_teacher()
    {
        var assignment = school.Assign();
        await school.HandIn(school.Umi, assignment);
        await Own(school.Umi, "sketch.txt");
        var said = moving.Preview(school.Coordinator, school.Class, school.Umi.Id, other, false);
        school.Read(c => Store.Rosters.RosterStore.Member(c, other, school.Umi.Id)).ShouldBeNull();

        var done = moving.Move(school.Coordinator, school.Class, school.Umi.Id, other, false);

        done.Carried.ShouldBe(said.Carried);
        (done.Held, done.Carried.Single().Name, done.Carried.Single().To).ShouldBe((1, "sketch.txt", done.Carried.Single().From));
        school.Workspace.See(school.Umi, other).Items.Single().Name.ShouldBe("sketch.txt");
        school.Returns.See(school.Coordinator, school.Class).Held.ShouldBe(1);
    }

    [Fact]
    public async Task Work_returned_after_the_move_is_seen_by_the_student_and_by_both_teachers()
    {
        var assignment = school.Assign();
        await school.HandIn(school.Umi, assignment, "pot");
        moving.Move(school.Coordinator, school.Class, school.Umi.Id, other, false);
        new LeftClassView(school).Titles().ShouldBeEmpty();
        var work = school.Returns.See(school.Coordinator, school.Class).Students.SelectMany(r => r.Cells).Single();
        school.Returns.Return(school.Lead, school.Class, work.Id, true, work.Version);

        new LeftClassView(school).Titles().ShouldBe(["Pinch pot"]);
        var earlier = moving.Earlier(other, school.Umi.Id).ShouldHaveSingleItem();
        earlier.State.ShouldBe(WorkState.Returned);
        using var file = moving.Open(other, school.Umi.Id, earlier.Files.Single().Id).Content;
        new StreamReader(file).ReadToEnd().ShouldBe("pot");
    }

    [Fact]
    public async Task What_was_never_handed_in_is_not_the_new_teacher_s_to_read()
    {
        var assignment = school.Assign();
        var draft = await school.Work.AddFile(school.Umi, school.Class, assignment, "draft.txt", TinySchool.Bytes("not yet"), CancellationToken.None);
        moving.Move(school.Coordinator, school.Class, school.Umi.Id, other, false);

        moving.Earlier(other, school.Umi.Id).ShouldBeEmpty();
        Refused(() => moving.Open(other, school.Umi.Id, draft.Id)).ShouldBe("not-found");
    }

    [Fact]
    public async Task Work_begun_and_not_handed_in_goes_into_the_own_folder()
    {
        var assignment = school.Assign();
        await school.Work.AddFile(school.Umi, school.Class, assignment, "half.txt", TinySchool.Bytes("half"), CancellationToken.None);

        moving.Move(school.Coordinator, school.Class, school.Umi.Id, other, false).Unfinished.ShouldBe(1);
        school.Workspace.See(school.Umi, other).Items.Select(i => i.Name).ShouldBe(["half.txt"]);
    }

    [Fact]
    public void To_another_course_nobody_is_moved()
    {
        var tides = school.Making.Make(school.OtherTeacher, school.New("Tides"));

        Refused(() => moving.Move(school.Coordinator, school.Class, school.Umi.Id, tides, false)).ShouldBe("move-course");
        Refused(() => moving.Move(school.Lead, school.Class, school.Umi.Id, other, false)).ShouldBe("move-course");
        Refused(() => moving.Move(school.Coordinator, school.Class, school.CoTeacher.Id, other, false)).ShouldBe("move-role");
        moving.Choices(school.Coordinator, school.Class).Select(s => s.Id).ShouldBe([other]);
        moving.Choices(school.Lead, school.Class).ShouldBeEmpty();
    }

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void A_late_joiner_sees_what_is_set_from_then_on_and_earlier_ones_only_if_the_teacher_says_so(bool includeOpen)
    {
        school.Assign("Before");
        school.Clock.AdvanceMinutes(5);
        school.Roster.Enroll(school.Lead, school.Class, [school.Outsider.Id], ClassRole.Student, includeOpen);
        school.Clock.AdvanceMinutes(5);
        school.Assign("After");

        school.Workspace.See(school.Outsider, school.Class).Assignments.Select(a => a.Title).ShouldBe(includeOpen ? ["Before", "After"] : ["After"]);
        school.Workspace.See(school.Outsider, school.Class).Folders.ShouldContain(f => f.Mine);
        school.Roster.IncludeOpen(school.Lead, school.Class, school.Outsider.Id, !includeOpen);
        school.Workspace.See(school.Outsider, school.Class).Assignments.Select(a => a.Title).ShouldBe(includeOpen ? ["After"] : ["Before", "After"]);
    }

    [Fact]
    public void What_is_not_seen_is_not_worked_on_either()
    {
        var before = school.Assign("Before");
        school.Clock.AdvanceMinutes(5);
        school.Roster.Enroll(school.Lead, school.Class, [school.Outsider.Id], ClassRole.Student);

        Refused(() => school.Work.HandIn(school.Outsider, school.Class, before)).ShouldBe("not-found");
    }

    [Fact]
    public async Task Taking_many_off_says_for_each_what_it_means_and_does_all_or_none()
    {
        var assignment = school.Assign();
        await school.HandIn(school.Umi, assignment);
        PersonId[] both = [school.Umi.Id, school.Rúna.Id];

        school.Roster.PreviewRemoval(school.Class, both).Select(l => (l.Held, l.WhyNot is null)).ShouldBe([(1, false), (0, true)]);
        Refused(() => school.Roster.RemoveMany(school.Lead, school.Class, both)).ShouldBe("work-held");
        school.Roster.See(school.Class).Count(r => r.Left is not null).ShouldBe(0);
        school.Roster.RemoveMany(school.Lead, school.Class, [school.Rúna.Id]).ShouldBe(1);
        Refused(() => school.Roster.RemoveMany(school.Lead, school.Class, [school.Lead.Id])).ShouldBe("role-lead");
    }

    private sealed class LeftClassView(TinySchool school)
    {
        internal IEnumerable<string> Titles() => new SpringLoft.App.Workspaces.LeftClass(school.Premises).Returned(school.Umi, school.Class).Select(r => r.Assignment);
    }
}
