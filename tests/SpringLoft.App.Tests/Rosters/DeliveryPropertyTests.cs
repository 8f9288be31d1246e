using CsCheck;
using SpringLoft.App.Rosters;
using SpringLoft.Core.Rosters;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.Tests.Rosters;

/// <summary>What holds of any two deliveries, on a real database.</summary>
public class DeliveryPropertyTests
{
    private static readonly Gen<(int Students, int Classes, int[] Gone, int[] Moved, int[] Graded, int Added)> Second =
        Gen.Select(Gen.Int[1, 25], Gen.Int[1, 4], Gen.Int[0, 24].Array[0, 12], Gen.Int[0, 24].Array[0, 8], Gen.Int[0, 24].Array[0, 5], Gen.Int[0, 3]);

    [Fact]
    public void Twice_is_once_and_held_changes_wait_and_taking_back_restores() => Second.Sample(Holds, iter: 40);

    // Three of 14 leave and are held; whoever joins makes them three of 15, which would not be.
    [Fact]
    public void What_joins_does_not_let_go_what_is_held() => Holds((16, 2, [18, 12], [12, 6, 15], [19, 15, 15, 6], 1));

    private static void Holds((int Students, int Classes, int[] Gone, int[] Moved, int[] Graded, int Added) s)
    {
        using var school = new TinySchool();
        var deliveries = new Deliveries(school.Premises);
        var applying = new ApplyingDelivery(school.Premises, deliveries);
        var records = new Records(s.Students, s.Classes);
        long Receive() => deliveries.Receive(school.Coordinator, school.Years[0].Id, "d.zip", records.Bundle(), CancellationToken.None).GetAwaiter().GetResult();
        bool Apply(long id)
        {
            try { applying.Apply(school.Coordinator, id, school.Plan("Small start"), deliveries.See(id).Summary.Version); return true; }
            catch (RefusedException e) when (e.Refusal.Code == "delivery-nothing") { return false; }
        }
        var year = school.Years[0].Id;
        string State() => school.Read(c => string.Join("\n", DeliveredStore.People(c)) + "\n" + string.Join("\n", DeliveredStore.Classes(c, year))
            + "\n" + string.Join("\n", DeliveredStore.Members(c, year).OrderBy(m => (m.Class.Value, m.Person.Value)))
            + "\n" + string.Join("\n", DeliveredStore.Classes(c, year).SelectMany(k => Store.Workspaces.FolderStore.OfClass(c, k.Id)).Select(f => $"{f.Id} {f.Name}")));
        Apply(Receive());
        var before = State();
        foreach (var i in s.Gone.Distinct().Where(i => i < s.Students)) records.Gone(i);
        foreach (var i in s.Moved.Distinct().Where(i => i < s.Students && !s.Gone.Contains(i))) records.Moved(i, i % s.Classes);
        foreach (var i in s.Graded.Distinct().Where(i => i < s.Students && !s.Gone.Contains(i))) records.Grade(i, "7");
        for (var i = 0; i < s.Added; i++) records.Added($"New{i}", "Comer");
        var second = Receive();
        var shown = deliveries.Changes(second, null, null, null, null, 0).Changes;
        var held = shown.Where(x => x.Held).Select(x => (x.Kind, x.Who, x.ClassName)).ToHashSet();
        var didAnything = Apply(second);
        var after = State();

        // Applied once more, and delivered once more, nothing happens.
        if (Apply(second)) throw new InvalidOperationException("A second applying did something.");
        var third = Receive();
        var left = deliveries.Changes(third, null, null, null, null, 0).Changes.Select(x => (x.Kind, x.Who, x.ClassName)).ToHashSet();
        if (!left.SetEquals(held)) throw new InvalidOperationException($"Left after applying: {string.Join(", ", left)}; held: {string.Join(", ", held)}.");
        if (State() != after) throw new InvalidOperationException("Receiving changed something.");
        if (didAnything == (shown.Count == held.Count)) throw new InvalidOperationException("Something was done where all was held, or nothing where something was free.");
        if (!didAnything) return;
        applying.TakeBack(school.Coordinator, second);
        var restored = State();
        if (restored != before) throw new InvalidOperationException($"Not restored: {string.Join(" / ", before.Split('\n').Except(restored.Split('\n')))} became {string.Join(" / ", restored.Split('\n').Except(before.Split('\n')))}.");
    }
}
