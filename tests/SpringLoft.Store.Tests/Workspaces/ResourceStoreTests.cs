using SpringLoft.Core;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Audit;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.Store.Tests.Workspaces;

public class ResourceStoreTests : StoreTest
{
    private ResourceId Add(string title) => Db.Write(c => ResourceStore.Add(c, new ResourceRow { Title = title, Url = $"https://{title}.invalid/", ForWhom = ForWhom.SomeGrades, Grades = "5\n6", SourceId = title }));

    [Fact]
    public void What_is_kept_is_what_was_put_in()
    {
        Add("Tides");

        var row = Db.Read(ResourceStore.All).Single();
        (row.Title, row.Url, row.ForWhom, row.Version).ShouldBe(("Tides", "https://Tides.invalid/", ForWhom.SomeGrades, 1));
        ResourceRow.Lines(row.Grades).ShouldBe(["5", "6"]);
    }

    [Fact]
    public void It_is_saved_only_at_the_version_that_was_seen_and_no_two_titles_are_alike()
    {
        Add("Tides");
        Should.Throw<Microsoft.Data.Sqlite.SqliteException>(() => Add("TIDES"));
        var seen = Db.Read(ResourceStore.All).Single();

        Db.Write(c => ResourceStore.Save(c, seen with { Title = "Tide tables" })).ShouldBeTrue();
        Db.Write(c => ResourceStore.Save(c, seen with { Title = "Other" })).ShouldBeFalse();
    }

    [Fact]
    public void Uses_are_counted_in_classes_that_are_not_archived_and_a_binned_thing_is_used_by_none()
    {
        var tides = Add("Tides");
        Db.Write(c =>
        {
            ResourceStore.SetUsed(c, Class, [tides, tides]);
            var old = NewClass(c, "Old");
            ResourceStore.SetUsed(c, old, [tides]);
            ClassStore.SetState(c, ClassStore.Find(c, old)!, ClassState.Archived, At, AfterArchive.View);
        });

        Db.Read(ResourceStore.Uses)[tides].ShouldBe(1);
        Db.Write(c => ResourceStore.SetBinned(c, tides, At));
        Db.Read(c => ResourceStore.OfClass(c, Class)).ShouldBeEmpty();
        Db.Read(c => ResourceStore.UsesOfYear(c, Year)).ShouldBeEmpty();
    }

    [Fact]
    public void Blind_spots_are_stale_until_counted_and_again_after_the_next_line_of_the_audit_trail()
    {
        IReadOnlyList<(ClassId Class, long AuditId)> Stale() => Db.Read(c => BlindStore.Stale(c, 10));
        Stale().Select(s => s.Class).ShouldBe([Class]);

        Db.Write(c => BlindStore.Set(c, Class, 3, Stale()[0].AuditId));
        Stale().ShouldBeEmpty();
        Db.Read(c => BlindStore.OfYear(c, Year))[Class].ShouldBe(3);

        Db.Write(c => AuditStore.Add(c, At, Teacher, "changed folder", "folder", 1, Class, "x"));
        Stale().Single().AuditId.ShouldBeGreaterThan(0);
        Db.Write(c => ClassStore.SetState(c, ClassStore.Find(c, Class)!, ClassState.Archived, At, AfterArchive.View));
        Stale().ShouldBeEmpty();
    }

    [Fact]
    public void A_class_has_a_calendar_while_there_is_a_secret_for_its_addresses()
    {
        Db.Read(c => ClassStore.Find(c, Class))!.HasCalendar.ShouldBeFalse();
        Db.Write(c => ClassStore.SetCalendar(c, Class, "abc"));
        Db.Read(c => ClassStore.CalendarSecret(c, Class)).ShouldBe("abc");
        Db.Read(c => ClassStore.Find(c, Class))!.HasCalendar.ShouldBeTrue();

        Db.Write(c => ClassStore.SetCalendar(c, Class, null));
        Db.Read(c => ClassStore.CalendarSecret(c, Class)).ShouldBeNull();
    }
}
