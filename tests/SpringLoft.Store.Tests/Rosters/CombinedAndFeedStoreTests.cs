using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;

namespace SpringLoft.Store.Tests.Rosters;

public sealed class CombinedAndFeedStoreTests : StoreTest
{
    [Fact]
    public void A_combined_roster_keeps_its_sections_in_the_order_they_were_put_each_with_its_colour()
    {
        var (second, third) = Db.Write(c => (NewClass(c, "Rope"), NewClass(c, "Glass")));
        var id = Db.Write(c => CombinedStore.Add(c, Teacher, Year, "Crafts"));
        Db.Write(c => CombinedStore.SetSections(c, id, [new(third, 2), new(Class, 0)]));
        Db.Read(c => CombinedStore.Sections(c, id)).ShouldBe([new(third, 2), new(Class, 0)]);

        Db.Write(c => CombinedStore.SetSections(c, id, [new(Class, 0), new(second, 1), new(third, 2)]));

        Db.Read(c => CombinedStore.Sections(c, id)).ShouldBe([new(Class, 0), new(second, 1), new(third, 2)]);
        Db.Write(c => CombinedStore.Remove(c, id));
        Db.Read(c => (CombinedStore.Find(c, id), CombinedStore.Sections(c, id).Count)).ShouldBe((null, 0));
        Db.Read(c => Store.Workspaces.ClassStore.Find(c, third)).ShouldNotBeNull("the classes stay");
    }

    [Fact]
    public void Each_person_has_their_own_by_name_and_the_later_of_two_renames_is_told()
    {
        var other = Db.Write(c => Person(c, SchoolRole.Teacher, "Ngozi", "Amadi", "ngozi", null));
        var (b, a) = Db.Write(c => (CombinedStore.Add(c, Teacher, Year, "beta"), CombinedStore.Add(c, Teacher, Year, "Alpha")));
        Db.Write(c => CombinedStore.Add(c, other, Year, "Hers"));

        Db.Read(c => CombinedStore.Of(c, Teacher)).Select(r => r.Id).ShouldBe([a, b]);
        var seen = Db.Read(c => CombinedStore.Find(c, a))!.Version;
        Db.Write(c => CombinedStore.Rename(c, a, "Gamma", seen)).ShouldBeTrue();
        Db.Write(c => CombinedStore.Rename(c, a, "Delta", seen)).ShouldBeFalse();
        Db.Read(c => CombinedStore.Of(c, Teacher)).Select(r => r.Name).ShouldBe(["beta", "Gamma"]);
    }

    [Fact]
    public void There_is_one_feed_and_setting_it_up_anew_keeps_what_it_last_did()
    {
        Db.Read(FeedStore.Get).ShouldBeNull();
        var feed = new FeedRow { Address = "https://records.example/", ClientId = "loft", ClientSecret = "s", YearId = Year, FirstDay = new(2026, 8, 20), LastDay = new(2027, 6, 1), Hour = 4, IsOn = true };
        Db.Write(c => { FeedStore.Set(c, feed); FeedStore.SetLast(c, At, false, "no answer"); });

        Db.Write(c => FeedStore.Set(c, feed with { Hour = 5, IsOn = false, Applies = true }));

        Db.Read(FeedStore.Get).ShouldBe(feed with { Hour = 5, IsOn = false, Applies = true, LastAt = At, LastOk = false, LastResult = "no answer" });
    }
}
