using SpringLoft.Core;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Files;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.Store.Tests.Rosters;

public class DeliveryStoreTests : StoreTest
{
    private static readonly string Sha = new('c', 64);

    public DeliveryStoreTests() => Db.Write(c => ItemStore.AddBlob(c, new StoredFile(Sha, null, 3), At));

    private long Add(DeliveryState state = DeliveryState.Waiting, string? name = null) =>
        Db.Write(c => DeliveryStore.Add(c, new DeliveryRow { Name = name ?? "d.zip", Kind = DeliveryKind.Bundle, YearId = Year, State = state, ReceivedAt = At, ReceivedBy = Teacher, SourceSha256 = Sha }));

    private static HoldRow Hold(string key, string text, HoldKind kind = HoldKind.ClassLoses, string? person = null) => new() { Key = key, Kind = kind, Text = text, Changes = 3, PersonRef = person };

    private void Compared(long id, params HoldRow[] holds) => Db.Write(c => DeliveryStore.SetChanges(c, id, Sha, "{}", 0, 4, holds, [(Class, 3)]));

    private void Decide(long id, string key, HoldDecision decision, PersonId? who = null) => Db.Write(c => DeliveryStore.Decide(c, id, key, decision, who, Teacher, At));

    private IEnumerable<(string, HoldDecision)> Holds(long id) => Db.Read(c => DeliveryStore.Holds(c, id)).Select(h => (h.Key, h.Decision));

    private int OnHold => Db.Read(c => Store.Closing.ClosingStore.Counts(c, Year, new(2027, 6, 7), At))[Class].OnHold;

    [Fact]
    public void A_delivery_is_kept_with_who_received_it_and_how_much_waits()
    {
        var id = Add();
        Compared(id, Hold("class:1", "would lose 3"), Hold("dates", "another year", HoldKind.OutsideDates));

        var d = Db.Read(c => DeliveryStore.Find(c, id))!;

        d.ShouldSatisfyAllConditions(x => x.ReceivedByName.ShouldBe("Oisín Farquhar"), x => x.OnHold.ShouldBe(4), x => x.AppliedAt.ShouldBeNull(), x => x.ChangesSha256.ShouldBe(Sha));
        OnHold.ShouldBe(3);
        Db.Read(c => DeliveryStore.Find(c, 99)).ShouldBeNull();
    }

    [Fact]
    public void Compared_anew_a_decision_stands_as_long_as_it_is_about_the_same()
    {
        var id = Add();
        Compared(id, Hold("class:1", "would lose 3 of 14"), Hold("class:2", "would lose 4 of 9"), Hold("class:3", "would lose 5 of 9"));
        Decide(id, "class:1", HoldDecision.Yes);
        Decide(id, "class:2", HoldDecision.Yes);

        Compared(id, Hold("class:1", "would lose 3 of 14"), Hold("class:2", "would lose 9 of 9"));

        // A yes to four is none to nine; what nobody decided and what is no more is gone.
        Holds(id).ShouldBe([("class:2", HoldDecision.Waiting), ("class:1", HoldDecision.Yes)]);
    }

    [Fact]
    public void A_newer_delivery_finds_what_is_still_open_and_lets_it_go()
    {
        var (waiting, columns, done, held) = (Add(), Add(DeliveryState.ColumnsOpen), Add(DeliveryState.Applied), Add(DeliveryState.Applied));
        Compared(held, Hold("class:1", "would lose 3"));
        var newest = Add();

        Db.Read(c => DeliveryStore.Open(c, Year, newest)).ShouldBe([waiting, columns, held], ignoreOrder: true);

        Db.Write(c => DeliveryStore.LetHoldsGo(c, held));
        Db.Read(c => DeliveryStore.Open(c, Year, newest)).ShouldBe([waiting, columns], ignoreOrder: true);
        Holds(held).ShouldBe([("class:1", HoldDecision.No)]);
        Db.Read(c => DeliveryStore.Find(c, held))!.OnHold.ShouldBe(0);
        OnHold.ShouldBe(0);
        Db.Read(c => DeliveryStore.Find(c, done))!.State.ShouldBe(DeliveryState.Applied);
    }

