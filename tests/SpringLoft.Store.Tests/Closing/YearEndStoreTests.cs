using Dapper;
using SpringLoft.Core;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Files;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.Store.Tests.Closing;

/// <summary>The tables of take-homes, shelves, sign-offs and the loft.</summary>
public class YearEndStoreTests : StoreTest
{
    private static readonly string Sha = new('a', 64);
    private readonly PersonId student;

    public YearEndStoreTests() => student = Db.Write(c =>
    {
        var id = Person(c, SchoolRole.Student, "Umi", "Hallgrímsson", "umi", "1001");
        ItemStore.AddBlob(c, new StoredFile(Sha, new('b', 128), 3), At);
        RosterStore.Put(c, Class, Teacher, ClassRole.Lead, At);
        RosterStore.Put(c, Class, id, ClassRole.Student, At);
        ClassStore.SetState(c, ClassStore.Find(c, Class)!, ClassState.Open, At, AfterArchive.View);
        return id;
    });

    private TakeHomeRow TakeHome(Instant at, int files = 1) => new() { PersonId = student, YearId = Year, Name = "t.zip", Sha256 = Sha, Files = files, Classes = 1, MadeAt = at, KeepUntil = new(2027, 10, 1) };

    private WorkRow Work(WorkState state, Instant? returned)
    {
        return Db.Write(c =>
        {
            var a = AssignmentStore.Add(c, Class, new AssignmentRow { Title = "Pot", MadeAt = At }, [], []);
            var w = WorkStore.Begin(c, Class, a, student);
            WorkStore.AddFile(c, w.Id, "pot.txt", Sha, student, At);
            WorkStore.Save(c, w with { State = state, HandedInAt = At, ReturnedAt = returned });
            return WorkStore.Find(c, Class, w.Id)!;
        });
    }

    [Fact]
    public void The_newer_take_home_of_a_year_takes_the_place_of_the_older_and_is_not_fetched_yet()
    {
        Db.Write(c =>
        {
            TakeHomeStore.Put(c, TakeHome(At));
            TakeHomeStore.Fetched(c, student, Year, At);
            TakeHomeStore.Put(c, TakeHome(At + Duration.FromHours(1), 7));
        });

        Db.Read(c => TakeHomeStore.Of(c, student)).ShouldHaveSingleItem().ShouldSatisfyAllConditions(t => t.Files.ShouldBe(7), t => t.FetchedAt.ShouldBeNull(), t => t.Size.ShouldBe(3));
    }

    [Fact]
    public void Whoever_left_is_known_from_the_first_day_it_was_seen_and_whoever_is_back_has_not_left()
    {
        static LocalDate Day(int d) => new(2027, 6, d);
        Db.Write(c =>
        {
            TakeHomeStore.Put(c, TakeHome(At));
            TakeHomeStore.NoteLeavers(c, Day(1));
            PersonStore.SetGrades(c, [(student, "6", false)]);
            TakeHomeStore.NoteLeavers(c, Day(2));
            TakeHomeStore.NoteLeavers(c, Day(9));
        });

        Db.Read(c => TakeHomeStore.OfLeavers(c, Day(1))).ShouldBeEmpty();
        Db.Read(c => TakeHomeStore.OfLeavers(c, Day(2))).ShouldBe([(student, Year)]);
        Db.Write(c =>
        {
            PersonStore.SetGrades(c, [(student, "6", true)]);
            TakeHomeStore.NoteLeavers(c, Day(10));
        });
        Db.Read(c => TakeHomeStore.OfLeavers(c, Day(30))).ShouldBeEmpty();
    }

    [Fact]
    public void Held_work_is_counted_in_its_class_and_the_newest_return_is_known()
    {
        Work(WorkState.HandedIn, null);
        Db.Read(c => TakeHomeStore.HeldOf(c, Year))[student].ShouldBe([Class]);
        Db.Read(c => ClosingStore.Counts(c, Year, new(2027, 6, 7), At))[Class].BlindCopies.ShouldBe(1);
        Db.Write(c => c.Execute("UPDATE work SET state = 'Returned', returned_at = @at", new { at = At + Duration.FromDays(3) }));

        Db.Read(c => TakeHomeStore.HeldOf(c, Year)).ShouldBeEmpty();
        Db.Read(c => TakeHomeStore.NewestChange(c, Year))[student].ShouldBe(At + Duration.FromDays(3));
        Db.Read(c => ClosingStore.Counts(c, Year, new(2027, 6, 7), At))[Class].BlindCopies.ShouldBe(0);
    }

    [Fact]
    public void A_class_in_the_bin_is_on_no_list()
    {
        Work(WorkState.Returned, At);
        Db.Write(c =>
        {
            ClassStore.SetState(c, ClassStore.Find(c, Class)!, ClassState.Archived, At, AfterArchive.View);
            LoftStore.SetBinned(c, Class, At);
        });

        Db.Read(c => ClassStore.Find(c, Class)).ShouldBeNull();
        Db.Read(c => ClassStore.OfYear(c, Year)).ShouldBeEmpty();
        Db.Read(c => ClassStore.Archived(c)).ShouldBeEmpty();
        Db.Read(c => ClassStore.OfPerson(c, student)).ShouldBeEmpty();
        Db.Read(c => TakeHomeStore.Places(c, Year)).ShouldBeEmpty();
        Db.Read(c => ClassStore.AllNames(c)).ShouldContain(n => n.Id == Class, "its name stays taken while it may come back");
    }

