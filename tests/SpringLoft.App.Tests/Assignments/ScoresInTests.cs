using System.IO.Compression;
using System.Text;
using SpringLoft.App.Assignments;
using SpringLoft.App.Closing;
using SpringLoft.App.Rosters;
using SpringLoft.Core.Assignments;
using SpringLoft.Store.Assignments;

namespace SpringLoft.App.Tests.Assignments;

public class ScoresInTests : SchoolTest
{
    private readonly AssignmentId pot;
    private readonly ScoresIn scores;

    public ScoresInTests()
    {
        school.OpenClass();
        pot = school.Assign("Pinch pot");
        scores = new(school.Premises);
    }

    private Task<ScoresRead> Look(string table, Caller? by = null) => scores.OfClass(by ?? school.Lead, school.Class, "quiz.csv", null, TinySchool.Bytes(table), default);

    private async Task<ScoresRead> TakeIn(string table) => await scores.OfClass(school.Lead, school.Class, "quiz.csv", (await Look(table)).Seen, TinySchool.Bytes(table), default);

    private WorkRow? Work(Caller student, AssignmentId? of = null) => school.Read(c => WorkStore.Of(c, of ?? pot, student.Id));

    private string Table(string cell, string? second = null) => $"student number,Pinch pot\r\n{NumberOf(school.Umi)},{cell}\r\n{NumberOf(school.Rúna)},{second}\r\n";

    private string NumberOf(Caller student) => school.Read(c => Store.People.PersonStore.Find(c, student.Id))!.StudentNumber!;

    [Fact]
    public async Task It_is_shown_first_and_nothing_is_written()
    {
        await school.HandIn(school.Umi, pot);
        var read = await Look(Table("\"18,5\"", "twelve"));

        read.Changes.ShouldHaveSingleItem().ShouldSatisfyAllConditions(x => x.To.ShouldBe(18.5m), x => x.SortName.ShouldBe("Hallgrímsson, Umi"), x => x.OnPaper.ShouldBeFalse());
        read.Findings.ShouldHaveSingleItem().ShouldBe(new(3, "Pinch pot", ScoreFault.NoNumber, "twelve"));
        (Work(school.Umi)!.Score, Work(school.Rúna), read.Import).ShouldBe((null, null, null));
    }

    [Fact]
    public async Task Scores_come_in_as_drafts_and_are_no_marks_until_they_are_returned()
    {
        await school.HandIn(school.Umi, pot);
        await TakeIn(Table("18.5", "7"));

        var table = new ScoreTables(school.Premises).OfClass(school.Lead, school.Class);
        table.Columns.Single().ShouldSatisfyAllConditions(x => x.Drafts.ShouldBe(2), x => x.Numbers.Count.ShouldBe(0), x => x.Scores.ShouldBeEmpty());
        school.Workspace.See(school.Rúna, school.Class).Assignments.Single().Own!.Score.ShouldBeNull();

        school.Returns.ReturnAll(school.Lead, school.Class, null, false, null).DraftMarks.ShouldBe(2);

        school.Workspace.See(school.Rúna, school.Class).Assignments.Single().Own!.ShouldSatisfyAllConditions(w => w.Score.ShouldBe(7), w => w.State.ShouldBe(WorkState.Returned));
        new ScoreTables(school.Premises).OfClass(school.Lead, school.Class).Columns.Single().Numbers.Mean.ShouldBe(12.75);
    }

    [Fact]
    public async Task What_changed_since_it_was_shown_is_shown_again()
    {
        await school.HandIn(school.Umi, pot);
        var seen = (await Look(Table("18"))).Seen;
        new MarkingDesk(school.Premises).Judge(school.Lead, school.Class, Work(school.Umi)!.Id, new(11, null, false, false, Work(school.Umi)!.Version));

        (await Refused(() => scores.OfClass(school.Lead, school.Class, "quiz.csv", seen, TinySchool.Bytes(Table("18")), default))).ShouldBe("changed-meanwhile");
        (Work(school.Umi)!.Score, (await Look(Table("18"))).Changes.Single().Draft).ShouldBe((11, 11));
    }

