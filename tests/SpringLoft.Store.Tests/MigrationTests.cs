using Dapper;
using Microsoft.Data.Sqlite;

namespace SpringLoft.Store.Tests;

/// <summary>Every earlier version of the database file is brought to the newest with its data.</summary>
public sealed class MigrationTests : IDisposable
{
    private readonly Scratch scratch = new();

    private string File => scratch.Under("old.db");

    private string Connection => new SqliteConnectionStringBuilder { DataSource = File, ForeignKeys = true }.ToString();

    public static TheoryData<int> Versions => [.. Enumerable.Range(1, Migrator.Newest)];

    // What the migration of keys rewrites has a test of its own. The address of a class's calendar is each person's own since version 35,
    // and a shelf is found by a digest that is made where it is missing.
    private static readonly string[] Rewritten = ["folder.plan_key", "plan_put.steps", "person_join.undo", "class.calendar_token", "shelf.token_sha256"];

    // A note that a take-home alone holds something: asked of its content since version 25. Where a notice stands is a row of its own since version 42. A sign-in is a row and a wrong
    // password is counted where it comes from since version 33.
    private static readonly string[] Dropped = ["take_home_seal.", "sign_in.stamp", "sign_in.wrong_in_row", "sign_in.shut_until", "notice.class_id"];

    /// <summary>From each version, with two rows in every table that it has: one with every column filled, one with as little as may be.</summary>
    [Theory]
    [MemberData(nameof(Versions))]
    public void A_file_of_an_earlier_version_keeps_all_its_data(int version)
    {
        Migrator.Run(Connection, version);
        Dictionary<string, List<string>> before;
        using (var c = new SqliteConnection(Connection))
        {
            c.Open();
            AnyRows.Fill(c);
            before = AnyRows.Read(c);
        }

        using var database = new Database(File);

        var after = database.Read(c => AnyRows.Read(c));
        foreach (var (column, values) in before.Where(x => !Rewritten.Contains(x.Key) && !Dropped.Any(d => x.Key.StartsWith(d, StringComparison.Ordinal)))) after[column].ShouldBe(values, column);
        database.Read(c => c.Query("PRAGMA foreign_key_check").Count()).ShouldBe(0);
        database.Read(c => c.ExecuteScalar<string>("PRAGMA integrity_check")).ShouldBe("ok");
    }

    [Fact]
    public void A_notice_stands_where_it_stood_and_goes_with_the_last_class_that_it_stands_in()
    {
        Migrator.Run(Connection, 41);
        using (var c = new SqliteConnection(Connection))
        {
            c.Open();
            AnyRows.Fill(c);
        }
        List<(long, long)> before;
        using (var c = new SqliteConnection(Connection)) before = [.. c.Query<(long, long)>("SELECT id, class_id FROM notice ORDER BY id")];

        using var database = new Database(File);

        before.Count.ShouldBe(2);
        database.Read(c => c.Query<(long, long)>("SELECT notice_id, class_id FROM notice_class ORDER BY notice_id").ToList()).ShouldBe(before);
        database.Write(c => c.Execute("DELETE FROM notice_class WHERE notice_id = @id", new { id = before[0].Item1 }));
        database.Read(c => c.Query<long>("SELECT id FROM notice").ToList()).ShouldBe([before[1].Item1]);
    }

