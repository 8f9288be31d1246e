using SpringLoft.App.Assignments;
using SpringLoft.Store.Assignments;
using SpringLoft.Store.Workspaces;

namespace SpringLoft.App.Tests.Assignments;

public class InStepTests : SchoolTest
{
    private readonly ClassId second, third;

    public InStepTests()
    {
        school.OpenClass();
        second = Section("6C");
        third = Section("6D");
    }

    private ClassId Section(string name)
    {
        var id = school.Making.Make(school.Lead, school.New("Clay", name));
        school.Roster.Enroll(school.Lead, id, [school.Outsider.Id], ClassRole.Student);
        school.Making.Open(school.Lead, id, school.Workspace.Head(school.Lead, id).Version);
        return id;
    }

    private NewAssignment Of(string title, bool publish = true, params ClassId[] also) =>
        new(title, "Make it.", 20, school.Premises.Clock.Today.PlusDays(7), null, null, [school.FolderNamed("Papers")], null, publish, null, also);

    private AssignmentRow? In(ClassId id, string title) => school.Read(c => AssignmentStore.OfClass(c, id)).FirstOrDefault(a => a.Title == title);

    private AssignmentRow First(string title) => In(school.Class, title)!;

    [Fact]
    public void In_one_act_each_section_has_it_at_the_matching_place()
    {
        var made = school.Assigning.Make(school.Lead, school.Class, Of("Pot", true, second, third));

        made.InStep.Count.ShouldBe(2);
        foreach (var id in new[] { second, third })
        {
            In(id, "Pot")!.ShouldSatisfyAllConditions(a => a.PublishedAt.ShouldNotBeNull(), a => a.DueOn.ShouldBe(First("Pot").DueOn), a => a.Points.ShouldBe(20));
            var folder = school.Read(c => AssignmentStore.Filings(c, id))[In(id, "Pot")!.Id].Single();
            school.Read(c => FolderStore.OfClass(c, id)).Single(f => f.Id == folder).Name.ShouldBe("Papers");
        }
        school.Workspace.See(school.Outsider, second).Assignments.ShouldContain(a => a.Title == "Pot");
    }

    [Fact]
    public void It_is_shown_before_and_given_to_all_or_to_none()
    {
        school.Assigning.Make(school.Lead, third, Of("Pot") with { Folders = [school.Workspace.See(school.Lead, third).Folders.First(f => f.Name == "Papers").Id] });
        var preview = new Previewing(school.Premises).Preview(school.Lead, school.Class, Of("Pot", true, second, third));
        preview.Others.Select(o => (o.Students, o.Folders.Count, o.Because)).ShouldBe([(1, 1, null), (1, 1, NotThere.TitleTaken)]);

        Refused(() => school.Assigning.Make(school.Lead, school.Class, Of("Pot", true, second, third))).ShouldBe("name-taken");
        (In(school.Class, "Pot"), In(second, "Pot")).ShouldBe((null, null));
    }

    [Fact]
    public async Task A_change_is_a_change_in_all_while_nobody_there_has_handed_in()
    {
        var made = school.Assigning.Make(school.Lead, school.Class, Of("Pot", true, second, third)).Id;
        await school.Work.AddFile(school.Outsider, third, In(third, "Pot")!.Id, "a.txt", TinySchool.Bytes("x"), default);
        school.Work.HandIn(school.Outsider, third, In(third, "Pot")!.Id);

        var changed = school.Assigning.Change(school.Lead, school.Class, made, Of("Bowl") with { Points = 30 }, First("Pot").Version);

        changed.InStep.ShouldHaveSingleItem();
        (First("Bowl").Points, In(second, "Bowl")!.Points, In(third, "Pot")!.Points).ShouldBe((30, 30, 20));

        // And once somebody has handed in here, it goes its own way.
        await school.HandIn(school.Umi, made);
        school.Assigning.Change(school.Lead, school.Class, made, Of("Vase") with { Points = 30 }, First("Bowl").Version).InStep.ShouldBeEmpty();
        In(second, "Bowl").ShouldNotBeNull();
    }

    [Fact]
    public void A_draft_is_published_in_all()
    {
        var made = school.Assigning.Make(school.Lead, school.Class, Of("Pot", false, second)).Id;
        school.Returns.See(school.Lead, school.Class).Assignments.Single(a => a.Id == made).InStep.Count.ShouldBe(1);
        school.Publishing.Publish(school.Lead, school.Class, made, First("Pot").Version);

        In(second, "Pot")!.PublishedAt.ShouldNotBeNull();
    }

    [Fact]
    public void Published_with_many_others_it_is_so_in_all_too()
    {
        var made = school.Assigning.Make(school.Lead, school.Class, Of("Pot", false, second)).Id;
        school.Publishing.PublishMany(school.Lead, school.Class, [made]).Published.ShouldBe(1);

        In(second, "Pot")!.PublishedAt.ShouldNotBeNull();
    }

    [Fact]
    public async Task Taken_back_to_a_draft_it_is_one_in_all_where_nobody_handed_in()
    {
        var made = school.Assigning.Make(school.Lead, school.Class, Of("Pot", true, second, third)).Id;
        await school.Work.AddFile(school.Outsider, third, In(third, "Pot")!.Id, "a.txt", TinySchool.Bytes("x"), default);
        school.Work.HandIn(school.Outsider, third, In(third, "Pot")!.Id);

        school.Publishing.Withdraw(school.Lead, school.Class, made, First("Pot").Version);

        (First("Pot").PublishedAt, In(second, "Pot")!.PublishedAt).ShouldBe((null, null));
        In(third, "Pot")!.PublishedAt.ShouldNotBeNull();
        school.Workspace.See(school.Outsider, second).Assignments.ShouldNotContain(a => a.Title == "Pot");
    }

    [Fact]
    public void Only_into_classes_of_ones_own_to_everybody_there_and_a_co_teacher_of_one_changes_that_one_alone()
    {
        Refused(() => school.Assigning.Make(school.CoTeacher, school.Class, Of("Pot", true, second))).ShouldBe("not-found");
        Refused(() => school.Assigning.Make(school.Lead, school.Class, Of("Pot", true, second) with { Students = [school.Umi.Id] })).ShouldBe("given-by-name");

        var made = school.Assigning.Make(school.Lead, school.Class, Of("Pot", true, second)).Id;
        school.Assigning.Change(school.CoTeacher, school.Class, made, Of("Bowl"), First("Pot").Version).InStep.ShouldBeEmpty();
        (First("Bowl").Title, In(second, "Pot")!.Title).ShouldBe(("Bowl", "Pot"));
        school.Returns.See(school.CoTeacher, school.Class).Assignments.Single().InStep.ShouldBeEmpty();
    }
}
