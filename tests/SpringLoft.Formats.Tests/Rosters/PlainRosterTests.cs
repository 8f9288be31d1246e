using System.Text;
using SpringLoft.Core;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.Csv;
using SpringLoft.Formats.Rosters;

namespace SpringLoft.Formats.Tests.Rosters;

public class PlainRosterTests
{
    private static Stream Csv(string text) => new MemoryStream(Encoding.UTF8.GetBytes(text));

    private static (RosterDelivery Delivery, IReadOnlyList<DeliveryFinding> Findings, int All) Read(string text, bool whole = false) =>
        PlainRoster.Read(Csv(text), "people.csv", [.. PlainRoster.Columns(Csv(text), "people.csv").Select(c => c.Is)], whole);

    [Fact]
    public void Columns_are_guessed_by_name_and_shown_with_what_stands_in_them() =>
        PlainRoster.Columns(Csv("Student number;Last name;First name;E-mail;Shoe size\n1001;Hall;Umi;u@x.invalid;36\n"), "people.csv").Select(c => (c.Name, c.Is, c.Examples.Single())).ShouldBe(
            [("Student number", RosterColumn.StudentNumber, "1001"), ("Last name", RosterColumn.Family, "Hall"), ("First name", RosterColumn.Given, "Umi"), ("E-mail", RosterColumn.Email, "u@x.invalid"), ("Shoe size", RosterColumn.Nothing, "36")]);

    [Theory]
    [InlineData("number,name\n1001,\"Hall, Umi\"\n", "Umi", "Hall")]
    [InlineData("number,name\n1001,Umi de Hall\n", "Umi de", "Hall")]
    [InlineData("number,given,family\n1001,U\u202Emi,\u2066Hall\u2069\n", "Umi", "Hall")]
    [InlineData("number\tfamily\tgiven\n1001\tHall\tUmi\n", "Umi", "Hall")]
    public void Names_come_whole_or_in_parts(string text, string given, string family) => Read(text).Delivery.People.Single().ShouldSatisfyAllConditions(p => p.Given.ShouldBe(given), p => p.Family.ShouldBe(family), p => p.StudentNumber.ShouldBe("1001"));

    [Fact]
    public void A_table_of_people_and_classes_enrolls_them()
    {
        var (d, findings, _) = Read("class,number,name,role\nClay 6B,1001,\"Hall, Umi\",student\nTides,1001,\"Hall, Umi\",student\nClay 6B,,\"Far, Oisín\",teacher\n");

        findings.ShouldBeEmpty();
        d.People.Count.ShouldBe(2);
        d.Enrollments.Select(e => (e.ClassRef, e.Role)).ShouldBe([("Clay 6B", ClassRole.Student), ("Tides", ClassRole.Student), ("Clay 6B", ClassRole.CoTeacher)]);
        d.PeopleList!.Whole.ShouldBeFalse();
    }

    [Fact]
    public void Only_a_table_that_is_said_to_be_whole_takes_anybody_away() => (Read("number,name\n1,A B\n", true).Delivery.PeopleList!.Whole, Read("number,name\n1,A B\n").Delivery.PeopleList!.Whole).ShouldBe((true, false));

    [Fact]
    public void Rows_that_cannot_be_taken_are_told_and_the_rest_comes()
    {
        var (d, findings, _) = Read("number,name,e-mail,role\n1,A B,a.b,student\n2,,c@x.invalid,student\n3,C D,,parrot\n1,A B,,student\n");

        d.People.Select(p => (p.StudentNumber, p.Email)).ShouldBe([("1", null)]);
        findings.Select(f => (f.Line, f.Column)).ShouldBe([(2, "e-mail"), (3, "name"), (4, "role"), (5, "")]);
    }

    [Fact]
    public void A_table_that_says_nobody_is_refused() => Should.Throw<RefusedException>(() => Read("colour,size\nred,3\n")).Refusal.Code.ShouldBe("columns-needed");

    [Theory]
    [InlineData("=1+1")]
    [InlineData("+1")]
    [InlineData("-1")]
    [InlineData("@SUM(A1)")]
    [InlineData("\t=1")]
    [InlineData("'=1")]
    public void What_a_spreadsheet_would_work_out_goes_out_as_text_and_comes_in_as_it_was(string text)
    {
        CsvTable.ForSpreadsheets(text).ShouldBe("'" + text);
        CsvTable.WithoutMark(CsvTable.ForSpreadsheets(text)!).ShouldBe(text);
    }

    [Theory]
    [InlineData("Umi")]
    [InlineData("'tis")]
    [InlineData("")]
    [InlineData("O'Malley")]
    public void Anything_else_goes_out_as_it_is(string text) => (CsvTable.ForSpreadsheets(text), text.Length == 0 ? text : CsvTable.WithoutMark(text)).ShouldBe((text, text));

    [Theory]
    [InlineData("lead teacher", SchoolRole.Teacher, ClassRole.Lead)]
    [InlineData("Co-teacher", SchoolRole.Teacher, ClassRole.CoTeacher)]
    [InlineData("staff", SchoolRole.Teacher, ClassRole.CoTeacher)]
    [InlineData("student", SchoolRole.Student, ClassRole.Student)]
    [InlineData("", SchoolRole.Student, ClassRole.Student)]
    public void Where_nothing_is_said_of_the_role_in_the_school_the_role_in_the_class_says_it(string said, SchoolRole role, ClassRole inClass)
    {
        var d = Read($"class,name,role in class\nClay,\"Brack, Oona\",{said}\n").Delivery;

        (d.People.Single().Role, d.Enrollments.Single().Role).ShouldBe((role, inClass));
    }
}
