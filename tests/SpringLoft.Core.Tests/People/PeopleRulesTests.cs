using SpringLoft.Core.People;

namespace SpringLoft.Core.Tests.People;

public class PeopleRulesTests
{
    [Theory]
    [InlineData("Hallgrímsson", "hallgrimsson")]
    [InlineData("Łukasik", "lukasik")]
    [InlineData("Ó Flaithearta", "o flaithearta")]
    [InlineData("O'Malley", "omalley")]
    [InlineData("Fernández-Ruiz", "fernandez ruiz")]
    [InlineData("Þórr  Ægisson ", "thorr aegisson")]
    [InlineData("Ðặng", "dang")]
    [InlineData("", "")]
    public void Names_are_found_without_their_accents(string name, string key) => PersonName.SearchKey(name).ShouldBe(key);

    [Fact]
    public void Both_Unicode_forms_of_a_name_are_found_alike() => PersonName.SearchKey("Ru\u0301na").ShouldBe(PersonName.SearchKey("R\u00FAna"));

    [Fact]
    public void A_person_with_one_name_only_is_shown_and_sorted_by_it()
    {
        new PersonName("Suharto", "").ShouldSatisfyAllConditions(n => n.Display.ShouldBe("Suharto"), n => n.Sort.ShouldBe("Suharto"));
        new PersonName("", "Umi").Sort.ShouldBe("Umi");
    }

    [Theory]
    [InlineData("short", "password-short")]
    [InlineData("aaaabbbb", "password-plain")]
    [InlineData("my-s1001-word", "password-has-name")]
    // Of the lists of passwords that leaked most often (common practice), with letters swapped for signs too.
    [InlineData("password123", "password-weak")]
    [InlineData("P@ssw0rd!", "password-weak")]
    [InlineData("iloveyou1", "password-weak")]
    [InlineData("qwertyuiop", "password-weak")]
    [InlineData("12345678", "password-weak")]
    [InlineData("footballfootball", "password-weak")]
    [InlineData("2012-05-14", "password-weak")]
    // Their own names, and the school's in one word.
    [InlineData("ravndal9", "password-weak")]
    [InlineData("skerrypoint1", "password-weak")]
    public void A_bad_new_password_is_refused_with_the_reason(string password, string code) => SignInRules.CheckNew(password, "s1001", false, false, ["Umi Ravndal", "1001", "Skerry Point School"])!.Code.ShouldBe(code);

    [Fact]
    public void Staff_need_a_stronger_password_than_students()
    {
        SignInRules.CheckNew("bluewhale7", "s1001", false, isStaff: false, Array.Empty<string>()).ShouldBeNull();
        SignInRules.CheckNew("bluewhale7", "lead", false, isStaff: true, Array.Empty<string>())!.Code.ShouldBe("password-weak");
    }

    [Fact]
    public void A_new_password_is_not_the_old_one_and_not_endless()
    {
        SignInRules.CheckNew("blue-otter-walks", "s1001", true, true, Array.Empty<string>())!.Code.ShouldBe("password-same");
        SignInRules.CheckNew(new string('x', 129), "s1001", false, true, Array.Empty<string>())!.Code.ShouldBe("password-long");
        SignInRules.CheckNew("blue-otter-walks", "s1001", false, true, Array.Empty<string>()).ShouldBeNull();
    }

    [Theory]
    [InlineData(4, 0)]
    [InlineData(5, 2)]
    [InlineData(6, 4)]
    [InlineData(10, 64)]
    [InlineData(14, 900)]
    [InlineData(1000, 900)]
    public void Wrong_passwords_in_a_row_make_the_wait_longer(int wrong, int seconds) => SignInRules.WaitAfter(wrong).ShouldBe(Duration.FromSeconds(seconds));
}
