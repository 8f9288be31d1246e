using System.Text;
using SpringLoft.Core;
using SpringLoft.Formats.Csv;

namespace SpringLoft.Formats.Tests.Csv;

/// <summary>Tables as they come: RFC 4180, section 2, and what spreadsheets make of it.</summary>
public class CsvRowsTests
{
    private static IReadOnlyList<CsvRow> Read(string text, params string[] needed) => CsvRows.Read(new MemoryStream(Encoding.UTF8.GetBytes(text)), "t.csv", needed);

    // RFC 4180, section 2, rules 5 to 7: the examples, under a header.
    [Fact]
    public void Quotes_commas_line_breaks_and_doubled_quotes_are_read_as_RFC_4180_says()
    {
        var row = Read("a,b,c\r\n\"aaa\",\"b \r\nbb\",\"c\"\"cc\"\r\nzzz,yyy,xxx").First();

        (row["a"], row["b"], row["c"]).ShouldBe(("aaa", "b \r\nbb", "c\"cc"));
    }

    [Theory]
    [InlineData("Name,Grade\nUmi,6\n")]
    [InlineData("Name;Grade\r\nUmi;6")]
    [InlineData("Name\tGrade\r\nUmi\t6\r\n")]
    [InlineData("\uFEFFName,Grade\nUmi,6\n")]
    [InlineData("NAME , grade\n\nUmi,6\n\n,\n")]
    public void Separators_line_ends_marks_and_case_do_not_matter(string text)
    {
        var row = Read(text, "name", "grade").ShouldHaveSingleItem();

        (row["name"], row["GRADE"]).ShouldBe(("Umi", "6"));
    }

    [Fact]
    public void Rows_that_are_kept_stay_what_they_were_while_those_handed_out_one_by_one_are_the_reader_s_own()
    {
        const string text = "a,b\n1,x\n2,\n,\n3,z,more\n";
        var rows = Read(text);
        var seen = new List<(int, int, string?, string?)>();

        CsvRows.Each(new MemoryStream(Encoding.UTF8.GetBytes(text)), "t.csv", [], _ => { }, r => seen.Add((r.Line, r.Count, r["a"], r["b"])));

        seen.ShouldBe([(2, 2, "1", "x"), (3, 2, "2", null), (5, 3, "3", "z")]);
        rows.Select(r => (r.Line, r.Count, r["a"], r["b"])).ShouldBe(seen);
        rows[2].At(2).ShouldBe("more");
        rows[2].At(3).ShouldBeNull();
        rows[0].At(-1).ShouldBeNull();
    }

    [Fact]
    public void A_row_of_blanks_is_no_row_whatever_its_blanks_are() => Read("a,b\n \t, \n\"  \",\n\u00A0,\nx,\n").ShouldHaveSingleItem().Line.ShouldBe(5);

    [Fact]
    public void A_row_knows_its_line_though_a_field_before_it_runs_over_several() => Read("a\n\"1\n2\n3\"\nx").Select(r => r.Line).ShouldBe([2, 5]);

    [Fact]
    public void Missing_and_extra_fields_are_blank_and_left_out()
    {
        var rows = Read("a,b\n1\n1,2,3");

        rows[0]["b"].ShouldBeNull();
        rows[1]["b"].ShouldBe("2");
    }

    [Theory]
    [InlineData("", "table-empty")]
    [InlineData("a,b\n1,\"2", "table-unreadable")]
    [InlineData("a,c\n1,2", "table-columns")]
    public void What_cannot_be_read_is_told(string text, string code) => Should.Throw<RefusedException>(() => Read(text, "b")).Refusal.Code.ShouldBe(code);
}
