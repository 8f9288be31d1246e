using Dapper;
using SpringLoft.Core;
using SpringLoft.Core.People;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.Store.Tests.Rosters;

public class DeliveredStoreTests : StoreTest
{
    private static readonly Instant Later = At + Duration.FromDays(30);

    private PersonId Student(string number) => Db.Write(c => Person(c, SchoolRole.Student, "Umi", "Ravndal", $"s{number}", number));

    private IReadOnlyList<TodayMember> Members() => Db.Read(c => DeliveredStore.Members(c, Year));

    private MemberBefore Place(PersonId who) => Db.Read(c => DeliveredStore.Before(c, [(Class, who)])).ShouldHaveSingleItem();

    [Fact]
    public void Places_are_read_with_every_role_way_and_leaving_that_there_is()
    {
        var expected = new List<TodayMember>();
        var other = Db.Write(c => NewClass(c, "Other"));
        Db.Write(c => NewClass(c, "Empty"));
        var n = 2000;
        foreach (var k in new[] { Class, other })
            foreach (var role in Enum.GetValues<ClassRole>())
                foreach (var by in Enum.GetValues<EnrolledBy>())
                    foreach (var left in new[] { false, true })
                    {
                        var who = Student($"{n++}");
                        Db.Write(c => RosterStore.Put(c, k, who, role, At));
                        Db.Write(c => DeliveredStore.PutBack(c, new(k, who, true, role, by, At, left ? Later : null, null, true), At));
                        expected.Add(new(k, who, role, by, left));
                    }

        Members().ShouldBe(expected, ignoreOrder: true);
        Db.Read(c => DeliveredStore.Members(c, new(99))).ShouldBeEmpty();
    }

    [Fact]
    public void A_department_s_bank_is_no_class_that_deliveries_know_of()
    {
        var bank = Db.Write(c => ClassStore.Add(c, ClassStore.Find(c, Class)! with { Name = "Crafts", Kind = WorkspaceKind.Department }));
        Db.Write(c => RosterStore.Put(c, bank, Teacher, ClassRole.Lead, At));

        Db.Read(c => DeliveredStore.Classes(c, Year)).ShouldHaveSingleItem().Id.ShouldBe(Class);
        Members().ShouldBeEmpty();
    }

    [Fact]
    public void Who_joins_sees_what_comes_from_now_on_only_where_that_is_said()
    {
        var (early, late, aide) = (Student("1001"), Student("1002"), Student("1003"));

        Db.Write(c => DeliveredStore.Join(c, [(Class, late, ClassRole.Student, true), (Class, early, ClassRole.Student, false), (Class, aide, ClassRole.CoTeacher, false), (Class, Teacher, ClassRole.Lead, false)], At));

        Members().ShouldBe([new(Class, early, ClassRole.Student, EnrolledBy.Feed, false), new(Class, late, ClassRole.Student, EnrolledBy.Feed, false), new(Class, aide, ClassRole.CoTeacher, EnrolledBy.Feed, false), new(Class, Teacher, ClassRole.Lead, EnrolledBy.Feed, false)], ignoreOrder: true);
        Place(early).ShouldBe(new(Class, early, true, ClassRole.Student, EnrolledBy.Feed, At, null, null, true));
        Place(late).SeesFrom.ShouldBe(At);
    }

    [Fact]
    public void Who_comes_back_has_the_place_of_before()
    {
        var umi = Student("1001");
        Db.Write(c => RosterStore.Put(c, Class, umi, ClassRole.Student, At));
        Db.Write(c => c.Execute("UPDATE member SET may_post = 0 WHERE person_id = @umi", new { umi }));
        Db.Write(c => DeliveredStore.Leave(c, [(Class, umi)], Later));
        Place(umi).LeftAt.ShouldBe(Later);

        Db.Write(c => DeliveredStore.Join(c, [(Class, umi, ClassRole.Student, true)], Later));

        Place(umi).ShouldBe(new(Class, umi, true, ClassRole.Student, EnrolledBy.Feed, At, null, Later, false));
    }

