using CsCheck;
using SpringLoft.App.Rollover;
using SpringLoft.Core.Closing;
using SpringLoft.Core.Rollover;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Rosters;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Rollover;

public class RollingManyTests : SchoolTest
{
    public RollingManyTests()
    {
        school.OpenClass();
        school.Put(school.Lead, "Papers", "plan.txt", "the plan").Wait();
        school.Put(school.Umi, "Shared table", "umi's.txt", "x").Wait();
        school.Assign(folders: ["Papers"]);
    }

    private RollLine Line(string? section = null, PersonId? lead = null, params ClassId[] from) => new(from.Length == 0 ? [school.Class] : from, section, null, lead);

    private RollDraft Draft(params RollLine[] lines) => new(null, lines, new());

    private RollRunView Roll(RollDraft draft, Caller? by = null)
    {
        var run = school.RollingMany.Begin(by ?? school.Lead, draft);
        school.RollingMany.Go(run, CancellationToken.None);
        return school.RollingMany.See(by ?? school.Lead, run);
    }

    private ClassId Another(string section, params (string Folder, string Name, string Text)[] files)
    {
        var id = school.Making.Make(school.Lead, school.New("Clay", section));
        foreach (var (folder, name, text) in files)
            school.Items.AddFile(school.Lead, id, school.Workspace.See(school.Lead, id).Folders.First(f => f.Name == folder).Id, name, TinySchool.Bytes(text), CancellationToken.None).Wait();
        return id;
    }

    [Fact]
    public void Last_year_stands_beside_next_year()
    {
        Roll(Draft(Line()));

        school.RollingMany.See(school.Lead, school.Years[0].Id).ShouldSatisfyAllConditions(d => d.NextLabel.ShouldBe("2027–28"), d => d.Classes.ShouldHaveSingleItem().Made.ShouldHaveSingleItem().Name.ShouldBe("Clay 6B · period 3 · 2027–28"));
        school.RollingMany.See(school.OtherTeacher, school.Years[0].Id).Classes.ShouldBeEmpty();
    }

    [Fact]
    public void The_preview_says_what_the_run_then_makes_and_parity_explains_every_difference()
    {
        var preview = school.RollingMany.Preview(school.Lead, Draft(Line())).ShouldHaveSingleItem();

        var done = Roll(Draft(Line())).Lines.ShouldHaveSingleItem();

        done.Name.ShouldBe(preview.Name);
        done.Parity.ShouldAllBe(p => p.Even);
        done.Parity.Single(p => p.What == "Folders").Here.ShouldBe(preview.Folders + preview.PlanAdds);
        done.Parity.Single(p => p.What == "Files, links and pages").ShouldSatisfyAllConditions(p => p.There.ShouldBe(2), p => p.Here.ShouldBe(1), p => p.Explained.ShouldBe(["1 fewer: put in by students"]));
        preview.Tree.Select(t => t.Name).ShouldContain("Papers");
    }

    [Fact]
    public void One_class_becomes_several()
    {
        Roll(Draft(Line("6B"), Line("6C"))).Lines.Select(l => l.Name).ShouldBe(["Clay 6B · period 3 · 2027–28", "Clay 6C · period 3 · 2027–28"]);
    }

    [Fact]
    public void Several_become_one_and_what_is_the_same_in_both_stands_once()
    {
        var other = Another("6C", ("Papers", "plan.txt", "the plan"), ("Papers", "more.txt", "more"));

        var done = Roll(Draft(Line(null, null, school.Class, other))).Lines.ShouldHaveSingleItem();

        var made = done.Made!.Value;
        school.Read(c => ItemStore.OfClass(c, made)).Select(i => i.Name).ShouldBe(["more.txt", "plan.txt"]);
        school.Workspace.See(school.Lead, made).Folders.Count(f => f.Name == "Papers").ShouldBe(1);
        done.Parity.ShouldAllBe(p => p.Even);
    }

