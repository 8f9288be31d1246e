using SpringLoft.Core.Assignments;
using SpringLoft.Core.Naming;
using SpringLoft.Core.People;

namespace SpringLoft.Core.Tests.People;

public class DirectoryRulesTests
{
    private static KnownPerson Person(long id, string given, string family, string? grade = "6", string? record = null) => new(new(id), record, null, null, $"u{id}", new(given, family), grade);

    private static IReadOnlyList<(long, long)> Pairs(params KnownPerson[] people) => [.. Duplicates.Find(people, new HashSet<(PersonId, PersonId)>(), 100).Select(d => (d.A.Value, d.B.Value))];

    [Theory]
    [InlineData("Umi", "Hallgrimsson", true)] // without the accent
    [InlineData("Hallgrímsson", "Umi", true)] // the other way round
    [InlineData("Umi", "Halgrímsson", true)]
    [InlineData("Rúna", "Ravndal", false)]
    public void Close_names_in_either_order_are_shown(string given, string family, bool shown) => Pairs(Person(1, "Umi", "Hallgrímsson"), Person(2, given, family)).Count.ShouldBe(shown ? 1 : 0);

    [Fact]
    public void Two_whom_the_records_tell_apart_are_not_shown() =>
        Pairs(Person(1, "Umi", "Hall", record: "a") with { StudentNumber = "1" }, Person(2, "Umi", "Hall", record: "b") with { StudentNumber = "2" }, Person(3, "Umi", "Hall"), Person(4, "Umi", "Hall", "7", "c"), Person(5, "Umi", "Hal", record: "d"))
            .ShouldBe([(1, 3), (2, 3), (3, 4), (3, 5)], ignoreOrder: true);

    [Fact]
    public void Whom_the_records_have_twice_by_the_same_name_in_the_same_grade_with_a_number_once_at_most_is_shown() =>
        Pairs(Person(1, "Umi", "Hall", record: "a") with { StudentNumber = "1" }, Person(2, "Umi", "HALL", record: "b"), Person(3, "Umi", "Hall", "7", "c")).ShouldBe([(1, 2)]);

    [Fact]
    public void Grades_far_apart_tell_apart() => Pairs(Person(1, "Umi", "Hall", "5"), Person(2, "Umi", "Hall", "8"), Person(3, "Umi", "Hall", "6")).ShouldBe([(1, 3)]);

    [Fact]
    public void Of_whom_a_person_said_that_they_are_two_nothing_more_is_said() =>
        Duplicates.Find([Person(1, "Umi", "Hall"), Person(2, "Umi", "Hall")], new HashSet<(PersonId, PersonId)> { (new(1), new(2)) }, 10).ShouldBeEmpty();

    [Theory]
    [InlineData("{word}-{word}-{word}-{two digits}", true)]
    [InlineData("{word}{digit}{digit}{digit}{digit}", true)]
    [InlineData("{word}-{two digits}", false)]
    [InlineData("{family}{student number}", false)]
    public void A_rule_is_warned_of_where_a_classmate_could_guess(string rule, bool safe) => (FirstPassword.Judge(rule).Warning is null).ShouldBe(safe);

    [Fact]
    public void Each_word_of_a_first_password_is_drawn_anew()
    {
        var n = 0;

        FirstPassword.Make("{word}-{word}-{digit}-{grade}", new("Umi", "Hall", "1001", "6"), _ => n++).ShouldBe($"{FirstPhrase.Words[0]}-{FirstPhrase.Words[1]}-2-6");
    }

    [Theory]
    [InlineData("{grade}", "password-short")]
    [InlineData("{shoe size}-12345678", "pattern-unknown-placeholder")]
    public void A_rule_that_gives_no_password_is_refused(string rule, string code) =>
        Should.Throw<RefusedException>(() => FirstPassword.Make(rule, new UserNameParts("Umi", "Hall", "1001", "6"), _ => 0)).Refusal.Code.ShouldBe(code);
}
