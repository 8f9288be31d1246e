using System.Net.Http.Json;
using System.Text;
using Dapper;

namespace SpringLoft.Server.Tests.Hosting;

/// <summary>Faults of the machine: the process killed at any point of a closing run, a full disk, a stop.</summary>
public sealed class FaultTests : IDisposable
{
    // With the key ring of the server: both sign with the same key of the school.
    private readonly TinySchool school = new(SpringLoft.Server.Hosting.KeyRingSeal.Of);

    public FaultTests()
    {
        school.OpenClass();
        school.Put(school.Lead, "Papers", "plan.txt", "the plan").Wait();
        school.Put(school.Umi, "Hallgrímsson, Umi", "sketch.txt", "a sketch").Wait();
        var a = school.Assign();
        school.HandIn(school.Umi, a, "umi's pot").Wait();
        school.HandIn(school.Rúna, a, "rúna's pot").Wait();
        school.Returns.ReturnAll(school.Lead, school.Class, null, true, null);
    }

    private string ClassPath => $"/api/classes/{school.Class.Value}";

    private async Task<long> Close(RealServer server)
    {
        using var http = await server.As("lead");
        var answer = await http.PostAsJsonAsync($"{ClassPath}/closing", new { afterArchive = "View" });
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
        return (await answer.Json()).GetProperty("id").GetInt64();
    }

    // A disk, in megabytes, on which closing a tiny school leaves free what is to stay free.
    private const int Roomy = 600;

    // A run that began while there was room; the disk fills up before it goes on.
    private async Task<long> Begun(Func<RealServer, Task<long>> closes)
    {
        const string point = "TakeHomes:begin";
        using var server = RealServer.Start(school.Folder, haltAt: point);
        var run = await closes(server);
        await Halted(server, point);
        server.Kill();
        return run;
    }

    private T Ask<T>(string sql) => school.Read(c => c.ExecuteScalar<T>(sql))!;