    [Fact]
    public void Keys_of_folders_become_values_by_what_their_lines_were()
    {
        Migrator.Run(Connection, 23);
        using (var c = new SqliteConnection(Connection))
        {
            const string outline = """
                [{"key":"papers","namePattern":"Papers","stands":"Once","rule":"ClassViews","entries":[],"within":[]},
                 {"key":"unit","namePattern":"{entry}","stands":"EachEntry","rule":"ClassViews","entries":["w1","w2","Clay","Clay/l2","a:b"],"within":[{"key":"l2","namePattern":"In","stands":"Once","rule":"AsAbove","entries":[],"within":[]}]},
                 {"key":"half","namePattern":"{term}","stands":"EachTerm","rule":"ClassViews","entries":[],"within":[{"key":"week","namePattern":"{week}","stands":"EachSchoolWeek","rule":"AsAbove","entries":[],"within":[{"key":"day","namePattern":"{day}","stands":"EachSchoolDay","rule":"AsAbove","entries":[],"within":[]}]}]},
                 {"key":"own","namePattern":"{student}","stands":"EachStudent","rule":"OneEach","entries":[],"within":[]},
                 {"key":"crew","namePattern":"{group}","stands":"EachGroup","rule":"OnePerGroup","entries":[],"within":[]}]
                """;
            c.Execute(
                """
                INSERT INTO school_year(id, label, school_weekdays, first_weekday, numbering) VALUES(1, 'Y', '1', 1, 'Through');
                INSERT INTO term(year_id, name, first_day, last_day) VALUES(1, 'w3', '2024-08-26', '2025-06-20');
                INSERT INTO person(id, role, given, family, given_key, family_key, user_name) VALUES(1, 'Teacher', 'R', 'R', 'r', 'r', 'r');
                INSERT INTO course(id, name, mark) VALUES(1, 'Clay', 'pot');
                INSERT INTO plan(id, name, about, version, made_at) VALUES(1, 'P', '', 1, '2024-08-26T00:00:00Z');
                INSERT INTO plan_version(plan_id, version, outline) VALUES(1, 1, @outline);
                INSERT INTO class(id, year_id, course_id, name, name_key, state, teacher_shown, made_at, plan_id, plan_version) VALUES(1, 1, 1, 'C', 'C', 'Open', 'R', '2024-08-26T00:00:00Z', 1, 1);
                INSERT INTO run(id, kind, state, after_archive, started_by, started_at) VALUES(1, 'PutPlan', 'Done', 'View', 1, '2025-06-20T00:00:00Z');
                INSERT INTO plan_put(run_id, class_id, plan_id, version, steps) VALUES(1, 1, 1, 1, '{"steps":[{"kind":0,"folder":1,"was":null,"now":{"name":"N","planKey":"unit:w1"}},{"kind":0,"folder":2,"was":{"planKey":null},"now":{"planKey":"half:w3/week:w3"}}],"kept":[]}');
                """, new { outline });
            foreach (var (old, i) in Old.Select((o, i) => (o, i)))
                c.Execute("INSERT INTO folder(id, class_id, name, name_key, position, rule, plan_key) VALUES(@i, 1, @i, @i, 0, 'ClassViews', @old)", new { i = i + 1, old });
            // An entry "Clay" with a line l2 in it, not the entry "Clay/l2": where it stands tells.
            c.Execute("UPDATE folder SET parent_id = 3 WHERE id = 4");
        }

        using var database = new Database(File);

        database.Read(c => c.Query<string>("SELECT plan_key FROM folder ORDER BY id")).ShouldBe(["papers", "unit:ew1", "unit:eClay", "unit:eClay/l2", "unit:eClay%2Fl2/l2", "unit:ea%3Ab", "half:tw3", "half:tw3/week:w3", "half:tw3/week:w3/day:w3-2", "half:tw3/week:x20241230", "own:s17", "crew:g4", "gone-line:w9"]);
        database.Read(c => c.Query<string>("SELECT json_extract(s.value, '$.now.planKey') FROM plan_put, json_each(steps, '$.steps') s")).ShouldBe(["unit:ew1", "half:tw3/week:w3"]);
        database.Read(c => Store.Workspaces.FolderStore.WithBin(c, new(1))).ShouldAllBe(f => f.PlanKey != null);
    }

    private static readonly string[] Old = ["papers", "unit:w1", "unit:Clay", "unit:Clay/l2", "unit:Clay/l2/l2", "unit:a:b", "half:w3", "half:w3/week:w3", "half:w3/week:w3/day:w3-2", "half:w3/week:gone20241230", "own:17", "crew:g4", "gone-line:w9"];

