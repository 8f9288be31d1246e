using System.Text;
using SpringLoft.Core;
using SpringLoft.Core.Rosters;
using SpringLoft.Core.Workspaces;
using SpringLoft.Formats.OneRoster;
using SpringLoft.Tests.Shared;

namespace SpringLoft.Formats.Tests.OneRoster;

/// <summary>OneRoster 1.1 and 1.2 CSV bundles; names of files and columns are from memory of those documents.</summary>
public class OneRosterBundleTests
{
    private const string Users11 = "sourcedId,status,dateLastModified,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName,middleName,identifier,email,sms,phone,agentSourcedIds,grades,password\n";
    private const string Classes = "sourcedId,status,dateLastModified,title,grades,courseSourcedId,classCode,classType,location,schoolSourcedId,termSourcedIds,subjects,subjectCodes,periods\n";
    private const string Enrollments = "sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role,primary,beginDate,endDate\n";

    private static ReadBundle Read(params (string, string)[] files) => OneRosterBundle.Read(Zip.Of(files));

    [Fact]
    public void A_bundle_of_1_1_has_the_role_in_users()
    {
        var read = Read(
            ("manifest.csv", "propertyName,value\nmanifest.version,1.0\noneroster.version,1.1\nfile.users,bulk\nfile.enrollments,delta\n"),
            ("orgs.csv", "sourcedId,status,dateLastModified,name,type,identifier,parentSourcedId\no1,active,,Skerry Point School,school,,\n"),
            ("courses.csv", "sourcedId,status,dateLastModified,schoolYearSourcedId,title,courseCode,grades,orgSourcedId,subjects,subjectCodes\nc1,active,,,Boatbuilding,,,o1,,\n"),
            ("academicSessions.csv", "sourcedId,status,dateLastModified,title,type,startDate,endDate,parentSourcedId,schoolYear\ny,active,,2026-27,schoolYear,2026-08-31,2027-06-18,,2027\nt,active,,Autumn,term,2026-08-31,2026-12-18,y,2027\n"),
            ("users.csv", Users11 + "p1,active,,true,o1,student,umi,,Umi,Hallgrímsson,,1001,umi@x.invalid,,,,06,\np2,,,true,o1,teacher,ois,,Oisín,Farquhar,,,,,,,,\np3,,,true,o1,parent,mum,,Ma,Ma,,,,,,,,\n"),
            ("classes.csv", Classes + "k1,active,,Boatbuilding 5A,5,c1,5A,scheduled,Shed,o1,t,,,3\n"),
            ("enrollments.csv", Enrollments + "e1,active,,k1,o1,p1,student,false,,\ne2,active,,k1,o1,p2,teacher,true,,\ne3,tobedeleted,,k1,o1,p9,student,false,,\n"));

        read.Version.ShouldBe("1.1");
        read.Delivery.People.ShouldBe([new("p1", "p1", "Umi", "Hallgrímsson", SchoolRole.Student, "6", "1001", "umi@x.invalid", "umi", "Skerry Point School", false, 2), new("p2", "p2", "Oisín", "Farquhar", SchoolRole.Teacher, null, null, null, "ois", "Skerry Point School", false, 3)]);
        read.Delivery.Classes.ShouldBe([new("k1", "k1", "Boatbuilding", "5A", "3", "Shed", "Autumn", false, 2)]);
        read.Delivery.Enrollments.ShouldBe([new("k1", "p1", ClassRole.Student, false, 2), new("k1", "p2", ClassRole.Lead, false, 3), new("k1", "p9", ClassRole.Student, true, 4)]);
        (read.Delivery.PeopleList!.Whole, read.Delivery.EnrollmentList!.Whole).ShouldBe((true, false));
        (read.Delivery.First, read.Delivery.Last).ShouldBe((new(2026, 8, 31), new(2027, 6, 18)));
        read.Findings.ShouldBeEmpty();
        read.Delivery.Contacts.ShouldHaveSingleItem().ShouldSatisfyAllConditions(k => (k.Ref, k.Name, k.Email, k.Line).ShouldBe(("p3", "Ma Ma", null, 4)), k => k.Children.ShouldBeEmpty());
    }

    [Fact]
    public void A_bundle_of_1_2_has_roles_in_a_file_of_their_own_and_the_primary_one_counts()
    {
        var read = Read(
            ("roles.csv", "sourcedId,status,dateLastModified,userSourcedId,roleType,role,beginDate,endDate,orgSourcedId,userProfileSourcedId\nr1,,,p1,secondary,student,,,o1,\nr2,,,p1,primary,teacher,,,o1,\nr3,,,p2,primary,student,,,o1,\n"),
            ("users.csv", "sourcedId,givenName,familyName,preferredGivenName,identifier\np1,Margaret,Okonkwo,Peg,9\np2,Umi,Hall,,1001\np3,No,Role,,\n"));

        read.Delivery.People.Select(p => (p.Ref, p.Given, p.Role, p.StudentNumber)).ShouldBe([("p1", "Peg", SchoolRole.Teacher, null), ("p2", "Umi", SchoolRole.Student, "1001")]);
    }

