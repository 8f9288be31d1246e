using CsCheck;
using SpringLoft.Core.Assignments;

namespace SpringLoft.Core.Tests.Assignments;

public class ScoreMatchingTests
{
    private static readonly ClassId First = new(1), Second = new(2);
    private static readonly ScorePlace[] Places =
    [
        new(First, "Clay 9A", new(11), "rec-11", "1011", "umi@skerry.example"),
        new(First, "Clay 9A", new(12), "rec-12", "1012", null),
        new(Second, "Clay 9B", new(13), null, "1013", "tor@skerry.example"),
        new(Second, "Clay 9B", new(12), "rec-12", "1012", null),
    ];

    private static readonly ScoreTarget[] Targets =
    [
        new(First, new(101), "Pinch pot", 20, true, []),
        new(Second, new(201), "PINCH pot", 20, true, []),
        new(First, new(102), "Glaze", 10, true, [new(11)]),
        new(First, new(103), "Log", null, true, []),
        new(First, new(104), "Later", 10, false, []),
        new(First, new(105), "Test (2)", 10, true, []),
    ];

    private static MatchedScores Match(string[] columns, params ScoreRow[] rows) => ScoreMatching.Match(new(columns, rows), Places, Targets, (_, _) => null);

    private static ScoreRow Row(string? number, string? section, params string?[] cells) => new(2, null, number, null, section, cells);

    private static ScoreFault Fault(MatchedScores m) => m.Findings.ShouldHaveSingleItem().Fault;

    [Fact]
    public void A_score_is_its_students_by_number_and_comes_into_their_section()
    {
        var m = Match(["Pinch pot (20)"], Row("1011", null, "18.5"), Row("1013", "Clay 9B", "7"));

        m.Steps.ShouldBe([new(2, First, new(101), new(11), 18.5m), new(2, Second, new(201), new(13), 7)]);
        m.Findings.ShouldBeEmpty();
    }

    [Fact]
    public void By_record_id_then_number_then_e_mail_and_two_people_are_a_question()
    {
        Match(["Pinch pot"], new ScoreRow(2, "REC-11", null, null, null, ["3"])).Steps.Single().Student.ShouldBe(new(11));
        Match(["Pinch pot"], new ScoreRow(2, null, "9999", "Tor@Skerry.example", null, ["3"])).Steps.Single().Student.ShouldBe(new(13));
        Fault(Match(["Pinch pot"], new ScoreRow(2, null, "1011", "tor@skerry.example", null, ["3"]))).ShouldBe(ScoreFault.TwoPeople);
        Fault(Match(["Pinch pot"], new ScoreRow(2, null, null, null, null, ["3"]))).ShouldBe(ScoreFault.NobodyNamed);
        Fault(Match(["Pinch pot"], Row("9999", null, "3"))).ShouldBe(ScoreFault.NotOnRoster);
    }

    [Fact]
    public void Two_rows_of_one_student_are_both_left_out()
    {
        var m = Match(["Pinch pot"], Row("1011", null, "3"), Row("1011", null, "4"), Row("1013", null, "5"));

        m.Steps.Select(s => s.To).ShouldBe([5]);
        m.Findings.Select(f => f.Fault).ShouldBe([ScoreFault.Twice, ScoreFault.Twice]);
    }

    [Fact]
    public void Rows_without_end_of_one_student_are_told_and_none_is_taken()
    {
        var row = Row("1011", null, "3");
        var m = ScoreMatching.Match(new(["Pinch pot"], [.. Enumerable.Repeat(row, 200_000)]), Places, Targets, (_, _) => null);

        (m.Steps.Count, m.Findings.Count).ShouldBe((0, 200_000));
    }

    [Fact]
    public void Who_is_in_two_sections_is_told_apart_by_the_section_that_is_named()
    {
        Match(["Pinch pot"], Row("1012", "clay 9b", "3")).Steps.Single().Class.ShouldBe(Second);
        Fault(Match(["Pinch pot"], Row("1012", null, "3"))).ShouldBe(ScoreFault.SeveralSections);
        Fault(Match(["Pinch pot"], Row("1011", "Clay 9B", "3"))).ShouldBe(ScoreFault.OtherSection);
        Fault(Match(["Pinch pot"], Row("1011", "Clay 9C", "3"))).ShouldBe(ScoreFault.OtherSection);
    }

    [Theory]
    [InlineData("Painting", ScoreFault.ColumnUnknown)]
    [InlineData("Log", ScoreFault.NoPoints)]
    [InlineData("Later", ScoreFault.NotPublished)]
    [InlineData("Pinch pot (25)", ScoreFault.PointsDiffer)]
    public void A_column_that_is_no_assignment_with_these_points_is_left_out_whole(string column, ScoreFault fault)
    {
        var m = Match([column], Row("1011", null, "3"), Row("1013", null, "4"));

        Fault(m).ShouldBe(fault);
        m.Steps.ShouldBeEmpty();
    }

