using SpringLoft.Core.Plans;
using SpringLoft.Store.Plans;

namespace SpringLoft.Store.Tests.Plans;

public class PlanStoreTests : StoreTest
{
    [Fact]
    public void The_shipped_plans_come_back_as_they_were_put_in()
    {
        foreach (var plan in ShippedPlans.All)
        {
            var id = Db.Write(c => PlanStore.Add(c, plan, At));
            var back = Db.Read(c => PlanStore.Find(c, id))!.Plan;
            System.Text.Json.JsonSerializer.Serialize(back).ShouldBe(System.Text.Json.JsonSerializer.Serialize(plan));
        }
    }

    [Fact]
    public void Every_version_is_kept_and_found_and_keys_are_remembered_for_ever()
    {
        var first = ShippedPlans.Small;
        var id = Db.Write(c => PlanStore.Add(c, first, At));
        var second = first with { Lines = [first.Lines[0] with { NamePattern = "Begin here" }] };

        Db.Read(c => PlanStore.NewestBy(c, id)).ShouldBeNull();
        var by = Db.Write(c => Store.People.PersonStore.Add(c, new Store.People.PersonRow { Role = Core.Workspaces.SchoolRole.Coordinator, Given = "Wren", Family = "Aldersund", UserName = "wren" }));
        Db.Write(c => PlanStore.Save(c, id, 1, second, by, At)).ShouldBeTrue();
        Db.Write(c => PlanStore.Save(c, id, 1, first, by, At)).ShouldBeFalse();
        Db.Read(c => PlanStore.NewestBy(c, id)).ShouldNotBeNull().ShouldBe((by, At));

        Db.Read(c => PlanStore.Find(c, id))!.ShouldSatisfyAllConditions(p => p.Version.ShouldBe(2), p => p.Plan.Lines.Count.ShouldBe(1));
        Db.Read(c => PlanStore.Find(c, id, 1))!.Plan.Lines.Count.ShouldBe(first.Lines.Count);
        Db.Read(c => PlanStore.KeysEver(c, id)).ShouldContain("own-each");
    }
}
