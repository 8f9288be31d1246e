using Dapper;
using Microsoft.Data.Sqlite;

namespace SpringLoft.Store.Tests;

/// <summary>Every earlier version of the database file is brought to the newest with its data.</summary>
public sealed class MigrationTests : IDisposable
{
    private readonly Scratch scratch = new();

    private string File => scratch.Under("old.db");

    private string Connection => new SqliteConnectionStringBuilder { DataSource = File, ForeignKeys = true }.ToString();

    // What a school had put in by the time of each version, in the SQL of that version.
    private static readonly string[] DataOf =
    [
        """
        INSERT INTO school(id, name, zone, class_name_pattern, upload_limit_bytes) VALUES(1, 'Old school', 'Etc/UTC', '{course}', 1000);
        INSERT INTO school_year(id, label, school_weekdays, first_weekday, numbering) VALUES(1, '2024–25', '1,2,3,4,5', 1, 'Through');
        INSERT INTO term(year_id, name, first_day, last_day) VALUES(1, 'Year', '2024-08-26', '2025-06-20');
        INSERT INTO person(id, role, given, family, given_key, family_key, user_name) VALUES(1, 'Teacher', 'Rúna', 'Ravndal', 'runa', 'ravndal', 'runa');
        INSERT INTO course(id, name, mark) VALUES(1, 'Clay', 'pot');
        """,
        """
        INSERT INTO class(id, year_id, course_id, name, name_key, state, teacher_shown, made_at) VALUES(1, 1, 1, 'Clay', 'CLAY', 'Open', 'R', '2024-08-26T00:00:00Z');
        INSERT INTO member(class_id, person_id, role, joined_at) VALUES(1, 1, 'Lead', '2024-08-26T00:00:00Z');
        INSERT INTO folder(id, class_id, name, name_key, position, rule) VALUES(1, 1, 'Papers', 'PAPERS', 0, 'ClassViews');
        """,
        "INSERT INTO assignment(id, class_id, title, title_key, instructions, made_at) VALUES(1, 1, 'Pot', 'POT', '', '2024-09-01T00:00:00Z');",
        "INSERT INTO run(kind, state, after_archive, started_by, started_at) VALUES('Closing', 'Done', 'View', 1, '2025-06-20T00:00:00Z');",
        "UPDATE folder SET given_name = name, given_rule = rule, given_position = position, plan_key = 'papers';",
    ];

    public static TheoryData<int> Versions => [.. Enumerable.Range(1, Migrator.Newest)];

    [Theory]
    [MemberData(nameof(Versions))]
    public void A_file_of_an_earlier_version_keeps_its_data(int version)
    {
        Migrator.Run(Connection, version);
        using (var c = new SqliteConnection(Connection))
            for (var v = 1; v <= Math.Min(version, DataOf.Length); v++) c.Execute(DataOf[v - 1]);

        using var database = new Database(File);

        database.Read(c => c.ExecuteScalar<string>("SELECT name FROM school")).ShouldBe("Old school");
        if (version >= 2) Workspaces.Find(database).ShouldSatisfyAllConditions(k => k.Name.ShouldBe("Clay"), k => k.Kind.ShouldBe(Core.Workspaces.WorkspaceKind.Class));
        database.Read(c => c.Query("PRAGMA foreign_key_check").Count()).ShouldBe(0);
        database.Read(c => c.ExecuteScalar<string>("PRAGMA integrity_check")).ShouldBe("ok");
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