    [Fact]
    public async Task When_several_become_one_nobody_sees_what_only_staff_saw_and_nothing_is_lost_for_its_name()
    {
        var other = Another("6C");
        var arranging = new App.Workspaces.Arranging(school.Premises);
        var answers = arranging.Make(school.Lead, school.Class, new("Answers", null, FolderRule.ClassViews, null, 0));
        var secret = arranging.Make(school.Lead, other, new("Answers", null, FolderRule.StaffOnly, null, 0));
        await school.Items.AddFile(school.Lead, other, secret, "answers.txt", TinySchool.Bytes("42"), CancellationToken.None);
        school.Assigning.Make(school.Lead, school.Class, new("Essay", "on clay", 10, null, null, null, [answers], null, Publish: false, PublishAt: null));
        school.Assigning.Make(school.Lead, other, new("Essay", "on glass", 10, null, null, null, [secret], null, Publish: false, PublishAt: null));
        var draft = Draft(Line(null, null, school.Class, other));
        var preview = school.RollingMany.Preview(school.Lead, draft)[0];

        var done = Roll(draft).Lines.ShouldHaveSingleItem();

        var made = done.Made!.Value;
        var folders = school.Read(c => FolderStore.OfClass(c, made));
        folders.Where(f => f.Name.StartsWith("Answers")).Select(f => (f.Name, f.Rule)).ShouldBe([("Answers", FolderRule.ClassViews), ("Answers (6C)", FolderRule.StaffOnly)], ignoreOrder: true);
        var things = school.Read(c => ItemStore.OfClass(c, made));
        var answersFiled = school.Read(c => ItemStore.Filings(c, made)).Where(f => f.Item == things.Single(i => i.Name == "answers.txt").Id).Select(f => folders.Single(x => x.Id == f.Folder).Rule);
        answersFiled.ShouldBe([FolderRule.StaffOnly]);
        school.Read(c => AssignmentStore.OfClass(c, made)).Select(a => (a.Title, a.Instructions)).ShouldBe([("Essay", "on clay"), ("Essay (6C)", "on glass"), ("Pinch pot", "Make one.")], ignoreOrder: true);
        // What was shown before is what was made.
        (preview.Folders + preview.PlanAdds, preview.Things, preview.Assignments).ShouldBe((folders.Count, things.Count, 3));
        done.Parity.ShouldAllBe(p => p.Even);
    }

    [Fact]
    public void What_is_the_same_in_two_classes_stands_where_it_stood_in_each()
    {
        var other = Another("6C");
        foreach (var (id, folder) in new[] { (school.Class, "Papers"), (other, "Start here") })
            school.Assigning.Make(school.Lead, id, new("Kiln log", "every day", 10, null, null, null, [school.Workspace.See(school.Lead, id).Folders.First(f => f.Name == folder).Id], null, Publish: false, PublishAt: null));

        var made = Roll(Draft(Line(null, null, school.Class, other))).Lines[0].Made!.Value;

        var log = school.Read(c => AssignmentStore.OfClass(c, made)).Single(a => a.Title == "Kiln log");
        var names = school.Read(c => FolderStore.OfClass(c, made)).ToDictionary(f => f.Id, f => f.Name);
        school.Read(c => AssignmentStore.Filings(c, made))[log.Id].Select(f => names[f]).ShouldBe(["Papers", "Start here"], ignoreOrder: true);
    }

    [Fact]
    public void Of_two_places_to_talk_in_one_folder_the_first_stays_as_it_is()
    {
        var other = Another("6C");
        foreach (var (id, question) in new[] { (school.Class, "What did you see?"), (other, "What else?") })
            school.Premises.Db.Write(c => TalkStore.Put(c, id, new TalkRow { FolderId = school.Workspace.See(school.Lead, id).Folders.First(f => f.Name == "Papers").Id, Writers = TalkWriters.Readers, Question = question }));

        var made = Roll(Draft(Line(null, null, school.Class, other))).Lines[0].Made!.Value;

        school.Read(c => TalkStore.OfClass(c, made)).ShouldHaveSingleItem().Question.ShouldBe("What did you see?");
    }

