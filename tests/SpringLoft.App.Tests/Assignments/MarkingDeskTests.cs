using System.Text;
using SpringLoft.App.Assignments;
using SpringLoft.App.Rosters;
using SpringLoft.Core.Assignments;
using SpringLoft.Formats.Looks;

namespace SpringLoft.App.Tests.Assignments;

public class MarkingDeskTests : SchoolTest
{
    private readonly AssignmentId pot;
    private readonly MarkingDesk desk;

    public MarkingDeskTests()
    {
        school.OpenClass();
        pot = school.Assign("Pinch pot");
        desk = new(school.Premises);
    }

    private MarkingView See() => desk.See(school.Lead, school.Class, pot, null);

    private MarkingPiece Of(Caller student) => See().Stretches.Single().Pieces.Single(p => p.Student == student.Id);

    private WorkView Judge(Caller student, decimal? score, string? comment = null, bool back = false, bool unmarkedToo = false)
    {
        var work = Of(student).Work!.Value;
        return desk.Judge(school.Lead, school.Class, work, new(score, comment, back, unmarkedToo, desk.Piece(school.Lead, school.Class, work).Work.Version));
    }

    [Fact]
    public async Task Everybody_whom_it_is_given_to_has_a_place_in_the_line_with_work_or_without()
    {
        await school.HandIn(school.Umi, pot);

        See().Stretches.Single().Pieces.Select(p => (p.SortName, p.Work is not null, p.State))
            .ShouldBe([("Hallgrímsson, Umi", true, WorkState.HandedIn), ("Ravndal, Rúna", false, WorkState.Working)]);
        See().ShouldSatisfyAllConditions(v => v.ToMark.ShouldBe(1), v => v.Drafts.ShouldBe(0), v => v.Title.ShouldBe("Pinch pot"), v => v.Points.ShouldBe(20));
    }

    [Fact]
    public async Task A_draft_mark_is_in_no_figure_that_speaks_of_marks()
    {
        await school.HandIn(school.Umi, pot);
        await school.HandIn(school.Rúna, pot);
        Judge(school.Umi, 17);
        See().ShouldSatisfyAllConditions(v => v.Drafts.ShouldBe(1), v => v.ToMark.ShouldBe(1), v => v.Numbers.Count.ShouldBe(0), v => v.Numbers.Mean.ShouldBeNull());

        Judge(school.Umi, 18, "A dry foot.", back: true);

        See().ShouldSatisfyAllConditions(v => v.Returned.ShouldBe(1), v => v.Numbers.Mean.ShouldBe(18), v => v.Numbers.Count.ShouldBe(1));
        school.Workspace.See(school.Umi, school.Class).Assignments.Single().Own!.ShouldSatisfyAllConditions(
            w => w.HeldBy.ShouldBe(HeldBy.Student), w => w.Score.ShouldBe(18), w => w.Comments.Single().Text.ShouldBe("A dry foot."));
    }

    [Fact]
    public async Task What_is_said_of_a_piece_in_one_go_is_done_whole_or_not_at_all()
    {
        await school.HandIn(school.Umi, pot);

        Refused(() => Judge(school.Umi, 21, "Good.")).ShouldBe("score-range");
        Refused(() => Judge(school.Umi, -1, "Good.", back: true)).ShouldBe("score-range");
        Refused(() => Judge(school.Umi, null, "Good.", back: true)).ShouldBe("work-unmarked");
        Refused(() => Judge(school.Umi, 12, new string('x', 4001))).ShouldBe("too-long");
        Refused(() => desk.Judge(school.CoTeacher, school.Class, Of(school.Umi).Work!.Value, new(12, "Good.", true, false, 1))).ShouldBe("changed-meanwhile");

        var piece = desk.Piece(school.Lead, school.Class, Of(school.Umi).Work!.Value).Work;
        piece.ShouldSatisfyAllConditions(w => w.Comments.ShouldBeEmpty(), w => w.Score.ShouldBeNull(), w => w.State.ShouldBe(WorkState.HandedIn));
        Judge(school.Umi, null, null, back: true, unmarkedToo: true).State.ShouldBe(WorkState.Returned);
    }

