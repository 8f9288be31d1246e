using Dapper;
using SpringLoft.Core;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Core.Years;
using SpringLoft.Store.Closing;
using SpringLoft.Store.Files;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;
using SpringLoft.Store.Years;

namespace SpringLoft.Store.Tests.People;

/// <summary>What belongs to one account follows it into another, and comes back.</summary>
public class PersonJoinStoreTests : StoreTest
{
    private static readonly string Old = new('a', 64), New = new('b', 64);
    private readonly PersonId kept, gone;
    private readonly YearId last;

    public PersonJoinStoreTests()
    {
        (kept, gone, last) = Db.Write(c =>
        {
            foreach (var sha in new[] { Old, New }) ItemStore.AddBlob(c, new StoredFile(sha, null, 3), At);
            return (Person(c, SchoolRole.Student, "Umi", "Hallgrímsson", "umi", "1001"), Person(c, SchoolRole.Student, "Umi", "Halgrímsson", "umi2", "2001"), YearStore.Add(c, StartingYears.From(new LocalDate(2025, 9, 1))[0]));
        });
    }

    private void Keep(PersonId who, YearId year, string sha) => Db.Write(c => TakeHomeStore.Put(c, new TakeHomeRow { PersonId = who, YearId = year, Name = "t.zip", Sha256 = sha, Files = 1, Classes = 1, MadeAt = At, KeepUntil = new(2027, 10, 1) }));

    private IEnumerable<(PersonId, YearId, string)> TakeHomes() => Db.Read(c => c.Query<(long, long, string)>("SELECT person_id, year_id, sha256 FROM take_home ORDER BY year_id, person_id")).Select(t => (new PersonId(t.Item1), new YearId(t.Item2), t.Item3));

    private void Join() => Db.Write(c => PersonJoinStore.Join(c, kept, gone, Teacher, At));

    private void TakeApart() => Db.Write(c => PersonJoinStore.Undo(c, PersonJoinStore.All(c, 1).Single(), At));

    [Fact]
    public void A_take_home_comes_along_where_there_is_none_yet_and_goes_back()
    {
        Keep(gone, last, Old);

        Join();

        TakeHomes().ShouldBe([(kept, last, Old)]);
        TakeApart();
        TakeHomes().ShouldBe([(gone, last, Old)]);
    }

    [Fact]
    public void Where_both_have_one_of_a_year_each_stays_where_it_is_and_nothing_is_lost()
    {
        Keep(kept, last, New);
        Keep(gone, last, Old);
        Keep(gone, Year, Old);

        Join();

        TakeHomes().ShouldBe([(kept, Year, Old), (kept, last, New), (gone, last, Old)], ignoreOrder: true);
        TakeApart();
        TakeHomes().ShouldBe([(gone, Year, Old), (kept, last, New), (gone, last, Old)], ignoreOrder: true);
    }

    [Fact]
    public void One_that_was_made_anew_of_the_work_of_both_stays_with_the_one_who_was_kept()
    {
        Keep(gone, last, Old);
        Join();
        Keep(kept, last, New);

        TakeApart();

        TakeHomes().ShouldBe([(kept, last, New)]);
    }

    [Fact]
    public void Who_asked_to_join_a_class_asks_as_the_one_who_was_kept_and_no_longer_where_they_are()
    {
        var other = Db.Write(c => NewClass(c, "Other"));
        Db.Write(c =>
        {
            RosterStore.Put(c, other, kept, ClassRole.Student, At, EnrolledBy.Hand);
            JoinStore.Wait(c, Class, gone, At);
            JoinStore.Wait(c, other, gone, At);
        });

        Join();

        Db.Read(c => JoinStore.Waiting(c, Class)).Select(w => w.Person).ShouldBe([kept]);
        Db.Read(c => JoinStore.Waiting(c, other)).ShouldBeEmpty();
        TakeApart();
        Db.Read(c => JoinStore.Waiting(c, Class)).Select(w => w.Person).ShouldBe([gone]);
    }

    [Fact]
    public void What_only_the_other_had_is_the_one_s_and_what_both_had_is_the_kept_one_s()
    {
        Db.Write(c => c.Execute("UPDATE person SET email = 'two@tiny.invalid', record_id = 'rec-2' WHERE id = @gone", new { gone }));

        Join();

        Db.Read(c => PersonStore.Find(c, kept))!.ShouldSatisfyAllConditions(p => p.StudentNumber.ShouldBe("1001"), p => p.Email.ShouldBe("two@tiny.invalid"), p => p.Active.ShouldBeTrue());
        // The records still lead from the other's number to the one who was kept.
        Db.Read(c => PersonStore.Find(c, gone))!.ShouldSatisfyAllConditions(p => p.StudentNumber.ShouldBe("2001"), p => p.RecordId.ShouldBeNull(), p => p.Active.ShouldBeFalse());
        Db.Read(c => PersonStore.Find(c, kept))!.RecordId.ShouldBe("rec-2");
        TakeApart();
        Db.Read(c => PersonStore.Find(c, gone))!.ShouldSatisfyAllConditions(p => p.StudentNumber.ShouldBe("2001"), p => p.Active.ShouldBeTrue());
        Db.Read(c => PersonStore.Find(c, kept))!.Email.ShouldBeNull();
    }
}
