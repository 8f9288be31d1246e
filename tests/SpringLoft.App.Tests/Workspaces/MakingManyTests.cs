using SpringLoft.App.Workspaces;

namespace SpringLoft.App.Tests.Workspaces;

public class MakingManyTests : SchoolTest
{
    private MakingMany Many => new(school.Premises, school.Making);

    private ClassTableDraft Draft(string pasted) => new(school.Years[0].Id, school.Plan("Small start"), Many.Read(pasted));

    [Theory]
    [InlineData("Course\tSection\tPeriod\tLead teacher\nPottery\t6A\t1\tother\nPottery\t6B\t3\tlead")]
    [InlineData("lead,COURSE,section,period\nother,Pottery,6A,1\nlead,Pottery,6B,3\n")]
    [InlineData("Pottery\t6A\t1\t\t\t\tother\r\nPottery\t6B\t3\t\t\t\tlead\r\n")]
    [InlineData("\uFEFFcourse;section;period;teacher\r\nPottery;6A;1;other\r\n\r\n\"Pottery\";6B;3;lead")]
    public void A_pasted_table_makes_a_class_a_row_with_its_lead_teacher(string pasted)
    {
        var made = Many.Make(school.Coordinator, Draft(pasted));

        var heads = made.Select(id => school.Workspace.Head(school.Coordinator, id)).ToList();
        heads.Select(h => h.Name).ShouldBe(["Pottery 6A · period 1 · 2026–27", "Pottery 6B · period 3 · 2026–27"]);
        heads[0].TeacherShown.ShouldBe("Ngozi Castellan");
        school.Workspace.Head(school.OtherTeacher, made[0]).Standing.ShouldBe(Standing.Lead);
        school.Workspace.See(school.Lead, made[1]).Folders.Count.ShouldBe(7);
    }

    [Fact]
    public void A_list_of_courses_one_a_line_is_enough() =>
        Many.Preview(school.Coordinator, Draft("Pottery\nRope")).Rows.Select(r => r.Name).ShouldBe(["Pottery · 2026–27", "Rope · 2026–27"]);

    [Fact]
    public void All_are_made_or_none_and_the_row_that_stops_it_is_named()
    {
        var draft = Draft("Pottery\t6A\t1\nClay\t6B\t3");
        Many.Preview(school.Coordinator, draft).ShouldSatisfyAllConditions(p => p.Good.ShouldBe(1), p => p.Refused.ShouldBe(1));

        var refusal = Should.Throw<RefusedException>(() => Many.Make(school.Coordinator, draft)).Refusal;

        (refusal.Code, refusal.What).ShouldBe(("name-taken", "Row 2: There is already a class “Clay 6B · period 3 · 2026–27”."));
        school.Making.Courses().ShouldHaveSingleItem();
    }

    [Theory]
    [InlineData("", "table-empty")]
    [InlineData("  \n ", "table-empty")]
    [InlineData("course,section\nPottery,\"6A", "table-unreadable")]
    public void What_is_no_table_is_refused(string pasted, string code) => Refused(() => Many.Read(pasted)).ShouldBe(code);

    [Fact]
    public void A_thousand_and_one_rows_are_too_many() => Refused(() => Many.Read(string.Join('\n', Enumerable.Range(0, 1001).Select(i => $"C{i}")))).ShouldBe("too-many");

    [Fact]
    public async Task A_class_set_up_like_another_has_its_folders_as_they_stand_its_papers_and_its_drafts()
    {
        school.OpenClass();
        await school.Put(school.Lead, "Papers", "map.pdf", "map");
        await school.Put(school.Umi, "Shared table", "mine.txt", "x");
        school.Assign();
        var papers = school.Workspace.See(school.Lead, school.Class).Folders.First(f => f.Name == "Papers");
        new Arranging(school.Premises).Change(school.Lead, school.Class, papers.Id, new("Hand-outs", null, papers.Rule, null, papers.Version));
        var like = school.New("Clay", "7A") with { From = school.Class };

        var preview = school.Making.Preview(school.Lead, like).From!;
        var made = school.Workspace.See(school.Lead, school.Making.Make(school.Lead, like));

        (preview.Things, preview.Assignments).ShouldBe((1, 1));
        made.Folders.Select(f => f.Name).ShouldContain("Hand-outs");
        made.Folders.ShouldNotContain(f => f.OwnOf != null);
        made.Items.Select(i => i.Name).ShouldBe(["map.pdf"]);
        made.Assignments.Single().Published.ShouldBeFalse();
        Refused(() => school.Making.Make(school.OtherTeacher, school.New("Clay", "7B") with { From = school.Class })).ShouldBe("not-found");
    }
}
