using SpringLoft.App.Closing;

namespace SpringLoft.App.Tests.Closing;

public class FileSweepTests : SchoolTest
{
    public FileSweepTests()
    {
        school.OpenClass();
        school.Put(school.Lead, "Papers", "glaze table.txt", "cobalt").Wait();
        school.Put(school.Umi, "Hallgrímsson, Umi", "sketch.txt", "a sketch").Wait();
        var a = school.Assign("Pinch pot", 20, "Papers");
        school.HandIn(school.Umi, a, "umi's pot").Wait();
        school.Returns.ReturnAll(school.Lead, school.Class, null, true, null);
    }

    private HashSet<string> OnDisk => [.. school.Premises.Files.All()];

    private HashSet<string> Referred => school.Read(c => Dapper.SqlMapper.Query<string>(c,
        "SELECT sha256 FROM item WHERE sha256 IS NOT NULL UNION SELECT sha256 FROM work_file UNION SELECT sha256 FROM package UNION SELECT sha256 FROM take_home").ToHashSet());

    // As if nobody had brought anything for a day.
    private void Age()
    {
        foreach (var sha in school.Premises.Files.All()) File.SetLastWriteTimeUtc(school.Premises.Files.PathOf(sha), DateTime.UtcNow.AddDays(-1));
    }

    private int Sweep()
    {
        Age();
        return new FileSweep(school.Premises).Go(CancellationToken.None);
    }

    private void Delete()
    {
        school.Close();
        school.TakeHomes.Go(school.TakeHomes.Begin(school.Coordinator, school.Years[0].Id, null), CancellationToken.None);
        var bin = school.Bin;
        bin.Bin(school.Coordinator, school.Class, school.Workspace.Head(school.Coordinator, school.Class).Name);
        school.Clock.AdvanceDays(31);
        bin.LetGo().ShouldBe(1);
    }

    [Fact]
    public void The_files_of_a_class_that_was_deleted_for_good_are_off_the_disk_a_week_after_they_were_found_unused()
    {
        Delete();
        var all = OnDisk;

        Sweep().ShouldBe(0);
        school.Clock.AdvanceDays(6);
        Sweep().ShouldBe(0);
        OnDisk.ShouldBe(all, ignoreOrder: true);
        school.Clock.AdvanceDays(1);
        // The pot, the sketch, the glaze table and the class's package; the take-home of the class is byte for byte that of the year, which stays.
        Sweep().ShouldBe(4);

        OnDisk.ShouldBe(Referred, ignoreOrder: true);
        OnDisk.ShouldHaveSingleItem("what the student took home stays");
        using var home = school.TakeHomes.OpenMine(school.Umi, school.Years[0].Id).Content;
        home.Length.ShouldBePositive();
        school.Read(c => Dapper.SqlMapper.ExecuteScalar<int>(c, "SELECT count(*) FROM blob")).ShouldBe(1);
        Sweep().ShouldBe(0);
    }

    [Fact]
    public async Task What_another_class_has_too_stays()
    {
        var other = school.Making.Make(school.Lead, school.New("Tides", "7A"));
        school.Making.Open(school.Lead, other, school.Workspace.Head(school.Lead, other).Version);
        var papers = school.Workspace.See(school.Lead, other).Folders.First(f => f.Name == "Papers").Id;
        await school.Items.AddFile(school.Lead, other, papers, "cobalt.txt", TinySchool.Bytes("cobalt"), CancellationToken.None);
        Delete();

        Sweep();
        school.Clock.AdvanceDays(7);
        Sweep().ShouldBe(3);

        OnDisk.Count.ShouldBe(2);
        OnDisk.ShouldBe(Referred, ignoreOrder: true);
    }

    [Fact]
    public async Task What_was_found_unused_and_is_used_again_within_the_week_stays()
    {
        var sha = (await school.Premises.Files.TakeIn(TinySchool.Bytes("left over"), 100, CancellationToken.None)).Sha256;
        Sweep();
        school.Clock.AdvanceDays(3);
        var item = await school.Put(school.Lead, "Papers", "again.txt", "left over");
        Sweep().ShouldBe(0);
        school.Items.Bin(school.Lead, school.Class, item);
        school.Clock.AdvanceDays(30);

        Sweep().ShouldBe(0);
        OnDisk.ShouldContain(sha, "the bin of the class still has it");
    }

    [Fact]
    public async Task Bytes_that_are_brought_again_while_they_are_taken_away_are_there_in_the_end()
    {
        await school.Premises.Files.TakeIn(TinySchool.Bytes("left over"), 100, CancellationToken.None);
        Sweep();
        school.Clock.AdvanceDays(8);
        Age();

        var sweeping = Task.Run(() => new FileSweep(school.Premises).Go(CancellationToken.None));
        var bringing = Task.Run(() => school.Put(school.Lead, "Papers", "again.txt", "left over"));
        await Task.WhenAll(sweeping, bringing);

        Referred.Except(OnDisk).ShouldBeEmpty();
        school.Read(c => Dapper.SqlMapper.Query<string>(c, "PRAGMA foreign_key_check").ToList()).ShouldBeEmpty();
    }
}