    [Fact]
    public void What_does_not_come_is_named_with_whose_it_is_and_why()
    {
        var item = school.Read(c => ItemStore.OfClass(c, school.Class)).First(i => i.Name == "plan.txt");
        school.Items.SetMayCopy(school.Lead, school.Class, item.Id, false);

        var lead = school.Read(c => Store.People.PersonStore.Find(c, school.Lead.Id))!.Name.Display;
        school.RollingMany.Preview(school.Lead, Draft(Line()))[0].ShouldSatisfyAllConditions(
            p => p.Staying.Select(t => (t.Name, t.Whose, t.Where, t.Why)).ShouldBe([("plan.txt", lead, "Papers", StaysWhy.NoRight)]), p => p.StayingInAll.ShouldBe(1));
        // On the class's own desk those of students are named too.
        new RollingOver(school.Premises).Preview(school.Class, new(null, null, null)).Staying.Select(t => (t.Name, t.Why)).ShouldBe([("plan.txt", StaysWhy.NoRight), ("umi's.txt", StaysWhy.OfStudent)], ignoreOrder: true);
    }

    [Fact]
    public void Two_lines_of_one_name_are_told_before_and_the_second_fails_alone()
    {
        var draft = Draft(Line(), Line());

        school.RollingMany.Preview(school.Lead, draft)[1].Refused.ShouldNotBeNull().ShouldContain("Another line");
        var done = Roll(draft);
        done.State.ShouldBe(StepState.Failed);
        done.Lines[0].State.ShouldBe(StepState.Done);
        done.Lines[1].Reason.ShouldNotBeNull().ShouldContain("already a class");
    }

    [Fact]
    public void The_coordinator_gives_a_class_to_another_teacher_and_a_teacher_does_not()
    {
        Refused(() => school.RollingMany.Begin(school.Lead, Draft(Line(lead: school.OtherTeacher.Id)))).ShouldBe("not-allowed");
        Refused(() => school.RollingMany.Begin(school.OtherTeacher, Draft(Line()))).ShouldBe("not-found");
        Refused(() => school.RollingMany.Begin(school.Lead, Draft())).ShouldBe("classes-none");

        var made = Roll(Draft(Line(lead: school.OtherTeacher.Id)), school.Coordinator).Lines[0].Made!.Value;

        school.Read(c => RosterStore.Members(c, made)).ShouldHaveSingleItem().PersonId.ShouldBe(school.OtherTeacher.Id);
        school.Workspace.Head(school.Coordinator, made).TeacherShown.ShouldBe("Ngozi Castellan");
    }

    [Fact]
    public void Dates_move_by_school_week_and_each_says_why()
    {
        var due = school.Years[0].Year.First.PlusDays(9);
        school.Assigning.Make(school.Lead, school.Class, new("Coil pot", "x", 10, due, null, null, [school.FolderNamed("Papers")], null, Publish: true, PublishAt: null));
        var draft = Draft(Line()) with { Choice = new(Dates: CarriedDates.BySchoolWeek, MarkingScheme: false) };

        var date = school.RollingMany.Preview(school.Lead, draft)[0].Dates.ShouldHaveSingleItem();
        var made = Roll(draft).Lines[0].Made!.Value;

        date.Moved.Why.ShouldContain("school week");
        school.Read(c => AssignmentStore.OfClass(c, made)).Single(a => a.Title == "Coil pot").ShouldSatisfyAllConditions(a => a.DueOn.ShouldBe(date.Moved.Will), a => a.Points.ShouldBeNull(), a => a.PublishedAt.ShouldBeNull());
    }

    [Fact]
    public void Things_without_the_right_to_copy_are_left_behind_and_listed()
    {
        var item = school.Read(c => ItemStore.OfClass(c, school.Class)).First(i => i.Name == "plan.txt");
        school.Items.SetMayCopy(school.Lead, school.Class, item.Id, false);

        school.RollingMany.Preview(school.Lead, Draft(Line()))[0].Lines.Single(l => l.What == "Things without the right to copy").Stays.ShouldBe(1);
        var done = Roll(Draft(Line())).Lines[0];
        school.Read(c => ItemStore.OfClass(c, done.Made!.Value)).ShouldBeEmpty();
        done.Parity.Single(p => p.What == "Files, links and pages").ShouldSatisfyAllConditions(p => p.Even.ShouldBeTrue(), p => p.Explained.ShouldContain("1 fewer: without the right to copy"));
    }

