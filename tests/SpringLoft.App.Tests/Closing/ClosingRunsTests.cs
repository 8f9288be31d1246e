using System.Text;
using Microsoft.Extensions.Logging.Abstractions;
using SpringLoft.App.Assignments;
using SpringLoft.App.Closing;
using SpringLoft.App.Workspaces;
using SpringLoft.App.Years;
using SpringLoft.Core.Assignments;
using SpringLoft.Core.Closing;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Files;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Closing;

public class ClosingRunsTests : SchoolTest
{
    private readonly List<ClassId> classes;

    public ClosingRunsTests()
    {
        school.OpenClass();
        classes = [school.Class, .. new[] { "7A", "7B", "7C" }.Select(Open)];
    }

    private ClassId Open(string section)
    {
        var id = school.Making.Make(school.Lead, school.New("Tides", section));
        school.Roster.Enroll(school.Lead, id, [school.Umi.Id], ClassRole.Student);
        school.Making.Open(school.Lead, id, school.Workspace.Head(school.Lead, id).Version);
        var folder = school.Workspace.See(school.Lead, id).Folders.First(f => f.Name == "Papers").Id;
        school.Items.AddFile(school.Lead, id, folder, $"{section}.txt", TinySchool.Bytes($"papers of {section}"), CancellationToken.None).GetAwaiter().GetResult();
        return id;
    }

    private static readonly ClosingOptions Plain = new(AfterArchive.View);

    private RunId Begin(ClosingOptions? options = null) => school.Runs.Begin(school.Coordinator, classes, options ?? Plain);

    private ClosingRunView Go(RunId run, IRunMilestones? at = null)
    {
        new ClosingRunner(school.Premises, new RunNews(), at ?? new NoMilestones(), NullLogger<ClosingRunner>.Instance, new(school.Premises)).Go(run, CancellationToken.None);
        return school.Runs.See(school.Coordinator, run);
    }

    private ClassState State(ClassId id) => school.Workspace.Head(school.Coordinator, id).State;

    private string Damage(ClassId id)
    {
        var sha = school.Read(c => ItemStore.OfClass(c, id)).First(i => i.Sha256 is not null).Sha256!;
        var path = school.Premises.Files.PathOf(sha);
        File.Move(path, path + ".gone");
        return path;
    }

    [Fact]
    public void A_disk_that_is_too_small_is_found_out_before_anything_is_packed()
    {
        var small = new Premises(school.Premises.Db, new FileStore(Path.Combine(school.Folder, "files"), () => ClosingRoom.Reserve + 1000), school.Premises.Clock);
        var runs = new ClosingRuns(small, new(), school.Queue.Writer);

        runs.Room(school.Coordinator, classes, Plain).ShouldSatisfyAllConditions(r => r.Fits.ShouldBeFalse(), r => r.Needed.ShouldBeGreaterThan(1000), r => r.Classes.ShouldBe(classes.Count));
        Refused(() => runs.Begin(school.Coordinator, classes, Plain)).ShouldBe("disk-too-small");
        Refused(() => new ClosingDesk(small, new(), school.Queue.Writer).Close(school.Lead, classes[1], AfterArchive.View)).ShouldBe("disk-too-small");

        school.Runs.See(school.Coordinator, null).Run.ShouldBeNull();
        State(classes[1]).ShouldBe(ClassState.Open);
    }

    [Fact]
    public void The_room_that_was_said_is_not_passed_and_the_next_run_knows_how_long_this_one_took()
    {
        var said = school.Runs.Room(school.Coordinator, classes, Plain);
        (said.Fits, said.Seconds).ShouldBe((true, null));
        var before = school.Premises.Files.All().Sum(sha => new FileInfo(school.Premises.Files.PathOf(sha)).Length);

        Go(Begin()).Verified.ShouldBe(classes.Count);

        (school.Premises.Files.All().Sum(sha => new FileInfo(school.Premises.Files.PathOf(sha)).Length) - before).ShouldBeInRange(1, said.Needed);
        school.Clock.AdvanceMinutes(1);
        school.Read(c => Store.Runs.RunStore.LastEnded(c, 5)).ShouldHaveSingleItem().Classes.ShouldBe(classes.Count);
    }