    [Theory]
    [InlineData(19, true)]
    [InlineData(20, true)]
    [InlineData(21, false)]
    public void A_shelf_is_open_until_its_day_is_over(int day, bool open)
    {
        Db.Write(c => ShelfStore.Add(c, new ShelfRow { ClassId = Class, Token = "t", Title = "S", Text = "", UntilDay = new(2027, 6, 20), MadeAt = At, MadeBy = Teacher }, []));

        Db.Read(c => ClosingStore.Counts(c, Year, new(2027, 6, day), At))[Class].ShelfSet.ShouldBe(open);
    }

    [Fact]
    public void Only_an_archived_class_goes_into_the_bin()
    {
        Db.Write(c => LoftStore.SetBinned(c, Class, At));

        Db.Read(c => ClassStore.Find(c, Class)).ShouldNotBeNull();
    }

    [Fact]
    public void Removed_for_good_nothing_of_a_class_is_left_and_nothing_hangs_loose()
    {
        Work(WorkState.Returned, At);
        Db.Write(c =>
        {
            var f = FolderStore.Add(c, Class, null, "Papers", 0, FolderRule.ClassViews, null, null);
            ItemStore.File(c, ItemStore.Add(c, Class, new ItemRow { Kind = ItemKind.File, Name = "a", Sha256 = Sha, AddedBy = Teacher, AddedAt = At }), f);
            NoticeStore.Add(c, new NoticeRow { AuthorId = Teacher, Text = "n", MadeAt = At, PostedAt = At }, [(Class, null)]);
            ShelfStore.Add(c, new ShelfRow { ClassId = Class, Token = "t", Title = "T", UntilDay = new(2027, 9, 1), MadeAt = At, MadeBy = Teacher }, [new ShelfThingRow { Kind = ItemKind.File, Name = "a", Sha256 = Sha }]);
            SignOffStore.Set(c, Class, Teacher, "why", At);
            var next = NewClass(c, "Clay, next");
            c.Execute("UPDATE class SET rolled_from = @from WHERE id = @next", new { from = Class, next });
            ClassRemoval.Go(c, Class);
        });

        Db.Read(c => c.Query("PRAGMA foreign_key_check").ToList()).ShouldBeEmpty();
        var tables = Db.Read(c => c.Query<string>("SELECT m.name FROM sqlite_master m JOIN pragma_table_info(m.name) p ON p.name = 'class_id' WHERE m.type = 'table' AND m.name <> 'audit'").ToList());
        tables.Count.ShouldBeGreaterThan(15);
        foreach (var t in tables) Db.Read(c => c.ExecuteScalar<long>($"SELECT count(*) FROM {t} WHERE class_id = @id", new { id = Class })).ShouldBe(0, t);
    }

    [Theory]
    [InlineData("glaze", 1)]
    [InlineData("GLAZE", 1)]
    [InlineData("100%", 1)]
    [InlineData("0_", 0)]
    [InlineData("%", 1)]
    public void Signs_of_patterns_are_searched_for_as_they_stand(string part, int found)
    {
        Db.Write(c =>
        {
            ItemStore.Add(c, Class, new ItemRow { Kind = ItemKind.File, Name = "Glaze 100% cobalt", Sha256 = Sha, AddedBy = Teacher, AddedAt = At });
            ItemStore.Add(c, Class, new ItemRow { Kind = ItemKind.File, Name = "Kiln 1001", Sha256 = Sha, AddedBy = Teacher, AddedAt = At });
            ClassStore.SetState(c, ClassStore.Find(c, Class)!, ClassState.Archived, At, AfterArchive.View);
        });

        Db.Read(c => LoftStore.Search(c, part, null, Teacher, 10)).Count.ShouldBe(found);
        Db.Read(c => LoftStore.Search(c, part, student, student, 10)).ShouldBeEmpty("only staff search the loft");
    }

    [Fact]
    public void Visits_are_counted_by_day_and_a_shut_shelf_keeps_the_first_moment()
    {
        var id = Db.Write(c => ShelfStore.Add(c, new ShelfRow { ClassId = Class, Token = "t", Title = "T", UntilDay = new(2027, 9, 1), MadeAt = At, MadeBy = Teacher }, []));
        Db.Write(c =>
        {
            foreach (var day in (LocalDate[])[new(2027, 7, 1), new(2027, 7, 1), new(2027, 7, 2)]) ShelfStore.Visit(c, id, day);
            ShelfStore.Shut(c, id, At);
            ShelfStore.Shut(c, id, At + Duration.FromHours(1));
        });

        Db.Read(c => ShelfStore.Days(c, id).Sum(d => d.Visits)).ShouldBe(3);
        Db.Read(c => ShelfStore.Of(c, "t"))!.ShutAt.ShouldBe(At);
        Should.Throw<Microsoft.Data.Sqlite.SqliteException>(() => Db.Write(c => ShelfStore.Add(c, new ShelfRow { ClassId = Class, Token = "t", Title = "T", UntilDay = new(2027, 9, 1), MadeAt = At, MadeBy = Teacher }, [])));
    }
}