    [Fact]
    public async Task A_mark_keeps_its_decimals_and_goes_away_with_nothing()
    {
        await school.HandIn(school.Umi, pot);
        Judge(school.Umi, 18.5m).Score.ShouldBe(18.5m);
        Judge(school.Umi, 18.12m).Score.ShouldBe(18.12m);
        Refused(() => Judge(school.Umi, 18.125m)).ShouldBe("score-decimals");
        Judge(school.Umi, null).Score.ShouldBeNull();
    }

    [Fact]
    public async Task Of_a_student_all_assignments_stand_in_the_line()
    {
        school.Assign("Bowl", folders: "Papers");
        await school.HandIn(school.Umi, pot);

        var view = desk.See(school.Lead, school.Class, null, school.Umi.Id);

        view.Title.ShouldBe("Umi Hallgrímsson");
        // Marks of different assignments are no population.
        Judge(school.Umi, 12, null, back: true);
        desk.See(school.Lead, school.Class, null, school.Umi.Id).Numbers.Count.ShouldBe(0);
        desk.See(school.Lead, school.Class, pot, null).Numbers.Count.ShouldBe(1);
        view.Stretches.Single().Pieces.Select(p => (p.Title, p.Student)).ShouldBe([("Pinch pot", school.Umi.Id), ("Bowl", school.Umi.Id)], ignoreOrder: true);
        Refused(() => desk.See(school.Lead, school.Class, null, null)).ShouldBe("marking-of-what");
        Refused(() => desk.See(school.Lead, school.Class, null, school.Outsider.Id)).ShouldBe("not-found");
    }

    [Fact]
    public async Task Files_are_shown_as_what_is_in_them_and_a_page_with_a_script_never()
    {
        var png = Convert.FromHexString("89504E470D0A1A0A0000000D49484452");
        await school.Work.AddFile(school.Umi, school.Class, pot, "kiln.jpg", new MemoryStream(png), default);
        await school.Work.AddFile(school.Umi, school.Class, pot, "trick.png", new MemoryStream("<script>alert(1)</script>"u8.ToArray()), default);
        await school.HandIn(school.Umi, pot, "What the glaze did");
        var work = Of(school.Umi).Work!.Value;

        var files = desk.Piece(school.Lead, school.Class, work).Files;

        files.Select(f => (f.Name, f.Look)).ShouldBe([("kiln.jpg", FileLook.Image), ("trick.png", FileLook.Download), (files[2].Name, FileLook.Text)]);
        var (shown, type) = desk.Look(school.Lead, school.Class, work, null, files[0].Id);
        using (shown.Content) type.ShouldBe("image/png");
        var (text, plain) = desk.Look(school.Lead, school.Class, work, null, files[2].Id);
        using (var reader = new StreamReader(text.Content, Encoding.UTF8)) (await reader.ReadToEndAsync()).ShouldBe("What the glaze did");
        plain.ShouldBe("text/plain; charset=utf-8");
        Refused(() => desk.Look(school.Lead, school.Class, work, null, files[1].Id)).ShouldBe("file-not-shown");
    }