    [Fact]
    public void Every_reference_to_rows_that_can_be_deleted_is_found_by_an_index()
    {
        using var database = new Database(File);
        // Rows of these are never deleted: no statement of the stores does it.
        string[] stay = ["school_year", "course", "plan", "run"];
        var texts = System.Text.Encoding.Unicode.GetString(System.IO.File.ReadAllBytes(typeof(Database).Assembly.Location)) + System.Text.Encoding.Unicode.GetString(System.IO.File.ReadAllBytes(typeof(Database).Assembly.Location)[1..]);
        texts.ShouldContain("DELETE FROM folder WHERE", Case.Sensitive);
        foreach (var table in stay) texts.ShouldNotMatch($@"DELETE FROM {table}\b");

        var bare = database.Read(c => AnyRows.Tables(c).SelectMany(t => c.Query($"PRAGMA foreign_key_list({t})").Where(k => !stay.Contains((string)k.table)).Select(k => (Table: t, Column: (string)k.@from)))
            .Where(k => !c.Query<string>($"SELECT name FROM pragma_index_list('{k.Table}')").Any(i => c.ExecuteScalar<string>($"SELECT name FROM pragma_index_info('{i}') WHERE seqno = 0") == k.Column)
                && c.ExecuteScalar<string>($"SELECT name FROM pragma_table_info('{k.Table}') WHERE pk = 1") != k.Column).Select(k => $"{k.Table}.{k.Column}").ToList());

        bare.ShouldBeEmpty();
    }

    [Fact]
    public void A_file_is_migrated_once_and_opened_often()
    {
        using (new Database(File)) { }
        using var again = new Database(File);

        again.Read(c => c.ExecuteScalar<int>("SELECT count(*) FROM SchemaVersions")).ShouldBe(Migrator.Newest);
    }

    [Fact]
    public void Writes_are_flushed_and_readers_do_not_wait()
    {
        using var database = new Database(File);

        database.Read(c => c.ExecuteScalar<string>("PRAGMA journal_mode")).ShouldBe("wal");
        database.Read(c => c.ExecuteScalar<int>("PRAGMA synchronous")).ShouldBe(2);
        database.Read(c => c.ExecuteScalar<int>("PRAGMA foreign_keys")).ShouldBe(1);
    }

    [Fact]
    public void A_write_that_fails_half_way_leaves_nothing()
    {
        using var database = new Database(File);

        Should.Throw<InvalidOperationException>(() => database.Write(c =>
        {
            c.Execute("INSERT INTO course(name, mark) VALUES('Half', 'x')");
            throw new InvalidOperationException();
        }));

        database.Read(c => c.ExecuteScalar<int>("SELECT count(*) FROM course")).ShouldBe(0);
    }

    [Fact]
    public void What_a_reader_sees_does_not_change_under_it()
    {
        using var database = new Database(File);

        var (before, after) = database.Read(c =>
        {
            var first = c.ExecuteScalar<int>("SELECT count(*) FROM course");
            Task.Run(() => database.Write(w => { w.Execute("INSERT INTO course(name, mark) VALUES('New', 'x')"); })).Wait();
            return (first, c.ExecuteScalar<int>("SELECT count(*) FROM course"));
        });

        (before, after).ShouldBe((0, 0));
        database.Read(c => c.ExecuteScalar<int>("SELECT count(*) FROM course")).ShouldBe(1);
    }

    [Fact]
    public void Many_writers_at_once_all_come_through()
    {
        using var database = new Database(File);

        Parallel.For(0, 50, i => database.Write(c => { c.Execute("INSERT INTO course(name, mark) VALUES(@name, 'x')", new { name = $"c{i}" }); }));

        database.Read(c => c.ExecuteScalar<int>("SELECT count(*) FROM course")).ShouldBe(50);
    }

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        scratch.Dispose();
    }

    private static class Workspaces
    {
        internal static Store.Workspaces.ClassRow Find(Database database) => database.Read(c => Store.Workspaces.ClassStore.Find(c, new(1)))!;
    }
}
