using System.Text;
using SpringLoft.Formats.Csv;

namespace SpringLoft.Formats.Tests.Csv;

/// <summary>Our tables against RFC 4180 section 2, rule by rule, and against SQLite's own reader.</summary>
public class Rfc4180Tests
{
    private static string Text(string?[] header, params string?[][] rows) => Encoding.UTF8.GetString(CsvTable.Write(header!, rows));

    // Rules 1 and 3: records on lines of their own, ended by CRLF, the header first.
    [Fact]
    public void Rules_1_and_3_lines_end_in_CRLF_and_the_header_stands_first() => Text(["a", "b"], ["1", "2"]).ShouldBe("a,b\r\n1,2\r\n");

    // Rules 6 and 7: fields with commas, line breaks or quotes stand in quotes; a quote inside is doubled.
    [Theory]
    [InlineData("x,y", "\"x,y\"")]
    [InlineData("two\r\nlines", "\"two\r\nlines\"")]
    [InlineData("say \"hi\"", "\"say \"\"hi\"\"\"")]
    public void Rules_6_and_7_what_must_be_quoted_is(string field, string written) => Text(["a"], [field]).ShouldBe($"a\r\n{written}\r\n");

    [Fact]
    public void Nothing_is_an_empty_field() => Text(["a", "b"], [null, "x"]).ShouldBe("a,b\r\n,x\r\n");

    // Rule 4: every line has the same number of fields.
    [Fact]
    public void Rule_4_a_row_of_another_length_is_refused() => Should.Throw<ArgumentException>(() => Text(["a", "b"], ["1"]));

    [Fact]
    public void The_sqlite3_shell_reads_back_every_awkward_field()
    {
        using var scratch = new Scratch();
        File.WriteAllBytes(scratch.Under("t.csv"), CsvTable.Write(["name", "note"], [["O'Malley, Søren", "said \"no\"\r\ntwice"], ["日記", ""]]));

        var (code, said) = Shell.Run(scratch.Path, "sqlite3", ":memory:", "-cmd", ".import --csv t.csv t", "SELECT count(*), max(length(note)), hex(max(name)) FROM t");

        code.ShouldBe(0);
        said.Trim().ShouldBe($"2|16|{Convert.ToHexString(Encoding.UTF8.GetBytes("日記"))}");
    }
}
