using Dapper;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rollover;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Runs;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.Store.Tests.Rollover;

public class RollStoreTests : StoreTest
{
    public RollStoreTests() => Db.Write(c => RosterStore.Put(c, Class, Teacher, ClassRole.Lead, At));

    [Fact]
    public void A_class_that_nothing_was_added_to_is_taken_away_whole()
    {
        Db.Write(c =>
        {
            FolderStore.Add(c, Class, null, "Papers", 0, FolderRule.ClassViews, null, null);
            ItemStore.Add(c, Class, new ItemRow { Kind = ItemKind.Link, Name = "a", Url = "https://a.example/", AddedBy = Teacher, AddedAt = At });
            GroupStore.Add(c, Class, "Kiln crew");
        });

        Db.Write(c => RollStore.Remove(c, Class, At)).ShouldBeNull();

        Db.Read(c => ClassStore.Find(c, Class)).ShouldBeNull();
        Db.Read(c => c.Query("PRAGMA foreign_key_check").ToList()).ShouldBeEmpty();
    }

    public static TheoryData<string, string> Used => new()
    {
        { "UPDATE class SET state = 'Open' WHERE id = @id", "opened" },
        { "INSERT INTO member(class_id, person_id, role, joined_at) SELECT @id, id, 'Student', '2026-09-01T08:00:00Z' FROM person WHERE user_name = 'umi'", "students" },
        { "INSERT INTO member(class_id, person_id, role, joined_at) SELECT @id, id, 'CoTeacher', '2026-09-02T08:00:00Z' FROM person WHERE user_name = 'umi'", "somebody" },
        { "INSERT INTO item(class_id, kind, name, added_by, by_student, added_at) SELECT @id, 'Link', 'x', id, 0, '2026-09-02T08:00:00Z' FROM person LIMIT 1", "things" },
        { "INSERT INTO assignment(class_id, title, title_key, instructions, made_at, version) VALUES(@id, 'A', 'a', '', '2026-09-01T08:00:00Z', 2)", "assignments" },
        { "INSERT INTO notice(class_id, author_id, text, posted_at) SELECT @id, id, 'n', '2026-09-01T08:00:00Z' FROM person LIMIT 1", "notice" },
    };

    [Theory]
    [MemberData(nameof(Used))]
    public void A_class_that_was_used_stays_and_it_is_said_why(string use, string why)
    {
        Db.Write(c =>
        {
            Person(c, SchoolRole.Student, "Umi", "H", "umi", "1001");
            c.Execute(use, new { id = Class });
        });

        Db.Write(c => RollStore.Remove(c, Class, At)).ShouldNotBeNull().ShouldContain(why);

        Db.Read(c => ClassStore.Find(c, Class)).ShouldNotBeNull();
    }

    [Fact]
    public void Lines_keep_their_order_and_what_became_of_them()
    {
        var run = Db.Write(c =>
        {
            var id = RunStore.AddOver(c, RunKind.RollOver, [], Teacher, At);
            RollStore.Add(c, Enumerable.Range(0, 3).Select(i => new RollRow { RunId = id, Position = i, YearId = Year, Section = $"{i}", Choice = "{}" }));
            RollStore.Done(c, RollStore.Of(c, id)[1] with { State = StepState.Done, MadeId = Class, MadeName = "Clay", Parity = "[]" });
            return id;
        });

        Db.Read(c => RollStore.Of(c, run)).Select(l => (l.Section, l.State, l.MadeId)).ShouldBe([("0", StepState.Waiting, null), ("1", StepState.Done, Class), ("2", StepState.Waiting, null)]);
        Db.Write(c => RollStore.Undone(c, run, 1, At));
        Db.Read(c => RollStore.Of(c, run))[1].ShouldSatisfyAllConditions(l => l.UndoneAt.ShouldBe(At), l => l.MadeId.ShouldBeNull(), l => l.MadeName.ShouldBe("Clay"));
        Db.Read(c => RunStore.Newest(c, RunKind.RollOver, Teacher)).ShouldBe(run);
    }
}