    [Fact]
    public async Task The_desk_counts_what_is_in_the_way_of_each_class()
    {
        var a = school.Assign();
        await school.HandIn(school.Umi, a);
        new ClassCalendars(school.Premises).Make(school.Lead, classes[1]);

        var desk = school.Runs.See(school.Coordinator, null);

        desk.Classes.Single(k => k.Id == school.Class).ShouldSatisfyAllConditions(k => k.Held.ShouldBe(1), k => k.OnlyCopies.ShouldBe(1), k => k.Level.ShouldBe(FindingLevel.Blocks));
        desk.Classes.Single(k => k.Id == classes[1]).ShouldSatisfyAllConditions(k => k.CalendarOn.ShouldBeTrue(), k => k.Level.ShouldBe(FindingLevel.Ready), k => k.NextYearMade.ShouldBeFalse());
        school.Runs.See(school.OtherTeacher, null).Classes.ShouldBeEmpty();
        school.Runs.See(school.CoTeacher, null).Classes.ShouldHaveSingleItem().Id.ShouldBe(school.Class);
    }

    [Fact]
    public async Task Work_of_which_the_student_has_a_copy_of_their_own_is_no_only_copy()
    {
        var a = school.Assign();
        await school.HandIn(school.Umi, a, "the same words");
        await school.Put(school.Umi, "Hallgrímsson, Umi", "mine.txt", "the same words");

        school.Runs.See(school.Coordinator, null).Classes.Single(k => k.Id == school.Class).OnlyCopies.ShouldBe(0);
    }

    [Fact]
    public async Task What_the_plan_says_is_what_the_run_does()
    {
        await school.HandIn(school.Umi, school.Assign());
        var plan = school.Runs.Plan(school.Coordinator, classes, Plain);

        var view = Go(Begin());

        (plan.Closes, plan.Skips).ShouldBe((3, 1));
        (view.Verified, view.Skipped, view.Failed).ShouldBe((3, 1, 0));
        var report = school.Runs.Report(school.Coordinator, view.Id);
        report.Where(r => r.State == StepState.Skipped).ShouldHaveSingleItem().Reason.ShouldNotBeNull().ShouldContain("held by the teacher");
        report.Where(r => r.State == StepState.Done).ShouldAllBe(r => r.VerifiedAt != null && r.Fingerprint!.Length == 64);
        // Besides its own papers a package holds the tables.
        foreach (var p in plan.Classes.Where(p => p.Skipped is null)) report.Single(r => r.Id == p.Id).Files.ShouldBeGreaterThanOrEqualTo(p.Files);
        State(school.Class).ShouldBe(ClassState.Open);
        classes.Skip(1).ShouldAllBe(k => State(k) == ClassState.Archived);
    }

    [Fact]
    public void A_file_gone_bad_fails_its_class_by_name_and_the_others_go_on_then_it_is_tried_again_alone()
    {
        var path = Damage(classes[2]);

        var view = Go(Begin());

        (view.Verified, view.Failed, view.State).ShouldBe((3, 1, StepState.Failed));
        school.Runs.Report(school.Coordinator, view.Id).Single(r => r.State == StepState.Failed).ShouldSatisfyAllConditions(r => r.Id.ShouldBe(classes[2]), r => r.Reason!.ShouldContain("missing from the file store"));
        File.Move(path + ".gone", path);

        var again = Go(school.Runs.TryAgain(school.Coordinator, view.Id));

        (again.Classes, again.Verified).ShouldBe((1, 1));
        Refused(() => school.Runs.TryAgain(school.Coordinator, again.Id)).ShouldBe("run-none-failed");
    }

