using Dapper;
using SpringLoft.Core;
using SpringLoft.Store.Audit;

namespace SpringLoft.Store.Tests.Audit;

/// <summary>Lines are chained: whatever is done to them by hand is found.</summary>
public sealed class AuditStoreTests : StoreTest
{
    public AuditStoreTests()
    {
        for (var i = 1; i <= 6; i++) Add(i);
    }

    private void Add(int i, PersonId? about = null) => Db.Write(c => AuditStore.Add(c, new AuditRow
    {
        At = At + Duration.FromDays(i),
        PersonId = Teacher,
        Who = "Oisín Farquhar",
        Act = "renamed",
        Thing = about is null ? "item" : "person",
        ThingId = about?.Value ?? i,
        ClassId = Class,
        Detail = $"thing {i}",
        Address = "192.0.2.7",
        SessionId = 4,
    }));

    private AuditChecked Check() => Db.Read(AuditStore.Check);

    private void ByHand(string sql) => Db.Write(c => { c.Execute(sql).ShouldBeGreaterThan(0); });

    [Fact]
    public void A_trail_that_nobody_touched_is_whole()
    {
        Check().ShouldSatisfyAllConditions(a => a.Whole.ShouldBeTrue(), a => a.Lines.ShouldBe(6), a => a.LastHash.Length.ShouldBe(64));
        Add(7);
        Check().ShouldSatisfyAllConditions(a => a.Whole.ShouldBeTrue(), a => a.Lines.ShouldBe(7));
    }

    [Theory]
    [InlineData("UPDATE audit SET detail = 'thing 33' WHERE id = 3", 3L)]
    [InlineData("UPDATE audit SET who = 'Somebody Else' WHERE id = 3", 3L)]
    [InlineData("UPDATE audit SET act = 'looked at' WHERE id = 3", 3L)]
    [InlineData("UPDATE audit SET at = '2026-09-02T08:00:00Z' WHERE id = 3", 3L)]
    [InlineData("UPDATE audit SET address = NULL WHERE id = 1", 1L)]
    [InlineData("UPDATE audit SET session_id = 5 WHERE id = 6", 6L)]
    [InlineData("UPDATE audit SET class_id = NULL WHERE id = 2", 2L)]
    [InlineData("UPDATE audit SET thing_id = 9 WHERE id = 2", 2L)]
    [InlineData("DELETE FROM audit WHERE id = 3", 4L)]
    [InlineData("DELETE FROM audit WHERE id = 1", 2L)]
    [InlineData("UPDATE audit SET id = 100 WHERE id = 3", 4L)]
    public void A_line_that_was_changed_or_taken_out_is_found(string sql, long at)
    {
        ByHand(sql);

        Check().ShouldSatisfyAllConditions(a => a.Whole.ShouldBeFalse(), a => a.Wrong.ShouldBe(at));
        Add(7);
        Check().Wrong.ShouldBe(at, "and what is written afterwards does not hide it");
    }

    [Fact]
    public void Lines_that_were_cut_off_at_the_end_are_missed()
    {
        ByHand("DELETE FROM audit WHERE id >= 5");

        Check().ShouldSatisfyAllConditions(a => a.Whole.ShouldBeFalse(), a => a.CutOff.ShouldBeTrue(), a => a.Wrong.ShouldBeNull());
    }

    [Fact]
    public void A_line_put_in_between_is_found()
    {
        Db.Write(c => c.Execute("UPDATE audit SET id = id + 1 WHERE id = 6; INSERT INTO audit(id, at, act, thing, detail, salt, words, hash) SELECT 6, at, act, thing, detail, salt, words, hash FROM audit WHERE id = 5"));

        Check().Wrong.ShouldBe(6);
    }

