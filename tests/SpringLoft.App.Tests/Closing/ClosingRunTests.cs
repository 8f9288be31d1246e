using System.IO.Compression;
using SpringLoft.Core.Closing;

namespace SpringLoft.App.Tests.Closing;

public class ClosingRunTests : SchoolTest
{
    private readonly AssignmentId assignment;

    public ClosingRunTests()
    {
        school.OpenClass();
        assignment = school.Assign();
    }

    private async Task Filled()
    {
        await school.Put(school.Lead, "Papers", "plan.txt", "the plan");
        await school.Put(school.Umi, "Hallgrímsson, Umi", "sketch.txt", "a sketch");
        await school.HandIn(school.Umi, assignment, "umi's pot");
        school.Returns.ReturnAll(school.Lead, school.Class, null, unmarkedToo: true, "Fine.");
    }

    private Dictionary<string, string> Package()
    {
        using var content = school.Loft.OpenPackage(school.Class).Content;
        return Texts(content);
    }

    private static Dictionary<string, string> Texts(Stream zip)
    {
        using var archive = new ZipArchive(zip);
        return archive.Entries.ToDictionary(e => e.FullName, e => new StreamReader(e.Open()).ReadToEnd());
    }

    private ClassState State => school.Workspace.Head(school.Lead, school.Class).State;

    [Fact]
    public async Task A_run_ends_with_a_verified_package_and_an_archived_class()
    {
        await Filled();

        var run = school.Close();

        run.Classes.Single().Steps.ShouldAllBe(s => s.State == StepState.Done);
        State.ShouldBe(ClassState.Archived);
        school.Loft.See(school.Coordinator).ShouldHaveSingleItem().Classes.ShouldHaveSingleItem().Package.ShouldBe("Clay 6B · period 3 · 2026–27.zip");
        school.Letters.ShouldBe(["lead@tiny.invalid: Clay 6B · period 3 · 2026–27 is in the loft"]);
    }

    [Fact]
    public async Task The_package_holds_folders_work_and_every_table_with_what_is_in_them()
    {
        await Filled();
        school.Close();

        var package = Package();
        const string top = "Clay 6B · period 3 · 2026–27/data/";

        package[$"{top}folders/Papers/plan.txt"].ShouldBe("the plan");
        package[$"{top}folders/Own folders/Hallgrímsson, Umi/sketch.txt"].ShouldBe("a sketch");
        package[$"{top}work/Pinch pot/Hallgrímsson, Umi (1001)/pot.txt"].ShouldBe("umi's pot");
        package[$"{top}metadata/roster.csv"].ShouldContain("umi,Umi,Hallgrímsson,1001,6,Student");
        package[$"{top}metadata/folders.csv"].ShouldContain("Staff room");
        package[$"{top}metadata/marks.csv"].ShouldContain("Pinch pot,umi,Returned,Student");
        package[$"{top}metadata/comments.json"].ShouldContain("Fine.");
        package[$"{top}metadata/assignments.csv"].ShouldContain("Pinch pot,Make one.,20");
        foreach (var table in (string[])["class", "roster", "folders", "items", "assignments", "marks", "comments", "notices"])
            package.Keys.ShouldContain($"{top}metadata/{table}.json");
    }

    [Fact]
    public async Task Each_student_takes_home_their_own_and_nothing_else()
    {
        await Filled();
        school.Close();

        using (var content = school.Loft.OpenTakeHome(school.Umi, school.Class).Content)
            Texts(content).Keys.ShouldBe(["index.html", "Clay 6B · period 3 · 2026–27/Pinch pot/pot.txt", "Clay 6B · period 3 · 2026–27/own folder/Hallgrímsson, Umi/sketch.txt"]);
        Refused(() => school.Loft.OpenTakeHome(school.Rúna, school.Class)).ShouldBe("not-found");
    }

    [Fact]
    public async Task Work_that_is_held_blocks_closing()
    {
        await school.HandIn(school.Umi, assignment);

        school.Closing.See(school.Class).Findings[0].Code.ShouldBe("held-unmarked");
        Refused(() => school.Closing.Close(school.Lead, school.Class, AfterArchive.View)).ShouldBe("closing-blocked");
        State.ShouldBe(ClassState.Open);
    }

    [Fact]
    public async Task A_class_that_somebody_changes_while_it_is_packed_is_not_archived()
    {
        await Filled();

        var run = school.Close(new AtPoint("Check:end", () => school.Put(school.Lead, "Papers", "late.txt", "late").Wait()));

        run.Classes.Single().State.ShouldBe(StepState.Failed);
        run.Classes.Single().Reason!.ShouldContain("changed the class while it was being packed");
        State.ShouldBe(ClassState.Open);
        school.Close().State.ShouldBe(StepState.Done);
        Package().Keys.ShouldContain(k => k.EndsWith("late.txt"));
    }

    [Fact]
    public async Task Work_handed_in_while_the_run_passes_keeps_the_class_open()
    {
        await Filled();

        var run = school.Close(new AtPoint("ArchivePackage:end", () => school.HandIn(school.Rúna, assignment).Wait()));

        run.State.ShouldBe(StepState.Failed);
        State.ShouldBe(ClassState.Open);
    }