    [Fact]
    public void A_pause_holds_the_run_where_it_is_and_it_goes_on_to_the_same_end()
    {
        var run = Begin();
        var once = true;

        var held = Go(run, new AtPoint("Archive:end", () => { if (once) school.Runs.Wish(school.Coordinator, run, RunWish.Pause); once = false; }));

        (held.State, held.Wish, held.Verified).ShouldBe((StepState.Working, RunWish.Pause, 1));
        Go(run).Verified.ShouldBe(1, "it waits for a person, also after a restart");
        school.Read(Store.Runs.RunStore.Unfinished).ShouldBeEmpty();
        school.Runs.Wish(school.Coordinator, run, RunWish.GoOn);
        Go(run).ShouldSatisfyAllConditions(v => v.Verified.ShouldBe(4), v => v.State.ShouldBe(StepState.Done));
        Refused(() => school.Runs.Wish(school.Coordinator, run, RunWish.Pause)).ShouldBe("run-ended");
    }

    [Fact]
    public void Stopped_after_a_class_it_passes_over_the_rest_and_says_so()
    {
        var run = Begin();

        var view = Go(run, new AtPoint("Check:begin", () => school.Runs.Wish(school.Coordinator, run, RunWish.StopAfterClass)));

        (view.Verified, view.Skipped, view.State).ShouldBe((1, 3, StepState.Done));
        school.Runs.Report(school.Coordinator, run)[^1].Reason.ShouldNotBeNull().ShouldContain("stopped after “Clay 6B");
        school.Runs.Plan(school.Coordinator, classes, Plain).Closes.ShouldBe(3, "those may be closed in another run");
    }

    // More than eight classes are closed two at a time.
    private void TwelveClasses() => classes.AddRange(Enumerable.Range(1, 8).Select(i => Open($"8{(char)('A' + i)}")));

    private string Packages() => school.Read(c => Dapper.SqlMapper.ExecuteScalar<string>(c, "SELECT group_concat(class_id || kind || ifnull(student_id, '') || sha256 ORDER BY class_id, kind, student_id) FROM package"))!;

