using System.IO.Compression;
using System.Text;
using SpringLoft.Core;
using SpringLoft.Core.Assignments;
using SpringLoft.Formats.Csv;
using SpringLoft.Formats.OneRoster;
using SpringLoft.Formats.Scores;

namespace SpringLoft.Formats.Tests;

public class OneRosterGradebookTests
{
    // Files and columns as OneRoster 1.2 names them (1EdTech, "OneRoster CSV Binding"), from memory.
    private static MemoryStream Bundle(string items, string? results)
    {
        var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (name, text) in new[] { ("lineItems.csv", items), ("results.csv", results) })
                if (text is not null)
                {
                    using var open = zip.CreateEntry($"export/{name}").Open();
                    open.Write(Encoding.UTF8.GetBytes(text));
                }
        bytes.Position = 0;
        return bytes;
    }

    private const string Items = "sourcedId,status,title,classSourcedId,resultValueMax\ni1,active,Pot,k1,20\ni2,active,Pot,k2,20\ni3,tobedeleted,Old,k1,10\n";

    private static string? Section(string id) => id == "k1" ? "Clay 9A" : null;

    [Fact]
    public void Results_of_a_student_are_a_row_by_class_and_titles_are_columns()
    {
        var sheet = OneRosterGradebook.Read(Bundle(Items, "sourcedId,status,lineItemSourcedId,studentSourcedId,score\nr1,active,i1,s1,18.5\nr2,active,i2,s2,7\nr3,tobedeleted,i1,s3,9\nr4,active,i9,s1,3\n"), Section);

        sheet.Columns.ShouldBe(["Pot (20)", "i9"]);
        sheet.Rows.Select(r => (r.RecordId, r.Section, r.Cells[0], r.Cells[1])).ShouldBe([("s1", "Clay 9A", "18.5", null), ("s2", "k2", "7", null), ("s1", null, null, "3")]);
    }

    [Fact]
    public void Two_results_of_one_student_for_one_item_are_two_rows()
    {
        var sheet = OneRosterGradebook.Read(Bundle(Items, "sourcedId,lineItemSourcedId,studentSourcedId,score\nr1,i1,s1,18\nr2,i1,s1,11\nr3,i1,s1,12\n"), Section);

        sheet.Rows.Select(r => (r.RecordId, r.Cells[0])).ShouldBe([("s1", "18"), ("s1", "11"), ("s1", "12")]);
    }

    [Fact]
    public void A_scale_is_one_row_for_all_that_is_marked_on_it_and_each_result_says_its_level()
    {
        MarkScheme letters = new("Letters", [new("A: fine", 20), new("B", 15)], []), criteria = new(null, [], [new("Form", [new("no", 0), new("yes", 5)])]);
        using var zip = new MemoryStream();
        OneRosterGradebook.Write(zip, [new("i1", "Pot", "", null, null, "k1", 20, letters), new("i2", "Bowl", "", null, null, "k2", 20, letters with { }), new("i3", "Glaze", "", null, null, "k1", 5, criteria), new("i4", "Quiz", "", null, null, "k1", 10)],
            [new("i1", "s1", 15, null), new("i3", "s1", 5, null), new("i4", "s1", 7, null)], Instant.FromUtc(2027, 6, 7, 8, 0));

        var scale = Table(zip, "scoreScales.csv").ShouldHaveSingleItem();
        (scale["title"], scale["scoreScaleValue"]).ShouldBe(("Letters", "{A  fine:20},{B:15}"));
        Table(zip, "lineItems.csv").Select(r => r["scoreScaleSourcedId"]).ShouldBe([scale["sourcedId"], scale["sourcedId"], null, null]);
        Table(zip, "results.csv").Select(r => (r["score"], r["textScore"], r["scoreScaleSourcedId"])).ShouldBe([("15", "B", scale["sourcedId"]), ("5", null, null), ("7", null, null)]);
    }

    [Fact]
    public void A_result_that_says_a_level_and_no_figure_is_that_level() =>
        OneRosterGradebook.Read(Bundle(Items, "sourcedId,lineItemSourcedId,studentSourcedId,textScore\nr1,i1,s1,B\n"), Section).Rows.Single().Cells.ShouldBe(["B"]);

    private static IReadOnlyList<CsvRow> Table(MemoryStream bundle, string name)
    {
        using var zip = new ZipArchive(new MemoryStream(bundle.ToArray()));
        using var open = zip.GetEntry(name)!.Open();
        using var bytes = new MemoryStream();
        open.CopyTo(bytes);
        bytes.Position = 0;
        return CsvRows.Read(bytes, name, ["sourcedId"]);
    }

    [Theory]
    [InlineData(null, "oneroster-no-results")]
    [InlineData("sourcedId,score\nr1,3\n", "table-columns")]
    public void What_is_missing_is_named(string? results, string code) =>
        Should.Throw<RefusedException>(() => OneRosterGradebook.Read(Bundle(Items, results), Section)).Refusal.Code.ShouldBe(code);

    [Fact]
    public void A_bundle_without_end_is_refused_before_it_fills_the_memory()
    {
        var items = new StringBuilder("sourcedId,title,classSourcedId\n");
        var results = new StringBuilder("lineItemSourcedId,studentSourcedId,score\n");
        for (var n = 0; n < 2500; n++)
        {
            items.Append(n).Append(",Item ").Append(n).Append(",k1\n");
            results.Append(n).Append(",s").Append(n).Append(",3\n");
        }
        Should.Throw<RefusedException>(() => OneRosterGradebook.Read(Bundle(items.ToString(), results.ToString()), Section)).Refusal.Code.ShouldBe("too-many");
    }

    [Fact]
    public void A_plain_table_is_read_by_its_names_in_any_order_with_or_without_a_mark()
    {
        var sheet = PlainScores.Read(new MemoryStream(Encoding.UTF8.GetBytes("﻿Pot (20);E-Mail;Name;Class;STUDENT NUMBER;Glaze\r\n18,5;a@x.example;Umi;Clay 9A;1011;\r\n")), "quiz.csv");

        sheet.Columns.ShouldBe(["Pot (20)", "Glaze"]);
        sheet.Rows.Single().ShouldSatisfyAllConditions(r => r.Number.ShouldBe("1011"), r => r.Email.ShouldBe("a@x.example"), r => r.Section.ShouldBe("Clay 9A"), r => r.Cells.ShouldBe(["18,5", null]));
    }
}
