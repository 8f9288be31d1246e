using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Runs;

namespace SpringLoft.Store.Tests.Runs;

public class RunStoreTests : StoreTest
{
    [Fact]
    public void A_closing_run_stands_with_all_its_steps_waiting_until_it_ends()
    {
        var run = Db.Write(c => RunStore.Add(c, [Class], new(AfterArchive.Nothing), Teacher, At));

        Db.Read(c => RunStore.Steps(c, run)).ShouldSatisfyAllConditions(s => s.Count.ShouldBe(4), s => s.ShouldAllBe(x => x.State == StepState.Waiting));
        Db.Read(c => RunStore.IsGoing(c, Class)).ShouldBeTrue();
        Db.Read(c => RunStore.Unfinished(c)).ShouldBe([run]);
        Db.Write(c =>
        {
            RunStore.SetClass(c, run, Class, StepState.Done, null);
            RunStore.End(c, run, StepState.Done, At);
        });
        Db.Read(c => RunStore.IsGoing(c, Class)).ShouldBeFalse();
        Db.Read(c => RunStore.Unfinished(c)).ShouldBeEmpty();
    }

    [Fact]
    public void A_run_that_puts_a_plan_is_no_closing_run()
    {
        var run = Db.Write(c => RunStore.AddOver(c, RunKind.PutPlan, [Class], Teacher, At));

        Db.Read(c => RunStore.Find(c, run))!.Kind.ShouldBe(RunKind.PutPlan);
        Db.Read(c => RunStore.IsGoing(c, Class)).ShouldBeFalse();
        Db.Read(c => RunStore.Newest(c, Class)).ShouldBeNull();
        Db.Read(c => ClosingStore.Counts(c, Year, new(2027, 6, 7), At))[Class].RunGoing.ShouldBeFalse();
    }

    [Fact]
    public void A_package_made_again_takes_the_place_of_the_first_and_is_to_be_checked_anew()
    {
        var run = Db.Write(c => RunStore.Add(c, [Class], new(AfterArchive.View), Teacher, At));
        Db.Write(c =>
        {
            foreach (var name in (string[])["a", "b"])
            {
                var sha = new string(name[0], 64);
                Store.Workspaces.ItemStore.AddBlob(c, new(sha, new string(name[0], 128), 1), At);
                RunStore.PutPackage(c, new PackageRow { RunId = run, ClassId = Class, Kind = "Archive", Name = "p.zip", Sha256 = sha, Files = 1, MadeAt = At });
                if (name == "a") RunStore.SetVerified(c, RunStore.PackagesOf(c, run, Class)[0].Id, At);
            }
        });

        Db.Read(c => RunStore.PackagesOf(c, run, Class)).ShouldHaveSingleItem().ShouldSatisfyAllConditions(p => p.Sha256.ShouldBe(new string('b', 64)), p => p.VerifiedAt.ShouldBeNull());
        Db.Read(RunStore.Archives).ShouldBeEmpty();
    }
}