    [Fact]
    public void What_was_applied_later_and_stands_is_known()
    {
        var (first, second) = (Add(), Add());
        Db.Write(c => DeliveryStore.AddApplied(c, first, At, Teacher, 7, Sha));
        Db.Write(c => DeliveryStore.AddApplied(c, second, At + Duration.FromHours(1), null, 2, Sha));
        long Applied(long id) => Db.Read(c => DeliveryStore.Applied(c, id)).ShouldHaveSingleItem().Id;

        Db.Read(c => DeliveryStore.AppliedLater(c, Year, Applied(first))).ShouldBeTrue();
        Db.Read(c => DeliveryStore.AppliedLater(c, Year, Applied(second))).ShouldBeFalse();
        Db.Write(c => DeliveryStore.SetTakenBack(c, Applied(second), At));
        Db.Read(c => DeliveryStore.AppliedLater(c, Year, Applied(first))).ShouldBeFalse();
        Db.Read(c => DeliveryStore.Find(c, first))!.AppliedAt.ShouldBe(At);
        Db.Read(c => DeliveryStore.Find(c, second))!.AppliedAt.ShouldBeNull();
        Db.Read(c => DeliveryStore.Applied(c, first)).Single().By.ShouldBe("Oisín Farquhar");
    }

    [Fact]
    public void Who_a_record_was_said_to_be_counts_while_the_record_is_theirs()
    {
        var umi = Db.Write(c => Person(c, SchoolRole.Student, "Umi", "Ravndal", "umi", "1001"));
        var (id, undecided) = (Add(), Add());
        foreach (var d in new[] { id, undecided }) Compared(d, Hold("person:rec-u", "two people", HoldKind.PersonUnclear, "rec-u"));
        IReadOnlyDictionary<string, PersonId> Before() => Db.Read(DeliveryStore.SettledBefore);

        Decide(id, "person:rec-u", HoldDecision.Yes, umi);
        Before().ShouldBeEmpty();
        Db.Write(c => DeliveredStore.Save(c, DeliveredStore.People(c).Single(p => p.Id == umi) with { RecordId = "rec-u" }));
        Before().ShouldBe(new Dictionary<string, PersonId> { ["rec-u"] = umi });

        Db.Write(c => DeliveredStore.Unlink(c, ["rec-u"]));
        Before().ShouldBeEmpty();
        Db.Write(c => DeliveredStore.Save(c, DeliveredStore.People(c).Single(p => p.Id == umi) with { RecordId = "rec-u" }));
        Db.Write(c => DeliveryStore.ForgetSettled(c, id));
        Before().ShouldBeEmpty();
    }

    [Fact]
    public void Somebody_who_came_as_new_is_who_they_became()
    {
        var id = Add();
        Compared(id, Hold("person:rec-n", "somebody", HoldKind.PersonUnclear, "rec-n"));
        Decide(id, "person:rec-n", HoldDecision.Yes);
        var come = Db.Write(c => DeliveredStore.Add(c, [new(default, "rec-n", null, null, "new", "New", "Comer", null, SchoolRole.Student, null, true)])).Single();

        Db.Write(c => DeliveryStore.Came(c, id, DeliveryStore.Holds(c, id).Single(), come));

        Db.Read(c => DeliveryStore.Holds(c, id)).Single().ShouldSatisfyAllConditions(h => h.SettledAs.ShouldBe(come), h => h.Decision.ShouldBe(HoldDecision.Yes));
        Db.Read(DeliveryStore.SettledBefore)["rec-n"].ShouldBe(come);
        PersonId? Came() => Db.Read(c => DeliveryStore.WhoCame(c, id, "rec-n"));
        Decide(id, "person:rec-n", HoldDecision.Waiting);
        Came().ShouldBe(come, "also when it is to be decided anew");
        Db.Write(c => DeliveryStore.Forget(c, come));
        Came().ShouldBeNull();
    }
}
