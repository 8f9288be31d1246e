using Dapper;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rollover;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.Store.Tests.Rollover;

public class RollStoreTests : StoreTest
{
    public RollStoreTests() => Db.Write(c => RosterStore.Put(c, Class, Teacher, ClassRole.Lead, At));

    [Fact]
    public void Lines_keep_their_order_and_what_became_of_them()
    {
        var run = Db.Write(c =>
        {
            var id = RunStore.AddOver(c, RunKind.RollOver, [], Teacher, At);
            RollStore.Add(c, Enumerable.Range(0, 3).Select(i => new RollRow { RunId = id, Position = i, YearId = Year, Section = $"{i}", Choice = "{}" }));
            RollStore.Done(c, RollStore.Of(c, id)[1] with { State = StepState.Done, MadeId = Class, MadeName = "Clay", Parity = "[]" });
            return id;
        });

        Db.Read(c => RollStore.Of(c, run)).Select(l => (l.Section, l.State, l.MadeId)).ShouldBe([("0", StepState.Waiting, null), ("1", StepState.Done, Class), ("2", StepState.Waiting, null)]);
        Db.Write(c => RollStore.Undone(c, run, 1, At));
        Db.Read(c => RollStore.Of(c, run))[1].ShouldSatisfyAllConditions(l => l.UndoneAt.ShouldBe(At), l => l.MadeId.ShouldBeNull(), l => l.MadeName.ShouldBe("Clay"));
        Db.Read(c => RunStore.Newest(c, RunKind.RollOver, Teacher)).ShouldBe(run);
    }
}
