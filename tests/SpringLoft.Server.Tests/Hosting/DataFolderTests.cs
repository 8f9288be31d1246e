using Dapper;
using Microsoft.Data.Sqlite;

namespace SpringLoft.Server.Tests.Hosting;

/// <summary>What the real program does with a data folder that is in use, incomplete, newer or damaged.</summary>
public sealed class DataFolderTests : IDisposable
{
    private readonly TinySchool school = new();

    public DataFolderTests()
    {
        school.OpenClass();
        school.Put(school.Umi, "Hallgrímsson, Umi", "sketch.txt", "a sketch of a boat").Wait();
    }

    private string Database => Path.Combine(school.Folder, "spring-loft.db");

    private string Sketch => school.Premises.Files.PathOf(school.Read(c => c.ExecuteScalar<string>("SELECT sha256 FROM item WHERE name = 'sketch.txt'")!));

    private string[] Kept() => Directory.GetFiles(Path.Combine(school.Folder, "files"), "*", SearchOption.AllDirectories);

    [Fact]
    [System.Runtime.Versioning.UnsupportedOSPlatform("windows")]
    public void The_data_folder_is_for_the_programs_own_user_and_for_nobody_else()
    {
        File.SetUnixFileMode(school.Folder, (UnixFileMode)0b111_101_101);
        using var server = RealServer.Start(school.Folder);

        File.GetUnixFileMode(school.Folder).ShouldBe(UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
    }

    private void Lose()
    {
        school.Premises.Db.Dispose();
        SqliteConnection.ClearAllPools();
        foreach (var f in Directory.GetFiles(school.Folder, "spring-loft.db*")) File.Delete(f);
    }

    [Theory]
    [InlineData("gone")]
    [InlineData("empty")]
    [InlineData("no school in it")]
    public void A_lost_database_beside_files_is_not_taken_for_a_new_school(string how)
    {
        var kept = Kept();
        Lose();
        if (how == "empty") File.WriteAllBytes(Database, []);
        if (how == "no school in it") new SpringLoft.Store.Database(Database).Dispose();

        var (code, said) = RealServer.Refused(school.Folder);

        code.ShouldBe(3);
        said.ShouldContain("the database is lost");
        said.ShouldContain("Restore it from a backup");
        Kept().ShouldBe(kept, ignoreOrder: true);
        RealServer.Refused(school.Folder, "--demo").Code.ShouldBe(3, "nor for a new demo");
    }

    [Fact]
    public void A_database_that_is_none_and_one_of_a_newer_program_are_refused()
    {
        school.Premises.Db.Write(c => c.Execute("INSERT INTO SchemaVersions(ScriptName, Applied) VALUES('SpringLoft.Store.Migrations.9999-later.sql', '2030-01-01')"));
        RealServer.Refused(school.Folder).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(3), r => r.Said.ShouldContain("newer version"));

        Lose();
        File.WriteAllText(Database, new string('x', 5000));
        RealServer.Refused(school.Folder).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(3), r => r.Said.ShouldContain("can't be read as a database"));
    }

    [Fact]
    public async Task Two_processes_never_have_one_folder_and_the_lock_dies_with_the_first()
    {
        using (var first = RealServer.Start(school.Folder))
        {
            using var http = await first.As("lead");
            var upload = Path.Combine(school.Folder, "files", "incoming", "half");
            await File.WriteAllTextAsync(upload, "an upload under way");

            var (code, said) = RealServer.Refused(school.Folder);

            code.ShouldBe(3);
            said.ShouldMatch(@"Another Spring Loft has the data folder .*process \d+ on .+, since");
            File.Exists(upload).ShouldBeTrue("the second one touches nothing");
            (await http.GetAsync("/api/board")).StatusCode.ShouldBe(HttpStatusCode.OK);
            first.Kill();
        }
        using var second = RealServer.Start(school.Folder);
        using var again = await second.As("lead");
    }

    [Fact]
    public async Task A_damaged_file_is_refused_named_to_the_coordinator_and_healed_by_the_same_bytes()
    {
        var (k, item) = (school.Class.Value, school.Read(c => c.ExecuteScalar<long>("SELECT id FROM item WHERE name = 'sketch.txt'")));
        await File.WriteAllTextAsync(Sketch, "a sketch of a coat");
        using var server = RealServer.Start(school.Folder);
        using var umi = await server.As("umi");
        using var coord = await server.As("coord");

        var answer = await umi.GetAsync($"/api/classes/{k}/items/{item}/content");

        ((int)answer.StatusCode, await answer.Code()).ShouldBe((500, "file-damaged"));
        (await coord.GetStringAsync("/api/audit")).ShouldContain("“sketch.txt” in Clay 6B");

        using var bytes = new StreamContent(TinySchool.Bytes("a sketch of a boat"));
        bytes.Headers.ContentType = new("application/octet-stream");
        (await umi.PostAsync($"/api/classes/{k}/folders/{school.FolderNamed("Hallgrímsson, Umi").Value}/files?name=again.txt", bytes)).EnsureSuccessStatusCode();
        (await umi.GetStringAsync($"/api/classes/{k}/items/{item}/content")).ShouldBe("a sketch of a boat");
    }

    [Fact]
    public void Verify_reads_everything_and_says_what_is_wrong_by_its_exit_code_also_beside_the_program()
    {
        using var server = RealServer.Start(school.Folder);
        RealServer.Refused(school.Folder, "verify").ShouldSatisfyAllConditions(r => r.Said.ShouldContain("all whole"), r => r.Code.ShouldBe(0));

        var was = File.ReadAllText(Sketch);
        File.WriteAllText(Sketch, "a sketch of a coat");
        RealServer.Refused(school.Folder, "verify").ShouldSatisfyAllConditions(r => r.Code.ShouldBe(1), r => r.Said.ShouldContain(": damaged"), r => r.Said.ShouldContain("1 faults"));
        File.Delete(Sketch);
        RealServer.Refused(school.Folder, "verify").ShouldSatisfyAllConditions(r => r.Code.ShouldBe(1), r => r.Said.ShouldContain(": missing"));
        was.ShouldNotBeEmpty();

        using var nothing = new Scratch();
        RealServer.Refused(nothing.Path, "verify").Code.ShouldBe(2);
    }

    public void Dispose() => school.Dispose();
}
