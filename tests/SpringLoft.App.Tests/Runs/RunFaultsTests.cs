using Dapper;
using SpringLoft.App.Closing;
using SpringLoft.App.Plans;
using SpringLoft.App.Runs;
using SpringLoft.Core.Closing;

namespace SpringLoft.App.Tests.Runs;

/// <summary>A run that meets a fault is failed with its reason, keeps what it has done, and can be tried again.</summary>
public class RunFaultsTests : SchoolTest
{
    private RunFaults Faults => new(school.Premises, school.Queue.Writer);

    private PuttingPlans Putting(IRunMilestones milestones) => new(school.Premises, school.Queue.Writer, milestones);

    [Fact]
    public void Putting_a_plan_goes_on_where_the_fault_was_when_it_is_tried_again()
    {
        var second = school.Making.Make(school.Lead, school.New("Glass"));
        var times = 0;
        var putting = Putting(new AtPoint("PutPlan:one", () => { if (++times == 1) throw new InvalidOperationException("a fault"); }));
        var run = putting.Begin(school.Coordinator, school.Plan("By unit"), [school.Class, second]);
        school.Queue.Reader.TryRead(out _).ShouldBeTrue();
        Should.Throw<InvalidOperationException>(() => putting.Go(run, CancellationToken.None));

        Faults.Failed(run, "InvalidOperationException");

        var failed = putting.See(school.Coordinator, run);
        failed.State.ShouldBe(StepState.Failed);
        failed.Classes.Select(k => k.State).ShouldBe([StepState.Done, StepState.Failed]);
        failed.Classes[1].Said.ShouldNotBeNull().ShouldStartWith("A fault in the program stopped it");
        failed.Reason.ShouldBe(failed.Classes[1].Said, "the report says why the whole stopped");
        Refused(() => Faults.Again(school.OtherTeacher, run)).ShouldBe("not-found");

        Faults.Again(school.Coordinator, run);
        school.Queue.Reader.TryRead(out var again).ShouldBeTrue("it waits for its turn again");
        again.ShouldBe(run);
        putting.Go(run, CancellationToken.None);

        putting.See(school.Coordinator, run).ShouldSatisfyAllConditions(r => r.State.ShouldBe(StepState.Done), r => r.Reason.ShouldBeNull(), r => r.Classes.ShouldAllBe(k => k.State == StepState.Done));
        Refused(() => Faults.Again(school.Coordinator, run)).ShouldBe("run-none-failed");
    }

    [Fact]
    public void A_take_home_run_and_a_closing_run_end_as_failed_too()
    {
        school.OpenClass();
        var homes = school.TakeHomes.Begin(school.Coordinator, school.Years[0].Id, null);
        var closing = school.Closing.Close(school.Lead, school.Class, AfterArchive.View);

        Faults.Failed(homes, "X");
        Faults.Failed(closing, "X");

        school.Read(c => c.Query<string>("SELECT state FROM run")).ShouldAllBe(s => s == "Failed");
        school.Read(c => c.Query<string>("SELECT state FROM run_student UNION ALL SELECT state FROM run_class")).ShouldAllBe(s => s == "Failed");
        Refused(() => Faults.Again(school.Coordinator, closing)).ShouldBe("not-found", "a closing run is tried again as one of its own");
        school.Read(c => Store.Runs.RunStore.IsGoing(c, school.Class)).ShouldBeFalse();
        Faults.Again(school.Coordinator, homes);
        school.TakeHomes.Go(homes, CancellationToken.None);
        school.TakeHomes.See(school.Coordinator, homes).State.ShouldBe(StepState.Done);
    }

    [Fact]
    public void A_fault_after_the_last_class_leaves_a_run_that_can_be_ended()
    {
        var putting = Putting(new AtPoint("PutPlan:one", () => throw new InvalidOperationException("a fault")));
        var run = putting.Begin(school.Coordinator, school.Plan("By unit"), [school.Class]);
        Should.Throw<InvalidOperationException>(() => putting.Go(run, CancellationToken.None));
        Faults.Failed(run, "X");
        putting.See(school.Coordinator, run).Classes.ShouldAllBe(k => k.State == StepState.Done);

        Faults.Again(school.Coordinator, run);
        Putting(new NoMilestones()).Go(run, CancellationToken.None);

        putting.See(school.Coordinator, run).State.ShouldBe(StepState.Done);
    }

    [Fact]
    public void A_run_that_has_ended_is_not_failed_afterwards()
    {
        var putting = Putting(new NoMilestones());
        var run = putting.Begin(school.Coordinator, school.Plan("By unit"), [school.Class]);
        putting.Go(run, CancellationToken.None);

        Faults.Failed(run, "X");

        putting.See(school.Coordinator, run).State.ShouldBe(StepState.Done);
    }
}