    [Fact]
    public void A_place_is_put_back_as_it_was_and_one_that_was_not_goes()
    {
        var (umi, runa) = (Student("1001"), Student("1002"));
        Db.Write(c => RosterStore.Put(c, Class, umi, ClassRole.Student, At));
        var before = Db.Read(c => DeliveredStore.Before(c, [(Class, umi), (Class, runa), (Class, umi)]));
        before.Count.ShouldBe(2);
        Db.Write(c => DeliveredStore.Join(c, [(Class, umi, ClassRole.CoTeacher, false), (Class, runa, ClassRole.Student, false)], Later));
        Db.Write(c => DeliveredStore.SetRole(c, [(Class, runa, ClassRole.CoTeacher)]));
        Place(runa).Role.ShouldBe(ClassRole.CoTeacher);

        Db.Write(c => { foreach (var m in before) DeliveredStore.PutBack(c, m, Later); });

        Place(umi).ShouldBe(before.Single(m => m.Person == umi));
        Place(runa).Existed.ShouldBeFalse();
    }

    [Fact]
    public void Somebody_who_handed_something_in_leaves_when_their_place_is_taken_back_and_does_not_vanish()
    {
        var umi = Student("1001");
        var before = Place(umi);
        Db.Write(c => DeliveredStore.Join(c, [(Class, umi, ClassRole.Student, false)], At));
        Db.Write(c => WorkStore.Begin(c, Class, AssignmentStore.Add(c, Class, new AssignmentRow { Title = "Pot", MadeAt = At }, [], []), umi));

        Db.Write(c => DeliveredStore.PutBack(c, before, Later));

        Place(umi).LeftAt.ShouldBe(Later);
        Db.Write(c => DeliveredStore.RemoveJoined(c, Class, At, Later));
        Place(umi).Existed.ShouldBeTrue();
    }

    [Fact]
    public void People_are_written_and_read_with_all_that_is_known_of_them()
    {
        TodayPerson[] come =
        [
            new(default, "rec-1", "1001", "umi@tiny.invalid", "s1001", "Umi", "Ravndal", "6", SchoolRole.Student, "North", true),
            new(default, null, null, null, "oona", "Oona", "Brack", null, SchoolRole.Staff, null, false),
        ];

        var ids = Db.Write(c => DeliveredStore.Add(c, come));

        Db.Read(DeliveredStore.People).Where(p => ids.Contains(p.Id)).ShouldBe([come[0] with { Id = ids[0] }, come[1] with { Id = ids[1] }]);
        var changed = come[0] with { Id = ids[0], Family = "Ravndal-Brück", Grade = "7", Active = false, UserName = "s1001" };
        Db.Write(c => DeliveredStore.Save(c, changed));
        Db.Read(DeliveredStore.People).Single(p => p.Id == ids[0]).ShouldBe(changed);
        Db.Read(c => PersonStore.StartingWith(c, PersonName.SearchKey("ravndal-br"), true, 10)).ShouldBeEmpty();
        Db.Write(c => DeliveredStore.Save(c, changed with { Active = true }));
        Db.Read(c => PersonStore.StartingWith(c, PersonName.SearchKey("Ravndal-Br"), true, 10)).Select(p => p.Id).ShouldBe([ids[0]]);
    }

    [Fact]
    public void Somebody_who_was_never_anything_here_can_be_taken_out_again_and_nobody_else()
    {
        var (never, once) = (Student("1001"), Student("1002"));
        Db.Write(c => RosterStore.Put(c, Class, once, ClassRole.Student, At));

        Db.Write(c => DeliveredStore.Remove(c, never)).ShouldBeTrue();
        Db.Write(c => DeliveredStore.Remove(c, once)).ShouldBeFalse();

        Db.Read(DeliveredStore.People).Select(p => p.Id).ShouldBe([Teacher, once]);
    }

    [Fact]
    public void A_class_follows_the_records_until_it_is_let_go()
    {
        Db.Write(c => DeliveredStore.SaveClass(c, new(Class, "rec-k", "Clay", "Course", "2A", "3", "Kiln room", ClassState.InPreparation)));
        Db.Read(c => DeliveredStore.Classes(c, Year)).Single().ShouldBe(new(Class, "rec-k", "Clay", "Course", "2A", "3", "Kiln room", ClassState.InPreparation));

        Db.Write(c => DeliveredStore.LetGo(c, Class));

        Db.Read(c => DeliveredStore.Classes(c, Year)).Single().RecordId.ShouldBeNull();
    }
}
