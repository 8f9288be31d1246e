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

    private static readonly Gen<(int Students, int Classes, (int, int)[] Numbers, int[] Staff, int[] Gone, int[] Decisions)> MixedUp =
        Gen.Select(Gen.Int[2, 16], Gen.Int[1, 3], Gen.Select(Gen.Int[0, 15], Gen.Int[0, 15]).Array[0, 3], Gen.Int[0, 15].Array[0, 2], Gen.Int[0, 15].Array[0, 4], Gen.Int[0, 5].Array[1, 6]);

    [Fact]
    public void Whatever_is_decided_about_people_who_are_unclear_it_can_be_applied_once_and_taken_back() => MixedUp.Sample(Decides, iter: 40);

    private static void Decides((int Students, int Classes, (int, int)[] Numbers, int[] Staff, int[] Gone, int[] Decisions) s)
    {
        using var w = new World();
        var records = new Records(s.Students, s.Classes);
        w.Apply(w.Receive(records));
        var before = w.State();
        foreach (var i in s.Gone.Distinct().Where(i => i < s.Students)) records.Gone(i);
        bool There(int i) => i < s.Students && !s.Gone.Contains(i);
        foreach (var (i, other) in s.Numbers.Where(n => n.Item1 != n.Item2 && There(n.Item1) && There(n.Item2)).DistinctBy(n => n.Item2).DistinctBy(n => n.Item1)) records.NumberOf(i, other);
        foreach (var i in s.Staff.Where(There)) records.Staff(i);
        var second = w.Receive(records);
        for (var n = 0; w.Deliveries.See(second).Holds.FirstOrDefault(h => h.Decision == HoldDecision.Waiting) is { } hold; n++)
        {
            if (n > 100) throw new InvalidOperationException("There is always one more question.");
            var decision = s.Decisions[n % s.Decisions.Length];
            PersonId? who = decision > 1 && hold.People.Count > 0 ? hold.People[decision % hold.People.Count].Id : null;
            try { w.Deliveries.Decide(w.School.Coordinator, second, hold.Key, decision == 0 ? HoldDecision.No : HoldDecision.Yes, who); }
            catch (RefusedException e) when (e.Refusal.Code == "person-own-record") { w.Deliveries.Decide(w.School.Coordinator, second, hold.Key, HoldDecision.Yes, null); }
        }
        if (!w.Apply(second)) return;
        if (w.Apply(second)) throw new InvalidOperationException($"A second applying did something: {string.Join(", ", w.Deliveries.Changes(second, null, null, null, null, 0).Changes)}.");
        w.TakeBack(second, before);
    }

    private static void Holds((int Students, int Classes, int[] Gone, int[] Moved, int[] Graded, int Added) s)
    {
        using var w = new World();
        var records = new Records(s.Students, s.Classes);
        w.Apply(w.Receive(records));
        var before = w.State();
        foreach (var i in s.Gone.Distinct().Where(i => i < s.Students)) records.Gone(i);
        foreach (var i in s.Moved.Distinct().Where(i => i < s.Students && !s.Gone.Contains(i))) records.Moved(i, i % s.Classes);
        foreach (var i in s.Graded.Distinct().Where(i => i < s.Students && !s.Gone.Contains(i))) records.Grade(i, "7");
        for (var i = 0; i < s.Added; i++) records.Added($"New{i}", "Comer");
        var second = w.Receive(records);
        var shown = w.Deliveries.Changes(second, null, null, null, null, 0).Changes;
        var held = shown.Where(x => x.Held).Select(x => (x.Kind, x.Who, x.ClassName)).ToHashSet();
        var didAnything = w.Apply(second);
        var after = w.State();

        // Applied once more, and delivered once more, nothing happens.
        if (w.Apply(second)) throw new InvalidOperationException("A second applying did something.");
        var third = w.Receive(records);
        var left = w.Deliveries.Changes(third, null, null, null, null, 0).Changes.Select(x => (x.Kind, x.Who, x.ClassName)).ToHashSet();
        if (!left.SetEquals(held)) throw new InvalidOperationException($"Left after applying: {string.Join(", ", left)}; held: {string.Join(", ", held)}.");
        if (w.State() != after) throw new InvalidOperationException("Receiving changed something.");
        if (didAnything == (shown.Count == held.Count)) throw new InvalidOperationException("Something was done where all was held, or nothing where something was free.");
        if (didAnything) w.TakeBack(second, before);
    }

    /// <summary>A school to which deliveries come.</summary>
    private sealed class World : IDisposable
    {
        internal World()
        {
            Deliveries = new(School.Premises);
            Applying = new(School.Premises, Deliveries);
        }

        internal TinySchool School { get; } = new();

        internal Deliveries Deliveries { get; }

        private ApplyingDelivery Applying { get; }

        internal long Receive(Records records) => Deliveries.Receive(School.Coordinator, School.Years[0].Id, "d.zip", records.Bundle(), CancellationToken.None).GetAwaiter().GetResult();

        internal bool Apply(long id)
        {
            try { Applying.Apply(School.Coordinator, id, School.Plan("Small start"), Deliveries.See(id).Summary.Version); return true; }
            catch (RefusedException e) when (e.Refusal.Code == "delivery-nothing") { return false; }
        }

        internal string State() => School.Read(c =>
        {
            var classes = DeliveredStore.Classes(c, School.Years[0].Id);
            return string.Join("\n", [
                .. DeliveredStore.People(c).Select(p => $"{p}"), .. classes.Select(k => $"{k}"), .. DeliveredStore.Members(c, School.Years[0].Id).OrderBy(m => (m.Class.Value, m.Person.Value)).Select(m => $"{m}"),
                .. classes.SelectMany(k => Store.Workspaces.FolderStore.OfClass(c, k.Id)).Select(f => $"{f.Id} {f.Name}")]);
        });

        internal void TakeBack(long id, string before)
        {
            Applying.TakeBack(School.Coordinator, id);
            var restored = State();
            if (restored != before) throw new InvalidOperationException($"Not restored: {string.Join(" / ", before.Split('\n').Except(restored.Split('\n')))} became {string.Join(" / ", restored.Split('\n').Except(before.Split('\n')))}.");
        }

        public void Dispose() => School.Dispose();
    }
}