    private Task Halted(RealServer server, string point) => server.Until($"a halt at {point}", () =>
        Directory.GetFiles(Path.Combine(school.Folder, "logs")).Any(f =>
        {
            using var log = new FileStream(f, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
            return new StreamReader(log).ReadToEnd().Contains($"\"Point\":\"{point}\"", StringComparison.Ordinal);
        }));

    // The packages of a run that nothing disturbed, for the same classes at the same moment of its beginning.
    private string Undisturbed(long run)
    {
        school.Premises.Db.Write(c => c.Execute(
            """
            UPDATE class SET state = 'Open', archived_at = NULL WHERE state = 'Archived';
            UPDATE run SET state = 'Working', ended_at = NULL WHERE id = @run;
            UPDATE run_class SET state = 'Waiting'; UPDATE run_step SET state = 'Waiting'; DELETE FROM package;
            """, new { run }));
        new SpringLoft.App.Closing.ClosingRunner(school.Premises, new(), new SpringLoft.App.Closing.NoMilestones(), Microsoft.Extensions.Logging.Abstractions.NullLogger<SpringLoft.App.Closing.ClosingRunner>.Instance, new(school.Premises)).Go(new(run), CancellationToken.None);
        return Packages();
    }

    private string Packages() => Ask<string>("SELECT group_concat(class_id || kind || ifnull(student_id, '') || sha256 ORDER BY class_id, kind, student_id) FROM package");

    private ClassId Second()
    {
        var id = school.Making.Make(school.Lead, school.New("Tides", "7A"));
        school.Roster.Enroll(school.Lead, id, [school.Umi.Id], ClassRole.Student);
        school.Making.Open(school.Lead, id, school.Workspace.Head(school.Lead, id).Version);
        var shared = school.Workspace.See(school.Umi, id).Folders.First(f => f.Name == "Shared table").Id;
        school.Items.AddFile(school.Umi, id, shared, "tide.txt", TinySchool.Bytes("high"), CancellationToken.None).Wait();
        return id;
    }

    private static readonly string[] Points = ["TakeHomes:begin", "TakeHomes:one", "TakeHomes:end", "ArchivePackage:begin", "ArchivePackage:written", "ArchivePackage:end", "Check:begin", "Check:end", "Archive:begin", "Archive:end"];

    /// <summary>Each point, in the first class of the run and in the second; the take-home of the second class is the third that is made.</summary>
    public static TheoryData<string> TwentyPoints => [.. Points, .. Points.Select(p => p == "TakeHomes:one" ? $"{p}#3" : $"{p}#2")];

    [Theory]
    [MemberData(nameof(TwentyPoints))]
    public async Task A_run_that_was_killed_goes_on_at_the_next_start_and_ends_with_the_same_packages(string point)
    {
        var second = Second();
        long run;
        using (var server = RealServer.Start(school.Folder, haltAt: point))
        {
            using var http = await server.As("coord");
            var answer = await http.PostAsJsonAsync("/api/closing/runs", new { classes = new[] { school.Class.Value, second.Value }, options = new { after = "View" } });
            answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
            run = (await answer.Json()).GetProperty("id").GetInt64();
            await Halted(server, point);
            server.Kill();
        }
        Ask<string>("SELECT state FROM run").ShouldBe("Working");

        using (var server = RealServer.Start(school.Folder))
            await server.Until("the end of the run", () => Ask<string>("SELECT state FROM run") == "Done");

        Ask<string>("SELECT group_concat(DISTINCT state) FROM class").ShouldBe("Archived");
        Directory.GetFiles(Path.Combine(school.Folder, "files", "incoming")).ShouldBeEmpty();
        Ask<int>("SELECT count(*) FROM package").ShouldBe(5);
        Packages().ShouldBe(Undisturbed(run));
    }

    /// <summary>Of more than eight classes two are worked on at a time; the kill meets both.</summary>
    [Theory]
    [InlineData("TakeHomes:one#4")]
    [InlineData("ArchivePackage:written#6")]
    [InlineData("Archive:begin#9")]
    public async Task A_run_over_ten_classes_that_was_killed_ends_with_the_same_packages(string point)
    {
        var all = new List<ClassId> { school.Class };
        for (var i = 0; i < 9; i++)
        {
            var id = school.Making.Make(school.Lead, school.New("Rope", $"{i}"));
            school.Roster.Enroll(school.Lead, id, [school.Umi.Id], ClassRole.Student);
            school.Making.Open(school.Lead, id, school.Workspace.Head(school.Lead, id).Version);
            var shared = school.Workspace.See(school.Umi, id).Folders.First(f => f.Name == "Shared table").Id;
            await school.Items.AddFile(school.Umi, id, shared, "knot.txt", TinySchool.Bytes($"knot {i}"), CancellationToken.None);
            all.Add(id);
        }
        long run;
        using (var server = RealServer.Start(school.Folder, haltAt: point))
        {
            using var http = await server.As("coord");
            var answer = await http.PostAsJsonAsync("/api/closing/runs", new { classes = all.Select(k => k.Value), options = new { after = "View" } });
            run = (await answer.Json()).GetProperty("id").GetInt64();
            await Halted(server, point);
            server.Kill();
        }
        Ask<string>("SELECT state FROM run").ShouldBe("Working");

        using (var server = RealServer.Start(school.Folder))
            await server.Until("the end of the run", () => Ask<string>("SELECT state FROM run") == "Done");

        Ask<string>("SELECT group_concat(DISTINCT state) FROM class").ShouldBe("Archived");
        Ask<int>("SELECT count(*) FROM package").ShouldBe(21);
        Packages().ShouldBe(Undisturbed(run));
    }

    [Fact]
    public async Task Rolling_over_and_take_homes_that_were_killed_go_on_at_the_next_start_and_double_nothing()
    {
        using (var server = RealServer.Start(school.Folder, haltAt: "RollOver:some"))
        {
            using var http = await server.As("coord");
            var lines = Enumerable.Range(1, 30).Select(i => new { from = new[] { school.Class.Value }, section = $"S{i}", period = (string?)null, lead = (long?)null });
            (await http.PostAsJsonAsync("/api/rollover/runs", new { year = (long?)null, lines, choice = new { } })).StatusCode.ShouldBe(HttpStatusCode.OK);
            await Halted(server, "RollOver:some");
            server.Kill();
        }
        Ask<int>("SELECT count(*) FROM class WHERE rolled_from IS NOT NULL").ShouldBe(20);
        using (var server = RealServer.Start(school.Folder, haltAt: "TakeHome:kept"))
        {
            await server.Until("the end of the roll-over", () => Ask<string>("SELECT state FROM run WHERE kind = 'RollOver'") == "Done");
            using var http = await server.As("coord");
            (await http.PostAsJsonAsync("/api/take-homes/runs", new { year = school.Years[0].Id.Value, students = (long[]?)null })).StatusCode.ShouldBe(HttpStatusCode.OK);
            await Halted(server, "TakeHome:kept");
            server.Kill();
        }
        Ask<int>("SELECT count(*) FROM class WHERE rolled_from IS NOT NULL").ShouldBe(30);

        using (var server = RealServer.Start(school.Folder))
            await server.Until("the end of the take-homes", () => Ask<string>("SELECT state FROM run WHERE kind = 'TakeHomes'") == "Done");

        Ask<int>("SELECT count(*) FROM take_home").ShouldBe(2);
    }

    [Fact]
    public async Task A_plan_run_that_was_killed_half_way_goes_on_at_the_next_start_and_doubles_nothing()
    {
        var others = new[] { "Glass", "Rope" }.Select(course => school.Making.Make(school.Lead, school.New(course))).ToList();
        using (var server = RealServer.Start(school.Folder, haltAt: "PutPlan:one"))
        {
            using var http = await server.As("coord");
            var lines = new[] { new { depth = 0, namePattern = "Quay", stands = "Once", rule = "ClassViews", key = (string?)null, entries = Array.Empty<string>() } };
            var plan = (await (await http.PostAsJsonAsync("/api/plans", new { name = "Killed", about = "", lines, version = 0 })).Json()).GetProperty("id").GetInt64();
            var answer = await http.PostAsJsonAsync($"/api/plans/{plan}/puts", new { classes = others.Append(school.Class).Select(k => k.Value) });
            answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
            await Halted(server, "PutPlan:one");
            server.Kill();
        }
        Ask<int>("SELECT count(*) FROM folder WHERE name = 'Quay'").ShouldBe(1);

        using (var server = RealServer.Start(school.Folder))
            await server.Until("the end of the run", () => Ask<string>("SELECT state FROM run WHERE kind = 'PutPlan'") == "Done");

        Ask<string>("SELECT group_concat(n) FROM (SELECT count(*) AS n FROM folder WHERE name = 'Quay' GROUP BY class_id)").ShouldBe("1,1,1");
    }

    [Fact]
    public async Task A_package_of_the_real_program_satisfies_unzip_and_sha512sum()
    {
        using var server = RealServer.Start(school.Folder);
        await Close(server);
        await server.Until("the end of the run", () => Ask<string>("SELECT state FROM run") == "Done");
        using var http = await server.As("lead");
        using var scratch = new Scratch();
        await File.WriteAllBytesAsync(scratch.Under("package.zip"), await http.GetByteArrayAsync($"{ClassPath}/package"));

        Shell.Run(scratch.Path, "unzip", "-t", "package.zip").Code.ShouldBe(0);
        Shell.Run(scratch.Path, "unzip", "-q", "package.zip").Code.ShouldBe(0);
        var bag = Directory.GetDirectories(scratch.Path).ShouldHaveSingleItem();
        Shell.Run(bag, "sha512sum", "--strict", "-c", "manifest-sha512.txt").Code.ShouldBe(0);
        Shell.Run(bag, "sha512sum", "--strict", "-c", "tagmanifest-sha512.txt").Code.ShouldBe(0);
        Shell.Run(bag, "sqlite3", ":memory:", "-cmd", ".import --csv data/metadata/marks.csv m", "SELECT count(*) FROM m WHERE state = 'Returned'").Said.Trim().ShouldBe("2");
    }

    [Fact]
    public async Task A_disk_that_is_full_while_a_file_arrives_keeps_nothing_and_says_so()
    {
        using var server = RealServer.Start(school.Folder, smallDisk: 2);
        using var http = await server.As("lead");
        var address = $"{ClassPath}/folders/{school.FolderNamed("Papers").Value}/files?name=large.bin";

        var answer = await http.PostAsync(address, new ByteArrayContent(new byte[5_000_000]) { Headers = { ContentType = new("application/octet-stream") } });

        ((int)answer.StatusCode, await answer.Code()).ShouldBe((507, "disk-full"));
        Ask<int>("SELECT count(*) FROM item WHERE name = 'large.bin'").ShouldBe(0);
        // What was half-written is gone: a file that fits finds its room.
        (await http.PostAsync(address, new ByteArrayContent(new byte[1_000_000]) { Headers = { ContentType = new("application/octet-stream") } })).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_disk_that_is_full_during_a_run_fails_the_class_with_that_reason_and_leaves_it_open()
    {
        var big = new string('x', 3_000_000);
        await school.Put(school.Lead, "Papers", "big.txt", big);
        await Begun(Close);
        using var server = RealServer.Start(school.Folder, smallDisk: 4);

        await server.Until("the end of the run", () => Ask<string>("SELECT state FROM run") == "Failed");

        Ask<string>("SELECT state FROM class").ShouldBe("Open");
        Ask<string>("SELECT reason FROM run_class").ShouldContain("disk is full");
    }

    /// <summary>The disk fills up at another step of another class each time; then there is room again.</summary>
    [Theory]
    [InlineData(12)]
    [InlineData(13)]
    [InlineData(14)]
    [InlineData(15)]
    public async Task A_disk_that_fills_up_in_a_run_over_many_fails_some_classes_and_trying_them_again_verifies_the_rest(int megabytes)
    {
        var filler = Path.Combine(school.Folder, "files", "filler");
        var all = new List<ClassId> { school.Class, Second() };
        for (var i = 0; i < 3; i++) all.Add(school.Making.Make(school.Lead, school.New("Rope", $"{i}")));
        foreach (var (k, i) in all.Skip(2).Select((k, i) => (k, i)))
        {
            // In the second of them it is a student's, so that the take-home needs the room too.
            var (who, folder) = i == 1 ? (school.Umi, "Shared table") : (school.Lead, "Papers");
            if (i == 1) school.Roster.Enroll(school.Lead, k, [school.Umi.Id], ClassRole.Student);
            school.Making.Open(school.Lead, k, school.Workspace.Head(school.Lead, k).Version);
            var into = school.Workspace.See(school.Lead, k).Folders.First(f => f.Name == folder).Id;
            await school.Items.AddFile(who, k, into, "big.bin", TinySchool.Bytes(new string((char)('a' + i), 1_200_000)), CancellationToken.None);
        }
        var run = await Begun(async s =>
        {
            using var http = await s.As("coord");
            var answer = await http.PostAsJsonAsync("/api/closing/runs", new { classes = all.Select(k => k.Value), options = new { after = "View" } });
            return (await answer.Json()).GetProperty("id").GetInt64();
        });
        await File.WriteAllBytesAsync(filler, new byte[8_000_000]);
        using var server = RealServer.Start(school.Folder, smallDisk: megabytes);
        using var http = await server.As("coord");

        await server.Until("the end of the run", () => Ask<string>($"SELECT state FROM run WHERE id = {run}") == "Failed");

        var archived = Ask<int>("SELECT count(*) FROM class WHERE state = 'Archived'");
        archived.ShouldBeInRange(2, 4);
        Ask<int>($"SELECT count(*) FROM run_class WHERE run_id = {run} AND state = 'Failed' AND reason LIKE '%disk is full%'").ShouldBe(5 - archived);
        Ask<int>("SELECT count(*) FROM class k WHERE k.state = 'Archived' AND NOT EXISTS (SELECT 1 FROM package p WHERE p.class_id = k.id AND p.kind = 'Archive' AND p.verified_at IS NOT NULL)").ShouldBe(0);
        Directory.GetFiles(server.Inside(Path.Combine(school.Folder, "files", "incoming"))).ShouldBeEmpty("what was half-written is gone");

        File.Delete(server.Inside(filler));
        var early = await http.PostAsJsonAsync($"/api/closing/runs/{run}/again", new { });
        (await early.Code()).ShouldBe("disk-too-small", "it is not begun where it would fill the disk once more");
        server.Grow(Roomy);
        var again = (await (await http.PostAsJsonAsync($"/api/closing/runs/{run}/again", new { })).Json()).GetProperty("id").GetInt64();
        await server.Until("the end of the second try", () => Ask<string>($"SELECT state FROM run WHERE id = {again}") == "Done");

        Ask<int>("SELECT count(*) FROM class WHERE state = 'Archived'").ShouldBe(5);
        Ask<int>("SELECT count(*) FROM package WHERE kind = 'Archive' AND verified_at IS NOT NULL").ShouldBe(5);
    }

    [Fact]
    public async Task A_workspace_that_has_no_room_to_come_out_as_a_zip_says_so()
    {
        await school.Items.AddFile(school.Lead, school.Class, school.FolderNamed("Papers"), "long.bin", new MemoryStream(new byte[1_500_000]), CancellationToken.None);
        using var server = RealServer.Start(school.Folder, smallDisk: 2);
        using var http = await server.As("lead");

        var answer = await http.GetAsync($"{ClassPath}/zip");

        ((int)answer.StatusCode, await answer.Code()).ShouldBe((507, "disk-full"));
        Directory.GetFiles(server.Inside(Path.Combine(school.Folder, "files", "incoming"))).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_full_disk_of_the_database_refuses_what_can_not_be_written_and_a_run_goes_on_when_there_is_room()
    {
        var filler = Path.Combine(school.Folder, "filler");
        await File.WriteAllBytesAsync(filler, new byte[6_000_000]);
        using var server = RealServer.Start(school.Folder, smallDisk: 12, small: "");
        using var http = await server.As("lead");
        // What is left is taken by a file, all but a little.
        var room = new DriveInfo(server.Inside(school.Folder)).AvailableFreeSpace;
        await File.WriteAllBytesAsync(server.Inside(filler) + "2", new byte[Math.Max(0, room - 300_000)]);
        var posted = 0;
        HttpResponseMessage answer;
        while ((answer = await http.PostAsJsonAsync($"{ClassPath}/notices", new { text = new string('n', 1900) })).IsSuccessStatusCode) (++posted).ShouldBeLessThan(1000);

        ((int)answer.StatusCode, await answer.Code()).ShouldBe((507, "disk-full"));
        async Task<int> Notices() => (await (await http.GetAsync($"{ClassPath}/workspace")).Json()).GetProperty("notices").GetArrayLength();
        (await Notices()).ShouldBe(posted);

        File.Delete(server.Inside(filler) + "2");
        File.Delete(server.Inside(filler));
        (await http.PostAsJsonAsync($"{ClassPath}/notices", new { text = "room again" })).IsSuccessStatusCode.ShouldBeTrue();
        (await Notices()).ShouldBe(posted + 1);
        server.Grow(Roomy);
        var run = (await (await http.PostAsJsonAsync($"{ClassPath}/closing", new { afterArchive = "View" })).Json()).GetProperty("id").GetInt64();
        await server.Until("the end of the run", async () => (await (await http.GetAsync($"/api/closing/runs/{run}")).Json()).GetProperty("state").GetString() == "Done");
        (await (await http.GetAsync($"/api/closing/runs/{run}")).Json()).GetProperty("verified").GetInt32().ShouldBe(1);
    }

    [Theory]
    [InlineData("ArchivePackage:file")]
    [InlineData("ArchivePackage:file#3")]
    public async Task A_stop_in_the_middle_of_a_package_parks_the_run_and_it_goes_on_at_the_next_start(string point)
    {
        long run;
        using (var server = RealServer.Start(school.Folder, haltAt: point))
        {
            run = await Close(server);
            await Halted(server, point);
            server.Terminate().ShouldBe(0);
        }
        Ask<string>("SELECT state FROM run").ShouldBe("Working");
        Ask<string>("SELECT state FROM class").ShouldBe("Open");
        Ask<int>("SELECT count(*) FROM package").ShouldBe(0);
        Directory.GetFiles(Path.Combine(school.Folder, "files", "incoming")).ShouldBeEmpty("the half of a package is not left");

        using (var server = RealServer.Start(school.Folder))
            await server.Until("the end of the run", () => Ask<string>("SELECT state FROM run") == "Done");

        Packages().ShouldBe(Undisturbed(run));
    }

    [Fact]
    public async Task A_clean_stop_ends_well_and_the_health_page_says_that_all_is_well()
    {
        using var server = RealServer.Start(school.Folder);
        using (var http = server.Nobody()) (await http.GetStringAsync("/health")).ShouldSatisfyAllConditions(h => h.ShouldContain("\"read\""), h => h.ShouldNotContain("Tiny", Case.Sensitive, "who is not signed in learns no name"));

        server.Terminate().ShouldBe(0);
    }

    [Fact]
    public async Task Logs_are_lines_of_JSON_with_the_address_and_the_status()
    {
        using (var server = RealServer.Start(school.Folder))
        {
            using var http = await server.As("lead");
            await http.GetAsync("/api/board");
            server.Terminate();
        }
        var lines = Directory.GetFiles(Path.Combine(school.Folder, "logs")).SelectMany(File.ReadAllLines).ToList();

        lines.ShouldAllBe(l => System.Text.Json.JsonDocument.Parse(l, default).RootElement.ValueKind == System.Text.Json.JsonValueKind.Object);
        lines.ShouldContain(l => l.Contains("\"RequestPath\":\"/api/board\"") && l.Contains("\"StatusCode\":200"));
        lines.ShouldNotContain(l => l.Contains(TinySchool.Password));
    }

    public void Dispose() => school.Dispose();
}