    [Fact]
    public async Task A_class_with_an_open_shelf_is_not_undone_and_says_so()
    {
        await school.Put(school.Lead, "Papers", "syllabus.txt", "what we read");
        var run = Roll(Draft(Line("6B")));
        var made = run.Lines[0].Made!.Value;
        var papers = school.Workspace.See(school.Lead, made).Folders.First(f => f.Name == "Papers").Id;
        new App.Closing.OpenShelf(school.Premises, new(school.Premises)).Set(school.Lead, made, new("Before school", "", school.Premises.Clock.Today.PlusDays(20), [papers], null, null));

        Should.Throw<RefusedException>(() => school.RollingMany.Undo(school.Lead, run.Id, 0)).Refusal.ShouldSatisfyAllConditions(r => r.Code.ShouldBe("roll-used"), r => r.What.ShouldContain("an open shelf was set in it"));
    }

    [Fact]
    public void Undone_while_nothing_was_added_and_refused_after_that()
    {
        var run = Roll(Draft(Line("6B"), Line("6C")));
        var before = school.Read(c => Dapper.SqlMapper.ExecuteScalar<long>(c, "SELECT count(*) FROM folder"));
        school.Roster.Enroll(school.Lead, run.Lines[1].Made!.Value, [school.Umi.Id], ClassRole.Student);

        school.RollingMany.Undo(school.Lead, run.Id, 0);

        school.RollingMany.See(school.Lead, run.Id).Lines[0].Undone.ShouldBeTrue();
        school.Read(c => ClassStore.Find(c, run.Lines[0].Made!.Value)).ShouldBeNull();
        school.Read(c => Dapper.SqlMapper.ExecuteScalar<long>(c, "SELECT count(*) FROM folder")).ShouldBeLessThan(before);
        school.Read(c => Dapper.SqlMapper.Query<string>(c, "PRAGMA foreign_key_check").ToList()).ShouldBeEmpty();
        Should.Throw<RefusedException>(() => school.RollingMany.Undo(school.Lead, run.Id, 1)).Refusal.ShouldSatisfyAllConditions(r => r.Code.ShouldBe("roll-used"), r => r.What.ShouldContain("folders were added"));
        Roll(Draft(Line("6B"))).Lines[0].State.ShouldBe(StepState.Done, "undone, its name is free again");
    }

    [Fact]
    public void A_killed_run_goes_on_with_the_lines_that_are_left_and_doubles_nothing()
    {
        var draft = Draft([.. Enumerable.Range(1, 45).Select(i => Line($"S{i}"))]);
        var run = school.RollingMany.Begin(school.Lead, draft);
        var killed = new RollingMany(school.Premises, school.Queue.Writer, new AtPoint("RollOver:some", () => throw new InvalidOperationException("killed")));
        Should.Throw<InvalidOperationException>(() => killed.Go(run, CancellationToken.None));

        school.RollingMany.Go(run, CancellationToken.None);

        school.RollingMany.See(school.Lead, run).Lines.ShouldAllBe(l => l.State == StepState.Done);
        school.Read(c => ClassStore.OfYear(c, school.Years[1].Id)).Count.ShouldBe(45);
    }

    [Fact]
    public void A_year_that_is_not_laid_down_is_told()
    {
        var last = school.Read(Store.Years.YearStore.All)[^1];
        var far = Roll(Draft(Line())).Lines[0].Made!.Value;
        if (school.Workspace.Head(school.Lead, far).Year != last.Id) return;

        school.RollingMany.Preview(school.Lead, Draft(Line(null, null, far)))[0].Refused.ShouldNotBeNull().ShouldContain("no school year after");
    }