    [Fact]
    public async Task A_file_that_is_missing_from_the_store_fails_the_class_by_name_and_is_mended_by_bringing_it_back()
    {
        await Filled();
        var sha = school.Read(c => Store.Workspaces.ItemStore.OfClass(c, school.Class)).First(i => i.Name == "plan.txt").Sha256!;
        var path = school.Premises.Files.PathOf(sha);
        File.Move(path, path + ".away");

        school.Close().Classes.Single().Reason!.ShouldContain("missing from the file store");
        State.ShouldBe(ClassState.Open);

        File.Move(path + ".away", path);
        school.Close().State.ShouldBe(StepState.Done);
    }

    [Fact]
    public async Task A_file_gone_bad_in_the_store_is_found_by_the_check_and_named()
    {
        await Filled();
        var sha = school.Read(c => Store.Workspaces.ItemStore.OfClass(c, school.Class)).First(i => i.Name == "plan.txt").Sha256!;
        File.WriteAllText(school.Premises.Files.PathOf(sha), "the plam");

        var run = school.Close();

        run.Classes.Single().State.ShouldBe(StepState.Failed);
        run.Classes.Single().Reason!.ShouldStartWith("“plan.txt” is damaged on the disk.");
        State.ShouldBe(ClassState.Open);
        school.Loft.See(school.Coordinator).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_stop_parks_the_run_and_going_on_ends_with_the_same_package()
    {
        await Filled();
        var run = school.Closing.Close(school.Lead, school.Class, AfterArchive.View);
        Should.Throw<OperationCanceledException>(() => school.Go(run, new AtPoint("ArchivePackage:end", () => throw new OperationCanceledException())));
        school.Closing.See(school.Class, run).State.ShouldBe(StepState.Working);

        school.Go(run).State.ShouldBe(StepState.Done);

        State.ShouldBe(ClassState.Archived);
    }

    [Fact]
    public async Task An_archived_class_is_read_only_for_all_and_restored_as_it_was()
    {
        await Filled();
        var before = school.Workspace.See(school.Umi, school.Class);
        school.Close();

        (await Refused(() => school.Put(school.Lead, "Papers", "x.txt", "x"))).ShouldBe("class-archived");
        Refused(() => school.Roster.Enroll(school.Coordinator, school.Class, [school.Outsider.Id], ClassRole.Student)).ShouldBe("class-archived");
        Refused(() => school.Work.HandIn(school.Umi, school.Class, assignment)).ShouldBe("class-archived");
        Refused(() => new App.Workspaces.Notices(school.Premises).Post(school.Lead, new("x", [school.Class], null, false, null, null))).ShouldBe("class-archived");
        school.Workspace.See(school.Umi, school.Class).Folders.ShouldAllBe(f => f.Right == Right.View);

        App.Closing.RunClassView Run() => school.Closing.See(school.Class, school.Closing.See(school.Class).Run!.Value).Classes.Single();
        Run().ShouldSatisfyAllConditions(k => k.Restored.ShouldBeFalse(), k => k.Steps[^1].Detail.ShouldBe("stands in the loft, read-only"));
        school.Loft.Restore(school.Lead, school.Class, school.Workspace.Head(school.Lead, school.Class).Version);
        Run().ShouldSatisfyAllConditions(k => k.Restored.ShouldBeTrue(), k => k.Steps[^1].Detail.ShouldBe("stood in the loft until it was restored"));

        var after = school.Workspace.See(school.Umi, school.Class);
        after.Folders.Select(f => (f.Name, f.Right)).ShouldBe(before.Folders.Select(f => (f.Name, f.Right)));
        after.Items.Select(i => i.Name).ShouldBe(before.Items.Select(i => i.Name));
        after.Assignments.Select(a => (a.Title, a.Own!.State)).ShouldBe(before.Assignments.Select(a => (a.Title, a.Own!.State)));
    }

    [Fact]
    public async Task The_loft_shows_a_teacher_their_own_and_a_coordinator_all()
    {
        await Filled();
        school.Close();

        school.Loft.See(school.OtherTeacher).ShouldBeEmpty();
        school.Loft.See(school.Lead).Single().Classes.Single().MayRestore.ShouldBeTrue();
        school.Loft.See(school.CoTeacher).Single().Classes.Single().MayRestore.ShouldBeFalse();
        school.Loft.See(school.Coordinator).Count.ShouldBe(1);
    }

    [Fact]
    public async Task The_desk_says_beforehand_how_many_files_the_package_will_hold()
    {
        await Filled();
        var said = school.Closing.See(school.Class);

        school.Close();

        var inPackage = Package().Keys.Count(k => k.Contains("/data/") && !k.EndsWith('/') && !k.Contains("/metadata/"));
        said.Files.ShouldBe(inPackage);
        said.Bytes.ShouldBe("the plan".Length + "a sketch".Length + "umi's pot".Length);
    }
}
