using SpringLoft.App.Assignments;
using SpringLoft.App.Workspaces;
using SpringLoft.App.Years;

namespace SpringLoft.App.Tests.Workspaces;

public class DepartmentsTests : SchoolTest
{
    private Departments Departments => new(school.Premises);

    private ClassId Make() => Departments.Make(school.Lead, "Crafts department", "pot", [school.CoTeacher.Id]);

    private FolderId Bank(ClassId department) => school.Workspace.See(school.Lead, department).Folders.First(f => f.Name == "Bank").Id;

    private static NewAssignment Drawing(FolderId folder, string title = "Drawing", decimal points = 20) => new(title, "From three sides.", points, null, null, null, [folder], null, false, null);

    private AssignmentId PutIn(ClassId department) => school.Assigning.Make(school.Lead, department, Drawing(Bank(department))).Id;

    private AssignmentView Used(ClassId department, AssignmentId assignment)
    {
        new GivingOut(school.Premises).Give(school.Lead, department, new(null, null, [assignment], false, [school.Class]));
        return school.Workspace.See(school.Lead, school.Class).Assignments.Single();
    }

    [Fact]
    public void Its_staff_are_its_members_and_nobody_else_sees_it()
    {
        var id = Make();

        school.Workspace.Head(school.CoTeacher, id).Standing.ShouldBe(Standing.CoTeacher);
        Refused(() => school.Workspace.Head(school.OtherTeacher, id)).ShouldBe("not-found");
        Departments.All(school.CoTeacher).Single().ShouldSatisfyAllConditions(d => d.Members.ShouldBe(2), d => d.Member.ShouldBeTrue());
        Refused(() => school.Roster.Enroll(school.Lead, id, [school.Umi.Id], ClassRole.Student)).ShouldBe("department-students");
        Refused(() => Departments.Make(school.Lead, "Second", null, [school.Umi.Id])).ShouldBe("department-students");
    }

    [Fact]
    public void It_is_no_class_of_the_year()
    {
        var id = Make();

        new YearBoard(school.Premises, new(school.Premises)).See(school.Coordinator, null).Rows.ShouldNotContain(r => r.Id == id);
        school.Making.Courses().ShouldNotContain(c => c.Name == "Crafts department");
        Refused(() => school.Closing.Close(school.Lead, id, AfterArchive.View)).ShouldBe("department-stays");
        Refused(() => school.Rolling.Preview(id, new(null, null, null))).ShouldBe("department-stays");
    }

    [Fact]
    public void What_is_used_becomes_a_draft_that_remembers_where_it_is_from()
    {
        var id = Make();
        var original = PutIn(id);
        Refused(() => school.Publishing.Publish(school.Lead, id, original, 1)).ShouldBe("bank-no-students");

        var copy = Used(id, original);

        (copy.Title, copy.Published).ShouldBe(("Drawing", false));
        Departments.All(school.Lead).Single().Copies.ShouldBe(1);
        Departments.OffersTo(school.Class).ShouldBeEmpty();
    }