    [Fact]
    public void Two_columns_of_one_assignment_are_both_left_out() =>
        Match(["Pinch pot", "pinch POT (20)"], Row("1011", null, "3", "4")).Findings.Select(f => f.Fault).ShouldBe([ScoreFault.ColumnTwice, ScoreFault.ColumnTwice]);

    [Fact]
    public void A_title_may_end_in_a_number_in_brackets()
    {
        Match(["Test (2)"], Row("1011", null, "3")).Steps.Single().Assignment.ShouldBe(new(105));
        Match(["Test (2) (10)"], Row("1011", null, "3")).Steps.Single().Assignment.ShouldBe(new(105));
    }

    [Fact]
    public void What_is_not_given_to_the_student_or_not_set_in_their_section_is_told()
    {
        Fault(Match(["Glaze"], Row("1012", "Clay 9A", "3"))).ShouldBe(ScoreFault.NotGiven);
        Fault(Match(["Glaze"], Row("1013", null, "3"))).ShouldBe(ScoreFault.NotInSection);
    }

    [Theory]
    [InlineData("18.5", 18.5, null)]
    [InlineData(" 18,5 ", 18.5, null)]
    [InlineData("20", 20.0, null)]
    [InlineData("0", 0.0, null)]
    [InlineData("-1", 0.0, ScoreFault.Range)]
    [InlineData("20.5", 0.0, ScoreFault.Range)]
    [InlineData("1,250", 0.0, ScoreFault.Decimals)]
    [InlineData("18.125", 0.0, ScoreFault.Decimals)]
    [InlineData("1.250,5", 0.0, ScoreFault.NoNumber)]
    [InlineData("1 250", 0.0, ScoreFault.NoNumber)]
    [InlineData("ill", 0.0, ScoreFault.NoNumber)]
    [InlineData("85%", 0.0, ScoreFault.NoNumber)]
    [InlineData("1e1", 0.0, ScoreFault.NoNumber)]
    [InlineData("١٢", 0.0, ScoreFault.NoNumber)]
    [InlineData("999999999999999999999", 0.0, ScoreFault.NoNumber)]
    public void A_score_is_a_number_as_people_write_it_and_nothing_is_guessed(string text, double score, ScoreFault? fault)
    {
        var m = Match(["Pinch pot"], Row("1011", null, text));

        if (fault is { } f) (m.Findings.Single().Fault, m.Findings.Single().Value, m.Steps.Count).ShouldBe((f, text, 0));
        else m.Steps.Single().To.ShouldBe((decimal)score);
    }

    [Fact]
    public void An_empty_cell_takes_no_mark_away() => Match(["Pinch pot"], Row("1011", null, (string?)null)).ShouldSatisfyAllConditions(m => m.Steps.ShouldBeEmpty(), m => m.Findings.ShouldBeEmpty());

    [Fact]
    public void What_stands_there_already_is_no_change_and_a_draft_stands_before_the_mark_that_counts()
    {
        MatchedScores At(WorkFact standing, string text) => ScoreMatching.Match(new(["Pinch pot"], [Row("1011", null, text)]), Places, Targets, (_, _) => standing);

        At(new(WorkState.Returned, 1, 12, 12), "12,0").Same.ShouldBe(1);
        At(new(WorkState.Returned, 1, 14, 12), "12").Steps.Single().To.ShouldBe(12);
        At(new(WorkState.HandedIn, 1, null, 12), "12").Same.ShouldBe(1);
        At(new(WorkState.HandedIn, 1, 9), "9").Same.ShouldBe(1);
    }

    // Whatever rubbish a file holds, each cell with something in it is taken, the same, or named; none is dropped in silence.
    [Fact]
    public void Nothing_in_a_file_is_dropped_in_silence()
    {
        static Gen<string?> Of(params string?[] among) => Gen.Int[0, among.Length - 1].Select(i => among[i]);
        var number = Of("1011", "1012", "1013", "9", null);
        var cell = Gen.OneOf(Of("3", "18,5", "-1", "21", "x", null), Gen.String[0, 5].Select(s => s.Length == 0 ? null : s));
        Gen.Select(number, Of("Clay 9A", "Clay 9B", "Clay 9Z", null), cell, cell).List[0, 20].Sample(rows =>
        {
            string[] columns = ["Pinch pot", "Glaze (10)"];
            ScoreRow[] sheet = [.. rows.Select((r, i) => new ScoreRow(i + 2, null, r.Item1, null, r.Item2, [r.Item3, r.Item4]))];
            var m = Match(columns, sheet);

            var lost = m.Findings.Where(f => f.Column is null).Select(f => f.Line).ToHashSet();
            var cells = sheet.Where(r => !lost.Contains(r.Line)).Sum(r => r.Cells.Count(x => x is not null));
            (m.Steps.Count + m.Same + m.Findings.Count(f => f.Column is not null)).ShouldBe(cells);
            m.Steps.Select(s => (s.Assignment, s.Student)).Distinct().Count().ShouldBe(m.Steps.Count);
        }, iter: 3000);
    }
}
