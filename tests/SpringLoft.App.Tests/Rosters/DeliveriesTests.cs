using SpringLoft.App.Rosters;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Store.Rosters;

namespace SpringLoft.App.Tests.Rosters;

/// <summary>Deliveries from file to database and back.</summary>
public class DeliveriesTests : DeliveryTest
{
    [Fact]
    public async Task A_first_delivery_fills_the_school_and_the_same_again_changes_nothing()
    {
        var records = new Records(students: 30, classes: 3);
        var id = await Receive(records);
        var seen = deliveries.See(id);

        seen.Summary.Changes.ShouldBe(new Dictionary<ChangeKind, int> { [ChangeKind.NewPerson] = 31, [ChangeKind.NewClass] = 3, [ChangeKind.Joins] = 33 }, ignoreOrder: true);
        seen.Holds.ShouldBeEmpty();
        Apply(id).ShouldSatisfyAllConditions(a => a.Changes.ShouldBe(67), a => a.OnHold.ShouldBe(0), a => a.Folders.ShouldBeGreaterThan(30));
        var again = await Receive(records, "again.zip");

        deliveries.See(again).Summary.Changes.ShouldBeEmpty();
        deliveries.See(again).Same.ShouldBe(33);
        Refused(() => Apply(again)).ShouldBe("delivery-nothing");
        Refused(() => Apply(id)).ShouldBe("delivery-nothing");
    }

    [Fact]
    public async Task Classes_that_come_stand_with_their_teacher_their_plan_and_a_name_by_the_pattern()
    {
        Apply(await Receive(new Records(students: 4, classes: 1)));

        var k = school.Read(c => Store.Workspaces.ClassStore.OfYear(c, school.Years[0].Id)).Single(x => x.RecordId == "k0");
        (k.Name, k.TeacherShown, k.State).ShouldBe(("Course 0 S0 · period 1 · 2026–27", "Tea Cher", ClassState.InPreparation));
        school.Read(c => RosterStore.Members(c, k.Id)).Count(m => m.EnrolledBy == EnrolledBy.Feed).ShouldBe(5);
        school.Read(c => Store.Workspaces.FolderStore.OfClass(c, k.Id)).Count(f => f.StudentId is not null).ShouldBe(4);
    }

    [Fact]
    public async Task Taken_back_everything_stands_as_it_stood()
    {
        var records = new Records(students: 20, classes: 2);
        Apply(await Receive(records));
        var before = State();
        records.Gone(3).Moved(5, 1).Grade(7, "9").Added("Ne", "Wone");
        var second = await Receive(records, "second.zip");
        Apply(second);
        State().ShouldNotBe(before);

        var back = applying.TakeBack(school.Coordinator, second);

        back.Left.ShouldBeEmpty();
        State().ShouldBe(before);
    }

    [Fact]
    public async Task The_first_of_all_is_taken_back_to_the_empty_school()
    {
        var before = State();
        var id = await Receive(new Records(students: 12, classes: 2));
        Apply(id);
        applying.TakeBack(school.Coordinator, id).Left.ShouldBeEmpty();

        State().ShouldBe(before);
    }

    [Fact]
    public async Task A_class_that_a_plan_was_put_to_and_a_join_code_made_for_goes_with_the_delivery_that_brought_it()
    {
        var before = State();
        var id = await Receive(new Records(students: 4, classes: 1));
        Apply(id);
        var k = school.Read(c => Store.Workspaces.ClassStore.OfYear(c, school.Years[0].Id)).Single(x => x.RecordId == "k0");
        var putting = new App.Plans.PuttingPlans(school.Premises, school.Queue.Writer, new App.Closing.NoMilestones());
        var run = putting.Begin(school.Coordinator, school.Plan("Weeks, own folders and groups"), [k.Id]);
        putting.Go(run, CancellationToken.None);
        new Joining(school.Premises).Renew(school.Coordinator, k.Id, 5, null, false);

        applying.TakeBack(school.Coordinator, id).Left.ShouldBeEmpty();

        State().ShouldBe(before);
        Refused(() => putting.See(school.Coordinator, run)).ShouldBe("not-found");
    }

    [Fact]
    public async Task What_is_used_by_the_time_it_is_taken_back_stays_and_is_told()
    {
        var id = await Receive(new Records(students: 4, classes: 1));
        Apply(id);
        var k = school.Read(c => Store.Workspaces.ClassStore.OfYear(c, school.Years[0].Id)).Single(x => x.RecordId == "k0");
        school.Making.Open(school.Coordinator, k.Id, k.Version);

        applying.TakeBack(school.Coordinator, id).Left.ShouldContain(l => l.Contains(k.Name) && l.EndsWith("stays: it has been opened", StringComparison.Ordinal));
        school.Read(c => Store.Workspaces.ClassStore.Find(c, k.Id)).ShouldNotBeNull();
    }