    [Fact]
    public async Task It_is_taken_back_in_one_act_and_what_was_returned_since_stays()
    {
        await school.HandIn(school.Umi, pot);
        var glaze = school.Assign("Glaze");
        await school.HandIn(school.Rúna, glaze);
        var draft = Work(school.Rúna, glaze)!;
        school.Returns.Mark(school.Lead, school.Class, draft.Id, 3, draft.Version);
        var import = (await TakeIn($"student number,Pinch pot,Glaze\n{NumberOf(school.Umi)},18,\n{NumberOf(school.Rúna)},7,9\n")).Import!.Value;
        var umi = Work(school.Umi)!;
        school.Returns.Return(school.Lead, school.Class, umi.Id, false, umi.Version);

        scores.TakeBack(school.Lead, import).ShouldBe(new(2, 1));

        (Work(school.Umi)!.ReturnedScore, Work(school.Rúna), Work(school.Rúna, glaze)!.Score).ShouldBe((18, null, 3));
        Refused(() => scores.TakeBack(school.Lead, import)).ShouldBe("not-found");
        new ScoreTables(school.Premises).OfClass(school.Lead, school.Class).Imports.ShouldBeEmpty();
    }

    [Fact]
    public async Task Taken_back_after_the_piece_was_handed_in_again_it_waits_without_a_mark_and_what_was_returned_counts()
    {
        await school.HandIn(school.Umi, pot);
        school.Returns.Mark(school.Lead, school.Class, Work(school.Umi)!.Id, 12, Work(school.Umi)!.Version);
        school.Returns.ReturnAll(school.Lead, school.Class, null, false, null);
        var import = (await TakeIn(Table("14"))).Import!.Value;
        school.Work.HandIn(school.Umi, school.Class, pot);
        Work(school.Umi)!.Score.ShouldBe(14, "a draft is not lost by handing in");

        scores.TakeBack(school.Lead, import).ShouldBe(new(1, 0));

        Work(school.Umi)!.ShouldSatisfyAllConditions(w => w.Score.ShouldBeNull(), w => w.ReturnedScore.ShouldBe(12), w => w.State.ShouldBe(WorkState.HandedIn));
    }

    [Fact]
    public async Task A_mark_that_comes_for_returned_work_stands_beside_the_one_that_counts_until_it_is_returned()
    {
        await school.HandIn(school.Umi, pot);
        school.Returns.Mark(school.Lead, school.Class, Work(school.Umi)!.Id, 12, Work(school.Umi)!.Version);
        school.Returns.ReturnAll(school.Lead, school.Class, null, false, null);

        (await TakeIn(Table("14"))).Changes.Single().Counts.ShouldBe(12);

        school.Workspace.See(school.Umi, school.Class).Assignments.Single().Own!.Score.ShouldBe(12);
        school.Closing.See(school.Class).Findings.ShouldContain(f => f.Code == "held-marked");
        Refused(() => school.Close()).ShouldBe("closing-blocked");
        school.Returns.ReturnAll(school.Lead, school.Class, null, false, null);
        school.Workspace.See(school.Umi, school.Class).Assignments.Single().Own!.Score.ShouldBe(14);
        school.Close();
    }

    [Fact]
    public async Task Out_and_in_again_changes_nothing_as_a_table_and_as_a_bundle()
    {
        foreach (var (student, mark) in new[] { (school.Umi, 18.5m), (school.Rúna, 0m) })
        {
            await school.HandIn(student, pot);
            school.Returns.Mark(school.Lead, school.Class, Work(student)!.Id, mark, Work(student)!.Version);
        }
        school.Returns.ReturnAll(school.Lead, school.Class, null, false, null);
        foreach (var format in Enum.GetValues<ScoreFormat>())
        {
            using var file = new ScoresOut(school.Premises).OfClass(school.Lead, school.Class, format).Content;
            var read = await scores.OfClass(school.Lead, school.Class, "again", null, file, default);
            (read.Changes.Count, read.Same, read.Findings.Count).ShouldBe((0, 2, 0), $"{format}");
        }
    }

