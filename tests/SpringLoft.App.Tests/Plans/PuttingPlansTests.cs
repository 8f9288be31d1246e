using SpringLoft.App.Closing;
using SpringLoft.App.Plans;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Plans;

namespace SpringLoft.App.Tests.Plans;

public class PuttingPlansTests : SchoolTest
{
    private PlanDesk Desk => new(school.Premises);

    private PuttingPlans Putting => new(school.Premises, school.Queue.Writer, new NoMilestones());

    private PlanView Plan(PlanId id) => Desk.Plans().First(p => p.Id == id);

    private static OutlineLine Line(string name, int depth = 0, FolderRule rule = FolderRule.ClassViews, string? key = null) => new(key, depth, name, Stands.Once, rule, []);

    private PlanId Make(params OutlineLine[] lines) => Desk.Make(school.Coordinator, "Mine", "", lines);

    private void Save(PlanId id, Func<IReadOnlyList<OutlineLine>, IEnumerable<OutlineLine>> change)
    {
        var p = Plan(id);
        Desk.Save(school.Coordinator, id, p.Version, p.Name, p.About, [.. change(p.Outline)]);
    }

    private PlanRunView Put(PlanId id, params ClassId[] classes)
    {
        var run = Putting.Begin(school.Coordinator, id, classes.Length == 0 ? [school.Class] : classes);
        Putting.Go(run, CancellationToken.None);
        return Putting.See(school.Coordinator, run);
    }

    private IEnumerable<string> Names(ClassId? id = null) => school.Workspace.See(school.Lead, id ?? school.Class).Folders.Select(f => f.Name);

    [Fact]
    public void A_plan_is_put_as_its_preview_said_and_a_second_time_changes_nothing()
    {
        var plan = Make(Line("Start here"), Line("Units"), Line("Lines", 1), Line("Quiet room", 0, FolderRule.StaffOnly));
        var preview = Putting.Preview(school.Coordinator, plan, [school.Class]).Single();

        var report = Put(plan).Classes.Single();

        (report.State, report.Adds, report.Changes, report.Removes).ShouldBe((StepState.Done, preview.Adds, preview.Changes, preview.Removes));
        Names().ShouldContain("Quiet room");
        var again = Put(plan).Classes.Single();
        (again.Adds, again.Changes, again.Removes).ShouldBe((0, 0, 0));
    }