    [Fact]
    public void A_change_in_the_bank_is_offered_and_taken_on_a_yes()
    {
        var id = Make();
        var original = PutIn(id);
        var copy = Used(id, original);

        school.Assigning.Change(school.Lead, id, original, Drawing(Bank(id), "Measured drawing", 25), 1);

        var offer = Departments.OffersTo(school.Class).Single();
        (offer.Title, offer.NewTitle, offer.HandedIn).ShouldBe(("Drawing", "Measured drawing", 0));
        school.Workspace.See(school.Lead, school.Class).Assignments.Single().Title.ShouldBe("Drawing");
        Departments.Take(school.Lead, school.Class, [copy.Id], []).ShouldBe(1);
        school.Workspace.See(school.Lead, school.Class).Assignments.Single().ShouldSatisfyAllConditions(a => a.Title.ShouldBe("Measured drawing"), a => a.Points.ShouldBe(25));
        Departments.OffersTo(school.Class).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_copy_for_which_work_was_handed_in_stays_as_it_is()
    {
        school.OpenClass();
        var id = Make();
        var original = PutIn(id);
        var copy = Used(id, original);
        school.Assigning.Change(school.Lead, school.Class, copy.Id, Drawing(school.FolderNamed("Papers")), copy.Version);
        school.Publishing.Publish(school.Lead, school.Class, copy.Id, copy.Version + 1);
        await school.HandIn(school.Umi, copy.Id);
        school.Assigning.Change(school.Lead, id, original, Drawing(Bank(id), "Measured drawing"), 1);

        Departments.OffersTo(school.Class).Single().HandedIn.ShouldBe(1);
        Refused(() => Departments.Take(school.Lead, school.Class, [copy.Id], [])).ShouldBe("bank-handed-in");
    }

    [Fact]
    public async Task Nor_is_one_changed_under_a_mark_for_work_that_was_not_handed_in()
    {
        school.OpenClass();
        var id = Make();
        var original = PutIn(id);
        var copy = Used(id, original);
        school.Assigning.Change(school.Lead, school.Class, copy.Id, Drawing(school.FolderNamed("Papers")), copy.Version);
        school.Publishing.Publish(school.Lead, school.Class, copy.Id, copy.Version + 1);
        await school.Work.AddFile(school.Umi, school.Class, copy.Id, "pot.txt", TinySchool.Bytes("begun"), CancellationToken.None);
        var row = school.Read(c => Store.Assignments.WorkStore.Of(c, copy.Id, school.Umi.Id))!;
        school.Returns.Mark(school.Lead, school.Class, row.Id, 1, row.Version);
        school.Assigning.Change(school.Lead, id, original, Drawing(Bank(id), "Measured drawing"), 1);

        Refused(() => Departments.Take(school.Lead, school.Class, [copy.Id], [])).ShouldBe("bank-handed-in");
    }

    [Fact]
    public async Task Materials_follow_the_bank_too()
    {
        var id = Make();
        var page = await school.Items.AddPage(school.Lead, id, Bank(id), "Tool care", "Oil it.", CancellationToken.None);
        new GivingOut(school.Premises).Give(school.Lead, id, new([page], null, null, false, [school.Class]));
        await school.Items.ChangePage(school.Lead, id, page, "Tool care", "Oil it and hang it.", 1, CancellationToken.None);

        var offer = Departments.OffersOf(id).Single();
        Departments.Take(school.Lead, school.Class, [], [new(offer.Copy)]);

        school.Items.ReadPage(school.Lead, school.Class, new(offer.Copy)).Text.ShouldBe("Oil it and hang it.");
        Refused(() => Departments.Take(school.Lead, school.Class, [], [new(offer.Copy)])).ShouldBe("not-found");
    }

    [Fact]
    public async Task What_comes_from_a_bank_lands_where_the_classs_students_see_it()
    {
        var id = Make();
        var units = new Arranging(school.Premises).Make(school.Lead, id, new("Throwing", Bank(id), FolderRule.AsAbove, null, 0));
        var page = await school.Items.AddPage(school.Lead, id, units, "Tool care", "Oil it.", CancellationToken.None);
        var drawing = PutIn(id);
        var giving = new GivingOut(school.Premises);
        var draft = new GiveDraft([page], null, [drawing], false, [school.Class]);

        var before = giving.Preview(school.Lead, id, draft).Single();
        before.Unseen.ShouldBe(0);
        before.Tops.ShouldNotBeNull().ShouldContain("Papers");
        giving.Give(school.Lead, id, draft);

        school.OpenClass();
        var seen = school.Workspace.See(school.Umi, school.Class);
        seen.Items.ShouldContain(i => i.Name == "Tool care");
        var throwing = seen.Folders.Single(f => f.Name == "Throwing");
        seen.Folders.Single(f => f.Id == throwing.Parent).Name.ShouldBe("Start here", "the first at the top that the class sees");
        school.Workspace.See(school.Lead, school.Class).Folders.ShouldNotContain(f => f.Name == "Bank");
        var copy = school.Workspace.See(school.Lead, school.Class).Assignments.Single();
        school.Publishing.Publish(school.Lead, school.Class, copy.Id, copy.Version);
        school.Workspace.See(school.Umi, school.Class).Assignments.Single().Title.ShouldBe("Drawing");
    }

    [Fact]
    public void A_folder_of_a_bank_is_used_with_the_assignments_in_it()
    {
        var id = Make();
        PutIn(id);

        new GivingOut(school.Premises).Give(school.Lead, id, new(null, [Bank(id)], null, false, [school.Class])).Single().ShouldSatisfyAllConditions(g => g.Adds.ShouldBe(1), g => g.Unseen.ShouldBe(0));

        school.Workspace.See(school.Lead, school.Class).Assignments.Single().Title.ShouldBe("Drawing");
    }

    [Fact]
    public void Where_it_goes_is_chosen_made_where_it_is_not_there_and_said_where_students_do_not_see_it()
    {
        var id = Make();
        var original = PutIn(id);
        var giving = new GivingOut(school.Premises);
        GiveDraft Draft(string into) => new(null, null, [original], false, [school.Class], into);

        giving.Preview(school.Lead, id, Draft("staff ROOM")).Single().ShouldSatisfyAllConditions(g => g.Unseen.ShouldBe(1), g => g.MakesFolders.ShouldBe(0));
        giving.Preview(school.Lead, id, Draft("papers")).Single().ShouldSatisfyAllConditions(g => g.Unseen.ShouldBe(0), g => g.MakesFolders.ShouldBe(0));
        giving.Give(school.Lead, id, Draft("Kiln week")).Single().ShouldSatisfyAllConditions(g => g.Unseen.ShouldBe(0), g => g.MakesFolders.ShouldBe(1));

        var made = school.Workspace.See(school.Lead, school.Class).Folders.Single(f => f.Name == "Kiln week");
        (made.Rule, made.Parent).ShouldBe((FolderRule.ClassViews, null));
    }

    [Fact]
    public async Task What_a_student_wrote_in_a_copy_is_an_earlier_version_when_the_banks_is_taken()
    {
        school.OpenClass();
        var id = Make();
        var page = await school.Items.AddPage(school.Lead, id, Bank(id), "Tool care", "Oil it.", CancellationToken.None);
        var wall = new Arranging(school.Premises).Make(school.Lead, school.Class, new("Wall", null, FolderRule.ClassEdits, null, 0));
        new GivingOut(school.Premises).Give(school.Lead, id, new([page], null, null, false, [school.Class], "Wall"));
        var copy = school.Workspace.See(school.Umi, school.Class).Items.Single(i => i.Name == "Tool care").Id;
        await school.Items.ChangePage(school.Umi, school.Class, copy, "Tool care", "What Umi wrote.", 1, CancellationToken.None);
        await school.Items.ChangePage(school.Lead, id, page, "Tool care", "Oil it and hang it.", 1, CancellationToken.None);

        Departments.Take(school.Lead, school.Class, [], [copy]);

        school.Items.ReadPage(school.Umi, school.Class, copy).Text.ShouldBe("Oil it and hang it.");
        var earlier = school.Items.Versions(school.Umi, school.Class, copy).Single(v => v.By == school.Umi.Name);
        using var text = new StreamReader(school.Items.OpenVersion(school.Umi, school.Class, copy, earlier.Version).Content);
        text.ReadToEnd().ShouldBe("What Umi wrote.");
    }

    [Fact]
    public async Task Full_marks_do_not_sink_below_a_mark_that_was_given()
    {
        school.OpenClass();
        var assignment = school.Assign();
        await school.HandIn(school.Umi, assignment);
        var work = school.Read(c => Store.Assignments.WorkStore.OfClass(c, school.Class).Single());
        school.Returns.Mark(school.Lead, school.Class, work.Id, 18, work.Version);
        var a = school.Workspace.See(school.Lead, school.Class).Assignments.Single();

        Refused(() => school.Assigning.Change(school.Lead, school.Class, assignment, Drawing(school.FolderNamed("Papers"), points: 15), a.Version)).ShouldBe("points-below-mark");
        school.Assigning.Change(school.Lead, school.Class, assignment, Drawing(school.FolderNamed("Papers"), points: 18), a.Version);
        Refused(() => school.Assigning.Change(school.Lead, school.Class, assignment, Drawing(school.FolderNamed("Papers")), a.Version)).ShouldBe("changed-meanwhile");
    }
}