    [Fact]
    public async Task A_bundle_holds_the_files_of_the_standard_and_a_changed_result_comes_in()
    {
        await school.HandIn(school.Umi, pot);
        school.Returns.Mark(school.Lead, school.Class, Work(school.Umi)!.Id, 18, Work(school.Umi)!.Version);
        school.Returns.ReturnAll(school.Lead, school.Class, null, false, null);
        using var changed = new MemoryStream();
        using (var from = new ZipArchive(new ScoresOut(school.Premises).OfClass(school.Lead, school.Class, ScoreFormat.OneRoster).Content))
        using (var to = new ZipArchive(changed, ZipArchiveMode.Create, leaveOpen: true))
        {
            from.Entries.Select(e => e.FullName).ShouldBe(["manifest.csv", "categories.csv", "lineItems.csv", "results.csv", "scoreScales.csv"]);
            foreach (var e in from.Entries)
            {
                using var reader = new StreamReader(e.Open());
                using var writer = new StreamWriter(to.CreateEntry(e.FullName).Open(), new UTF8Encoding(false));
                await writer.WriteAsync((await reader.ReadToEndAsync()).Replace("fully graded,18,", "fully graded,16.5,", StringComparison.Ordinal));
            }
        }
        changed.Position = 0;

        (await scores.OfClass(school.Lead, school.Class, "gradebook.zip", null, changed, default)).Changes.Single().ShouldSatisfyAllConditions(x => x.Counts.ShouldBe(18), x => x.To.ShouldBe(16.5m));
    }

    [Fact]
    public async Task Over_the_sections_of_a_combined_roster_each_score_comes_into_its_own_section()
    {
        var second = school.Making.Make(school.Lead, school.New("Clay", "6C"));
        school.Roster.Enroll(school.Lead, second, [school.Outsider.Id], ClassRole.Student);
        school.Making.Open(school.Lead, second, school.Workspace.Head(school.Lead, second).Version);
        school.Assigning.Make(school.Lead, second, new("PINCH pot", "x", 20, null, null, null, [school.Workspace.See(school.Lead, second).Folders.First(f => f.Name == "Papers").Id], null, true, null));
        var combined = new CombinedRosters(school.Premises, school.Returns).Make(school.Lead, "All of Clay", [new(second, 3), new(school.Class, 0)]);
        var table = $"student number,Pinch pot\n{NumberOf(school.Umi)},18\n{NumberOf(school.Outsider)},9\n";

        var read = await scores.OfCombined(school.Lead, combined, "all.csv", null, TinySchool.Bytes(table), default);
        await scores.OfCombined(school.Lead, combined, "all.csv", read.Seen, TinySchool.Bytes(table), default);

        new ScoreTables(school.Premises).OfCombined(school.Lead, combined).ShouldSatisfyAllConditions(
            t => t.Columns.Single().Drafts.ShouldBe(2), t => t.Columns.Single().Of.Select(a => a.Section).ShouldBe([0, 1]),
            t => t.Sections.Select(s => s.Letter).ShouldBe(["A", "B"]), t => t.Imports.Single().Marks.ShouldBe(2));
        // The same file for one of the classes names who is not in it.
        (await Look(table)).Findings.Single().Fault.ShouldBe(ScoreFault.NotOnRoster);
        (await Refused(() => scores.OfCombined(school.CoTeacher, combined, "all.csv", null, TinySchool.Bytes(table), default))).ShouldBe("not-found");
    }

    [Theory]
    [InlineData("name,Pinch pot\nUmi,18\n", "scores-no-key")]
    [InlineData("", "table-empty")]
    public async Task What_is_no_table_of_scores_is_refused_and_says_what_is_missing(string table, string code) => (await Refused(() => Look(table))).ShouldBe(code);
}