    [Fact]
    public void The_changed_plan_put_again_keeps_what_the_teacher_changed_and_lists_it()
    {
        var plan = Make(Line("Papers"), Line("Models"));
        var id = school.Making.Make(school.Lead, school.New("Glass") with { Plan = plan });
        school.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "UPDATE folder SET name = 'Our papers', name_key = 'OUR PAPERS' WHERE class_id = @id AND name = 'Papers'", new { id = id.Value }));
        Save(plan, lines => [lines[0] with { NamePattern = "Term papers" }, lines[1] with { NamePattern = "Examples" }, Line("Sites")]);

        var report = Put(plan, id).Classes.Single();

        Names(id).ShouldBe(["Our papers", "Examples", "Sites"]);
        report.Kept.ShouldHaveSingleItem().ShouldSatisfyAllConditions(k => k.Folder.ShouldBe("Our papers"), k => k.Why.ShouldContain("“Term papers”"));
        Plan(plan).ShouldSatisfyAllConditions(p => p.Version.ShouldBe(2), p => p.Classes.ShouldBe(1), p => p.Behind.ShouldBe(0));
    }

    [Fact]
    public async Task What_the_plan_drops_goes_only_where_it_is_empty()
    {
        var plan = Make(Line("Keep"), Line("Full"), Line("Empty"));
        Put(plan);
        await school.Put(school.Lead, "Full", "a.txt", "x");
        Save(plan, lines => [lines[0]]);

        var report = Put(plan).Classes.Single();

        Names().ShouldContain("Full");
        Names().ShouldNotContain("Empty");
        report.Removes.ShouldBe(1);
        report.Kept.ShouldContain(k => k.Folder == "Full" && k.Kind == PutKind.KeepFull);
    }

    [Fact]
    public async Task A_put_is_taken_back_and_what_was_filled_since_stays_and_is_told()
    {
        var before = Names().ToList();
        var run = Put(Make(Line("New A"), Line("New B")));
        await school.Put(school.Lead, "New B", "a.txt", "x");

        Putting.TakeBack(school.Coordinator, run.Id, school.Class).ShouldBe(["New B"]);

        Names().ShouldBe([.. before, "New B"], ignoreOrder: true);
        Refused(() => Putting.TakeBack(school.Coordinator, run.Id, school.Class)).ShouldBe("nothing-to-take-back");
        school.Workspace.Head(school.Lead, school.Class).PlanName.ShouldBe("Small start");
    }

    [Fact]
    public void Taking_back_a_change_restores_names_rules_and_folders_exactly()
    {
        var plan = Make(Line("Papers two"), Line("Inner", 1), Line("Drop"));
        Put(plan);
        IEnumerable<(string, FolderRule, Right)> Shape() => school.Workspace.See(school.Lead, school.Class).Folders.Select(f => (f.Name, f.Rule, f.Right)).OrderBy(x => x.Name);
        var before = Shape().ToList();
        Save(plan, lines => [lines[0] with { NamePattern = "Papers three", Rule = FolderRule.StaffOnly }, lines[1]]);
        var run = Put(plan);
        Shape().ShouldNotBe(before);

        Putting.TakeBack(school.Coordinator, run.Id, school.Class).ShouldBeEmpty();

        Shape().ShouldBe(before);
        // And put once more it does the same again.
        Put(plan).Classes.Single().ShouldSatisfyAllConditions(r => r.Changes.ShouldBe(1), r => r.Removes.ShouldBe(1));
    }

    [Fact]
    public void A_plan_put_to_a_class_of_another_plan_takes_what_it_knows_adds_the_rest_and_removes_nothing()
    {
        school.OpenClass();
        var before = Names().ToList();
        // Keys of two plans may be the same; they mean nothing to one another.
        var plan = Make(Line("Models"), Line("Papers", 0, FolderRule.StaffOnly), Line("Inner", 1));

        var run = Put(plan);

        Names().ShouldBe([.. before, "Models", "Inner"], ignoreOrder: true);
        school.Workspace.See(school.Lead, school.Class).Folders.First(f => f.Name == "Papers").Rule.ShouldBe(FolderRule.ClassViews);
        Put(plan).Classes.Single().ShouldSatisfyAllConditions(r => r.Adds.ShouldBe(0), r => r.Removes.ShouldBe(0));
        school.Workspace.Head(school.Lead, school.Class).PlanName.ShouldBe("Mine");

        Putting.TakeBack(school.Coordinator, Put(plan).Id, school.Class);
        Putting.TakeBack(school.Coordinator, run.Id, school.Class).ShouldBeEmpty();
        Names().ShouldBe(before, ignoreOrder: true);
        Put(school.Plan("Small start")).Classes.Single().Adds.ShouldBe(0);
    }

    [Fact]
    public void A_run_that_was_stopped_goes_on_with_the_next_class_and_doubles_nothing()
    {
        var second = school.Making.Make(school.Lead, school.New("Glass"));
        var run = Putting.Begin(school.Coordinator, Make(Line("New")), [school.Class, second]);
        school.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "UPDATE run_class SET state = 'Working' WHERE class_id = @id", new { id = second.Value }));

        Putting.Go(run, CancellationToken.None);
        Putting.Go(run, CancellationToken.None);

        Names().Count(n => n == "New").ShouldBe(1);
        Names(second).Count(n => n == "New").ShouldBe(1);
    }

    [Fact]
    public void An_archived_class_is_refused_and_the_others_go_on()
    {
        var second = school.Making.Make(school.Lead, school.New("Glass"));
        school.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "UPDATE class SET state = 'Archived' WHERE id = @id", new { id = school.Class.Value }));

        var run = Put(Make(Line("New")), school.Class, second);

        run.State.ShouldBe(StepState.Failed);
        run.Classes.Select(k => k.State).ShouldBe([StepState.Failed, StepState.Done]);
    }

    [Fact]
    public void A_teacher_puts_plans_to_classes_they_lead_and_no_other()
    {
        var plan = Make(Line("New"));

        Putting.Preview(school.Lead, plan, [school.Class]).ShouldHaveSingleItem();
        Refused(() => Putting.Begin(school.OtherTeacher, plan, [school.Class])).ShouldBe("not-found");
        Refused(() => Desk.Unfold(school.OtherTeacher, [Line("A")], new(school.Class, null, null))).ShouldBe("not-found");
    }

    [Fact]
    public void Of_two_who_change_a_plan_the_second_is_told_and_a_line_of_elsewhere_is_refused()
    {
        var plan = Make(Line("A"));
        Save(plan, l => l);

        Refused(() => Desk.Save(school.Coordinator, plan, 1, "Mine", "", [Line("B")])).ShouldBe("changed-meanwhile");
        Refused(() => Desk.Save(school.Coordinator, plan, 2, "Mine", "", [Line("B", key: "start")])).ShouldBe("plan-key-unknown");
        Refused(() => Desk.Make(school.Coordinator, "small START", "", [Line("B")])).ShouldBe("name-taken");
    }

    [Fact]
    public void A_class_becomes_an_outline_with_one_line_for_its_own_folders()
    {
        school.OpenClass();

        Desk.OfClass(school.Class).Select(l => (l.Depth, l.NamePattern, l.Stands)).ShouldBe([
            (0, "Start here", Stands.Once), (0, "Papers", Stands.Once), (0, "Shared table", Stands.Once), (0, "Own folders", Stands.Once), (1, "{student}", Stands.EachStudent),
            (0, "Staff room", Stands.Once), (1, "Lesson plans", Stands.Once), (1, "Notes", Stands.Once)]);
    }
}