    [Fact]
    public void Rolled_over_twice_the_structure_is_the_same_as_rolled_over_once() =>
        Gen.Select(Gen.Int[0, 4], Gen.Int[0, 3], Gen.Bool).Array[0, 6].Sample(steps =>
        {
            using var s = new TinySchool();
            s.Premises.Db.Write(c => Store.Years.YearStore.Add(c, Core.Years.CalendarChange.YearOn(s.Years[^1].Year, "2098–99")));
            foreach (var (kind, n, top) in steps)
            {
                var parent = top ? (FolderId?)null : s.FolderNamed("Papers");
                if (kind < 3) new App.Workspaces.Arranging(s.Premises).Make(s.Lead, s.Class, new($"Folder {kind}{n}{top}{Guid.NewGuid():N}"[..18], parent, FolderRule.ClassViews, null, 0));
                else s.Put(s.Lead, "Papers", $"f{n}.txt", $"{n}").Wait();
            }
            RollRunView Go(ClassId from)
            {
                var run = s.RollingMany.Begin(s.Lead, new(null, [new([from], null, null, null)], new()));
                s.RollingMany.Go(run, CancellationToken.None);
                return s.RollingMany.See(s.Lead, run);
            }
            string Shape(ClassId id) => s.Read(c =>
            {
                var folders = FolderStore.OfClass(c, id).ToDictionary(f => f.Id);
                string Path(FolderRow f) => f.ParentId is { } p ? $"{Path(folders[p])}/{f.Name}" : f.Name;
                var items = ItemStore.OfClass(c, id).ToDictionary(i => i.Id, i => i.Name);
                return string.Join('\n', folders.Values.Select(f => $"{Path(f)} {f.Rule} {f.Position} {f.PlanKey}").Concat(ItemStore.Filings(c, id).Select(f => $"{Path(folders[f.Folder])}/{items[f.Item]}")).Order(StringComparer.Ordinal));
            });
            var once = Go(s.Class).Lines[0].Made!.Value;
            var twice = Go(once).Lines[0];
            twice.Parity.ShouldAllBe(p => p.Even);
            Shape(twice.Made!.Value).ShouldBe(Shape(once));
        }, iter: 12, threads: 1);

    [Fact]
    public async Task A_structure_leaves_as_a_file_and_arrives_whole_once()
    {
        school.Items.AddLink(school.Lead, school.Class, school.FolderNamed("Papers"), "Kiln", "https://kiln.example/");
        await school.Items.AddPage(school.Lead, school.Class, school.FolderNamed("Start here"), "How we work", "*Clean* tables.", CancellationToken.None);
        var files = new StructureFiles(school.Premises);
        var text = System.Text.Json.JsonSerializer.Serialize(files.Write(school.Class));
        var file = System.Text.Json.JsonSerializer.Deserialize<StructureFile>(text)!;
        var to = school.Making.Make(school.Lead, new(school.Years[0].Id, "Glass", "7A", "1", null, null, null));

        var preview = files.Take(school.Lead, to, file, apply: false);
        files.Take(school.Lead, to, file, apply: true).ShouldBe(preview);

        preview.ShouldBe(new StructureTaken(file.Folders.Count, 2, 1, 0, 0));
        files.Write(to).Folders.Select(f => string.Join('/', f.Path)).ShouldBe(file.Folders.Select(f => string.Join('/', f.Path)), ignoreOrder: true);
        files.Write(to).Things.Select(t => (t.Title, t.Address, t.Text)).ShouldBe(file.Things.Select(t => (t.Title, t.Address, t.Text)), ignoreOrder: true);
        school.Read(c => AssignmentStore.OfClass(c, to)).ShouldHaveSingleItem().PublishedAt.ShouldBeNull();
        files.Take(school.Lead, to, file, apply: true).ShouldBe(new StructureTaken(0, 0, 0, 0, file.Folders.Count + 3), "taken in twice nothing doubles");
        Refused(() => files.Take(school.Lead, to, file with { Version = 2 }, true)).ShouldBe("structure-wrong");
        Refused(() => files.Take(school.Lead, to, file with { Folders = [new(["A", "B"], FolderRule.ClassViews)] }, true)).ShouldBe("structure-wrong");
        Refused(() => files.Take(school.Lead, to, file with { Things = [new("Bad", "javascript:alert(1)", null, [])] }, true)).ShouldBe("structure-wrong");
    }
}