    [Fact]
    public async Task While_it_is_worked_on_nobody_looks_in_but_each_time_it_was_handed_in_stays_in_view()
    {
        await school.HandIn(school.Umi, pot, "first");
        Judge(school.Umi, 12, null, back: true);
        await school.Work.AddFile(school.Umi, school.Class, pot, "second.txt", TinySchool.Bytes("second"), default);
        school.Work.HandIn(school.Umi, school.Class, pot);
        var work = Of(school.Umi).Work!.Value;
        var piece = desk.Piece(school.Lead, school.Class, work);
        piece.Files.Count(f => f.Turn is null).ShouldBe(2);
        piece.Files.Count(f => f.Turn is not null).ShouldBe(1);

        school.Work.TakeBack(school.Umi, school.Class, pot);
        await school.Work.AddFile(school.Umi, school.Class, pot, "secret.txt", TinySchool.Bytes("not yet"), default);

        var open = desk.Piece(school.Lead, school.Class, work);
        open.Files.ShouldAllBe(f => f.Turn != null);
        open.Files.Count.ShouldBe(3);
        var secret = school.Workspace.See(school.Umi, school.Class).Assignments.Single().Own!.Files.Single(f => f.Name == "secret.txt").Id;
        Refused(() => desk.Look(school.Lead, school.Class, work, null, secret)).ShouldBe("not-found");
        var turn = open.Files[0];
        using var once = desk.Look(school.Lead, school.Class, work, turn.Turn, turn.Id).File.Content;
        new StreamReader(once).ReadToEnd().ShouldBe("first");
    }

    [Fact]
    public async Task Sections_of_a_combined_roster_are_one_line_and_one_population_and_go_back_in_one_act()
    {
        var second = school.Making.Make(school.Lead, school.New("Clay", "6C"));
        school.Roster.Enroll(school.Lead, second, [school.Outsider.Id], ClassRole.Student);
        school.Making.Open(school.Lead, second, school.Workspace.Head(school.Lead, second).Version);
        var other = school.Assigning.Make(school.Lead, second, new("pinch pot", "x", 20, null, null, null, [school.Workspace.See(school.Lead, second).Folders.First(f => f.Name == "Papers").Id], null, Publish: true, PublishAt: null)).Id;
        var combined = new CombinedRosters(school.Premises, school.Returns).Make(school.Lead, "All of Clay", [new(second, 3), new(school.Class, 0)]);
        await school.HandIn(school.Umi, pot);
        await school.HandIn(school.Rúna, pot);
        await school.Work.AddFile(school.Outsider, second, other, "a.txt", TinySchool.Bytes("x"), default);
        school.Work.HandIn(school.Outsider, second, other);

        var view = desk.OfCombined(school.Lead, combined, "PINCH POT");
        view.Stretches.Select(s => (s.Letter, s.Class, s.Pieces.Count)).ShouldBe([("A", second, 1), ("B", school.Class, 2)]);
        foreach (var (s, mark) in view.Stretches.SelectMany(s => s.Pieces.Select(p => (s.Class, p.Work!.Value))).Zip([10m, 12m, 20m]))
            desk.Judge(school.Lead, s.Class, s.Value, new(mark, null, false, false, desk.Piece(school.Lead, s.Class, s.Value).Work.Version));
        var done = new ReturningMany(school.Premises).Do(school.Lead, new([second, school.Class], null, false, [pot, other]), null);

        done.Pieces.ShouldBe(3);
        desk.OfCombined(school.Lead, combined, "Pinch pot").Numbers.ShouldSatisfyAllConditions(n => n.Count.ShouldBe(3), n => n.Mean.ShouldBe(14), n => n.Median.ShouldBe(12));
        Refused(() => desk.OfCombined(school.CoTeacher, combined, "Pinch pot")).ShouldBe("not-found");
        Refused(() => desk.OfCombined(school.Lead, combined, "Bowl")).ShouldBe("not-found");
    }

    [Fact]
    public async Task What_is_returned_of_one_assignment_leaves_the_others_where_they_are()
    {
        var bowl = school.Assign("Bowl", folders: "Papers");
        await school.HandIn(school.Umi, pot);
        await school.HandIn(school.Umi, bowl);
        Judge(school.Umi, 15);

        new ReturningMany(school.Premises).Do(school.Lead, new([school.Class], null, true, [pot]), null).Pieces.ShouldBe(1);

        school.Returns.See(school.Coordinator, school.Class).Held.ShouldBe(1);
    }
}
