using System.Data;
using Dapper;
using Microsoft.Data.Sqlite;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Audit;
using SpringLoft.Store.Files;
using SpringLoft.Store.People;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.Store.Tests;

/// <summary>One file, many readers, one writer; and statements that are kept from one act to the next.</summary>
public sealed class DatabaseTests : StoreTest
{
    [Fact]
    public void A_statement_that_is_run_again_has_the_values_of_this_time_only()
    {
        const string sql = "SELECT ifnull(@a, 'none') || ',' || ifnull(@b, 'none')";

        Db.Read(c => (c.ExecuteScalar<string>(sql, new { a = "one", b = (string?)"two" }), c.ExecuteScalar<string>(sql, new { a = "three", b = (string?)null }), c.ExecuteScalar<string>(sql, new { a = (string?)null, b = "four" })))
            .ShouldBe(("one,two", "three,none", "none,four"));
    }

    [Fact]
    public async Task What_may_be_written_next_time_waits_for_nobody()
    {
        using var begun = new SemaphoreSlim(0);
        using var ends = new SemaphoreSlim(0);
        var writer = Task.Run(() => Db.Write(c =>
        {
            begun.Release();
            ends.Wait();
        }));
        await begun.WaitAsync();
        void Note(IDbConnection c) => c.Execute("CREATE TABLE noted(at TEXT)");

        Db.WriteIfFree(Note).ShouldBeFalse();
        ends.Release();
        await writer;

        Db.WriteIfFree(Note).ShouldBeTrue();
        Db.Read(c => c.ExecuteScalar<int>("SELECT count(*) FROM noted")).ShouldBe(0);
    }

    [Fact]
    public void The_same_statement_can_run_while_its_first_run_is_still_being_read()
    {
        const string sql = "WITH RECURSIVE n(x) AS (SELECT 1 UNION ALL SELECT x + 1 FROM n WHERE x < @most) SELECT x FROM n";

        var pairs = Db.Read(c => c.Query<long>(sql, new { most = 3 }, buffered: false).SelectMany(a => c.Query<long>(sql, new { most = a }, buffered: false).Select(b => (a, b))).ToList());

        pairs.ShouldBe([(1, 1), (2, 1), (2, 2), (3, 1), (3, 2), (3, 3)]);
    }

    [Fact]
    public void A_reading_that_is_broken_off_leaves_its_statement_fit_for_the_next()
    {
        const string sql = "WITH RECURSIVE n(x) AS (SELECT 1 UNION ALL SELECT x + 1 FROM n WHERE x < 1000) SELECT x FROM n";

        Db.Read(c => (c.Query<long>(sql, buffered: false).First(), c.Query<long>(sql).Count())).ShouldBe((1, 1000));
    }

    [Fact]
    public void Lists_of_any_length_are_written_out_into_the_same_text_each_time()
    {
        for (var n = 0; n < 600; n++)
            Db.Read(c => c.ExecuteScalar<long>("SELECT count(*) FROM (SELECT 1 AS x UNION ALL SELECT 2 UNION ALL SELECT 599) WHERE x IN @some", new { some = Enumerable.Range(1, n) })).ShouldBe(n switch { 0 => 0, 1 => 1, < 599 => 2, _ => 3 });
    }

    [Fact]
    public void A_write_that_fails_leaves_nothing_and_the_next_one_works()
    {
        Should.Throw<SqliteException>(() => Db.Write(c => { NewClass(c, "Glass"); c.Execute("INSERT INTO class(id) VALUES(NULL)"); }));
        Should.Throw<InvalidOperationException>(() => Db.Write(c => { NewClass(c, "Paper"); throw new InvalidOperationException(); }));

        var made = Db.Write(c => NewClass(c, "Wood"));

        Db.Read(c => ClassStore.OfYear(c, Year)).Select(k => k.Name).ShouldBe(["Clay", "Wood"], ignoreOrder: true);
        made.ShouldNotBe(Class);
    }

    [Fact]
    public void A_reader_sees_one_moment_while_others_write()
    {
        var (before, after) = Db.Read(c =>
        {
            var first = ClassStore.OfYear(c, Year).Count;
            Db.Write(w => NewClass(w, "Glass"));
            return (first, ClassStore.OfYear(c, Year).Count);
        });

        (before, after, Db.Read(c => ClassStore.OfYear(c, Year).Count)).ShouldBe((1, 1, 2));
    }

    [Fact]
    public async Task Many_readers_and_writers_at_once_lose_nothing()
    {
        await Task.WhenAll(Enumerable.Range(0, 8).Select(n => Task.Run(() =>
        {
            for (var i = 0; i < 25; i++)
            {
                Db.Write(c => Person(c, SchoolRole.Student, "Ada", $"Of {n}", $"ada{n}-{i}", null));
                Db.Read(c => PersonStore.ByUserName(c, $"ada{n}-{i}")).ShouldNotBeNull();
            }
        })));

        Db.Read(c => c.ExecuteScalar<long>("SELECT count(*) FROM person WHERE given = 'Ada'")).ShouldBe(200);
    }

    [Fact]
    public void A_file_without_a_digest_for_manifests_gets_it_when_the_same_bytes_come_as_something_that_needs_it()
    {
        var sha = new string('a', 64);
        string Kept() => Db.Read(c => c.ExecuteScalar<string>("SELECT sha512 FROM blob WHERE sha256 = @sha", new { sha }))!;
        void Note(string? sha512) => Db.Write(c => ItemStore.AddBlob(c, new StoredFile(sha, sha512, 5), At));

        Note(null);
        Kept().ShouldBe("");
        Note("first");
        Kept().ShouldBe("first");
        Note(null);
        Note("second");
        Kept().ShouldBe("first");
    }

    [Fact]
    public void The_lead_of_a_class_is_who_is_on_its_roster_now()
    {
        Db.Read(c => RosterStore.Lead(c, Class)).ShouldBeNull();
        var other = Db.Write(c =>
        {
            RosterStore.Put(c, Class, Teacher, ClassRole.Lead, At);
            var person = Person(c, SchoolRole.Teacher, "Ngozi", "Amadi", "ngozi", null);
            RosterStore.Put(c, Class, person, ClassRole.Lead, At);
            RosterStore.Put(c, Class, Person(c, SchoolRole.Student, "Ada", "Bell", "ada", "1"), ClassRole.Student, At);
            return person;
        });
        Db.Read(c => RosterStore.Lead(c, Class)).ShouldBe(other, "Amadi stands before Farquhar");

        Db.Write(c => RosterStore.Leave(c, Class, other, At));

        Db.Read(c => (RosterStore.Lead(c, Class), RosterStore.CountOf(c, Class, ClassRole.Lead), RosterStore.CountOf(c, Class, ClassRole.Student))).ShouldBe((Teacher, 1, 1));
    }

    [Fact]
    public void That_another_class_was_archived_is_no_change_of_what_is_in_this_one()
    {
        Db.Read(AuditStore.Newest).ShouldBe(0);
        Db.Write(c => AuditStore.Add(c, At, Teacher, "added file", "item", 1, Class, "a.txt"));
        var seen = Db.Read(AuditStore.Newest);

        Db.Write(c => AuditStore.Add(c, At, Teacher, AuditStore.Archived, "class", 2, null, "verified package"));
        Db.Read(AuditStore.Newest).ShouldBe(seen);

        Db.Write(c => AuditStore.Add(c, At, Teacher, "renamed person", "person", 3, null, ""));
        Db.Read(AuditStore.Newest).ShouldBeGreaterThan(seen);
    }
}
