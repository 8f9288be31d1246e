using SpringLoft.Core.Assignments;

namespace SpringLoft.App.Tests.Assignments;

public class ReturnsTests : SchoolTest
{
    private readonly AssignmentId assignment;

    public ReturnsTests()
    {
        school.OpenClass();
        assignment = school.Assign(folders: ["Papers", "Start here"]);
    }

    private App.Assignments.ReturnsCell Cell(Caller student) =>
        school.Returns.See(school.Coordinator, school.Class).Students.First(s => s.Student == student.Id).Cells.Single();

    private App.Workspaces.OwnWorkView Own(Caller student) => school.Workspace.See(student, school.Class).Assignments.Single().Own!;

    [Fact]
    public void An_assignment_filed_in_two_folders_is_there_once() =>
        school.Workspace.See(school.Umi, school.Class).Assignments.ShouldHaveSingleItem().Folders.Count.ShouldBe(2);

    [Fact]
    public async Task The_way_of_a_piece_of_work_from_begun_to_returned()
    {
        await school.HandIn(school.Umi, assignment);
        Own(school.Umi).HeldBy.ShouldBe(HeldBy.Teacher);

        var cell = Cell(school.Umi);
        var marked = school.Returns.Mark(school.Lead, school.Class, cell.Id, 17, cell.Version);
        var said = school.Returns.Comment(school.Lead, school.Class, cell.Id, "Good rim.");
        Own(school.Umi).ShouldSatisfyAllConditions(w => w.Score.ShouldBeNull(), w => w.Comments.ShouldBeEmpty());

        school.Returns.Return(school.Lead, school.Class, cell.Id, false, marked.Version);
        Own(school.Umi).ShouldSatisfyAllConditions(w => w.HeldBy.ShouldBe(HeldBy.Student), w => w.Score.ShouldBe(17), w => w.Comments.Single().Text.ShouldBe("Good rim."));
        said.Comments.ShouldHaveSingleItem();
    }

    [Fact]
    public async Task A_student_cannot_change_work_while_it_is_held()
    {
        await school.HandIn(school.Umi, assignment);

        (await Refused(() => school.Work.AddFile(school.Umi, school.Class, assignment, "b.txt", TinySchool.Bytes("x"), default))).ShouldBe("work-held");
        Refused(() => school.Work.RemoveFile(school.Umi, school.Class, assignment, Own(school.Umi).Files[0].Id)).ShouldBe("work-held");
        school.Work.TakeBack(school.Umi, school.Class, assignment);
        school.Work.RemoveFile(school.Umi, school.Class, assignment, Own(school.Umi).Files[0].Id);
    }

    [Fact]
    public async Task Of_two_teachers_who_mark_at_once_the_second_is_told()
    {
        await school.HandIn(school.Umi, assignment);
        var cell = Cell(school.Umi);
        school.Returns.Mark(school.Lead, school.Class, cell.Id, 17, cell.Version);

        Refused(() => school.Returns.Mark(school.CoTeacher, school.Class, cell.Id, 11, cell.Version)).ShouldBe("changed-meanwhile");
        Cell(school.Umi).Score.ShouldBe(17);
    }

    [Fact]
    public async Task Returning_all_does_what_its_preview_said()
    {
        await school.HandIn(school.Umi, assignment);
        await school.HandIn(school.Rúna, assignment);
        var cell = Cell(school.Umi);
        school.Returns.Mark(school.Lead, school.Class, cell.Id, 12, cell.Version);
        var preview = school.Returns.PreviewReturnAll(school.Class, null, false);

        school.Returns.ReturnAll(school.Lead, school.Class, null, false, "Well done.").ShouldBe(preview);

        preview.ShouldBe(new(1, 1, 1, 1));
        Cell(school.Umi).State.ShouldBe(WorkState.Returned);
        Cell(school.Rúna).State.ShouldBe(WorkState.HandedIn);
    }

    [Fact]
    public async Task Another_students_work_is_out_of_reach()
    {
        await school.HandIn(school.Umi, assignment);

        Refused(() => school.Work.Open(school.Rúna, school.Class, assignment, Own(school.Umi).Files[0].Id)).ShouldBe("not-found");
        Refused(() => school.Work.HandIn(school.Outsider, school.Class, assignment)).ShouldBe("not-found");
    }

    [Fact]
    public async Task An_assignment_with_work_is_not_binned()
    {
        await school.HandIn(school.Umi, assignment);
        Refused(() => school.Assigning.Bin(school.Lead, school.Class, assignment)).ShouldBe("work-held");
        school.Returns.ReturnAll(school.Lead, school.Class, null, true, null);
        Refused(() => school.Assigning.Bin(school.Lead, school.Class, assignment)).ShouldBe("assignment-has-work");
    }

    [Fact]
    public void A_draft_is_not_seen_until_it_is_published()
    {
        var draft = school.Assigning.Make(school.Lead, school.Class, new("Vase", "", null, null, null, null, [school.FolderNamed("Papers")], null, Publish: false, PublishAt: null)).Id;
        school.Workspace.See(school.Umi, school.Class).Assignments.Count.ShouldBe(1);

        school.Publishing.Publish(school.Lead, school.Class, draft, 1);

        school.Workspace.See(school.Umi, school.Class).Assignments.Count.ShouldBe(2);
    }

    [Fact]
    public void An_assignment_given_to_some_is_seen_by_them_only()
    {
        school.Assigning.Make(school.Lead, school.Class, new("Extra", "", null, null, null, null, [school.FolderNamed("Papers")], [school.Rúna.Id], Publish: true, PublishAt: null));

        school.Workspace.See(school.Rúna, school.Class).Assignments.Count.ShouldBe(2);
        school.Workspace.See(school.Umi, school.Class).Assignments.Count.ShouldBe(1);
    }

    [Fact]
    public void An_assignment_filed_where_students_cannot_look_names_who_is_blind() =>
        school.Assigning.Make(school.Lead, school.Class, new("Hidden", "", null, null, null, null, [school.FolderNamed("Staff room")], null, Publish: true, PublishAt: null))
            .BlindSpots.ShouldBe(["Umi Hallgrímsson", "Rúna Ravndal"], ignoreOrder: true);

    [Fact]
    public async Task All_work_comes_as_one_zip_a_folder_a_student()
    {
        await school.HandIn(school.Umi, assignment, "umi's");
        await using var zip = school.Returns.OpenAll(school.Class, assignment, default).Content;

        using var archive = new System.IO.Compression.ZipArchive(zip);
        archive.Entries.Select(e => e.FullName).ShouldBe(["Pinch pot/Hallgrímsson, Umi (1001)/pot.txt"]);
    }
}