    [Fact]
    public void Old_lines_are_let_go_of_and_the_chain_begins_after_them()
    {
        Db.Write(c => AuditStore.LetGoBefore(c, At + Duration.FromDays(4))).ShouldBe(3);

        Check().ShouldSatisfyAllConditions(a => a.Whole.ShouldBeTrue(), a => a.Lines.ShouldBe(3), a => a.LetGo.ShouldBe(3));
        Db.Write(c => AuditStore.LetGoBefore(c, At)).ShouldBe(0);
        Db.Write(c => AuditStore.LetGoBefore(c, At + Duration.FromDays(400))).ShouldBe(3);
        Add(7);
        Check().ShouldSatisfyAllConditions(a => a.Whole.ShouldBeTrue(), a => a.Lines.ShouldBe(1), a => a.LetGo.ShouldBe(6));
        ByHand("UPDATE audit SET detail = 'x'");
        Check().Wrong.ShouldBe(7);
    }

    [Fact]
    public void A_person_s_name_is_taken_out_and_the_chain_holds()
    {
        var umi = Db.Write(c => Person(c, Core.Workspaces.SchoolRole.Student, "Umi", "Hall", "umi", "1"));
        Add(7, about: umi);
        var hash = Check().LastHash;

        Db.Write(c => AuditStore.Erase(c, umi, "somebody who left")).ShouldBe(1);

        Check().ShouldSatisfyAllConditions(a => a.Whole.ShouldBeTrue(), a => a.Erased.ShouldBe(1), a => a.LastHash.ShouldBe(hash));
        Db.Read(c => AuditStore.Find(c, new(), 1))[0].ShouldSatisfyAllConditions(l => l.Detail.ShouldBe("somebody who left"), l => l.Who.ShouldBe("Oisín Farquhar"));
        ByHand("UPDATE audit SET act = 'x' WHERE id = 7");
        Check().Wrong.ShouldBe(7, "the rest of such a line is held as before");
    }

    [Fact]
    public void Lines_are_found_by_who_what_and_when()
    {
        Db.Read(c => AuditStore.Find(c, new(Text: "thing 4"), 10)).Select(l => l.Id).ShouldBe([4L]);
        Db.Read(c => AuditStore.Find(c, new(Text: "farquhar"), 10)).Count.ShouldBe(6);
        Db.Read(c => AuditStore.Find(c, new(Text: "100%"), 10)).ShouldBeEmpty();
        Db.Read(c => AuditStore.Find(c, new(Text: "%"), 10)).ShouldBeEmpty("signs that the database reads for itself are only signs");
        Db.Read(c => AuditStore.Find(c, new(Until: At + Duration.FromDays(3)), 10)).Select(l => l.Id).ShouldBe([2L, 1]);
        Db.Read(c => AuditStore.Find(c, new(Before: 4), 2)).Select(l => l.Id).ShouldBe([3L, 2]);
        Db.Read(c => AuditStore.Find(c, new(Person: Teacher), 10)).Count.ShouldBe(6);
        Db.Read(c => AuditStore.Find(c, new(Class: new ClassId(99)), 10)).ShouldBeEmpty();
    }

    [Fact]
    public void Names_stay_as_they_were_when_somebody_is_called_otherwise_since()
    {
        ByHand("UPDATE person SET family = 'Married' WHERE user_name = 'oisin'");

        Db.Read(c => AuditStore.Find(c, new(), 1))[0].Who.ShouldBe("Oisín Farquhar");
    }

    [Fact]
    public void A_trail_from_before_there_was_a_chain_is_chained_once_and_not_again()
    {
        Db.Write(c => c.Execute("DELETE FROM audit_chain; UPDATE audit SET hash = NULL, words = NULL, salt = NULL"));
        using (new Database(Db.Path)) { }
        Check().ShouldSatisfyAllConditions(a => a.Whole.ShouldBeTrue(), a => a.Lines.ShouldBe(6));

        ByHand("UPDATE audit SET detail = 'changed by hand', hash = NULL, words = NULL WHERE id = 2");
        using (new Database(Db.Path)) { }
        Check().Wrong.ShouldBe(2);
    }
}
