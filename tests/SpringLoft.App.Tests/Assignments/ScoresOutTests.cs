using Microsoft.VisualBasic.FileIO;
using SpringLoft.App.Assignments;
using SpringLoft.App.Rosters;

namespace SpringLoft.App.Tests.Assignments;

public class ScoresOutTests : SchoolTest
{
    public ScoresOutTests() => school.OpenClass();

    // Read back by the reader of the base class library, not by ours.
    private static List<string[]> Read(SpringLoft.App.Workspaces.Download file)
    {
        using var reader = new TextFieldParser(file.Content) { Delimiters = [","], HasFieldsEnclosedInQuotes = true };
        var rows = new List<string[]>();
        while (reader.ReadFields() is { } row) rows.Add(row);
        return rows;
    }

    private async Task Return(Caller student, AssignmentId assignment, decimal? score)
    {
        await school.HandIn(student, assignment);
        var cell = school.Returns.See(school.Coordinator, school.Class).Students.Single(s => s.Student == student.Id).Cells.Single(x => x.Assignment == assignment);
        new MarkingDesk(school.Premises).Judge(school.Lead, school.Class, cell.Id, new(score, null, true, true, cell.Version));
    }

    [Fact]
    public async Task Returned_marks_stand_by_student_number_and_a_draft_is_no_mark()
    {
        var pot = school.Assign("Pinch pot, with \"rim\"");
        var formula = school.Assign("=SUM(A1)");
        school.Assign("No score", points: null);
        await Return(school.Umi, pot, 18.5m);
        await school.HandIn(school.Rúna, pot);
        var draft = school.Returns.See(school.Coordinator, school.Class).Students.Single(s => s.Student == school.Rúna.Id).Cells.Single();
        school.Returns.Mark(school.Lead, school.Class, draft.Id, 11, draft.Version);
        await Return(school.Rúna, formula, 20m);

        var rows = Read(new ScoresOut(school.Premises).OfClass(school.Lead, school.Class, ScoreFormat.Table));

        rows[0].ShouldBe(["student number", "e-mail", "family name", "given name", "class", "Pinch pot, with \"rim\" (20)", "'=SUM(A1) (20)"]);
        rows.Skip(1).Select(r => (r[2], r[5], r[6])).ShouldBe([("Hallgrímsson", "18.5", ""), ("Ravndal", "", "20")]);
        rows.Skip(1).ShouldAllBe(r => r[0].Length > 0);
    }

    [Fact]
    public async Task Sections_of_a_combined_roster_are_one_table_and_the_same_title_one_column()
    {
        var second = school.Making.Make(school.Lead, school.New("Clay", "6C"));
        school.Roster.Enroll(school.Lead, second, [school.Outsider.Id], ClassRole.Student);
        school.Making.Open(school.Lead, second, school.Workspace.Head(school.Lead, second).Version);
        school.Assigning.Make(school.Lead, second, new("PINCH pot", "x", 20, null, null, null, [school.Workspace.See(school.Lead, second).Folders.First(f => f.Name == "Papers").Id], null, true, null));
        await Return(school.Umi, school.Assign("Pinch pot"), 15);
        var combined = new CombinedRosters(school.Premises, school.Returns).Make(school.Lead, "All of Clay", [new(second, 3), new(school.Class, 0)]);

        var rows = Read(new ScoresOut(school.Premises).OfCombined(school.Lead, combined, ScoreFormat.Table));

        rows[0].Length.ShouldBe(6);
        rows.Skip(1).Select(r => r[5]).ShouldBe(["", "15", ""]);
        rows.Skip(1).Select(r => r[4]).Distinct().Count().ShouldBe(2);
        Refused(() => new ScoresOut(school.Premises).OfCombined(school.CoTeacher, combined, ScoreFormat.Table)).ShouldBe("not-found");
    }
}