    [Fact]
    public void Two_at_a_time_the_packages_are_the_same_as_one_by_one_and_a_class_that_fails_fails_alone()
    {
        TwelveClasses();
        var path = Damage(classes[5]);

        var view = Go(Begin());

        (view.Verified, view.Failed, view.State).ShouldBe((11, 1, StepState.Failed));
        school.Runs.Report(school.Coordinator, view.Id).Single(r => r.State == StepState.Failed).Id.ShouldBe(classes[5]);
        var made = Packages();
        File.Move(path + ".gone", path);
        school.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "UPDATE class SET state = 'Open', archived_at = NULL WHERE state = 'Archived'; DELETE FROM package"));
        var at = school.Read(c => Store.Runs.RunStore.Find(c, view.Id))!.StartedAt;
        foreach (var k in classes.Where(k => k != classes[5]))
        {
            var alone = school.Runs.Begin(school.Coordinator, [k], Plain);
            school.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "UPDATE run SET started_at = @at WHERE id = @alone", new { at, alone = alone.Value }));
            Go(alone).Verified.ShouldBe(1);
        }
        Packages().ShouldBe(made);
    }

    [Fact]
    public void Two_at_a_time_a_pause_holds_both_and_both_go_on()
    {
        TwelveClasses();
        var run = Begin();
        var archived = 0;

        var held = Go(run, new AtPoint("Archive:end", () => { if (Interlocked.Increment(ref archived) == 4) school.Runs.Wish(school.Coordinator, run, RunWish.Pause); }));

        held.Verified.ShouldBeInRange(4, 5);
        held.State.ShouldBe(StepState.Working);
        school.Runs.Wish(school.Coordinator, run, RunWish.GoOn);
        Go(run).ShouldSatisfyAllConditions(v => v.Verified.ShouldBe(12), v => v.State.ShouldBe(StepState.Done));
    }

    [Fact]
    public void Two_at_a_time_those_that_were_begun_are_finished_when_it_is_to_stop_and_the_rest_is_passed_over()
    {
        TwelveClasses();
        var run = Begin();
        var checking = 0;

        var view = Go(run, new AtPoint("Check:begin", () => { if (Interlocked.Increment(ref checking) == 3) school.Runs.Wish(school.Coordinator, run, RunWish.StopAfterClass); }));

        view.Verified.ShouldBeInRange(3, 4);
        (view.Verified + view.Skipped, view.State).ShouldBe((12, StepState.Done));
    }

    [Fact]
    public void Two_at_a_time_a_stop_parks_the_run_and_nothing_is_half_done()
    {
        TwelveClasses();
        var run = Begin();
        using var stop = new CancellationTokenSource();
        var begun = 0;

        Should.Throw<OperationCanceledException>(() => new ClosingRunner(school.Premises, new RunNews(), new AtPoint("ArchivePackage:written", () => { if (Interlocked.Increment(ref begun) == 5) stop.Cancel(); }), NullLogger<ClosingRunner>.Instance, new(school.Premises)).Go(run, stop.Token));

        classes.Count(k => State(k) == ClassState.Archived).ShouldBeInRange(3, 5);
        Directory.GetFiles(Path.Combine(school.Folder, "files", "incoming")).ShouldBeEmpty();
        Go(run).Verified.ShouldBe(12);
    }

    [Fact]
    public async Task A_student_who_hands_in_while_the_run_passes_stops_that_class_and_nothing_is_lost()
    {
        var a = school.Assign();
        await school.Work.AddFile(school.Umi, school.Class, a, "pot.txt", TinySchool.Bytes("late"), CancellationToken.None);

        var view = Go(Begin(), new AtPoint("Check:end", () => { if (school.Read(c => WorkStore.Of(c, a, school.Umi.Id))!.State == WorkState.Working) school.Work.HandIn(school.Umi, school.Class, a); }));

        (view.Verified, view.Failed).ShouldBe((3, 1));
        State(school.Class).ShouldBe(ClassState.Open);
        school.Returns.See(school.Coordinator, school.Class).Held.ShouldBe(1);
    }

    [Fact]
    public void Two_coordinators_at_once_never_close_a_class_twice()
    {
        Begin();

        school.Runs.Plan(school.Coordinator, classes, Plain).Classes.ShouldAllBe(k => k.Skipped!.Contains("A closing run is at work"));
        Refused(() => Begin()).ShouldBe("closing-blocked");
    }

    [Fact]
    public void Nobody_closes_what_is_not_theirs()
    {
        Refused(() => school.Runs.Begin(school.OtherTeacher, classes, Plain)).ShouldBe("not-found");
        Refused(() => school.Runs.Begin(school.CoTeacher, [school.Class], Plain)).ShouldBe("not-found");
        Refused(() => school.Runs.Begin(school.Coordinator, [], Plain)).ShouldBe("classes-none");
        var run = Begin();
        Refused(() => school.Runs.See(school.Lead, run)).ShouldBe("not-found");
    }

    [Fact]
    public void All_options_are_done_and_restoring_undoes_every_one()
    {
        var calendar = new ClassCalendars(school.Premises).Make(school.Lead, school.Class);
        school.Premises.Db.Write(c => ClassStore.Rename(c, [(school.Class, "Clay")]));
        var before = Dump();
        school.Clock.AdvanceHours(1);

        Go(school.Runs.Begin(school.Coordinator, [school.Class], new(AfterArchive.Nothing, true, true, true, true))).Verified.ShouldBe(1);

        school.Workspace.Head(school.Coordinator, school.Class).ShouldSatisfyAllConditions(h => h.Name.ShouldBe("Clay · 2026–27"), h => h.AfterArchive.ShouldBe(AfterArchive.Nothing), h => h.Students.ShouldBe(0));
        Refused(() => new ClassCalendars(school.Premises).Feed(calendar)).ShouldBe("calendar-retired");
        new KeptCopies(school.Premises).Mine(school.Lead).ShouldHaveSingleItem().ShouldSatisfyAllConditions(k => k.FromName.ShouldBe("Clay · 2026–27"), k => k.Folders.ShouldBeGreaterThan(0));
        school.Loft.Restore(school.Lead, school.Class, school.Workspace.Head(school.Lead, school.Class).Version);
        Dump().ShouldBe(before);
    }

    // Everything of the class that people can see, in words.
    private string Dump() => school.Read(c => string.Join('\n', (string[])[
        ClassStore.Find(c, school.Class)! with { Version = 0, ArchivedAt = null, AfterArchive = AfterArchive.View } + "",
        .. RosterStore.Members(c, school.Class).Select(m => $"{m}"), .. FolderStore.OfClass(c, school.Class).Select(f => $"{f}"), .. ItemStore.OfClass(c, school.Class).Select(i => $"{i}"),
        .. AssignmentStore.OfClass(c, school.Class).Select(a => $"{a}"), .. WorkStore.OfClass(c, school.Class).Select(w => $"{w}")]));

    [Fact]
    public void The_report_is_a_table_that_no_spreadsheet_works_out()
    {
        school.Premises.Db.Write(c => ClassStore.Rename(c, [(classes[1], "=HYPERLINK(1)")]));
        var run = Begin();
        Go(run);

        using var content = school.Runs.ReportCsv(school.Coordinator, run).Content;
        var text = new StreamReader(content, Encoding.UTF8).ReadToEnd();

        text.ShouldStartWith("class,lead teacher,department,outcome,reason,take-homes");
        text.ShouldContain("'=HYPERLINK(1)");
        text.Split("\r\n", StringSplitOptions.RemoveEmptyEntries).Length.ShouldBe(5);
    }

    [Fact]
    public async Task Teachers_get_one_letter_each_about_what_is_not_ready()
    {
        await school.HandIn(school.Umi, school.Assign());

        school.Runs.TellTeachers(school.Coordinator, classes, "By Friday, please.").ShouldBe(1);

        school.Letters.ShouldHaveSingleItem().ShouldStartWith("lead@tiny.invalid: Clay 6B");
    }

    [Fact]
    public async Task Several_classes_are_returned_at_once_unmarked_work_only_on_a_yes()
    {
        var marked = school.Assign("Marked");
        await school.HandIn(school.Umi, marked);
        var row = school.Read(c => WorkStore.Of(c, marked, school.Umi.Id))!;
        school.Returns.Mark(school.Lead, school.Class, row.Id, 11, row.Version);
        await school.HandIn(school.Rúna, school.Assign("Unmarked"));
        var returning = new ReturningMany(school.Premises);

        returning.Preview(school.Coordinator, new(classes, null, false, null)).ShouldSatisfyAllConditions(p => p.Pieces.ShouldBe(1), p => p.DraftMarks.ShouldBe(1), p => p.Unmarked.ShouldBe(1));
        returning.Preview(school.Coordinator, new(classes, school.Rúna.Id, true, null)).Pieces.ShouldBe(1);
        returning.Do(school.Coordinator, new(classes, null, true, null), "Well done.").ShouldSatisfyAllConditions(p => p.Pieces.ShouldBe(2), p => p.Students.ShouldBe(2));
        school.Returns.See(school.Coordinator, school.Class).Held.ShouldBe(0);
        school.Read(c => WorkStore.CommentsOfWork(c, row.Id)).ShouldHaveSingleItem().Text.ShouldBe("Well done.");
        Refused(() => returning.Preview(school.OtherTeacher, new(classes, null, true, null))).ShouldBe("not-found");
    }
}
