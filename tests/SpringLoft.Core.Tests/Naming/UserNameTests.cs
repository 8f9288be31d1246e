using CsCheck;
using SpringLoft.Core.Naming;

namespace SpringLoft.Core.Tests.Naming;

public class UserNameTests
{
    private static MadeUserName Make(string pattern, string given, string family, string? number = null, params string[] taken) =>
        UserName.Make(pattern, new(given, family, number, "6"), taken.ToHashSet());

    [Theory]
    [InlineData("{first letter}{family}{student number}", "Øykü", "Žemaitis", "1004", "ozemaitis1004")]
    [InlineData("{family}.{given}", "Nguyễn", "Ó Flaithearta", null, "oflaithearta.nguyen")]
    [InlineData("s{student number}", "Umi", "Ravndal", "1001", "s1001")]
    [InlineData("{given}", "山田", "太郎", null, "shantian")]
    public void Letters_of_any_script_become_plain_ones(string pattern, string given, string family, string? number, string made) => Make(pattern, given, family, number).Name.ShouldBe(made);

    [Fact]
    public void A_name_that_was_ever_given_is_told_apart_by_a_number()
    {
        var made = Make("{given}", "Umi", "Ravndal", null, "umi", "umi2");

        (made.Name, made.ToldApart).ShouldBe(("umi3", true));
    }

    [Fact]
    public void What_was_replaced_is_told()
    {
        Make("{given}", "Zoë", "R").Said.ShouldBe("zoë");
        Make("{given}", "Zoe", "R").Said.ShouldBeNull();
    }

    [Theory]
    [InlineData("{student number}", "user-name-empty")]
    [InlineData("{shoe size}", "pattern-unknown-placeholder")]
    public void A_pattern_that_leaves_nothing_or_asks_for_what_is_not_known_is_refused(string pattern, string code) =>
        Should.Throw<RefusedException>(() => Make(pattern, "Umi", "Ravndal")).Refusal.Code.ShouldBe(code);

    [Fact]
    public void Whatever_the_names_user_names_are_plain_and_no_two_alike() =>
        Gen.Select(Gen.String[1, 20], Gen.String[1, 20]).List[1, 30].Sample(people =>
        {
            var taken = new HashSet<string>();
            for (var i = 0; i < people.Count; i++)
            {
                var made = UserName.Make("{given}{family}{student number}", new(people[i].Item1, people[i].Item2, i % 3 == 0 ? "7" : $"{i}", null), taken);
                made.Name.ShouldAllBe(c => char.IsAsciiLetterLower(c) || char.IsAsciiDigit(c) || c == '.' || c == '-');
                made.Name.Length.ShouldBeInRange(1, UserName.MaxLength);
                taken.Add(made.Name).ShouldBeTrue();
            }
        }, iter: 500);
}