    // Roles and agentSourcedIds of users.csv: 1EdTech, OneRoster 1.1 CSV tables, "users" (from memory); in 1.2 the role stands in roles.csv.
    [Fact]
    public void Who_is_at_home_with_students_is_a_contact_whichever_side_names_the_other()
    {
        var read = Read(
            ("roles.csv", "sourcedId,userSourcedId,roleType,role\nr1,p1,primary,student\nr2,p2,primary,student\nr3,g1,primary,guardian\nr4,g2,primary,parent\nr5,t1,primary,teacher\nr6,t1,secondary,parent\n"),
            ("users.csv", "sourcedId,givenName,familyName,email,agentSourcedIds,status\np1,Umi,Hall,,\"g1,g2\",\np2,Ada,Hall,,,\ng1,Ma,Hall,ma@hall.example,p2,\ng2,Pa,Hall,no address,,tobedeleted\nx1,No,Role,,,\nt1,Tea,Cher,tea@x.example,p1,\n"));

        read.Delivery.People.Select(p => p.Ref).ShouldBe(["p1", "p2", "t1"]);
        read.Delivery.Contacts.Select(k => (k.Ref, k.Name, k.Email, string.Join(' ', k.Children), k.Gone)).ShouldBe([("g1", "Ma Hall", "ma@hall.example", "p1 p2", false), ("g2", "Pa Hall", null, "p1", true), ("t1", "Tea Cher", "tea@x.example", "p1", false)]);
        read.Findings.Select(f => f.Text).ShouldBe(["“no address” is no e-mail address: it is left out, the person comes.", "1 people are neither students nor staff, nor contacts at home, and are left out."]);
    }

    [Theory]
    [InlineData(",Umi,Hall,student", "sourcedId")]
    [InlineData("p0,Umi,Hall,student", "sourcedId")]
    [InlineData("p1,,,student", "familyName")]
    [InlineData("p1,Umi,Hall,wizard", "role")]
    public void A_row_that_cannot_be_taken_is_told_by_line_and_column_and_the_rest_comes(string row, string column)
    {
        var read = Read(("users.csv", $"sourcedId,givenName,familyName,role\np0,First,One,student\n{row}\np2,Last,One,student\n"));

        read.Delivery.People.Select(p => p.Ref).ShouldBe(["p0", "p2"]);
        read.Findings.ShouldHaveSingleItem().ShouldSatisfyAllConditions(f => f.File.ShouldBe("users.csv"), f => f.Line.ShouldBe(3), f => f.Column.ShouldBe(column));
    }

    [Fact]
    public void Columns_are_found_whatever_their_case_and_order_and_company_and_line_ends()
    {
        var read = Read(("export/USERS.CSV", "\uFEFFROLE,extra,FamilyName,GIVENNAME,SourcedID\r\nstudent,?,\"Hall, \"\"the\nthird\"\"\",Umi,p1\r\n"));

        // A line break within a field is read, and a name is one line.
        read.Delivery.People.Single().ShouldSatisfyAllConditions(p => p.Family.ShouldBe("Hall, \"the third\""), p => p.Given.ShouldBe("Umi"));
    }

    [Theory]
    [InlineData("windows-1252", "Windows-1252")]
    [InlineData("utf-16", "UTF-16")]
    public void Another_encoding_is_found_out_and_said(string name, string said)
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        var encoding = Encoding.GetEncoding(name);
        byte[] bytes = [.. encoding.GetPreamble(), .. encoding.GetBytes("sourcedId,givenName,familyName,role\np1,Zoë,Müller,student\n")];
        var read = OneRosterBundle.Read(Zip.OfBytes(("users.csv", bytes)));

