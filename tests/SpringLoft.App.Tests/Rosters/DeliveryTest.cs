using System.Text;
using SpringLoft.App.Rosters;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.Tests.Rosters;

/// <summary>A small school to which deliveries come.</summary>
public abstract class DeliveryTest : SchoolTest
{
    protected readonly Deliveries deliveries;
    protected readonly ApplyingDelivery applying;

    protected DeliveryTest()
    {
        deliveries = new(school.Premises);
        applying = new(school.Premises, deliveries);
    }

    private protected Task<long> Receive(Records records, string name = "rosters.zip") => deliveries.Receive(school.Coordinator, school.Years[0].Id, name, records.Bundle(), CancellationToken.None);

    protected DeliveryApplied Apply(long id) => applying.Apply(school.Coordinator, id, school.Plan("Small start"), deliveries.See(id).Summary.Version);

    /// <summary>All that deliveries may touch, as text.</summary>
    protected string State() => school.Read(c =>
    {
        var text = new StringBuilder();
        foreach (var p in DeliveredStore.People(c)) text.AppendLine(p.ToString());
        foreach (var k in DeliveredStore.Classes(c, school.Years[0].Id)) text.AppendLine(k.ToString());
        foreach (var m in DeliveredStore.Members(c, school.Years[0].Id).OrderBy(m => (m.Class.Value, m.Person.Value))) text.AppendLine(m.ToString());
        foreach (var k in DeliveredStore.Classes(c, school.Years[0].Id)) foreach (var f in Store.Workspaces.FolderStore.OfClass(c, k.Id)) text.AppendLine($"{k.Id} {f.Id} {f.Name}");
        return text.ToString();
    });
}
