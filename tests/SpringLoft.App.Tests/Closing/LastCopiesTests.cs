using System.IO.Compression;
using SpringLoft.App.Closing;
using SpringLoft.Core.Closing;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.People;

namespace SpringLoft.App.Tests.Closing;

/// <summary>What a student put in is never let go while it is the last copy: harmless acts, one after the other, end with all of it there.</summary>
public sealed class LastCopiesTests : SchoolTest, IAsyncLifetime
{
    private AssignmentId pot;

    private YearId Year => school.Years[0].Id;

    private string Name => school.Workspace.Head(school.Coordinator, school.Class).Name;

    public async Task InitializeAsync()
    {
        school.OpenClass();
        pot = school.Assign();
        await school.HandIn(school.Umi, pot, "umi's pot");
        school.Returns.ReturnAll(school.Lead, school.Class, null, true, null);
    }

    public Task DisposeAsync() => Task.CompletedTask;

    private void MakeTakeHomes()
    {
        var run = school.TakeHomes.Begin(school.Coordinator, Year, null);
        school.TakeHomes.Go(run, CancellationToken.None);
        school.TakeHomes.See(school.Coordinator, run).Failed.ShouldBe(0);
    }

    private Dictionary<string, string> TakenHome(Caller student)
    {
        using var content = school.TakeHomes.Open(school.Coordinator, student.Id, Year).Content;
        using var zip = new ZipArchive(content);
        return zip.Entries.ToDictionary(e => e.FullName, e => new StreamReader(e.Open()).ReadToEnd());
    }

    // Archived with take-homes of before the last act: deleting is barred until they are made anew, and then all of it is in them.
    private void ClosedItIsBarredUntilMadeAnew(params string[] texts)
    {
        school.Close().State.ShouldBe(StepState.Done);
        Refused(() => school.Bin.Bin(school.Coordinator, school.Class, Name)).ShouldBe("delete-barred");
        MakeTakeHomes();
        foreach (var text in texts) TakenHome(school.Umi).Values.ShouldContain(text);

        school.Bin.Bin(school.Coordinator, school.Class, Name);
        school.Clock.AdvanceDays(31);
        school.Bin.LetGo().ShouldBe(1);
        school.Clock.AdvanceDays(8);
        new FileSweep(school.Premises).Go(CancellationToken.None);
        school.Clock.AdvanceDays(8);
        new FileSweep(school.Premises).Go(CancellationToken.None);
        foreach (var text in texts) TakenHome(school.Umi).Values.ShouldContain(text);
    }

    [Fact]
    public async Task A_file_added_to_returned_work_after_the_take_home_was_made()
    {
        MakeTakeHomes();
        await school.Work.AddFile(school.Umi, school.Class, pot, "better.txt", TinySchool.Bytes("a better pot"), CancellationToken.None);

        ClosedItIsBarredUntilMadeAnew("umi's pot", "a better pot");
    }

    [Fact]
    public async Task Work_that_was_begun_and_never_handed_in()
    {
        MakeTakeHomes();
        var jug = school.Assign("Jug");
        await school.Work.AddFile(school.Umi, school.Class, jug, "half.txt", TinySchool.Bytes("half a jug"), CancellationToken.None);

        ClosedItIsBarredUntilMadeAnew("half a jug");
    }

    [Fact]
    public async Task A_page_that_was_changed_in_an_own_folder()
    {
        var own = school.FolderNamed("Hallgrímsson, Umi");
        var page = await school.Items.AddPage(school.Umi, school.Class, own, "Log", "first day", CancellationToken.None);
        MakeTakeHomes();
        await school.Items.ChangePage(school.Umi, school.Class, page, "Log", "second day", 1, CancellationToken.None);

        ClosedItIsBarredUntilMadeAnew("second day");
    }

    [Fact]
    public async Task A_students_page_that_somebody_else_wrote_over()
    {
        var page = await school.Items.AddPage(school.Umi, school.Class, school.FolderNamed("Hallgrímsson, Umi"), "Log", "umi's own words", CancellationToken.None);
        await school.Items.ChangePage(school.Umi, school.Class, page, "Log", "umi's last words", 1, CancellationToken.None);
        MakeTakeHomes();
        await school.Items.ChangePage(school.Lead, school.Class, page, "Log", "the teacher's words", 2, CancellationToken.None);

        ClosedItIsBarredUntilMadeAnew("umi's last words", "the teacher's words");
    }