    [Fact]
    public async Task A_place_that_somebody_changed_by_hand_since_stays_and_whether_its_student_may_post_is_not_touched()
    {
        var records = new Records(students: 20, classes: 2);
        Apply(await Receive(records));
        records.Gone(3).Moved(5, 1).Added("Ne", "Wone");
        var second = await Receive(records, "second.zip");
        Apply(second);
        var k = school.Read(c => Store.Workspaces.ClassStore.OfYear(c, school.Years[0].Id)).Where(x => x.RecordId is not null).Select(x => x.Id).ToList();
        List<(ClassId Class, MemberRow Row)> Members() => school.Read(c => k.SelectMany(id => RosterStore.Members(c, id).Select(m => (id, m))).ToList());
        var gone = Members().Where(m => m.Row.LeftAt is not null).ToList();
        var back = gone[0];
        school.Premises.Db.Write(c => RosterStore.Put(c, back.Class, back.Row.PersonId, ClassRole.Student, school.Premises.Clock.Now));
        var silent = Members().First(m => m.Row is { Role: ClassRole.Student, LeftAt: null } && m.Row.PersonId != back.Row.PersonId);
        school.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "UPDATE member SET may_post = 0 WHERE class_id = @k AND person_id = @p", new { k = silent.Class, p = silent.Row.PersonId }));

        var left = applying.TakeBack(school.Coordinator, second).Left;

        left.ShouldContain("1 place on a roster was changed by hand since and stays");
        var now = Members();
        now.Single(m => m.Class == back.Class && m.Row.PersonId == back.Row.PersonId).Row.EnrolledBy.ShouldBe(EnrolledBy.Hand);
        gone.Skip(1).ShouldAllBe(g => now.Single(m => m.Class == g.Class && m.Row.PersonId == g.Row.PersonId).Row.LeftAt == null);
        now.Single(m => m.Class == silent.Class && m.Row.PersonId == silent.Row.PersonId).Row.MayPost.ShouldBeFalse();
    }

    [Fact]
    public async Task Who_views_only_does_so_in_the_class_that_a_delivery_moves_them_to_and_taken_back_is_as_they_were()
    {
        var records = new Records(students: 40, classes: 2);
        Apply(await Receive(records));
        MemberBefore[] Places(PersonId p) => [.. school.Read(c => DeliveredStore.Before(c, [.. Store.Workspaces.ClassStore.OfYear(c, school.Years[0].Id).Select(k => (k.Id, p))])).Where(m => m.Existed)];
        var silent = school.Read(c => DeliveredStore.People(c)).Single(p => p.StudentNumber == "2005").Id;
        // Back and forth, so that a place is there already when they come to it again.
        for (var i = 0; i < 2; i++)
        {
            records.Moved(5, i);
            Apply(await Receive(records, $"move {i}.zip"));
        }
        Places(silent).Length.ShouldBe(2);
        var from = Places(silent).Single(m => m.LeftAt is null);
        school.Premises.Db.Write(c => RosterStore.SetMayPost(c, from.Class, silent, false));
        var before = State();

        records.Moved(5, 0);
        var moved = await Receive(records, "moved.zip");
        Apply(moved);

        Places(silent).Single(m => m.LeftAt is null).ShouldSatisfyAllConditions(m => m.Class.ShouldNotBe(from.Class), m => m.MayPost.ShouldBeFalse());
        applying.TakeBack(school.Coordinator, moved).Left.ShouldBeEmpty();
        State().ShouldBe(before);
        Places(silent).ToDictionary(m => m.Class, m => m.MayPost).ShouldSatisfyAllConditions(m => m[from.Class].ShouldBeFalse(), m => m.Count(x => x.Value).ShouldBe(1));
    }

    // Of each class that has any, how many changes wait.
    private IEnumerable<int> OnHold() => school.Read(c => Store.Closing.ClosingStore.Counts(c, school.Years[0].Id, school.Premises.Clock.Today, school.Premises.Clock.Now)).Values.Select(n => n.OnHold).Where(n => n > 0);

    [Fact]
    public async Task What_is_held_is_not_applied_until_somebody_says_yes()
    {
        var records = new Records(students: 20, classes: 1);
        Apply(await Receive(records));
        var before = State();
        for (var i = 0; i < 8; i++) records.Gone(i);
        records.Grade(19, "9");
        var id = await Receive(records, "less.zip");

        Apply(id).ShouldSatisfyAllConditions(a => a.Changes.ShouldBe(1), a => a.OnHold.ShouldBe(16));
        State().Split('\n').Except(before.Split('\n')).Count().ShouldBe(1);
        OnHold().ShouldBe([8]);
        foreach (var h in deliveries.See(id).Holds) deliveries.Decide(school.Coordinator, id, h.Key, HoldDecision.Yes, null);
        Apply(id).Changes.ShouldBe(16);
        OnHold().ShouldBeEmpty();
    }

    [Fact]
    public async Task A_yes_to_few_is_no_yes_to_more()
    {
        var records = new Records(students: 20, classes: 1);
        Apply(await Receive(records));
        for (var i = 0; i < 8; i++) records.Gone(i);
        var id = await Receive(records, "less.zip");
        foreach (var h in deliveries.See(id).Holds) deliveries.Decide(school.Coordinator, id, h.Key, HoldDecision.Yes, null);
        // Meanwhile others are taken off by hand: what is left of the class is less than was said.
        var k = school.Read(c => Store.Workspaces.ClassStore.OfYear(c, school.Years[0].Id)).Single(x => x.RecordId == "k0");
        school.Roster.RemoveMany(school.Coordinator, k.Id, [.. school.Roster.See(k.Id).Where(r => r.Role == ClassRole.Student).TakeLast(6).Select(r => r.Id)]);
        deliveries.Decide(school.Coordinator, id, deliveries.See(id).Holds[0].Key, HoldDecision.Yes, null);

        deliveries.See(id).Holds.ShouldContain(h => h.Kind == HoldKind.ClassLoses && h.Decision == HoldDecision.Waiting);
    }

    [Fact]
    public async Task A_no_leaves_it_undone()
    {
        var records = new Records(students: 20, classes: 1);
        Apply(await Receive(records));
        var before = State();
        for (var i = 0; i < 8; i++) records.Gone(i);
        var id = await Receive(records, "less.zip");
        foreach (var h in deliveries.See(id).Holds) deliveries.Decide(school.Coordinator, id, h.Key, HoldDecision.No, null);

        Refused(() => Apply(id)).ShouldBe("delivery-nothing");
        State().ShouldBe(before);
    }

    [Fact]
    public async Task If_the_school_changed_since_it_was_shown_nothing_is_applied_and_it_is_shown_anew()
    {
        var records = new Records(students: 3, classes: 1);
        var id = await Receive(records);
        var seen = deliveries.See(id);
        // Somebody makes one of its people by hand meanwhile.
        school.Add("stu", SchoolRole.Student, "Someone", "Else", "2001");

        Refused(() => applying.Apply(school.Coordinator, id, null, seen.Summary.Version)).ShouldBe("changed-meanwhile");
        deliveries.See(id).Summary.Changes.ShouldContainKey(ChangeKind.ChangedPerson);
        Apply(id).Changes.ShouldBeGreaterThan(0);
    }

    [Fact]
    public async Task A_newer_delivery_takes_the_place_of_one_that_waits()
    {
        var first = await Receive(new Records(students: 3, classes: 1));
        await Receive(new Records(students: 4, classes: 1), "newer.zip");

        deliveries.See(first).Summary.State.ShouldBe(DeliveryState.SetAside);
        Refused(() => Apply(first)).ShouldBe("delivery-settled");
    }

    [Fact]
    public async Task A_later_delivery_is_taken_back_before_an_earlier_one()
    {
        var records = new Records(students: 3, classes: 1);
        var first = await Receive(records);
        Apply(first);
        var second = await Receive(records.Grade(1, "8"), "second.zip");
        Apply(second);

        Refused(() => applying.TakeBack(school.Coordinator, first)).ShouldBe("delivery-later");
        applying.TakeBack(school.Coordinator, second);
        applying.TakeBack(school.Coordinator, first);
    }

    [Fact]
    public async Task While_a_class_is_being_closed_no_delivery_touches_it()
    {
        var records = new Records(students: 6, classes: 1);
        Apply(await Receive(records));
        var k = school.Read(c => Store.Workspaces.ClassStore.OfYear(c, school.Years[0].Id)).Single(x => x.RecordId == "k0");
        school.Making.Open(school.Coordinator, k.Id, k.Version);
        var id = await Receive(records.Added("La", "Ter"), "late.zip");
        school.Closing.Close(school.Coordinator, k.Id, AfterArchive.View);

        Refused(() => Apply(id)).ShouldBe("run-going");
    }

    [Fact]
    public async Task A_plain_table_waits_until_its_columns_are_confirmed_and_then_enrolls()
    {
        var id = await deliveries.Receive(school.Coordinator, school.Years[0].Id, "list.csv", TinySchool.Bytes($"class;Nr;name\n{school.Workspace.Head(school.Lead, school.Class).Name};1001;\"Hallgrímsson, Umi\"\n"), CancellationToken.None);
        var seen = deliveries.See(id);

        seen.Summary.State.ShouldBe(DeliveryState.ColumnsOpen);
        seen.Columns.Select(c => c.Is).ShouldBe([Formats.Rosters.RosterColumn.Class, Formats.Rosters.RosterColumn.Nothing, Formats.Rosters.RosterColumn.Name]);
        deliveries.SetColumns(school.Coordinator, id, [Formats.Rosters.RosterColumn.Class, Formats.Rosters.RosterColumn.StudentNumber, Formats.Rosters.RosterColumn.Name], false);
        deliveries.Changes(id, null, null, null, null, 0).Changes.ShouldHaveSingleItem().Kind.ShouldBe(ChangeKind.Joins);
        Apply(id).Changes.ShouldBe(1);
    }

    [Theory]
    [InlineData("")]
    [InlineData("PK\u0003\u0004 but no zip")]
    public async Task What_cannot_be_read_is_refused_and_nothing_is_kept(string text)
    {
        await Refused(async () => await deliveries.Receive(school.Coordinator, school.Years[0].Id, "x", TinySchool.Bytes(text), CancellationToken.None));

        deliveries.All().ShouldBeEmpty();
    }

    [Fact]
    public async Task Changes_are_found_by_kind_class_hold_and_name()
    {
        var records = new Records(students: 20, classes: 2);
        Apply(await Receive(records));
        for (var i = 0; i < 8; i += 2) records.Gone(i);
        var id = await Receive(records.Added("Zed", "Zulu"), "second.zip");

        deliveries.Changes(id, ChangeKind.Joins, null, null, null, 0).Total.ShouldBe(1);
        deliveries.Changes(id, null, null, null, "zul", 0).Total.ShouldBe(2);
        deliveries.Changes(id, null, null, true, null, 0).Total.ShouldBe(8);
        var k = deliveries.Classes(id);
        k[0].Held.ShouldBe(4);
        deliveries.Changes(id, null, k[0].ClassName, true, null, 0).Total.ShouldBe(4);
        deliveries.Changes(id, null, null, null, null, 1000).ShouldSatisfyAllConditions(p => p.Changes.ShouldBeEmpty(), p => p.Total.ShouldBe(10));
    }

    [Fact]
    public async Task What_goes_out_as_a_bundle_comes_in_without_a_change()
    {
        Apply(await Receive(new Records(students: 8, classes: 2)));
        var id = await deliveries.Receive(school.Coordinator, school.Years[0].Id, "own.zip", new RostersOut(school.Premises).Bundle(school.Years[0].Id).Content, CancellationToken.None);

        // Those who follow no records get a record id by it; nobody else is touched.
        deliveries.See(id).Summary.Changes.Keys.ShouldBeSubsetOf([ChangeKind.ChangedPerson, ChangeKind.ChangedClass]);
    }

    [Fact]
    public async Task The_year_as_one_table_is_read_again_without_a_change_and_does_nothing_to_a_spreadsheet()
    {
        Apply(await Receive(new Records(students: 8, classes: 2)));
        school.Add("formula", SchoolRole.Student, "=1+1", "@Sum").ShouldNotBeNull();
        school.Roster.Enroll(school.Lead, school.Class, [school.Read(DeliveredStore.People).Single(p => p.UserName == "formula").Id], ClassRole.Student);
        using var table = new RostersOut(school.Premises).Table(school.Years[0].Id).Content;
        var text = new StreamReader(table).ReadToEnd();
        text.ShouldContain(",'@Sum,'=1+1,");

        var id = await deliveries.Receive(school.Coordinator, school.Years[0].Id, "year.csv", TinySchool.Bytes(text), CancellationToken.None);
        deliveries.SetColumns(school.Coordinator, id, [.. deliveries.See(id).Columns.Select(c => c.Is)], false);

        var seen = deliveries.See(id);
        deliveries.Changes(id, null, null, null, null, 0).Changes.ShouldBeEmpty();
        seen.Findings.Select(f => $"{f.Line} {f.Column} {f.Text}").ShouldBeEmpty();
        seen.Same.ShouldBe(school.Read(c => DeliveredStore.Members(c, school.Years[0].Id)).Count(m => !m.Left));
        seen.Findings.ShouldBeEmpty();
    }

    [Fact]
    public async Task Rosters_go_out_while_a_class_of_the_year_is_in_the_bin()
    {
        Apply(await Receive(new Records(students: 8, classes: 2)));
        var gone = school.Read(c => DeliveredStore.Classes(c, school.Years[0].Id))[^1].Id;
        school.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "UPDATE class SET state = 'Archived', binned_at = '2027-06-30T08:00:00.000Z' WHERE id = @gone", new { gone }));

        var bundle = new RostersOut(school.Premises).Of(school.Years[0].Id);

        bundle.Enrollments.ShouldNotBeEmpty();
        bundle.Enrollments.Select(e => e.ClassId).Distinct().ShouldBeSubsetOf(bundle.Classes.Select(k => k.SourcedId));
    }
}
