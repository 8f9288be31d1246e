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
        var b = school.Assigning.Make(school.Lead, second, new("pinch pot", "x", 20, null, null, null, [school.Workspace.See(school.Lead, second).Folders.First(f => f.Name == "Papers").Id], null, Publish: true, PublishAt: null)).Id;
        await school.HandIn(school.Umi, a);
        await school.Work.AddFile(school.Outsider, second, b, "pot.txt", TinySchool.Bytes("x"), CancellationToken.None);
        school.Work.HandIn(school.Outsider, second, b);
        foreach (var (k, score) in new[] { (school.Class, 10m), (second, 16m) })
        {
            var cell = school.Returns.See(school.Coordinator, k).Students.SelectMany(s => s.Cells).Single();
            school.Returns.Mark(school.Lead, k, cell.Id, score, cell.Version);
        }

        // Drafts are nobody's marks yet.
        var column = combined.See(school.Lead, id).Assignments.ShouldHaveSingleItem();
        (column.In, column.Held, column.Numbers.Count, column.Numbers.Mean, column.Numbers.Median).ShouldBe((2, 2, 0, null, null));
        combined.PreviewReturn(school.Lead, id, false).ShouldBe(new CombinedReturn(2, 2, 2, 0));
        combined.Return(school.Lead, id, false, "Well thrown.").Pieces.ShouldBe(2);
        var seen = combined.See(school.Lead, id);
        seen.Sections.Sum(s => s.Held).ShouldBe(0);
        column = seen.Assignments.ShouldHaveSingleItem();
        (column.In, column.Held, column.Numbers.Count, column.Numbers.Mean, column.Numbers.Median).ShouldBe((2, 0, 2, 13, 13));
        column.Numbers.Deviation!.Value.ShouldBe(Math.Sqrt(18), 1e-9);
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
    public void Its_name_order_and_colours_are_changed_by_one_at_a_time()
    {
        var id = Make();
        var version = combined.See(school.Lead, id).Version;

        combined.Change(school.Lead, id, "Both pots", [new(school.Class, 5), new(second, 1)], version);

        combined.Mine(school.Lead).ShouldHaveSingleItem().ShouldSatisfyAllConditions(r => r.Name.ShouldBe("Both pots"), r => r.Classes.ShouldBe([school.Class, second]), r => r.Students.ShouldBe(3));
        combined.See(school.Lead, id).Sections.Select(s => (s.Class, s.Letter, s.Colour)).ShouldBe([(school.Class, "A", 5), (second, "B", 1)]);
        Refused(() => combined.Change(school.Lead, id, "Again", [new(school.Class, 5), new(second, 1)], version)).ShouldBe("changed-meanwhile");
        combined.Mine(school.CoTeacher).ShouldBeEmpty();
    }

    [Fact]
    public async Task Groups_are_balanced_by_the_mean_of_returned_marks()
    {
        var late = Enumerable.Range(0, 2).Select(i => school.Add($"late{i}", SchoolRole.Student, $"Late{i}", "Comer", $"{1090 + i}")).ToList();
        school.Roster.Enroll(school.Lead, school.Class, [.. late.Select(l => l.Id)], ClassRole.Student);
        var pot = school.Assign("Pinch pot", 20);
        Caller[] all = [school.Umi, school.Rúna, .. late];
        foreach (var (who, score) in all.Zip([20m, 18m, 4m, 2m]))
        {
            await school.HandIn(who, pot);
            var cell = school.Returns.See(school.Coordinator, school.Class).Students.Single(s => s.Student == who.Id).Cells.Single();
            school.Returns.Mark(school.Lead, school.Class, cell.Id, score, cell.Version);
        }
        var making = new MakingGroups(school.Premises);
        var ask = new GroupsAsk(2, null, 7, BalancedBy.MeanScore, null, null, null, "Team");
        // A mark that the student has not seen yet is nothing to sort children by.
        making.Preview(school.Class, ask).Groups.ShouldAllBe(g => g.Mean == null);
        school.Returns.ReturnAll(school.Lead, school.Class, null, false, null);

        var draft = making.Preview(school.Class, ask);

        // 20 + 2 and 18 + 4 of 20 points: the only way to two equal means, 55 of 100.
        draft.Groups.ShouldAllBe(g => g.Members.Count == 2 && g.Mean == 55);
        draft.Spread.ShouldBe(0);
        draft.Groups.Single(g => g.Members.Any(m => m.Id == school.Umi.Id)).Members.ShouldContain(m => m.Id == late[1].Id);
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
