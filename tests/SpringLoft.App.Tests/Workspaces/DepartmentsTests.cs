using SpringLoft.App.Assignments;
using SpringLoft.App.Workspaces;
using SpringLoft.App.Years;

namespace SpringLoft.App.Tests.Workspaces;

public class DepartmentsTests : SchoolTest
{
    private Departments Departments => new(school.Premises);

    private ClassId Make() => Departments.Make(school.Lead, "Crafts department", "pot", [school.CoTeacher.Id]);

    private FolderId Bank(ClassId department) => school.Workspace.See(school.Lead, department).Folders.First(f => f.Name == "Bank").Id;

    private static NewAssignment Drawing(FolderId folder, string title = "Drawing", decimal points = 20) => new(title, "From three sides.", points, null, [folder], null, false);

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
        school.Workspace.Head(school.OtherTeacher, id).Standing.ShouldBe(Standing.SignedIn);
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
        Refused(() => school.Assigning.Publish(school.Lead, id, original, 1)).ShouldBe("bank-no-students");

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
        school.Assigning.Publish(school.Lead, school.Class, copy.Id, copy.Version + 1);
        await school.HandIn(school.Umi, copy.Id);
        school.Assigning.Change(school.Lead, id, original, Drawing(Bank(id), "Measured drawing"), 1);

        Departments.OffersTo(school.Class).Single().HandedIn.ShouldBe(1);
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