    [Fact]
    public async Task What_students_wrote_one_after_the_other_on_a_page_of_the_teachers()
    {
        var folder = new SpringLoft.App.Workspaces.Arranging(school.Premises).Make(school.Lead, school.Class, new("Wall", null, FolderRule.ClassEdits, null, 0));
        var page = await school.Items.AddPage(school.Lead, school.Class, folder, "Poem", "one line each", CancellationToken.None);
        MakeTakeHomes();
        await school.Items.ChangePage(school.Umi, school.Class, page, "Poem", "umi's line", 1, CancellationToken.None);
        await school.Items.ChangePage(school.Rúna, school.Class, page, "Poem", "rúna's line", 2, CancellationToken.None);

        ClosedItIsBarredUntilMadeAnew("umi's line");
        TakenHome(school.Rúna).ShouldContain(f => f.Key.EndsWith("Poem, as you left it.md", StringComparison.Ordinal) && f.Value == "rúna's line");
    }

    [Fact]
    public async Task What_was_handed_in_and_replaced_for_the_next_time()
    {
        MakeTakeHomes();
        var file = school.Read(c => WorkStore.Files(c, WorkStore.Of(c, pot, school.Umi.Id)!.Id)).Single();
        school.Work.RemoveFile(school.Umi, school.Class, pot, file.Id);
        await school.HandIn(school.Umi, pot, "umi's second pot");
        school.Returns.ReturnAll(school.Lead, school.Class, null, true, null);

        ClosedItIsBarredUntilMadeAnew("umi's pot", "umi's second pot");
    }

    [Fact]
    public async Task What_a_teacher_binned_of_a_students()
    {
        var item = await school.Put(school.Umi, "Shared table", "joke.txt", "a joke");
        MakeTakeHomes();
        var other = await school.Put(school.Umi, "Shared table", "joke 2.txt", "another joke");
        school.Items.Bin(school.Lead, school.Class, item);
        school.Items.Bin(school.Lead, school.Class, other);

        ClosedItIsBarredUntilMadeAnew("a joke", "another joke");
    }

    [Fact]
    public async Task What_students_binned_themselves_is_theirs_to_let_go()
    {
        MakeTakeHomes();
        var item = await school.Put(school.Umi, "Shared table", "joke.txt", "a joke");
        school.Items.Bin(school.Umi, school.Class, item);
        school.Close();

        school.Bin.Check(school.Class).Against.ShouldBeEmpty();
    }

