using SpringLoft.App.Audit;
using SpringLoft.App.Workspaces;
using SpringLoft.App.Years;

namespace SpringLoft.App.Tests.Years;

public class YearBoardTests : SchoolTest
{
    private BoardRow Row() => new YearBoard(school.Premises, new BlindCounts(school.Premises)).See(school.Coordinator, null).Rows.Single();

    [Fact]
    public async Task The_cells_follow_the_class_through_its_year()
    {
        Row().Cells.ShouldSatisfyAllConditions(c => c.Folders.Text.ShouldBe("7 of 7"), c => c.Roster.Text.ShouldBe("nobody yet"), c => c.Open.Text.ShouldBe("in preparation"));

        school.OpenClass();
        Row().Cells.ShouldSatisfyAllConditions(c => c.Folders.Text.ShouldBe("9 of 9"), c => c.Roster.Text.ShouldBe("2"), c => c.Open.Text.ShouldBe("since 7 Sep"));

        await school.HandIn(school.Umi, school.Assign());
        Row().Cells.ShouldSatisfyAllConditions(c => c.Work.Text.ShouldBe("0 back, 1 held"), c => c.Close.Text.ShouldBe("1 held"));

        school.Returns.ReturnAll(school.Lead, school.Class, null, true, null);
        school.Rolling.Make(school.Lead, school.Class, new(null, null, null));
        Row().Cells.ShouldSatisfyAllConditions(c => c.Work.Text.ShouldBe("1 back"), c => c.Close.Text.ShouldBe("ready"), c => c.NextYear.Text.ShouldBe("in preparation"));

        school.Close();
        Row().Cells.Close.Text.ShouldBe("archived 7 Sep");
    }

    [Fact]
    public void A_coordinator_sees_all_classes_and_a_teacher_their_own()
    {
        var board = new YearBoard(school.Premises, new BlindCounts(school.Premises));

        board.See(school.Coordinator, null).Rows.Count.ShouldBe(1);
        board.See(school.Lead, null).Rows.Count.ShouldBe(1);
        board.See(school.OtherTeacher, null).Rows.ShouldBeEmpty();
        Refused(() => board.See(school.Lead, new YearId(99))).ShouldBe("not-found");
    }

    [Fact]
    public void A_binned_own_folder_is_missed()
    {
        school.OpenClass();
        school.Premises.Db.Write(c => Dapper.SqlMapper.Execute(c, "UPDATE folder SET binned_at = '2026-09-08T00:00:00Z' WHERE student_id = @id", new { id = school.Umi.Id.Value }));

        Row().Cells.Roster.Text.ShouldBe("2, 1 without folder");
        Row().Cells.Folders.Text.ShouldBe("8 of 9, 1 blind spot");
    }

    [Fact]
    public void Folders_of_a_student_who_left_are_neither_asked_for_nor_counted()
    {
        // By unit gives each student a folder with two folders in it.
        var id = school.Making.Make(school.Lead, school.New("Glass", plan: "By unit"));
        school.Roster.Enroll(school.Lead, id, [school.Umi.Id, school.Rúna.Id], ClassRole.Student);
        school.Roster.Remove(school.Lead, id, school.Umi.Id);

        var row = new YearBoard(school.Premises, new BlindCounts(school.Premises)).See(school.Coordinator, null).Rows.First(r => r.Id == id);

        var own = school.Workspace.See(school.Lead, id).Folders.Count;
        row.Cells.Folders.Text.ShouldBe($"{own - 3} of {own - 3}");
        row.Cells.Roster.Text.ShouldBe("1");
    }

    [Fact]
    public void The_year_line_knows_the_week_and_the_days_left()
    {
        var line = new YearLine(school.Premises, new SchoolAddress(() => new("https://tiny.example"))).See();

        line.Years.First(y => y.Id == line.Current).ShouldSatisfyAllConditions(y => y.Label.ShouldBe("2026–27"), y => y.WeekNow.ShouldBe(3));
    }

    [Fact]
    public void The_date_is_not_moved_in_a_real_school() =>
        Refused(() => new YearLine(school.Premises, new SchoolAddress(() => new("https://tiny.example"))).MoveDate(school.Coordinator, new LocalDate(2027, 6, 7))).ShouldBe("not-a-demo");

    [Fact]
    public void The_audit_trail_says_who_did_what_to_which_thing_and_when()
    {
        school.OpenClass();

        var lines = new AuditTrail(school.Premises).See(null, school.Class, null, null);

        lines.Select(l => (l.Who, l.Act)).ShouldBe([
            ("Oisín Farquhar", "opened class"), ("Oisín Farquhar", "enrolled co-teacher"), ("Oisín Farquhar", "enrolled student"),
            ("Oisín Farquhar", "enrolled student"), ("Oisín Farquhar", "made class")]);
        lines.ShouldAllBe(l => l.At == Instant.FromUtc(2026, 9, 7, 8, 0) && l.ClassName!.StartsWith("Clay"));
    }

    [Fact]
    public void Narrowed_to_a_combined_roster_only_its_sections_are_counted_and_only_for_its_owner()
    {
        school.OpenClass();
        var other = school.Making.Make(school.Lead, school.New("Clay", "7A"));
        var third = school.Making.Make(school.Lead, school.New("Tides", "7A"));
        var id = new App.Rosters.CombinedRosters(school.Premises, school.Returns).Make(school.Lead, "Both", [new(school.Class, 0), new(other, 1)]);
        var board = new YearBoard(school.Premises, new BlindCounts(school.Premises));

        board.See(school.Lead, null, id).Rows.Select(r => r.Id).ShouldBe([school.Class, other], ignoreOrder: true);
        board.See(school.Lead, null).Rows.Select(r => r.Id).ShouldContain(third);
        Refused(() => board.See(school.CoTeacher, null, id)).ShouldBe("not-found");
    }
}