        read.Delivery.People.Single().ShouldSatisfyAllConditions(p => p.Given.ShouldBe("Zoë"), p => p.Family.ShouldBe("Müller"));
        read.Findings.ShouldHaveSingleItem().Text.ShouldContain(said);
    }

    [Fact]
    public void Dates_in_other_forms_are_told_and_left_out()
    {
        var read = Read(("users.csv", Users11), ("academicSessions.csv", "sourcedId,title,type,startDate,endDate\ny,Year,schoolYear,31.08.2026,2027-06-18\n"));

        read.Findings.ShouldHaveSingleItem().ShouldSatisfyAllConditions(f => f.Column.ShouldBe("startDate"), f => f.Text.ShouldContain("31.08.2026"));
        read.Delivery.First.ShouldBeNull();
    }

    [Fact]
    public void A_column_that_is_needed_and_missing_is_named()
    {
        var refused = Should.Throw<RefusedException>(() => Read(("enrollments.csv", "sourcedId,userSourcedId,role\n"))).Refusal;

        refused.Code.ShouldBe("table-columns");
        refused.What.ShouldContain("classSourcedId");
    }

    [Fact]
    public void Fields_that_are_over_are_told()
    {
        Read(("users.csv", "sourcedId,givenName,familyName,role\np1,Umi,Hall,student,over,over\n")).Findings.Single().Text.ShouldContain("6 fields where the header has 4");
    }

    [Fact]
    public void A_file_of_0_bytes_is_an_empty_list_and_said() => Read(("users.csv", ""), ("enrollments.csv", Enrollments)).ShouldSatisfyAllConditions(
        r => r.Delivery.PeopleList.ShouldNotBeNull(), r => r.Delivery.People.ShouldBeEmpty(), r => r.Findings.Single().Text.ShouldContain("0 bytes"));

    [Fact]
    public void A_zip_without_rosters_says_what_it_holds() =>
        Should.Throw<RefusedException>(() => Read(("holiday.jpg", "x"))).Refusal.ShouldSatisfyAllConditions(r => r.Code.ShouldBe("oneroster-nothing"), r => r.What.ShouldContain("holiday.jpg"));

    [Fact]
    public void A_zip_of_nothing_but_blank_lines_is_taken_for_an_attack_and_not_read()
    {
        var blank = new byte[60 * 1024 * 1024];
        Array.Fill(blank, (byte)'\n');
        "sourcedId,givenName\n"u8.CopyTo(blank);

        Should.Throw<RefusedException>(() => OneRosterBundle.Read(Zip.OfBytes(("users.csv", blank)))).Refusal.Code.ShouldBe("zip-expands");
    }

    [Fact]
    public void What_is_no_zip_is_refused() => Should.Throw<RefusedException>(() => OneRosterBundle.Read(new MemoryStream("PK broken"u8.ToArray()))).Refusal.Code.ShouldBe("zip-broken");

    [Fact]
    public void A_million_findings_are_counted_and_a_thousand_told()
    {
        var read = Read(("users.csv", "sourcedId,givenName,familyName,role\n" + string.Concat(Enumerable.Repeat(",x,y,student\n", 5000))));

        read.AllFindings.ShouldBe(5000);
        read.Findings.Count.ShouldBe(OneRosterBundle.MostFindings);
    }

    [Fact]
    public void What_goes_out_comes_in_the_same()
    {
        var bundle = new OutBundle(new("o", "Skerry, \"Point\""), [new("y", "2026–27", "schoolYear", new(2026, 8, 31), new(2027, 6, 18), null)], [new("c", "Clay")], [new("k", "Clay 6B", "c", "6B", "Shed", "3", ["y"])],
            [new("p", "Ümi", "潮", SchoolRole.Student, "1001", "u@x.invalid", "u", "6", true), new("t", "Oisín", "=SUM(A1)", SchoolRole.Teacher, null, null, "o", null, true)], [new("e1", "k", "p", ClassRole.Student, null), new("e2", "k", "t", ClassRole.Lead, new LocalDate(2026, 9, 1))]);
        using var to = new MemoryStream();
        OneRosterRosters.Write(to, bundle, Instant.FromUtc(2026, 9, 1, 0, 0));
        to.Position = 0;
        var read = OneRosterBundle.Read(to);

        read.Findings.ShouldBeEmpty();
        read.Version.ShouldBe("1.2");
        read.Delivery.People.Select(p => (p.Ref, p.Given, p.Family, p.Role, p.StudentNumber, p.Grade, p.School)).ShouldBe([("p", "Ümi", "潮", SchoolRole.Student, "1001", "6", "Skerry, \"Point\""), ("t", "Oisín", "=SUM(A1)", SchoolRole.Teacher, null, null, "Skerry, \"Point\"")]);
        read.Delivery.Classes.Single().ShouldSatisfyAllConditions(k => k.Course.ShouldBe("Clay"), k => k.Section.ShouldBe("6B"), k => k.Period.ShouldBe("3"));
        read.Delivery.Enrollments.Select(e => (e.ClassRef, e.PersonRef, e.Role)).ShouldBe([("k", "p", ClassRole.Student), ("k", "t", ClassRole.Lead)]);
    }
}
