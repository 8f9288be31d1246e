using SpringLoft.Core.People;
using SpringLoft.Core.Rosters;

namespace SpringLoft.Core.Tests.Rosters;

public class PastedListTests
{
    private static PersonClaim One(string text) => PastedList.Read(text).Single().Claim;

    [Theory]
    [InlineData("Hallgrímsson, Umi", "Umi", "Hallgrímsson", true)]
    [InlineData("Umi\tHallgrímsson", "Umi", "Hallgrímsson", false)]
    [InlineData("Umi Hallgrímsson", "Umi Hallgrímsson", "", false)]
    [InlineData("\"Hallgrímsson, Umi\"", "Umi", "Hallgrímsson", true)]
    public void A_name_is_read_with_what_is_known_of_its_order(string text, string given, string family, bool known)
    {
        var claim = One(text);

        (claim.Name, claim.NameOrderKnown).ShouldBe((new PersonName(given, family), known));
    }

    [Fact]
    public void Numbers_e_mails_and_grades_are_told_by_their_shape()
    {
        One("1001").StudentNumber.ShouldBe("1001");
        One("umi@tiny.invalid").Email.ShouldBe("umi@tiny.invalid");
        One("Hallgrímsson, Umi\t6\t1001\tumi@tiny.invalid").ShouldSatisfyAllConditions(
            c => c.Grade.ShouldBe("6"), c => c.StudentNumber.ShouldBe("1001"), c => c.Email.ShouldBe("umi@tiny.invalid"), c => c.Name!.Family.ShouldBe("Hallgrímsson"));
        One("s1001").UserName.ShouldBe("s1001");
    }

    [Fact]
    public void A_table_with_a_header_is_read_by_it()
    {
        var claims = PastedList.Read("Last name\tFirst name\tGrade\tStudent number\r\nRavndal\tRúna\t6\t1002\r\n\r\nHallgrímsson\tUmi\t6\t\r\n").Select(p => p.Claim).ToList();

        claims.Select(c => c.Name!.Sort).ShouldBe(["Ravndal, Rúna", "Hallgrímsson, Umi"]);
        claims.ShouldAllBe(c => c.NameOrderKnown && c.Grade == "6");
        claims.Select(c => c.StudentNumber).ShouldBe(["1002", null]);
    }

    [Theory]
    [InlineData(" \n\t\n", "list-empty")]
    [InlineData("", "list-empty")]
    public void Nobody_is_refused(string text, string code) => Should.Throw<RefusedException>(() => PastedList.Read(text)).Refusal.Code.ShouldBe(code);

    [Fact]
    public void More_than_five_hundred_are_too_many() =>
        Should.Throw<RefusedException>(() => PastedList.Read(string.Join('\n', Enumerable.Repeat("x", 501)))).Refusal.Code.ShouldBe("too-many");
}
