using SpringLoft.App.Rosters;
using SpringLoft.Core.Workspaces;

namespace SpringLoft.App.Tests.Rosters;

public class CombinedRostersTests : SchoolTest
{
    private readonly ClassId second;
    private readonly CombinedRosters combined;

    public CombinedRostersTests()
    {
        school.OpenClass();
        second = school.Making.Make(school.Lead, school.New("Clay", "6C"));
        school.Roster.Enroll(school.Lead, second, [school.Outsider.Id], ClassRole.Student);
        school.Making.Open(school.Lead, second, school.Workspace.Head(school.Lead, second).Version);
        combined = new(school.Premises, school.Returns);
    }

    private long Make() => combined.Make(school.Lead, "All of Clay", [new(second, 3), new(school.Class, 0)]);

    [Fact]
    public void Sections_stand_in_the_order_and_colour_set_and_a_new_student_appears_by_itself()
    {
        var id = Make();
        combined.See(school.Lead, id).Sections.Select(s => (s.Class, s.Letter, s.Colour, s.Students)).ShouldBe([(second, "A", 3, 1), (school.Class, "B", 0, 2)]);

        var late = school.Add("late", SchoolRole.Student, "Aa", "Aaronsen", "1099");
        school.Roster.Enroll(school.Lead, second, [late.Id], ClassRole.Student);

        combined.See(school.Lead, id).Students.Select(s => (s.SortName, s.Section)).ShouldBe([("Aaronsen, Aa", 0), ("Yılmaz, Tāne", 0), ("Hallgrímsson, Umi", 1), ("Ravndal, Rúna", 1)]);
    }

    [Fact]
    public async Task The_same_assignment_is_one_column_its_scores_one_population_and_all_is_returned_in_one_act()
    {
        var id = Make();
        var a = school.Assign("Pinch pot");
        var b = school.Assigning.Make(school.Lead, second, new("pinch pot", "x", 20, null, [school.Workspace.See(school.Lead, second).Folders.First(f => f.Name == "Papers").Id], null, Publish: true)).Id;
        await school.HandIn(school.Umi, a);
        await school.Work.AddFile(school.Outsider, second, b, "pot.txt", TinySchool.Bytes("x"), CancellationToken.None);
        school.Work.HandIn(school.Outsider, second, b);
        foreach (var (k, score) in new[] { (school.Class, 10m), (second, 16m) })
        {
            var cell = school.Returns.See(k).Students.SelectMany(s => s.Cells).Single();
            school.Returns.Mark(school.Lead, k, cell.Id, score, cell.Version);
        }
        var seen = combined.See(school.Lead, id);

        var column = seen.Assignments.ShouldHaveSingleItem();
        (column.In, column.Held, column.Numbers.Count, column.Numbers.Mean, column.Numbers.Median).ShouldBe((2, 2, 2, 13, 13));
        column.Numbers.Deviation!.Value.ShouldBe(Math.Sqrt(18), 1e-9);
        combined.PreviewReturn(school.Lead, id, false).ShouldBe(new CombinedReturn(2, 2, 2, 0));
        combined.Return(school.Lead, id, false, "Well thrown.").Pieces.ShouldBe(2);
        combined.See(school.Lead, id).Sections.Sum(s => s.Held).ShouldBe(0);
    }

    [Fact]
    public void It_is_its_makers_alone_and_of_classes_that_are_theirs()
    {
        var id = Make();
        var foreign = school.Making.Make(school.OtherTeacher, school.New("Tides"));

        Refused(() => combined.See(school.CoTeacher, id)).ShouldBe("not-found");
        Refused(() => combined.Make(school.Lead, "x", [new(school.Class, 0), new(foreign, 1)])).ShouldBe("section-not-yours");
        Refused(() => combined.Make(school.Lead, "x", [new(school.Class, 0)])).ShouldBe("sections-count");
        Refused(() => combined.Make(school.Lead, "x", [new(school.Class, 0), new(second, 8)])).ShouldBe("section-colour");
        Refused(() => combined.Make(school.Lead, "ALL of clay", [new(school.Class, 0), new(second, 1)])).ShouldBe("name-taken");
        combined.Remove(school.Lead, id);
        combined.Mine(school.Lead).ShouldBeEmpty();
    }

    [Fact]
    public void Groups_are_made_from_a_list_and_what_names_nobody_is_told()
    {
        var making = new MakingGroups(school.Premises);
        var ask = new GroupsAsk(null, null, 0, BalancedBy.Nothing, null, null, "Hallgrimsson, Umi\tRed\n1002;Blue\nNobody Known;Red\nno group here", null);
        var draft = making.Preview(school.Class, ask);

        draft.Groups.Select(g => (g.Name, g.Members.Single().Id)).ShouldBe([("Red", school.Umi.Id), ("Blue", school.Rúna.Id)]);
        draft.NotMatched.Count.ShouldBe(2);
        making.Make(school.Lead, school.Class, ask).Groups.ShouldBe(2);
        Refused(() => making.Make(school.Lead, school.Class, ask)).ShouldBe("name-taken");
        making.Preview(school.Class, new(2, null, 1, BalancedBy.Grade, null, null, null, "Team")).Groups.Select(g => (g.Name, g.Members.Count, g.Mean)).ShouldBe([("Team 1", 1, 6.0), ("Team 2", 1, 6.0)]);
    }
}