    [Fact]
    public void A_take_home_of_before_its_contents_were_noted_is_read()
    {
        MakeTakeHomes();
        school.Close();
        school.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "DELETE FROM take_home_holds"));

        school.Bin.Check(school.Class).Against.ShouldBeEmpty();
    }

    [Fact]
    public void A_damaged_take_home_holds_nothing()
    {
        MakeTakeHomes();
        school.Close();
        school.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "DELETE FROM take_home_holds"));
        var sha = school.Read(c => Store.Closing.TakeHomeStore.Of(c, school.Umi.Id)).Single().Sha256;
        var path = school.Premises.Files.PathOf(sha);
        var bytes = File.ReadAllBytes(path);
        File.Delete(path);
        File.WriteAllBytes(path, [.. bytes.Take(bytes.Length / 2)]);

        school.Bin.Check(school.Class).Against.ShouldHaveSingleItem().ShouldContain("1 of 1 students");
    }

    [Fact]
    public void Made_anew_it_keeps_what_it_alone_holds()
    {
        var tides = school.Making.Make(school.Lead, school.New("Tides", "7A"));
        school.Roster.Enroll(school.Lead, tides, [school.Umi.Id], ClassRole.Student);
        school.Making.Open(school.Lead, tides, school.Workspace.Head(school.Lead, tides).Version);
        MakeTakeHomes();
        school.Close();
        school.Bin.Bin(school.Coordinator, school.Class, Name);
        school.Clock.AdvanceDays(31);
        school.Bin.LetGo().ShouldBe(1);

        MakeTakeHomes();
        MakeTakeHomes();

        TakenHome(school.Umi).ShouldContain(f => f.Key.EndsWith("Pinch pot/pot.txt", StringComparison.Ordinal) && f.Value == "umi's pot");
        TakenHome(school.Umi).Values.Count(v => v == "umi's pot").ShouldBe(1);
        TakenHome(school.Umi)["index.html"].ShouldContain("Kept from a take-home of before");
    }

    [Fact]
    public void A_take_home_that_alone_holds_something_outlives_its_leavers_time_until_a_person_lets_it_go_by_name()
    {
        MakeTakeHomes();
        school.Close();
        school.Bin.Bin(school.Coordinator, school.Class, Name);
        school.Clock.AdvanceDays(31);
        school.Bin.LetGo().ShouldBe(1);
        school.Premises.Db.Write(c => PersonStore.SetGrades(c, [(school.Umi.Id, "6", false)]));
        school.Copies.LetGoOfLeavers();
        school.Clock.AdvanceDays(SpringLoft.Core.School.SchoolRules.Default.LeaverDays * 3);

        school.Copies.LetGoOfLeavers().ShouldBe(0);
        TakenHome(school.Umi).Values.ShouldContain("umi's pot");
        school.Copies.Look(school.Coordinator, school.Umi.Id, Year).ShouldSatisfyAllConditions(l => l.Student.ShouldBe(school.Umi.Name), l => l.Alone.ShouldBe(1), l => l.Files.ShouldBe(1));
        school.Copies.Look(school.Umi, school.Umi.Id, Year).Alone.ShouldBe(1);
        Refused(() => school.Copies.Look(school.Rúna, school.Umi.Id, Year)).ShouldBe("not-allowed");
        Refused(() => school.Copies.LetGo(school.Lead, school.Umi.Id, Year, school.Umi.Name, "asked")).ShouldBe("not-allowed");
        Refused(() => school.Copies.LetGo(school.Coordinator, school.Umi.Id, Year, "Umi", "asked")).ShouldBe("delete-name");
        Refused(() => school.Copies.LetGo(school.Coordinator, school.Umi.Id, Year, school.Umi.Name, " ")).ShouldBe("missing");
        school.Copies.LetGo(school.Coordinator, school.Umi.Id, Year, school.Umi.Name, "the family asked for it by letter");
        Refused(() => TakenHome(school.Umi)).ShouldBe("not-found");
        school.Read(c => Store.Audit.AuditStore.Find(c, new(), 5)).ShouldContain(l => l.Act == "let go of take-home" && l.Detail.Contains("by letter") && l.Detail.Contains("1 files stood nowhere else"));
    }

    [Fact]
    public void A_leavers_time_runs_from_the_day_they_left_not_from_the_day_it_was_made()
    {
        MakeTakeHomes();
        school.Clock.AdvanceDays(SpringLoft.Core.School.SchoolRules.Default.LeaverDays + 50);
        school.Premises.Db.Write(c => PersonStore.SetGrades(c, [(school.Umi.Id, "6", false)]));
        school.Copies.LetGoOfLeavers().ShouldBe(0);
        school.Clock.AdvanceDays(SpringLoft.Core.School.SchoolRules.Default.LeaverDays);
        school.Copies.LetGoOfLeavers().ShouldBe(0, "on the last of its days it is there");
        school.Clock.AdvanceDays(1);

        school.Copies.Look(school.Coordinator, school.Umi.Id, Year).Alone.ShouldBe(0);
        school.Copies.LetGoOfLeavers().ShouldBe(1, "all of it stands in the class");
    }

    [Fact]
    public void A_class_in_the_bin_stays_there_when_a_take_home_was_let_go_meanwhile()
    {
        MakeTakeHomes();
        school.Close();
        school.Bin.Bin(school.Coordinator, school.Class, Name);
        school.Copies.LetGo(school.Umi, school.Umi.Id, Year, null, null);
        school.Clock.AdvanceDays(31);

        school.Bin.LetGo().ShouldBe(0);
        school.Bin.See().ShouldHaveSingleItem().Waits.ShouldHaveSingleItem().ShouldContain("no take-home that holds all of it");
        school.Bin.BringBack(school.Coordinator, school.Class);
    }
}
